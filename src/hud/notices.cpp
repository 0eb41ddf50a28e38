#include "hud/notices.hpp"

#include <algorithm>
#include <utility>

#include "hud/visibility.hpp"

namespace rapido {

void Notices::add(std::unique_ptr<RunningNotice> notice) {
    by_element_[notice->element] = notice.get();
    all_.push_back(std::move(notice));
}

void Notices::forget_posts(const RunningNotice& notice) {
    const std::span<const RunningNotice::Post> posts = notice.posts;
    std::erase_if(by_speaker_, [posts](const auto& known) {
        return known.second >= posts.data() && known.second < posts.data() + posts.size();
    });
}

/// What is said in this place is gone with its plate.
void Notices::close(RunningNotice& log, std::size_t place) {
    const PostedMessage* const shown = log.queue.shown(place);
    const std::uint32_t key = shown != nullptr ? shown->key : 0;
    const bool any = shown != nullptr;
    log.queue.close(place);
    if (any && !log.queue.has(key)) log.body->messages().forget(key);
}

void Notices::remove(ElementIndex element) {
    const RunningNotice* const notice = find(element);
    if (notice == nullptr) return;
    forget_posts(*notice);
    if (RunningNotice* const log = find(notice->log)) {
        const auto known = std::find(log->plates.begin(), log->plates.end(), element);
        if (known != log->plates.end()) {
            *known = no_element;
            close(*log, static_cast<std::size_t>(known - log->plates.begin()));
        }
        std::erase(log->order, element);
    }
    by_element_.erase(element);
    std::erase_if(all_, [notice](const auto& other) { return other.get() == notice; });
}

void Notices::replace(ElementIndex element, std::unique_ptr<RunningNotice> notice) {
    const auto known =
        std::find_if(all_.begin(), all_.end(), [element](const auto& other) { return other->element == element; });
    if (known == all_.end()) return add(std::move(notice));
    RunningNotice* const before = known->get();
    if (before->posts.size() == notice->posts.size()) {
        const NoticeQueue made = std::move(notice->queue);
        notice->queue = std::move(before->queue);
        notice->queue.take_course(made);
        notice->begun = before->begun;
        notice->snapped = before->snapped;
        for (std::size_t i = 0; i < notice->posts.size(); ++i)
            notice->posts[i].was_true = before->posts[i].was_true;
    }
    notice->log = before->log;
    notice->plates = before->plates;
    notice->order = before->order;
    notice->newest_first = before->newest_first;
    forget_posts(*before);
    by_element_[element] = notice.get();
    *known = std::move(notice);
}

RunningNotice* Notices::find(ElementIndex element) const {
    const auto found = by_element_.find(element);
    return found != by_element_.end() ? found->second : nullptr;
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

void Notices::set_plates(ElementIndex log, const Notice& description, std::span<const ElementIndex> plates) {
    RunningNotice& notice = *find(log);
    notice.plates.assign(plates.begin(), plates.end());
    if (notice.order.empty()) notice.order = notice.plates;
    std::erase(notice.order, no_element);
    notice.newest_first = description.newest == Newest::first;
    order_.add(log, description.place_motion);
    for (std::size_t place = 0; place < notice.plates.size(); ++place) {
        RunningNotice* const shows = plate(notice, place);
        if (shows == nullptr) {
            close(notice, place);
            continue;
        }
        shows->log = log;
        shows->body->say_for(*notice.body);
    }
}

RunningNotice* Notices::find_speaker(ElementIndex element) const {
    RunningNotice* const notice = find(element);
    return notice != nullptr && notice->log != no_element ? find(notice->log) : notice;
}

ElementIndex Notices::known_as(ElementIndex element) const {
    const RunningNotice* const notice = find(element);
    return notice != nullptr && notice->log != no_element ? notice->log : element;
}

/// What shows the messages of a place: the notice itself, or a plate of a log; null where that was removed.
RunningNotice* Notices::plate(RunningNotice& notice, std::size_t place) const {
    if (notice.plates.empty()) return &notice;
    return notice.plates[place] != no_element ? find(notice.plates[place]) : nullptr;
}

void Notices::put_newest(RunningNotice& log, ElementIndex plate) {
    const auto known = std::find(log.order.begin(), log.order.end(), plate);
    if (known == log.order.end()) return;
    std::rotate(known, known + 1, log.order.end());
    std::vector<ElementIndex> order = log.order;
    if (log.newest_first) std::reverse(order.begin(), order.end());
    order_.set_last(log.element, order);
    order_.snap(log.element, plate);
}

void Notices::post(RunningNotice& notice, std::size_t index, Nanoseconds at) {
    const Messages& messages = notice.body->messages();
    const Message& message = messages.message(index);
    notice.queue.post({.key = static_cast<std::uint32_t>(index),
                       .priority = message.priority,
                       .show_for = message.show_for.value_or(notice.body->course().reading.of(messages.text_of(index))),
                       .lasting = message.lasting,
                       .expires = message.expires},
                      at);
}

void Notices::post_messages(std::span<const Happening> happenings, const FrameTime& time, const Bindings& bindings,
                            Visibility& visibility) {
    for (const auto& running : all_) {
        RunningNotice& notice = *running;
        if (notice.log != no_element) continue;
        notice.snapped = false;
        for (const Happening& happening : happenings)
            for (std::size_t i = 0; i < notice.posts.size(); ++i)
                if (happening.is_event && notice.posts[i].by_event && notice.posts[i].on.waits_for(happening))
                    post(notice, i, happening.time);
        const Nanoseconds now = time.now();
        for (std::size_t place = 0; place < notice.queue.places(); ++place)
            if (const RunningNotice* const shows = plate(notice, place))
                notice.queue.hold(!visibility.may_speak(shows->element), now, place);
        for (std::size_t i = 0; i < notice.posts.size(); ++i) {
            RunningNotice::Post& own = notice.posts[i];
            if (own.when == no_source) continue;
            const bool lasting = notice.body->messages().message(i).lasting;
            const bool is_true = bindings.is_true(own.when);
            const Nanoseconds at = bindings.moment(own.when);
            if (is_true && !own.was_true && (notice.begun || lasting)) post(notice, i, at);
            if (!is_true && own.was_true && lasting) notice.queue.take_away(static_cast<std::uint32_t>(i), at);
            own.was_true = is_true;
        }
        notice.begun = true;
        notice.queue.advance(now);
        for (std::size_t place = 0; place < notice.queue.places(); ++place)
            if (const RunningNotice* const shows = plate(notice, place))
                visibility.set_speaking(shows->element, notice.queue.shown(place) != nullptr);
    }
}

bool Notices::take_away(RunningNotice& notice, std::string_view id, Nanoseconds at) {
    const std::size_t index = notice.body->messages().find(id);
    if (index == Messages::none || !notice.queue.has(static_cast<std::uint32_t>(index))) return false;
    notice.queue.take_away(static_cast<std::uint32_t>(index), at);
    return true;
}

void Notices::snap(ElementIndex element) {
    RunningNotice* const notice = find(element);
    if (notice == nullptr || notice->log != no_element || std::exchange(notice->snapped, true)) return;
    notice->queue.clear();
    notice->queue.forget_changes();
    notice->body->messages().forget_posted();
    notice->begun = false;
    for (RunningNotice::Post& own : notice->posts)
        own.was_true = false;
}

/// Tells what became of the messages.
void Notices::tell(RunningNotice& notice, Happenings& happenings) {
    Messages& messages = notice.body->messages();
    for (const NoticeChange& change : notice.queue.changes()) {
        const RunningNotice* const shows =
            change.kind != NoticeChange::Kind::skip ? plate(notice, change.place) : nullptr;
        Happening told{.time = change.time, .subject = shows != nullptr ? shows->element : notice.element};
        switch (change.kind) {
            case NoticeChange::Kind::enter:
                put_newest(notice, told.subject);
                announcements_.push_back({elements_[notice.element].path, messages.spoken(change.key),
                                          messages.message(change.key).priority});
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
        if (!notice.plates.empty() && told.kind != HappeningKind::message_skipped)
            order_.note(notice.element, change.time);
        if (told.is_event) {
            // By its id, else by its words, which may be gone before the events are written.
            const std::string& id = messages.message(change.key).id;
            told.detail = static_cast<std::int64_t>(texts_.size());
            texts_.emplace_back(id.empty() ? messages.text_of(change.key) : std::string_view(id));
        }
        happenings.add(told);
    }
    // Only now: a message may go and come again within one long frame.
    for (const NoticeChange& change : notice.queue.changes())
        if (!notice.queue.has(change.key)) messages.forget(change.key);
    notice.queue.forget_changes();
}

bool Notices::select(const RunningNotice& notice, RunningNotice& plate, std::size_t place) {
    const PostedMessage* const shown = notice.queue.shown(place);
    return plate.body->select(shown != nullptr ? shown->key : Messages::none, notice.queue.count(place));
}

}  // namespace rapido
