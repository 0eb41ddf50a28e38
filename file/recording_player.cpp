// Recordings, played: the player stands for the game.
#include <algorithm>
#include <map>

#include "file/recording_lines.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido {
namespace {

/// What a name was at each moment.
class RecordedValue final : public detail::Getter {
 public:
    KeptValue value;
    std::uint32_t snap_count = 0;

    Value read(std::string&) const override { return value.get(); }
    std::uint32_t snaps() const override { return snap_count; }
};

/// The same for a container.
class RecordedEntries final : public detail::EntryReader {
 public:
    explicit RecordedEntries(const RecordedName& name)
        : fields_(*name.fields), has_places_(name.has_places) {}

    FrameLine::Entries now;

    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override { return now.count; }
    void read_field(std::size_t field, std::span<const std::uint8_t> wanted,
                    std::span<KeptValue> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            if (wanted.empty() || wanted[entry] != 0) into[entry] = at(entry, field);
    }
    void read_numbers(std::size_t field, std::span<double> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry] = at(entry, field).number();
    }
    bool read_positions(std::span<WorldPoint> into) const override {
        if (has_places_)
            std::copy_n(now.places.begin(), std::min(into.size(), now.places.size()), into.begin());
        return has_places_;
    }

 private:
    Value at(std::size_t entry, std::size_t field) const {
        const std::size_t index = entry * fields_.size() + field;
        return index < now.values.size() ? now.values[index].get() : Value();
    }
    std::vector<Field> fields_;
    bool has_places_;
};

struct RecordedThing {
    std::shared_ptr<WorldPoint> place = std::make_shared<WorldPoint>();
    std::vector<std::shared_ptr<RecordedValue>> values;
    TagRef tag;
};

using AnyTimer = std::variant<Countdown, Stopwatch>;

}  // namespace

struct RecordingPlayer::State {
    std::shared_ptr<const Recording::State> recording;
    Sources sources;
    std::map<std::string, std::shared_ptr<RecordedValue>, std::less<>> values;
    std::map<std::string, std::shared_ptr<RecordedEntries>, std::less<>> containers;
    std::map<std::string, std::unique_ptr<AnyTimer>, std::less<>> timers;
    std::map<std::uint64_t, RecordedThing> things;
    FlashLimit limit;
    std::function<Language(std::string_view)> languages;
    std::size_t next_line = 0, next_frame = 0;
    Nanoseconds time{0}, game_time{0};

    static GameTimer& timer_of(AnyTimer& any) {
        return std::visit([](auto& timer) -> GameTimer& { return timer; }, any);
    }

    /// Makes names known, or binds them anew. Timers go to `hud`, or where there is none to the sources.
    void offer(const std::vector<RecordedName>& names, Hud* hud) {
        for (const RecordedName& name : names) {
            if (name.timer) {
                std::unique_ptr<AnyTimer>& timer = timers[name.name];
                if (timer != nullptr) continue;
                timer = *name.timer == TimerKind::countdown
                            ? std::make_unique<AnyTimer>(Countdown(Seconds{0}))
                            : std::make_unique<AnyTimer>(Stopwatch());
                if (hud != nullptr)
                    hud->add_timer(name.name, timer_of(*timer), name.clock);
                else
                    sources.set(name.name, timer_of(*timer), name.clock);
            } else if (name.fields) {
                std::shared_ptr<RecordedEntries>& made = containers[name.name];
                made = std::make_shared<RecordedEntries>(name);
                sources.set(name.name, Source(detail::Binding::getter(made, Value::Type::int64)));
            } else {
                std::shared_ptr<RecordedValue>& made = values[name.name];
                made = std::make_shared<RecordedValue>();
                sources.set(name.name, Source(detail::Binding::getter(made, name.type).used_as(name.use)));
            }
        }
    }

