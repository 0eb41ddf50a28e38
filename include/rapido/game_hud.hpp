// A HUD of a file with all that it needs, for a game with a loop of its own.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>

#include "rapido/base/exported.hpp"
#include "rapido/draw/display_list.hpp"
#include "rapido/file.hpp"
#include "rapido/fonts.hpp"
#include "rapido/hud.hpp"
#include "rapido/images.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The time from one frame to the next, for a game that has no clock for it: `hud.update(clock.step())`. It does not stand still while the
/// game is paused.
class FrameClock {
 public:
    /// Returns the time since the call before; zero at first.
    Seconds step();

 private:
    std::optional<Nanoseconds> last_;
};

/// A HUD of a file, with the fonts that the file names, the images of its folder, and a display list. The file is followed while the game
/// runs: what a designer saves is on the screen a moment later.
///
///     rapido::GameHud hud("data/hud.toml", sources);
///     rapido::SdlDrawer drawer(renderer, hud);               // or GlDrawer
///     while (running) {
///         ...
///         drawer.frame(hud, rapido::step(seconds, paused ? 0 : seconds));
///     }
///
/// It belongs to one thread, and stays where it is, as drawers keep its fonts.
class GameHud {
 public:
    /// Reads the file. What is wrong with it is written by the log in the first frame, and the HUD is empty until the file is mended.
    /// `follows_file` says whether the file is looked at again while the game runs: a shipped game may do without.
    explicit GameHud(const std::string& path, const Sources& sources = {}, bool follows_file = true);
    ~GameHud();
    GameHud(const GameHud&) = delete;
    GameHud& operator=(const GameHud&) = delete;

    /// The HUD itself, for events, calls and elements in C++: `hud->notify("log", {.text = "Saved"})`.
    Hud* operator->();
    Hud& hud();
    Fonts& fonts();
    Images& images();

    /// Writes what is wrong from now on, each problem once: of the file, the HUD and the drawing. At first it is written to the standard error
    /// output, a line each; with none, nothing is written.
    void set_log(std::function<void(const Problem&)> log);
    /// Writes a problem that the game has, such as that of a drawer, by the log.
    void tell(const Problem& problem);

    /// One frame: takes the file if it was saved, fits the HUD into the window, advances it, and brings the display list up to date. Sizes are in
    /// pixels. Returns the list, which stays at its address.
    const DisplayList& frame(const Viewport& viewport, Step step);
    /// The same by a clock of its own, for a game without a pause: the time since the frame before.
    const DisplayList& frame(const Viewport& viewport);
    /// What the last frame has left.
    const DisplayList& list() const;

    /// The HUD in passes, so that the game draws between them: `below(-1)` are the outermost elements of a layer of -1 or less, such as
    /// markers below a menu, `above(0)` the others. To be called after `frame`; each layer has a list of its own, which stays at its address.
    const DisplayList& below(int layer);
    const DisplayList& above(int layer);

 private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
