// HUD files, written: each field by its description, unless it has its default.
#include <algorithm>
#include <charconv>
#include <cmath>
#include <nlohmann/json.hpp>

#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "file/hud_part.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/file.hpp"
#include "rapido/value/expression.hpp"

namespace rapido {
namespace {

template <class Number>
std::string number_text(Number number) {
    if (std::isnan(number)) return "nan";
    if (std::isinf(number)) return number > 0 ? "inf" : "-inf";
    std::array<char, 32> text;
    const auto made = std::to_chars(text.data(), text.data() + text.size(), number);
    return {text.data(), made.ptr};
}

/// A double that is read as one: with a point or an exponent.
std::string real_text(double number) {
    std::string text = number_text(number);
    if (text.find_first_not_of("-0123456789") == std::string::npos) text += ".0";
    return text;
}

/// In quotes. What JSON escapes is escaped in the same way in TOML, which escapes the delete character besides.
std::string in_quotes(std::string_view text) {
    std::string made = nlohmann::json(text).dump();
    for (std::size_t at = made.find('\x7f'); at != std::string::npos; at = made.find('\x7f', at))
        made.replace(at, 1, "\\u007f");
    return made;
}

bool is_bare(std::string_view key) {
    return !key.empty() && std::all_of(key.begin(), key.end(), [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
    });
}
std::string key_text(std::string_view key) {
    return is_bare(key) ? std::string(key) : in_quotes(key);
}

template <class Range, class Write>
std::string list_text(const Range& range, Write write) {
    std::string text = "[";
    for (const auto& item : range)
        text += (text.size() > 1 ? ", " : "") + write(item);
    return text + "]";
}

std::string pair_text(float a, float b) {
    return "[" + number_text(a) + ", " + number_text(b) + "]";
}

class HudWriter {
 public:
    std::string text;
    Problems problems;

    void write(const HudDefinition& definition) {
        write_fields(top_table, &definition, HudDefinition{}, "the HUD");
        for (const Theme& theme : definition.themes)
            write_theme(theme);
        for (const TextStyle& style : definition.styles) {
            text += "\n[style." + key_text(style.id) + "]\n";
            write_fields(text_style_table, &style, TextStyle{}, "style '" + style.id + "'", "id");
        }
        for (const DeclaredSource& source : definition.sources) {
            text += "\n[source." + key_text(source.name) + "]\n";
            write_fields(source_table, &source, DeclaredSource{}, "source '" + source.name + "'");
            for (const DeclaredSource& field : source.fields) {
                text += "\n[source." + key_text(source.name) + ".fields." + key_text(field.name) + "]\n";
                write_fields(source_table, &field, DeclaredSource{}, "source '" + source.name + "'");
            }
        }
        write_list("timer", timer_table, definition.timers);
        write_list("frame_meter", frame_meter_table, definition.frame_meters);
        write_list("effect", effect_table, definition.effects);
        write_list("group", group_table, definition.groups);
        write_list("language", language_table, definition.languages);
        write_list("accept", accepted_table, definition.accept);
        for (const Element& element : definition.elements) {
            const Kind& kind = kind_of(element);
            text += "\n[[element]]\nkind = " + in_quotes(kind.name()) + "\n";
            const WrittenElement written(element);
            WrittenElement plain(kind);
            write_fields(*kind.table, written.data(), plain.data(), name_of(element));
        }
    }

 private:
    static std::string name_of(const Element& element) {
        return std::string(element.kind()) + " '" + element.id() + "'";
    }

    void write_theme(const Theme& theme) {
        const auto write_part = [&](std::string_view part, const auto& values, auto write) {
            if (values.empty()) return;
            text += "\n[theme." + key_text(theme.id) + "." + std::string(part) + "]\n";
            for (const auto& [name, value] : values)
                text += key_text(name) + " = " + write(value) + "\n";
        };
        if (theme.color.empty() && theme.font.empty() && theme.radius.empty())
            text += "\n[theme." + key_text(theme.id) + "]\n";
        write_part("color", theme.color, [](Color color) { return in_quotes(to_string(color)); });
        write_part("font", theme.font, [](const std::string& font) { return in_quotes(font); });
        write_part("radius", theme.radius, [](float radius) { return number_text(radius); });
    }

    template <class Aggregate>
    void write_list(std::string_view name, const Table& table, const std::vector<Aggregate>& list) {
        for (const Aggregate& item : list) {
            text += "\n[[" + std::string(name) + "]]\n";
            write_fields(table, &item, Aggregate{}, std::string(name));
        }
    }

    template <class Aggregate>
    void write_fields(const Table& table, const void* aggregate, Aggregate plain, const std::string& owner,
                      std::string_view but = {}) {
        write_fields(table, aggregate, static_cast<void*>(&plain), owner, but);
    }
    /// All fields but the one that is written elsewhere.
    void write_fields(const Table& table, const void* aggregate, void* plain, const std::string& owner,
                      std::string_view but = {}) {
        for (const Field& field : table.fields)
            if (field.name == but)
                continue;
            else if (const std::string value = value_of(field, aggregate, plain, owner + ": "); !value.empty())
                text += std::string(field.name) + " = " + value + "\n";
    }

