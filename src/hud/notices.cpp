#include "hud/notices.hpp"

#include <algorithm>
#include <tuple>

#include "hud/visibility.hpp"

namespace rapido {

void Notices::add(std::unique_ptr<RunningNotice> notice) {
    all_.push_back(std::move(notice));
}

void Notices::forget_posts(const RunningNotice& notice) {
    const std::span<const RunningNotice::Post> posts = notice.posts;
    std::erase_if(by_speaker_, [posts](const auto& known) {
        return known.second >= posts.data() && known.second < posts.data() + posts.size();
    });
}

void Notices::remove(ElementIndex element) {
    const RunningNotice* const notice = find(element);
    if (notice == nullptr) return;
    forget_posts(*notice);
    if (RunningNotice* const log = find(notice->log)) std::erase(log->plates, element);
    std::erase_if(all_, [notice](const auto& other) { return other.get() == notice; });
}

void Notices::replace(ElementIndex element, std::unique_ptr<RunningNotice> notice) {
    const auto known = std::find_if(all_.begin(), all_.end(),
                                    [element](const auto& other) { return other->element == element; });
    if (known == all_.end()) return add(std::move(notice));
    RunningNotice* const before = known->get();
    if (before->posts.size() == notice->posts.size()) {
        const NoticeQueue made = std::move(notice->queue);
        notice->queue = std::move(before->queue);
        notice->queue.take_course(made);
        notice->begun = before->begun;
        for (std::size_t i = 0; i < notice->posts.size(); ++i)
            notice->posts[i].was_true = before->posts[i].was_true;
    }
    notice->log = before->log;
    notice->plates = before->plates;
    notice->newest_first = before->newest_first;
    forget_posts(*before);
    *known = std::move(notice);
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

void Notices::set_plates(ElementIndex log, const Notice& description, std::span<const ElementIndex> plates) {
    RunningNotice& notice = *find(log);
    notice.plates.assign(plates.begin(), plates.end());
    notice.newest_first = description.newest == Newest::first;
    order_.add(log, description.place_motion);
    for (const ElementIndex plate : plates)
        find(plate)->log = log;
}

RunningNotice& Notices::plate_for(RunningNotice& notice, int priority,
                                  const std::function<bool(const RunningNotice&)>& says) const {
    if (notice.plates.empty()) return notice;
    RunningNotice* best = nullptr;
    // The smallest is the best.
    const auto rank = [&](const RunningNotice& plate) {
        const PostedMessage* const shown = plate.queue.shown();
        const bool is_lower = shown != nullptr && shown->priority < priority;
        return std::tuple(!says(plate), !plate.queue.resting(), is_lower ? shown->priority : priority,
                          plate.queue.waiting());
    };
    for (const ElementIndex index : notice.plates) {
        RunningNotice* const plate = find(index);
        if (best == nullptr || rank(*plate) < rank(*best)) best = plate;
    }
    return *best;
}

ElementIndex Notices::known_as(ElementIndex element) const {
    const RunningNotice* const notice = find(element);
    return notice != nullptr && notice->log != no_element ? notice->log : element;
}

void Notices::put_newest(const RunningNotice& plate) {
    RunningNotice* const log = find(plate.log);
    if (log == nullptr) return;
    const auto known = std::find(log->plates.begin(), log->plates.end(), plate.element);
    std::rotate(known, known + 1, log->plates.end());
    std::vector<ElementIndex> order = log->plates;
    if (log->newest_first) std::reverse(order.begin(), order.end());
    order_.set_last(log->element, order);
    order_.snap(log->element, plate.element);
}

void Notices::post(RunningNotice& posted, std::size_t index, Nanoseconds at) {
    const auto key = static_cast<std::uint32_t>(index);
    RunningNotice& notice = plate_for(posted, posted.body->message(index).priority,
                                      [key](const RunningNotice& plate) { return plate.queue.has(key); });
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
            if (!is_true && own.was_true && lasting) take_away(notice, static_cast<std::uint32_t>(i), now);
            own.was_true = is_true;
        }
        notice.begun = true;
        notice.queue.advance(now);
        if (notice.plates.empty()) visibility.set_speaking(notice.element, notice.queue.shown() != nullptr);
    }
}

RunningNotice* Notices::plate_with(RunningNotice& notice, std::string_view id) const {
    if (notice.body->find(id) != NoticeBody::no_message) return &notice;
    for (const ElementIndex plate : notice.plates)
        if (RunningNotice* const found = plate_with(*find(plate), id)) return found;
    return nullptr;
}

bool Notices::take_away(RunningNotice& notice, std::string_view id, Nanoseconds at) {
    bool any = false;
    for (const ElementIndex plate : notice.plates)
        any = take_away(*find(plate), id, at) || any;
    const std::size_t index = notice.body->find(id);
    if (!notice.plates.empty() || index == NoticeBody::no_message) return any;
    return take_away(notice, static_cast<std::uint32_t>(index), at);
}

bool Notices::take_away(RunningNotice& notice, std::uint32_t key, Nanoseconds at) {
    if (!notice.plates.empty())
        return std::any_of(notice.plates.begin(), notice.plates.end(),
                           [&](ElementIndex plate) { return take_away(*find(plate), key, at); });
    if (!notice.queue.has(key)) return false;
    notice.queue.take_away(key, at);
    return true;
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
                put_newest(notice);
                announcements_.push_back({elements_[known_as(notice.element)].path,
                                          notice.body->spoken(change.key),
                                          notice.body->message(change.key).priority});
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
