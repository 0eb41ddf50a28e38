// HUD files in canonical order, with their comments, which the TOML library does not keep: it says whether a text is TOML, and whether
// what was written says the same; in between, the text itself is taken apart at its statements.
#include <algorithm>
#include <cmath>
#include <type_traits>

#include "base/utf8.hpp"
#include "element/kinds.hpp"
#include "file/prescan.hpp"
#include "file/syntax_problem.hpp"
#include "file/toml.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/file.hpp"

namespace rapido {
namespace {

constexpr std::size_t longest_line = 120;  ///< in characters; what is longer stands over several lines

/// Something that is written, with the comments that belong to it.
struct Item;
struct Value {
    enum class Kind : std::uint8_t { plain, list, table };
    Kind kind = Kind::plain;
    std::string text{};  ///< of a plain one, as it stands there
    std::vector<Item> items;
    std::vector<std::string> last_comments{};  ///< behind the last item
    bool is_tall = false;                      ///< it stood over several lines

    /// Whether it, or a list inside of it, stands over several lines, or must.
    bool stands_tall() const;
};
struct Item {
    std::vector<std::string> comments{};  ///< lines above it
    std::string key{};                    ///< of a table, as it stands there
    Value value{};
    std::string comment{};  ///< behind it, on its line
    int blank_lines = 0;    ///< above it and its comments
};

bool Value::stands_tall() const {
    return is_tall || !last_comments.empty() || std::any_of(items.begin(), items.end(), [](const Item& item) {
               return !item.comments.empty() || !item.comment.empty() || item.value.stands_tall();
           });
}

/// A `[table]` or `[[list]]`, and what is set below it; the first has no header.
struct Section {
    std::vector<std::string> comments{};
    int blank_lines = 0;
    std::string header{};  ///< as it stands there
    std::string comment{};
    std::vector<Item> items{};
};

/// Takes a text apart that is known to be TOML.
class Reader {
 public:
    explicit Reader(std::string_view text) : rest_(text) {}

    std::vector<Section> read() {
        std::vector<Section> sections(1);
        while (true) {
            int blank_lines = 0;
            std::vector<std::string> comments = skip(blank_lines);
            if (rest_.empty()) {
                last_comments = std::move(comments);
                last_blank_lines = blank_lines;
                return sections;
            }
            if (rest_.front() == '[') {
                Section& section = sections.emplace_back();
                section.comments = std::move(comments);
                section.blank_lines = blank_lines;
                section.header = take_header();
                section.comment = take_comment();
                continue;
            }
            Item item = take_item();
            item.comments = std::move(comments);
            item.blank_lines = blank_lines;
            item.comment = take_comment();
            sections.back().items.push_back(std::move(item));
        }
    }

    std::vector<std::string> last_comments;
    int last_blank_lines = 0;

 private:
    /// Passes spaces, line ends and comments, which it returns.
    std::vector<std::string> skip(int& blank_lines) {
        std::vector<std::string> comments;
        int ends = 0;
        blank_lines = 0;
        while (!rest_.empty()) {
            const char c = rest_.front();
            if (c == '#') {
                if (comments.empty()) blank_lines = std::max(ends - 1, 0);
                // A gap between comments is one of their lines.
                else if (ends > 1)
                    comments.emplace_back();
                comments.push_back(take_line());
                ends = 0;
            } else if (c == '\n') {
                ++ends;
                rest_.remove_prefix(1);
            } else if (c == ' ' || c == '\t' || c == '\r') {
                rest_.remove_prefix(1);
            } else {
                break;
            }
        }
        if (comments.empty())
            blank_lines = std::max(ends - 1, 0);
        else if (ends > 1)
            comments.emplace_back();
        return comments;
    }

    std::string take_line() {
        std::string line(rest_.substr(0, rest_.find('\n')));
        rest_.remove_prefix(line.size());
        while (!line.empty() && (line.back() == '\r' || line.back() == ' ' || line.back() == '\t'))
            line.pop_back();
        return line;
    }
    void skip_spaces() { rest_.remove_prefix(std::min(rest_.find_first_not_of(" \t\r"), rest_.size())); }
    /// The comment at the end of a line.
    std::string take_comment() {
        skip_spaces();
        return !rest_.empty() && rest_.front() == '#' ? take_line() : std::string();
    }

    /// As long as a text in quotes is.
    std::size_t quoted_length(std::string_view text) const {
        const char quote = text.front();
        const std::string triple(3, quote);
        const bool is_tall = text.starts_with(triple);
        for (std::size_t at = is_tall ? 3 : 1; at < text.size(); ++at) {
            if (quote == '"' && text[at] == '\\') {
                ++at;
            } else if (is_tall && text.substr(at).starts_with(triple)) {
                // Up to two quotes may stand before the closing three.
                std::size_t end = at + 3;
                while (end < text.size() && end < at + 5 && text[end] == quote)
                    ++end;
                return end;
            } else if (!is_tall && text[at] == quote) {
                return at + 1;
            }
        }
        return text.size();
    }

