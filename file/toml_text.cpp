#include "file/toml_text.hpp"

#include <algorithm>

namespace rapido::toml_text {
namespace {

/// Takes a text apart that is known to be TOML.
class Reader {
 public:
    explicit Reader(std::string_view text) : rest_(text) {}

    Text read() {
        Text text;
        std::vector<Section>& sections = text.sections;
        sections.resize(1);
        while (true) {
            int blank_lines = 0;
            std::vector<std::string> comments = skip(blank_lines);
            if (rest_.empty()) {
                text.last_comments = std::move(comments);
                text.last_blank_lines = blank_lines;
                return text;
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

    TextValue take_value() {
        TextValue value;
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
        value.kind = first == '[' ? TextValue::Kind::list : TextValue::Kind::table;
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
            if (value.kind == TextValue::Kind::table)
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
        value.is_tall = value.kind == TextValue::Kind::list && taken.find('\n') != std::string_view::npos;
        return value;
    }

    std::string_view rest_;
};

}  // namespace

bool TextValue::stands_tall() const {
    return is_tall || !last_comments.empty() || std::any_of(items.begin(), items.end(), [](const Item& item) {
               return !item.comments.empty() || !item.comment.empty() || item.value.stands_tall();
           });
}

Text take_apart(std::string_view text) {
    return Reader(text).read();
}

std::string_view bare(std::string_view text) {
    if (text.size() >= 2 && (text.front() == '"' || text.front() == '\'')) return text.substr(1, text.size() - 2);
    return text;
}

std::vector<std::string_view> parts_of(std::string_view key) {
    std::vector<std::string_view> parts;
    char quote = 0;
    std::size_t begin = 0;
    const auto add = [&](std::size_t end) {
        std::string_view part = key.substr(begin, end - begin);
        part.remove_prefix(std::min(part.find_first_not_of(" \t"), part.size()));
        part.remove_suffix(part.size() - std::min(part.find_last_not_of(" \t") + 1, part.size()));
        parts.push_back(part);
        begin = end + 1;
    };
    for (std::size_t i = 0; i < key.size(); ++i) {
        if (quote != 0) {
            if (key[i] == '\\' && quote == '"')
                ++i;
            else if (key[i] == quote)
                quote = 0;
        } else if (key[i] == '"' || key[i] == '\'') {
            quote = key[i];
        } else if (key[i] == '.') {
            add(i);
        }
    }
    add(key.size());
    return parts;
}

const TextValue* find(const std::vector<Item>& items, std::string_view key) {
    for (const Item& item : items)
        if (bare(item.key) == key) return &item.value;
    return nullptr;
}

}  // namespace rapido::toml_text
