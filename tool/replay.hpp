// A HUD, a trace, and the frames in which the one is played through the other.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "rapido/file.hpp"
#include "rapido/fonts.hpp"
#include "rapido/hud.hpp"
#include "rapido/images.hpp"

namespace rapido::tool {

/// Exit statuses of every command.
enum class Exit { fine = 0, problems = 1, usage = 2 };

struct ReplayOptions {
    std::string hud;
    std::string trace;
    std::optional<double> rate{};  ///< frames a second; without it, one frame a row
    std::string locale{};          ///< a BCP 47 tag; empty is English
    std::string theme{};           ///< of the HUD file; empty is its first one
    std::string translations{};    ///< a file of them
    bool reduced_motion = false;
    double scale = 1;  ///< the player's size of everything
    int width = 1280;
    int height = 800;
};

/// One frame of a replay.
struct Frame {
    Nanoseconds time{0};
    bool asked_for = false;  ///< at a moment that was given
    bool is_last = false;
};

class Replay {
 public:
    explicit Replay(const ReplayOptions& options) : options_(options) {}

    /// Reads both files and makes the HUD; nothing else may be called after problems.
    Problems open();

    const Trace& trace() const { return *trace_; }
    Nanoseconds first() const { return trace_->rows().front().time; }
    Nanoseconds last() const { return trace_->rows().back().time; }
    Hud& hud() { return *hud_; }
    Fonts& fonts() { return fonts_; }
    const Images& images() const { return *images_; }

    /// Plays from the first row to the last, with a frame at each moment of `at`; stops after a frame for which
    /// `seen` gives another status than fine.
    Exit run(std::vector<Nanoseconds> at, const std::function<Exit(const Frame&)>& seen);

 private:
    Problems speak();
    std::optional<Nanoseconds> next_frame(std::optional<Nanoseconds> behind);

    const ReplayOptions& options_;
    Fonts fonts_;
    std::optional<Images> images_;
    std::optional<Trace> trace_;
    std::optional<TracePlayer> player_;
    std::optional<Hud> hud_;
    std::size_t frame_ = 0;  ///< the number of the next one, or its row
};

}  // namespace rapido::tool