    /// What a frame reads.
    void give(const FrameLine& frame, Hud& hud, bool with_snaps) {
        offer(frame.names, nullptr);
        for (const FrameLine::TimerChange& change : frame.timers) {
            const auto own = timers.find(change.name);
            GameTimer* const timer = own != timers.end() ? &timer_of(*own->second) : hud.timer(change.name);
            if (timer != nullptr) timer->put(change.numbers, change.events);
        }
        for (const FrameLine::Changed& changed : frame.values)
            if (const auto known = values.find(changed.name); known != values.end())
                known->second->value = changed.value.get();
        if (with_snaps)
            for (const std::string& name : frame.snap)
                if (const auto known = values.find(name); known != values.end()) ++known->second->snap_count;
        for (const FrameLine::Entries& entries : frame.entries)
            if (const auto known = containers.find(entries.name); known != containers.end())
                known->second->now = entries;
        for (const FrameLine::Thing& given : frame.things) {
            const auto known = things.find(given.number);
            if (known == things.end()) continue;
            *known->second.place = given.place;
            for (std::size_t i = 0; i < std::min(given.values.size(), known->second.values.size()); ++i)
                known->second.values[i]->value = given.values[i].get();
        }
    }

    ElementRef element(Hud& hud, const CallLine& call) const {
        return call.element.empty() ? ElementRef() : hud.find(call.element);
    }

    void add(Hud& hud, const HudDefinition& part) const {
        for (const Theme& theme : part.themes)
            hud.add(theme);
        for (const TextStyle& style : part.styles)
            hud.add(style);
        for (const Timer& timer : part.timers)
            hud.add(timer);
        for (const Meter& meter : part.meters)
            hud.add(meter);
        for (const Effect& effect : part.effects)
            hud.add(effect);
        for (const Group& group : part.groups)
            hud.add(group);
        for (const Element& element : part.elements)
            hud.add(element);
    }

    void tag(Hud& hud, const CallLine& call) {
        const ElementRef tags = element(hud, call);
        const Element description = hud.description(tags);
        const Tags* const known = std::get_if<Tags>(&description);
        if (known == nullptr) return;
        RecordedThing& thing = things[*call.thing];
        std::vector<Source> bound;
        for (std::size_t i = 0; i < known->parameters.size(); ++i) {
            thing.values.push_back(std::make_shared<RecordedValue>());
            bound.push_back(Source(detail::Binding::getter(thing.values.back(), std::nullopt)));
        }
        thing.tag = hud.tag(tags, PositionSource([place = thing.place] { return *place; }), bound);
    }

    void obey(Hud& hud, const CallLine& call) {
        const std::string_view name = call.words->call;
        const auto number = static_cast<float>(call.number.value_or(0));
        const bool flag = call.flag.value_or(false);
        const bool of_thing = call.thing.has_value();
        const auto thing = of_thing ? things.find(*call.thing) : things.end();
        const TagRef tagged = thing != things.end() ? thing->second.tag : TagRef();
        const bool of_element = !call.element.empty();
        const ElementRef at = of_element ? element(hud, call) : ElementRef();
        offer(call.names, name == "add_timer" ? &hud : nullptr);
        if (name == "add") return add(hud, call.part);
        if (name == "reload") return void(hud.reload(call.part));
        if (name == "change") return void(hud.change(at, call.part.elements.front()));
        if (name == "tag") return tag(hud, call);
        if (name == "remove") return of_thing ? hud.remove(tagged) : hud.remove(at);
        if (name == "leave") return hud.leave(at, call.text);
        if (name == "reset") return hud.reset(at);
        if (name == "snap")
            return of_element ? hud.snap(at) : call.has_text ? hud.snap(call.text) : hud.snap();
        if (name == "play") return void(hud.play(at, call.text, number));
        if (name == "stop") return hud.stop(at, call.text);
        if (name == "dismiss") return void(hud.dismiss(at, call.text));
        if (name == "notify") {
            if (call.has_text) return void(hud.notify(at, call.text));
            Message message = std::get<Notice>(call.part.elements.front()).messages.front();
            const auto value = std::make_shared<RecordedValue>();
            value->value = call.value.get();
            if (call.value.get().has_value() || call.type)
                message.value = Source(detail::Binding::getter(value, call.type).used_as(call.use));
            return void(hud.notify(at, message));
        }
        if (name == "pop") {
            Pop pop = std::get<Pop>(call.detail);
            pop.value = call.value.get();
            return void(hud.pop(at, pop));
        }
        if (name == "set_visible") {
            if (of_thing) return hud.set_visible(tagged, flag);
            return of_element      ? hud.set_visible(at, flag)
                   : call.has_text ? hud.set_visible(call.text, flag)
                                   : hud.set_visible(flag);
        }
        if (name == "set_opacity")
            return of_element      ? hud.set_opacity(at, number)
                   : call.has_text ? hud.set_opacity(call.text, number)
                                   : hud.set_opacity(number);
        if (name == "set_color") return hud.set_color(at, std::get<Themed<Color>>(call.detail));
        if (name == "set_format") return void(hud.set_format(at, call.text));
        if (name == "set_place")
            return void(hud.set_place(
                at, std::visit([](const auto& any) { return any.place; }, call.part.elements.front())));
        if (name == "set_theme") return void(hud.set_theme(call.text));
        if (name == "set_language")
            return hud.set_language(languages ? languages(call.text) : Language{.tag = call.text});
        if (name == "set_scale") return hud.set_scale(number);
        if (name == "set_text_scale") return hud.set_text_scale(number);
        if (name == "set_reduced_motion") return hud.set_reduced_motion(flag);
        if (name == "set_flash_limit") return hud.set_flash_limit(limit);
        if (name == "set_camera") return hud.set_camera(std::get<Camera>(call.detail));
        if (name == "set_cost") return hud.set_cost(std::get<FrameCost>(call.detail));
        if (name == "set_interval") return void(hud.set_interval(call.text, Seconds{number}));
        if (name == "set_flash_settings") return hud.set_flash_settings(std::get<FlashSettings>(call.detail));
        if (name == "resize") return hud.resize(std::get<Viewport>(call.detail));
        if (name == "restore_timers")
            return void(hud.restore_timers(std::array{std::get<TimerState>(call.detail)}));
    }
};

