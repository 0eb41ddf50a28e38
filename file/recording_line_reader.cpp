#include "file/recording_line_reader.hpp"

#include <cmath>
#include <limits>

#include "file/hud_part.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

constexpr std::size_t most_entries = 10'000;
constexpr std::size_t most_recorded_names = 10'000;
constexpr std::size_t most_elements = 50'000;  ///< that all lines together add

}  // namespace

void RecordingLineReader::read_first(const Json& line, HudDefinition& definition,
                                     std::vector<RecordedName>& names) {
    const Json* const version = find(line, "recording");
    if (version == nullptr || !version->is_number_integer())
        return fail("this is no recording", "its first line begins with {\"recording\": 1");
    if (version->get<std::int64_t>() != 1)
        return fail("is a recording of version " + version->dump() + "; this reads version 1");
    definition = read_part(line);
    names = read_names(line);
}

CallLine RecordingLineReader::read_call(const Json& line) {
    CallLine call;
    const std::string word = text_of(line.at("call"), "call");
    call.words = words_of(word);
    if (call.words == nullptr) {
        fail("no call is named '" + utf8::shortened(word) + "'");
        return call;
    }
    if (const Json* const element = find(line, "element")) call.element = text_of(*element, "element");
    if (const Json* const text = find(line, call.words->text)) {
        call.text = text_of(*text, call.words->text);
        call.has_text = true;
    }
    if (const Json* const number = find(line, call.words->number))
        call.number = number_of(*number, call.words->number);
    if (const Json* const flag = find(line, call.words->flag)) call.flag = flag_of(*flag, call.words->flag);
    if (const Json* const thing = find(line, "thing")) call.thing = natural_of(*thing, "thing");
    if (const Json* const value = find(line, "value")) call.value = value_of(*value, {}, "value").get();
    if (const Json* const type = find(line, "type")) call.type = type_of(*type, "type");
    if (const Json* const use = find(line, "use"))
        call.use = static_cast<detail::ValueUse>(word_of(*use, value_uses, "use"));
    if (find(line, "hud") != nullptr) call.part = read_part(line);
    call.names = read_names(line);
    read_detail(line, word, call);
    check_call(word, call);
    return call;
}

