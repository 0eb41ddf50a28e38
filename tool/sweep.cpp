#include "tool/sweep.hpp"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

namespace rapido::tool {
namespace {

using nlohmann::json;

constexpr int rate = 30;  ///< rows a second
constexpr double begin = 2, end = 10, length = 12;

json json_of(const Value& value) {
    switch (value.type()) {
        case Value::Type::text:
            return std::string(value.text());
        case Value::Type::boolean:
            return value.boolean();
        case Value::Type::int64:
            return value.int64();
        default:
            return value.number();
    }
}

json usual(const DeclaredSource& source) {
    return json_of(usual_value(source).get());
}

/// At a part of the way there and back, 0 to 1.
json at(const DeclaredSource& source, double part) {
    const double there = 1 - std::abs(2 * part - 1);
    const bool has_range = source.range.low < source.range.high;
    const double number = source.range.low + there * (source.range.high - source.range.low);
    const auto nth = [&](std::size_t count) {
        return std::min(static_cast<std::size_t>(part * static_cast<double>(count)), count - 1);
    };
    if (source.type == SourceType::flag) return nth(4) % 2 == 0;
    if (has_range && source.type == SourceType::integer)
        return static_cast<std::int64_t>(std::llround(number));
    if (has_range) return number;
    return source.sample.empty() ? usual(source) : json_of(source.sample[nth(source.sample.size())].get());
}

}  // namespace

KeptValue usual_value(const DeclaredSource& source) {
    if (!source.sample.empty()) return source.sample.front();
    const double middle = (source.range.low + source.range.high) / 2;
    switch (source.type) {
        case SourceType::flag:
            return Value(false);
        case SourceType::text:
            return Value(source.name);
        case SourceType::integer:
            return Value(static_cast<std::int64_t>(std::llround(middle)));
        default:
            return Value(middle);
    }
}

Result<Trace> sweep_of(const HudDefinition& definition, const std::string& file) {
    if (definition.sources.empty())
        return Problem{{file},
                       "declares no source that could be swept",
                       "say what the game will offer, such as [source.\"plane.water\"] with a range",
                       ProblemCode::missing_key};
    std::string lines;
    for (int row = 0; row <= static_cast<int>(length * rate); ++row) {
        const double time = static_cast<double>(row) / rate;
        json line{{"time", time}};
        for (const DeclaredSource& source : definition.sources)
            line[source.name] =
                time < begin || time >= end ? usual(source) : at(source, (time - begin) / (end - begin));
        lines += line.dump() + "\n";
    }
    return Trace::read_json_lines(lines, file);
}

}  // namespace rapido::tool