    /// Empty for what has its default. `plain` is an aggregate of defaults, which may be changed.
    std::string value_of(const Field& field, const void* aggregate, void* plain, const std::string& owner) {
        const void* const at = field.at(aggregate);
        if (at == nullptr) return {};
        const bool is_there_by_default = field.at(plain) != nullptr;
        void* const usual = field.in(plain);
        std::string written = written_as(field, at, usual, owner);
        if (field.type == FieldType::source && written.empty() && field.required) return {};
        if (field.required || !is_there_by_default) return written;
        if (field.type == FieldType::table) return written == "{}" ? std::string() : written;
        if (field.type == FieldType::list) return written == "[]" ? std::string() : written;
        if (field.type == FieldType::sources) return written == "{}" ? std::string() : written;
        if (field.type == FieldType::source && written.empty()) return empty_source(field, usual, owner);
        return written == written_as(field, usual, usual, owner) ? std::string() : written;
    }

    /// A source that is empty, where it is not by default.
    std::string empty_source(const Field& field, const void* usual, const std::string& owner) {
        if (static_cast<const Source*>(usual)->is_given())
            problems.push_back({{},
                                owner + std::string(field.name) + " is empty, which a file cannot say",
                                "give a constant",
                                ProblemCode::unfit});
        return {};
    }

    std::string written_as(const Field& field, const void* at, void* plain, const std::string& owner) {
        switch (field.type) {
            case FieldType::flag:
                return *static_cast<const bool*>(at) ? "true" : "false";
            case FieldType::integer:
                return std::to_string(*static_cast<const int*>(at));
            case FieldType::number:
                return number_text(*static_cast<const float*>(at));
            case FieldType::real:
                return number_text(*static_cast<const double*>(at));
            case FieldType::seconds:
                return number_text(static_cast<const Seconds*>(at)->count());
            case FieldType::text:
                return in_quotes(*static_cast<const std::string*>(at));
            case FieldType::color: {
                const auto& color = *static_cast<const Themed<Color>*>(at);
                if (color.source() != nullptr) return followed_text(*color.source(), owner + std::string(field.name));
                return in_quotes(color.name().empty() ? to_string(color.value()) : color.name());
            }
            case FieldType::themed_text: {
                const auto& themed = *static_cast<const Themed<std::string>*>(at);
                if (themed.source() != nullptr) return followed_text(*themed.source(), owner + std::string(field.name));
                return themed.name().empty() ? in_quotes(themed.value())
                                             : "{ theme = " + in_quotes(themed.name()) + " }";
            }
            case FieldType::themed_number: {
                const auto& themed = *static_cast<const Themed<float>*>(at);
                if (themed.source() != nullptr) return followed_text(*themed.source(), owner + std::string(field.name));
                return themed.name().empty() ? number_text(themed.value()) : in_quotes(themed.name());
            }
            case FieldType::point: {
                const auto& point = *static_cast<const Point*>(at);
                return pair_text(point.x, point.y);
            }
            case FieldType::size: {
                const auto& size = *static_cast<const Size*>(at);
                return pair_text(size.width, size.height);
            }
            case FieldType::insets: {
                const auto& insets = *static_cast<const Insets*>(at);
                return list_text(std::array{insets.top, insets.right, insets.bottom, insets.left}, number_text<float>);
            }
            case FieldType::choice:
                return in_quotes(field.choices[*static_cast<const std::uint8_t*>(at)]);
            case FieldType::source:
                return source_text(*static_cast<const Source*>(at), owner + std::string(field.name));
            case FieldType::amount:
                return amount_text(*static_cast<const Amount*>(at), owner + std::string(field.name));
            case FieldType::amounts: {
                const auto& both = *static_cast<const Shift*>(at);
                return "[" + amount_text(both.x, owner + std::string(field.name)) + ", " +
                       amount_text(both.y, owner + std::string(field.name)) + "]";
            }
            case FieldType::image: {
                const auto& image = *static_cast<const ImageName*>(at);
                return image.source() != nullptr ? followed_text(*image.source(), owner + std::string(field.name))
                                                 : in_quotes(image.name());
            }
            case FieldType::value:
                return value_text(*static_cast<const KeptValue*>(at));
            case FieldType::easing:
                return in_quotes(static_cast<const Easing*>(at)->notation());
            case FieldType::limits: {
                const auto& limits = *static_cast<const Limits*>(at);
                return "[" + number_text(limits.low) + ", " + number_text(limits.high) + "]";
            }
            case FieldType::points:
                return list_text(*static_cast<const std::vector<Point>*>(at),
                                 [](const Point& point) { return pair_text(point.x, point.y); });
            case FieldType::texts:
                return list_text(*static_cast<const std::vector<std::string>*>(at), in_quotes);
            case FieldType::values: {
                const auto& values = *static_cast<const std::vector<KeptValue>*>(at);
                return values.size() == 1 ? value_text(values[0]) : list_text(values, value_text);
            }
            case FieldType::sources: {
                std::string written = "{";
                for (const NamedSource& named : *static_cast<const std::vector<NamedSource>*>(at))
                    written += (written.size() > 1 ? ", " : " ") + key_text(named.name) + " = " +
                               source_text(named.value, owner + std::string(field.name) + "." + named.name);
                return written + (written.size() > 1 ? " }" : "}");
            }
            case FieldType::table:
                return table_text(*field.table, at, plain, owner + std::string(field.name) + ".");
            case FieldType::list:
                return items_text(field, at, plain, owner + std::string(field.name) + ".");
            case FieldType::natural:
            case FieldType::nanoseconds:
            case FieldType::numbers:
                return list_text(std::span(static_cast<const double*>(at), field.most), number_text<double>);
            case FieldType::part:
                break;  // only calls have such fields
        }
        return {};
    }

