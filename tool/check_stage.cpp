#include "tool/check_stage.hpp"

#include "hud/elements.hpp"

namespace rapido::tool {

bool is_around(std::string_view outer, std::string_view inner) {
    return inner.starts_with(outer) && (inner.size() == outer.size() || inner[outer.size()] == '.');
}

Places::Places(const HudDefinition& definition, const Hud& hud) : definition_(definition) {
    // What is not in the definition, a log has added for itself.
    std::size_t next = 0;
    for (const ElementRef ref : hud.elements()) {
        if (next == definition.elements.size()) break;
        const std::string path(hud[ref].id);
        // Of a faulty element there is none.
        for (std::size_t i = next; i < definition.elements.size(); ++i) {
            const std::string id = path_of(definition.elements[i].inside(), definition.elements[i].id());
            if (path != id && !(path.ends_with(id) && path[path.size() - id.size() - 1] == '.')) continue;
            by_path_[path] = i;
            next = i + 1;
            break;
        }
    }
    for (const ElementRef ref : hud.elements()) {
        const std::string path(hud[ref].id);
        const auto known = by_path_.find(path);
        if (known == by_path_.end() || known->second >= definition.element_locations.size()) continue;
        const Location& at = definition.element_locations[known->second].location;
        if (at.line > 0) first_at_.try_emplace({at.file, at.line, at.column}, path);
    }
}

std::string Places::first_of(std::string_view path) const {
    const auto known = by_path_.find(path);
    if (known == by_path_.end() || known->second >= definition_.element_locations.size()) return std::string(path);
    const Location& at = definition_.element_locations[known->second].location;
    const auto first = first_at_.find({at.file, at.line, at.column});
    return first != first_at_.end() ? first->second : std::string(path);
}

Location Places::of(std::string_view path, std::string_view field) const {
    const auto known = by_path_.find(path);
    if (known == by_path_.end() || known->second >= definition_.element_locations.size()) {
        const std::size_t around = path.rfind('.');
        return around == std::string_view::npos ? Location{} : of(path.substr(0, around));
    }
    return definition_.element_locations[known->second].of(field);
}

const Element* Places::element(std::string_view path) const {
    const auto known = by_path_.find(path);
    return known != by_path_.end() ? &definition_.elements[known->second] : nullptr;
}

std::string Places::name(const Shown& shown) {
    return std::string(shown.kind) + " '" + std::string(shown.id) + "'";
}

Stage::Stage(const Checked& checked, const std::vector<GameState>& states, const Language* language)
    : checked_(checked) {
    for (const GameState& state : states)
        when_.push_back(state.when);
    Sources sources;
    if (Result<Trace> trace = checked.game.trace_of(states); trace) {
        trace_ = std::make_unique<Trace>(*std::move(trace));
        player_ = std::make_unique<TracePlayer>(*trace_);
        sources = player_->sources();
    }
    hud_ = std::make_unique<Hud>(checked.definition, sources, &checked.fonts, &checked.images);
    if (language != nullptr) hud_->set_language(*language);
}

void Stage::show(std::size_t state) {
    if (player_ != nullptr) player_->seek(std::chrono::seconds(state));
    hud_->snap();
    hud_->update(0.0);
}

void Stage::resize(Size window, double scale) {
    const auto inset = [&](float length) { return length * static_cast<float>(checked_.safe_area); };
    hud_->resize({.size = window,
                  .safe_area = {inset(window.height), inset(window.width), inset(window.height), inset(window.width)}});
    hud_->set_ui_scale(static_cast<float>(scale));
    hud_->update(0.0);
}

}  // namespace rapido::tool
