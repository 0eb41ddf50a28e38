// All that a running HUD remembers.
#pragma once

#include <set>
#include <string>
#include <unordered_map>
#include <vector>

#include "element/kinds.hpp"
#include "motion/moving_value.hpp"
#include "rapido/hud/hud.hpp"
#include "rapido/time/frame_meter.hpp"
#include "value/scan.hpp"

namespace rapido {

using ElementIndex = std::uint32_t;
inline constexpr ElementIndex no_element = UINT32_MAX;

struct RunningElement {
    std::string path;
    const Table* kind = nullptr;
    std::unique_ptr<Body> body;

    SourceIndex value = no_source;
    SourceIndex max = no_source;
    SourceIndex visible = no_source;
    Motion motion;
    MovingValue moving;
    Value truth;  ///< the value that events last saw

    Place place;
    std::string inside;
    ElementIndex parent = no_element;
    int layer = 0;
    Size natural;
    Size content;  ///< what the elements inside need
    Rect box;

    std::uint64_t revision = 1;
    bool shown = false;    ///< it and all panels around it are visible
    bool started = false;  ///< has been through a frame
    bool queued = false;
    bool active = false;
    bool changed = false;
    bool text_changed = false;
    bool size_dirty = true;
};

struct RunningTimer {
    std::string id;
    Countdown countdown{Seconds{0}};
    SourceIndex start = no_source;
    SourceIndex pause = no_source;
    bool start_was_true = false;
    bool held = false;  ///< paused by its source
    SourceIndex left = no_source, elapsed = no_source, duration = no_source, running = no_source;
};

struct RunningMeter {
    FrameMeter meter{Seconds{1}};
    SourceIndex rate = no_source;
};

/// Who is told when a source changes.
struct Dependent {
    enum class Role : std::uint8_t { value, visible };
    ElementIndex element;
    Role role;
};

struct Hud::State {
    // Making
    bool make(const HudDefinition& definition, const Sources& sources);
    ElementRef add(const Element& element, const Origin* origin, const Sources& sources);
    void link_parents();
    std::optional<SourceIndex> resolve(const Source& source, const Sources& sources, Problem& problem);
    void add_told(const std::string& name, SourceIndex& index, Value::Type type);

    // The frame, in order
    void update(Step step);
    void begin_frame();
    void advance_clocks(Step step);
    void read_sources();
    void control_timers();
    void tell_timers();
    void queue_dependents();
    void report_value_events();
    void retarget();
    void refresh_texts();
    void refresh_visibility();
    void lay_out();

    void mark_changed(ElementIndex index);
    void refresh(ElementIndex index);
    Value max_of(const RunningElement& element) const;
    void measure_elements();
    void place_elements();
    void report(Problem problem);

    std::uint32_t id = 0;
    std::uint64_t structure = 0;
    Size design{1280, 720};
    std::string font = "sans-serif";
    TextMeasurer* measurer = nullptr;
    Viewport viewport;
    float scale = 1;

    Clock real_clock;
    Clock game_clock;
    Nanoseconds frame_start{0};
    Nanoseconds now{0};
    Nanoseconds game_start{0};
    Nanoseconds game_now{0};

    Scan scan;
    std::vector<std::vector<Dependent>> dependents;  ///< by source
    std::unordered_map<std::string, SourceIndex> told_names;
    std::unordered_map<std::string, Value::Type> told_types;
    std::vector<std::pair<SourceIndex, SourceIndex>>
        told_negations;  ///< a told source, and its truth turned round

    std::vector<RunningTimer> timers;
    std::vector<RunningMeter> meters;
    std::vector<RunningElement> elements;
    std::unordered_map<std::string, ElementIndex> paths;
    std::set<std::string, std::less<>> panels;  ///< by path, those of the definition before they are made
    std::vector<ElementIndex> parents_first;
    std::vector<ElementIndex> draw_order;

    std::vector<SourceIndex> changed_sources;
    std::vector<ElementIndex> queue;    ///< elements whose sources changed in this frame
    std::vector<ElementIndex> active;   ///< elements in motion
    std::vector<ElementIndex> changed;  ///< elements with a mark of change, from the last frame
    bool visibility_dirty = true;
    bool layout_dirty = true;
    std::vector<Event> events;
    Problems problems;
};

}  // namespace rapido
