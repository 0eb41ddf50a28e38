#include "file/recording_line_reader.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "base/nearest.hpp"
#include "file/hud_part.hpp"
#include "file/hud_upgrade.hpp"
#include "file/json_value.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

constexpr std::size_t most_entries = 10'000;
constexpr std::size_t most_recorded_names = 10'000;
constexpr std::size_t most_elements = 50'000;  ///< that all lines together add

}  // namespace

void RecordingLineReader::read_first(const Json& line, HudDefinition& definition, std::vector<RecordedName>& names) {
    const Json* const version = find(line, "recording");
    if (version == nullptr || !version->is_number_integer())
        return fail("this is no recording", "its first line begins with {\"recording\": 2");
    const std::int64_t number = version->get<std::int64_t>();
    if (number != 1 && number != 2)
        return fail("is a recording of version " + version->dump() + "; this reads versions 1 and 2");
    has_old_names_ = number == 1;
    if (const Json* const hud = find(line, "hud"))
        definition = read_part(*hud);
    else
        fail("has no 'hud'");
    names = read_names(line);
}

CallLine RecordingLineReader::read_call(const Json& line) {
    CallLine call;
    std::string word = text_of(line.at("call"), "call");
    if (const std::string_view now = has_old_names_ ? renamed_call(word) : std::string_view(); !now.empty()) word = now;
    const auto known =
        std::find_if(calls_.begin(), calls_.end(), [&](const CallKind* kind) { return kind->name() == word; });
    if (known == calls_.end()) {
        std::vector<std::string_view> names;
        for (const CallKind* const kind : calls_)
            names.push_back(kind->name());
        fail("no call is named '" + utf8::shortened(word) + "'", did_you_mean(word, names));
        return call;
    }
    call.kind = *known;
    call.given = call.kind->make();
    read_fields(line, call.kind->table, call.given.get(), word);
    call.names = read_names(line);
    if (fault) return call;
    if (const std::string_view lacking = call.kind->lacks(call.given.get()); !lacking.empty())
        fail("'" + word + "' has no '" + std::string(lacking) + "'");
    return call;
}

void RecordingLineReader::read_fields(const Json& object, const Table& table, void* aggregate, std::string_view owner) {
    for (const Field& field : table.fields) {
        if (const Json* const given = find(object, field.name))
            read_field(*given, field, field.in(aggregate));
        else if (field.required)
            fail("'" + std::string(owner) + "' has no '" + std::string(field.name) + "'");
    }
}

void RecordingLineReader::read_field(const Json& json, const Field& field, void* into) {
    const std::string_view name = field.name;
    const auto put = [into]<class T>(T value) { *static_cast<T*>(into) = std::move(value); };
    const auto lengths = [&](std::size_t count) {
        const std::vector<double> all = numbers_of(json, count, name);
        return std::vector<float>(all.begin(), all.end());
    };
    switch (field.type) {
        case FieldType::flag:
            return put(flag_of(json, name));
        case FieldType::number:
            return put(static_cast<float>(number_of(json, name)));
        case FieldType::real:
            return put(number_of(json, name));
        case FieldType::seconds:
            return put(Seconds{number_of(json, name)});
        case FieldType::nanoseconds:
            return put(Nanoseconds{integer_of(json, name)});
        case FieldType::natural:
            return put(natural_of(json, name));
        case FieldType::text:
            return put(has_old_names_ ? upgraded_pattern(text_of(json, name)) : text_of(json, name));
        case FieldType::color: {
            const std::string text = text_of(json, name);
            const std::optional<Color> parsed = Color::parse(text);
            return put(parsed ? Themed<Color>(*parsed) : Themed<Color>(theme(text)));
        }
        case FieldType::point:
            return put(point_of(json, name));
        case FieldType::size: {
            const std::vector<float> all = lengths(2);
            return put(Size{all[0], all[1]});
        }
        case FieldType::insets: {
            const std::vector<float> all = lengths(4);
            return put(Insets{all[0], all[1], all[2], all[3]});
        }
        case FieldType::numbers: {
            const std::vector<double> all = numbers_of(json, field.most, name);
            std::copy(all.begin(), all.end(), static_cast<double*>(into));
            return;
        }
        case FieldType::choice:
            return put(static_cast<std::uint8_t>(word_of(json, field.choices, name)));
        case FieldType::value:
            return put(value_of(json, {}, name));
        case FieldType::table:
            if (json.is_object()) return read_fields(json, *field.table, into, name);
            return expected(name, "an object");
        case FieldType::part:
            return put(read_part(json));
        default:
            return;  // no call has such a field
    }
}

