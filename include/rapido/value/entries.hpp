// Binds a list of a HUD to a container of the game.
#pragma once

#include <cstdint>
#include <iterator>
#include <limits>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <tuple>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/value/kept_value.hpp"
#include "rapido/value/position.hpp"
#include "rapido/value/watch.hpp"

namespace rapido RAPIDO_EXPORTED {

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
    /// The same as numbers, of all of them; NaN for what is none.
    virtual void read_numbers(std::size_t field, std::span<double> into) const = 0;
    /// Where the entries are in the world; false where nobody has said so.
    virtual bool read_positions(std::span<WorldPoint> into) const = 0;
};

/// A field of the entries of a container: see `entry_field`.
template <class Projection>
struct EntryField {
    std::string name;
    Projection projection;
};

/// Where the entries of a container are in the world: see `entry_position`.
template <class Projection>
struct EntryPosition {
    Projection projection;
};
template <class>
inline constexpr bool is_entry_position = false;
template <class Projection>
inline constexpr bool is_entry_position<EntryPosition<Projection>> = true;

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

/// Entries that a function of the game goes through.
template <class Entry, class Visit>
struct VisitedEntries {
    using Visited = Entry;
    Visit visit;
};
/// An entry that stands for the address of its object.
struct AddressOfEntry {
    template <class Entry>
    std::int64_t operator()(const Entry& entry) const {
        return static_cast<std::int64_t>(reinterpret_cast<std::intptr_t>(&entry));
    }
};

template <class Container>
auto object_of() {
    if constexpr (requires { typename Container::Visited; })
        return std::type_identity<typename Container::Visited>();
    else
        return std::type_identity<
            EntryObject<std::remove_cvref_t<decltype(*std::begin(std::declval<const Container&>()))>>>();
}

template <class Container, class... Fields>
class ContainerReader final : public EntryReader {
 public:
    using Object = typename decltype(object_of<Container>())::type;

    explicit ContainerReader(const Container& container, Fields... given)
        : container_(&container), given_(std::move(given)...) {
        std::apply([this](const auto&... each) { (this->add(each), ...); }, given_);
    }
    explicit ContainerReader(std::shared_ptr<const Container> container, Fields... given)
        : own_(std::move(container)), container_(own_.get()), given_(std::move(given)...) {
        std::apply([this](const auto&... each) { (this->add(each), ...); }, given_);
    }

    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override {
        if constexpr (requires { std::size(*container_); }) {
            return std::size(*container_);
        } else {
            std::size_t count = 0;
            for_each(
                SIZE_MAX, [&count](std::size_t, const auto*) { ++count; }, [](std::size_t) {});
            return count;
        }
    }
    void read_field(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into) const override {
        std::string storage;
        with_field(field, [&](const auto& projection) {
            const auto read = [&](std::size_t row, const auto* object) {
                if (!wanted.empty() && wanted[row] == 0) return;
                into[row] = object != nullptr ? keep(project(projection, *object), storage) : Value();
            };
            for_each(into.size(), read, [&](std::size_t row) { into[row] = Value(); });
        });
    }
    void read_numbers(std::size_t field, std::span<double> into) const override {
        std::string storage;
        with_field(field, [&](const auto& projection) {
            constexpr double nothing = std::numeric_limits<double>::quiet_NaN();
            const auto read = [&](std::size_t row, const auto* object) {
                using Result = Projected<std::remove_cvref_t<decltype(projection)>, Object>;
                if constexpr (std::is_arithmetic_v<Result>)
                    into[row] = object != nullptr ? static_cast<double>(project(projection, *object)) : nothing;
                else
                    into[row] = object != nullptr ? keep(project(projection, *object), storage).number() : nothing;
            };
            for_each(into.size(), read, [&](std::size_t row) { into[row] = nothing; });
        });
    }
    bool read_positions(std::span<WorldPoint> into) const override {
        bool is_known = false;
        const auto read_one = [&](const auto& each) {
            if constexpr (is_entry_position<std::remove_cvref_t<decltype(each)>>) {
                is_known = true;
                constexpr double none = std::numeric_limits<double>::quiet_NaN();
                constexpr WorldPoint nowhere{none, none, none};
                const auto read = [&](std::size_t row, const auto* object) {
                    into[row] = object != nullptr ? world_point(project(each.projection, *object)) : nowhere;
                };
                for_each(into.size(), read, [&](std::size_t row) { into[row] = nowhere; });
            }
        };
        std::apply([&](const auto&... each) { (read_one(each), ...); }, given_);
        return is_known;
    }

