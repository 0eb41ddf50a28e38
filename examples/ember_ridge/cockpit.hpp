// What one player sees of the game through Rapido: the instruments, and what stands over the valley.
#pragma once

#include <rapido/file.hpp>
#include <rapido/images.hpp>
#include <rapido/rapido.hpp>
#include <rapido/sdl.hpp>

#include "view.hpp"

namespace ember_ridge {

/// What the players have chosen, and how the game runs.
struct Settings {
    bool paused = false, slow = false, is_new = true, probes = false, overlay = false;
    bool reduced = false;
    double scale = 100, texts = 100;  ///< percent
    int players = 1, chosen = 0;
};

class Cockpit {
 public:
    /// The definitions are those of hud.toml and game.toml; all else must outlive it.
    Cockpit(const rapido::HudDefinition& instruments, const rapido::HudDefinition& over, const Ridge& ridge,
            const Settings& settings, std::size_t player, rapido::Fonts& fonts, rapido::Images& images,
            rapido::FlashLimit& limit);
    // HUDs watch its members.
    Cockpit(const Cockpit&) = delete;
    Cockpit& operator=(const Cockpit&) = delete;

    View view;

    /// Other definitions while it runs: files that were saved. Returns what is wrong with them.
    rapido::Problems reload(const rapido::HudDefinition& instruments, const rapido::HudDefinition& over);
    /// One frame: both clocks in seconds.
    void update(double real, double game);
    /// Over what the view has drawn; `mouse` is where the debug overlay explains.
    rapido::Status draw(rapido::SdlDrawer& drawer, rapido::Point mouse);
    /// The drawer keeps nothing of it any more.
    void leave(rapido::SdlDrawer& drawer) const;
    const rapido::Hud& instruments() const { return instruments_; }
    const rapido::Hud& over() const { return over_; }

 private:
    rapido::Sources sources();
    void set_up(rapido::Hud& hud, rapido::FlashLimit& limit);

    const Ridge& ridge_;
    const Settings& settings_;
    std::size_t player_;
    rapido::Hud instruments_, over_;
    rapido::ElementRef hits_;
    rapido::DisplayList instrument_list_, over_list_, overlay_list_;
};

}  // namespace ember_ridge
