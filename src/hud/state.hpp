// All that a running HUD remembers.
#pragma once

#include <set>
#include <string>
#include <unordered_map>
#include <unordered_set>
#include <utility>
#include <vector>

#include "base/nearest.hpp"
#include "base/problem_log.hpp"
#include "element/kinds.hpp"
#include "element/notice_body.hpp"
#include "hud/event_list.hpp"
#include "hud/travel.hpp"
#include "rapido/hud/hud.hpp"
#include "rapido/time/frame_meter.hpp"
#include "value/scan.hpp"

namespace rapido {

/// As many digits as it needs: 45, 0.5.
std::string seconds_text(Nanoseconds time);

bool is_of_timer(TriggerOn on);

/// What starts an effect, or posts a message, compiled for the frame.
struct RunningTrigger {
    Trigger trigger;
    const Effect* effect = nullptr;
    std::string at;  ///< the mark, as events write it; empty for any

    RunningTrigger(Trigger given, const Effect* started);
    /// Whether this event is what it waits for; never for a gain or a loss, which are no events.
    bool waits_for(const Event& event, std::string_view element) const;
};

using ElementIndex = std::uint32_t;
inline constexpr ElementIndex no_element = UINT32_MAX;
using GroupIndex = std::uint32_t;
inline constexpr GroupIndex no_group = UINT32_MAX;

/// What the effects on an element and around it do to what it draws.
struct Moved {
    Transform transform;
    Tint tint;
    float opacity = 1;
};

/// The effects of one element.
struct ElementEffects {
    EffectPlayer player;
    std::vector<RunningTrigger> triggers;
    std::vector<const Effect*> of_bands;  ///< by band; null where it has none
    std::uint32_t plays = 0;
    bool playing = false;
};

/// An effect that something in a frame starts, or stops.
struct EffectStart {
    Nanoseconds at{0};
    ElementIndex element = no_element;
    const Effect* effect = nullptr;
    float strength = 1;
    bool stops = false;
    std::uint32_t order = 0;  ///< as they came
};

/// A notice, with what it waits for.
struct RunningNotice {
    /// What posts a message of its own.
    struct Post {
        RunningTrigger trigger{{}, nullptr};
        bool by_event = false;
        std::string element;
        SourceIndex when = no_source;
        bool was_true = false;
    };
    ElementIndex element = no_element;
    NoticeQueue queue{Seconds{0}, Seconds{0}, Seconds{0}};
    NoticeBody* body = nullptr;
    const Effect* enter = nullptr;
    const Effect* leave = nullptr;
    ReadingTime reading;
    std::vector<Post> posts;  ///< by message
    bool begun = false;       ///< has seen a frame
    bool seen = false;        ///< nothing but having nothing to say hides it
};

/// A place for one element; without a body it is free.
struct RunningElement {
    std::string path;
    const Table* kind = nullptr;
    std::unique_ptr<Body> body;
    std::uint32_t generation = 0;

    SourceIndex max = no_source;
    SourceIndex visible = no_source;
    std::vector<SourceIndex> further;  ///< in the order of its kind; no source where one is absent
    std::unique_ptr<Travel> travel;    ///< null where the value is shown as it is
    Value truth;                       ///< the value that events last saw
    Value delta;                       ///< its last change
    WhenNoValue when_no_value = WhenNoValue::placeholder;

    Place place;
    std::string inside;
    ElementIndex parent = no_element;
    GroupIndex group = no_group;
    int layer = 0;
    float opacity = 1;
    std::uint32_t order = 0;                         ///< its place in the order of parents before children
    std::uint32_t first_child = 0, child_count = 0;  ///< among the children of all
    Size natural;
    Hold hold;
    Rect box;  ///< in design pixels, before mirroring

