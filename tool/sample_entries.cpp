#include "tool/sample_entries.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "hud/entry_fields.hpp"
#include "rapido/element/markers.hpp"

namespace rapido::tool {
namespace {

/// Follows what is set by hand.
class SampleEntries final : public detail::EntryReader {
 public:
    SampleEntries(DeclaredSource source, std::shared_ptr<const KeptValue> count)
        : source_(std::move(source)), count_(std::move(count)) {
        for (const DeclaredSource& field : source_.fields)
            fields_.push_back({field.name, std::nullopt});
    }

    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override { return entry_count(source_, count_->get()); }
    void read_field(std::size_t field, std::span<const std::uint8_t>, std::span<KeptValue> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry] = field_at(source_.fields[field], entry, 0);
    }
    void read_numbers(std::size_t field, std::span<double> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry] = field_at(source_.fields[field], entry, 0).get().number();
    }
    bool read_positions(std::span<WorldPoint> into) const override { return read_fields_as_positions(*this, into); }

 private:
    DeclaredSource source_;
    std::shared_ptr<const KeptValue> count_;
    std::vector<Field> fields_;
};

}  // namespace

std::vector<DeclaredSource> sources_with_places(const HudDefinition& definition) {
    std::vector<DeclaredSource> sources = definition.sources;
    for (const Element& element : definition.elements) {
        const std::optional<Markers> markers = element.as<Markers>();
        if (!markers) continue;
        for (DeclaredSource& source : sources) {
            const auto has = [&](const char* name) {
                return std::any_of(source.fields.begin(), source.fields.end(),
                                   [&](const DeclaredSource& field) { return field.name == name; });
            };
            if (source.name != markers->entries.name() || (has("x") && has("y"))) continue;
            constexpr double part = 0.4;
            const double across = part * static_cast<double>(definition.design.width),
                         down = part * static_cast<double>(definition.design.height);
            source.fields.push_back({.name = "x", .range = {-across, across}});
            source.fields.push_back({.name = "y", .range = {-down, down}});
        }
    }
    return sources;
}

nlohmann::json json_of(const Value& value) {
    switch (value.type()) {
        case Value::Type::none:
            return nullptr;
        case Value::Type::text:
            return std::string(value.text());
        case Value::Type::flag:
            return value.flag();
        case Value::Type::int64:
            return value.int64();
        default:
            return value.number();
    }
}

KeptValue usual_value(const DeclaredSource& source) {
    if (!source.sample.empty()) return source.sample.front();
    const double middle = (source.range.low + source.range.high) / 2;
    switch (source.type) {
        case SourceType::flag:
            return Value(false);
        case SourceType::text:
            return Value(source.name);
        case SourceType::color:
            return Value("#ffc24a");
        case SourceType::image:
            return Value();
        case SourceType::integer:
            return Value(static_cast<std::int64_t>(std::llround(middle)));
        case SourceType::entries: {
            constexpr std::int64_t without_range = 3;
            const bool has_range = source.range.low < source.range.high;
            return Value(has_range ? static_cast<std::int64_t>(std::llround(middle)) : without_range);
        }
        default:
            return Value(middle);
    }
}

KeptValue value_at(const DeclaredSource& source, double part) {
    const double there = 1 - std::abs(2 * part - 1);
    const bool has_range = source.range.low < source.range.high;
    const double number = source.range.low + there * (source.range.high - source.range.low);
    const auto nth = [&](std::size_t count) {
        return std::min(static_cast<std::size_t>(part * static_cast<double>(count)), count - 1);
    };
    if (source.type == SourceType::flag) return Value(nth(4) % 2 == 0);
    if (has_range && (source.type == SourceType::integer || source.type == SourceType::entries))
        return Value(static_cast<std::int64_t>(std::llround(number)));
    if (has_range) return Value(number);
    return source.sample.empty() ? usual_value(source) : source.sample[nth(source.sample.size())];
}

std::size_t entry_count(const DeclaredSource& source, const Value& count) {
    // As many columns as a trace may have, shared by a few containers.
    constexpr std::size_t most = 50, most_values = 300;
    if (!count.is_number() || !(count.number() > 0)) return 0;
    const std::size_t room = std::max(most_values / std::max(source.fields.size(), std::size_t{1}), std::size_t{1});
    return static_cast<std::size_t>(std::min(count.number(), static_cast<double>(std::min(most, room))));
}

KeptValue field_at(const DeclaredSource& field, std::size_t entry, double part) {
    if (field.type == SourceType::color && field.sample.empty()) {
        constexpr std::array<std::string_view, 4> colors{"#ffc24a", "#5fb8ff", "#8fce5a", "#ff7a3c"};
        return Value(colors[entry % colors.size()]);
    }
    if (field.type == SourceType::image && field.sample.empty()) return Value();
    if (is_text(field.type)) {
        if (field.sample.empty()) return Value(std::string_view(field.name + " " + std::to_string(entry + 1)));
        return field.sample[entry % field.sample.size()];
    }
    // Steps of the golden ratio fall evenly, however many there are. Each field begins elsewhere, so that places do not lie on a line.
    constexpr double step = 0.61803398874989485;
    double begin = 0, whole = 0;
    for (const char c : field.name)
        begin += static_cast<double>(static_cast<unsigned char>(c)) * 0.41421356237309505;
    return value_at(field, std::modf(part + begin + static_cast<double>(entry) * (step + begin / 7), &whole));
}

nlohmann::json entries_json(const DeclaredSource& source, std::size_t count, double part) {
    nlohmann::json entries = nlohmann::json::array();
    for (std::size_t entry = 0; entry < count; ++entry) {
        nlohmann::json& made = entries.emplace_back(nlohmann::json::object());
        for (const DeclaredSource& field : source.fields)
            made[field.name] = json_of(field_at(field, entry, part).get());
    }
    return entries;
}

Source sample_entries(const DeclaredSource& source, std::shared_ptr<const KeptValue> count) {
    return Source(
        detail::Binding::getter(std::make_shared<const SampleEntries>(source, std::move(count)), Value::Type::int64));
}

}  // namespace rapido::tool