    std::string amount_text(const Amount& amount, const std::string& field) {
        return amount.source() == nullptr ? number_text(amount.number()) : source_text(*amount.source(), field);
    }
    /// What stands where a value would.
    std::string followed_text(const Source& source, const std::string& field) {
        const std::string said = source_text(source, field);
        return said.starts_with('{') ? said : "{ source = " + said + " }";
    }

    static std::string value_text(const KeptValue& kept) {
        const Value value = kept.get();
        if (value.type() == Value::Type::text) return in_quotes(std::string(value.text()));
        if (value.type() == Value::Type::flag) return value.flag() ? "true" : "false";
        return value.is_integer() ? std::to_string(value.int64()) : real_text(value.number());
    }

    /// `plain` is a list in which there is room for one item with all defaults.
    std::string items_text(const Field& field, const void* list, void* plain, const std::string& owner) {
        std::string written = "[";
        for (std::size_t i = 0; const void* const item = field.item(list, i); ++i) {
            field.clear(plain);
            written += (i > 0 ? ", " : "") +
                       table_text(*field.table, item, field.append(plain), owner + std::to_string(i) + ".");
        }
        field.clear(plain);
        return written + "]";
    }

    std::string table_text(const Table& table, const void* aggregate, void* plain, const std::string& owner) {
        std::string written = "{";
        for (const Field& field : table.fields)
            if (const std::string value = value_of(field, aggregate, plain, owner); !value.empty())
                written += (written.size() > 1 ? ", " : " ") + std::string(field.name) + " = " + value;
        return written + (written.size() > 1 ? " }" : "}");
    }

    std::string source_text(const Source& source, const std::string& field) {
        using detail::Binding;
        const Binding& binding = source.binding();
        if (binding.access() == Binding::Access::computed)
            if (const std::string said = write_expression(source); !said.empty()) return in_quotes(said);
        const bool is_name = binding.access() == Binding::Access::name;
        const Value constant = is_name || !source.is_given() ? Value() : constant_of(source);
        if (!source.is_given()) return {};
        if (!is_name && !constant.has_value()) {
            problems.push_back({{},
                                field + " is bound to something of the game, which a file cannot say",
                                "offer it in 'Sources', and give its name",
                                ProblemCode::unfit});
            return "0";
        }
        if (const Result<Source> read = parse_expression(binding.name());
            is_name && (!read || read->name() != binding.name()))
            problems.push_back({{},
                                field + " is the source '" + binding.name() + "', whose name a file cannot say",
                                "make names of letters, digits, '_' and '-' in parts that are joined by dots",
                                ProblemCode::unfit});
        std::string written;
        if (is_name)
            written = in_quotes((binding.is_negated() ? "!" : "") + binding.name());
        else if (constant.type() == Value::Type::flag)
            written = constant.flag() ? "true" : "false";
        else if (constant.type() == Value::Type::int64)
            written = std::to_string(constant.int64());
        else
            written = real_text(constant.real());
        return binding.counts_down() ? "{ source = " + written + ", time_left = true }" : written;
    }

    /// What a constant is that a file can say; no value for all else.
    static Value constant_of(const Source& source) {
        const detail::Binding& binding = source.binding();
        if (binding.access() != detail::Binding::Access::constant || binding.is_adjusted()) return {};
        std::string storage;
        const Value value = binding.read(storage);
        const bool is_known = value.type() == Value::Type::flag || value.type() == Value::Type::int64 ||
                              value.type() == Value::Type::float64;
        return is_known ? value : Value();
    }
};

}  // namespace
std::string write_hud_part(const HudDefinition& definition, Problems& problems) {
    HudWriter writer;
    writer.write(definition);
    problems.insert(problems.end(), writer.problems.begin(), writer.problems.end());
    return std::move(writer.text);
}

Result<std::string> write_hud(const HudDefinition& definition) {
    Problems problems;
    std::string text = write_hud_part(definition, problems);
    if (!problems.empty()) return problems;
    return text;
}

}  // namespace rapido
