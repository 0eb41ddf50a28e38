// Binds a list of a HUD to a container of the game.
#pragma once

#include <cstdint>
#include <iterator>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <tuple>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/value/kept_value.hpp"
#include "rapido/value/watch.hpp"

namespace rapido {

namespace detail {

/// Reads the entries of a container, field by field.
class EntryReader : public Getter {
 public:
    struct Field {
        std::string name;
        std::optional<Value::Type> type;  ///< where it is fixed
    };

    const EntryReader* entries() const override { return this; }
    /// As a value, a container is the number of its entries.
    Value read(std::string&) const override { return Value(static_cast<std::int64_t>(count())); }

    virtual const std::vector<Field>& fields() const = 0;
    virtual std::size_t count() const = 0;
    /// Puts one field of the entries into `into`, which has room for all. `wanted`, by entry, says which are read; all are where it
    /// is empty.
    virtual void read_field(std::size_t field, std::span<const std::uint8_t> wanted,
                            std::span<KeptValue> into) const = 0;
};

/// A field of the entries of a container: see `entry_field`.
template <class Projection>
struct EntryField {
    std::string name;
    Projection projection;
};

/// What an entry is read from: the entry itself, or what it points at; null for a pointer to nothing.
template <class Entry>
const auto* entry_address(const Entry& entry) {
    if constexpr (requires {
                      static_cast<bool>(entry);
                      *entry;
                  })
        return entry ? &*entry : nullptr;
    else
        return &entry;
}
template <class Entry>
using EntryObject = std::remove_cvref_t<decltype(*entry_address(std::declval<const Entry&>()))>;

template <class Container, class... Projections>
class ContainerReader final : public EntryReader {
 public:
    using Object = EntryObject<std::remove_cvref_t<decltype(*std::begin(std::declval<const Container&>()))>>;

    explicit ContainerReader(const Container& container, EntryField<Projections>... fields)
        : container_(&container), projections_(std::move(fields.projection)...) {
        (fields_.push_back({std::move(fields.name), type_of<Projected<Projections, Object>>()}), ...);
    }

    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override {
        return static_cast<std::size_t>(std::distance(std::begin(*container_), std::end(*container_)));
    }
    void read_field(std::size_t field, std::span<const std::uint8_t> wanted,
                    std::span<KeptValue> into) const override {
        read_nth(field, wanted, into, std::index_sequence_for<Projections...>());
    }

 private:
    template <std::size_t... Indices>
    void read_nth(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into,
                  std::index_sequence<Indices...>) const {
        ((Indices == field ? read_all(std::get<Indices>(projections_), wanted, into) : void()), ...);
    }
    template <class Projection>
    void read_all(const Projection& projection, std::span<const std::uint8_t> wanted,
                  std::span<KeptValue> into) const {
        std::string storage;
        std::size_t row = 0;
        for (const auto& entry : *container_) {
            if (row == into.size()) return;
            if (wanted.empty() || wanted[row] != 0) {
                const Object* const object = entry_address(entry);
                into[row] = object != nullptr ? keep(project(projection, *object), storage) : Value();
            }
            ++row;
        }
    }

    const Container* container_;
    std::tuple<Projections...> projections_;
    std::vector<Field> fields_;
};

}  // namespace detail

/// Names a field of the entries of a container, for `watch_entries`: a member, a member function without arguments, or a callable on
/// an entry.
template <class Projection>
detail::EntryField<Projection> entry_field(std::string name, Projection projection) {
    return {std::move(name), std::move(projection)};
}

/// Binds a `List` to a container of the game, which may be anything that a range-based `for` goes through, and names the fields of
/// its entries:
///
///     sources.set("pilots", rapido::watch_entries(pilots, rapido::entry_field("name", &Pilot::name),
///                                                 rapido::entry_field("score", &Pilot::score)));
///
/// The container must outlive the HUD; its entries may come, go and move between two updates. Entries that are pointers are
/// followed; one that points at nothing has no values. As a value, the source is the number of entries. In each update, the fields by which
/// a list orders its entries and tells them apart are read of all entries, the others of those that are shown.
template <class Container, class... Projections>
Source watch_entries(Container&& container, detail::EntryField<Projections>... fields) {
    static_assert(std::is_lvalue_reference_v<Container>,
                  "rapido::watch_entries needs a container that outlives the HUD, and this one is a "
                  "temporary: keep it in a variable");
    using Reader = detail::ContainerReader<std::remove_cvref_t<Container>, Projections...>;
    (detail::must_be_readable<detail::Projected<Projections, typename Reader::Object>>(), ...);
    if constexpr (std::is_lvalue_reference_v<Container> &&
                  (detail::Readable<detail::Projected<Projections, typename Reader::Object>> && ...))
        return Source(detail::Binding::getter(std::make_shared<const Reader>(container, std::move(fields)...),
                                              Value::Type::int64));
    else
        return {};
}

}  // namespace rapido