 private:
    template <class Given>
    void add(const Given& given) {
        if constexpr (!is_entry_position<Given>)
            fields_.push_back(
                {given.name, type_of<Projected<std::remove_cvref_t<decltype(given.projection)>, Object>>()});
    }
    /// Calls `use` with the projection of a field.
    template <class Use>
    void with_field(std::size_t field, Use use) const {
        std::size_t number = 0;
        const auto try_one = [&](const auto& each) {
            if constexpr (!is_entry_position<std::remove_cvref_t<decltype(each)>>)
                if (number++ == field) use(each.projection);
        };
        std::apply([&](const auto&... each) { (try_one(each), ...); }, given_);
    }
    /// Calls `take` with the number and the object of each entry, and `lack` with the number of one at which it throws.
    template <class Take, class Lack>
    void for_each(std::size_t count, Take take, Lack lack) const {
        std::size_t row = 0;
        const auto take_next = [&](const auto* object) {
            if (row == count) return;
            if (!guarded(this, [&] { take(row, object); })) lack(row);
            ++row;
        };
        if constexpr (requires { typename Container::Visited; }) {
            guarded(this, [&] { container_->visit([&](const Object& entry) { take_next(&entry); }); });
        } else {
            for (const auto& entry : *container_) {
                if (row == count) return;
                take_next(entry_address(entry));
            }
        }
    }

    std::shared_ptr<const Container> own_;  ///< null for what the game keeps
    const Container* container_;
    std::tuple<Fields...> given_;
    std::vector<Field> fields_;
};

/// The first sentence that a compiler says of a field that cannot be read.
template <class Object, class Given>
constexpr bool must_be_field() {
    if constexpr (is_entry_position<Given>) {
        static_assert(Position<Projected<decltype(Given::projection), Object>>,
                      "rapido::entry_position takes a member or a callable that gives what has x, y and perhaps z, or "
                      "two or three numbers by index");
        return Position<Projected<decltype(Given::projection), Object>>;
    } else {
        must_be_readable<Projected<decltype(Given::projection), Object>>();
        return Readable<Projected<decltype(Given::projection), Object>>;
    }
}

}  // namespace detail

/// Names a field of the entries of a container, for `watch_entries`: a member, a member function without arguments, or a callable on
/// an entry.
template <class Projection>
detail::EntryField<Projection> entry_field(std::string name, Projection projection) {
    return {std::move(name), std::move(projection)};
}

/// Says where the entries of a container are in the world, for `Markers`: a member, a member function without arguments, or a callable on
/// an entry, which gives what has x, y and perhaps z, or two or three numbers by index.
template <class Projection>
detail::EntryPosition<Projection> entry_position(Projection projection) {
    return {std::move(projection)};
}

/// Names the field by which entries are told apart where the game has no number for them: their address. It is the `key` of lists and markers
/// whose things stay where they are in memory, such as those that a container of pointers points at.
inline detail::EntryField<detail::AddressOfEntry> entry_address(std::string name) {
    return {std::move(name), {}};
}

/// Binds a `List` or `Markers` to a container of the game, which may be anything that a range-based `for` goes through, and names the fields
/// of its entries:
///
///     sources.set("pilots", rapido::watch_entries(pilots, rapido::entry_field("name", &Pilot::name),
///                                                 rapido::entry_field("score", &Pilot::score)));
///
/// The container must outlive the HUD; its entries may come, go and move between two updates. Entries that are pointers are
/// followed; one that points at nothing has no values. As a value, the source is the number of entries. In each update, the fields by which
/// a list orders its entries and tells them apart are read of all entries, the others of those that are shown.
template <class Container, class... Fields>
Source watch_entries(Container&& container, Fields... fields) {
    static_assert(std::is_lvalue_reference_v<Container>,
                  "rapido::watch_entries needs a container that outlives the HUD, and this one is a "
                  "temporary: keep it in a variable");
    using Reader = detail::ContainerReader<std::remove_cvref_t<Container>, Fields...>;
    if constexpr (std::is_lvalue_reference_v<Container> &&
                  (detail::must_be_field<typename Reader::Object, Fields>() && ...))
        return Source(detail::Binding::getter(std::make_shared<const Reader>(container, std::move(fields)...),
                                              Value::Type::int64));
    else
        return {};
}

/// The same for what no range-based `for` goes through: a linked list, a tree, an array of which some places are free. `visit` is called with a function,
/// and calls that with each entry, an `Entry`; it changes nothing:
///
///     sources.set("enemies", rapido::watch_each<Enemy>(
///         [](const auto& see) {
///             for (const Enemy* enemy = first_enemy; enemy != nullptr; enemy = enemy->next) see(*enemy);
///         },
///         rapido::entry_address("id"), rapido::entry_field("health", &Enemy::health)));
///
/// The entries are gone through once to be counted, and once for each field that is read.
template <class Entry, class Visit, class... Fields>
Source watch_each(Visit visit, Fields... fields) {
    using Visited = detail::VisitedEntries<Entry, Visit>;
    using Reader = detail::ContainerReader<Visited, Fields...>;
    if constexpr ((detail::must_be_field<Entry, Fields>() && ...))
        return Source(detail::Binding::getter(
            std::make_shared<const Reader>(std::make_shared<const Visited>(Visited{std::move(visit)}),
                                           std::move(fields)...),
            Value::Type::int64));
    else
        return {};
}

}  // namespace rapido
