// What a recorder of a HUD is told, and what it was told last.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <unordered_map>
#include <vector>

#include "hud/bindings.hpp"
#include "hud/observers.hpp"
#include "hud/timers.hpp"
#include "rapido/hud/recorder.hpp"

namespace rapido {

/// Follows all sources that a HUD reads. What the game has named keeps its name, and what is bound gets one: the path and the field,
/// `water.value`, and `water.value#2` when the element is bound to something else later.
class RunningRecording final : public HudRecording {
 public:
    RunningRecording(Recorder& recorder, Bindings& bindings, const Timers& timers, const Elements& elements)
        : recorder_(recorder), bindings_(bindings), timers_(timers), elements_(elements) {}
    ~RunningRecording() override;
    RunningRecording(const RunningRecording&) = delete;
    RunningRecording& operator=(const RunningRecording&) = delete;

    // Between frames

    /// The HUD as it was made.
    void begin(HudDefinition definition);
    void name(HudDefinition& definition) override;
    void call(const CallKind& kind, const void* given) override;
    void forget(ElementIndex index) override;
    std::uint64_t add(const MarkerRef& marker, const PositionSource& at,
                      const std::vector<detail::Binding>& values) override;
    std::optional<std::uint64_t> number_of(const MarkerRef& marker) const override;
    void remove(const MarkerRef& marker) override;

    // In a frame

    void note_timers() override;
    void tell(Nanoseconds time, Nanoseconds game_time) override;
    void keep_timers() override;

 private:
    struct Entries {
        std::size_t count = 0;
        std::vector<KeptValue> values;
        std::vector<WorldPoint> places;
    };
    struct Tracked {
        Source source;
        std::string owner;  ///< of what is bound: the element; empty for a name of the game
        std::string field;  ///< of what is bound: `water.value`
        SourceIndex index = no_source;
        std::uint64_t revision = 0;  ///< of a name of the game that the recorder knows
        std::optional<KeptValue> last;
        std::optional<Entries> entries;
    };
    struct Thing {
        std::uint64_t number;
        MarkerRef marker;
        PositionSource at;
        std::vector<detail::Binding> values;
        WorldPoint place;
        std::vector<KeptValue> last;
        bool is_told = false;
    };

    void name_all(HudDefinition& definition);
    std::string path_of(const Element& element) const;
    void drop_unused(const HudDefinition& definition);
    void name_one(Source& source, const std::string& owner, const std::string& field);
    RecordedName described(const std::string& name, const Source& source) const;
    void tell_new_timers();
    void read_entries(const std::string& name, Tracked& tracked, const detail::EntryReader& reader);
    void read_things();

    Recorder& recorder_;
    Bindings& bindings_;
    const Timers& timers_;
    const Elements& elements_;
    std::map<std::string, Tracked, std::less<>> tracked_;
    std::vector<Thing> things_;
    std::unordered_map<std::uint64_t, std::size_t> places_;  ///< in it, by what a marker is of
    std::uint64_t thing_count_ = 0;
    std::map<std::string, detail::TimerNumbers, std::less<>> timer_numbers_;  ///< as the recorder knows them
    // Of this frame or call.
    std::set<std::string, std::less<>> used_;  ///< names
    std::vector<RecordedName> names_;
    std::vector<RecordedFrame::TimerChange> timer_changes_;
    std::vector<RecordedFrame::Changed> changed_;
    std::vector<RecordedFrame::Entries> entries_;
    std::vector<RecordedFrame::Thing> changed_things_;
    std::string storage_;
};

}  // namespace rapido
