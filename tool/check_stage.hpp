// A HUD on trial: it shows states of a game one after the other, each as if it had always been so.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "rapido/fonts.hpp"
#include "rapido/hud.hpp"
#include "rapido/images.hpp"
#include "tool/findings.hpp"
#include "tool/game_states.hpp"

namespace rapido::tool {

/// What all checks know.
struct Checked {
    const HudDefinition& definition;
    const GameStates& game;
    Fonts& fonts;
    Images& images;
    double safe_area = 0;  ///< a part of the window along each edge
};

/// Where the elements of a HUD were written.
class Places {
 public:
    Places(const HudDefinition& definition, const Hud& hud);

    Location of(std::string_view path, std::string_view field = {}) const;
    /// The description of an element of the definition; null for one that a log has added for itself.
    const Element* element(std::string_view path) const;
    /// `text 'points.score'`
    static std::string name(const Shown& shown);

 private:
    const HudDefinition& definition_;
    std::map<std::string, std::size_t, std::less<>> by_path_;
};

class Stage {
 public:
    /// `language` is null for the HUD as it is written.
    Stage(const Checked& checked, const std::vector<GameState>& states, const Language* language);
    Stage(const Stage&) = delete;
    Stage& operator=(const Stage&) = delete;

    Hud& hud() { return *hud_; }
    void show(std::size_t state);
    void resize(Size window, double scale);

 private:
    const Checked& checked_;
    std::unique_ptr<Trace> trace_;
    std::unique_ptr<TracePlayer> player_;
    std::unique_ptr<Hud> hud_;
};

/// Whether one path is around another one, or the same.
bool is_around(std::string_view outer, std::string_view inner);

}  // namespace rapido::tool
