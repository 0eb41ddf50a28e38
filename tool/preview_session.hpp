// A HUD that is previewed: where it stands in time, how it is seen, and what is told of it, whatever shows it.
#pragma once

#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

#include "tool/game_play.hpp"
#include "tool/preview.hpp"
#include "tool/preview_frame.hpp"
#include "tool/running_hud.hpp"

namespace rapido::tool {

class PreviewSession {
 public:
    PreviewSession(const PreviewOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err), running_(options.hud, play_.sources()) {}

    /// Reads all that the options name, and comes to the moment that they say.
    Problems open();
    /// Reads the HUD file again if it was saved. True if so.
    bool follow();

    RunningHud& running() { return running_; }
    GamePlay& play() { return play_; }
    const Viewing& viewing() const { return viewing_; }
    const std::vector<Size>& sizes() const { return sizes_; }
    /// The type of a source that nothing declares, by its value or by what was typed for it.
    SourceType guessed(const std::string& name, const std::string& typed) const;

    // Time

    void advance(Seconds elapsed);
    /// Forwards or back: begins anew and comes to that moment, so that timers and motions are as they would be.
    void go_by(Nanoseconds way) { go_to(now_ + way); }
    void begin() { go_to(play_.first()); }
    void step_frame();
    bool is_playing() const { return is_playing_; }
    void toggle_playing() { is_playing_ = !is_playing_; }
    void change_speed(int steps);

    // How it is seen

    void view(Size size);
    void change_scale(int steps);
    void next_theme();
    void next_language();
    void toggle_reduced_motion();

    // What is told of it

    PreviewFrame::Says says() const;
    Exit explain();
    Exit write_picture(const std::string& path);
    void report(const Problems& problems) const;

 private:
    void offer_sweep();
    void take_up();
    std::string theme() const;
    void go_to(Nanoseconds moment);
    void step(Nanoseconds length);
    Exit refuse(const Problem& problem) const;

    const PreviewOptions& options_;
    std::ostream& out_;
    std::ostream& err_;
    GamePlay play_;
    RunningHud running_;
    std::vector<DeclaredSource> swept_;
    Viewing viewing_;
    std::vector<std::optional<Language>> languages_;  ///< nothing for the HUD as it is written
    std::vector<Size> sizes_;
    std::string theme_;
    float scale_ = 1;
    bool reduced_motion_ = false;
    std::size_t language_ = 0, speed_ = 3;
    Nanoseconds now_{0}, game_now_{0};
    bool is_playing_ = true;
};

}  // namespace rapido::tool
