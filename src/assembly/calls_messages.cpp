// What a game lets notices say.
#include "hud/call.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

struct Notify {
    std::string element{};
    std::optional<std::string> message{};
    HudDefinition part{};
    KeptValue value{};
    std::optional<GivenType> type{};
    std::optional<detail::ValueUse> use{};

    std::optional<Message> own() const {
        const auto notice = part.elements.size() == 1 ? part.elements.front().as<Notice>() : std::nullopt;
        return notice && notice->messages.size() == 1 ? std::optional(notice->messages.front()) : std::nullopt;
    }
    std::string_view lacks() const { return message || own() ? "" : "hud"; }
};
constexpr std::array notify_fields{
    field<&Notify::element>("element", "The path of the notice."),
    field<&Notify::message>("message", "The id of one of its messages."),
    field<&Notify::value>("value", "What {} shows in a message of its own."),
    field<&Notify::type>("type", "The type of the source of that value, where it is fixed."),
    field<&Notify::use>("use", "What the value is for."),
    field<&Notify::part>("hud", "A message of its own: a HUD file of a notice with that one message."),
};
void apply(const Notify& call, CallStage& at) {
    const ElementRef notice = at.element(call.element);
    if (call.message) return void(at.hud.notify(notice, *call.message));
    Message message = *call.own();
    if (call.value.get().has_value() || call.type) message.value = source_of(call.value, call.type, call.use);
    at.hud.notify(notice, message);
}
constexpr auto notify_call =
    call_kind<Notify>("notify", "Lets a notice say something.", notify_fields, {.lasts = false});

struct Dismiss {
    std::string element{}, message{};
};
constexpr std::array dismiss_fields{
    field<&Dismiss::element>("element", "The path of the notice."),
    field<&Dismiss::message>("message", "The id of the message."),
};
void apply(const Dismiss& call, CallStage& at) {
    at.hud.dismiss(at.element(call.element), call.message);
}
constexpr auto dismiss_call = call_kind<Dismiss>("dismiss", "Takes a message away.", dismiss_fields, {.lasts = false});

constexpr std::array<const CallKind*, 2> messages_kinds{&notify_call, &dismiss_call};

/// The notice that a reference means, of a plate its log; null for none.
RunningNotice* find_notice(const Parts& hud, ElementRef ref) {
    const ElementIndex index = hud.elements.living(ref);
    return index != no_element ? hud.notices.find_speaker(index) : nullptr;
}

}  // namespace

CallKinds message_calls() {
    return messages_kinds;
}

bool Hud::notify(ElementRef ref, const Message& message) {
    if (!state_->may(notify_call)) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    if (notice == nullptr) {
        state_->problems.report({{}, "only a notice can be notified", "", ProblemCode::bad_call});
        return false;
    }
    ElementContext context(state_->problems, "a message of " + state_->elements[notice->element].name(), nullptr,
                           state_->formats);
    context.check_numbers(message_table(), &message);
    state_->equip(context);
    if (!message.value.name().empty() && !state_->bindings.is_known(message.value.name()))
        context.report(
            "value", "unknown source '" + message.value.name() + "'",
            "a text in quotes is a name: write rapido::constant(...) for its characters, or give them in 'text'",
            ProblemCode::unknown_source);
    if (context.failed()) return false;
    std::string storage;
    const Value value = state_->bindings.read_once(message.value.binding(), storage);
    Message themed = message;
    if (themed.color) state_->themes.apply(*themed.color);
    if (!notice->queue.has_room_for(message.priority)) {
        state_->problems.report({{},
                                 state_->elements[notice->element].name() + ": more than " +
                                     std::to_string(NoticeQueue::most_waiting) + " messages wait; others are left out",
                                 "merge them into one, or let them expire",
                                 ProblemCode::too_much,
                                 Severity::warning});
        return false;
    }
    Messages& messages = notice->body->messages();
    const std::size_t index = messages.add(themed, value, state_->settings.language.get(), context);
    if (index == Messages::none) return false;
    if (context.failed()) {
        messages.forget(index);
        return false;
    }
    state_->note(notify_call, [&] {
        Message plain = message;
        plain.value = plain.when = {};
        const std::optional<Value::Type> type = message.value.binding().type();
        const detail::ValueUse use = message.value.binding().use();
        return Notify{.element = state_->elements[notice->element].path,
                      .message = {},
                      .part = {.elements = {Notice{.id = "notice", .messages = {plain}}}},
                      .value = value,
                      .type = type ? std::optional(static_cast<GivenType>(*type)) : std::nullopt,
                      .use = use != detail::ValueUse::amount ? std::optional(use) : std::nullopt};
    });
    state_->notices.post(*notice, index, state_->time.now());
    return true;
}

bool Hud::notify(ElementRef ref, std::string_view message) {
    if (!state_->may(notify_call)) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    if (notice != nullptr)
        state_->note(notify_call, [&] {
            return Notify{.element = state_->elements[state_->elements.living(ref)].path,
                          .message = std::string(message),
                          .part = {},
                          .value = {},
                          .type = {},
                          .use = {}};
        });
    const std::size_t index = notice != nullptr ? notice->body->messages().find(message) : Messages::none;
    if (index == Messages::none) {
        state_->problems.report(
            {{}, "no message '" + std::string(message) + "' of a notice", "", ProblemCode::unknown_name});
        return false;
    }
    state_->notices.post(*notice, index, state_->time.now());
    return true;
}

bool Hud::dismiss(ElementRef ref, std::string_view message) {
    const ElementIndex index = state_->target(dismiss_call, ref);
    if (index == no_element) return false;
    state_->note(dismiss_call, [&] { return Dismiss{state_->elements[index].path, std::string(message)}; });
    RunningNotice* const notice = find_notice(*state_, ref);
    return notice != nullptr && state_->notices.take_away(*notice, message, state_->time.now());
}

std::span<const Announcement> Hud::announcements() const {
    return state_->notices.announcements();
}

}  // namespace rapido
