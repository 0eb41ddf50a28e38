// Traces as CSV, by RFC 4180.
#include <algorithm>
#include <charconv>
#include <memory>
#include <optional>

#include "base/nearest.hpp"
#include "base/problem_log.hpp"
#include "file/trace_limits.hpp"
#include "rapido/file.hpp"

namespace rapido {
namespace {

struct Cell {
    std::string_view text;
    int line = 0;
    int column = 0;
};

/// A sign of plus may stand before it, as spreadsheets write it.
template <class Number>
std::optional<Number> parse_number(std::string_view text) {
    Number number{};
    if (text.size() > 1 && text[0] == '+' && text[1] != '-') text.remove_prefix(1);
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc{} || end != text.data() + text.size()) return std::nullopt;
    return number;
}

bool is_boolean(std::string_view text) {
    return text == "true" || text == "false";
}

}  // namespace

class CsvReader {
 public:
    CsvReader(std::string_view text, std::string name)
        : name_(std::move(name)), text_(std::make_shared<const std::string>(text)), rest_(*text_) {}

    Result<Trace> read() {
        if (rest_.starts_with("\xef\xbb\xbf")) rest_.remove_prefix(3);
        if (!read_header()) return problems_;
        while (!rest_.empty() && !has_enough())
            read_row();
        for (std::size_t i = 0; i < cells_.size() && !has_enough(); ++i) {
            convert(trace_.columns_[i], cells_[i]);
            cells_[i] = {};
        }
        if (trace_.rows_.empty() && problems_.empty())
            fail({{}, header_line_, 0}, "a trace needs at least one row under its header");
        if (!problems_.empty()) return problems_;
        trace_.text_ = text_;
        return std::move(trace_);
    }

 private:
    /// A hundred problems are as good as any more.
    bool has_enough() const { return problems_.size() >= ProblemLog::most; }

    void fail(const Cell& at, std::string message, std::string hint = {}) {
        problems_.push_back({{name_, at.line, at.column}, std::move(message), std::move(hint)});
    }

    /// Cuts one record into cells. False if a quoted cell is not closed, or is followed by other text.
    bool read_record(std::vector<Cell>& cells) {
        cells.clear();
        int line = line_;
        std::size_t line_start = 0;
        std::size_t at = 0;
        while (true) {
            Cell cell{{}, line, static_cast<int>(at - line_start) + 1};
            if (at < rest_.size() && rest_[at] == '"') {
                std::size_t close = at + 1;
                bool doubled = false;
                for (;; ++close) {
                    if (close >= rest_.size()) {
                        fail(cell, "a quoted cell is not closed");
                        rest_ = {};
                        return false;
                    }
                    if (rest_[close] == '\n') {
                        ++line;
                        line_start = close + 1;
                    }
                    if (rest_[close] != '"') continue;
                    if (close + 1 >= rest_.size() || rest_[close + 1] != '"') break;
                    doubled = true;
                    ++close;
                }
                cell.text = rest_.substr(at + 1, close - at - 1);
                if (doubled) cell.text = undouble(cell.text);
                at = close + 1;
                if (at < rest_.size() && rest_[at] != ',' && rest_[at] != '\n' && rest_[at] != '\r') {
                    fail(cell, "text follows the closing quote of a cell",
                         "write '\"\"' for a quote inside a cell");
                    skip_line(at);
                    return false;
                }
            } else {
                const std::size_t end = std::min(rest_.find_first_of(",\r\n", at), rest_.size());
                cell.text = rest_.substr(at, end - at);
                at = end;
            }
            cells.push_back(cell);
            if (at < rest_.size() && rest_[at] == ',' && cells.size() <= most_columns) {
                ++at;
                continue;
            }
            line_ = line;
            skip_line(at);
            return true;
        }
    }

    void skip_line(std::size_t at) {
        const std::size_t end = rest_.find('\n', at);
        rest_.remove_prefix(end == std::string_view::npos ? rest_.size() : end + 1);
        ++line_;
    }

    /// The rare cell with quotes inside gets a copy of its own.
    std::string_view undouble(std::string_view text) {
        std::string plain;
        for (std::size_t i = 0; i < text.size(); ++i) {
            plain += text[i];
            if (text[i] == '"') ++i;
        }
        trace_.unquoted_.push_back(std::make_shared<const std::string>(std::move(plain)));
        return *trace_.unquoted_.back();
    }