    std::string take_header() {
        std::size_t end = 0;
        while (end < rest_.size() && rest_[end] != '\n' && rest_[end] != '#')
            end += rest_[end] == '"' || rest_[end] == '\'' ? quoted_length(rest_.substr(end)) : 1;
        std::string header(rest_.substr(0, end));
        rest_.remove_prefix(end);
        std::string made;
        for (std::size_t at = 0; at < header.size();) {
            if (header[at] == '"' || header[at] == '\'') {
                const std::size_t length = quoted_length(std::string_view(header).substr(at));
                made += header.substr(at, length);
                at += length;
            } else {
                if (header[at] != ' ' && header[at] != '\t' && header[at] != '\r') made += header[at];
                ++at;
            }
        }
        return made;
    }

    Item take_item() {
        Item item;
        std::size_t end = 0;
        while (end < rest_.size() && rest_[end] != '=')
            end += rest_[end] == '"' || rest_[end] == '\'' ? quoted_length(rest_.substr(end)) : 1;
        item.key = rest_.substr(0, end);
        while (!item.key.empty() && (item.key.back() == ' ' || item.key.back() == '\t'))
            item.key.pop_back();
        rest_.remove_prefix(std::min(end + 1, rest_.size()));
        skip_spaces();
        item.value = take_value();
        return item;
    }

    Value take_value() {
        Value value;
        const char first = rest_.empty() ? '\0' : rest_.front();
        if (first == '"' || first == '\'') {
            value.text = rest_.substr(0, quoted_length(rest_));
            rest_.remove_prefix(value.text.size());
            return value;
        }
        if (first != '[' && first != '{') {
            value.text = rest_.substr(0, std::min(rest_.find_first_of(",]}#\r\n"), rest_.size()));
            rest_.remove_prefix(value.text.size());
            while (!value.text.empty() && (value.text.back() == ' ' || value.text.back() == '\t'))
                value.text.pop_back();
            return value;
        }
        value.kind = first == '[' ? Value::Kind::list : Value::Kind::table;
        const std::string_view whole = rest_;
        rest_.remove_prefix(1);
        const char close = first == '[' ? ']' : '}';
        while (true) {
            int blank_lines = 0;
            std::vector<std::string> comments = skip(blank_lines);
            if (rest_.empty()) return value;
            if (rest_.front() == close) {
                value.last_comments = std::move(comments);
                rest_.remove_prefix(1);
                break;
            }
            Item item;
            if (value.kind == Value::Kind::table)
                item = take_item();
            else
                item.value = take_value();
            item.comments = std::move(comments);
            item.blank_lines = blank_lines;
            int lines = 0;
            const std::string_view before = rest_;
            skip_spaces();
            if (rest_.empty() || rest_.front() != ',') {
                // A comment may stand before the comma that follows on another line.
                std::vector<std::string> behind = skip(lines);
                if (rest_.empty() || rest_.front() != ',') {
                    rest_ = before;
                    item.comment = take_comment();
                    value.items.push_back(std::move(item));
                    continue;
                }
                item.comments.insert(item.comments.end(), behind.begin(), behind.end());
            }
            rest_.remove_prefix(1);
            item.comment = take_comment();
            value.items.push_back(std::move(item));
        }
        const std::string_view taken = whole.substr(0, whole.size() - rest_.size());
        value.is_tall = value.kind == Value::Kind::list && taken.find('\n') != std::string_view::npos;
        return value;
    }

    std::string_view rest_;
};

/// A text in quotes that holds nothing special, or a bare one.
std::string_view bare(std::string_view text) {
    if (text.size() >= 2 && (text.front() == '"' || text.front() == '\'')) return text.substr(1, text.size() - 2);
    return text;
}

const Value* find(const std::vector<Item>& items, std::string_view key) {
    for (const Item& item : items)
        if (bare(item.key) == key) return &item.value;
    return nullptr;
}

/// In which order the keys of a table stand, and what stands inside them.
struct Order {
    std::vector<std::string_view> first{};  ///< before the fields
    const Table* table = nullptr;           ///< null: as they are written
    std::vector<std::string_view> last{};   ///< behind them

