// The library `rapido::debug`, which a shipped game need not carry: why an element shows what it shows, boxes and ids over a HUD, probes of
// any value of the game, and recordings.
#pragma once

#include <optional>

#include "rapido/base/exported.hpp"
#include "rapido/debug/explanation.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Why an element shows what it shows, or nothing, as of the last update; empty for a dead one. For a tester: it takes its time.
Explanation explain(const Hud& hud, ElementRef element);

/// Draws the debug overlay, to be drawn over the HUD: the boxes and ids of all that is drawn, and the explanation of the element under
/// a point of the window, such as that of the mouse. It makes the whole list anew.
void draw_overlay(const Hud& hud, DisplayList& list, std::optional<Point> point = {});

/// Shows what `RAPIDO_PROBE` writes on this thread, in a table of groups over all else, in the corner in which it covers least, while
/// `visible` is true. A later call replaces `visible`. The table is the element `probes`; its texts have the font of the HUD.
void show_probes(Hud& hud, const Source& visible = true);

/// Tells a recorder all that enters a HUD from now on: values, calls and steps; see `RecordingWriter`. It is the first call on a HUD;
/// false, with a problem, for a later one. What probes show, and the flashes of other HUDs that share a limit, are not told. A getter is
/// asked once more in each frame, and must give the same answer. The recorder must outlive the HUD, or be taken away by a null pointer.
bool record(Hud& hud, Recorder* recorder);

}  // namespace rapido

/// Defined as 0 before this header, or for the whole build, it compiles every watch to nothing.
#ifndef RAPIDO_DEBUG
#define RAPIDO_DEBUG 1
#endif

#if RAPIDO_DEBUG

#include <memory>
#include <string_view>

#include "rapido/value/watch.hpp"

namespace rapido RAPIDO_EXPORTED {
namespace debug {

class ProbeList;

/// A line of code that shows a value. It writes into the list of its thread, which the HUDs of this thread show that were told to by
/// `rapido::show_probes`; a line that was not reached in the last two seconds of their updates is left out.
class WatchSite {
 public:
    /// The texts must live as long as the thread: literals do. `format` is a pattern for one value, such as "{:.1f} m/s".
    WatchSite(std::string_view group, std::string_view name, std::string_view format);

    template <class T>
    void set(T&& value) {
        detail::must_be_readable<std::remove_cvref_t<T>>();
        if constexpr (detail::Readable<std::remove_cvref_t<T>>) {
            std::string storage;
            write(detail::keep(std::forward<T>(value), storage));
        }
    }

 private:
    void write(const Value& value);

    std::shared_ptr<ProbeList> list_;
    std::size_t index_ = 0;
};

}  // namespace debug
}  // namespace rapido

/// Shows the value of an expression under its own words: `RAPIDO_PROBE(plane.speed);`, from any file of the game, in every frame in which
/// the line is reached. What can be shown is what `rapido::watch` can show.
#define RAPIDO_PROBE(...) RAPIDO_PROBE_IN_AS("", "{}", __VA_ARGS__)
/// The same under a heading: `RAPIDO_PROBE_IN("plane", plane.speed);`
#define RAPIDO_PROBE_IN(group, ...) RAPIDO_PROBE_IN_AS(group, "{}", __VA_ARGS__)
/// The same by a pattern: `RAPIDO_PROBE_AS("{:.1f} m/s", plane.speed);`
#define RAPIDO_PROBE_AS(format, ...) RAPIDO_PROBE_IN_AS("", format, __VA_ARGS__)
/// The same with both.
#define RAPIDO_PROBE_IN_AS(group, format, ...)                                                   \
    do {                                                                                         \
        static thread_local ::rapido::debug::WatchSite rapido_site{group, #__VA_ARGS__, format}; \
        rapido_site.set(__VA_ARGS__);                                                            \
    } while (false)

#else

#define RAPIDO_PROBE(...) static_cast<void>(0)
#define RAPIDO_PROBE_IN(group, ...) static_cast<void>(0)
#define RAPIDO_PROBE_AS(format, ...) static_cast<void>(0)
#define RAPIDO_PROBE_IN_AS(group, format, ...) static_cast<void>(0)

#endif