    bool read_header() {
        std::vector<Cell> names;
        header_line_ = line_;
        if (rest_.empty()) fail({{}, 1, 1}, "is empty; a trace begins with the names of its columns");
        if (rest_.empty() || !read_record(names)) return false;
        if (names.size() > most_columns) fail(names.back(), "has more than 1024 columns");
        std::vector<std::string_view> known;
        for (std::size_t i = 0; i < names.size() && !has_enough(); ++i) {
            const std::string_view name = names[i].text;
            if (std::find(known.begin(), known.end(), name) != known.end())
                fail(names[i], "a second column '" + std::string(name) + "'");
            if (name.empty()) fail(names[i], "a column without a name");
            known.push_back(name);
            if (name == "time") {
                time_ = i;
            } else if (name == "game_time") {
                game_time_ = i;
            } else {
                trace_.columns_.push_back({std::string(name)});
                positions_.push_back(i);
            }
        }
        width_ = names.size();
        if (!time_) {
            const bool other_mark =
                names.size() == 1 && names[0].text.find_first_of(";\t") != std::string_view::npos;
            fail({{}, header_line_, 1}, "has no column 'time'",
                 other_mark ? "commas stand between the cells of a trace" : did_you_mean("time", known));
        }
        cells_.resize(trace_.columns_.size());
        return problems_.empty();
    }

    void read_row() {
        if (rest_[0] == '\n' || rest_.starts_with("\r\n")) return skip_line(0);
        const int line = line_;
        if (!read_record(row_)) return;
        if (row_.size() != width_)
            return fail({{}, line, 1}, "this row has " + std::to_string(row_.size()) +
                                           " cells and the header has " + std::to_string(width_));
        const auto time = read_time(row_[*time_], "time");
        const auto game_time = game_time_ ? read_time(row_[*game_time_], "game_time") : time;
        if (!time || !game_time) return;
        if (!trace_.rows_.empty()) {
            if (*time < trace_.rows_.back().time) fail(row_[*time_], "time goes back from the row before");
            if (game_time_ && *game_time < trace_.rows_.back().game_time)
                fail(row_[*game_time_], "game_time goes back from the row before");
        }
        trace_.rows_.push_back({*time, *game_time});
        for (std::size_t i = 0; i < positions_.size(); ++i)
            cells_[i].push_back(row_[positions_[i]]);
    }

    std::optional<Nanoseconds> read_time(const Cell& cell, std::string_view column) {
        const auto seconds = parse_number<double>(cell.text);
        if (seconds && *seconds >= 0 && *seconds <= latest_time) return to_nanoseconds(Seconds{*seconds});
        fail(cell, "'" + std::string(cell.text.substr(0, 40)) + "' in column '" + std::string(column) +
                       "' is not a time in seconds from 0 to 1e9");
        return std::nullopt;
    }

    /// Finds what the cells of a column have in common, and turns them into values.
    void convert(Trace::Column& column, const std::vector<Cell>& cells) {
        const auto all = [&](auto&& fits) {
            return std::all_of(cells.begin(), cells.end(),
                               [&](const Cell& c) { return c.text.empty() || fits(c.text); });
        };
        const auto first =
            std::find_if(cells.begin(), cells.end(), [](const Cell& c) { return !c.text.empty(); });
        if (first != cells.end()) {
            if (all([](std::string_view text) { return parse_number<std::int64_t>(text).has_value(); }))
                column.type = Value::Type::int64;
            else if (parse_number<double>(first->text))
                column.type = Value::Type::float64;
            else
                column.type = all(is_boolean) ? Value::Type::boolean : Value::Type::text;
        }
        for (std::size_t row = 0; row < cells.size(); ++row)
            column.set(row, value_of(cells[row], column));
    }

    Value value_of(const Cell& cell, const Trace::Column& column) {
        if (cell.text.empty()) return {};
        if (column.type == Value::Type::int64) return Value(*parse_number<std::int64_t>(cell.text));
        if (column.type == Value::Type::boolean) return Value(cell.text == "true");
        if (column.type == Value::Type::text) return Value(cell.text);
        if (const auto number = parse_number<double>(cell.text)) return Value(*number);
        if (!has_enough())
            fail(cell, "'" + std::string(cell.text.substr(0, 40)) + "' is not a number; column '" +
                           column.name + "' begins with one");
        return {};
    }

    std::string name_;
    std::shared_ptr<const std::string> text_;
    std::string_view rest_;
    int line_ = 1;
    int header_line_ = 1;
    std::size_t width_ = 0;
    std::optional<std::size_t> time_;
    std::optional<std::size_t> game_time_;
    std::vector<std::size_t> positions_;    ///< of the source columns, in a row
    std::vector<std::vector<Cell>> cells_;  ///< by source column
    std::vector<Cell> row_;
    Trace trace_;
    Problems problems_;
};

Result<Trace> Trace::read_csv(std::string_view text, const std::string& name) {
    if (auto fault = trace_fault(text, name)) return *std::move(fault);
    return CsvReader(text, name).read();
}

}  // namespace rapido
