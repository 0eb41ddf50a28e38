// HUD files: TOML, read field by field out of the descriptions.
#include <algorithm>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "file/first_problems.hpp"
#include "file/prescan.hpp"
#include "file/syntax_problem.hpp"
#include "file/toml.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/file.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {
namespace {

constexpr std::size_t largest_hud = 4'000'000;
constexpr std::size_t most_elements = 4'000;  ///< what a short file asks for must not take gigabytes
constexpr std::size_t most_others = 1'000;    ///< timers, meters, effects, groups, locales

std::string_view type_name(const toml::node& node) {
    if (node.is_string()) return "a text";
    if (node.is_number()) return "a number";
    if (node.is_boolean()) return "true or false";
    if (node.is_array()) return "a list";
    if (node.is_table()) return "a table";
    return "a date or time";
}

class HudReader {
 public:
    HudReader(std::string_view text, std::string name) : text_(text), name_(std::move(name)) {}

    HudDefinition definition;
    FirstProblems problems;
    std::vector<Location> damaged;  ///< tables with faults of their own

    void read() {
        if (text_.size() > largest_hud) return fail(ProblemCode::too_large, {}, "is larger than 4 MB");
        if (const int line = utf8::line_of_fault(text_); line > 0)
            return problems.add(
                {{name_, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax});
        if (auto problem = prescan_toml(text_, name_)) {
            problems.add(*std::move(problem));
            return;
        }
        const toml::parse_result parsed = toml::parse(text_, name_);
        if (!parsed) return problems.add(syntax_problem(parsed.error(), text_, name_));
        read_top(parsed.table());
    }

 private:
    Location place(const toml::source_region& region) const {
        return {name_, static_cast<int>(region.begin.line), static_cast<int>(region.begin.column)};
    }

    void fail(ProblemCode code, const toml::source_region& at, std::string message, std::string hint = {}) {
        problems.add({place(at), std::move(message), std::move(hint), code});
    }

    void read_top(const toml::table& top) {
        definition.origin.location = {name_, 1, 1};
        for (const auto& [key, node] : top) {
            if (key.str() == "element")
                read_list(key, node, [&](const toml::table& table) { read_element(table); });
            else if (key.str() == "timer")
                read_list(key, node, [&](const toml::table& table) {
                    read_table(table, timer_table, &definition.timers.emplace_back(),
                               definition.timer_origins.emplace_back());
                });
            else if (key.str() == "meter")
                read_list(key, node, [&](const toml::table& table) {
                    read_table(table, meter_table, &definition.meters.emplace_back(),
                               definition.meter_origins.emplace_back());
                });
            else if (key.str() == "effect")
                read_list(key, node, [&](const toml::table& table) {
                    read_table(table, effect_table, &definition.effects.emplace_back(),
                               definition.effect_origins.emplace_back());
                });
            else if (key.str() == "locale")
                read_list(key, node, [&](const toml::table& table) {
                    read_table(table, locale_table, &definition.locales.emplace_back(),
                               definition.locale_origins.emplace_back());
                });
            else if (key.str() == "group")
                read_list(key, node, [&](const toml::table& table) {
                    read_table(table, group_table, &definition.groups.emplace_back(),
                               definition.group_origins.emplace_back());
                });
            else if (const Field* known = top_table.find(key.str()))
                read_field(*known, node, &definition, top_table.name, std::string(key.str()),
                           definition.origin);
            else
                unknown_key(key, top_table, "the HUD",
                            {"element", "timer", "meter", "effect", "locale", "group"});
        }
    }

    template <class Read>
    void read_list(const toml::key& key, const toml::node& node, Read read) {
        const toml::array* list = node.as_array();
        if (list == nullptr)
            return fail(ProblemCode::wrong_type, key.source(),
                        "'" + std::string(key.str()) + "' is " + std::string(type_name(node)) +
                            "; expected a list of tables",
                        "write '[[" + std::string(key.str()) + "]]'");
        const std::size_t most = key.str() == "element" ? most_elements : most_others;
        if (list->size() > most)
            return fail(ProblemCode::too_large, key.source(),
                        std::to_string(list->size()) + " of '" + std::string(key.str()) + "'; at most " +
                            std::to_string(most));
        for (const toml::node& item : *list) {
            if (const toml::table* table = item.as_table())
                read(*table);
            else
                fail(ProblemCode::wrong_type, item.source(),
                     "'" + std::string(key.str()) + "' holds " + std::string(type_name(item)) +
                         "; expected a table");
        }
    }

    void read_element(const toml::table& table) {
        const auto& kinds = all_kinds();
        std::array<std::string_view, std::variant_size_v<Element>> names;
        for (std::size_t i = 0; i < kinds.size(); ++i)
            names[i] = kinds[i]->name();
        const toml::node* node = table.get("kind");
        if (node == nullptr)
            return fail(ProblemCode::missing_key, table.source(),
                        "an element without a 'kind'; expected " + one_of(names));
        if (!node->is_string()) return expected(*node, "'kind' of an element", one_of(names));
        const std::string name = node->value_or(std::string());
        const auto kind = std::find(names.begin(), names.end(), name);
        if (kind == names.end())
            return fail(ProblemCode::unknown_word, node->source(),
                        "unknown kind '" + utf8::shortened(name) + "'; expected " + one_of(names),
                        did_you_mean(name, names));
        const Kind& found = *kinds[static_cast<std::size_t>(kind - names.begin())];
        Element& element = definition.elements.emplace_back(found.create());
        read_table(table, *found.table, address_of(element), definition.element_origins.emplace_back(),
                   "kind");
    }

    /// Reads a table into an aggregate; `also` is a key that is not one of its fields.
    void read_table(const toml::table& table, const Table& description, void* aggregate, Origin& origin,
                    std::string_view also = {}) {
        std::string name(description.name);
        if (const toml::node* id = table.get("id"); id != nullptr && id->is_string())
            name += " '" + utf8::shortened(id->value_or(std::string())) + "'";
        origin.location = place(table.source());
        const std::size_t before = problems.count();
        read_fields(table, description, aggregate, name, "", origin, also);
        if (problems.count() > before) damaged.push_back(origin.location);
    }

    void read_fields(const toml::table& table, const Table& description, void* aggregate,
                     const std::string& name, const std::string& prefix, Origin& origin,
                     std::string_view also = {}) {
        const std::string whole =
            (prefix.empty() ? "" : "'" + prefix.substr(0, prefix.size() - 1) + "' of ") + name;
        for (const auto& [key, node] : table) {
            if (!also.empty() && key.str() == also) continue;
            if (const Field* known = description.find(key.str()))
                read_field(*known, node, aggregate, name, prefix + std::string(key.str()), origin);
            else
                unknown_key(key, description, whole, {also});
        }
        for (const Field& required : description.fields)
            if (required.required && !table.contains(required.name))
                fail(ProblemCode::missing_key, table.source(),
                     whole + " has no '" + std::string(required.name) + "'");
    }

    void unknown_key(const toml::key& key, const Table& description, const std::string& name,
                     std::vector<std::string_view> names) {
        if (!problems.wants(place(key.source()))) return;
        std::erase(names, std::string_view());
        for (const Field& known : description.fields)
            names.push_back(known.name);
        const bool is_other = &description == &Description<PluralForms>::table && key.str() == "other";
        fail(ProblemCode::unknown_key, key.source(),
             "unknown key '" + utf8::shortened(key.str()) + "' in " + name,
             is_other ? "the form 'other' is the element's 'format'" : did_you_mean(key.str(), names));
    }

    void read_field(const Field& field, const toml::node& node, void* aggregate, std::string_view owner,
                    const std::string& path, Origin& origin) {
        origin.fields.emplace_back(path, place(node.source()));
        // A format's problems count from its first character, behind the quote.
        if (node.is_string()) ++origin.fields.back().second.column;
        void* const into = field.in(aggregate);
        const std::string name = "'" + path + "' of " + std::string(owner);
        switch (field.type) {
            case FieldType::boolean:
                return read_as<bool>(node, into, name, "true or false");
            case FieldType::text:
                return read_as<std::string>(node, into, name, "a text");
            case FieldType::integer: {
                const auto number = node.as_integer();
                if (number == nullptr) return expected(node, name, "a whole number");
                if (!in_range(static_cast<double>(number->get()), field, node, name)) return;
                *static_cast<int*>(into) = static_cast<int>(number->get());
                return;
            }
            case FieldType::number:
                if (const auto number = read_number(node, field, name))
                    *static_cast<float*>(into) = static_cast<float>(*number);
                return;
            case FieldType::real:
            case FieldType::seconds:
                return read_number_into(field, node, into, name);
            case FieldType::color:
                return read_parsed<Color>(node, into, name, Color::parse,
                                          "a colour as \"#rrggbb\" or \"#rrggbbaa\"");
            case FieldType::easing:
                return read_easing(node, into, name, origin.fields.back().second);
            case FieldType::point:
                if (const auto numbers = read_numbers(node, field, name, {2}, "two numbers, [x, y]");
                    !numbers.empty())
                    *static_cast<Point*>(into) = {static_cast<float>(numbers[0]),
                                                  static_cast<float>(numbers[1])};
                return;
            case FieldType::size:
                if (const auto numbers = read_numbers(node, field, name, {2}, "two numbers, [width, height]");
                    !numbers.empty())
                    *static_cast<Size*>(into) = {static_cast<float>(numbers[0]),
                                                 static_cast<float>(numbers[1])};
                return;
            case FieldType::limits: {
                const auto numbers = read_numbers(node, field, name, {2}, "two numbers, [low, high]");
                if (!numbers.empty()) *static_cast<Limits*>(into) = {numbers[0], numbers[1]};
                return;
            }
            case FieldType::sources:
                return read_sources(node, into, name, origin, path, field.most);
            case FieldType::points:
                return read_points(node, into, field, name);
            case FieldType::insets:
                return read_insets(node, into, field, name);
            case FieldType::choice:
                return read_choice(node, into, field, name);
            case FieldType::source:
                return read_source(node, into, name);
            case FieldType::table:
                if (const toml::table* table = node.as_table())
                    return read_fields(*table, *field.table, into, std::string(owner), path + ".", origin);
                return expected(node, name, "a table");
            case FieldType::list:
                return read_list_of(node, into, field, owner, path, name, origin);
        }
    }

    /// Into a double, or seconds.
    void read_number_into(const Field& field, const toml::node& node, void* into, const std::string& name) {
        const auto number = read_number(node, field, name);
        if (!number) return;
        if (field.type == FieldType::seconds)
            *static_cast<Seconds*>(into) = Seconds{*number};
        else
            *static_cast<double*>(into) = *number;
    }

    /// A list of tables; a number in it stands for a table of which only the first field is given.
    void read_list_of(const toml::node& node, void* list, const Field& field, std::string_view owner,
                      const std::string& path, const std::string& name, Origin& origin) {
        const toml::array* const items = node.as_array();
        const Field& first = field.table->fields.front();
        const bool takes_numbers =
            first.required && (first.type == FieldType::seconds || first.type == FieldType::real);
        const std::string_view what = takes_numbers ? "a list of numbers and tables" : "a list of tables";
        if (items == nullptr) return expected(node, name, what);
        if (items->size() > field.most)
            return fail(ProblemCode::too_large, node.source(),
                        name + " has " + std::to_string(items->size()) + " entries; at most " +
                            std::to_string(field.most));
        std::size_t index = 0;
        for (const toml::node& item : *items) {
            const std::string at = path + "." + std::to_string(index++);
            if (item.is_table()) origin.fields.emplace_back(at, place(item.source()));
            if (const toml::table* table = item.as_table())
                read_fields(*table, *field.table, field.append(list), std::string(owner), at + ".", origin);
            else if (takes_numbers && item.is_number())
                read_number_into(first, item, first.in(field.append(list)),
                                 "'" + at + "' of " + std::string(owner));
            else
                expected(item, "'" + at + "' of " + std::string(owner),
                         takes_numbers ? "a number or a table" : "a table");
        }
    }

    void expected(const toml::node& node, const std::string& name, std::string_view what) {
        fail(ProblemCode::wrong_type, node.source(),
             name + " is " + std::string(type_name(node)) + "; expected " + std::string(what));
    }

    template <class T>
    void read_as(const toml::node& node, void* into, const std::string& name, std::string_view what) {
        if (const auto value = node.value_exact<T>())
            *static_cast<T*>(into) = *value;
        else
            expected(node, name, what);
    }

    template <class T, class Parse>
    void read_parsed(const toml::node& node, void* into, const std::string& name, Parse parse,
                     std::string_view what) {
        const auto text = node.value_exact<std::string>();
        if (!text) return expected(node, name, what);
        if (const auto parsed = parse(*text))
            *static_cast<T*>(into) = *parsed;
        else
            fail(ProblemCode::unknown_word, node.source(),
                 name + " is '" + utf8::shortened(*text) + "'; expected " + std::string(what));
    }

    void read_easing(const toml::node& node, void* into, const std::string& name, const Location& where) {
        const auto text = node.value_exact<std::string>();
        if (!text) return expected(node, name, "a CSS easing such as \"ease-out\"");
        Result<Easing> easing = Easing::parse(*text, where);
        if (easing) {
            *static_cast<Easing*>(into) = *std::move(easing);
            return;
        }
        for (Problem problem : easing.problems()) {
            problem.message = name + ": " + problem.message;
            problems.add(std::move(problem));
        }
    }

    void read_choice(const toml::node& node, void* into, const Field& field, const std::string& name) {
        const auto text = node.value_exact<std::string>();
        if (!text) return expected(node, name, one_of(field.choices));
        const auto at = std::find(field.choices.begin(), field.choices.end(), *text);
        if (at == field.choices.end())
            return fail(ProblemCode::unknown_word, node.source(),
                        name + " is '" + utf8::shortened(*text) + "'; expected " + one_of(field.choices),
                        did_you_mean(*text, field.choices));
        *static_cast<std::uint8_t*>(into) = static_cast<std::uint8_t>(at - field.choices.begin());
    }

    /// A table of sources by names of one's own, in the order in which they are written.
    void read_sources(const toml::node& node, void* into, const std::string& name, Origin& origin,
                      const std::string& path, std::size_t most) {
        const toml::table* const table = node.as_table();
        if (table == nullptr) return expected(node, name, "a table of sources, { name = \"a source\" }");
        if (table->size() > most)
            return fail(ProblemCode::too_large, node.source(),
                        name + " has more than " + std::to_string(most) + " entries");
        auto& sources = *static_cast<std::vector<NamedSource>*>(into);
        for (const auto& [key, value] : *table) {
            origin.fields.emplace_back(path + "." + std::string(key.str()), place(value.source()));
            NamedSource& made = sources.emplace_back();
            made.name = key.str();
            read_source(value, &made.value, "'" + made.name + "' in " + name);
        }
    }

    /// A name, a constant, or a table `{ source, scale, offset }`.
    void read_source(const toml::node& node, void* into, const std::string& name) {
        Source& source = *static_cast<Source*>(into);
        if (const toml::table* table = node.as_table()) return read_scaled(*table, source, name);
        if (const auto text = node.value_exact<std::string>(); text && !text->empty() && *text != "!")
            source = rapido::name(*text);
        else if (const auto truth = node.value_exact<bool>())
            source = constant(*truth);
        else if (const auto whole = node.value_exact<std::int64_t>())
            source = constant(*whole);
        else if (const auto number = node.value_exact<double>())
            source = constant(*number);
        else
            expected(node, name, "the name of a source, or a constant");
    }

    void read_scaled(const toml::table& table, Source& source, const std::string& name) {
        double scale = 1;
        double offset = 0;
        bool is_time_left = false;
        const toml::node* from = table.get("source");
        for (const auto& [key, node] : table) {
            const bool is_scale = key.str() == "scale";
            if (is_scale || key.str() == "offset") {
                const Field any{.name = key.str(), .type = FieldType::number};
                if (const auto number = read_number(node, any, "'" + std::string(key.str()) + "' in " + name))
                    (is_scale ? scale : offset) = *number;
            } else if (key.str() == "time_left") {
                if (const auto truth = node.value_exact<bool>())
                    is_time_left = *truth;
                else
                    expected(node, "'time_left' in " + name, "true or false");
            } else if (key.str() != "source") {
                const Table description{"source", {}};
                unknown_key(key, description, name, {"source", "scale", "offset", "time_left"});
            }
        }
        if (from == nullptr) return fail(ProblemCode::missing_key, table.source(), name + " has no 'source'");
        if (from->is_table())
            return expected(*from, "'source' in " + name, "the name of a source, or a constant");
        read_source(*from, &source, "'source' in " + name);
        source = source.scaled(scale, offset);
        if (is_time_left) source = source.as_time_left();
    }

    bool in_range(double number, const Field& field, const toml::node& node, const std::string& name) {
        if (number >= field.min && number <= field.max) return true;
        fail(ProblemCode::out_of_range, node.source(),
             name + " is " + plain_number(number) + "; expected " + range_of(field));
        return false;
    }

    std::optional<double> read_number(const toml::node& node, const Field& field, const std::string& name) {
        const auto number = node.is_number() ? node.value<double>() : std::nullopt;
        if (!number) {
            expected(node, name, "a number");
            return std::nullopt;
        }
        if (!in_range(*number, field, node, name)) return std::nullopt;
        return number;
    }

    /// A list of as many numbers as one of `counts`; empty after a fault.
    std::vector<double> read_numbers(const toml::node& node, const Field& field, const std::string& name,
                                     std::initializer_list<std::size_t> counts, std::string_view what) {
        const toml::array* list = node.as_array();
        if (list == nullptr || std::find(counts.begin(), counts.end(), list->size()) == counts.end()) {
            expected(node, name, what);
            return {};
        }
        std::vector<double> numbers;
        for (const toml::node& item : *list) {
            const auto number = read_number(item, field, name);
            if (!number) return {};
            numbers.push_back(*number);
        }
        return numbers;
    }

    void read_points(const toml::node& node, void* into, const Field& field, const std::string& name) {
        const toml::array* const list = node.as_array();
        if (list == nullptr) return expected(node, name, "a list of points, [[x, y], ...]");
        if (list->size() > most_in_list)
            return fail(ProblemCode::too_large, node.source(), name + " has more than 10000 entries");
        for (const toml::node& item : *list) {
            const auto numbers = read_numbers(item, field, "a point in " + name, {2}, "two numbers, [x, y]");
            // A list with a bad point is no list, so that nobody counts its points.
            if (numbers.empty()) return static_cast<std::vector<Point>*>(into)->clear();
            static_cast<std::vector<Point>*>(into)->push_back(
                {static_cast<float>(numbers[0]), static_cast<float>(numbers[1])});
        }
    }

    /// One number, or two or four of them in the order of CSS.
    void read_insets(const toml::node& node, void* into, const Field& field, const std::string& name) {
        Insets& insets = *static_cast<Insets*>(into);
        if (node.is_number()) {
            if (const auto number = read_number(node, field, name)) {
                const auto all = static_cast<float>(*number);
                insets = {all, all, all, all};
            }
            return;
        }
        const auto numbers = read_numbers(node, field, name, {2, 4},
                                          "a number, [vertical, horizontal] or [top, right, bottom, left]");
        if (numbers.empty()) return;
        const auto at = [&](std::size_t i) { return static_cast<float>(numbers[i % numbers.size()]); };
        insets = {at(0), at(1), at(2), at(3)};
    }

    std::string_view text_;
    std::string name_;
};

}  // namespace

Result<HudDefinition> read_hud(std::string_view text, const std::string& name) {
    HudReader reader(text, name);
    reader.read();
    if (reader.problems.count() > 0) return reader.problems.take();
    return std::move(reader.definition);
}

Result<HudDefinition> read_hud_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_hud);
    if (!text) return text.problems();
    return read_hud(*text, path);
}

Problems check_hud(std::string_view text, const std::string& name, const Sources& sources,
                   TextMeasurer* measurer, ImageFinder* images) {
    HudReader reader(text, name);
    reader.read();
    // What could be read is made, only to see what else is wrong with it.
    const Hud trial(reader.definition, sources, measurer, images);
    for (const Problem& problem : trial.problems()) {
        // What a damaged table lacks as a whole, it may lack because of the damage.
        const bool follows =
            std::find(reader.damaged.begin(), reader.damaged.end(), problem.location) != reader.damaged.end();
        if (!follows) reader.problems.add(problem);
    }
    return reader.problems.take();
}

}  // namespace rapido
