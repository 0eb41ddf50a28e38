#include "hud/notices.hpp"

#include <algorithm>

#include "hud/visibility.hpp"

namespace rapido {

void Notices::add(std::unique_ptr<RunningNotice> notice) {
    all_.push_back(std::move(notice));
}

void Notices::remove(ElementIndex element) {
    const RunningNotice* const notice = find(element);
    if (notice == nullptr) return;
    const std::span<const RunningNotice::Post> posts = notice->posts;
    std::erase_if(by_speaker_, [posts](const auto& known) {
        return known.second >= posts.data() && known.second < posts.data() + posts.size();
    });
    std::erase_if(all_, [notice](const auto& other) { return other.get() == notice; });
}

void Notices::replace(ElementIndex element, std::unique_ptr<RunningNotice> notice) {
    RunningNotice* const before = find(element);
    if (before != nullptr && before->posts.size() == notice->posts.size()) {
        const NoticeQueue made = std::move(notice->queue);
        notice->queue = std::move(before->queue);
        notice->queue.take_course(made);
        notice->begun = before->begun;
        for (std::size_t i = 0; i < notice->posts.size(); ++i)
            notice->posts[i].was_true = before->posts[i].was_true;
    }
    remove(element);
    add(std::move(notice));
}

RunningNotice* Notices::find(ElementIndex element) const {
    const auto found = std::find_if(all_.begin(), all_.end(),
                                    [element](const auto& notice) { return notice->element == element; });
    return found != all_.end() ? found->get() : nullptr;
}

void Notices::listen(RunningNotice::Post& post, const std::string& path, const std::vector<Band>& bands) {
    by_speaker_.emplace(path, &post);
    post.on.subject = elements_.at(path);
    post.on.bands = bands_named(bands, post.band);
}

void Notices::add_speaker(ElementIndex element, const std::vector<Band>& bands) {
    const auto [first, last] = by_speaker_.equal_range(elements_[element].path);
    for (auto known = first; known != last; ++known) {
        known->second->on.subject = element;
        known->second->on.bands = bands_named(bands, known->second->band);
    }
}

void Notices::remove_speaker(ElementIndex element) {
    const auto [first, last] = by_speaker_.equal_range(elements_[element].path);
    for (auto known = first; known != last; ++known)
        known->second->on.subject = no_element;
}

void Notices::post(RunningNotice& notice, std::size_t index, Nanoseconds at) {
    const Message& message = notice.body->message(index);
    notice.queue.post(
        {.key = static_cast<std::uint32_t>(index),
         .priority = message.priority,
         .time = message.time.value_or(notice.body->course().reading.of(notice.body->text_of(index))),
         .lasting = message.lasting,
         .expires = message.expires},
        at);
}

void Notices::post_messages(std::span<const Happening> happenings, const FrameTime& time,
                            const Bindings& bindings, Visibility& visibility) {
    for (const auto& running : all_) {
        RunningNotice& notice = *running;
        for (const Happening& happening : happenings)
            for (std::size_t i = 0; i < notice.posts.size(); ++i)
                if (happening.is_event && notice.posts[i].by_event && notice.posts[i].on.waits_for(happening))
                    post(notice, i, happening.time);
        const Nanoseconds now = time.now();
        notice.queue.hold(!visibility.may_speak(notice.element), now);
        for (std::size_t i = 0; i < notice.posts.size(); ++i) {
            RunningNotice::Post& own = notice.posts[i];
            if (own.when == no_source) continue;
            const bool lasting = notice.body->message(i).lasting;
            const bool is_true = bindings.is_true(own.when);
            if (is_true && !own.was_true && (notice.begun || lasting)) post(notice, i, now);
            if (!is_true && own.was_true && lasting)
                notice.queue.take_away(static_cast<std::uint32_t>(i), now);
            own.was_true = is_true;
        }
        notice.begun = true;
        notice.queue.advance(now);
        visibility.set_speaking(notice.element, notice.queue.shown() != nullptr);
    }
}

void Notices::snap(ElementIndex element) {
    RunningNotice* const notice = find(element);
    if (notice == nullptr) return;
    notice->queue.clear();
    notice->queue.forget_changes();
    notice->body->forget_posted();
    notice->begun = false;
    for (RunningNotice::Post& own : notice->posts)
        own.was_true = false;
}

bool Notices::show(RunningNotice& notice, Happenings& happenings) {
    for (const NoticeChange& change : notice.queue.changes()) {
        Happening told{.time = change.time, .subject = notice.element};
        switch (change.kind) {
            case NoticeChange::Kind::enter:
                told.kind = HappeningKind::message_enter;
                break;
            case NoticeChange::Kind::leave:
                told.kind = HappeningKind::message_leave;
                break;
            case NoticeChange::Kind::gone:
                told.kind = HappeningKind::message_gone;
                told.is_event = false;
                break;
            case NoticeChange::Kind::skip:
                told.kind = HappeningKind::message_skipped;
                break;
        }
        if (told.is_event) {
            // By its id, else by its words, which may be gone before the events are written.
            const std::string& id = notice.body->message(change.key).id;
            told.detail = static_cast<std::int64_t>(texts_.size());
            texts_.emplace_back(id.empty() ? notice.body->text_of(change.key) : std::string_view(id));
        }
        happenings.add(told);
    }
    // Only now: a message may go and come again within one long frame.
    for (const NoticeChange& change : notice.queue.changes())
        if (!notice.queue.has(change.key)) notice.body->forget(change.key);
    notice.queue.forget_changes();
    const PostedMessage* const shown = notice.queue.shown();
    return notice.body->select(shown != nullptr ? shown->key : NoticeBody::no_message, notice.queue.count());
}

}  // namespace rapido