    bool shown = false;         ///< it and all panels around it are visible
    bool dead = false;          ///< removed, and freed at the next update
    bool placed = false;        ///< has a box
    bool must_place = false;    ///< among those that stand on the screen itself
    bool must_arrange = false;  ///< what stands inside
    bool leaving = false;       ///< removed when it rests
    bool active = false;        ///< moves or waits
    bool shows_pending = false;
    const Effect* leave_effect = nullptr;  ///< runs backwards while it leaves
    bool is_silent = false;                ///< reports no empty or full: it shows a timer, or what is pending
    std::unique_ptr<RunningNotice> notice;    ///< null for all other kinds
    std::unique_ptr<ElementEffects> effects;  ///< null where there is nothing to play
    ClockKind clock = ClockKind::real;
    bool moves = false;                ///< by an effect, its own or one around it
    std::optional<bool> band_visible;  ///< instead of its source
};

/// What a frame touches of an element that shows one number and does not move: most of them, and most of the
/// time.
struct alignas(64) HotElement {
    PlainText plain;
    std::uint32_t revision = 1;
    std::uint32_t changed_in = 0;  ///< the number of the frame
    SourceIndex value = no_source;
    bool text_changed : 1 = false;  ///< in the frame of the last change
    bool is_plain : 1 = false;      ///< may be shown by `plain`
    bool queued : 1 = false;
    bool snaps : 1 = false;  ///< takes the next value as given
    // Written in every frame: bytes of their own.
    bool shows_plain = false;   ///< is shown by it now, and the body is behind
    bool was_positive = false;  ///< of a plain one
    bool size_dirty = false;    ///< among those that are to be measured

    void mark_changed(std::uint32_t frame, bool text) {
        text_changed = text || (text_changed && changed_in == frame);
        changed_in = frame;
        ++revision;
    }
    /// The plain text has new characters in this frame.
    void show(std::uint32_t frame) {
        shows_plain = true;
        mark_changed(frame, true);
    }
};
static_assert(sizeof(HotElement) == 64);

/// A timer that a HUD advances.
class OwnedTimer final : public GameTimer {
 public:
    explicit OwnedTimer(const Timer& timer)
        : GameTimer(timer.kind == TimerKind::countdown ? Direction::down : Direction::up,
                    timer.duration.value_or(Seconds{timer.kind == TimerKind::countdown ? 60.0 : 0.0}),
                    timer.begin) {}
};

struct TimerPosition {
    Nanoseconds left{0}, elapsed{0};
};

struct RunningTimer {
    std::string id;
    std::unique_ptr<OwnedTimer> owned;  ///< null for one that the game advances
    const GameTimer* timer = nullptr;
    ClockKind clock = ClockKind::game;
    std::vector<Mark> marks;             ///< that are reported; others are edges of bands
    std::vector<ElementIndex> shown_by;  ///< elements whose bands are solved in its time
    struct Edge {
        Nanoseconds at;
        ElementIndex element;
    };
    std::vector<Edge> edges;  ///< of those bands, as marks of the timer, in order
    std::uint64_t seen = 0;   ///< the last of its events that was taken over
    SourceIndex start = no_source, pause = no_source, speed = no_source;
    Nanoseconds left_before{0}, elapsed_before{0};  ///< at the end of the last frame
    bool start_was_true = false;
    bool held = false;         ///< paused by its source
    bool edges_dirty = false;  ///< other elements show it than before
    SourceIndex left = no_source, elapsed = no_source, duration = no_source, running = no_source;

