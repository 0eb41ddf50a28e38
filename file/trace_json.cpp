// Traces as JSON Lines: one object a line.
#include <algorithm>
#include <nlohmann/json.hpp>
#include <optional>

#include "file/json_value.hpp"
#include "file/trace_builder.hpp"

namespace rapido {
namespace {

class JsonLinesReader {
 public:
    explicit JsonLinesReader(TraceBuilder& trace) : trace_(trace) {}

    void read() {
        std::string_view rest = trace_.text();
        for (line_ = 1; !rest.empty() && !trace_.has_enough(); ++line_) {
            const std::string_view line = rest.substr(0, rest.find('\n'));
            rest.remove_prefix(std::min(line.size() + 1, rest.size()));
            if (line.find_first_not_of(" \t\r") != std::string_view::npos) read_line(line);
        }
        if (!trace_.has_rows() && trace_.is_fine()) fail(0, "a trace needs at least one line with an object");
    }

    // What the parser calls, in the order of the line.
    bool null() { return take({}); }
    bool boolean(bool value) { return take(Value(value)); }
    bool number_integer(std::int64_t value) { return take(Value(value)); }
    bool number_unsigned(std::uint64_t value) { return take(whole_value(value)); }
    bool number_float(double value, const std::string&) { return take(Value(value)); }
    bool string(std::string& value) { return take(Value(trace_.keep(std::move(value)))); }
    bool binary(nlohmann::json::binary_t&) { return false; }  // not in JSON texts
    bool start_object(std::size_t) {
        if (!inside_) return inside_ = true;
        if (!list_.empty() && !in_entry_) {
            ++entry_;
            return in_entry_ = true;
        }
        fail(0, "'" + key_ + "' is an object; expected a number, a text, true, false or null");
        return false;
    }
    bool end_object() {
        in_entry_ = false;
        return true;
    }
    bool start_array(std::size_t) {
        if (!inside_)
            fail(0, "expected an object, {\"time\": 0, ...}");
        else if (!list_.empty() || key_.empty())
            fail(0, "'" + key_ + "' is a list; expected a number, a text, true, false or null");
        else
            list_ = key_;
        entry_ = 0;
        return !list_.empty() && trace_.is_fine();
    }
    /// What the list does not say any more has no value.
    bool end_array() {
        const std::string prefix = list_ + ".";
        for (TraceBuilder::ColumnIndex column = 0; column < trace_.column_count(); ++column)
            if (trace_.name_of(column).starts_with(prefix) && !stands_in_row(column))
                row_.emplace_back(column, Value());
        list_.clear();
        return true;
    }
    bool key(std::string& name) {
        key_ = in_entry_ ? list_ + "." + std::to_string(entry_) + "." + name : std::move(name);
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
    void fail(int column, std::string message) { trace_.fail(line_, column, std::move(message)); }

    void read_line(std::string_view line) {
        inside_ = false;
        time_.reset();
        game_time_.reset();
        row_.clear();
        list_.clear();
        in_entry_ = false;
        if (!nlohmann::json::sax_parse(line.begin(), line.end(), this)) {
            if (!inside_ && trace_.is_fine()) fail(1, "expected an object, {\"time\": 0, ...}");
            return;
        }
        if (!time_) return fail(1, "has no 'time'");
        if (const std::string_view back = trace_.add_row(*time_, game_time_.value_or(*time_)); !back.empty())
            return fail(1, "'" + std::string(back) + "' goes back from the line before");
        for (const auto& [column, value] : row_)
            set(column, value);
    }

    void set(TraceBuilder::ColumnIndex column, const Value& value) {
        Value::Type& type = trace_.type(column);
        if (value.has_value() && !accept(type, value.type()))
            fail(0, "'" + std::string(trace_.name_of(column)) + "' is of type " + std::string(to_string(value.type())) +
                        ", and of type " + std::string(to_string(type)) + " in a line before");
        trace_.set(column, value);
    }

    /// Whole numbers and others go together; all else does not.
    static bool accept(Value::Type& known, Value::Type type) {
        const auto is_number = [](Value::Type of) {
            return of == Value::Type::int64 || of == Value::Type::uint64 || of == Value::Type::float64;
        };
        if (known == Value::Type::none) known = type;
        if (known == type) return true;
        if (!is_number(known) || !is_number(type)) return false;
        known = Value::Type::float64;
        return true;
    }

    bool take(Value value) {
        if (!inside_) {
            fail(1, "expected an object, {\"time\": 0, ...}");
            return false;
        }
        if (!list_.empty() && !in_entry_) {
            fail(0, "'" + list_ + "' is a list of values; expected objects in it");
            return false;
        }
        if (key_ == "time" || key_ == "game_time") return take_time(value);
        if (key_.empty()) {
            fail(0, "a value without a name");
            return false;
        }
        // What a line leaves out is as in the line before it; before the first time there is no value.
        const auto column = trace_.column(key_);
        if (!column) {
            fail(0, "has more than 1024 names in all its lines");
            return false;
        }
        if (stands_in_row(*column)) {
            fail(0, "'" + key_ + "' stands twice in this line");
            return false;
        }
        row_.emplace_back(*column, value);
        return true;
    }

    bool stands_in_row(TraceBuilder::ColumnIndex column) const {
        return std::any_of(row_.begin(), row_.end(), [column](const auto& other) { return other.first == column; });
    }

    bool take_time(const Value& value) {
        const auto time = value.type() == Value::Type::flag ? std::nullopt : trace_time(value.number());
        if (!time) {
            fail(0, "'" + key_ + "' is not a time in seconds from 0 to 1e9");
            return false;
        }
        (key_ == "time" ? time_ : game_time_) = time;
        return true;
    }

    TraceBuilder& trace_;
    int line_ = 1;
    bool inside_ = false;  ///< the object of the line
    std::string key_;
    std::string list_;       ///< the name of the list that is being read
    std::size_t entry_ = 0;  ///< of this list, from 1
    bool in_entry_ = false;
    std::optional<Nanoseconds> time_, game_time_;
    std::vector<std::pair<TraceBuilder::ColumnIndex, Value>> row_;
};

}  // namespace

Result<Trace> Trace::read_json_lines(std::string_view text, const std::string& name) {
    if (auto fault = trace_fault(text, name)) return *std::move(fault);
    TraceBuilder trace(text, name);
    JsonLinesReader(trace).read();
    return trace.finish();
}

}  // namespace rapido
