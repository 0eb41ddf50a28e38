// Traces, whatever they were written in.
#include <algorithm>
#include <charconv>
#include <map>

#include "file/trace_builder.hpp"
#include "hud/entry_fields.hpp"

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

namespace {

/// Columns of a list, `board.1.name`: the values of an entry of a container.
class TraceEntries final : public detail::EntryReader {
 public:
    explicit TraceEntries(const std::vector<Value>& current) : current_(current) {}

    void add(std::size_t entry, std::string_view field, std::size_t column, Value::Type type) {
        auto known =
            std::find_if(fields_.begin(), fields_.end(), [field](const Field& other) { return other.name == field; });
        if (known == fields_.end()) {
            known = fields_.insert(known, {std::string(field), type});
            columns_.emplace_back();
        }
        std::vector<std::size_t>& columns = columns_[static_cast<std::size_t>(known - fields_.begin())];
        if (columns.size() < entry) columns.resize(entry, no_column);
        columns[entry - 1] = column;
    }

    const std::vector<Field>& fields() const override { return fields_; }
    /// Up to the last that has any value.
    std::size_t count() const override {
        std::size_t count = 0;
        for (const std::vector<std::size_t>& columns : columns_)
            for (std::size_t entry = columns.size(); entry > count; --entry)
                if (value(columns, entry - 1).has_value()) count = entry;
        return count;
    }
    void read_field(std::size_t field, std::span<const std::uint8_t>, std::span<KeptValue> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry] = value(columns_[field], entry);
    }

    void read_numbers(std::size_t field, std::span<double> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry] = value(columns_[field], entry).number();
    }
    bool read_positions(std::span<WorldPoint> into) const override { return read_fields_as_positions(*this, into); }

 private:
    static constexpr std::size_t no_column = static_cast<std::size_t>(-1);
    Value value(const std::vector<std::size_t>& columns, std::size_t entry) const {
        return entry < columns.size() && columns[entry] != no_column ? current_[columns[entry]] : Value();
    }

    const std::vector<Value>& current_;
    std::vector<Field> fields_;
    std::vector<std::vector<std::size_t>> columns_;  ///< by field and entry
};

/// What a name like `board.12.name` says; entry zero for another one.
struct EntryName {
    std::string_view list, field;
    std::size_t entry = 0;

    explicit EntryName(std::string_view name) {
        const std::size_t last = name.rfind('.');
        if (last == std::string_view::npos || last == 0) return;
        const std::size_t before = name.rfind('.', last - 1);
        if (before == std::string_view::npos) return;
        list = name.substr(0, before);
        field = name.substr(last + 1);
        const std::string_view digits = name.substr(before + 1, last - before - 1);
        const auto [end, fault] = std::from_chars(digits.data(), digits.data() + digits.size(), entry);
        if (fault != std::errc() || end != digits.data() + digits.size() || entry > most_columns) entry = 0;
    }
};

}  // namespace

TracePlayer::TracePlayer(const Trace& trace) : trace_(trace), current_(trace.columns().size()) {
    seek(trace.rows().front().time);
}

Sources TracePlayer::sources() const {
    Sources sources;
    for (std::size_t i = 0; i < current_.size(); ++i)
        sources.set(trace_.columns()[i].name, watch(current_[i]).expecting(trace_.columns()[i].type));
    std::map<std::string_view, std::shared_ptr<TraceEntries>> lists;
    for (std::size_t i = 0; i < current_.size(); ++i) {
        const Trace::Column& column = trace_.columns()[i];
        const EntryName name(column.name);
        if (name.entry == 0) continue;
        std::shared_ptr<TraceEntries>& list = lists[name.list];
        if (list == nullptr) list = std::make_shared<TraceEntries>(current_);
        list->add(name.entry, name.field, i, column.type);
    }
    for (const auto& [name, list] : lists)
        if (sources.find(name) == nullptr) sources.set(name, Source(detail::Binding::getter(list, Value::Type::int64)));
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