    /// A stopwatch without a duration has no time left.
    Value left_now() const {
        return timer->counts_down() || timer->duration().count() > 0 ? Value(timer->left()) : Value();
    }
    Value elapsed_now() const { return timer->elapsed(); }
};

struct RunningGroup {
    std::string id;
    SourceIndex visible = no_source;
    SourceIndex dimmed = no_source;
    float dim = 1;
    bool game_shows = true;
    float game_opacity = 1;
};

/// What a text that counts has not shown yet, in units of its last digit: the sources `PATH.pending`, and apart
/// `PATH.gain` and `PATH.loss`.
struct PendingAmount {
    std::string path;
    ElementIndex total = no_element;
    SourceIndex net = no_source, gain = no_source, loss = no_source;
    Value truth, target, shown;  ///< of the total, when it was told last
    std::int64_t counted = 0;    ///< units of the truth
    std::int64_t waiting_gain = 0, waiting_loss = 0;
};

struct RunningMeter {
    FrameMeter meter{Seconds{1}};
    SourceIndex rate = no_source, frame_time = no_source;
};

/// Who is told when a source changes.
struct Dependent {
    enum class Role : std::uint8_t { value, look };  ///< shown by it; or visible or dimmed by it
    ElementIndex element;                            ///< no element for a group
    Role role;
};

struct Hud::State {
    State();

    /// An element in motion, or one that waits, with what a frame asks of it.
    struct Active {
        ElementIndex index;
        SourceIndex max;
        Travel* travel;
        Body* body;
    };

    // Making
    bool make(const HudDefinition& definition);
    bool check(const Table& table, const void* aggregate, const std::string& name, const Origin* origin);
    void check_font(const std::string& family, const Origin& origin);
    void make_timers(const HudDefinition& definition);
    RunningTimer* add_timer(const std::string& name, const Location& where);
    void make_meters(const HudDefinition& definition);
    bool add(const Group& group, const Origin* origin);
    ElementRef add(const Element& element, const Origin* origin);
    std::string missing_panel(const std::string& panel, const std::string& own) const;
    ElementIndex take_place();
    void link_parents();
    void free_removed();
    void kill(ElementIndex index);
    RunningElement* living(ElementRef ref);
    ElementRef ref_of(ElementIndex index) const { return {index, elements[index].generation, id}; }
    RunningGroup* find_group(std::string_view id);
    /// "did you mean", for a problem that is kept; the names are asked for only then.
    template <class Names>
    std::string hint(std::string_view word, Names&& names) const {
        if (problems.is_full()) return {};
        const std::vector<std::string_view> all = names();
        return did_you_mean(word, all);
    }
    std::vector<std::string_view> timer_names() const;
    std::vector<std::string_view> group_names() const;
    /// Whether the game may call this now: not while a getter of the HUD is being read, which is a problem.
    bool may(std::string_view call);
    SourceIndex adjusted(SourceIndex from, const Source& how);
    void release(SourceIndex index);
    ElementIndex find_element(std::string_view name, Problem& problem) const;
    void queue_element(ElementIndex index);
    void speak(ElementIndex index);
    SourceIndex connect(const Source& source, std::string_view field, BodyContext& context);
    std::optional<SourceIndex> resolve(const Source& source, Problem& problem);
    PendingAmount* pending_of(std::string_view name, Problem& problem);
    std::shared_ptr<const TravelPlan> shared_plan(const TravelPlan& plan);
    void add_told(const std::string& name, SourceIndex& index, Value::Type type,
                  Source::Use use = Source::Use::amount);

