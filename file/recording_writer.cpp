// Recordings, written.
#include <cmath>
#include <map>
#include <ostream>

#include "file/hud_part.hpp"
#include "file/recording_json.hpp"
#include "hud/call.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/recording.hpp"

namespace rapido {
namespace {

/// JSON has no infinities, and no NaN.
Json number(double number) {
    if (std::isnan(number)) return "nan";
    if (std::isinf(number)) return number > 0 ? "inf" : "-inf";
    return number;
}
Json numbers(std::initializer_list<double> all) {
    Json list = Json::array();
    for (const double each : all)
        list.push_back(number(each));
    return list;
}
Json place(const WorldPoint& place) {
    return numbers({place.x, place.y, place.z});
}
Json point(const Point& point) {
    return numbers({static_cast<double>(point.x), static_cast<double>(point.y)});
}

/// A value of another type than its JSON says is an object with the type, unless that is fixed.
Json value(const Value& value, std::optional<Value::Type> fixed = {}) {
    const auto typed = [&](Json plain) {
        if (fixed == value.type()) return plain;
        return Json{{value_types[static_cast<std::size_t>(value.type())], std::move(plain)}};
    };
    switch (value.type()) {
        case Value::Type::none:
            return nullptr;
        case Value::Type::flag:
            return value.flag();
        case Value::Type::int64:
            return value.int64();
        case Value::Type::uint64:
            return typed(value.uint64());
        case Value::Type::float32:
            return typed(number(value.real()));
        case Value::Type::float64:
            return std::isfinite(value.real()) ? Json(value.real()) : typed(number(value.real()));
        case Value::Type::text:
            return value.text();
        case Value::Type::duration:
            return typed(value.duration().count());
    }
    return nullptr;
}

bool is_empty(const HudDefinition& hud) {
    return hud.elements.empty() && hud.themes.empty() && hud.styles.empty() && hud.timers.empty() &&
           hud.frame_meters.empty() && hud.effects.empty() && hud.groups.empty();
}

Json type_word(std::optional<Value::Type> type) {
    return value_types[static_cast<std::size_t>(type.value_or(Value::Type::none))];
}

}  // namespace

struct RecordingWriter::State {
    std::ostream& into;
    std::map<std::string, std::optional<Value::Type>, std::less<>> types;
    std::map<std::string, std::vector<std::optional<Value::Type>>, std::less<>> field_types;
    Problems problems;

    void write(const Json& line) { into << line.dump(-1, ' ', false, Json::error_handler_t::replace) << '\n'; }

    void add_names(Json& line, std::span<const RecordedName> names) {
        for (const RecordedName& name : names) {
            if (name.timer) {
                line["new_timers"][name.name] = {{"kind", timer_kinds[static_cast<std::size_t>(*name.timer)]},
                                                 {"clock", clock_kinds[static_cast<std::size_t>(name.clock)]}};
                if (name.starts > 0) line["new_timers"][name.name]["starts"] = name.starts;
                continue;
            }
            types[name.name] = name.type;
            Json& made = line["names"][name.name];
            if (name.fields) {
                std::vector<std::optional<Value::Type>>& of_fields = field_types[name.name];
                of_fields.clear();
                made["fields"] = Json::array();
                for (const detail::EntryReader::Field& field : *name.fields) {
                    made["fields"].push_back({field.name, type_word(field.type)});
                    of_fields.push_back(field.type);
                }
                if (name.has_places) made["places"] = true;
            } else if (name.use != detail::ValueUse::amount) {
                made = {{"type", type_word(name.type)}, {"use", value_uses[static_cast<std::size_t>(name.use)]}};
            } else {
                made = type_word(name.type);
            }
        }
    }

    std::optional<Value::Type> type_of(std::string_view name) const {
        const auto known = types.find(name);
        return known != types.end() ? known->second : std::nullopt;
    }

    /// A part of a HUD as text, which is read again at once: what cannot be read would be lost without a word.
    std::string part(const HudDefinition& definition) {
        std::string text = write_hud_part(definition, problems);
        std::size_t copied = 0;
        if (const Result<HudDefinition> read = read_hud_part(text, "recording", copied); !read)
            for (const Problem& problem : read.problems())
                problems.push_back(
                    {{}, "this recording cannot be read again: " + problem.message, problem.hint, problem.code});
        return text;
    }

    /// What a call or a part of it was given, as its description says; what is as it is by itself, and empty, is left out.
    void add_fields(Json& line, const Table& table, const void* aggregate) {
        for (const Field& field : table.fields) {
            const void* const at = field.at(aggregate);
            if (at == nullptr) continue;
            if (Json made = field_json(field, at); !made.is_null()) line[std::string(field.name)] = std::move(made);
        }
    }

