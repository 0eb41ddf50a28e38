#include "file/trace_builder.hpp"

#include "base/problem_log.hpp"
#include "base/utf8.hpp"

namespace rapido {

std::optional<Problem> trace_fault(std::string_view text, const std::string& name) {
    if (text.size() > largest_trace) return Problem{{name}, "is larger than 256 MB", "", ProblemCode::too_large};
    if (const int line = utf8::line_of_fault(text); line > 0)
        return Problem{{name, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
    return std::nullopt;
}

std::optional<Nanoseconds> trace_time(double seconds) {
    if (!(seconds >= 0 && seconds <= latest_time)) return std::nullopt;
    return to_nanoseconds(Seconds{seconds});
}

std::string_view TraceBuilder::text() const {
    std::string_view text = *text_;
    if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);
    return text;
}

std::optional<TraceBuilder::ColumnIndex> TraceBuilder::column(std::string_view name) {
    const auto [known, is_new] = columns_.emplace(name, trace_.columns_.size());
    if (!is_new) return known->second;
    if (trace_.columns_.size() == most_columns) {
        columns_.erase(known);
        return std::nullopt;
    }
    trace_.columns_.push_back({std::string(name)});
    return known->second;
}

std::string_view TraceBuilder::add_row(Nanoseconds time, Nanoseconds game_time) {
    std::string_view back;
    if (has_rows() && time < trace_.rows_.back().time)
        back = "time";
    else if (has_rows() && game_time < trace_.rows_.back().game_time)
        back = "game_time";
    trace_.rows_.push_back({time, game_time});
    return back;
}

void TraceBuilder::set(ColumnIndex column, const Value& value, std::size_t row) {
    trace_.columns_[column].set(row, value);
}

std::string_view TraceBuilder::keep(std::string text) {
    trace_.unquoted_.push_back(std::make_shared<const std::string>(std::move(text)));
    return *trace_.unquoted_.back();
}

void TraceBuilder::fail(int line, int column, std::string message, std::string hint) {
    problems_.push_back({{name_, line, column}, std::move(message), std::move(hint), ProblemCode::syntax});
}

bool TraceBuilder::has_enough() const {
    return problems_.size() >= ProblemLog::most;
}

Result<Trace> TraceBuilder::finish() {
    if (!problems_.empty()) return std::move(problems_);
    // A column with a fraction anywhere holds only numbers of that type.
    for (Trace::Column& column : trace_.columns_) {
        if (column.type != Value::Type::float64) continue;
        for (Trace::Change& change : column.changes)
            if (change.value.has_value()) change.value = Value(change.value.number());
    }
    return std::move(trace_);
}

}  // namespace rapido