FrameLine RecordingLineReader::read_frame(const Json& line) {
    FrameLine frame;
    frame.time = time_of(line.at("time"), "time");
    const Json* const game_time = find(line, "game_time");
    frame.game_time = game_time != nullptr ? time_of(*game_time, "game_time") : frame.time;
    frame.names = read_names(line);
    for_each(line, "timers",
             [&](const std::string& name, const Json& timer) { frame.timers.push_back(timer_of(name, timer)); });
    for_each(line, "values", [&](const std::string& name, const Json& value) {
        const auto type = types_.find(name);
        if (type == types_.end()) return fail("'" + utf8::shortened(name) + "' is no known name");
        frame.values.push_back({name, value_of(value, type->second, name)});
    });
    if (const Json* const snaps = list(line, "snap"))
        for (const Json& name : *snaps)
            frame.snap.push_back(text_of(name, "snap"));
    for_each(line, "entries",
             [&](const std::string& name, const Json& rows) { frame.entries.push_back(entries_of(name, rows)); });
    for_each(line, "things",
             [&](const std::string& number, const Json& thing) { frame.things.push_back(thing_of(number, thing)); });
    return frame;
}

const Json* RecordingLineReader::list(const Json& object, std::string_view key) {
    const Json* const found = find(object, key);
    if (found == nullptr || found->is_array()) return found;
    expected(key, "a list");
    return nullptr;
}

std::string RecordingLineReader::text_of(const Json& json, std::string_view name) {
    if (json.is_string()) return json.get<std::string>();
    expected(name, "a text");
    return {};
}

bool RecordingLineReader::flag_of(const Json& json, std::string_view name) {
    if (json.is_boolean()) return json.get<bool>();
    expected(name, "true or false");
    return false;
}

double RecordingLineReader::number_of(const Json& json, std::string_view name) {
    if (json.is_number()) return json.get<double>();
    if (json == "nan") return std::numeric_limits<double>::quiet_NaN();
    if (json == "inf") return std::numeric_limits<double>::infinity();
    if (json == "-inf") return -std::numeric_limits<double>::infinity();
    expected(name, "a number");
    return 0;
}

std::int64_t RecordingLineReader::integer_of(const Json& json, std::string_view name) {
    if (json.is_number_integer() &&
        !(json.is_number_unsigned() && json.get<std::uint64_t>() > static_cast<std::uint64_t>(INT64_MAX)))
        return json.get<std::int64_t>();
    expected(name, "a whole number");
    return 0;
}

std::uint64_t RecordingLineReader::natural_of(const Json& json, std::string_view name) {
    if (json.is_number_unsigned()) return json.get<std::uint64_t>();
    expected(name, "a whole number");
    return 0;
}

Nanoseconds RecordingLineReader::time_of(const Json& json, std::string_view name) {
    const std::int64_t count = integer_of(json, name);
    if (count >= 0 && count <= Clock::longest.count()) return Nanoseconds{count};
    expected(name, "a time in nanoseconds");
    return Nanoseconds{0};
}

std::vector<double> RecordingLineReader::numbers_of(const Json& json, std::size_t count, std::string_view name) {
    std::vector<double> numbers;
    if (json.is_array() && json.size() == count)
        for (const Json& each : json)
            numbers.push_back(number_of(each, name));
    else
        expected(name, std::to_string(count) + " numbers");
    numbers.resize(count);
    return numbers;
}

Point RecordingLineReader::point_of(const Json& json, std::string_view name) {
    const std::vector<double> numbers = numbers_of(json, 2, name);
    return {static_cast<float>(numbers[0]), static_cast<float>(numbers[1])};
}

