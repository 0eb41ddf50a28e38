// The list of kinds, for the rooms that work on all of them.
#pragma once

#include <array>

#include "element/body.hpp"

namespace rapido {

/// What elements of a kind can do besides being placed and drawn.
struct Abilities {
    bool has_fill = false;         ///< bands may give it a pattern
    bool takes_format = false;     ///< bands may give it a format
    bool takes_image = false;      ///< bands may give it an image
    bool holds_children = false;   ///< other elements stand inside
    bool counts = false;           ///< what it has not shown yet of its value can be asked for
    bool tells = false;            ///< it tells sources with its path before their names
    bool stays_on_screen = false;  ///< it is moved and made narrower rather than leave the screen
};

/// What a kind is: its description, and how one of it is made. Each kind defines its own in its file, by `kind_of`.
struct Kind {
    const Table* table = nullptr;
    Abilities can;
    Place place{};                  ///< where one stands, and how large it is, as far as it does not say so itself
    Element (*create)() = nullptr;  ///< one with all defaults
    std::unique_ptr<Body> (*make)(const Element&, BodyContext&) = nullptr;
    std::vector<FurtherSource> (*further)(const Element&) = nullptr;  ///< besides value, maximum and visible

    std::string_view name() const { return table->name; }
};

// One line for each kind.
const Kind& describe(const Panel&);
const Kind& describe(const Text&);
const Kind& describe(const Bar&);
const Kind& describe(const Ring&);
const Kind& describe(const Level&);
const Kind& describe(const Pips&);
const Kind& describe(const Dial&);
const Kind& describe(const Ruler&);
const Kind& describe(const Graph&);
const Kind& describe(const Image&);
const Kind& describe(const Notice&);
const Kind& describe(const List&);
const Kind& describe(const Markers&);
const Kind& describe(const PopUps&);

/// Returns the kind of an aggregate. Its file has a `make_body`, and a `further_sources` if it has such.
template <class Aggregate>
constexpr Kind kind_of(const Table& table, Abilities can = {}, const Place& place = {}) {
    return {.table = &table,
            .can = can,
            .place = place,
            .create = [] { return Element(Aggregate{}); },
            .make = [](const Element& element,
                       BodyContext& context) { return make_body(*std::get_if<Aggregate>(&element), context); },
            .further =
                [](const Element& element) {
                    if constexpr (requires(const Aggregate& made) { further_sources(made); })
                        return further_sources(*std::get_if<Aggregate>(&element));
                    else
                        return std::vector<FurtherSource>();
                }};
}

template <class... Kinds>
auto list_kinds(const std::variant<Kinds...>*) {
    return std::array<const Kind*, sizeof...(Kinds)>{&describe(Kinds{})...};
}
/// Returns all kinds, by their index in `Element`.
inline const auto& all_kinds() {
    static const auto kinds = list_kinds(static_cast<const Element*>(nullptr));
    return kinds;
}

inline const Kind& kind_of(const Element& element) {
    return std::visit([](const auto& description) -> const Kind& { return describe(description); }, element);
}
inline const void* address_of(const Element& element) {
    return std::visit([](const auto& description) -> const void* { return &description; }, element);
}
/// The address of the description itself, for its fields.
inline void* address_of(Element& element) {
    return std::visit([](auto& description) -> void* { return &description; }, element);
}

}  // namespace rapido
