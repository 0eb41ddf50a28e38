// Recordings, read. They come from anyone: every word is checked.
#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "base/problem_log.hpp"
#include "base/utf8.hpp"
#include "file/hud_part.hpp"
#include "file/recording_lines.hpp"

namespace rapido {
namespace {

constexpr std::size_t largest_recording = 256'000'000;
constexpr std::size_t most_entries = 10'000;
constexpr std::size_t most_names = 10'000;
constexpr std::size_t most_lines = 5'000'000;  ///< nine hours at 144 frames a second
constexpr std::size_t most_elements = 50'000;  ///< that all lines together add

/// What is wrong with a line, and where in it.
struct Fault {
    std::string message, hint;
};

class LineReader {
 public:
    explicit LineReader(const std::string& name) : name_(name) {}

    std::optional<Fault> fault;
    Problems of_hud;  ///< faults of a HUD inside the line

    void read_first(const Json& line, HudDefinition& definition, std::vector<RecordedName>& names) {
        const Json* const version = find(line, "recording");
        if (version == nullptr || !version->is_number_integer())
            return fail("this is no recording", "its first line begins with {\"recording\": 1");
        if (version->get<std::int64_t>() != 1)
            return fail("is a recording of version " + version->dump() + "; this reads version 1");
        definition = read_part(line);
        names = read_names(line);
    }

