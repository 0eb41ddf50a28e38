// The styles of pieces of texts, by name.
#pragma once

#include <algorithm>
#include <map>
#include <string>
#include <vector>

#include "hud/themes.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido RAPIDO_EXPORTED {

class TextStyles {
 public:
    /// Adds a style with the values of the present theme, or replaces the one of its id.
    void add(const TextStyle& style) { all_[style.id] = style; }
    void remove(const std::string& id) {
        all_.erase(id);
        present_.erase(id);
    }
    /// Null, with a problem, for none.
    const TextStyle* find(std::string_view name, Problem& problem) const;
    /// A copy of a style, to be given what the game says now; until the next of the same.
    TextStyle& present(const TextStyle& style) { return present_[style.id] = style; }
    /// Whether any field of it comes from the game.
    static bool has_data(const TextStyle& style) {
        return (style.color && style.color->source() != nullptr) || (style.font && style.font->source() != nullptr);
    }
    /// Those of which a field comes from the game.
    std::vector<TextStyle> with_data() const;
    bool any_has_data() const {
        return std::any_of(all_.begin(), all_.end(), [](const auto& named) { return has_data(named.second); });
    }
    /// Gives the names of themes their present values. True if there are any.
    bool follow_theme(const Themes& themes);

 private:
    std::map<std::string, TextStyle, std::less<>> all_;
    std::map<std::string, TextStyle, std::less<>> present_;  ///< of those that follow the game
};

}  // namespace rapido