WorldPoint RecordingLineReader::place_of(const Json& json, std::string_view name) {
    const std::vector<double> numbers = numbers_of(json, 3, name);
    return {numbers[0], numbers[1], numbers[2]};
}

KeptValue RecordingLineReader::value_of(const Json& json, std::optional<Value::Type> fixed, std::string_view name) {
    if (json.is_object() && json.size() == 1)
        return typed_value(json.begin().value(),
                           static_cast<Value::Type>(word_of(Json(json.begin().key()), value_types, name)), name);
    const bool is_real = fixed == Value::Type::float32 || fixed == Value::Type::float64;
    const bool is_typed = fixed.value_or(Value::Type::none) != Value::Type::none;
    if ((json.is_number() && is_typed) || (json.is_string() && is_real)) return typed_value(json, *fixed, name);
    if (const std::optional<Value> plain = plain_value(json)) return *plain;
    expected(name, "a value");
    return {};
}

KeptValue RecordingLineReader::typed_value(const Json& json, Value::Type type, std::string_view name) {
    switch (type) {
        case Value::Type::uint64:
            return Value(natural_of(json, name));
        case Value::Type::float32:
            return Value(static_cast<float>(number_of(json, name)));
        case Value::Type::float64:
            return Value(number_of(json, name));
        case Value::Type::duration:
            return Value(Nanoseconds{integer_of(json, name)});
        default:
            return Value(integer_of(json, name));
    }
}

HudDefinition RecordingLineReader::read_part(const Json& hud) {
    std::string text = text_of(hud, "hud");
    if (has_old_names_)
        if (Result<std::string> upgraded = upgrade_hud(text, name_)) text = *std::move(upgraded);
    Result<HudDefinition> read = read_hud_part(text, name_, copied_);
    // One that was made before its version was released may still scale a source.
    if (!read && text.find("scale = ") != std::string::npos)
        if (const Result<std::string> upgraded = upgrade_hud(text, name_))
            if (Result<HudDefinition> again = read_hud_part(*upgraded, name_, copied_)) read = std::move(again);
    if (read) {
        elements_ += read->elements.size();
        if (elements_ > most_elements)
            fail("adds more than " + std::to_string(most_elements) + " elements in all",
                 "cut the moment out that matters: play --record, with --from and --to");
        return *std::move(read);
    }
    for (const Problem& problem : read.problems())
        of_hud.push_back(problem);
    if (!fault) fault.emplace();  // which are told in its place
    return {};
}

std::optional<Value::Type> RecordingLineReader::type_of(const Json& json, std::string_view name) {
    // What is a flag today was a boolean.
    const bool is_flag = has_old_names_ && json.is_string() && json == "boolean";
    const std::size_t word = is_flag ? static_cast<std::size_t>(Value::Type::flag) : word_of(json, value_types, name);
    return word == 0 ? std::nullopt : std::optional(static_cast<Value::Type>(word));
}

std::vector<RecordedName> RecordingLineReader::read_names(const Json& line) {
    std::vector<RecordedName> names;
    for_each(line, "names", [&](const std::string& name, const Json& json) {
        if (++name_count_ > most_recorded_names)
            return fail("has more than " + std::to_string(most_recorded_names) + " names");
        RecordedName& made = names.emplace_back(RecordedName{.name = name});
        if (!json.is_object()) {
            made.type = type_of(json, name);
        } else if (const Json* const fields = list(json, "fields")) {
            made.type = Value::Type::int64;
            made.fields.emplace();
            for (const Json& field : *fields) {
                if (!field.is_array() || field.size() != 2) return expected(name, "a name with fields");
                made.fields->push_back({text_of(field[0], name), type_of(field[1], name)});
            }
            if (const Json* const places = find(json, "places")) made.has_places = flag_of(*places, "places");
            containers_[name] = made;
        } else {
            const Json *const type = find(json, "type"), *const use = find(json, "use");
            if (type != nullptr) made.type = type_of(*type, name);
            if (use != nullptr) made.use = static_cast<detail::ValueUse>(word_of(*use, value_uses, name));
        }
        types_[name] = made.type;
    });
    for_each(line, "new_timers", [&](const std::string& name, const Json& json) {
        if (!json.is_object()) return expected(name, "an object");
        RecordedName& made = names.emplace_back(RecordedName{.name = name});
        const Json *const kind = find(json, "kind"), *const clock = find(json, "clock");
        made.timer = TimerKind::countdown;
        if (const Json* const starts = find(json, "starts")) made.starts = natural_of(*starts, name);
        if (kind != nullptr) made.timer = static_cast<TimerKind>(word_of(*kind, timer_kinds, name));
        if (clock != nullptr) made.clock = static_cast<ClockKind>(word_of(*clock, clock_kinds, name));
    });
    return names;
}

