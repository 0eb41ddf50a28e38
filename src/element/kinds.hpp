// The list of kinds, for the rooms that work on all of them: a description and a body for each.
#pragma once

#include <array>

#include "element/body.hpp"

namespace rapido {

template <>
struct Description<Panel> {
    static const Table table;
};
template <>
struct Description<Text> {
    static const Table table;
};
template <>
struct Description<Bar> {
    static const Table table;
};

template <>
struct Description<Notice> {
    static const Table table;
};

template <>
struct Description<Ring> {
    static const Table table;
};

template <>
struct Description<Level> {
    static const Table table;
};

template <>
struct Description<Pips> {
    static const Table table;
};

template <>
struct Description<Dial> {
    static const Table table;
};

template <>
struct Description<Scale> {
    static const Table table;
};

template <>
struct Description<Graph> {
    static const Table table;
};

template <>
struct Description<Image> {
    static const Table table;
};

std::unique_ptr<Body> make_body(const Panel& panel, BodyContext& context);
std::unique_ptr<Body> make_body(const Text& text, BodyContext& context);
std::unique_ptr<Body> make_body(const Bar& bar, BodyContext& context);
std::unique_ptr<Body> make_body(const Ring& ring, BodyContext& context);
std::unique_ptr<Body> make_body(const Level& level, BodyContext& context);
std::unique_ptr<Body> make_body(const Pips& pips, BodyContext& context);
std::unique_ptr<Body> make_body(const Dial& dial, BodyContext& context);
std::unique_ptr<Body> make_body(const Scale& scale, BodyContext& context);
std::unique_ptr<Body> make_body(const Graph& graph, BodyContext& context);
std::unique_ptr<Body> make_body(const Image& image, BodyContext& context);
std::unique_ptr<Body> make_body(const Notice& notice, BodyContext& context);

/// The further sources of those kinds that have some.
std::vector<FurtherSource> further_sources(const Notice& notice);
std::vector<FurtherSource> further_sources(const Bar& bar);
std::vector<FurtherSource> further_sources(const Pips& pips);

/// One kind by its index in `Element`: its description, and an element of it with all defaults.
struct Kind {
    const Table* table = nullptr;
    Element (*create)() = nullptr;
};

template <class... Kinds>
constexpr auto list_kinds(const std::variant<Kinds...>*) {
    return std::array<Kind, sizeof...(Kinds)>{
        Kind{&Description<Kinds>::table, [] { return Element(Kinds{}); }}...};
}
inline constexpr auto kinds = list_kinds(static_cast<const Element*>(nullptr));

inline const Table& table_of(const Element& element) {
    return *kinds[element.index()].table;
}

inline const void* address_of(const Element& element) {
    return std::visit([](const auto& description) -> const void* { return &description; }, element);
}
/// The address of the description itself, for its fields.
inline void* address_of(Element& element) {
    return std::visit([](auto& description) -> void* { return &description; }, element);
}

}  // namespace rapido
