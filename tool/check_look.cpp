#include "tool/check_look.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "base/fields.hpp"
#include "element/kinds.hpp"
#include "rapido/debug.hpp"
#include "tool/check_seen.hpp"

namespace rapido::tool {
namespace {

bool holds(const Rect& outer, const Rect& inner) {
    constexpr float hair = 1;
    return inner.x >= outer.x - hair && inner.y >= outer.y - hair && inner.right() <= outer.right() + hair &&
           inner.bottom() <= outer.bottom() + hair;
}

/// The part of a path in which it differs from another one, as a path.
std::string below_common(const std::string& path, const std::string& other) {
    std::size_t end = 0;
    while (true) {
        const std::size_t next = std::min(path.find('.', end), path.size());
        if (path.compare(0, next, other, 0, std::min(next, other.size())) != 0 ||
            (other.size() > next && other[next] != '.') || other.size() < next || next == path.size())
            return path.substr(0, next);
        end = next + 1;
    }
}

/// Whether two that stand in one panel, or on the screen, are laid over each other on purpose.
bool is_laid_over(const Places& places, const std::string& first) {
    const std::size_t around = first.rfind('.');
    if (around == std::string::npos) return false;
    const std::optional<Panel> panel = panel_of(places.element(first.substr(0, around)));
    return panel && panel->layout == Layout::free;
}

void find_overlaps(const std::vector<Seen>& all, const Places& places, const Circumstances& seen, Findings& findings) {
    constexpr float least = 2;  ///< design pixels, both ways
    std::map<std::string, const Seen*> drawn;
    for (const Seen& one : all)
        if (one.draws) drawn[one.path] = &one;
    const auto overlap = [](const Seen& a, const Seen& b) {
        const Rect both = common(a.ink, b.ink);
        const bool is_inside = holds(a.box, b.ink) || holds(b.box, a.ink);
        return both.width > least && both.height > least && !is_inside;
    };
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t j = i + 1; j < all.size(); ++j) {
            const Seen &a = all[i], &b = all[j];
            if (!a.draws || !b.draws || a.moves_in_world || b.moves_in_world || a.rides || b.rides) continue;
            const Rect both = common(a.ink, b.ink);
            if (both.width <= least || both.height <= least) continue;
            if (is_around(a.path, b.path) || is_around(b.path, a.path)) continue;
            // A text on a plate, a mark in a dial: one that is inside of the other is meant to be.
            if (!(a.is_text && b.is_text) && (holds(a.box, b.ink) || holds(b.box, a.ink))) continue;
            const std::string first = below_common(a.path, b.path), second = below_common(b.path, a.path);
            if (is_laid_over(places, first)) continue;
            Finding finding{
                {places.of(second.size() < b.path.size() ? second : b.path, "place"),
                 b.name + " lies over " + a.name + ", on " + pixels(both.width) + " by " + pixels(both.height) + " px",
                 "move one of them, or let both stand in a row or a column", ProblemCode::overlap, Severity::warning},
                b.path,
                seen};
            finding.measured = both.width * both.height;
            // Panels that lie over each other take all that is in them along.
            const bool are_whole = drawn.contains(first) && drawn.contains(second) &&
                                   (first != a.path || second != b.path) && overlap(*drawn[first], *drawn[second]);
            if (are_whole) continue;
            findings.add("overlap " + places.first_of(a.path) + " " + places.first_of(b.path), std::move(finding),
                         static_cast<double>(both.width * both.height));
        }
}

/// The size of the largest characters that are drawn of an element, in device pixels per em.
float font_size_of(const DisplayGroup& group) {
    float largest = 0;
    const Transform& t = group.transform();
    const float scale = std::sqrt(std::abs(t.xx * t.yy - t.xy * t.yx));
    for (const DisplayItem& item : group.items())
        if (item.kind == DisplayItem::Kind::text && item.outline == 0 && item.blur == 0)
            largest = std::max(largest, item.size * scale);
    return largest;
}

void find_small_texts(const Hud& hud, const Places& places, const Circumstances& seen, const SmallestText& smallest,
                      Findings& findings) {
    if (!smallest || seen.scale != 1) return;
    DisplayList list;
    hud.draw(list);
    const std::vector<ElementRef> order = hud.draw_order();
    const double wanted = (*smallest)[0] * static_cast<double>(seen.window.height) / (*smallest)[1];
    for (std::size_t i = 0; i < list.groups().size() && i < order.size(); ++i) {
        const auto size = static_cast<double>(font_size_of(list.groups()[i]));
        if (size <= 0 || size >= wanted - 0.05) continue;
        const Shown shown = hud[order[i]];
        const std::string path(shown.id);
        Finding finding{{places.of(path, "size"),
                         Places::name(shown) + " is written " + plain_number(std::round(size * 10) / 10) +
                             " px high; " + plain_number(std::round(wanted * 10) / 10) + " px are asked for",
                         "", ProblemCode::small_text, Severity::warning},
                        path,
                        seen,
                        size,
                        wanted};
        findings.add("small_text " + places.first_of(path), std::move(finding), wanted / size);
    }
}

/// The numbers along a dial or a scale that are written over each other.
void find_crowded_labels(const Hud& hud, const Places& places, const Circumstances& seen, Findings& findings) {
    constexpr float cap_height = 0.7F, hair = 1;
    DisplayList list;
    hud.draw(list);
    const std::vector<ElementRef> order = hud.draw_order();
    for (std::size_t i = 0; i < list.groups().size() && i < order.size(); ++i) {
        const Shown shown = hud[order[i]];
        if (shown.kind != "dial" && shown.kind != "ruler") continue;
        std::vector<Rect> labels;
        for (const DisplayItem& item : list.groups()[i].items())
            if (item.kind == DisplayItem::Kind::text && item.outline == 0 && item.blur == 0)
                labels.push_back(
                    {item.baseline.x, item.baseline.y - item.size * cap_height, item.width, item.size * cap_height});
        Rect worst;
        for (std::size_t a = 0; a < labels.size(); ++a)
            for (std::size_t b = a + 1; b < labels.size(); ++b) {
                const Rect both = common(labels[a], labels[b]);
                if (both.width > hair && both.height > hair && both.width * both.height > worst.width * worst.height)
                    worst = both;
            }
        if (!(worst.width > 0)) continue;
        const std::string path(shown.id);
        Finding finding{
            {places.of(path),
             Places::name(shown) + " writes its labels over each other, on " + pixels(worst.width) + " by " +
                 pixels(worst.height) + " px",
             "give it fewer labels, a smaller 'size' or more room", ProblemCode::overlap, Severity::warning},
            path,
            seen};
        finding.measured = worst.width * worst.height;
        findings.add("labels " + places.first_of(path), std::move(finding),
                     static_cast<double>(worst.width * worst.height));
    }
}

/// The effects that an element may start of itself.
std::set<std::string> effects_of(const Element& element) {
    std::set<std::string> names;
    const CommonFields common = WrittenElement(element).common();
    for (const Trigger& trigger : common.triggers)
        names.insert(trigger.effect);
    for (const Band& band : common.plan.bands)
        names.insert(band.effect);
    names.erase("");
    return names;
}

// --- The widest texts

/// Measures texts as an element writes them, about: pieces in other styles are taken as the rest.
class TextWidths {
 public:
    TextWidths(const Checked& checked, const Hud& hud) : fonts_(checked.fonts), hud_(hud) {}