FrameLine RecordingLineReader::read_frame(const Json& line) {
    FrameLine frame;
    frame.time = time_of(line.at("time"), "time");
    const Json* const game_time = find(line, "game_time");
    frame.game_time = game_time != nullptr ? time_of(*game_time, "game_time") : frame.time;
    frame.names = read_names(line);
    for_each(line, "timers", [&](const std::string& name, const Json& timer) {
        frame.timers.push_back(timer_of(name, timer));
    });
    for_each(line, "values", [&](const std::string& name, const Json& value) {
        const auto type = types_.find(name);
        if (type == types_.end()) return fail("'" + utf8::shortened(name) + "' is no known name");
        frame.values.push_back({name, value_of(value, type->second, name)});
    });
    if (const Json* const snaps = list(line, "snap"))
        for (const Json& name : *snaps)
            frame.snap.push_back(text_of(name, "snap"));
    for_each(line, "entries", [&](const std::string& name, const Json& rows) {
        frame.entries.push_back(entries_of(name, rows));
    });
    for_each(line, "things", [&](const std::string& number, const Json& thing) {
        frame.things.push_back(thing_of(number, thing));
    });
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

std::vector<double> RecordingLineReader::numbers_of(const Json& json, std::size_t count,
                                                    std::string_view name) {
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

KeptValue RecordingLineReader::value_of(const Json& json, std::optional<Value::Type> fixed,
                                        std::string_view name) {
    switch (json.type()) {
        case Json::value_t::null:
            return {};
        case Json::value_t::boolean:
            return Value(json.get<bool>());
        case Json::value_t::string:
            if (fixed == Value::Type::float32 || fixed == Value::Type::float64)
                return typed_value(json, *fixed, name);
            return Value(json.get_ref<const std::string&>());
        case Json::value_t::object:
            if (json.size() == 1)
                return typed_value(
                    json.begin().value(),
                    static_cast<Value::Type>(word_of(Json(json.begin().key()), value_types, name)), name);
            break;
        case Json::value_t::number_integer:
        case Json::value_t::number_unsigned:
        case Json::value_t::number_float:
            if (fixed && *fixed != Value::Type::none) return typed_value(json, *fixed, name);
            if (json.is_number_float()) return Value(json.get<double>());
            return Value(integer_of(json, name));
        default:
            break;
    }
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

HudDefinition RecordingLineReader::read_part(const Json& line) {
    const Json* const hud = find(line, "hud");
    if (hud == nullptr) {
        fail("has no 'hud'");
        return {};
    }
    Result<HudDefinition> read = read_hud_part(text_of(*hud, "hud"), name_, copied_);
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
    const std::size_t word = word_of(json, value_types, name);
    return word == 0 ? std::nullopt : std::optional(static_cast<Value::Type>(word));
}

std::vector<RecordedName> RecordingLineReader::read_names(const Json& line) {
    std::vector<RecordedName> names;
    for_each(line, "names", [&](const std::string& name, const Json& json) {
        if (++name_count_ > most_recorded_names) return fail("has more than " + std::to_string(most_recorded_names) + " names");
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
        if (kind != nullptr) made.timer = static_cast<TimerKind>(word_of(*kind, timer_kinds, name));
        if (clock != nullptr) made.clock = static_cast<ClockKind>(word_of(*clock, clock_kinds, name));
    });
    return names;
}

void RecordingLineReader::read_detail(const Json& line, std::string_view word, CallLine& call) {
    const auto take = [&](std::string_view key) {
        const Json* const found = find(line, key);
        if (found == nullptr) fail("has no '" + std::string(key) + "'");
        return found;
    };
    if (word == "resize") {
        const Json *const origin = take("origin"), *const size = take("size"),
                          *const safe_area = take("safe_area");
        if (fault) return;
        const Point at = point_of(*origin, "origin"), length = point_of(*size, "size");
        const std::vector<double> safe = numbers_of(*safe_area, 4, "safe_area");
        call.detail = Viewport{at,
                               {length.x, length.y},
                               {static_cast<float>(safe[0]), static_cast<float>(safe[1]),
                                static_cast<float>(safe[2]), static_cast<float>(safe[3])}};
    } else if (word == "set_camera") {
        const Json *const matrix = take("matrix"), *const flat = take("flat");
        if (fault) return;
        std::array<double, 16> all{};
        const std::vector<double> numbers = numbers_of(*matrix, all.size(), "matrix");
        std::copy(numbers.begin(), numbers.end(), all.begin());
        call.detail = Camera::from_matrix(all, flag_of(*flat, "flat"));
    } else if (word == "set_color") {
        if (const Json* const color = take("color")) {
            const std::string text = text_of(*color, "color");
            const std::optional<Color> parsed = Color::parse(text);
            call.detail = parsed ? Themed<Color>(*parsed) : Themed<Color>(theme(text));
        }
    } else if (word == "pop") {
        const Json *const at = take("at"), *const on_screen = find(line, "on_screen");
        if (fault) return;
        Pop pop{.at = place_of(*at, "at")};
        if (on_screen != nullptr) pop.on_screen = point_of(*on_screen, "on_screen");
        call.detail = pop;
    } else if (word == "set_cost") {
        if (const Json* const cost = take("cost")) {
            const std::vector<double> numbers = numbers_of(*cost, 3, "cost");
            call.detail = FrameCost{Seconds{numbers[0]}, Seconds{numbers[1]}, Seconds{numbers[2]}};
        }
    } else if (word == "set_flash_settings") {
        FlashSettings settings;
        if (const Json* const rule = find(line, "rule"))
            settings.rule = static_cast<FlashRule>(word_of(*rule, Choices<FlashRule>::names, "rule"));
        if (const Json* const on = find(line, "on")) settings.on = flag_of(*on, "on");
        if (const Json* const ground = find(line, "ground"))
            settings.ground = Color::parse(text_of(*ground, "ground"));
        if (const Json* const angle = find(line, "field_of_view"))
            settings.field_of_view = static_cast<float>(number_of(*angle, "field_of_view"));
        call.detail = settings;
    } else if (word == "restore_timers") {
        if (const Json* const timer = take("timer")) call.detail = timer_state_of(*timer);
    }
}

void RecordingLineReader::check_call(std::string_view word, const CallLine& call) {
    const auto need = [&](bool is_there, std::string_view key) {
        if (!is_there) fail("'" + std::string(word) + "' has no '" + std::string(key) + "'");
    };
    const bool is_message = word == "notify" && !call.has_text;
    if (word == "change" || word == "set_place" || is_message) need(call.part.elements.size() == 1, "hud");
    if (is_message && !call.part.elements.empty()) {
        const Notice* const notice = std::get_if<Notice>(&call.part.elements.front());
        need(notice != nullptr && notice->messages.size() == 1, "hud");
    }
    if (word == "set_opacity" || word == "set_scale" || word == "set_text_scale" || word == "play" ||
        word == "set_interval")
        need(call.number.has_value(), call.words->number);
    if (word == "set_visible" || word == "set_reduced_motion") need(call.flag.has_value(), call.words->flag);
    if (word == "tag") need(call.thing.has_value(), "thing");
}

TimerState RecordingLineReader::timer_state_of(const Json& json) {
    TimerState state;
    if (!json.is_object()) {
        expected("timer", "an object");
        return state;
    }
    if (const Json* const id = find(json, "id")) state.id = text_of(*id, "id");
    if (const Json* const at = find(json, "position"))
        state.position = Nanoseconds{integer_of(*at, "position")};
    if (const Json* const time = find(json, "duration"))
        state.duration = Nanoseconds{integer_of(*time, "duration")};
    if (const Json* const speed = find(json, "speed")) state.speed = number_of(*speed, "speed");
    if (const Json* const run = find(json, "run"))
        state.run = static_cast<TimerState::Run>(word_of(*run, timer_runs, "run"));
    if (const Json* const loop = find(json, "loop")) state.loop = flag_of(*loop, "loop");
    if (const Json* const held = find(json, "held")) state.held = flag_of(*held, "held");
    return state;
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
    if (const Json* const state = find(json, "state"))
        now.state = static_cast<TimerState::Run>(word_of(*state, timer_runs, "state"));
    if (const Json* const loop = find(json, "loop")) now.loop = flag_of(*loop, "loop");
    const Json* const told = list(json, "told");
    for (const Json& event : told != nullptr ? *told : Json::array()) {
        if (!event.is_array() || event.size() != 5) {
            expected("told", "a list of events");
            break;
        }
        made.events.push_back(
            {.number = natural_of(event[0], "told"),
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
