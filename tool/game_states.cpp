#include "tool/game_states.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <nlohmann/json.hpp>

#include "base/fields.hpp"
#include "tool/report.hpp"
#include "tool/sample_entries.hpp"

namespace rapido::tool {
namespace {

/// What a column of a trace is: the range of its numbers, or its first texts.
DeclaredSource source_of(const Trace::Column& column) {
    constexpr std::size_t most_texts = 50;
    DeclaredSource source;
    source.name = column.name;
    source.type = column.type == Value::Type::text    ? SourceType::text
                  : column.type == Value::Type::flag  ? SourceType::flag
                  : column.type == Value::Type::int64 ? SourceType::integer
                                                      : SourceType::number;
    bool any = false;
    for (const Trace::Change& change : column.changes) {
        if (!change.value.has_value()) continue;
        if (source.sample.empty()) source.sample.emplace_back(change.value);
        if (source.type == SourceType::text) {
            const KeptValue kept(change.value);
            if (source.sample.size() < most_texts &&
                std::find(source.sample.begin(), source.sample.end(), kept) == source.sample.end())
                source.sample.push_back(kept);
            continue;
        }
        if (source.type == SourceType::flag || !std::isfinite(change.value.number())) continue;
        const double number = change.value.number();
        source.range.low = any ? std::min(source.range.low, number) : number;
        source.range.high = any ? std::max(source.range.high, number) : number;
        any = true;
    }
    return source;
}

/// How many entries a trace has in a row: up to the last of which anything has a value.
std::int64_t entries_at(const Trace& trace, std::size_t row, const DeclaredSource& source) {
    std::int64_t most = 0;
    for (const Trace::Column& column : trace.columns()) {
        if (field_of(column.name, source).empty() || !column.at(row).has_value()) continue;
        const char* const begin = column.name.data() + source.name.size() + 1;
        std::int64_t number = 0;
        std::from_chars(begin, column.name.data() + column.name.size(), number);
        most = std::max(most, number);
    }
    return most;
}

/// Numbers of every length within a range, the longest of them made of eights.
std::vector<double> numbers_within(const DeclaredSource& source) {
    const double low = source.range.low, high = source.range.high;
    const bool is_whole = source.type == SourceType::integer;
    std::vector<double> numbers{low, high};
    const auto offer = [&](double number) {
        if (is_whole) number = std::trunc(number);
        if (number >= low && number <= high) numbers.push_back(number);
    };
    const double largest = std::max(std::abs(low), std::abs(high));
    offer(0);
    offer((low + high) / 2);
    double eights = 8;
    for (double power = 1; power <= largest * 10 && power < 1e16; power *= 10) {
        for (const double sign : {1.0, -1.0}) {
            offer(sign * power);
            offer(sign * (power - 1));
            offer(sign * eights);
            if (!is_whole) offer(sign * (eights + 0.88));
        }
        eights = eights * 10 + 8;
    }
    if (!is_whole) {
        offer(0.88);
        offer(std::floor(high) - 0.12);
        offer(std::ceil(low) + 0.88);
    } else {
        offer(high - 1);
    }
    if (source.type == SourceType::time)
        for (const double seconds : {9.9, 59.0, 59.9, 599.0, 3599.0, 35999.0, 86399.0, 359999.0})
            offer(seconds);
    return numbers;
}

}  // namespace

std::string_view field_of(std::string_view column, const DeclaredSource& source) {
    if (source.type != SourceType::entries || !column.starts_with(source.name + ".")) return {};
    column.remove_prefix(source.name.size() + 1);
    const std::size_t dot = column.find('.');
    return dot != std::string_view::npos ? column.substr(dot + 1) : std::string_view();
}

std::string said(const Value& value) {
    if (!value.has_value()) return "no value";
    if (value.type() == Value::Type::text) return "'" + std::string(value.text()) + "'";
    if (value.type() == Value::Type::flag) return value.flag() ? "true" : "false";
    return plain_number(value.number());
}

GameStates::GameStates(const HudDefinition& definition, const Trace* trace)
    : sources_(sources_with_places(definition)) {
    const std::vector<DeclaredSource> declared = sources_;
    // What an entry has is a source of its own: all entries have the value that is tried.
    for (const DeclaredSource& source : declared)
        for (const DeclaredSource& field : source.fields) {
            DeclaredSource& own = sources_.emplace_back(field);
            own.name = source.name + "." + field.name;
        }
    declared_ = declared.size();
    fields_ = sources_.size() - declared_;
    if (trace != nullptr)
        for (const Trace::Column& column : trace->columns()) {
            const auto is_it = [&](const DeclaredSource& source) {
                return source.name == column.name ||
                       (source.type == SourceType::entries && column.name.starts_with(source.name + "."));
            };
            if (std::none_of(sources_.begin(), sources_.end(), is_it)) sources_.push_back(source_of(column));
        }
    if (trace != nullptr) take_texts(*trace);
    for (const DeclaredSource& source : sources_)
        usual_.values.push_back(usual_value(source));
    usual_.when = "with the samples";
}

/// What a trace says in the fields of entries may be said.
void GameStates::take_texts(const Trace& trace) {
    std::size_t which = declared_;
    for (std::size_t container = 0; container < declared_; ++container)
        for (const DeclaredSource& field : sources_[container].fields) {
            DeclaredSource& own = sources_[which++];
            if (field.type != SourceType::text) continue;
            for (const Trace::Column& column : trace.columns()) {
                if (field_of(column.name, sources_[container]) != field.name) continue;
                for (const KeptValue& text : source_of(column).sample)
                    if (std::find(own.sample.begin(), own.sample.end(), text) == own.sample.end())
                        own.sample.push_back(text);
            }
        }
}

std::vector<GameState> GameStates::moments(const Trace& trace, std::size_t count) const {
    std::vector<GameState> states;
    const std::size_t rows = trace.rows().size();
    for (std::size_t i = 0; i < std::min(count, rows); ++i) {
        const std::size_t row = rows <= count ? i : i * (rows - 1) / (count - 1);
        GameState& state = states.emplace_back(usual_);
        state.when = "at " + seconds_text(trace.rows()[row].time) + " s";
        for (const Trace::Column& column : trace.columns())
            for (std::size_t source = 0; source < sources_.size(); ++source)
                if (sources_[source].name == column.name) state.values[source] = column.at(row);
        for (std::size_t source = 0; source < declared_; ++source)
            if (sources_[source].type == SourceType::entries)
                state.values[source] = Value(entries_at(trace, row, sources_[source]));
    }
    return states;
}

std::vector<KeptValue> GameStates::candidates(std::size_t which) const {
    const DeclaredSource& source = sources_[which];
    std::vector<KeptValue> all = source.sample;
    if (source.type == SourceType::entries) {
        if (source.range.low < source.range.high)
            for (const double count : {source.range.low, source.range.high})
                all.emplace_back(Value(static_cast<std::int64_t>(count)));
    } else if (source.type == SourceType::flag) {
        all.emplace_back(Value(false));
        all.emplace_back(Value(true));
    } else if (source.type != SourceType::text && source.range.low < source.range.high) {
        for (const double number : numbers_within(source))
            all.emplace_back(source.type == SourceType::integer ? Value(static_cast<std::int64_t>(std::llround(number)))
                                                                : Value(number));
    }
    std::vector<KeptValue> distinct;
    for (const KeptValue& value : all)
        if (std::find(distinct.begin(), distinct.end(), value) == distinct.end()) distinct.push_back(value);
    return distinct;
}

Result<Trace> GameStates::trace_of(const std::vector<GameState>& states) const {
    std::string lines;
    for (std::size_t row = 0; row < states.size(); ++row) {
        const std::vector<KeptValue>& values = states[row].values;
        nlohmann::json line{{"time", static_cast<double>(row)}};
        std::size_t next_field = declared_;
        for (std::size_t source = 0; source < sources_.size(); ++source) {
            if (source >= declared_ && source < declared_ + fields_) continue;
            const DeclaredSource& own = sources_[source];
            nlohmann::json& made = line[own.name];
            if (own.type != SourceType::entries) {
                made = json_of(values[source].get());
                continue;
            }
            made = entries_json(own, entry_count(own, values[source].get()), 0);
            for (const DeclaredSource& field : own.fields) {
                const std::size_t which = next_field++;
                if (values[which] == usual_.values[which]) continue;
                for (nlohmann::json& entry : made)
                    entry[field.name] = json_of(values[which].get());
            }
        }
        lines += line.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
    }
    return Trace::read_json_lines(lines, "states");
}

GameState GameStates::with(const GameState& state, std::size_t source, const KeptValue& value) const {
    GameState other = state;
    other.values[source] = value;
    other.when = "with " + sources_[source].name + " = " + said(value.get());
    return other;
}

}  // namespace rapido::tool