    // The frame, in order
    void update(Step step);
    void begin_frame();
    void advance_clocks(Step step);
    void read_sources();
    void advance_timers();
    Nanoseconds step_of(ClockKind clock) const;
    Nanoseconds real_time(Nanoseconds before, ClockKind clock) const;
    Nanoseconds moment(ClockKind clock) const { return clock == ClockKind::game ? game_now : now; }
    void report_timer(RunningTimer& timer, Nanoseconds to_come);
    void pass_edge(ElementIndex index, RunningTimer& timer, const TimerPosition& position,
                   Nanoseconds before);
    void pass_edges(RunningTimer& timer, const TimerEvent& told, Nanoseconds before);
    const Effect* find_effect(std::string_view name, Problem& problem) const;
    void make_effects(const HudDefinition& definition);
    std::unique_ptr<ElementEffects> make_element_effects(const std::vector<Trigger>& triggers,
                                                         const std::vector<Band>& bands, Color color,
                                                         BodyContext& context);
    bool play(ElementIndex index, const Effect& effect, Nanoseconds at, float strength,
              PlayAs as = PlayAs::effect);
    std::unique_ptr<RunningNotice> make_notice(const Notice& notice, BodyContext& context);
    void find_speakers(const Notice& notice, const Origin* origin);
    void post(RunningNotice& notice, std::size_t message, Nanoseconds at);
    void post_messages();
    void snap_notice(RunningNotice& notice);
    void show_messages();
    void start(const EffectStart& effect);
    void start_on_event(ElementIndex index, const Event& event);
    void start_on_change(ElementIndex index, const Value& change);
    void start_on_band(ElementIndex index, std::size_t band, bool entered, Nanoseconds at);
    void start_effects();
    void play_effects();
    void advance_bodies();
    void take_news(ElementIndex index, News news);
    Pose pose_of_element(ElementIndex index) const;
    Pose body_pose(ElementIndex index) const;
    Moved moved(ElementIndex index) const;
    Rect device_box(ElementIndex index) const;
    void draw(ElementIndex index, DrawGroup& group);
    void draw_over(ElementIndex index, const Rect& box, DrawGroup& into) const;
    void report_event(Event event) { events.add(std::move(event)); }
    void report_bands(ElementIndex index);
    void watch_bands(ElementIndex index);
    void mark_band_edges();
    void mark_band_edges(RunningTimer& timer);
    void control_timers();
    void tell_timers();
    void finish_events();
    void tell_meters();
    void mark_snapped();
    void refresh_plain_texts();
    void queue_dependents();
    void tell_pending(PendingAmount& pending);
    void drop_without_value();
    void report_value_events();
    void retarget();
    void refresh_active();
    void refresh_queued();
    void remove_left();
    void follow_pending();
    void refresh_visibility();
    void lay_out();

    void mark_changed(ElementIndex index);
    void depend(SourceIndex source, Dependent dependent);
    void find_plain(ElementIndex index);
    void update_body_text(ElementIndex index);
    void refresh(ElementIndex index);
    void show(ElementIndex index, Body& body, const FieldValues& values, double trail);
    struct Travelled {
        FieldValues values;
        double trail;  ///< NaN where there is none
    };
    Travelled travelled(ElementIndex index, Travel& travel, const Value& max);
    void show_moving(const Active& moving);
    Value max_of(const RunningElement& element) const;
    void fit_to_screen();
    void measure_resized();
    void measure(ElementIndex index);
    void report_missing(const RunningElement& element);
    std::string_view font_of_language() const;
    std::span<const FlowItem> items_of(const RunningElement& panel);
    void arrange_placed();
    void place(ElementIndex index, const Rect& box);
    void must_measure(ElementIndex index);
    void must_place(ElementIndex index);
    void must_arrange(ElementIndex index);
    Rect screen_box(const Rect& box) const;
    void report(Problem problem);

    std::uint32_t id;
    std::uint64_t structure = 0;
    FitOptions fit;
    Fitted screen;
    bool definition_mirrors = true;
    bool mirrored = false;
    std::string font = "sans-serif";
    std::vector<LocaleFont> locale_fonts;
    TextMeasurer* measurer = nullptr;
    ImageFinder* images = nullptr;
    Viewport viewport;
    PointRoom point_room;

    Clock real_clock;
    Clock game_clock;
    Nanoseconds frame_start{0};
    Nanoseconds now{0};
    Nanoseconds game_start{0};
    Nanoseconds game_now{0};