FrameLine::TimerChange RecordingLineReader::timer_of(const std::string& name, const Json& json) {
    FrameLine::TimerChange made;
    made.name = name;
    if (!json.is_object()) {
        expected(name, "an object");
        return made;
    }
    const auto integer = [&](std::string_view key) {
        const Json* const found = find(json, key);
        return found != nullptr ? integer_of(*found, key) : 0;
    };
    const auto real = [&](std::string_view key, double usual) {
        const Json* const found = find(json, key);
        return found != nullptr ? number_of(*found, key) : usual;
    };
    detail::TimerNumbers& now = made.numbers;
    now.age = Nanoseconds{integer("age")};
    now.duration = Nanoseconds{integer("duration")};
    now.run = integer("run");
    now.anchor = integer("anchor");
    now.passed = integer("passed");
    now.speed = real("speed", 1);
    now.carry = real("carry", 0);
    now.events = static_cast<std::uint64_t>(integer("events"));
    now.starts = static_cast<std::uint64_t>(integer("starts"));
    if (const Json* const state = find(json, "state"))
        now.state = static_cast<TimerState::Run>(word_of(*state, timer_runs, "state"));
    if (const Json* const loop = find(json, "loop")) now.loop = flag_of(*loop, "loop");
    const Json* const told = list(json, "told");
    for (const Json& event : told != nullptr ? *told : Json::array()) {
        if (!event.is_array() || event.size() != 5) {
            expected("told", "a list of events");
            break;
        }
        made.events.push_back({.number = natural_of(event[0], "told"),
                               .kind = static_cast<TimerEvent::Kind>(word_of(event[1], timer_event_kinds, "told")),
                               .time = Nanoseconds{integer_of(event[2], "told")},
                               .at = Nanoseconds{integer_of(event[3], "told")},
                               .count = natural_of(event[4], "told")});
    }
    return made;
}

FrameLine::Entries RecordingLineReader::entries_of(const std::string& name, const Json& rows) {
    FrameLine::Entries made;
    made.name = name;
    const auto known = containers_.find(name);
    if (known == containers_.end() || !rows.is_array() || rows.size() > most_entries) {
        expected(name, "a list of the entries of a known name");
        return made;
    }
    const auto& fields = *known->second.fields;
    const std::size_t width = fields.size() + (known->second.has_places ? 1 : 0);
    for (const Json& row : rows) {
        if (!row.is_array() || row.size() != width) {
            expected(name, "a list of entries with " + std::to_string(width) + " values");
            return made;
        }
        for (std::size_t field = 0; field < fields.size(); ++field)
            made.values.push_back(value_of(row[field], fields[field].type, name));
        if (known->second.has_places) made.places.push_back(place_of(row.back(), name));
        ++made.count;
    }
    return made;
}

FrameLine::Thing RecordingLineReader::thing_of(const std::string& number, const Json& json) {
    FrameLine::Thing made;
    const Json parsed = Json::parse(number, nullptr, false);
    made.number = natural_of(parsed, "things");
    const Json* const at = json.is_object() ? find(json, "at") : nullptr;
    if (at == nullptr) {
        expected("things", "an object with 'at'");
        return made;
    }
    made.place = place_of(*at, "at");
    if (const Json* const values = list(json, "values"))
        for (const Json& value : *values)
            made.values.push_back(value_of(value, {}, "values"));
    return made;
}

}  // namespace rapido
