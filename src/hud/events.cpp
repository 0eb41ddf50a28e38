#include "hud/events.hpp"

#include <array>

#include "base/instants.hpp"

namespace rapido {
namespace {

EventKind event_of(HappeningKind kind) {
    switch (kind) {
        case HappeningKind::mark:
            return EventKind::mark;
        case HappeningKind::end:
            return EventKind::end;
        case HappeningKind::skipped:
        case HappeningKind::message_skipped:
            return EventKind::skipped;
        case HappeningKind::empty:
            return EventKind::empty;
        case HappeningKind::full:
            return EventKind::full;
        case HappeningKind::band_enter:
            return EventKind::band_enter;
        case HappeningKind::band_leave:
            return EventKind::band_leave;
        case HappeningKind::message_enter:
            return EventKind::enter;
        case HappeningKind::message_leave:
            return EventKind::leave;
        default:
            return EventKind::start;
    }
}

}  // namespace

std::string_view to_string(EventKind kind) {
    constexpr std::array<std::string_view, 10> words{"start", "mark",       "end",        "skipped", "empty",
                                                     "full",  "band_enter", "band_leave", "enter",   "leave"};
    return words[static_cast<std::size_t>(kind)];
}

void Events::reserve(std::size_t count) {
    constexpr std::size_t usual_length = 31;
    while (events_.size() < count) {
        Event& event = events_.emplace_back();
        event.id.reserve(usual_length);
        event.detail.reserve(usual_length);
    }
}

void Events::write(const Happenings& happenings, const Elements& elements, const Readouts& readouts, Timers& timers,
                   const Notices& notices, const Lists& lists) {
    count_ = 0;
    for (const Happening& happening : happenings.all()) {
        if (!happening.is_event) continue;
        if (count_ == events_.size()) events_.emplace_back();
        Event& event = events_[count_++];
        event.time = happening.time;
        event.kind = event_of(happening.kind);
        event.id =
            happening.is_of_timer() ? timers[happening.subject].id : elements[notices.known_as(happening.subject)].path;
        event.detail.clear();
        event.key = KeptValue();
        if (!happening.is_of_timer()) {
            const KeptValue* const key = happening.kind == HappeningKind::empty && happening.detail < 0
                                             ? &lists.emptied()[static_cast<std::size_t>(-1 - happening.detail)].key
                                             : lists.key(happening.subject);
            if (key != nullptr) event.key = *key;
        }
        switch (happening.kind) {
            case HappeningKind::mark:
                event.detail = seconds_text(Nanoseconds{happening.detail});
                break;
            case HappeningKind::skipped:
                event.detail = std::to_string(happening.detail);
                break;
            case HappeningKind::band_enter:
            case HappeningKind::band_leave:
                event.detail =
                    readouts.bands(happening.subject)->bands()[static_cast<std::size_t>(happening.detail)].id;
                break;
            case HappeningKind::message_enter:
            case HappeningKind::message_leave:
            case HappeningKind::message_skipped:
                event.detail = notices.text_of(happening.detail);
                break;
            default:
                break;
        }
    }
}

}  // namespace rapido