    Json field_json(const Field& field, const void* at) {
        switch (field.type) {
            case FieldType::flag:
                return *static_cast<const bool*>(at);
            case FieldType::number:
                return number(static_cast<double>(*static_cast<const float*>(at)));
            case FieldType::real:
                return number(*static_cast<const double*>(at));
            case FieldType::seconds:
                return number(static_cast<const Seconds*>(at)->count());
            case FieldType::nanoseconds:
                return static_cast<const Nanoseconds*>(at)->count();
            case FieldType::natural:
                return *static_cast<const std::uint64_t*>(at);
            case FieldType::text: {
                const auto& text = *static_cast<const std::string*>(at);
                return text.empty() ? Json() : Json(text);
            }
            case FieldType::color: {
                const auto& color = *static_cast<const Themed<Color>*>(at);
                return color.name().empty() ? to_string(color.value()) : color.name();
            }
            case FieldType::point:
                return point(*static_cast<const Point*>(at));
            case FieldType::size: {
                const Size& size = *static_cast<const Size*>(at);
                return point({size.width, size.height});
            }
            case FieldType::insets: {
                const Insets& all = *static_cast<const Insets*>(at);
                return numbers({static_cast<double>(all.top), static_cast<double>(all.right),
                                static_cast<double>(all.bottom), static_cast<double>(all.left)});
            }
            case FieldType::numbers: {
                Json list = Json::array();
                for (std::size_t i = 0; i < field.most; ++i)
                    list.push_back(number(static_cast<const double*>(at)[i]));
                return list;
            }
            case FieldType::choice:
                return field.choices[*static_cast<const std::uint8_t*>(at)];
            case FieldType::value:
                return value(static_cast<const KeptValue*>(at)->get());
            case FieldType::table: {
                Json made = Json::object();
                add_fields(made, *field.table, at);
                return made;
            }
            case FieldType::part: {
                const auto& definition = *static_cast<const HudDefinition*>(at);
                return is_empty(definition) ? Json() : Json(part(definition));
            }
            default:
                return {};  // no call has such a field
        }
    }

    static Json timer_json(const RecordedFrame::TimerChange& timer) {
        const detail::TimerNumbers& now = timer.numbers;
        Json made{{"age", now.age.count()},
                  {"duration", now.duration.count()},
                  {"run", now.run},
                  {"anchor", now.anchor},
                  {"passed", now.passed},
                  {"speed", number(now.speed)},
                  {"carry", number(now.carry)},
                  {"state", timer_runs[static_cast<std::size_t>(now.state)]},
                  {"loop", now.loop},
                  {"events", now.events}};
        if (now.starts > 0) made["starts"] = now.starts;
        for (const TimerEvent& event : timer.events)
            made["told"].push_back({event.number, timer_event_kinds[static_cast<std::size_t>(event.kind)],
                                    event.time.count(), event.at.count(), event.count});
        return made;
    }
};

RecordingWriter::RecordingWriter(std::ostream& into) : state_(std::make_unique<State>(State{into, {}, {}, {}})) {}
RecordingWriter::~RecordingWriter() = default;

const Problems& RecordingWriter::problems() const {
    return state_->problems;
}

void RecordingWriter::begin(const HudDefinition& definition, std::span<const RecordedName> names) {
    Json line{{"recording", 2}};
    line["hud"] = state_->part(definition);
    state_->add_names(line, names);
    state_->write(line);
}

void RecordingWriter::call(const RecordedCall& call) {
    Json line{{"call", call.name()}};
    state_->add_fields(line, call.kind->table, call.given);
    state_->add_names(line, call.names);
    state_->write(line);
}

void RecordingWriter::frame(const RecordedFrame& frame) {
    Json line{{"time", frame.time.count()}};
    if (frame.game_time != frame.time) line["game_time"] = frame.game_time.count();
    state_->add_names(line, frame.names);
    for (const RecordedFrame::TimerChange& timer : frame.timers)
        line["timers"][std::string(timer.name)] = State::timer_json(timer);
    for (const RecordedFrame::Changed& changed : frame.values) {
        line["values"][std::string(changed.name)] = value(changed.value, state_->type_of(changed.name));
        if (changed.snaps) line["snap"].push_back(changed.name);
    }
    for (const RecordedFrame::Entries& entries : frame.entries) {
        const auto& types = state_->field_types[std::string(entries.name)];
        Json& rows = line["entries"][std::string(entries.name)] = Json::array();
        for (std::size_t entry = 0; entry < entries.count; ++entry) {
            Json& row = rows.emplace_back(Json::array());
            for (std::size_t field = 0; field < types.size(); ++field)
                row.push_back(value(entries.values[entry * types.size() + field].get(), types[field]));
            if (entry < entries.places.size()) row.push_back(place(entries.places[entry]));
        }
    }
    for (const RecordedFrame::Thing& thing : frame.things) {
        Json& made = line["things"][std::to_string(thing.number)];
        made["at"] = place(thing.place);
        if (thing.values.empty()) continue;
        made["values"] = Json::array();
        for (const KeptValue& each : thing.values)
            made["values"].push_back(value(each.get()));
    }
    state_->write(line);
}

}  // namespace rapido
