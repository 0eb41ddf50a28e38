// The list of kinds, for the rooms that work on all of them.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <unordered_map>

#include "element/body.hpp"
#include "element/common_fields.hpp"
#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

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

/// What a kind is: its description, and how one of it is made. Each kind defines its own in its file, by `make_kind`.
struct Kind {
    const Table* table = nullptr;
    Abilities can;
    Place place{};  ///< where one stands, and how large it is, as far as it does not say so itself
    // An aggregate of it.
    void* (*create)() = nullptr;  ///< one with all defaults
    void (*destroy)(void*) = nullptr;
    std::unique_ptr<Body> (*make)(const void*, BodyContext&) = nullptr;
    CommonFields (*common)(const void*) = nullptr;
    std::vector<FurtherSource> (*further)(const void*) = nullptr;  ///< besides value, maximum and visible
    int (*panels)(const void*) = nullptr;                          ///< how many a list or markers have
    const void* (*defaults)() = nullptr;
    bool follows = false;  ///< it shows a value, perhaps in motion and in bands

    std::string_view name() const { return table->name; }
};

/// Returns a kind by its aggregate.
template <class Described>
const Kind& kind_of() {
    return detail::describe(static_cast<const Described*>(nullptr));
}

/// Returns the kind of an aggregate. Its file has a `make_body`, and a `further_sources` if it has such.
template <class Aggregate>
constexpr Kind make_kind(const Table& table, Abilities can = {}, const Place& place = {}) {
    return {.table = &table,
            .can = can,
            .place = place,
            .create = []() -> void* { return new Aggregate(); },
            .destroy = [](void* aggregate) { delete static_cast<Aggregate*>(aggregate); },
            .make = [](const void* aggregate,
                       BodyContext& context) { return make_body(*static_cast<const Aggregate*>(aggregate), context); },
            .common = [](const void* aggregate) { return common_of(*static_cast<const Aggregate*>(aggregate)); },
            .further =
                [](const void* aggregate) {
                    if constexpr (requires(const Aggregate& made) { further_sources(made); })
                        return further_sources(*static_cast<const Aggregate*>(aggregate));
                    else
                        return std::vector<FurtherSource>();
                },
            .panels =
                [](const void* aggregate) {
                    if constexpr (requires(const Aggregate& made) { panels_of(made); })
                        return panels_of(*static_cast<const Aggregate*>(aggregate));
                    else
                        return 0;
                },
            .defaults = []() -> const void* {
                static const Aggregate made;
                return &made;
            },
            .follows = requires(const Aggregate& made){made.motion;
}
};  // namespace rapido
}

/// All kinds.
std::span<const Kind* const> all_kinds();
std::vector<std::string_view> kind_names();
/// Returns the kind of this name; null for none.
const Kind* find_kind(std::string_view name);

/// An element, written out as the aggregate of its kind.
class WrittenElement {
 public:
    /// One with all defaults.
    explicit WrittenElement(const Kind& kind);
    explicit WrittenElement(const Element& element);

    const Kind& kind() const { return *kind_; }
    void* data() { return aggregate_.get(); }
    const void* data() const { return aggregate_.get(); }
    /// The aggregate, for an element of this kind; null for one of another.
    template <class Described>
    Described* as() {
        return kind_ == &kind_of<Described>() ? static_cast<Described*>(data()) : nullptr;
    }
    /// A field by its name; null where the kind has none, or where it is absent.
    template <class T>
    T* field(std::string_view name) {
        const Field* const known = kind_->table->find(name);
        if (known == nullptr || known->value != &value_type<T> || known->at(data()) == nullptr) return nullptr;
        return static_cast<T*>(known->in(data()));
    }
    CommonFields common() const { return kind_->common(data()); }
    /// Returns the element that it is.
    Element element() const;

    static const Kind& kind_in(const Element& element) { return *element.kind_; }

 private:
    const Kind* kind_;
    std::unique_ptr<void, void (*)(void*)> aggregate_;
};

inline const Kind& kind_of(const Element& element) {
    return WrittenElement::kind_in(element);
}

/// What several elements keep alike is kept once.
class KnownFields {
 public:
    /// Lets an element share what it keeps with one before it.
    void share(Element& element);

 private:
    std::unordered_multimap<std::size_t, std::weak_ptr<const detail::KeptFields>> known_;  ///< by hash
    std::size_t most_ = 64;  ///< known, before those without a user are forgotten
};

/// What each kind defines for games, in its file.
template <class Described>
std::optional<Described> Element::as() const {
    if (kind_ != &kind_of<Described>()) return std::nullopt;
    WrittenElement written(*this);
    return std::move(*written.as<Described>());
}

}  // namespace rapido
