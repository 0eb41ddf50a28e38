// The room `element`: the list of kinds.
#pragma once

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
#include "rapido/element/notice.hpp"
#include "rapido/element/panel.hpp"
#include "rapido/element/pips.hpp"
#include "rapido/element/ring.hpp"
#include "rapido/element/scale.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

/// The description of one element, of any kind.
using Element = std::variant<Panel, Text, Bar, Ring, Level, Pips, Dial, Scale, Graph, Image, Notice>;

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
        std::visit([&](auto& any) { any.inside = path + (any.inside.empty() ? "" : ".") + any.inside; },
                   element);
        all.push_back(std::move(element));
    };
    const auto put_each = [&](auto&& given) {
        if constexpr (std::is_convertible_v<decltype(given), Element>)
            put(std::forward<decltype(given)>(given));
        else
            for (const Element& element : given)
                put(element);
    };
    (put_each(std::forward<Inner>(inner)), ...);
    return all;
}

}  // namespace rapido
