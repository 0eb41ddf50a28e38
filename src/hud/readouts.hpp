// The way of every value from true to shown: value events, pace, bands, motion, text.
#pragma once

#include <array>
#include <memory>
#include <span>
#include <unordered_map>
#include <utility>
#include <vector>

#include "hud/bindings.hpp"
#include "hud/data_fields.hpp"
#include "hud/frame_time.hpp"
#include "hud/happenings.hpp"
#include "hud/settings.hpp"
#include "hud/visibility.hpp"
#include "travel/travel.hpp"

namespace rapido {

/// What is followed of one element.
struct Readout {
    SourceIndex max = no_source;
    std::vector<SourceIndex> further;  ///< in the order of its kind, no source where one is absent; then those of bands
    std::uint32_t of_bands = 0;        ///< how many of them are
    std::unique_ptr<Travel> travel;    ///< null where the value is shown as it is
    Value truth;                       ///< the value that events last saw
    Value delta;                       ///< its last change
    double min = 0;                    ///< at which it is empty
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    bool starts_effects = false;  ///< its gains and losses may
    bool is_silent = false;       ///< reports no empty or full: it shows a timer, or what is pending
    bool shows_pending = false;
    Value seen;                          ///< the last amount that was not zero, where that is so
    SourceIndex seen_while = no_source;  ///< what shows and hides it, where that is the amount that it shows
    bool active = false;                 ///< moves or waits
};

/// A source whose changes start effects on an element, besides its value.
struct TriggerSource {
    SourceIndex source = no_source;
    Value truth{};
    bool is_known = false;  ///< it was read before, and not taken as given since
};

/// A source that gives the value of a field.
struct DataSource {
    SourceIndex source = no_source;
    PoseField pose = PoseField::none;
    std::string name{};            ///< of the field
    const Field* field = nullptr;  ///< its description
    double usual = 0;              ///< its default, of a number
};

/// Follows the values of elements. Those that show what is pending of others are followed after all others, in the same
/// way: they are in a lane of their own.
class Readouts {
 public:
    Readouts(const Settings& settings, Elements& elements, Bindings& bindings, Visibility& visibility,
             Layouter& layouter, Happenings& happenings)
        : settings_(settings),
          elements_(elements),
          bindings_(bindings),
          visibility_(visibility),
          layouter_(layouter),
          happenings_(happenings) {}

    // Between frames

    void add(ElementIndex index, SourceIndex value, Readout readout);
    /// Follows the sources of its triggers from now on; each is known by its place in the list, from 1.
    void set_triggers(ElementIndex index, std::vector<TriggerSource> triggers);
    /// The fields of an element come from these sources from now on.
    void set_data(ElementIndex index, std::vector<DataSource> data);
    /// The same besides those that it has.
    void add_data(ElementIndex index, std::vector<DataSource> data);
    bool has_data(ElementIndex index) const { return data_.contains(index); }
    std::span<const DataSource> data(ElementIndex index) const {
        const auto known = data_.find(index);
        return known != data_.end() ? std::span<const DataSource>(known->second) : std::span<const DataSource>();
    }
    /// Follows other sources, or in another way, from now on. What is in flight goes on; the value of another source is taken as
    /// given in the next update.
    void change(ElementIndex index, SourceIndex value, Readout readout, std::shared_ptr<const TravelPlan> plan,
                const FrameTime& time);
    /// It has another body, and is paced and moves as a plan says that differs in its looks alone.
    void look_anew(ElementIndex index, std::shared_ptr<const TravelPlan> plan, const FrameTime& time);
    /// Gives back the sources of one, which is removed or changed.
    void release(ElementIndex index);
    /// Gives back the sources of those that were removed.
    void free_removed();
    /// Somebody asks for the truth of an element, and for its change.
    void must_know(ElementIndex index);
    /// It is shown anew in the next update.
    void refresh_next(ElementIndex index);
    void snap(ElementIndex index);
    /// Takes the next value as given, and lets effects and messages go on.
    void take_as_given(ElementIndex index);
    /// It shows this value as if it had been there before, and then goes on to its own, in the next frame or in this one.
    void begin_from(ElementIndex index, const Value& value);
    /// Calls `use` for those that have begun so in this frame, and forgets them.
    template <class Use>
    void take_begun(Use use) {
        for (const auto& begun : from_)
            use(begun.first);
        from_.clear();
    }
    /// Replaces the color of one that follows a value, outside of its bands, from the next frame on.
    void set_color(ElementIndex index, Color color, const FrameTime& time);
    /// Motions in flight land.
    void land(const FrameTime& time);
    void set_limit(const FlashAsker& asker);

    // In a frame

    /// Colors that were set since the last frame.
    void take_colors();

    enum class Lane : std::uint8_t { ordinary, pending };

    /// A field of an element that comes from a source has another value in this frame.
    struct DataChange {
        ElementIndex element;
        DataSource data;
    };
    /// All of them since the last call.
    std::vector<DataChange> take_data_changes() { return std::exchange(data_changes_, {}); }

