// Notices in the frame: what posts their messages, and what is on screen of them.
#include <algorithm>

#include "hud/element_context.hpp"

namespace rapido {
namespace {

Seconds length_of(const Effect* effect) {
    return effect != nullptr ? effect->duration * std::max(effect->repeat, 1) : Seconds{0};
}

/// What it is called in events.
const std::string& name_of(const NoticeBody& body, std::size_t message) {
    return body.message(message).id.empty() ? body.text_of(message) : body.message(message).id;
}

}  // namespace

std::unique_ptr<RunningNotice> Hud::State::make_notice(const Notice& notice, BodyContext& context) {
    const auto effect = [&](const std::string& name, std::string_view field) -> const Effect* {
        Problem problem;
        if (name.empty()) return nullptr;
        const Effect* const found = find_effect(name, problem);
        if (found == nullptr)
            context.report(field, problem.message, problem.hint);
        else if (found->repeat == 0)
            context.report(field, "effect '" + name + "' never ends");
        return found;
    };
    auto made = std::make_unique<RunningNotice>();
    made->enter = effect(notice.enter, "enter");
    made->leave = effect(notice.leave, "leave");
    made->queue = NoticeQueue(length_of(made->enter), length_of(made->leave), notice.gap);
    made->reading = notice.reading;
    for (std::size_t i = 0; i < notice.messages.size(); ++i) {
        const Message& message = notice.messages[i];
        const std::string field = "messages." + std::to_string(i);
        RunningNotice::Post& post = made->posts.emplace_back();
        post.by_event = message.on.has_value();
        post.element = message.element;
        post.trigger = RunningTrigger({.on = message.on.value_or(TriggerOn::start),
                                       .effect = "",
                                       .band = message.band,
                                       .timer = message.timer,
                                       .at = message.at},
                                      nullptr);
        if (!message.on) continue;
        if (message.on == TriggerOn::gain || message.on == TriggerOn::loss)
            context.report(field + ".on", "a message cannot be posted by a gain or a loss");
        else if (!is_of_timer(*message.on) && message.element.empty())
            context.report(field, "needs 'element'");
        else if (is_of_timer(*message.on) && message.timer.empty())
            context.report(field, "needs 'timer'");
        else if (is_of_timer(*message.on) && !timer_indices.contains(message.timer))
            context.report(field + ".timer", "no timer '" + message.timer + "'",
                           hint(message.timer, [this] { return timer_names(); }));
    }
    return made;
}

/// Whose events post messages: elements may be named before they are made.
void Hud::State::find_speakers(const Notice& notice, const Origin* origin) {
    ElementContext context(problems, "notice '" + notice.id + "'", origin, formats);
    const std::string path = notice.inside.empty() ? notice.id : notice.inside + "." + notice.id;
    const auto own = paths.find(path);
    for (std::size_t i = 0; i < notice.messages.size() && own != paths.end(); ++i) {
        if (notice.messages[i].element.empty()) continue;
        Problem problem;
        const ElementIndex speaker = find_element(notice.messages[i].element, problem);
        if (speaker == no_element)
            context.report("messages." + std::to_string(i) + ".element", problem.message, problem.hint);
        else if (RunningNotice* const running = elements[own->second].notice.get())
            running->posts[i].element = elements[speaker].path;
    }
}

void Hud::State::post(RunningNotice& notice, std::size_t index, Nanoseconds at) {
    const Message& message = notice.body->message(index);
    notice.queue.post({.key = static_cast<std::uint32_t>(index),
                       .priority = message.priority,
                       .time = message.time.value_or(notice.reading.of(notice.body->text_of(index))),
                       .lasting = message.lasting,
                       .expires = message.expires},
                      at);
}

/// By the events of this frame, in their order, and by sources that became true in it.
void Hud::State::post_messages() {
    for (const ElementIndex index : notices) {
        RunningNotice& notice = *elements[index].notice;
        for (const Event& event : events.all())
            for (std::size_t i = 0; i < notice.posts.size(); ++i) {
                const RunningNotice::Post& own = notice.posts[i];
                if (own.by_event && own.trigger.waits_for(event, own.element)) post(notice, i, event.time);
            }
        notice.queue.hold(!notice.seen, now);
        for (std::size_t i = 0; i < notice.posts.size(); ++i) {
            RunningNotice::Post& own = notice.posts[i];
            if (own.when == no_source) continue;
            const bool lasting = notice.body->message(i).lasting;
            const bool is_true = scan.value(own.when).truth();
            if (is_true && !own.was_true && (notice.begun || lasting)) post(notice, i, now);
            if (!is_true && own.was_true && lasting)
                notice.queue.take_away(static_cast<std::uint32_t>(i), now);
            own.was_true = is_true;
        }
        notice.begun = true;
        notice.queue.advance(now);
        const bool speaks = notice.seen && notice.queue.shown() != nullptr;
        if (speaks == elements[index].shown) continue;
        elements[index].shown = speaks;
        must_measure(elements[index].parent);
        mark_changed(index);
    }
}

/// Only what is true for as long as it stays survives a snap, and is there at once.
void Hud::State::snap_notice(RunningNotice& notice) {
    notice.queue.clear();
    notice.queue.forget_changes();
    notice.body->forget_posted();
    notice.begun = false;
    for (RunningNotice::Post& own : notice.posts)
        own.was_true = false;
}

/// Takes over what became of the messages in this frame.
void Hud::State::show_messages() {
    for (const ElementIndex index : notices) {
        RunningElement& element = elements[index];
        RunningNotice& notice = *element.notice;
        for (const NoticeChange& change : notice.queue.changes()) {
            const std::size_t message = change.key;
            const auto tell = [&](EventKind kind) {
                report_event({change.time, element.path, kind, name_of(*notice.body, message)});
            };
            switch (change.kind) {
                case NoticeChange::Kind::enter:
                    tell(EventKind::enter);
                    if (notice.enter != nullptr && !reduced_motion)
                        play(index, *notice.enter, change.time, 1, PlayAs::enter);
                    break;
                case NoticeChange::Kind::leave:
                    tell(EventKind::leave);
                    if (notice.leave != nullptr && !reduced_motion)
                        play(index, *notice.leave, change.time, 1, PlayAs::leave);
                    break;
                case NoticeChange::Kind::gone:
                    if (element.effects != nullptr) element.effects->player.clear();
                    break;
                case NoticeChange::Kind::skip:
                    tell(EventKind::skipped);
                    break;
            }
        }
        // Only now: a message may go and come again within one long frame.
        for (const NoticeChange& change : notice.queue.changes())
            if (!notice.queue.has(change.key)) notice.body->forget(change.key);
        notice.queue.forget_changes();
        const PostedMessage* const shown = notice.queue.shown();
        if (notice.body->select(shown != nullptr ? shown->key : NoticeBody::no_message, notice.queue.count()))
            refresh(index);
    }
}

bool Hud::notify(ElementRef ref, const Message& message) {
    if (!state_->may("notify")) return false;
    RunningElement* const element = state_->living(ref);
    if (element == nullptr || element->notice == nullptr) {
        state_->report({{}, "only a notice can be notified", ""});
        return false;
    }
    ElementContext context(state_->problems, "a message of notice '" + element->path + "'", nullptr,
                           state_->formats);
    check_ranges(message_table(), &message, [&](std::string_view field, const Field& range) {
        context.report(field, "must be " + range_of(range), "");
    });
    if (context.failed()) return false;
    std::string storage;
    state_->is_reading = true;
    const Value value = message.value.read(storage);
    state_->is_reading = false;
    const std::size_t index = element->notice->body->add(message, value, state_->language.get(), context);
    if (index == NoticeBody::no_message) return false;
    state_->post(*element->notice, index, state_->now);
    return true;
}

bool Hud::notify(ElementRef ref, std::string_view message) {
    if (!state_->may("notify")) return false;
    RunningElement* const element = state_->living(ref);
    const std::size_t index = element != nullptr && element->notice != nullptr
                                  ? element->notice->body->find(message)
                                  : NoticeBody::no_message;
    if (index == NoticeBody::no_message) {
        state_->report({{}, "no message '" + std::string(message) + "' of a notice", ""});
        return false;
    }
    state_->post(*element->notice, index, state_->now);
    return true;
}

bool Hud::dismiss(ElementRef ref, std::string_view message) {
    if (!state_->may("dismiss")) return false;
    RunningElement* const element = state_->living(ref);
    if (element == nullptr || element->notice == nullptr) return false;
    const std::size_t index = element->notice->body->find(message);
    if (index == NoticeBody::no_message || !element->notice->queue.has(static_cast<std::uint32_t>(index)))
        return false;
    element->notice->queue.take_away(static_cast<std::uint32_t>(index), state_->now);
    return true;
}

}  // namespace rapido
