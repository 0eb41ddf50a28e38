// An element of any kind, and panels with what stands inside.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

struct Kind;
struct Panel;
struct Text;
struct Bar;
struct Ring;
struct Level;
struct Pips;
struct Dial;
struct Ruler;
struct Graph;
struct Image;
struct Notice;
struct List;
struct Markers;
struct PopUps;

namespace detail {
template <class... Described>
struct KindList {};
using AllKinds =
    KindList<Panel, Text, Bar, Ring, Level, Pips, Dial, Ruler, Graph, Image, Notice, List, Markers, PopUps>;

// What each of them is, defined in its file.
const Kind& describe(const Panel*);
const Kind& describe(const Text*);
const Kind& describe(const Bar*);
const Kind& describe(const Ring*);
const Kind& describe(const Level*);
const Kind& describe(const Pips*);
const Kind& describe(const Dial*);
const Kind& describe(const Ruler*);
const Kind& describe(const Graph*);
const Kind& describe(const Image*);
const Kind& describe(const Notice*);
const Kind& describe(const List*);
const Kind& describe(const Markers*);
const Kind& describe(const PopUps*);

class KeptFields;
/// A source among the fields of an element.
struct OwnSource {
    std::uint32_t field = 0;
    Source source{};
    friend RAPIDO_EXPORTED bool operator==(const OwnSource&, const OwnSource&);
};
}  // namespace detail

/// The description of one element, of any kind. It keeps what differs from the defaults of the kind: a copy costs little, and those
/// that differ in their ids, sources and panels alone may share the rest.
class Element {
 public:
    /// A panel with all defaults.
    Element();
    Element(const Panel& description);
    Element(const Text& description);
    Element(const Bar& description);
    Element(const Ring& description);
    Element(const Level& description);
    Element(const Pips& description);
    Element(const Dial& description);
    Element(const Ruler& description);
    Element(const Graph& description);
    Element(const Image& description);
    Element(const Notice& description);
    Element(const List& description);
    Element(const Markers& description);
    Element(const PopUps& description);

    Element(const Element&);
    Element(Element&&) noexcept;
    Element& operator=(const Element&);
    Element& operator=(Element&&) noexcept;
    ~Element();

    /// Returns its kind, as a HUD file names it.
    std::string_view kind() const;
    const std::string& id() const { return id_; }
    const std::string& inside() const { return inside_; }
    void set_id(std::string_view id);
    void set_inside(std::string_view inside);

    /// Returns what it was made of, written out; nothing for an element of another kind: `element.as<Text>()->format`.
    template <class Described>
    std::optional<Described> as() const;

    friend RAPIDO_EXPORTED bool operator==(const Element& a, const Element& b);

 private:
    friend class WrittenElement;
    friend class KnownFields;
    Element(const Kind& kind, const void* description);

    const Kind* kind_;
    std::string id_, inside_;
    std::vector<detail::OwnSource> sources_;            ///< by their fields
    std::shared_ptr<const detail::KeptFields> fields_;  ///< all others; null where all are the defaults
};

namespace detail {
void append(std::vector<Element>& all, const Element& element);
void append(std::vector<Element>& all, const std::vector<Element>& more);
}  // namespace detail

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
///
/// In braces they are given as one list: `nest(panel, {a, b})`.
std::vector<Element> nest(const Panel& panel, const std::vector<Element>& inner);
template <class... Inner>
std::vector<Element> nest(const Panel& panel, const Inner&... inner) {
    std::vector<Element> all;
    (detail::append(all, inner), ...);
    return nest(panel, all);
}

namespace detail {
/// The sources of the fields of one entry.
class EntryFields {
 public:
    explicit EntryFields(std::string path) : path_(std::move(path)) {}
    /// Returns the source of a field.
    Source operator()(std::string_view field) const;

 private:
    std::string path_;  ///< of the panel that shows the entry
};

/// A list or markers, with their panels.
class WithPanels {
 public:
    WithPanels(const Element& described, int count);
    int count() const { return count_; }
    EntryFields entry(int number) const;
    /// Takes what `make_panel` has returned for this entry.
    void add(int number, std::vector<Element> made);
    void add(int number, const Element& made) { add(number, std::vector<Element>{made}); }
    std::vector<Element> take() { return std::move(all_); }

 private:
    std::string path_;
    int count_;
    std::vector<Element> all_;
};

template <class Described, class MakePanel>
std::vector<Element> with_panels(const Described& described, MakePanel&& make_panel) {
    WithPanels made(described, panels_of(described));
    for (int number = 1; number <= made.count(); ++number)
        made.add(number, make_panel(made.entry(number)));
    return made.take();
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
std::vector<Element> list_of(const List& list, MakePanel&& make_panel) {
    return detail::with_panels(list, make_panel);
}

/// Returns markers with their panels, to be added together, in the same way:
///
///     hud.add(rapido::markers_of({.id = "fires", .entries = "fires", .at_edge = rapido::AtEdge::arrow}, [](const auto& fire) {
///         return rapido::nest(rapido::Panel{.layout = rapido::Layout::column},
///                             rapido::Text{.id = "heat", .value = fire("heat")},
///                             rapido::Text{.id = "away", .value = fire("distance"), .format = "{:.0f} m"});
///     }));
template <class MakePanel>
std::vector<Element> markers_of(const Markers& markers, MakePanel&& make_panel) {
    return detail::with_panels(markers, make_panel);
}

}  // namespace rapido
