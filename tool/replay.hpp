// A HUD, a trace or a recording, and the frames in which the one is played through the other.
#pragma once

#include <fstream>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "rapido/file.hpp"
#include "rapido/fonts.hpp"
#include "rapido/hud.hpp"
#include "rapido/images.hpp"
#include "rapido/recording.hpp"

namespace rapido::tool {

/// Exit statuses of every command.
enum class Exit { fine = 0, problems = 1, usage = 2 };

struct ReplayOptions {
    std::string hud;               ///< a HUD file, or a recording, which holds its HUD
    std::string trace;             ///< a trace, or a recording of a HUD like this; empty for a recording
    bool ranges = false;           ///< what the HUD declares of its sources stands for a trace
    std::optional<double> rate{};  ///< frames a second; without it, one frame a row
    std::string language{};        ///< a BCP 47 tag; empty is English
    std::string theme{};           ///< of the HUD file; empty is its first one
    std::string translations{};    ///< a file of them
    bool reduced_motion = false;
    double scale = 1;  ///< the player's size of everything
    int width = 1280;
    int height = 800;
    std::optional<double> from{}, to{};  ///< seconds; without them, all of it
    std::string record{};                ///< the recording to write; empty for none
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

    /// Null for a recording.
    const Trace* trace() const { return trace_ ? &*trace_ : nullptr; }
    /// When the first and the last frame end.
    Nanoseconds first() const { return first_; }
    Nanoseconds last() const { return last_; }
    /// When the clock of the HUD stands at zero.
    Nanoseconds origin() const { return origin_; }
    /// When the frame ends that shows a moment: a recording has its own frames alone.
    Nanoseconds frame_at(Nanoseconds moment) const;
    Hud& hud() { return *played_.hud; }
    /// What is wrong with a recording that can be played all the same.
    const Problems& warnings() const { return warnings_; }
    Fonts& fonts() { return fonts_; }
    const Images& images() const { return *images_; }
    /// How the design is fitted to the window.
    Fitted screen() const;

    /// Plays from the first row to the last, with a frame at each moment of `at`; stops after a frame for which
    /// `seen` gives another status than fine.
    Exit run(std::vector<Nanoseconds> at, const std::function<Exit(const Frame&)>& seen);
    /// Ends the recording; a problem if it could not be written.
    Status close_record();

 private:
    /// A HUD, and what stands for its game.
    struct Played {
        std::unique_ptr<TracePlayer> trace;
        std::optional<RecordingPlayer> recording;
        std::unique_ptr<Hud> hud;
    };
    Played made(const HudDefinition& definition, Recorder* recorder);
    Problems set_up(Hud& hud);
    Problems speak(Hud& hud);
    Problems begin_at(Nanoseconds from, const HudDefinition& definition);
    Result<Language> language(std::string_view tag) const;
    Exit run_recording(const std::vector<Nanoseconds>& at, const std::function<Exit(const Frame&)>& seen);
    std::optional<Nanoseconds> next_frame(std::optional<Nanoseconds> behind);

    const ReplayOptions& options_;
    Fonts fonts_;
    std::optional<Images> images_;
    std::optional<Trace> trace_;
    std::optional<Recording> recording_;
    Problems warnings_;
    HudDefinition screen_of_;  ///< only how it is fitted
    std::unique_ptr<std::ofstream> record_file_;
    std::optional<RecordingWriter> writer_;
    Played played_;
    Nanoseconds first_{0}, last_{0}, origin_{0};
    std::size_t frame_ = 0;  ///< the number of the next one, or its row
};

}  // namespace rapido::tool
