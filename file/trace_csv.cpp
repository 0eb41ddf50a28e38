// Traces as CSV, by RFC 4180.
#include <algorithm>
#include <charconv>
#include <optional>

#include "base/nearest.hpp"
#include "base/real_number.hpp"
#include "file/trace_builder.hpp"

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
    const auto read = [&] {
        if constexpr (std::is_same_v<Number, double>)
            return read_real(text.data(), text.data() + text.size(), number);
        else
            return std::from_chars(text.data(), text.data() + text.size(), number);
    };
    const auto [end, error] = read();
    if (error != std::errc{} || end != text.data() + text.size()) return std::nullopt;
    return number;
}

bool is_boolean(std::string_view text) {
    return text == "true" || text == "false";
}

class CsvReader {
 public:
    explicit CsvReader(TraceBuilder& trace) : trace_(trace), rest_(trace.text()) {}

    void read() {
        trace_.keep_text();
        if (!read_header()) return;
        while (!rest_.empty() && !trace_.has_enough())
            read_row();
        for (std::size_t i = 0; i < cells_.size() && !trace_.has_enough(); ++i) {
            convert(i, cells_[i]);
            cells_[i] = {};
        }
        if (!trace_.has_rows() && trace_.is_fine())
            fail({{}, header_line_, 0}, "a trace needs at least one row under its header");
    }

 private:
    void fail(const Cell& at, std::string message, std::string hint = {}) {
        trace_.fail(at.line, at.column, std::move(message), std::move(hint));
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
                    fail(cell, "text follows the closing quote of a cell", "write '\"\"' for a quote inside a cell");
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
        return trace_.keep(std::move(plain));
    }

    bool read_header() {
        std::vector<Cell> names;
        header_line_ = line_;
        if (rest_.empty()) fail({{}, 1, 1}, "is empty; a trace begins with the names of its columns");
        if (rest_.empty() || !read_record(names)) return false;
        if (names.size() > most_columns) fail(names.back(), "has more than 1024 columns");
        std::vector<std::string_view> known;
        for (std::size_t i = 0; i < names.size() && !trace_.has_enough(); ++i) {
            const std::string_view name = names[i].text;
            if (std::find(known.begin(), known.end(), name) != known.end())
                fail(names[i], "a second column '" + std::string(name) + "'");
            if (name.empty()) fail(names[i], "a column without a name");
            known.push_back(name);
            if (name == "time") {
                time_ = i;
            } else if (name == "game_time") {
                game_time_ = i;
            } else if (trace_.column(name)) {
                positions_.push_back(i);
            }
        }
        width_ = names.size();
        if (!time_) {
            const bool other_mark = names.size() == 1 && names[0].text.find_first_of(";\t") != std::string_view::npos;
            fail({{}, header_line_, 1}, "has no column 'time'",
                 other_mark ? "commas stand between the cells of a trace" : did_you_mean("time", known));
        }
        cells_.resize(positions_.size());
        return trace_.is_fine();
    }

    void read_row() {
        if (rest_[0] == '\n' || rest_.starts_with("\r\n")) return skip_line(0);
        const int line = line_;
        if (!read_record(row_)) return;
        if (row_.size() != width_)
            return fail({{}, line, 1}, "this row has " + std::to_string(row_.size()) + " cells and the header has " +
                                           std::to_string(width_));
        const auto time = read_time(row_[*time_], "time");
        const auto game_time = game_time_ ? read_time(row_[*game_time_], "game_time") : time;
        if (!time || !game_time) return;
        const std::string_view back = trace_.add_row(*time, *game_time);
        if (!back.empty())
            fail(row_[back == "time" ? *time_ : game_time_.value_or(*time_)],
                 std::string(back) + " goes back from the row before");
        for (std::size_t i = 0; i < positions_.size(); ++i)
            cells_[i].push_back(row_[positions_[i]]);
    }

    std::optional<Nanoseconds> read_time(const Cell& cell, std::string_view column) {
        const auto seconds = parse_number<double>(cell.text);
        if (const auto time = seconds ? trace_time(*seconds) : std::nullopt) return time;
        fail(cell, "'" + std::string(cell.text.substr(0, 40)) + "' in column '" + std::string(column) +
                       "' is not a time in seconds from 0 to 1e9");
        return std::nullopt;
    }

    /// Finds what the cells of a column have in common, and turns them into values.
    void convert(TraceBuilder::ColumnIndex column, const std::vector<Cell>& cells) {
        Value::Type& type = trace_.type(column);
        const auto all = [&](auto&& fits) {
            return std::all_of(cells.begin(), cells.end(),
                               [&](const Cell& c) { return c.text.empty() || fits(c.text); });
        };
        const auto first = std::find_if(cells.begin(), cells.end(), [](const Cell& c) { return !c.text.empty(); });
        if (first != cells.end()) {
            if (all([](std::string_view text) { return parse_number<std::int64_t>(text).has_value(); }))
                type = Value::Type::int64;
            else if (parse_number<double>(first->text))
                type = Value::Type::float64;
            else
                type = all(is_boolean) ? Value::Type::flag : Value::Type::text;
        }
        for (std::size_t row = 0; row < cells.size(); ++row)
            trace_.set(column, value_of(cells[row], column), row);
    }

    Value value_of(const Cell& cell, TraceBuilder::ColumnIndex column) {
        if (cell.text.empty()) return {};
        const Value::Type type = trace_.type(column);
        if (type == Value::Type::int64) return Value(*parse_number<std::int64_t>(cell.text));
        if (type == Value::Type::flag) return Value(cell.text == "true");
        if (type == Value::Type::text) return Value(cell.text);
        if (const auto number = parse_number<double>(cell.text)) return Value(*number);
        if (!trace_.has_enough())
            fail(cell, "'" + std::string(cell.text.substr(0, 40)) + "' is not a number; column '" +
                           std::string(trace_.name_of(column)) + "' begins with one");
        return {};
    }

    TraceBuilder& trace_;
    std::string_view rest_;
    int line_ = 1;
    int header_line_ = 1;
    std::size_t width_ = 0;
    std::optional<std::size_t> time_;
    std::optional<std::size_t> game_time_;
    std::vector<std::size_t> positions_;    ///< of the source columns, in a row
    std::vector<std::vector<Cell>> cells_;  ///< by source column
    std::vector<Cell> row_;
};

}  // namespace

Result<Trace> Trace::read_csv(std::string_view text, const std::string& name) {
    if (auto fault = trace_fault(text, name)) return *std::move(fault);
    TraceBuilder trace(text, name);
    CsvReader(trace).read();
    return trace.finish();
}

}  // namespace rapido
