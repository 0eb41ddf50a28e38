#include "hud/text_styles.hpp"

#include "base/nearest.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {

const TextStyle* TextStyles::find(std::string_view name, Problem& problem) const {
    if (const auto found = all_.find(name); found != all_.end()) return &found->second;
    std::vector<std::string_view> names;
    for (const auto& [id, style] : all_)
        names.push_back(id);
    problem.code = ProblemCode::unknown_name;
    problem.message = "no style '" + std::string(name) + "'";
    problem.hint = did_you_mean(name, names);
    return nullptr;
}

std::vector<TextStyle> TextStyles::with_data() const {
    std::vector<TextStyle> found;
    for (const auto& [id, style] : all_)
        if (has_data(style)) found.push_back(style);
    return found;
}

bool TextStyles::follow_theme(const Themes& themes) {
    bool any = false;
    for (auto& [id, style] : all_) {
        any = any || Themes::has_names(text_style_table, &style);
        themes.apply(text_style_table, &style, nullptr);
    }
    return any;
}

}  // namespace rapido
