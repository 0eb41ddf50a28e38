// Prints docs/reference.md: every field of every table of a HUD file, out of the descriptions that the reader uses.
#include <cstdio>
#include <iostream>
#include <set>
#include <sstream>

#include "element/kinds.hpp"
#include "hud/call.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

/// As short as it was written: 0.35 and not 0.349999994.
std::string short_number(float number) {
    std::ostringstream out;
    out << number;
    return out.str();
}

std::string color_text(const Color& color) {
    std::array<char, 16> text{};
    const int count = color.alpha == 255 ? 3 : 4;
    const std::array<int, 4> parts{color.red, color.green, color.blue, color.alpha};
    std::string all = "#";
    for (int i = 0; i < count; ++i) {
        std::snprintf(text.data(), text.size(), "%02x", parts[static_cast<std::size_t>(i)]);
        all += text.data();
    }
    return all;
}

template <class... Numbers>
std::string list_of(Numbers... numbers) {
    std::string all;
    ((all += (all.empty() ? "[" : ", ") + plain_number(static_cast<double>(numbers))), ...);
    return all + "]";
}

/// A default as it would be written in a file; empty where nothing would be.
std::string default_of(const Field& field, const void* at) {
    if (field.required || at == nullptr) return "";
    const auto as = [at]<class T>(T*) -> const T& { return *static_cast<const T*>(at); };
    switch (field.type) {
        case FieldType::flag:
            return as(static_cast<bool*>(nullptr)) ? "true" : "false";
        case FieldType::integer:
            return std::to_string(as(static_cast<int*>(nullptr)));
        case FieldType::amount:
            return plain_number(as(static_cast<Amount*>(nullptr)).number());
        case FieldType::number:
            return short_number(as(static_cast<float*>(nullptr)));
        case FieldType::real:
            return plain_number(as(static_cast<double*>(nullptr)));
        case FieldType::text: {
            const std::string& text = as(static_cast<std::string*>(nullptr));
            return text.empty() ? "" : "\"" + text + "\"";
        }
        case FieldType::seconds:
            return plain_number(as(static_cast<Seconds*>(nullptr)).count());
        case FieldType::color:
            return "\"" + color_text(as(static_cast<Themed<Color>*>(nullptr)).value()) + "\"";
        case FieldType::themed_text:
            return "\"" + as(static_cast<Themed<std::string>*>(nullptr)).value() + "\"";
        case FieldType::themed_number:
            return short_number(as(static_cast<Themed<float>*>(nullptr)).value());
        case FieldType::point: {
            const Point& point = as(static_cast<Point*>(nullptr));
            return list_of(point.x, point.y);
        }
        case FieldType::size: {
            const Size& size = as(static_cast<Size*>(nullptr));
            return list_of(size.width, size.height);
        }
        case FieldType::insets: {
            const Insets& insets = as(static_cast<Insets*>(nullptr));
            return list_of(insets.top, insets.right, insets.bottom, insets.left);
        }
        case FieldType::choice:
            return "\"" + std::string(field.choices[as(static_cast<std::uint8_t*>(nullptr))]) + "\"";
        case FieldType::source: {
            const Source& source = as(static_cast<Source*>(nullptr));
            if (!source.name().empty()) return "\"" + source.name() + "\"";
            std::string storage;
            return source.is_given() ? plain_number(source.binding().read(storage).number()) : "";
        }
        default:
            return "";
    }
}

std::string anchor_of(const Table& table) {
    return "`" + std::string(table.name) + "`";
}

std::string type_of(const Field& field) {
    switch (field.type) {
        case FieldType::flag:
            return "flag";
        case FieldType::integer:
            return "integer";
        case FieldType::number:
        case FieldType::real:
            return "number";
        case FieldType::text:
            return "text";
        case FieldType::seconds:
            return "seconds";
        case FieldType::color:
            return "color, or { source = name }";
        case FieldType::themed_text:
            return "text, { theme = name } or { source = name }";
        case FieldType::themed_number:
            return "number, a name of the theme, or { source = name }";
        case FieldType::point:
            return "[x, y]";
        case FieldType::size:
            return "[width, height]";
        case FieldType::insets:
            return "[top, right, bottom, left]";
        case FieldType::source:
            return "source";
        case FieldType::amount:
            return "number or source";
        case FieldType::amounts:
            return "[x, y], numbers or sources";
        case FieldType::image:
            return "file, or { source = name }";
        case FieldType::easing:
            return "CSS easing";
        case FieldType::limits:
            return "[low, high]";
        case FieldType::sources:
            return "table of sources by name";
        case FieldType::texts:
            return "list of texts";
        case FieldType::values:
            return "a value, or a list of values";
        case FieldType::points:
            return "list of [x, y]";
        case FieldType::table:
            return anchor_of(*field.table);
        case FieldType::list:
            return "list of " + anchor_of(*field.table);
        case FieldType::choice: {
            std::string words;
            for (const std::string_view word : field.choices)
                words += (words.empty() ? "" : ", ") + std::string(word);
            return words;
        }
        case FieldType::natural:
            return "whole number";
        case FieldType::nanoseconds:
            return "nanoseconds";
        case FieldType::numbers:
            return std::to_string(field.most) + " numbers";
        case FieldType::value:
            return "value";
        case FieldType::part:
            return "text, a HUD file";
    }
    return "";
}

