#include "assembly/declared_sources.hpp"

#include <functional>
#include <string>

#include "base/fields.hpp"
#include "hud/definition_tables.hpp"
#include "value/source_name.hpp"

namespace rapido {
namespace {

bool is_of(SourceType type, const Value& value) {
    switch (type) {
        case SourceType::text:
        case SourceType::color:
        case SourceType::image:
            return value.type() == Value::Type::text;
        case SourceType::flag:
            return value.type() == Value::Type::flag;
        case SourceType::integer:
        case SourceType::entries:
            return value.is_integer();
        case SourceType::number:
        case SourceType::time:
            break;
    }
    return value.is_integer() || value.is_real();
}

std::optional<Problem> fault_of(const DeclaredSource& source, const std::string& owner,
                                const std::function<Location(std::string_view)>& at) {
    const std::string type(choices_of<SourceType>[static_cast<std::size_t>(source.type)]);
    const bool is_amount = source.type != SourceType::flag && !is_text(source.type);
    const bool has_range = source.range.low != source.range.high;
    if (source.name.empty()) return Problem{at(""), "a source without a name", "", ProblemCode::bad_id};
    if (const std::string_view fault = fault_of_name(source.name); !fault.empty())
        return Problem{at(""), "the name of " + owner + " " + std::string(fault), "", ProblemCode::bad_id};
    const bool has_fields = !source.fields.empty();
    if (source.type == SourceType::entries && !has_fields)
        return Problem{at(""), owner + " is entries without 'fields'",
                       "say what each entry has, such as fields.name = { type = \"text\" }", ProblemCode::missing_key};
    if (source.type != SourceType::entries && has_fields)
        return Problem{at("fields"), "'fields' of " + owner + ", which is a " + type, "type = \"entries\" has fields",
                       ProblemCode::contradiction};
    if (source.type == SourceType::entries && source.range.low < 0)
        return Problem{at("range"), "'range' of " + owner + " begins below zero, and counts its entries", "",
                       ProblemCode::out_of_range};
    if (has_range && !is_amount)
        return Problem{at("range"), "'range' of " + owner + ", which is a " + type, "give its values as 'sample'",
                       ProblemCode::contradiction};
    if (has_range && !(source.range.low < source.range.high))
        return Problem{at("range"), "'range' of " + owner + " is empty; expected [low, high]", "",
                       ProblemCode::out_of_range};
    for (const KeptValue& kept : source.sample) {
        const Value value = kept.get();
        if (!is_of(source.type, value))
            return Problem{
                at("sample"),
                "'sample' of " + owner + " does not hold " +
                    (source.type == SourceType::integer   ? "an integer, which it is"
                     : source.type == SourceType::entries ? std::string("whole numbers, of entries that there may be")
                                                          : "a " + type + ", which it is"),
                "", ProblemCode::wrong_type};
        if (is_amount && has_range && !(value.number() >= source.range.low && value.number() <= source.range.high))
            return Problem{at("sample"),
                           "'sample' of " + owner + " is " + plain_number(value.number()) +
                               ", which is outside of its range, " + plain_number(source.range.low) + " to " +
                               plain_number(source.range.high),
                           "", ProblemCode::out_of_range};
    }
    return std::nullopt;
}

}  // namespace

std::optional<Problem> fault_of(const DeclaredSource& source, const Locations* locations) {
    const auto at = [&](const std::string& field) { return locations != nullptr ? locations->of(field) : Location{}; };
    const std::string owner = "source '" + source.name + "'";
    if (auto fault = fault_of(source, owner, [&](std::string_view field) { return at(std::string(field)); }))
        return fault;
    for (const DeclaredSource& field : source.fields) {
        const std::string own = "field '" + field.name + "' of " + owner;
        const std::string path = "fields." + field.name;
        const auto inside = [&](std::string_view part) {
            return at(part.empty() ? path : path + "." + std::string(part));
        };
        if (field.type == SourceType::entries)
            return Problem{inside("type"), own + " is entries", "a field is a number, a flag, a text or a time",
                           ProblemCode::wrong_type};
        if (auto fault = fault_of(field, own, inside)) return fault;
    }
    return std::nullopt;
}

}  // namespace rapido
