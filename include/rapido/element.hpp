// The room `element`: the list of kinds.
#pragma once

#include <initializer_list>
#include <string>
#include <type_traits>
#include <utility>
#include <variant>
#include <vector>

#include "rapido/element/bar.hpp"
#include "rapido/element/dial.hpp"
#include "rapido/element/graph.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/level.hpp"
#include "rapido/element/list.hpp"
#include "rapido/element/markers.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/element/panel.hpp"
#include "rapido/element/pips.hpp"
#include "rapido/element/pop_ups.hpp"
#include "rapido/element/ring.hpp"
#include "rapido/element/ruler.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

/// The description of one element, of any kind.
using Element =
    std::variant<Panel, Text, Bar, Ring, Level, Pips, Dial, Ruler, Graph, Image, Notice, List, Markers, PopUps>;

/// Returns a panel and what stands inside, in this order, to be added together. `inside` of each of the others becomes the path of
/// the panel, with what it was before behind it; a list is what another `nest` returns. A component of a game is a function that
/// returns this:
///
///     std::vector<rapido::Element> gauge(std::string id, rapido::Source value) {
///         return rapido::nest(rapido::Panel{.id = id, .layout = rapido::Layout::column},
///                             rapido::Text{.id = "amount", .value = value},
///                             rapido::Ring{.id = "ring", .value = value, .max = 100});
///     }
///     hud.add(gauge("fuel", rapido::watch(plane.fuel)));
template <class... Inner>
std::vector<Element> nest(Panel panel, Inner&&... inner) {
    const std::string path = panel.inside + (panel.inside.empty() ? "" : ".") + panel.id;
    std::vector<Element> all{std::move(panel)};
    const auto put = [&](Element element) {
        std::visit([&](auto& any) { any.inside = path + (any.inside.empty() ? "" : ".") + any.inside; }, element);
        all.push_back(std::move(element));
    };
    [[maybe_unused]] const auto put_each = [&](auto&& given) {
        if constexpr (std::is_convertible_v<decltype(given), Element>)
            put(std::forward<decltype(given)>(given));
        else
            for (const Element& element : given)
                put(element);
    };
    (put_each(std::forward<Inner>(inner)), ...);
    return all;
}

/// The same for elements in braces: `nest(panel, {a, b})`.
inline std::vector<Element> nest(Panel panel, std::initializer_list<Element> inner) {
    return nest(std::move(panel), std::vector<Element>(inner));
}

namespace detail {
/// A list or markers, with their panels.
template <class Kind, class MakePanel>
std::vector<Element> with_panels(Kind described, MakePanel&& make_panel) {
    const std::string path = described.inside + (described.inside.empty() ? "" : ".") + described.id;
    const int count = panels_of(described);
    std::vector<Element> all{std::move(described)};
    for (int number = 1; number <= count; ++number) {
        const std::string id = std::to_string(number);
        const std::string at = path + "." + id;
        std::vector<Element> made{
            make_panel([&](std::string_view field) { return by_name(at + "." + std::string(field)); })};
        // What stands inside names the panel as it was made.
        const std::string before = std::visit(
            [](const auto& any) { return any.inside + (any.inside.empty() ? "" : ".") + any.id; }, made.front());
        for (Element& element : made)
            std::visit(
                [&](auto& any) {
                    if (&element == &made.front()) {
                        any.id = id;
                        any.inside = path;
                    } else {
                        any.inside = at + any.inside.substr((std::min)(before.size(), any.inside.size()));
                    }
                },
                element);
        all.insert(all.end(), std::make_move_iterator(made.begin()), std::make_move_iterator(made.end()));
    }
    return all;
}
}  // namespace detail

/// Returns a list with its panels, to be added together. `make_panel` is called for each of them with a callable that gives the source
/// of a field of its entry, and returns what `nest` returns, or one panel; its `id` and `inside` are set here:
///
///     hud.add(rapido::list_of({.id = "board", .entries = "pilots", .key = "name", .sort = "score"}, [](const auto& entry) {
///         return rapido::nest(rapido::Panel{.layout = rapido::Layout::row},
///                             rapido::Text{.id = "name", .value = entry("name")},
///                             rapido::Text{.id = "score", .value = entry("score")});
///     }));
template <class MakePanel>
std::vector<Element> list_of(List list, MakePanel&& make_panel) {
    return detail::with_panels(std::move(list), std::forward<MakePanel>(make_panel));
}

/// Returns markers with their panels, to be added together, in the same way:
///
///     hud.add(rapido::markers_of({.id = "fires", .entries = "fires", .at_edge = rapido::AtEdge::arrow}, [](const auto& fire) {
///         return rapido::nest(rapido::Panel{.layout = rapido::Layout::column},
///                             rapido::Text{.id = "heat", .value = fire("heat")},
///                             rapido::Text{.id = "away", .value = fire("distance"), .format = "{:.0f} m"});
///     }));
template <class MakePanel>
std::vector<Element> markers_of(Markers markers, MakePanel&& make_panel) {
    return detail::with_panels(std::move(markers), std::forward<MakePanel>(make_panel));
}

}  // namespace rapido