std::string range_text(const Field& field) {
    const bool is_number = field.type == FieldType::integer || field.type == FieldType::number ||
                           field.type == FieldType::real || field.type == FieldType::seconds ||
                           field.type == FieldType::point || field.type == FieldType::size ||
                           field.type == FieldType::insets || field.type == FieldType::limits;
    if (field.type == FieldType::list) return "at most " + std::to_string(field.most);
    return is_number ? range_of(field) : "";
}

class Writer {
 public:
    void write(const std::string& title, const Table& table, const void* defaults, std::string_view help = {}) {
        std::cout << "\n## " << title << '\n';
        if (!help.empty()) std::cout << '\n' << help << '\n';
        if (table.fields.empty()) return;
        std::cout << "\n| key | type | range | default | what it is |\n|---|---|---|---|---|\n";
        for (const Field& field : table.fields) {
            std::cout << "| `" << field.name << "` | " << type_of(field) << " | " << range_text(field) << " | "
                      << (field.required ? std::string("required")
                                         : default_of(field, defaults != nullptr ? field.at(defaults) : nullptr))
                      << " | " << field.help << " |\n";
            if (field.table != nullptr && known_.insert(field.table->name).second) nested_.push_back(field.table);
        }
    }

    /// Tables that stand inside others; their defaults are those of the key where they stand.
    void write_nested() {
        for (std::size_t i = 0; i < nested_.size(); ++i)
            write(anchor_of(*nested_[i]), *nested_[i], nullptr);
    }

 private:
    std::set<std::string_view> known_;
    std::vector<const Table*> nested_;
};

}  // namespace
}  // namespace rapido

int main() {
    using namespace rapido;
    std::cout << "<!-- Made by scripts/reference; do not edit. -->\n"
                 "# Reference of HUD files\n\n"
                 "Every key of a HUD file, which is the name of the field in C++, too; where `motion`, "
                 "`motion_up`, `motion_down`, "
                 "`max_motion` and `cycle` stand,\nC++ has one `Motions`. A key that is not required may be "
                 "left out. An "
                 "empty default means "
                 "none. Lengths are design pixels.\n";
    Writer writer;
    const HudDefinition hud;
    writer.write("The HUD: keys at the top", top_table, &hud);
    const Timer timer;
    writer.write("`[[timer]]`", timer_table, &timer);
    const DeclaredSource source;
    writer.write("`[source.NAME]`", source_table, &source);
    const FrameMeter meter;
    writer.write("`[[frame_meter]]`", frame_meter_table, &meter);
    const Effect effect;
    writer.write("`[[effect]]`", effect_table, &effect);
    const Group group;
    writer.write("`[[group]]`", group_table, &group);
    const LanguageOptions locale;
    writer.write("`[[language]]`", language_table, &locale);
    const Accepted accepted;
    writer.write("`[[accept]]`", accepted_table, &accepted);
    for (const Kind* const kind : all_kinds()) {
        writer.write("`[[element]]`, `kind = \"" + std::string(kind->name()) + "\"`", *kind->table, kind->defaults());
    }
    writer.write_nested();

    std::cout << "\n# Calls in recordings\n\n"
                 "What a line of a [recording](recordings.md) holds that begins with `{\"call\":`. New names "
                 "may stand "
                 "in each: `names`, `new_timers`.\n";
    Writer of_calls;
    for (const CallKind* const call : all_calls())
        of_calls.write("`" + std::string(call->name()) + "`", call->table, call->make().get(), call->help);
    of_calls.write_nested();
}
