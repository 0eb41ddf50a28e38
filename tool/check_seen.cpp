#include "tool/check_seen.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "base/fields.hpp"
#include "element/kinds.hpp"
#include "hud/elements.hpp"
#include "rapido/debug.hpp"

namespace rapido::tool {
namespace {

bool is_in_world(const std::string& kind) {
    return kind == "markers" || kind == "pop_ups";
}

/// How far a box reaches beyond another one, and beyond which of its edges.
std::pair<float, std::string> beyond(const Rect& box, const Rect& room) {
    const std::array<std::pair<float, const char*>, 4> edges{{{room.x - box.x, "left"},
                                                              {room.y - box.y, "upper"},
                                                              {box.right() - room.right(), "right"},
                                                              {box.bottom() - room.bottom(), "lower"}}};
    const auto most =
        std::max_element(edges.begin(), edges.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    return {most->first, most->second};
}

/// A picture behind everything may be larger than the screen.
bool fills_screen(const Rect& box, const Rect& screen) {
    const Rect both = common(box, screen);
    return both.width >= screen.width * 0.9F && both.height >= screen.height * 0.9F;
}

}  // namespace

std::string pixels(float length) {
    return plain_number(std::round(static_cast<double>(length) * 10) / 10);
}

std::string quoted(std::string_view text) {
    return "\"" + std::string(text) + "\"";
}

std::optional<Panel> panel_of(const Element* element) {
    return element != nullptr ? element->as<Panel>() : std::nullopt;
}

Rect common(const Rect& a, const Rect& b) {
    const float x = std::max(a.x, b.x), y = std::max(a.y, b.y);
    return {x, y, std::min(a.right(), b.right()) - x, std::min(a.bottom(), b.bottom()) - y};
}

/// The paths of what rides at the ends of fills.
static std::vector<std::string> riders_of(const Hud& hud, const Places& places) {
    std::vector<std::string> riders;
    for (const ElementRef fill : hud.elements()) {
        const std::string_view path = hud[fill].id;
        const Element* const element = places.element(path);
        if (element == nullptr) continue;
        WrittenElement written(*element);
        const AtEnd* const at_end = written.field<AtEnd>("at_end");
        if (at_end == nullptr || at_end->element.empty()) continue;
        const std::size_t around = path.rfind('.');
        const std::string sibling =
            around != std::string_view::npos ? path_of(path.substr(0, around), at_end->element) : at_end->element;
        riders.push_back(places.element(sibling) != nullptr ? sibling : at_end->element);
    }
    return riders;
}

std::vector<Seen> seen_of(const Hud& hud, const Places& places) {
    std::vector<Seen> all;
    std::vector<std::string> in_world;
    const std::vector<std::string> riders = riders_of(hud, places);
    for (const ElementRef ref : hud.elements()) {
        const Shown shown = hud[ref];
        if (is_in_world(std::string(shown.kind))) in_world.emplace_back(shown.id);
        if (!shown.visible || shown.opacity <= 0 || shown.box.width <= 0 || shown.box.height <= 0) continue;
        Seen seen{.path = std::string(shown.id),
                  .kind = std::string(shown.kind),
                  .name = Places::name(shown),
                  .box = shown.drawn_box,
                  .ink = shown.drawn_box};
        if (shown.kind == "text") {
            if (shown.text.empty()) continue;
            seen.is_text = true;
            // Letters reach over about this much of a line.
            const float spare = seen.ink.height * 0.2F;
            seen.ink.y += spare;
            seen.ink.height -= 2 * spare;
        }
        const std::optional<Panel> panel = panel_of(places.element(shown.id));
        if (panel) seen.draws = panel->plate || !panel->image.empty();
        if (shown.kind == "list" || (shown.kind == "notice" && shown.text.empty())) seen.draws = false;
        seen.moves_in_world = std::any_of(in_world.begin(), in_world.end(),
                                          [&](const std::string& world) { return is_around(world, seen.path); });
        seen.rides = std::any_of(riders.begin(), riders.end(), [&](const std::string& rider) {
            return is_around(rider, seen.path) || seen.path.ends_with("." + rider);
        });
        all.push_back(std::move(seen));
    }
    return all;
}

Screen screen_of(const Checked& checked, const Circumstances& seen) {
    const auto part = static_cast<float>(checked.safe_area);
    const Fitted fitted = fit_screen({.design = checked.definition.design,
                                      .fit = checked.definition.fit,
                                      .whole_scale = checked.definition.whole_scale,
                                      .ui_scale = static_cast<float>(seen.scale)},
                                     {.size = seen.window});
    const float down_scale = fitted.scale * fitted.stretch;
    const Rect whole{-fitted.origin.x / fitted.scale, -fitted.origin.y / down_scale, seen.window.width / fitted.scale,
                     seen.window.height / down_scale};
    const float across = whole.width * part, down = whole.height * part;
    return {whole, {whole.x + across, whole.y + down, whole.width - 2 * across, whole.height - 2 * down}};
}

void find_beyond(const Seen& one, const Screen& screen, const Places& places, const Circumstances& seen,
                 const std::string& effect, Findings& findings) {
    if (!one.draws || one.moves_in_world || fills_screen(one.box, screen.whole)) return;
    const bool is_safe_only = beyond(one.box, screen.whole).first <= 0.5F;
    if (is_safe_only && !effect.empty()) return;  // it may, for a moment
    const auto [length, edge] = beyond(one.box, is_safe_only ? screen.safe : screen.whole);
    if (length <= 0.5F) return;
    Finding finding{{places.of(one.path, effect.empty() ? "place" : "triggers"),
                     one.name + (effect.empty() ? " leaves " : " leaves, by effect '" + effect + "', ") +
                         (is_safe_only ? "the safe area" : "the screen") + ": " + pixels(length) + " px beyond the " +
                         edge + " edge",
                     effect.empty() ? "" : "give the effect less way, or the element more room",
                     ProblemCode::off_screen, Severity::warning},
                    one.path,
                    seen};
    finding.measured = length;
    findings.add("off_screen " + places.first_of(one.path) + " " + effect, std::move(finding),
                 static_cast<double>(length));
}

void find_lack(const Hud& hud, ElementRef ref, const Places& places, const Circumstances& seen,
               const std::string& shows, Findings& findings) {
    const Explanation explained = rapido::explain(hud, ref);
    if (explained.lacks.empty()) return;
    const Shown shown = hud[ref];
    const std::string path(shown.id);
    Finding finding{
        {places.of(path), Places::name(shown) + " " + explained.lacks + ": " + shows,
         "give it more room, a shorter text or 'compact_digits' numbers", ProblemCode::no_room, Severity::warning},
        path,
        seen};
    // Of each language once.
    findings.add("no_room " + places.first_of(path) + " " + seen.language, std::move(finding),
                 static_cast<double>(shows.size()));
}

}  // namespace rapido::tool
