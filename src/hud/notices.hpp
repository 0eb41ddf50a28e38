// Notices in the frame: what posts their messages, and what is on screen of them.
#pragma once

#include <memory>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include "element/notice_body.hpp"
#include "hud/bindings.hpp"
#include "hud/elements.hpp"
#include "hud/frame_time.hpp"
#include "hud/moving_order.hpp"
#include "hud/trigger.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/look/notice_queue.hpp"

namespace rapido RAPIDO_EXPORTED {

class Visibility;

/// A notice, with what its messages wait for.
struct RunningNotice {
    /// What posts a message of its own.
    struct Post {
        bool by_event = false;
        CompiledTrigger on;
        std::string speaker;  ///< the id or the path of the element whose events post it
        std::string band;     ///< the name of one of its bands
        SourceIndex when = no_source;
        bool was_true = false;
    };
    ElementIndex element = no_element;
    NoticeBody* body = nullptr;
    NoticeQueue queue{Seconds{0}, Seconds{0}, Seconds{0}};
    std::vector<Post> posts;           ///< by message
    ElementIndex log = no_element;     ///< whose plate it is; then all else is of the log
    std::vector<ElementIndex> plates;  ///< of a log, by the place in its queue; no element where one was removed
    std::vector<ElementIndex> order;   ///< the same in the order in which their messages appeared
    bool newest_first = false;
    bool begun = false;    ///< has seen a frame
    bool snapped = false;  ///< before this frame or in it; what is posted after that is said
};

/// Owns the notices of a HUD.
class Notices {
 public:
    Notices(const Elements& elements, MovingOrder& order) : elements_(elements), order_(order) {}

    void add(std::unique_ptr<RunningNotice> notice);
    void remove(ElementIndex element);
    /// A notice with other messages takes the place of one; what waits and what is on screen stays, if as many are declared.
    void replace(ElementIndex element, std::unique_ptr<RunningNotice> notice);
    /// Null for an element that is none.
    RunningNotice* find(ElementIndex element) const;
    /// What says the messages of an element: of a plate, its log. Null for an element that is no notice.
    RunningNotice* find_speaker(ElementIndex element) const;
    /// The events of the element with this path post a message from now on.
    void listen(RunningNotice::Post& post, const std::string& path, const std::vector<Band>& bands);
    /// An element is there from now on, perhaps one whose events post messages.
    void add_speaker(ElementIndex element, const std::vector<Band>& bands);
    void remove_speaker(ElementIndex element);

    /// Gives a log its plates, which are there already.
    void set_plates(ElementIndex log, const Notice& description, std::span<const ElementIndex> plates);
    void post(RunningNotice& notice, std::size_t message, Nanoseconds at);
    /// A message leaves, or waits no more; false if it does neither.
    bool take_away(RunningNotice& notice, std::string_view id, Nanoseconds at);
    /// Only what is true for as long as it stays survives a snap, and is there at once. What a call posts after it is said.
    void snap(ElementIndex element);
    /// Posts messages by what happened in this frame and by sources that became true in it, and decides which notices
    /// speak.
    void post_messages(std::span<const Happening> happenings, const FrameTime& time, const Bindings& bindings,
                       Visibility& visibility);
    /// Takes over what became of the messages, tells it, and calls `refresh` for each notice that says something else.
    template <class Refresh>
    void show_messages(Happenings& happenings, Refresh refresh) {
        texts_.clear();
        announcements_.clear();
        for (const auto& notice : all_) {
            if (notice->log != no_element) continue;
            tell(*notice, happenings);
            for (std::size_t place = 0; place < notice->queue.places(); ++place)
                if (RunningNotice* const shows = plate(*notice, place);
                    shows != nullptr && select(*notice, *shows, place))
                    refresh(shows->element);
        }
    }
    /// What began to be shown in this frame.
    std::span<const Announcement> announcements() const { return announcements_; }
    /// The notice that the game knows: of a plate, its log.
    ElementIndex known_as(ElementIndex element) const;
    /// What a message of this frame is called in events, by the detail of its happening.
    const std::string& text_of(std::int64_t detail) const { return texts_[static_cast<std::size_t>(detail)]; }

 private:
    void tell(RunningNotice& notice, Happenings& happenings);
    RunningNotice* plate(RunningNotice& notice, std::size_t place) const;
    static bool select(const RunningNotice& notice, RunningNotice& plate, std::size_t place);
    static void close(RunningNotice& log, std::size_t place);
    void forget_posts(const RunningNotice& notice);
    void put_newest(RunningNotice& log, ElementIndex plate);

    const Elements& elements_;
    MovingOrder& order_;
    std::vector<std::unique_ptr<RunningNotice>> all_;
    std::unordered_map<ElementIndex, RunningNotice*> by_element_;  ///< the same
    std::unordered_multimap<std::string, RunningNotice::Post*> by_speaker_;
    std::vector<std::string> texts_;  ///< of this frame
    std::vector<Announcement> announcements_;
};

}  // namespace rapido
