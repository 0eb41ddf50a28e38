#include "hud/game_things.hpp"

#include <limits>

namespace rapido {

void GameThings::set_names(const std::vector<std::string>& names) {
    fields_.clear();
    for (const std::string& name : names)
        fields_.push_back({name, std::nullopt});
    fields_.push_back({"key", Value::Type::uint64});
}

std::uint32_t GameThings::add(const PositionSource& at, std::span<const detail::Binding> bound) {
    auto index = static_cast<std::uint32_t>(all_.size());
    if (free_.empty()) {
        all_.emplace_back();
        free_.reserve(all_.size());
    } else {
        index = free_.back();
        free_.pop_back();
    }
    Thing& thing = all_[index];
    thing.at.emplace(at);
    thing.visible = true;
    thing.values.assign(bound.begin(), bound.end());
    return index;
}

void GameThings::remove(std::uint32_t index) {
    Thing& thing = all_[index];
    thing.at.reset();
    thing.values.clear();
    ++thing.generation;
    free_.push_back(index);
}

Value GameThings::value_of(const Thing& thing, std::size_t field) const {
    if (!thing.at) return {};
    if (field + 1 == fields_.size())
        return Value((std::uint64_t{thing.generation} << 32U) | static_cast<std::uint64_t>(&thing - all_.data()));
    return field < thing.values.size() ? thing.values[field].read(storage_) : Value();
}

void GameThings::read_field(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into) const {
    for (std::size_t i = 0; i < into.size(); ++i)
        if (wanted.empty() || wanted[i] != 0) into[i] = value_of(all_[i], field);
}

void GameThings::read_numbers(std::size_t field, std::span<double> into) const {
    for (std::size_t i = 0; i < into.size(); ++i)
        into[i] = value_of(all_[i], field).number();
}

bool GameThings::read_positions(std::span<WorldPoint> into) const {
    constexpr double nowhere = std::numeric_limits<double>::quiet_NaN();
    for (std::size_t i = 0; i < into.size(); ++i)
        into[i] = all_[i].at && all_[i].visible ? all_[i].at->read() : WorldPoint{nowhere, nowhere, nowhere};
    return true;
}

}  // namespace rapido
