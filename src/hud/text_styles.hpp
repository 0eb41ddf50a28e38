// The styles of pieces of texts, by name.
#pragma once

#include <map>
#include <string>

#include "hud/themes.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido {

class TextStyles {
 public:
    /// Adds a style with the values of the present theme, or replaces the one of its id.
    void add(const TextStyle& style) { all_[style.id] = style; }
    void remove(const std::string& id) { all_.erase(id); }
    /// Null, with a problem, for none.
    const TextStyle* find(std::string_view name, Problem& problem) const;
    /// Gives the names of themes their present values. True if there are any.
    bool follow_theme(const Themes& themes);

 private:
    std::map<std::string, TextStyle, std::less<>> all_;
};

}  // namespace rapido
