// What the player, the game and the file have set of a HUD as a whole.
#pragma once

#include <memory>
#include <utility>

#include "rapido/look/flash_limit.hpp"
#include "rapido/text/language.hpp"

namespace rapido {

/// Each is kept here once, and the parts of a HUD read it.
struct Settings {
    bool reduced_motion = false;
    float text_scale = 1;
    std::shared_ptr<const Language> language;          ///< with the names of the HUD; null for none
    std::shared_ptr<const Language> language_of_game;  ///< as the game has given it
    FlashSettings flashes_of_game;
    FlashRule flashes_of_file = FlashRule::area;

    /// Texts see into the language: one that says what the present one says does not take its place.
    void take_language(Language given) {
        if (language != nullptr && *language == given && language->catalogue == given.catalogue) return;
        language = std::make_shared<const Language>(std::move(given));
    }
    /// What the game does not say is as the file says it.
    FlashSettings flashes() const {
        FlashSettings made = flashes_of_game;
        made.rule = made.rule.value_or(flashes_of_file);
        return made;
    }
};

}  // namespace rapido
