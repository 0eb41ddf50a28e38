// Recordings, written.
#include <cmath>
#include <map>
#include <ostream>

#include "file/hud_part.hpp"
#include "file/recording_json.hpp"
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
        case Value::Type::boolean:
            return value.boolean();
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

Json type_word(std::optional<Value::Type> type) {
    return value_types[static_cast<std::size_t>(type.value_or(Value::Type::none))];
}

}  // namespace

struct RecordingWriter::State {
    std::ostream& into;
    std::map<std::string, std::optional<Value::Type>, std::less<>> types;
    std::map<std::string, std::vector<std::optional<Value::Type>>, std::less<>> field_types;
    Problems problems;

    void write(const Json& line) {
        into << line.dump(-1, ' ', false, Json::error_handler_t::replace) << '\n';
    }

    void add_names(Json& line, std::span<const RecordedName> names) {
        for (const RecordedName& name : names) {
            if (name.timer) {
                line["new_timers"][name.name] = {
                    {"kind", timer_kinds[static_cast<std::size_t>(*name.timer)]},
                    {"clock", clock_kinds[static_cast<std::size_t>(name.clock)]}};
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
                made = {{"type", type_word(name.type)},
                        {"use", value_uses[static_cast<std::size_t>(name.use)]}};
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
                problems.push_back({{},
                                    "this recording cannot be read again: " + problem.message,
                                    problem.hint,
                                    problem.code});
        return text;
    }

    void add_detail(Json&, std::monostate) {}
    void add_detail(Json& line, const HudDefinition* definition) { line["hud"] = part(*definition); }
    void add_detail(Json& line, const Message* message) {
        Notice notice{.id = "notice", .messages = {*message}};
        notice.messages.front().value = {};
        notice.messages.front().when = {};
        line["hud"] = write_hud_part({.elements = {notice}}, problems);
    }
    void add_detail(Json& line, const Place* given) {
        line["hud"] = write_hud_part({.elements = {Panel{.id = "panel", .place = *given}}}, problems);
    }
    void add_detail(Json& line, const Viewport* viewport) {
        const Insets& safe = viewport->safe_area;
        line["origin"] = point(viewport->origin);
        line["size"] = point({viewport->size.width, viewport->size.height});
        line["safe_area"] = numbers({static_cast<double>(safe.top), static_cast<double>(safe.right),
                                     static_cast<double>(safe.bottom), static_cast<double>(safe.left)});
    }
    void add_detail(Json& line, const FlashSettings* settings) {
        if (settings->rule)
            line["rule"] = Choices<FlashRule>::names[static_cast<std::size_t>(*settings->rule)];
        line["on"] = settings->on;
        if (settings->ground) line["ground"] = to_string(*settings->ground);
        line["field_of_view"] = number(static_cast<double>(settings->field_of_view));
    }
    void add_detail(Json& line, const Camera* camera) {
        line["matrix"] = Json::array();
        for (const double each : camera->matrix())
            line["matrix"].push_back(number(each));
        line["flat"] = camera->is_flat();
    }
    void add_detail(Json& line, const Themed<Color>* color) {
        line["color"] = color->name().empty() ? to_string(color->value()) : color->name();
    }
    void add_detail(Json& line, const Pop* pop) {
        line["at"] = place(pop->at);
        if (pop->on_screen) line["on_screen"] = point(*pop->on_screen);
    }
    void add_detail(Json& line, const FrameCost* cost) {
        line["cost"] = numbers({cost->update.count(), cost->draw.count(), cost->render.count()});
    }
    void add_detail(Json& line, const TimerState* state) {
        line["timer"] = {{"id", state->id},
                         {"position", state->position.count()},
                         {"duration", state->duration.count()},
                         {"speed", number(state->speed)},
                         {"run", timer_runs[static_cast<std::size_t>(state->run)]},
                         {"loop", state->loop},
                         {"held", state->held}};
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
        for (const TimerEvent& event : timer.events)
            made["told"].push_back({event.number, timer_event_kinds[static_cast<std::size_t>(event.kind)],
                                    event.time.count(), event.at.count(), event.count});
        return made;
    }
};

RecordingWriter::RecordingWriter(std::ostream& into)
    : state_(std::make_unique<State>(State{into, {}, {}, {}})) {}
RecordingWriter::~RecordingWriter() = default;

const Problems& RecordingWriter::problems() const {
    return state_->problems;
}

void RecordingWriter::begin(const HudDefinition& definition, std::span<const RecordedName> names) {
    Json line{{"recording", 1}};
    line["hud"] = state_->part(definition);
    state_->add_names(line, names);
    state_->write(line);
}

void RecordingWriter::call(const RecordedCall& call) {
    const CallWords* const words = words_of(call.name);
    if (words == nullptr) return;
    Json line{{"call", call.name}};
    if (!call.element.empty()) line["element"] = call.element;
    if (!call.text.empty()) line[std::string(words->text)] = call.text;
    if (call.number) line[std::string(words->number)] = number(*call.number);
    if (call.flag) line[std::string(words->flag)] = *call.flag;
    if (call.thing) line["thing"] = *call.thing;
    if (call.value.has_value()) line["value"] = value(call.value);
    if (call.type) line["type"] = type_word(call.type);
    if (call.use != detail::ValueUse::amount) line["use"] = value_uses[static_cast<std::size_t>(call.use)];
    std::visit([&](const auto& detail) { state_->add_detail(line, detail); }, call.detail);
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
