// HUD files in canonical order, with their comments, which the TOML library does not keep: it says whether a text is TOML, and whether
// what was written says the same; in between, the text itself is taken apart at its statements.
#include <algorithm>
#include <cmath>
#include <optional>
#include <type_traits>

#include "base/utf8.hpp"
#include "file/hud_order.hpp"
#include "file/hud_upgrade.hpp"
#include "file/prescan.hpp"
#include "file/syntax_problem.hpp"
#include "file/toml.hpp"
#include "rapido/file.hpp"

namespace rapido {
namespace {

using toml_text::bare;
using toml_text::Item;
using toml_text::Section;
using toml_text::TextValue;

constexpr std::size_t longest_line = 120;  ///< in characters; what is longer stands over several lines

class Writer {
 public:
    std::string out;

    void write(std::vector<Section>& sections) {
        for (Section& section : sections) {
            if (!section.header.empty()) {
                // A blank line parts tables; more than one is kept as one.
                if (!out.empty()) out += "\n";
                comments(section.comments, "");
                out += section.header + behind(section.comment) + "\n";
            }
            items(section.items, order_of(section), section.header.empty());
        }
    }

    void comments(const std::vector<std::string>& lines, const std::string& indent) {
        for (const std::string& line : lines)
            out += line.empty() ? "\n" : indent + line + "\n";
    }

 private:
    static std::string behind(const std::string& comment) { return comment.empty() ? "" : "  " + comment; }

    static void sort(std::vector<Item>& all, const Order& order) {
        if (order.table == nullptr && order.first.empty()) return;
        // Dotted keys go by their first part.
        const auto first_part = [](const Item& item) {
            return bare(std::string_view(item.key).substr(0, item.key.find('.')));
        };
        std::stable_sort(all.begin(), all.end(), [&](const Item& a, const Item& b) {
            return order.rank(first_part(a)) < order.rank(first_part(b));
        });
    }

    /// `keeps_gaps` keeps a blank line above what had one.
    void items(std::vector<Item>& all, const Order& order, bool keeps_gaps) {
        // What stands in groups with blank lines between them is a text of its own: it stays as it is.
        const bool has_groups = std::any_of(all.begin() + (all.empty() ? 0 : 1), all.end(),
                                            [](const Item& item) { return item.blank_lines > 0; });
        if (!has_groups) sort(all, order);
        bool is_first = true;
        for (Item& item : all) {
            if ((keeps_gaps || has_groups) && !is_first && item.blank_lines > 0) out += "\n";
            is_first = false;
            comments(item.comments, "");
            const std::string begin = item.key + " = ";
            out += begin;
            value(item.value, order_inside_of(order, item), "", begin.size());
            out += behind(item.comment) + "\n";
        }
    }

    static Order order_inside_of(const Order& around, const Item& item) {
        return order_inside(around, bare(item.key), item.value.items);
    }

    /// In one line.
    std::string flat(TextValue& value, const Order& order, std::string_view key) {
        if (value.kind == TextValue::Kind::plain) return value.text;
        std::string made;
        if (value.kind == TextValue::Kind::table) {
            const Order own = key == "element" || holds_elements(order) ? order_of_element(value.items) : order;
            sort(value.items, own);
            for (Item& item : value.items)
                made += (made.empty() ? "" : ", ") + item.key + " = " +
                        flat(item.value, order_inside_of(own, item), bare(item.key));
            return made.empty() ? "{}" : "{ " + made + " }";
        }
        for (Item& item : value.items)
            made += (made.empty() ? "" : ", ") + flat(item.value, order, key);
        return "[" + made + "]";
    }

    /// `used` is how much of the line stands before it.
    void value(TextValue& value, const Order& order, const std::string& indent, std::size_t used,
               std::string_view key = {}) {
        if (!value.stands_tall() || value.kind == TextValue::Kind::plain) {
            const std::string line = flat(value, order, key);
            const bool fits = utf8::length(line) + used <= longest_line;
            const bool may_be_tall = value.kind == TextValue::Kind::list && !value.items.empty() &&
                                     value.items.front().value.kind != TextValue::Kind::plain;
            if (fits || !may_be_tall) {
                out += line;
                return;
            }
        }
        if (value.kind == TextValue::Kind::table) return table(value, order, indent, key);
        out += "[\n";
        const std::string inner = indent + "    ";
        for (Item& item : value.items) {
            if (item.blank_lines > 0 && &item != &value.items.front()) out += "\n";
            comments(item.comments, inner);
            out += inner;
            const Order own = item.value.kind == TextValue::Kind::table && holds_elements(order)
                                  ? order_of_element(item.value.items)
                                  : order;
            this->value(item.value, own, inner, inner.size() + 1);
            out += "," + behind(item.comment) + "\n";
        }
        comments(value.last_comments, inner);
        out += indent + "]";
    }