    Sources sources;
    Scan scan;
    std::vector<std::vector<Dependent>> dependents;  ///< by source
    std::vector<ElementIndex> only_dependent;        ///< by source: a plain text, and nobody else
    std::vector<std::uint8_t> told_used;             ///< by source: whether a told one is asked for
    std::unordered_map<std::string, SourceIndex> told_names;
    std::unordered_map<std::string, Source> told_kinds;  ///< type and use of the told sources
    /// A told source, negated or scaled.
    struct Adjusted {
        SourceIndex from, to;
        Source how;
        std::uint32_t users = 1;
        std::size_t hash = 0;
    };
    std::vector<Adjusted> told_adjusted;
    std::unordered_map<SourceIndex, std::size_t> adjusted_places;      ///< in `told_adjusted`
    std::unordered_multimap<std::size_t, SourceIndex> known_adjusted;  ///< by a hash of what they are made of

    std::vector<RunningTimer> timers;
    std::size_t edges_passed = 0;                                ///< in this frame
    std::unordered_map<std::string, std::size_t> timer_indices;  ///< by id
    std::vector<RunningMeter> meters;
    std::vector<std::unique_ptr<const Effect>> effects;
    std::unordered_map<std::string_view, const Effect*> effects_by_name;  ///< the built-in ones, too
    /// Elements that wait for events of a timer, by its id.
    std::unordered_map<std::string, std::vector<ElementIndex>> wait_for_timer;
    std::vector<EffectStart> effect_starts;  ///< of this frame
    std::vector<ElementIndex> notices;
    std::vector<ElementIndex> playing;        ///< elements on which an effect runs
    std::vector<ElementIndex> living_bodies;  ///< elements whose bodies live in time
    FlashLimit own_flash_limit;
    FlashLimit* flash_limit = &own_flash_limit;
    std::vector<PendingAmount> pending;
    std::unordered_map<std::string, std::size_t> pending_indices;  ///< by the path of the total
    std::unordered_multimap<std::size_t, std::weak_ptr<const TravelPlan>> plans;  ///< by hash
    std::unordered_set<SourceIndex> is_pending_source;
    std::size_t most_plans = 64;  ///< where those without a user are looked for
    bool reduced_motion = false;
    bool making = false;  ///< of a definition, whose later elements are still to come
    std::vector<RunningElement> elements;
    std::vector<HotElement> hot;  ///< by element
    std::unordered_map<std::string, ElementIndex> paths;
    std::unordered_multimap<std::string, ElementIndex> ids;  ///< the last parts of the paths
    std::set<std::string, std::less<>>
        counters;  ///< paths of texts, those of the definition before they are made
    std::set<std::string, std::less<>> panels;  ///< by path, those of the definition before they are made
    std::unordered_map<std::string, std::string> panel_parents;  ///< `inside` by id, to find circles
    std::vector<ElementIndex> free_places;
    std::vector<ElementIndex> removed;  ///< since the last update
    std::vector<RunningGroup> groups;
    std::unordered_map<std::string, GroupIndex> group_indices;  ///< by id
    std::shared_ptr<const Language> language;
    bool structure_dirty = true;
    std::vector<ElementIndex> parents_first;
    std::vector<ElementIndex> draw_order;

    std::vector<SourceIndex> changed_sources;
    std::vector<SourceIndex> snapped_sources;
    std::unordered_map<std::string, Format> formats;  ///< by pattern
    std::uint32_t frame = 1;
    std::uint64_t plain_texts_made = 0;
    std::vector<std::pair<ElementIndex, EventKind>> value_events;
    std::vector<ElementIndex> leaving;
    std::vector<Value> further_values;  ///< of the element that is being shown
    std::vector<ElementIndex> queue;    ///< elements whose sources changed in this frame
    std::vector<Active> active;
    bool visibility_dirty = true;
    bool screen_dirty = true;
    std::vector<ElementIndex> resized;   ///< to be measured
    std::vector<ElementIndex> to_place;  ///< a heap of those that are to be placed, or arranged
    std::vector<ElementIndex> children;  ///< of all panels
    std::vector<ElementIndex> flow_elements;
    std::vector<FlowItem> flow_items;
    std::vector<Rect> flow_boxes;
    Flow flow;
    EventList events;
    ProblemLog problems;
    bool is_reading = false;  ///< the game's getters are being called
};

}  // namespace rapido