    /// A band of an element that shows a timer passed an edge inside the frame.
    void pass_edge(ElementIndex index, const Value& value, const FrameTime& time, Nanoseconds before,
                   ClockKind of_timer);
    /// Takes what changed of the sources: in the second lane, whoever depends on it is followed there. Returns those whose
    /// value has gone for good, and that are to be removed then; valid until the next call.
    std::span<const ElementIndex> take_changes(Lane lane);
    /// Follows those no more that were removed in this frame.
    void drop_dead();
    /// Compares the truth of each element with the one before, and tells gains, losses, empty and full.
    void tell_changes(Lane lane, const FrameTime& time);
    /// Gives the values to pace, bands and motion. Returns those that took the present as given.
    std::span<const ElementIndex> aim(Lane lane, const FrameTime& time);
    /// Lets time pass, and makes texts and looks.
    void show(Lane lane, const FrameTime& time);
    void refresh(ElementIndex index, const FrameTime& time);
    /// What lives in time goes on: frames of an image, waves, graphs, the effects of single pips.
    void advance_bodies(const FrameTime& time, const FlashAsker& flashes, const Camera& camera, ProblemLog& problems);
    void take_change(ElementIndex index, Change change);

    const Readout& operator[](ElementIndex index) const { return all_[index]; }
    SourceIndex value_source(ElementIndex index) const { return elements_.hot(index).value; }
    SourceIndex max_source(ElementIndex index) const { return all_[index].max; }
    const Value& value(ElementIndex index) const { return bindings_.value(elements_.hot(index).value); }
    const Value& max(ElementIndex index) const { return bindings_.value(all_[index].max); }
    /// Null for an element without bands.
    const BandSet* bands(ElementIndex index) const {
        return all_[index].travel != nullptr ? all_[index].travel->bands() : nullptr;
    }

 private:
    /// An element in motion, or one that waits, with what a frame asks of it.
    struct Active {
        ElementIndex index;
        SourceIndex max;
        Travel* travel;
        Body* body;
        ClockKind clock;
        const MovingValue* alone;    ///< its value, if nothing else of it moves; else null
        std::uint32_t revision = 0;  ///< while it is this one, what is drawn shows all amounts between these
        Amounts same{};
    };
    struct Followed {
        std::vector<ElementIndex> queue;  ///< whose sources changed
        std::vector<Active> active;
    };
    Followed& of(Lane lane) { return lanes_[static_cast<std::size_t>(lane)]; }
    void begin_snap(ElementIndex index);
    void begin(ElementIndex index, SourceIndex value, Readout readout);
    void queue(ElementIndex index, Lane lane);
    Lane lane_of(ElementIndex index) const { return all_[index].shows_pending ? Lane::pending : Lane::ordinary; }
    void take_change_of(const Dependent& dependent, SourceIndex source, Lane lane);
    void follow_simple(const FrameTime& time);
    void tell_simple(ElementIndex index, HotElement& hot, const Value& value, Nanoseconds now);
    void tell_amount(ElementIndex index, const Value& value, const Value& before, bool was_positive, Nanoseconds now);
    Value keep_truth(ElementIndex index, const Value& value);
    void tell_change(ElementIndex index, Nanoseconds now);
    void tell_triggers(Nanoseconds now);
    void begin_begun(const FrameTime& time);
    void report_bands(ElementIndex index, const FrameTime& time);
    static SourceIndex condition_alone(const Readout& readout, const std::vector<Band>& bands, std::size_t band);
    std::span<const Value> further_values(std::span<const SourceIndex> sources);
    std::span<const Value> given_to_bands(const Readout& readout);
    Active active(ElementIndex index) const;
    bool show_active(Active& moving, const FrameTime& time);
    double steps(ElementIndex index) const;
    ShownValue shown(ElementIndex index, Travel& travel, const Value& max, const FrameTime& time);
    void show(ElementIndex index, Body& body, const ShownValue& shown, const FrameTime& time);
    void show_now(ElementIndex index, Body& body, const ShownValue& shown, const FrameTime& time);
    void say_what_it_was(ElementIndex index, ShownValue& shown);
    bool show_number(ElementIndex index, HotElement& hot, const Value& value);

    const Settings& settings_;
    Elements& elements_;
    Bindings& bindings_;
    Visibility& visibility_;
    Layouter& layouter_;
    Happenings& happenings_;
    Pages<Readout> all_;  ///< by element
    std::array<Followed, 2> lanes_;
    std::unordered_map<ElementIndex, std::vector<TriggerSource>> triggers_;  ///< of those that have such
    std::vector<ElementIndex> next_triggers_;                         ///< whose sources are compared in this frame
    std::unordered_map<ElementIndex, std::vector<DataSource>> data_;  ///< of those that have such
    std::vector<DataChange> data_changes_;
    std::vector<ElementIndex> in_time_;     ///< elements whose bodies live in time
    std::vector<ElementIndex> show_again_;  ///< in the next frame
    std::vector<ElementIndex> snapped_, lost_;
    std::vector<std::pair<ElementIndex, Color>> next_colors_;
    std::vector<std::pair<ElementIndex, Value>> from_;
    std::vector<ElementIndex> given_;    ///< those that take the next value as given, without a snap
    std::vector<Value> further_values_;  ///< of the element that is being shown, or read
};

}  // namespace rapido
