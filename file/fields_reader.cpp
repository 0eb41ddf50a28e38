#include "file/fields_reader.hpp"

#include <algorithm>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "file/first_words.hpp"
#include "file/hud_upgrade.hpp"

namespace rapido {

std::string_view type_name(const toml::node& node) {
    if (node.is_string()) return "a text";
    if (node.is_number()) return "a number";
    if (node.is_boolean()) return "true or false";
    if (node.is_array()) return "a list";
    if (node.is_table()) return "a table";
    return "a date or time";
}

Location FieldsReader::place(const toml::node& node) const {
    const auto copy = copies_.find(&node);
    return copy != copies_.end() ? copy->second : place(node.source());
}

void FieldsReader::read_fields(const toml::table& table, const Table& description, void* aggregate, const Owner& owner,
                               const std::string& prefix, Locations& locations) {
    for (const auto& [key, node] : table) {
        const bool is_other = prefix.empty() && std::find(owner.other_keys.begin(), owner.other_keys.end(),
                                                          key.str()) != owner.other_keys.end();
        if (is_other) continue;
        if (const Field* known = description.find(key.str()))
            read_field(*known, node, aggregate, owner, prefix + std::string(key.str()), locations);
        else
            unknown_field(key, node, description, owner, prefix);
    }
    if (prefix.empty()) return;
    for (const Field& required : description.fields)
        if (required.required && !table.contains(required.name))
            fail(ProblemCode::missing_key, table,
                 "'" + prefix.substr(0, prefix.size() - 1) + "' of " + owner.name + " has no '" +
                     std::string(required.name) + "'");
}

void FieldsReader::require(std::span<const toml::table* const> tables, const Table& description, const Owner& owner) {
    for (const Field& required : description.fields)
        if (required.required && std::none_of(tables.begin(), tables.end(),
                                              [&](const toml::table* table) { return table->contains(required.name); }))
            fail(ProblemCode::missing_key, *tables.back(), owner.name + " has no '" + std::string(required.name) + "'");
}

void FieldsReader::unknown_field(const toml::key& key, const toml::node& node, const Table& description,
                                 const Owner& owner, const std::string& prefix) {
    const std::string whole = (prefix.empty() ? "" : "'" + prefix.substr(0, prefix.size() - 1) + "' of ") + owner.name;
    const std::string_view now = renamed_key(description.name, key.str());
    if (owner.style != nullptr && prefix.empty())
        return fail(
            ProblemCode::unknown_key, *owner.style,
            whole + " takes no '" + utf8::shortened(key.str()) + "' from a style",
            now.empty() ? "use a style with fields of " + std::string(description.name) + " alone" : renamed_hint(now));
    std::vector<std::string_view> names;
    if (prefix.empty()) names = owner.other_keys;
    for (const Field& known : description.fields)
        names.push_back(known.name);
    const bool is_other = &description == &table_of<PluralForms> && key.str() == "other";
    unknown_key(key, std::move(names), whole,
                is_other       ? "the form 'other' is the element's 'format'"
                : !now.empty() ? renamed_hint(now)
                               : hint_for_key(key.str(), node, description));
}

void FieldsReader::unknown_key(const toml::key& key, std::vector<std::string_view> names, const std::string& owner,
                               const std::string& hint) {
    if (!problems_.wants(place(key))) return;
    fail(ProblemCode::unknown_key, key, "unknown key '" + utf8::shortened(key.str()) + "' in " + owner,
         hint.empty() ? did_you_mean(key.str(), names) : hint);
}

std::string FieldsReader::resolved(std::string name) const {
    const bool negated = name.starts_with('!');
    for (const StampNames* names = names_; names != nullptr; names = names->around)
        for (std::size_t end = name.size(); end != std::string::npos && end > 0; end = name.rfind('.', end - 1))
            if (names->paths.contains(std::string_view(name).substr(negated, end - negated)))
                return name.insert(negated, names->path + ".");
    return name;
}

void FieldsReader::read_field(const Field& field, const toml::node& node, void* aggregate, const Owner& owner,
                              const std::string& path, Locations& locations) {
    Location at = place(node);
    // A format's problems count from its first character, behind the quote.
    if (node.is_string()) ++at.column;
    if (owner.has_earlier) std::erase_if(locations.fields, [&](const auto& known) { return known.first == path; });
    locations.fields.emplace_back(path, at);
    void* const into = field.in(aggregate);
    const std::string name = "'" + path + "' of " + owner.name;
    const ReadsField reads(*this, field);
    switch (field.type) {
        case FieldType::flag:
            return read_as<bool>(node, into, name, "true or false");
        case FieldType::text:
            read_as<std::string>(node, into, name, "a text");
            if (field.names_element) *static_cast<std::string*>(into) = resolved(*static_cast<std::string*>(into));
            return;
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
            return read_color(node, into, name);
        case FieldType::themed_text:
            return read_themed_text(node, into, name);
        case FieldType::themed_number:
            return read_themed_number(field, node, into, name);
        case FieldType::easing:
            return read_easing(node, into, name, at);
        case FieldType::point:
            if (const auto numbers = read_numbers(node, field, name, {2}, "two numbers, [x, y]"); !numbers.empty())
                *static_cast<Point*>(into) = {static_cast<float>(numbers[0]), static_cast<float>(numbers[1])};
            return;
        case FieldType::size:
            if (const auto numbers = read_numbers(node, field, name, {2}, "two numbers, [width, height]");
                !numbers.empty())
                *static_cast<Size*>(into) = {static_cast<float>(numbers[0]), static_cast<float>(numbers[1])};
            return;
        case FieldType::limits: {
            const auto numbers = read_numbers(node, field, name, {2}, "two numbers, [low, high]");
            if (!numbers.empty()) *static_cast<Limits*>(into) = {numbers[0], numbers[1]};
            return;
        }
        case FieldType::sources:
            return read_sources(node, into, name, locations, path, field.most);
        case FieldType::points:
            return read_points(node, into, field, name);
        case FieldType::texts:
            return read_texts(node, into, field, name);
        case FieldType::values:
            return read_values(node, into, field, name);
        case FieldType::insets:
            return read_insets(node, into, field, name);
        case FieldType::choice:
            return read_choice(node, into, field, name);
        case FieldType::source:
            return read_source(node, into, name);
        case FieldType::amount:
            return read_amount(node, field, into, name);
        case FieldType::amounts:
            return read_amounts(node, field, into, name);
        case FieldType::image:
            return read_image(node, into, name);
        case FieldType::value:
            return read_value(node, into, name, "a text, a number, true or false");
        case FieldType::table:
            if (const toml::table* table = node.as_table())
                return read_fields(*table, *field.table, into, owner, path + ".", locations);
            return expected(node, name, "a table");
        case FieldType::list:
            return read_list(node, into, field, owner, path, name, locations);
        case FieldType::natural:
        case FieldType::nanoseconds:
        case FieldType::numbers: {
            const std::string what = std::to_string(field.most) + " numbers in a list";
            const auto numbers = read_numbers(node, field, name, {field.most}, what);
            std::copy(numbers.begin(), numbers.end(), static_cast<double*>(into));
            return;
        }
        case FieldType::part:
            break;  // only calls have such fields
    }
}

/// Reads `{ source = "name" }` into what may have a source in place of a value. False for anything else.
template <class T>
bool FieldsReader::read_followed(const toml::node& node, T& into, const std::string& name) {
    const toml::table* const table = node.as_table();
    if (table == nullptr || !table->contains("source")) return false;
    Source source;
    read_source(node, &source, name);
    if (source.is_given()) into = T(source);
    return true;
}

void FieldsReader::read_image(const toml::node& node, void* into, const std::string& name) {
    ImageName& image = *static_cast<ImageName*>(into);
    if (read_followed(node, image, name)) return;
    std::string file;
    read_as<std::string>(node, &file, name, "the file of an image, or { source = \"name\" }");
    image = std::move(file);
}

void FieldsReader::read_amounts(const toml::node& node, const Field& field, void* into, const std::string& name) {
    Shift& both = *static_cast<Shift*>(into);
    const toml::array* const list = node.as_array();
    if (list == nullptr || list->size() != 2) return expected(node, name, "two numbers or sources, [x, y]");
    read_amount(*list->get(0), field, &both.x, name);
    read_amount(*list->get(1), field, &both.y, name);
}

/// `"#rrggbb"`, a name of the theme, or a source.
void FieldsReader::read_color(const toml::node& node, void* into, const std::string& name) {
    if (read_followed(node, *static_cast<Themed<Color>*>(into), name)) return;
    const auto text = node.value_exact<std::string>();
    const std::string_view what = has_themes_ ? "a color as \"#rrggbb\" or \"#rrggbbaa\", or a name of the theme"
                                              : "a color as \"#rrggbb\" or \"#rrggbbaa\"";
    if (!text) return expected(node, name, what);
    auto& color = *static_cast<Themed<Color>*>(into);
    if (const auto parsed = Color::parse(*text))
        color = *parsed;
    else if (has_themes_ && !text->empty() && !text->starts_with('#'))
        color = rapido::theme(*text);
    else
        fail(ProblemCode::unknown_word, node,
             name + " is '" + utf8::shortened(*text) + "'; expected " + std::string(what),
             field_ != nullptr ? hint_for_value(*field_, node) : "");
}

/// A text, or `{ theme = "name" }`.
void FieldsReader::read_themed_text(const toml::node& node, void* into, const std::string& name) {
    auto& themed = *static_cast<Themed<std::string>*>(into);
    if (read_followed(node, themed, name)) return;
    if (const auto text = node.value_exact<std::string>()) {
        themed = *text;
        return;
    }
    const toml::table* const table = node.as_table();
    if (table == nullptr) return expected(node, name, "a text, or { theme = \"name\" }");
    for (const auto& [key, value] : *table)
        if (key.str() != "theme") unknown_key(key, {"theme"}, name);
    const toml::node* const word = table->get("theme");
    if (word == nullptr) return fail(ProblemCode::missing_key, node, name + " has no 'theme'");
    std::string text;
    read_as<std::string>(*word, &text, "'theme' in " + name, "a name of the theme");
    if (!text.empty()) themed = rapido::theme(std::move(text));
}

/// A number, or a name of the theme.
void FieldsReader::read_themed_number(const Field& field, const toml::node& node, void* into, const std::string& name) {
    auto& themed = *static_cast<Themed<float>*>(into);
    if (read_followed(node, themed, name)) return;
    const auto text = node.value_exact<std::string>();
    if (text && has_themes_ && !text->empty()) {
        themed = rapido::theme(*text);
    } else if (const auto number = read_number(node, field, name)) {
        themed = static_cast<float>(*number);
    }
}

void FieldsReader::read_theme(const toml::table& table, Theme& theme, Locations& locations) {
    const std::string owner = "theme '" + theme.id + "'";
    for (const auto& [key, node] : table) {
        const toml::table* const values = node.as_table();
        const bool known = key.str() == "color" || key.str() == "font" || key.str() == "radius";
        if (!known) {
            unknown_key(key, {"color", "font", "radius"}, owner);
            continue;
        }
        if (values == nullptr) {
            expected(node, "'" + std::string(key.str()) + "' of " + owner, "a table, { name = value }");
            continue;
        }
        for (const auto& [name, value] : *values) {
            const std::string word(name.str());
            const std::string path = std::string(key.str()) + "." + word;
            const std::string field = "'" + path + "' of " + owner;
            locations.fields.emplace_back(path, place(value));
            if (key.str() == "color")
                read_parsed<Color>(value, &theme.color[word], field, Color::parse,
                                   "a color as \"#rrggbb\" or \"#rrggbbaa\"");
            else if (key.str() == "font")
                read_as<std::string>(value, &theme.font[word], field, "a text");
            else if (const auto number =
                         read_number(value, Field{.name = "radius", .min = 0, .max = largest_length}, field))
                theme.radius[word] = static_cast<float>(*number);
        }
    }
}

/// Into a double, or seconds.
void FieldsReader::read_number_into(const Field& field, const toml::node& node, void* into, const std::string& name) {
    const auto number = read_number(node, field, name);
    if (!number) return;
    if (field.type == FieldType::seconds)
        *static_cast<Seconds*>(into) = Seconds{*number};
    else
        *static_cast<double*>(into) = *number;
}

/// A list of tables; a number in it stands for a table of which only the first field is given.
void FieldsReader::read_list(const toml::node& node, void* list, const Field& field, const Owner& owner,
                             const std::string& path, const std::string& name, Locations& locations) {
    const toml::array* const items = node.as_array();
    const Field& first = field.table->fields.front();
    const bool takes_numbers = first.required && (first.type == FieldType::seconds || first.type == FieldType::real);
    const std::string_view what = takes_numbers ? "a list of numbers and tables" : "a list of tables";
    if (items == nullptr) return expected(node, name, what);
    if (items->size() > field.most)
        return fail(ProblemCode::too_large, node,
                    name + " has " + std::to_string(items->size()) + " entries; at most " + std::to_string(field.most));
    field.clear(list);
    std::size_t index = 0;
    for (const toml::node& item : *items) {
        const std::string at = path + "." + std::to_string(index++);
        if (item.is_table()) locations.fields.emplace_back(at, place(item));
        if (const toml::table* table = item.as_table())
            read_fields(*table, *field.table, field.append(list), owner, at + ".", locations);
        else if (takes_numbers && item.is_number())
            read_number_into(first, item, first.in(field.append(list)), "'" + at + "' of " + owner.name);
        else
            expected(item, "'" + at + "' of " + owner.name, takes_numbers ? "a number or a table" : "a table");
    }
}

void FieldsReader::expected(const toml::node& node, const std::string& name, std::string_view what) {
    fail(ProblemCode::wrong_type, node,
         name + " is " + std::string(type_name(node)) + "; expected " + std::string(what),
         field_ != nullptr ? hint_for_value(*field_, node) : "");
}

template <class T>
void FieldsReader::read_as(const toml::node& node, void* into, const std::string& name, std::string_view what) {
    if (const auto value = node.value_exact<T>())
        *static_cast<T*>(into) = *value;
    else
        expected(node, name, what);
}

template <class T, class Parse>
void FieldsReader::read_parsed(const toml::node& node, void* into, const std::string& name, Parse parse,
                               std::string_view what) {
    const auto text = node.value_exact<std::string>();
    if (!text) return expected(node, name, what);
    if (const auto parsed = parse(*text))
        *static_cast<T*>(into) = *parsed;
    else
        fail(ProblemCode::unknown_word, node,
             name + " is '" + utf8::shortened(*text) + "'; expected " + std::string(what));
}

void FieldsReader::read_easing(const toml::node& node, void* into, const std::string& name, const Location& where) {
    const auto text = node.value_exact<std::string>();
    if (!text) return expected(node, name, "a CSS easing such as \"ease-out\"");
    Result<Easing> easing = Easing::parse(*text, where);
    if (easing) {
        *static_cast<Easing*>(into) = *std::move(easing);
        return;
    }
    for (Problem problem : easing.problems()) {
        problem.message = name + ": " + problem.message;
        problems_.add(std::move(problem));
    }
}

void FieldsReader::read_choice(const toml::node& node, void* into, const Field& field, const std::string& name) {
    const auto text = node.value_exact<std::string>();
    if (!text) return expected(node, name, one_of(field.choices));
    const auto at = std::find(field.choices.begin(), field.choices.end(), *text);
    if (at == field.choices.end()) {
        const std::string_view now = renamed_word(field.name, *text);
        std::string hint = now.empty() ? hint_for_value(field, node) : renamed_hint(now);
        if (hint.empty()) hint = did_you_mean(*text, field.choices);
        return fail(ProblemCode::unknown_word, node,
                    name + " is '" + utf8::shortened(*text) + "'; expected " + one_of(field.choices), std::move(hint));
    }
    *static_cast<std::uint8_t*>(into) = static_cast<std::uint8_t>(at - field.choices.begin());
}

/// A table of sources by names of one's own, in the order in which they are written.
void FieldsReader::read_sources(const toml::node& node, void* into, const std::string& name, Locations& locations,
                                const std::string& path, std::size_t most) {
    const toml::table* const table = node.as_table();
    if (table == nullptr) return expected(node, name, "a table of sources, { name = \"a source\" }");
    if (table->size() > most)
        return fail(ProblemCode::too_large, node, name + " has more than " + std::to_string(most) + " entries");
    auto& sources = *static_cast<std::vector<NamedSource>*>(into);
    sources.clear();
    for (const auto& [key, value] : *table) {
        locations.fields.emplace_back(path + "." + std::string(key.str()), place(value));
        NamedSource& made = sources.emplace_back();
        made.name = key.str();
        read_source(value, &made.value, "'" + made.name + "' in " + name);
    }
}

/// A name, a constant, or a table `{ source, time_left }`.
void FieldsReader::read_source(const toml::node& node, void* into, const std::string& name) {
    Source& source = *static_cast<Source*>(into);
    if (const toml::table* table = node.as_table()) return read_source_table(*table, source, name);
    const auto text = node.value_exact<std::string>();
    if (text && texts_.contains(&node)) {
        source = Source(detail::Binding::kept(Value(std::string_view(*text))));
    } else if (text && !text->empty()) {
        const Result<Source> read =
            parse_expression(*text, [&](std::string_view leaf) { return named_source(leaf, node, name); });
        if (read) {
            source = *read;
        } else if (const Problem& problem = read.problems().front(); !problem.message.empty()) {
            fail(problem.code, node, name + " " + problem.message, problem.hint);
        }
    } else if (const auto truth = node.value_exact<bool>())
        source = constant(*truth);
    else if (const auto whole = node.value_exact<std::int64_t>())
        source = constant(*whole);
    else if (const auto number = node.value_exact<double>())
        source = constant(*number);
    else
        expected(node, name, "the name of a source, or a constant");
}

/// A problem without a message has been reported.
Result<Source> FieldsReader::named_source(std::string_view name, const toml::node& node, const std::string& owner) {
    if (!name.starts_with('$')) return rapido::by_name(resolved(std::string(name)));
    const std::string_view parameter = name.substr(1, name.find('.') - 1);
    const auto known = parameters_.find(&node);
    const auto given = known != parameters_.end() ? known->second->find(parameter) : GivenParameters::const_iterator();
    if (known == parameters_.end() || given == known->second->end()) {
        std::vector<std::string_view> names;
        if (known != parameters_.end())
            for (const auto& [other, value] : *known->second)
                names.push_back(other);
        return Problem{{},
                       "asks for '" + utf8::shortened(name) + "', which is no parameter of a component around it",
                       did_you_mean(parameter, names),
                       ProblemCode::unknown_name};
    }
    if (given->second.value == nullptr) return Source(detail::Binding::constant(Value()));
    const toml::node& value = *given->second.value;
    const auto text = value.value_exact<std::string>();
    const std::string member(name.substr(parameter.size() + 1));
    if (text && given->second.is_text && member.empty()) return Source(detail::Binding::kept(Value(*text)));
    if (text && !member.empty())
        return parse_expression(*text + member,
                                [&](std::string_view leaf) { return named_source(leaf, value, owner); });
    Source made;
    read_source(value, &made, "'" + std::string(parameter) + "', for " + owner + ",");
    if (!made.is_given()) return Problem{};
    return made;
}

void FieldsReader::read_source_table(const toml::table& table, Source& source, const std::string& name) {
    bool is_time_left = false;
    const toml::node* from = table.get("source");
    for (const auto& [key, node] : table) {
        if (key.str() == "time_left") {
            if (const auto truth = node.value_exact<bool>())
                is_time_left = *truth;
            else
                expected(node, "'time_left' in " + name, "true or false");
        } else if (key.str() == "scale" || key.str() == "offset") {
            fail(ProblemCode::unknown_key, node, "unknown key '" + std::string(key.str()) + "' in " + name,
                 "an amount is computed since version 0.2, as in \"plane.speed * 3.6\"; 'rapido format --from 0.1' "
                 "does so");
        } else if (key.str() != "source") {
            unknown_key(key, {"source", "time_left"}, name);
        }
    }
    if (from == nullptr) return fail(ProblemCode::missing_key, table, name + " has no 'source'");
    if (from->is_table()) return expected(*from, "'source' in " + name, "the name of a source, or a constant");
    read_source(*from, &source, "'source' in " + name);
    if (is_time_left) source = source.as_time_left();
}

bool FieldsReader::in_range(double number, const Field& field, const toml::node& node, const std::string& name) {
    if (number >= field.min && number <= field.max) return true;
    fail(ProblemCode::out_of_range, node, name + " is " + plain_number(number) + "; expected " + range_of(field));
    return false;
}

std::optional<double> FieldsReader::read_number(const toml::node& node, const Field& field, const std::string& name) {
    const auto number = node.is_number() ? node.value<double>() : std::nullopt;
    if (!number) {
        expected(node, name, "a number");
        return std::nullopt;
    }
    if (!in_range(*number, field, node, name)) return std::nullopt;
    return number;
}

/// A list of as many numbers as one of `counts`; empty after a fault.
std::vector<double> FieldsReader::read_numbers(const toml::node& node, const Field& field, const std::string& name,
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

void FieldsReader::read_points(const toml::node& node, void* into, const Field& field, const std::string& name) {
    const toml::array* const list = node.as_array();
    static_cast<std::vector<Point>*>(into)->clear();
    if (list == nullptr) return expected(node, name, "a list of points, [[x, y], ...]");
    if (list->size() > most_in_list) return fail(ProblemCode::too_large, node, name + " has more than 10000 entries");
    for (const toml::node& item : *list) {
        const auto numbers = read_numbers(item, field, "a point in " + name, {2}, "two numbers, [x, y]");
        // A list with a bad point is no list, so that nobody counts its points.
        if (numbers.empty()) return static_cast<std::vector<Point>*>(into)->clear();
        static_cast<std::vector<Point>*>(into)->push_back(
            {static_cast<float>(numbers[0]), static_cast<float>(numbers[1])});
    }
}

void FieldsReader::read_texts(const toml::node& node, void* into, const Field& field, const std::string& name) {
    const toml::array* const list = node.as_array();
    if (list == nullptr) return expected(node, name, "a list of texts");
    if (list->size() > field.most)
        return fail(ProblemCode::too_large, node,
                    name + " has " + std::to_string(list->size()) + " entries; at most " + std::to_string(field.most));
    auto& texts = *static_cast<std::vector<std::string>*>(into);
    texts.clear();
    for (const toml::node& item : *list)
        read_as<std::string>(item, &texts.emplace_back(), "a text in " + name, "a text");
}

void FieldsReader::read_value(const toml::node& node, void* into, const std::string& name, std::string_view what) {
    KeptValue& value = *static_cast<KeptValue*>(into);
    if (const auto text = node.value_exact<std::string>())
        value = Value(std::string_view(*text));
    else if (const auto flag = node.value_exact<bool>())
        value = Value(*flag);
    else if (const auto whole = node.value_exact<std::int64_t>())
        value = Value(*whole);
    else if (const auto real = node.value_exact<double>())
        value = Value(*real);
    else
        expected(node, name, what);
}

/// A value, or a list of them.
void FieldsReader::read_values(const toml::node& node, void* into, const Field& field, const std::string& name) {
    auto& values = *static_cast<std::vector<KeptValue>*>(into);
    values.clear();
    const auto read_one = [&](const toml::node& item) {
        KeptValue value;
        read_value(item, &value, name, "a text, a number, true or false, or a list of them");
        if (value.get().has_value()) values.push_back(std::move(value));
    };
    const toml::array* const list = node.as_array();
    if (list == nullptr) return read_one(node);
    if (list->size() > field.most)
        return fail(ProblemCode::too_large, node,
                    name + " has " + std::to_string(list->size()) + " entries; at most " + std::to_string(field.most));
    for (const toml::node& item : *list)
        read_one(item);
}

/// A number, or the name of a source, or what is computed from some.
void FieldsReader::read_amount(const toml::node& node, const Field& field, void* into, const std::string& name) {
    Amount& amount = *static_cast<Amount*>(into);
    if (node.is_number()) {
        if (const auto number = read_number(node, field, name)) amount = *number;
        return;
    }
    if (!node.is_string() && !node.is_table()) return expected(node, name, "a number, or the name of a source");
    Source source;
    read_source(node, &source, name);
    if (source.is_given()) amount = source;
}

/// One number, or two or four of them in the order of CSS.
void FieldsReader::read_insets(const toml::node& node, void* into, const Field& field, const std::string& name) {
    Insets& insets = *static_cast<Insets*>(into);
    if (node.is_number()) {
        if (const auto number = read_number(node, field, name)) {
            const auto all = static_cast<float>(*number);
            insets = {all, all, all, all};
        }
        return;
    }
    const auto numbers =
        read_numbers(node, field, name, {2, 4}, "a number, [vertical, horizontal] or [top, right, bottom, left]");
    if (numbers.empty()) return;
    const auto at = [&](std::size_t i) { return static_cast<float>(numbers[i % numbers.size()]); };
    insets = {at(0), at(1), at(2), at(3)};
}

}  // namespace rapido
