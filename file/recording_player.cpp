// Recordings, played: the player stands for the game.
#include <algorithm>
#include <map>
#include <variant>

#include "file/recording_lines.hpp"
#include "rapido/element/markers.hpp"
#include "rapido/look/flash_limit.hpp"
#include "rapido/text/language.hpp"

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
    explicit RecordedEntries(const RecordedName& name) : fields_(*name.fields), has_places_(name.has_places) {}

    FrameLine::Entries now;

    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override { return now.count; }
    void read_field(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            if (wanted.empty() || wanted[entry] != 0) into[entry] = at(entry, field);
    }
    void read_numbers(std::size_t field, std::span<double> into) const override {
        for (std::size_t entry = 0; entry < into.size(); ++entry)
            into[entry] = at(entry, field).number();
    }
    bool read_positions(std::span<WorldPoint> into) const override {
        if (has_places_) std::copy_n(now.places.begin(), std::min(into.size(), now.places.size()), into.begin());
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
    MarkerRef marker;
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
                timer = *name.timer == TimerKind::countdown ? std::make_unique<AnyTimer>(Countdown(Seconds{0}))
                                                            : std::make_unique<AnyTimer>(Stopwatch());
                timer_of(*timer).put({.starts = name.starts}, {});
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

    /// Plays calls: the recording stands for the game.
    class Stage final : public CallStage {
     public:
        Stage(State& state, Hud& of, const CallLine& call) : CallStage(of), state_(state), call_(call) {}

        Language language(const std::string& tag) override {
            return state_.languages ? state_.languages(tag) : Language{.tag = tag};
        }
        FlashLimit& flash_limit() override { return state_.limit; }
        MarkerRef thing(std::uint64_t number) override {
            const auto known = state_.things.find(number);
            return known != state_.things.end() ? known->second.marker : MarkerRef();
        }
        void add_marker(std::uint64_t number, ElementRef markers) override {
            const std::optional<Markers> known = hud.description(markers).as<Markers>();
            if (!known) return;
            RecordedThing& thing = state_.things[number];
            std::vector<Source> bound;
            for (std::size_t i = 0; i < known->parameters.size(); ++i) {
                thing.values.push_back(std::make_shared<RecordedValue>());
                bound.push_back(Source(detail::Binding::getter(thing.values.back(), std::nullopt)));
            }
            thing.marker = hud.add_marker(markers, PositionSource([place = thing.place] { return *place; }), bound);
        }
        void add_timers() override { state_.offer(call_.names, &hud); }

     private:
        State& state_;
        const CallLine& call_;
    };

    void obey(Hud& hud, const CallLine& call) {
        if (!call.kind->traits.adds_timers) offer(call.names, nullptr);
        Stage stage(*this, hud, call);
        call.kind->play(call.given.get(), stage);
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
        hud.update(
            Step{.real = to_seconds(frame.time - state.time), .game = to_seconds(frame.game_time - state.game_time)});
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
            if (call.kind->traits.lasts) state.obey(hud, call);
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
