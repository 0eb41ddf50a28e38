// What a game lets notices say.
#include "hud/state.hpp"

namespace rapido {
namespace {

/// The notice that a reference means, of a plate its log; null for none.
RunningNotice* find_notice(const Parts& hud, ElementRef ref) {
    const ElementIndex index = hud.elements.living(ref);
    return index != no_element ? hud.notices.find_speaker(index) : nullptr;
}

}  // namespace

bool Hud::notify(ElementRef ref, const Message& message) {
    if (!state_->may("notify")) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    if (notice == nullptr) {
        state_->problems.report({{}, "only a notice can be notified", "", ProblemCode::bad_call});
        return false;
    }
    ElementContext context(state_->problems, "a message of " + state_->elements[notice->element].name(),
                           nullptr, state_->formats);
    context.check_numbers(message_table(), &message);
    state_->equip(context);
    if (context.failed()) return false;
    std::string storage;
    const Value value = state_->bindings.read_once(message.value, storage);
    Message themed = message;
    if (themed.color) state_->themes.apply(*themed.color);
    if (!notice->queue.has_room_for(message.priority)) {
        state_->problems.report({{},
                                 state_->elements[notice->element].name() + ": more than " +
                                     std::to_string(NoticeQueue::most_waiting) +
                                     " messages wait; others are left out",
                                 "merge them into one, or let them expire",
                                 ProblemCode::too_much,
                                 Severity::warning});
        return false;
    }
    Messages& messages = notice->body->messages();
    const std::size_t index = messages.add(themed, value, state_->language.get(), context);
    if (index == Messages::none) return false;
    if (context.failed()) {
        messages.forget(index);
        return false;
    }
    if (state_->recording != nullptr)
        state_->recording->call({.name = "notify",
                                 .element = state_->elements[notice->element].path,
                                 .value = value,
                                 .type = message.value.binding().type(),
                                 .use = message.value.binding().use(),
                                 .detail = &message});
    state_->notices.post(*notice, index, state_->time.now());
    return true;
}

bool Hud::notify(ElementRef ref, std::string_view message) {
    if (!state_->may({.name = "notify", .text = message}, &ref)) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
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
    if (!state_->may({.name = "dismiss", .text = message}, &ref)) return false;
    RunningNotice* const notice = find_notice(*state_, ref);
    return notice != nullptr && state_->notices.take_away(*notice, message, state_->time.now());
}

std::span<const Announcement> Hud::announcements() const {
    return state_->notices.announcements();
}

}  // namespace rapido