    CallLine read_call(const Json& line) {
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
        if (const Json* const flag = find(line, call.words->flag))
            call.flag = flag_of(*flag, call.words->flag);
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

    FrameLine read_frame(const Json& line) {
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

 private:
    void fail(std::string message, std::string hint = {}) {
        if (!fault) fault = {std::move(message), std::move(hint)};
    }
    void expected(std::string_view name, std::string_view what) {
        fail("'" + utf8::shortened(name) + "' is not " + std::string(what));
    }

    static const Json* find(const Json& object, std::string_view key) {
        const auto found = object.find(key);
        return found != object.end() ? &*found : nullptr;
    }
    const Json* list(const Json& object, std::string_view key) {
        const Json* const found = find(object, key);
        if (found == nullptr || found->is_array()) return found;
        expected(key, "a list");
        return nullptr;
    }
    template <class Read>
    void for_each(const Json& object, std::string_view key, Read read) {
        const Json* const found = find(object, key);
        if (found == nullptr) return;
        if (!found->is_object()) return expected(key, "an object");
        for (auto item = found->begin(); item != found->end() && !fault; ++item)
            read(item.key(), item.value());
    }

    std::string text_of(const Json& json, std::string_view name) {
        if (json.is_string()) return json.get<std::string>();
        expected(name, "a text");
        return {};
    }
    bool flag_of(const Json& json, std::string_view name) {
        if (json.is_boolean()) return json.get<bool>();
        expected(name, "true or false");
        return false;
    }
    double number_of(const Json& json, std::string_view name) {
        if (json.is_number()) return json.get<double>();
        if (json == "nan") return std::numeric_limits<double>::quiet_NaN();
        if (json == "inf") return std::numeric_limits<double>::infinity();
        if (json == "-inf") return -std::numeric_limits<double>::infinity();
        expected(name, "a number");
        return 0;
    }
    std::int64_t integer_of(const Json& json, std::string_view name) {
        if (json.is_number_integer() &&
            !(json.is_number_unsigned() && json.get<std::uint64_t>() > static_cast<std::uint64_t>(INT64_MAX)))
            return json.get<std::int64_t>();
        expected(name, "a whole number");
        return 0;
    }
    std::uint64_t natural_of(const Json& json, std::string_view name) {
        if (json.is_number_unsigned()) return json.get<std::uint64_t>();
        expected(name, "a whole number");
        return 0;
    }
    Nanoseconds time_of(const Json& json, std::string_view name) {
        const std::int64_t count = integer_of(json, name);
        if (count >= 0 && count <= Clock::longest.count()) return Nanoseconds{count};
        expected(name, "a time in nanoseconds");
        return Nanoseconds{0};
    }
    /// As many numbers as wanted.
    std::vector<double> numbers_of(const Json& json, std::size_t count, std::string_view name) {
        std::vector<double> numbers;
        if (json.is_array() && json.size() == count)
            for (const Json& each : json)
                numbers.push_back(number_of(each, name));
        else
            expected(name, std::to_string(count) + " numbers");
        numbers.resize(count);
        return numbers;
    }
    Point point_of(const Json& json, std::string_view name) {
        const std::vector<double> numbers = numbers_of(json, 2, name);
        return {static_cast<float>(numbers[0]), static_cast<float>(numbers[1])};
    }
    WorldPoint place_of(const Json& json, std::string_view name) {
        const std::vector<double> numbers = numbers_of(json, 3, name);
        return {numbers[0], numbers[1], numbers[2]};
    }
    template <std::size_t Count>
    std::size_t word_of(const Json& json, const std::array<std::string_view, Count>& words,
                        std::string_view name) {
        const std::string word = text_of(json, name);
        const auto found = std::find(words.begin(), words.end(), word);
        if (found != words.end()) return static_cast<std::size_t>(found - words.begin());
        if (!fault) fail("'" + utf8::shortened(name) + "' is '" + utf8::shortened(word) + "', no known word");
        return 0;
    }

    KeptValue value_of(const Json& json, std::optional<Value::Type> fixed, std::string_view name) {
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
    KeptValue typed_value(const Json& json, Value::Type type, std::string_view name) {
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

    HudDefinition read_part(const Json& line) {
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

    std::optional<Value::Type> type_of(const Json& json, std::string_view name) {
        const std::size_t word = word_of(json, value_types, name);
        return word == 0 ? std::nullopt : std::optional(static_cast<Value::Type>(word));
    }

    std::vector<RecordedName> read_names(const Json& line) {
        std::vector<RecordedName> names;
        for_each(line, "names", [&](const std::string& name, const Json& json) {
            if (++name_count_ > most_names)
                return fail("has more than " + std::to_string(most_names) + " names");
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
                if (const Json* const places = find(json, "places"))
                    made.has_places = flag_of(*places, "places");
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

    void read_detail(const Json& line, std::string_view word, CallLine& call) {
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
            constexpr std::array<std::string_view, 2> rules{"area", "any_size"};
            FlashSettings settings;
            if (const Json* const rule = find(line, "rule"))
                settings.rule = static_cast<FlashRule>(word_of(*rule, rules, "rule"));
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

    /// A call that lacks what it cannot do without.
    void check_call(std::string_view word, const CallLine& call) {
        const auto need = [&](bool is_there, std::string_view key) {
            if (!is_there) fail("'" + std::string(word) + "' has no '" + std::string(key) + "'");
        };
        const bool is_message = word == "notify" && !call.has_text;
        if (word == "change" || word == "set_place" || is_message)
            need(call.part.elements.size() == 1, "hud");
        if (is_message && !call.part.elements.empty()) {
            const Notice* const notice = std::get_if<Notice>(&call.part.elements.front());
            need(notice != nullptr && notice->messages.size() == 1, "hud");
        }
        if (word == "set_opacity" || word == "set_scale" || word == "set_text_scale" || word == "play" ||
            word == "set_interval")
            need(call.number.has_value(), call.words->number);
        if (word == "set_visible" || word == "set_reduced_motion")
            need(call.flag.has_value(), call.words->flag);
        if (word == "tag") need(call.thing.has_value(), "thing");
    }

    TimerState timer_state_of(const Json& json) {
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

    FrameLine::TimerChange timer_of(const std::string& name, const Json& json) {
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

    FrameLine::Entries entries_of(const std::string& name, const Json& rows) {
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

    FrameLine::Thing thing_of(const std::string& number, const Json& json) {
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

    const std::string& name_;
    std::size_t copied_ = 0, elements_ = 0, name_count_ = 0;  ///< so far
    std::map<std::string, std::optional<Value::Type>, std::less<>> types_;
    std::map<std::string, RecordedName, std::less<>> containers_;
};

/// Of a line. Nothing, with a problem, where it is not JSON.
std::optional<Json> parsed(std::string_view line, const Location& at, Problems& problems) {
    try {
        Json made = Json::parse(line);
        if (made.is_object()) return made;
        problems.push_back({at, "expected an object", "", ProblemCode::syntax});
    } catch (const Json::exception& error) {
        const std::string_view whole = error.what();
        const std::size_t words = whole.rfind(": ");
        problems.push_back({at,
                            std::string(words == std::string_view::npos ? whole : whole.substr(words + 2)),
                            "", ProblemCode::syntax});
    }
    return std::nullopt;
}

/// How deep a line of JSON is nested, without parsing it: the parser recurses.
struct Nesting {
    static constexpr int most = 8;  ///< nothing in a recording is nested deeper
    int open = 0, deepest = 0;
    bool in_text = false;
    explicit Nesting(std::string_view line) {
        for (std::size_t i = 0; i < line.size(); ++i) {
            if (in_text) {
                if (line[i] == '\\') ++i;
                in_text = i >= line.size() || line[i] != '"';
                continue;
            }
            if (line[i] == '"') in_text = true;
            if (line[i] == '{' || line[i] == '[') deepest = std::max(deepest, ++open);
            if (line[i] == '}' || line[i] == ']') --open;
        }
    }
    /// Whether the line is the beginning of an object, and not one that is damaged in another way.
    bool is_cut_off() const { return in_text || open > 0; }
};

/// Without the first bytes of a last character whose others were never written.
std::string_view without_half_character(std::string_view text) {
    for (std::size_t back = 1; back <= std::min<std::size_t>(text.size(), 3); ++back) {
        const auto byte = static_cast<unsigned char>(text[text.size() - back]);
        if ((byte & 0xC0U) == 0x80U) continue;
        const std::size_t length = byte >= 0xF0U ? 4 : byte >= 0xE0U ? 3 : byte >= 0xC0U ? 2 : 1;
        return length > back ? text.substr(0, text.size() - back) : text;
    }
    return text;
}

}  // namespace

Result<Recording> Recording::read(std::string_view text, const std::string& name) {
    if (text.size() > largest_recording)
        return Problem{{name}, "is larger than 256 MB", "", ProblemCode::too_large};
    text = without_half_character(text);
    if (const int line = utf8::line_of_fault(text); line > 0)
        return Problem{
            {name, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
    auto state = std::make_shared<State>();
    Problems problems;
    LineReader reader(name);
    bool is_first = true;
    for (int number = 1; !text.empty() && problems.size() < ProblemLog::most; ++number) {
        const std::string_view line = text.substr(0, text.find('\n'));
        const bool ends_here = line.size() == text.size();  // without an end of line
        text.remove_prefix(std::min(line.size() + 1, text.size()));
        if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
        const Location at{name, number, 1};
        const Nesting nesting(line);
        if (nesting.deepest > Nesting::most) {
            problems.push_back({at, "is nested too deep", "", ProblemCode::too_large});
            continue;
        }
        const std::size_t told = problems.size();
        const std::optional<Json> json = parsed(line, at, problems);
        if (!json) {
            // A game that ended in the middle of a line leaves such a file: it is worth what is before it.
            if (ends_here && !is_first && nesting.is_cut_off()) {
                problems.resize(told);
                state->warnings.push_back({at, "is cut off; the recording is played up to there", "",
                                           ProblemCode::syntax, Severity::warning});
            }
            continue;
        }
        if (state->lines.size() >= most_lines) {
            problems.push_back({at, "is more than " + std::to_string(most_lines) + " lines long", "",
                                ProblemCode::too_large});
            break;
        }
        reader.fault.reset();
        reader.of_hud.clear();
        const auto tell_faults = [&] {
            if (reader.fault && !reader.fault->message.empty())
                problems.push_back({at, reader.fault->message, reader.fault->hint, ProblemCode::syntax});
            for (Problem problem : reader.of_hud) {
                problem.message =
                    "line " + std::to_string(problem.location.line) + " of the HUD: " + problem.message;
                problem.location = at;
                problems.push_back(std::move(problem));
            }
        };
        if (std::exchange(is_first, false)) {
            reader.read_first(*json, state->definition, state->names);
            tell_faults();
            if (reader.fault) break;
            continue;
        }
        if (json->contains("call")) {
            state->lines.push_back({.call = std::make_unique<CallLine>(reader.read_call(*json))});
        } else if (json->contains("time")) {
            FrameLine frame = reader.read_frame(*json);
            if (!state->frames.empty()) {
                const Recording::State::Line& before = state->lines[state->frames.back()];
                if (frame.time < before.time || frame.game_time < before.game_time)
                    problems.push_back(
                        {at, "goes back in time from the frame before", "", ProblemCode::out_of_range});
            }
            state->frames.push_back(state->lines.size());
            Recording::State::Line& kept = state->lines.emplace_back(
                Recording::State::Line{.time = frame.time, .game_time = frame.game_time});
            // Most frames of a still game have read nothing new.
            if (!frame.is_bare()) kept.frame = std::make_unique<FrameLine>(std::move(frame));
        } else {
            problems.push_back({at, "has neither a 'call' nor a 'time'", "", ProblemCode::missing_key});
        }
        tell_faults();
    }
    if (is_first && problems.empty()) problems.push_back({{name}, "is empty", "", ProblemCode::syntax});
    if (!problems.empty()) return problems;
    Recording made;
    made.state_ = std::move(state);
    return made;
}

Result<Recording> Recording::read_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_recording);
    if (!text) return text.problems();
    return read(*text, path);
}

bool Recording::is_recording(std::string_view text) {
    std::string begin(text.substr(0, 64));
    std::erase_if(begin, [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; });
    return begin.starts_with("{\"recording\":");
}

const Problems& Recording::warnings() const {
    return state_->warnings;
}

const HudDefinition& Recording::definition() const {
    return state_->definition;
}

std::size_t Recording::frame_count() const {
    return state_->frames.size();
}

Nanoseconds Recording::time(std::size_t frame) const {
    return state_->lines[state_->frames[frame]].time;
}

}  // namespace rapido
