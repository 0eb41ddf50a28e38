#include "hud/declared_sources.hpp"

#include <string>

#include "base/fields.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

bool is_of(SourceType type, const Value& value) {
    switch (type) {
        case SourceType::text:
            return value.type() == Value::Type::text;
        case SourceType::flag:
            return value.type() == Value::Type::boolean;
        case SourceType::integer:
            return value.is_integer();
        case SourceType::number:
        case SourceType::time:
            break;
    }
    return value.is_integer() || value.is_real();
}

}  // namespace

std::optional<Problem> fault_of(const DeclaredSource& source, const Origin* origin) {
    const auto at = [&](std::string_view field) {
        return origin != nullptr ? origin->of(field) : Location{};
    };
    const std::string owner = "source '" + source.name + "'";
    const std::string type(Choices<SourceType>::names[static_cast<std::size_t>(source.type)]);
    const bool is_amount = source.type != SourceType::flag && source.type != SourceType::text;
    const bool has_range = source.range.low != source.range.high;
    if (source.name.empty()) return Problem{at(""), "a source without a name", "", ProblemCode::bad_id};
    if (has_range && !is_amount)
        return Problem{at("range"), "'range' of " + owner + ", which is a " + type,
                       "give its values as 'sample'", ProblemCode::contradiction};
    if (has_range && !(source.range.low < source.range.high))
        return Problem{at("range"), "'range' of " + owner + " is empty; expected [low, high]", "",
                       ProblemCode::out_of_range};
    for (const KeptValue& kept : source.sample) {
        const Value value = kept.get();
        if (!is_of(source.type, value))
            return Problem{at("sample"),
                           "'sample' of " + owner + " does not hold " +
                               (source.type == SourceType::integer ? "an " : "a ") + type + ", which it is",
                           "", ProblemCode::wrong_type};
        if (is_amount && has_range &&
            !(value.number() >= source.range.low && value.number() <= source.range.high))
            return Problem{at("sample"),
                           "'sample' of " + owner + " is " + plain_number(value.number()) +
                               ", which is outside of its range, " + plain_number(source.range.low) + " to " +
                               plain_number(source.range.high),
                           "", ProblemCode::out_of_range};
    }
    return std::nullopt;
}

}  // namespace rapido
