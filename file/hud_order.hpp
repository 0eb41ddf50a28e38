// The order of the keys of a HUD file, and which description each table has.
#pragma once

#include <algorithm>
#include <string_view>
#include <vector>

#include "base/fields.hpp"
#include "file/toml_text.hpp"

namespace rapido {

/// In which order the keys of a table stand, and what stands inside them.
struct Order {
    std::vector<std::string_view> first{};  ///< before the fields
    const Table* table = nullptr;           ///< null: as they are written
    std::vector<std::string_view> last{};   ///< behind them

    std::size_t rank(std::string_view key) const {
        const auto before = std::find(first.begin(), first.end(), key);
        if (before != first.end()) return static_cast<std::size_t>(before - first.begin());
        const auto behind = std::find(last.begin(), last.end(), key);
        if (behind != last.end()) return 10'000 + static_cast<std::size_t>(behind - last.begin());
        if (table != nullptr)
            for (std::size_t i = 0; i < table->fields.size(); ++i)
                if (table->fields[i].name == key) return 100 + i;
        // What only a component knows: its parameters.
        return 50;
    }
};

/// Of the table of an element, by its kind.
Order order_of_element(const std::vector<toml_text::Item>& items);
/// Inside of a field, for a table or a list of tables.
Order order_inside(const Order& around, std::string_view key, const std::vector<toml_text::Item>& items);
/// Below a header, such as `[[element]]` or `[source."plane.water"]`.
Order order_of(const toml_text::Section& section);
/// Whether the tables of a list are elements.
bool holds_elements(const Order& order);

}  // namespace rapido