    float width(ElementRef ref) {
        const Shown shown = hud_[ref];
        if (!shown.visible || shown.text.empty()) return -1;
        return fonts_.shape(fonts_.find("sans-serif", 400).value_or(0), 16, shown.text, glyphs_);
    }

 private:
    Fonts& fonts_;
    const Hud& hud_;
    std::vector<Glyph> glyphs_;
};

}  // namespace

std::vector<GameState> widest_states(const Checked& checked, const std::vector<GameState>& base,
                                     const Language* language) {
    const GameStates& game = checked.game;
    constexpr std::size_t most_bases = 12;
    // In which of the states each text is seen first.
    std::vector<std::size_t> seen_in;
    std::vector<ElementRef> texts;
    {
        Stage stage(checked, base, language);
        for (const ElementRef ref : stage.hud().elements())
            if (stage.hud()[ref].kind == "text") texts.push_back(ref);
        seen_in.assign(texts.size(), base.size());
        for (std::size_t state = 0; state < base.size(); ++state) {
            stage.show(state);
            for (std::size_t i = 0; i < texts.size(); ++i)
                if (seen_in[i] == base.size() && stage.hud()[texts[i]].visible) seen_in[i] = state;
        }
    }
    std::vector<std::size_t> used(seen_in);
    std::sort(used.begin(), used.end());
    used.erase(std::unique(used.begin(), used.end()), used.end());
    if (!used.empty() && used.back() == base.size()) used.pop_back();
    if (used.size() > most_bases) used.resize(most_bases);

    std::vector<GameState> widest;
    for (const std::size_t from : used) {
        // One source after the other takes each of its values.
        std::vector<GameState> states{base[from]};
        std::vector<std::pair<std::size_t, std::size_t>> what{{0, 0}};
        std::vector<std::vector<KeptValue>> candidates;
        for (std::size_t source = 0; source < game.sources().size(); ++source) {
            candidates.push_back(game.candidates(source));
            for (std::size_t i = 0; i < candidates.back().size(); ++i) {
                states.push_back(game.with(base[from], source, candidates.back()[i]));
                what.emplace_back(source, i);
            }
        }
        Stage stage(checked, states, language);
        const std::vector<ElementRef> all = stage.hud().elements();
        std::vector<ElementRef> now;
        for (const ElementRef ref : all)
            if (stage.hud()[ref].kind == "text") now.push_back(ref);
        TextWidths widths(checked, stage.hud());
        std::vector<std::vector<float>> measured(now.size());
        for (std::size_t state = 0; state < states.size(); ++state) {
            stage.show(state);
            for (std::size_t i = 0; i < now.size(); ++i)
                measured[i].push_back(widths.width(now[i]));
        }
        for (std::size_t i = 0; i < now.size() && i < seen_in.size(); ++i) {
            if (seen_in[i] != from) continue;
            GameState state = base[from];
            std::string values;
            for (std::size_t source = 0; source < candidates.size(); ++source) {
                std::optional<std::size_t> best;
                float most = measured[i][0] + 0.01F;
                for (std::size_t at = 1; at < states.size(); ++at)
                    if (what[at].first == source && measured[i][at] > most) {
                        most = measured[i][at];
                        best = what[at].second;
                    }
                if (!best) continue;
                state.values[source] = candidates[source][*best];
                values += (values.empty() ? "with " : ", ") + game.sources()[source].name + " = " +
                          said(candidates[source][*best].get());
            }
            if (!values.empty()) {
                state.when = values;
                widest.push_back(std::move(state));
            }
        }
    }
    return widest;
}

