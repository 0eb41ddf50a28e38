// Traces as JSON Lines: one object a line.
#include <algorithm>
#include <memory>
#include <nlohmann/json.hpp>
#include <optional>
#include <unordered_map>

#include "base/problem_log.hpp"
#include "file/trace_limits.hpp"
#include "rapido/file.hpp"

namespace rapido {

class JsonLinesReader {
 public:
    JsonLinesReader(std::string_view text, std::string name)
        : name_(std::move(name)), text_(std::make_shared<const std::string>(text)) {}

    Result<Trace> read() {
        std::string_view rest = *text_;
        if (rest.starts_with("\xef\xbb\xbf")) rest.remove_prefix(3);
        for (line_ = 1; !rest.empty() && problems_.size() < ProblemLog::most; ++line_) {
            const std::string_view line = rest.substr(0, rest.find('\n'));
            rest.remove_prefix(std::min(line.size() + 1, rest.size()));
            if (line.find_first_not_of(" \t\r") != std::string_view::npos) read_line(line);
        }
        if (trace_.rows_.empty() && problems_.empty())
            fail(0, "a trace needs at least one line with an object");
        for (Trace::Column& column : trace_.columns_)
            make_equal(column);
        if (!problems_.empty()) return std::move(problems_);
        return std::move(trace_);
    }

    // What the parser calls, in the order of the line.
    bool null() { return take({}); }
    bool boolean(bool value) { return take(Value(value)); }
    bool number_integer(std::int64_t value) { return take(Value(value)); }
    bool number_unsigned(std::uint64_t value) {
        return value <= static_cast<std::uint64_t>(INT64_MAX) ? take(Value(static_cast<std::int64_t>(value)))
                                                              : take(Value(value));
    }
    bool number_float(double value, const std::string&) { return take(Value(value)); }
    bool string(std::string& value) {
        trace_.unquoted_.push_back(std::make_shared<const std::string>(std::move(value)));
        return take(Value(std::string_view(*trace_.unquoted_.back())));
    }
    bool binary(nlohmann::json::binary_t&) { return false; }  // not in JSON texts
    bool start_object(std::size_t) {
        if (!inside_) return inside_ = true;
        fail(0, "'" + key_ + "' is an object; expected a number, a text, true, false or null");
        return false;
    }
    bool end_object() { return true; }
    bool start_array(std::size_t) {
        if (inside_)
            fail(0, "'" + key_ + "' is a list; expected a number, a text, true, false or null");
        else
            fail(0, "expected an object, {\"time\": 0, ...}");
        return false;
    }
    bool end_array() { return true; }
    bool key(std::string& name) {
        key_ = std::move(name);
        return true;
    }
    bool parse_error(std::size_t position, const std::string&, const nlohmann::json::exception& error) {
        const std::string_view whole = error.what();
        // `[json.exception.parse_error.101] parse error at line 1, column 8: syntax error while ...`
        const std::size_t words = whole.find(": ");
        fail(static_cast<int>(std::max<std::size_t>(position, 1)),
             std::string(words == std::string_view::npos ? whole : whole.substr(words + 2)));
        return false;
    }

 private:
    void fail(int column, std::string message) {
        problems_.push_back({{name_, line_, column}, std::move(message), ""});
    }

    void read_line(std::string_view line) {
        inside_ = false;
        time_.reset();
        game_time_.reset();
        row_.clear();
        if (!nlohmann::json::sax_parse(line.begin(), line.end(), this)) {
            if (!inside_ && problems_.empty()) fail(1, "expected an object, {\"time\": 0, ...}");
            return;
        }
        if (!time_) return fail(1, "has no 'time'");
        const Nanoseconds game_time = game_time_.value_or(*time_);
        if (!trace_.rows_.empty()) {
            if (*time_ < trace_.rows_.back().time) return fail(1, "'time' goes back from the line before");
            if (game_time < trace_.rows_.back().game_time)
                return fail(1, "'game_time' goes back from the line before");
        }
        trace_.rows_.push_back({*time_, game_time});
        for (const auto& [column, value] : row_)
            set(trace_.columns_[column], value);
    }

    void set(Trace::Column& column, Value value) {
        if (value.has_value() && !accept(column, value.type()))
            fail(0, "'" + column.name + "' is of type " + std::string(to_string(value.type())) +
                        ", and of type " + std::string(to_string(column.type)) + " in a line before");
        column.set(trace_.rows_.size() - 1, value);
    }

    /// Whole numbers and others go together; all else does not.
    static bool accept(Trace::Column& column, Value::Type type) {
        const auto is_number = [](Value::Type known) {
            return known == Value::Type::int64 || known == Value::Type::uint64 ||
                   known == Value::Type::float64;
        };
        if (column.type == Value::Type::none) column.type = type;
        if (column.type == type) return true;
        if (!is_number(column.type) || !is_number(type)) return false;
        column.type = Value::Type::float64;
        return true;
    }

    /// A column with a fraction anywhere holds only numbers of that type.
    static void make_equal(Trace::Column& column) {
        if (column.type != Value::Type::float64) return;
        for (Trace::Change& change : column.changes)
            if (change.value.has_value()) change.value = Value(change.value.number());
    }

    bool take(Value value) {
        if (!inside_) {
            fail(1, "expected an object, {\"time\": 0, ...}");
            return false;
        }
        if (key_ == "time" || key_ == "game_time") return take_time(value);
        if (key_.empty()) {
            fail(0, "a value without a name");
            return false;
        }
        // What a line leaves out is as in the line before it; before the first time there is no value.
        const auto [known, is_new] = columns_.emplace(key_, trace_.columns_.size());
        if (is_new && trace_.columns_.size() == most_columns) {
            fail(0, "has more than 1024 names in all its lines");
            return false;
        }
        if (is_new) trace_.columns_.push_back({key_});
        const std::size_t column = known->second;
        const bool twice =
            std::any_of(row_.begin(), row_.end(), [&](const auto& other) { return other.first == column; });
        if (twice) {
            fail(0, "'" + key_ + "' stands twice in this line");
            return false;
        }
        row_.emplace_back(column, value);
        return true;
    }

    bool take_time(const Value& value) {
        const double seconds = value.number();
        if (value.type() == Value::Type::boolean || !(seconds >= 0 && seconds <= latest_time)) {
            fail(0, "'" + key_ + "' is not a time in seconds from 0 to 1e9");
            return false;
        }
        (key_ == "time" ? time_ : game_time_) = to_nanoseconds(Seconds{seconds});
        return true;
    }

    std::string name_;
    std::shared_ptr<const std::string> text_;
    int line_ = 1;
    bool inside_ = false;  ///< the object of the line
    std::string key_;
    std::optional<Nanoseconds> time_, game_time_;
    std::vector<std::pair<std::size_t, Value>> row_;
    std::unordered_map<std::string, std::size_t> columns_;
    Trace trace_;
    Problems problems_;
};

Result<Trace> Trace::read_json_lines(std::string_view text, const std::string& name) {
    if (auto fault = trace_fault(text, name)) return *std::move(fault);
    return JsonLinesReader(text, name).read();
}

}  // namespace rapido
