// Things of the world that a game marks one by one.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/value/entries.hpp"

namespace rapido {

/// The entries of markers without a container. Their memory is used again.
class GameThings final : public detail::EntryReader {
 public:
    explicit GameThings(const std::vector<std::string>& names) { set_names(names); }
    void set_names(const std::vector<std::string>& names);

    /// Adds a thing; `bound` are its values, in the order of the names. Returns its index.
    std::uint32_t add(const PositionSource& at, std::span<const detail::Binding> bound);
    void remove(std::uint32_t index);
    bool is_there(std::uint32_t index, std::uint32_t generation) const {
        return index < all_.size() && all_[index].at && all_[index].generation == generation;
    }
    std::uint32_t generation(std::uint32_t index) const { return all_[index].generation; }
    void set_visible(std::uint32_t index, bool visible) { all_[index].visible = visible; }

    /// The field `key`, by which things are told apart, stands behind the others.
    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override { return all_.size(); }
    void read_field(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into) const override;
    void read_numbers(std::size_t field, std::span<double> into) const override;
    /// Nowhere for one that is hidden.
    bool read_positions(std::span<WorldPoint> into) const override;

 private:
    struct Thing {
        std::optional<PositionSource> at;  ///< nothing where the place in the list is free
        std::uint32_t generation = 0;
        bool visible = true;
        std::vector<detail::Binding> values;
    };
    Value value_of(const Thing& thing, std::size_t field) const;

    std::vector<Field> fields_;
    std::vector<Thing> all_;
    std::vector<std::uint32_t> free_;
    mutable std::string storage_;
};

}  // namespace rapido
