#include "tool/ranges.hpp"

#include "tool/sample_entries.hpp"

namespace rapido::tool {
namespace {

using nlohmann::json;

constexpr int rate = 30;  ///< rows a second
constexpr double ways_begin = 2, ways_end = 10, ways_length = 12;

json usual(const DeclaredSource& source) {
    const KeptValue value = usual_value(source);
    return source.type == SourceType::entries ? entries_json(source, entry_count(source, value.get()), 0)
                                              : json_of(value.get());
}

/// At a part of the way there and back, 0 to 1.
json at(const DeclaredSource& source, double part) {
    const KeptValue value = value_at(source, part);
    return source.type == SourceType::entries ? entries_json(source, entry_count(source, value.get()), part)
                                              : json_of(value.get());
}

}  // namespace

Result<Trace> sweep_of(const HudDefinition& definition, const std::string& file) {
    if (definition.sources.empty())
        return Problem{{file},
                       "declares no source that could be swept",
                       "say what the game will offer, such as [source.\"plane.water\"] with a range",
                       ProblemCode::missing_key};
    const std::vector<DeclaredSource> sources = sources_with_places(definition);
    std::string lines;
    for (int row = 0; row <= static_cast<int>(ways_length * rate); ++row) {
        const double time = static_cast<double>(row) / rate;
        json line{{"time", time}};
        for (const DeclaredSource& source : sources)
            line[source.name] = time < ways_begin || time >= ways_end
                                    ? usual(source)
                                    : at(source, (time - ways_begin) / (ways_end - ways_begin));
        lines += line.dump() + "\n";
    }
    return Trace::read_json_lines(lines, file);
}

}  // namespace rapido::tool