    /// A table stands in one line in TOML 1.0; but for lists inside of it, which may be tall.
    void table(TextValue& value, const Order& order, const std::string& indent, std::string_view key) {
        const Order own = key == "element" || holds_elements(order) ? order_of_element(value.items) : order;
        sort(value.items, own);
        out += "{ ";
        bool is_first = true;
        for (Item& item : value.items) {
            out += (is_first ? "" : ", ") + item.key + " = ";
            is_first = false;
            this->value(item.value, order_inside_of(own, item), indent, 0, bare(item.key));
        }
        out += " }";
    }
};

/// As the library compares, but that "not a number" is the same as itself.
bool says_the_same(const toml::node& a, const toml::node& b) {
    if (a.type() != b.type()) return false;
    if (const toml::table* const table = a.as_table()) {
        const toml::table& other = *b.as_table();
        return table->size() == other.size() && std::all_of(table->begin(), table->end(), [&](const auto& entry) {
                   const toml::node* const same = other.get(entry.first.str());
                   return same != nullptr && says_the_same(entry.second, *same);
               });
    }
    if (const toml::array* const list = a.as_array()) {
        const toml::array& other = *b.as_array();
        if (list->size() != other.size()) return false;
        for (std::size_t i = 0; i < list->size(); ++i)
            if (!says_the_same(*list->get(i), *other.get(i))) return false;
        return true;
    }
    if (const auto* const number = a.as_floating_point())
        return number->get() == b.as_floating_point()->get() ||
               (std::isnan(number->get()) && std::isnan(b.as_floating_point()->get()));
    return a.visit([&](const auto& value) {
        using T = std::remove_cvref_t<decltype(value)>;
        if constexpr (std::is_same_v<T, toml::table> || std::is_same_v<T, toml::array>)
            return false;  // they were compared above
        else
            return value == *b.as<typename T::value_type>();
    });
}

/// How many texts, numbers and so on a file has.
std::size_t count_of_values(const toml::node& node) {
    std::size_t count = 0;
    if (const toml::table* const table = node.as_table())
        for (const auto& [key, value] : *table)
            count += count_of_values(value);
    else if (const toml::array* const list = node.as_array())
        for (const toml::node& item : *list)
            count += count_of_values(item);
    else
        count = 1;
    return count;
}

/// A text that is TOML; a problem for another one.
std::optional<Problem> problem_of(std::string_view text, const std::string& name) {
    if (const int line = utf8::line_of_fault(text); line > 0)
        return Problem{{name, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
    if (text.size() > 4'000'000) return Problem{{name}, "is larger than 4 MB", "", ProblemCode::too_large};
    if (auto problem = prescan_toml(text, name)) return problem;
    const toml::parse_result parsed = toml::parse(text, name);
    if (!parsed) return syntax_problem(parsed.error(), text, name);
    return std::nullopt;
}

toml_text::Text take_apart(std::string_view text) {
    if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);
    return toml_text::take_apart(text);
}

std::string written(toml_text::Text& text) {
    Writer writer;
    writer.write(text.sections);
    if (!text.last_comments.empty() && !writer.out.empty() && text.last_blank_lines > 0) writer.out += "\n";
    writer.comments(text.last_comments, "");
    return std::move(writer.out);
}

}  // namespace

Result<std::string> format_hud(std::string_view text, const std::string& name) {
    if (std::optional<Problem> problem = problem_of(text, name)) return *std::move(problem);
    toml_text::Text apart = take_apart(text);
    std::string made = written(apart);
    // Whatever happens, nothing is lost.
    const toml::parse_result before = toml::parse(text, name), after = toml::parse(made, name);
    if (!after || !says_the_same(before.table(), after.table()))
        return Problem{{name}, "cannot be formatted without changing what it says", "", ProblemCode::other};
    return made;
}

Result<std::string> upgrade_hud(std::string_view text, const std::string& name) {
    if (std::optional<Problem> problem = problem_of(text, name)) return *std::move(problem);
    toml_text::Text apart = take_apart(text);
    const std::size_t joined = upgrade(apart);
    std::string made = written(apart);
    const toml::parse_result before = toml::parse(text, name), after = toml::parse(made, name);
    if (!after || count_of_values(before.table()) != count_of_values(after.table()) + joined)
        return Problem{{name}, "cannot be upgraded without losing something of it", "", ProblemCode::other};
    return made;
}

}  // namespace rapido
