#include "tool/check_messages.hpp"

#include <map>
#include <utility>

#include "rapido/element/notice.hpp"
#include "tool/check_seen.hpp"

namespace rapido::tool {
namespace {

/// A message of a notice that is said now. False where it cannot be.
bool say(Hud& hud, ElementRef notice, const Message& message) {
    if (!hud.notify(notice, message.id)) return false;
    hud.update(1.0);  // it has appeared by then
    return true;
}

void dismiss(Hud& hud, ElementRef notice, const Message& message) {
    hud.dismiss(notice, message.id);
    hud.snap();
    hud.update(0.0);
}

/// Calls `use` with each notice of a HUD, and each of its messages.
template <class Use>
void for_each_message(const Hud& hud, const Places& places, Use use) {
    for (const ElementRef ref : hud.elements()) {
        const Element* const element = places.element(hud[ref].id);
        const std::optional<Notice> notice = element != nullptr ? element->as<Notice>() : std::nullopt;
        if (!notice) continue;
        for (const Message& message : notice->messages)
            use(ref, message);
    }
}

std::string key_of(const Hud& hud, ElementRef notice, const Message& message) {
    return std::string(hud[notice].id) + " " + message.id;
}

/// What a notice says, on itself or on the plates of a log.
std::vector<ElementRef> plates_of(const Hud& hud, ElementRef notice) {
    std::vector<ElementRef> plates;
    for (const ElementRef plate : hud.elements())
        if (hud[plate].visible && !hud[plate].text.empty() && is_around(hud[notice].id, hud[plate].id))
            plates.push_back(plate);
    return plates;
}

}  // namespace

HudDefinition with_named_messages(const HudDefinition& definition) {
    HudDefinition named = definition;
    for (Element& element : named.elements)
        if (std::optional<Notice> notice = element.as<Notice>()) {
            for (std::size_t i = 0; i < notice->messages.size(); ++i)
                // A name that no file gives.
                if (notice->messages[i].id.empty()) notice->messages[i].id = "\x01" + std::to_string(i);
            element = *notice;
        }
    return named;
}

std::vector<GameState> widest_messages(const Checked& checked, const Language* language, MessageStates& where,
                                       std::size_t first) {
    const GameStates& game = checked.game;
    std::vector<GameState> states{game.usual()};
    std::map<std::string, std::pair<std::size_t, std::size_t>>
        of_source;  // the first of its states, and behind the last
    for (std::size_t source = 0; source < game.sources().size(); ++source) {
        const std::size_t begin = states.size();
        for (const KeptValue& value : game.candidates(source))
            states.push_back(game.with(game.usual(), source, value));
        of_source[game.sources()[source].name] = {begin, states.size()};
    }
    Stage stage(checked, states, language);
    Hud& hud = stage.hud();
    const Places places(checked.definition, hud);
    std::vector<Glyph> glyphs;
    std::vector<GameState> widest;
    for_each_message(hud, places, [&](ElementRef ref, const Message& message) {
        const auto known = of_source.find(message.value.name());
        if (known == of_source.end()) return;
        float most = 0;
        std::size_t best = 0;
        for (std::size_t state = known->second.first; state < known->second.second; ++state) {
            stage.show(state);
            if (!say(hud, ref, message)) return;
            for (const ElementRef plate : plates_of(hud, ref)) {
                const float width =
                    checked.fonts.shape(checked.fonts.find("sans-serif", 400).value_or(0), 16, hud[plate].text, glyphs);
                if (width <= most) continue;
                most = width;
                best = state;
            }
            dismiss(hud, ref, message);
        }
        if (best == 0) return;
        where[key_of(hud, ref, message)] = first + widest.size();
        widest.push_back(states[best]);
    });
    return widest;
}

void look_at_messages(Stage& stage, const Checked& checked, const Places& places, const Circumstances& given,
                      const MessageStates& where, const std::function<void()>& while_seen, Findings& findings) {
    Hud& hud = stage.hud();
    for_each_message(hud, places, [&](ElementRef ref, const Message& message) {
        const auto known = where.find(key_of(hud, ref, message));
        Circumstances seen = given;
        if (known != where.end()) {
            stage.show(known->second);
            seen.when = stage.when(known->second);
        }
        if (!say(hud, ref, message)) return;
        for (const ElementRef plate : plates_of(hud, ref))
            find_lack(hud, plate, places, seen, quoted(hud[plate].text), findings);
        const Screen screen = screen_of(checked, seen);
        for (const Seen& one : seen_of(hud, places))
            if (is_around(hud[ref].id, one.path)) find_beyond(one, screen, places, seen, "", findings);
        while_seen();
        dismiss(hud, ref, message);
        if (known == where.end()) return;
        stage.show(0);
    });
}

}  // namespace rapido::tool