void look(Stage& stage, const Checked& checked, const Places& places, const Circumstances& seen,
          const SmallestText& smallest, Findings& findings) {
    const Hud& hud = stage.hud();
    const std::vector<Seen> all = seen_of(hud, places);
    const Screen screen = screen_of(checked, seen);
    for (const Seen& one : all)
        find_beyond(one, screen, places, seen, "", findings);
    find_overlaps(all, places, seen, findings);
    for (const ElementRef ref : hud.elements()) {
        const Shown shown = hud[ref];
        if (shown.visible && !shown.text.empty()) find_lack(hud, ref, places, seen, quoted(shown.text), findings);
    }
    find_small_texts(hud, places, seen, smallest, findings);
    find_crowded_labels(hud, places, seen, findings);
}

void find_held_flashes(const Hud& hud, const Places& places, const std::string& time, Findings& findings) {
    for (const ElementRef ref : hud.elements()) {
        const Explanation explained = rapido::explain(hud, ref);
        if (!explained.flash_limited) continue;
        // The strongest of its effects; none where it is the color of a band.
        const std::string effect = explained.effects.empty() ? "" : explained.effects.front();
        findings.add("flash " + places.first_of(explained.id) + " " + effect,
                     {{places.of(explained.id, effect.empty() ? "bands" : "triggers"),
                       explained.kind + " '" + explained.id + "' flashes more than three times in a second" +
                           (effect.empty() ? "" : " by effect '" + effect + "'") +
                           (time.empty() ? "" : ", at " + time + " s") + "; the HUD holds it still",
                       "let it be smaller, slower or weaker", ProblemCode::flash, Severity::warning},
                      explained.id});
    }
}

void look_at_effects(Stage& stage, const Checked& checked, const Places& places, const Circumstances& seen,
                     Findings& findings) {
    constexpr double step = 1.0 / 60, longest = 2;
    Hud& hud = stage.hud();
    const Screen screen = screen_of(checked, seen);
    for (const ElementRef ref : hud.elements()) {
        const Element* const element = places.element(hud[ref].id);
        if (element == nullptr || !hud[ref].visible) continue;
        for (const std::string& effect : effects_of(*element)) {
            hud.play(ref, effect);
            for (double time = 0; time < longest; time += step) {
                hud.update(step);
                for (const Seen& one : seen_of(hud, places))
                    if (is_around(hud[ref].id, one.path)) find_beyond(one, screen, places, seen, effect, findings);
                if (hud.flash_limited()) find_held_flashes(hud, places, "", findings);
                if (rapido::explain(hud, ref).effects.empty()) break;
            }
            hud.stop(ref, effect);
            hud.snap(ref);
            // So that the next one is not held back for this one's flashes.
            hud.update(1.1);
        }
    }
}

}  // namespace rapido::tool