    std::size_t rank(std::string_view key) const {
        const auto before = std::find(first.begin(), first.end(), key);
        if (before != first.end()) return static_cast<std::size_t>(before - first.begin());
        const auto behind = std::find(last.begin(), last.end(), key);
        if (behind != last.end()) return 10'000 + static_cast<std::size_t>(behind - last.begin());
        if (table != nullptr)
            for (std::size_t i = 0; i < table->fields.size(); ++i)
                if (table->fields[i].name == key) return 100 + i;
        // What only a component knows: its parameters.
        return 50;
    }
};

Order order_of_element(const std::vector<Item>& items) {
    Order order{{"kind", "id", "style", "component", "with"}, nullptr, {"element"}};
    const Value* const kind = find(items, "kind");
    const std::string_view name = kind != nullptr ? bare(kind->text) : std::string_view();
    order.table = describe(Panel{}).table;
    for (const Kind* const known : all_kinds())
        if (known->name() == name) order.table = known->table;
    return order;
}

/// The order inside of a field, for a table or a list of tables.
Order order_inside(const Order& around, std::string_view key, const std::vector<Item>& items) {
    if (key == "element") return order_of_element(items);
    const Field* const field = around.table != nullptr ? around.table->find(key) : nullptr;
    if (field == nullptr || (field->type != FieldType::table && field->type != FieldType::list)) return {};
    return {{"id"}, field->table, {}};
}

/// The order below a header, such as `[[element]]` or `[source."plane.water"]`.
Order order_of(const Section& section) {
    std::string_view name = section.header;
    if (name.empty()) return {{"include"}, &top_table, {"theme", "source", "style", "component", "element"}};
    const bool is_list = name.starts_with("[[");
    name.remove_prefix(is_list ? 2 : 1);
    name.remove_suffix(is_list ? 2 : 1);
    const std::string_view first = name.substr(0, name.find('.'));
    const std::string_view last = name.substr(name.rfind('.') == std::string_view::npos ? 0 : name.rfind('.') + 1);
    if (is_list && last == "element") return order_of_element(section.items);
    if (first == "component" && !is_list) return {{"parameters", "style"}, describe(Panel{}).table, {"element"}};
    if (first == "style") return {{}, describe(Text{}).table, {}};
    if (first == "source" && name != "source") return {{}, &source_table, {"fields"}};
    if (!is_list || first != name) return {};
    for (const Table* const table :
         {&timer_table, &meter_table, &effect_table, &group_table, &locale_table, &accepted_table})
        if (name == table->name) return {{"id"}, table, {}};
    return {};
}

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
    std::string flat(Value& value, const Order& order, std::string_view key) {
        if (value.kind == Value::Kind::plain) return value.text;
        std::string made;
        if (value.kind == Value::Kind::table) {
            const Order own = key == "element" || key_is_element(order) ? order_of_element(value.items) : order;
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
    void value(Value& value, const Order& order, const std::string& indent, std::size_t used,
               std::string_view key = {}) {
        if (!value.stands_tall() || value.kind == Value::Kind::plain) {
            const std::string line = flat(value, order, key);
            const bool fits = utf8::length(line) + used <= longest_line;
            const bool may_be_tall = value.kind == Value::Kind::list && !value.items.empty() &&
                                     value.items.front().value.kind != Value::Kind::plain;
            if (fits || !may_be_tall) {
                out += line;
                return;
            }
        }
        if (value.kind == Value::Kind::table) return table(value, order, indent, key);
        out += "[\n";
        const std::string inner = indent + "    ";
        for (Item& item : value.items) {
            if (item.blank_lines > 0 && &item != &value.items.front()) out += "\n";
            comments(item.comments, inner);
            out += inner;
            const Order own = item.value.kind == Value::Kind::table && key_is_element(order)
                                  ? order_of_element(item.value.items)
                                  : order;
            this->value(item.value, own, inner, inner.size() + 1);
            out += "," + behind(item.comment) + "\n";
        }
        comments(value.last_comments, inner);
        out += indent + "]";
    }

    static bool key_is_element(const Order& order) {
        return !order.last.empty() && order.last.front() == "element" && !order.first.empty() &&
               order.first.front() == "kind";
    }

    /// A table stands in one line in TOML 1.0; but for lists inside of it, which may be tall.
    void table(Value& value, const Order& order, const std::string& indent, std::string_view key) {
        const Order own = key == "element" || key_is_element(order) ? order_of_element(value.items) : order;
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

}  // namespace

Result<std::string> format_hud(std::string_view text, const std::string& name) {
    if (const int line = utf8::line_of_fault(text); line > 0)
        return Problem{{name, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
    if (text.size() > 4'000'000) return Problem{{name}, "is larger than 4 MB", "", ProblemCode::too_large};
    if (auto problem = prescan_toml(text, name)) return *std::move(problem);
    const toml::parse_result before = toml::parse(text, name);
    if (!before) return syntax_problem(before.error(), text, name);

    if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);
    Reader reader(text);
    std::vector<Section> sections = reader.read();
    Writer writer;
    writer.write(sections);
    if (!reader.last_comments.empty() && !writer.out.empty() && reader.last_blank_lines > 0) writer.out += "\n";
    writer.comments(reader.last_comments, "");

    // Whatever happens, nothing is lost.
    const toml::parse_result after = toml::parse(writer.out, name);
    if (!after || !says_the_same(before.table(), after.table()))
        return Problem{{name}, "cannot be formatted without changing what it says", "", ProblemCode::other};
    return std::move(writer.out);
}

}  // namespace rapido
