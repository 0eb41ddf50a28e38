// A HUD on trial: it shows states of a game one after the other, each as if it had always been so.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <tuple>
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
    /// The same element of the first stamp, where one stands in a component that is stamped several times; else itself. What is wrong in the
    /// component is wrong once.
    std::string first_of(std::string_view path) const;
    /// The description of an element of the definition; null for one that a log has added for itself.
    const Element* element(std::string_view path) const;
    /// `text 'points.score'`
    static std::string name(const Shown& shown);

 private:
    const HudDefinition& definition_;
    std::map<std::string, std::size_t, std::less<>> by_path_;
    std::map<std::tuple<std::string, int, int>, std::string> first_at_;  ///< paths by the place of their description
};

class Stage {
 public:
    /// `language` is null for the HUD as it is written.
    Stage(const Checked& checked, const std::vector<GameState>& states, const Language* language);
    Stage(const Stage&) = delete;
    Stage& operator=(const Stage&) = delete;

    Hud& hud() { return *hud_; }
    void show(std::size_t state);
    /// In words.
    const std::string& when(std::size_t state) const { return when_[state]; }
    void resize(Size window, double scale);

 private:
    const Checked& checked_;
    std::unique_ptr<Trace> trace_;
    std::unique_ptr<TracePlayer> player_;
    std::unique_ptr<Hud> hud_;
    std::vector<std::string> when_;
};

/// Whether one path is around another one, or the same.
bool is_around(std::string_view outer, std::string_view inner);

}  // namespace rapido::tool
