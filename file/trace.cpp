// Traces, whatever they were written in.
#include <algorithm>

#include "file/trace_builder.hpp"

namespace rapido {

Value Trace::Column::at(std::size_t row) const {
    const auto after = std::upper_bound(changes.begin(), changes.end(), row,
                                        [](std::size_t at, const Change& change) { return at < change.row; });
    return after == changes.begin() ? Value() : std::prev(after)->value;
}

void Trace::Column::set(std::size_t row, const Value& value) {
    if (value == (changes.empty() ? Value() : changes.back().value)) return;
    changes.push_back({row, value});
}

Result<Trace> Trace::read(std::string_view text, const std::string& name) {
    const std::size_t first = text.find_first_not_of(" \t\r\n\xef\xbb\xbf");
    const bool is_json = first != std::string_view::npos && text[first] == '{';
    return is_json ? read_json_lines(text, name) : read_csv(text, name);
}

Result<Trace> Trace::read_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_trace);
    if (!text) return text.problems();
    return read(*text, path);
}

TracePlayer::TracePlayer(const Trace& trace) : trace_(trace), current_(trace.columns().size()) {
    seek(trace.rows().front().time);
}

Sources TracePlayer::sources() const {
    Sources sources;
    for (std::size_t i = 0; i < current_.size(); ++i)
        sources.set(trace_.columns()[i].name, watch(current_[i]).expecting(trace_.columns()[i].type));
    return sources;
}

Nanoseconds TracePlayer::seek(Nanoseconds time) {
    time = std::clamp(time, Nanoseconds::zero(), Clock::longest);
    const auto& rows = trace_.rows();
    const auto after = std::upper_bound(rows.begin(), rows.end(), time,
                                        [](Nanoseconds t, const Trace::Row& row) { return t < row.time; });
    row_ = after == rows.begin() ? 0 : static_cast<std::size_t>(after - rows.begin()) - 1;
    for (std::size_t i = 0; i < current_.size(); ++i)
        current_[i] = trace_.columns()[i].at(row_);

    const Trace::Row& row = rows[row_];
    const Nanoseconds since = std::max(time - row.time, Nanoseconds::zero());
    if (row_ + 1 == rows.size()) return row.game_time + since;
    const Nanoseconds real_step = rows[row_ + 1].time - row.time;
    const Nanoseconds game_step = rows[row_ + 1].game_time - row.game_time;
    if (real_step == game_step) return row.game_time + since;
    const double part = static_cast<double>(since.count()) / static_cast<double>(real_step.count());
    return row.game_time + to_nanoseconds(to_seconds(game_step) * part);
}

}  // namespace rapido