RecordingPlayer::RecordingPlayer(const Recording& recording) : state_(std::make_unique<State>()) {
    state_->recording = recording.state_;
    state_->offer(recording.state_->names, nullptr);
}
RecordingPlayer::~RecordingPlayer() = default;
RecordingPlayer::RecordingPlayer(RecordingPlayer&&) noexcept = default;
RecordingPlayer& RecordingPlayer::operator=(RecordingPlayer&&) noexcept = default;

Sources RecordingPlayer::sources() const {
    return state_->sources;
}

void RecordingPlayer::set_languages(std::function<Language(std::string_view tag)> languages) {
    state_->languages = std::move(languages);
}

bool RecordingPlayer::update(Hud& hud) {
    State& state = *state_;
    const auto& lines = state.recording->lines;
    if (state.next_frame == state.recording->frames.size()) return false;
    for (; state.next_line < lines.size(); ++state.next_line) {
        if (lines[state.next_line].call != nullptr) {
            state.obey(hud, *lines[state.next_line].call);
            continue;
        }
        const Recording::State::Line& frame = lines[state.next_line++];
        if (frame.frame != nullptr) state.give(*frame.frame, hud, true);
        hud.update(Step{.real = to_seconds(frame.time - state.time),
                        .game = to_seconds(frame.game_time - state.game_time)});
        state.time = frame.time;
        state.game_time = frame.game_time;
        ++state.next_frame;
        return true;
    }
    return false;
}

void RecordingPlayer::skip_to(Hud& hud, Nanoseconds time) {
    State& state = *state_;
    const auto& lines = state.recording->lines;
    const auto& frames = state.recording->frames;
    const auto time_of = [&](std::size_t frame) { return lines[frames[frame]].time; };
    while (state.next_frame < frames.size() && time_of(state.next_frame) <= time) {
        for (; state.next_line < frames[state.next_frame]; ++state.next_line) {
            const CallLine& call = *lines[state.next_line].call;
            if (call.words->lasts) state.obey(hud, call);
        }
        const Recording::State::Line& frame = lines[state.next_line++];
        if (frame.frame != nullptr) state.give(*frame.frame, hud, false);
        state.time = frame.time;
        state.game_time = frame.game_time;
        ++state.next_frame;
    }
}

std::size_t RecordingPlayer::next() const {
    return state_->next_frame;
}

}  // namespace rapido
