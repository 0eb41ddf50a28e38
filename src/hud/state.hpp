// All that a running HUD remembers.
#pragma once

#include "hud/call.hpp"
#include "hud/effects.hpp"
#include "hud/element_context.hpp"
#include "hud/events.hpp"
#include "hud/finished.hpp"
#include "hud/lists.hpp"
#include "hud/notices.hpp"
#include "hud/observers.hpp"
#include "hud/pending.hpp"
#include "hud/riders.hpp"
#include "hud/settings.hpp"
#include "hud/text_styles.hpp"
#include "hud/themes.hpp"
#include "hud/timers.hpp"
#include "rapido/base/exported.hpp"
#include "travel/travel.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The parts of a running HUD, each of which owns its data. Later ones know earlier ones.
struct Parts {
    ProblemLog problems;
    Settings settings;
    FrameTime time;
    Happenings happenings;
    Bindings bindings{problems};
    Elements elements{problems};
    Layouter layouter{elements, problems};
    Visibility visibility{elements, bindings, layouter};
    Readouts readouts{settings, elements, bindings, visibility, layouter, happenings};
    MovingOrder moving_order{settings, elements, layouter};
    Riders riders{elements, layouter, visibility};
    Lists lists{elements, bindings, visibility, readouts, layouter, moving_order};
    PendingAmounts pending{elements, bindings, readouts};
    Timers timers{bindings, happenings, readouts};
    FrameMeters frame_meters{bindings};
    Effects effects{settings, elements, visibility, readouts, layouter, problems};
    Notices notices{elements, moving_order};
    Events events;
    Finished finished;
    Plans<TravelPlan> plans;
    KnownFields known_fields;
    Formats formats;
    Themes themes;
    TextStyles text_styles;
    Themed<std::string> font;  ///< of texts that name none
    LanguageTable languages;
    Camera camera;  ///< of the game
    ImageFinder* images = nullptr;
    std::size_t timers_of_game = 0;  ///< how many of those in the sources are known
    PointRoom point_room;
    std::optional<FrameCost> cost;  ///< of the last frame, as the game tells it
    std::array<SourceIndex, 3> cost_sources{no_source, no_source, no_source};
    SourceIndex flash_source = no_source;       ///< whether the flash limit holds anything
    std::vector<detail::Binding> bound_values;  ///< room for those of one thing
    std::vector<detail::ReadFailure> failures;  ///< of getters, that were told

    /// Gives a context what every element may ask of the HUD.
    void equip(ElementContext& context);
    /// The style of a name, with what the game gives for it now; null, with a problem, for none.
    const TextStyle* style_now(std::string_view name, Problem& problem);
    /// The corners of an element as it is drawn, in device pixels.
    std::array<Point, 4> corners(ElementIndex index) const;
    /// The one that is drawn last there, of those that hold no others before those that do; no element for none.
    ElementIndex element_under(Point point) const;
    /// Where an element is drawn, in design pixels: markers, and what is on its way, are not where they are laid out.
    Rect seen_box(ElementIndex index) const;
};

/// Whether an id is one, and free for a timer or a meter; a problem if not.
bool check_id(const std::string& id, const Bindings& bindings, ElementContext& context);
/// The description of one plate of a log.
Notice plate_of(const Notice& log, std::string_view id, const std::string& path);

struct Hud::State : Parts {
    State();

    std::unique_ptr<HudDefinition> made_of;   ///< without its elements; null for a HUD that began empty
    std::unique_ptr<HudRecording> recording;  ///< null where nobody records
    std::unique_ptr<ProbeTable> probes;       ///< null where none are shown
    std::function<void(const Problem&)> write;  ///< the log of the game, if it has one
    bool was_called = false;
    int long_steps = 0;  ///< frames in a row that take longer than a game lets them

    void write_log();

    // From a description to what runs.
    void make(const HudDefinition& definition);
    void set_screen(const HudDefinition& definition, bool fine);
    void set_language(const Language& given);
    /// An element that shares what it keeps with those before it.
    Element kept(const Element& element);
    ElementRef add(const Element& element, const Locations* locations);
    TimerIndex add(const Timer& timer, const Locations* locations);
    void connect(TimerIndex index, const Timer& timer, const Locations* locations);
    void reconnect(TimerIndex index, const Timer& timer, const Locations* locations);
    bool add(const FrameMeter& meter, const Locations* locations);
    bool add(const Effect& effect, const Locations* locations);
    bool add(const Group& group, const Locations* locations);
    /// The group as it runs; nothing, with problems, for one that cannot be. Its sources do not depend yet.
    std::optional<RunningGroup> running(const Group& group, const Locations* locations, bool is_new);
    bool add(const Theme& theme, const Locations* locations);
    bool add(const TextStyle& style, const Locations* locations);
    /// Shows the values of the present theme everywhere.
    void follow_theme();
    /// Gives a running element another description of the same kind and id: what goes on is not interrupted. False, with problems,
    /// where that cannot be; then nothing has changed.
    bool change(ElementIndex index, const Element& description);
    bool set_format(ElementIndex index, const std::string& format);

    // From one definition to another: see `Hud::reload`.
    /// True if elements that are described as before may look otherwise.
    bool reload(const HudDefinition& definition, const Hud& made);
    /// What the game has added looks as its effects and styles do now; what one of them lacks is told, and it stays as it was.
    void renew_those_of_game();
    /// All but elements becomes what a definition says, whether the HUD is made or reloaded: each thing is kept, changed, added or retired.
    void become(const HudDefinition& now, const HudDefinition& before, bool is_made);
    void become_timed(const HudDefinition& now, const HudDefinition& before, bool is_made);
    void become_grouped(const HudDefinition& now, const HudDefinition& before, bool is_made);
    /// What the next reload is compared with.
    void keep(const HudDefinition& definition);
    void reload_elements(const HudDefinition& definition, const Hud& made, bool all);
    std::vector<std::string> names_of_game() const;
    /// What cannot become what the new definition says while it runs.
    Problems clashes(const Hud& made) const;
    /// The elements that a definition has, in its order: those that a log adds for itself are none.
    std::vector<ElementIndex> defined() const;

    void follow_bands(ElementIndex index);
    void mend_names();
    /// Follows names that the game has set since the last frame.
    void follow_names();
    void follow_data();
    void look_anew(ElementIndex index);
    void add_plates(ElementIndex log, const Notice& notice);
    void find_speakers(ElementIndex notice, const Locations* locations);
    /// Finds what rides at the ends of fills; what is wrong is told where a definition says it.
    void link_riders(const HudDefinition* definition);
    void kill(ElementIndex index);
    void snap(ElementIndex index);
    GameThings* things_of(const MarkerRef& marker);
    /// Tells a context the types of what an element shows, where they are known.
    void know_types(ElementIndex index, ElementContext& context) const;
    /// Lets an element speak the present language.
    void speak(ElementIndex index);

    // The frame.
    void update(Step step);
    void begin_frame();
    void advance_clocks(Step step);
    void read_sources();
    void tell_emptied();
    void follow(Readouts::Lane lane);
    void follow_pending();
    void remove_left();
    void run_notices();
    void run_effects();
    bool offer_cost(const std::string& name);
    void tell_cost();
    void place_probes();
    void write_events();
    void tell_failures();
    /// What is bound to this getter, in words.
    std::string owner_of(const void* getter) const;

    /// An element is changed by a call: until the next frame it is drawn and read as the last one has left it, and so is what stands
    /// inside.
    void keep_finished(ElementIndex index);
    void keep_all_finished();
    Shown shown(ElementIndex index) const;

    void draw(DisplayList& list, const Layers* layers);
    /// Whether the outermost element around one is of these layers.
    bool is_in(const Layers& layers, ElementIndex index) const;
    void draw(ElementIndex index, DisplayGroup& group);
    void set_flashes(const FlashSettings& of_game, FlashRule of_file);
    void draw_body(ElementIndex index, DisplayGroup& group);
    /// False, with a problem, while a getter of the HUD is being read.
    bool is_between_frames(std::string_view call);
    /// Whether the game may call this now.
    bool may(std::string_view call);
    bool may(const CallKind& call) { return may(call.name()); }
    /// The same for a call on an element: no element, where the game may not call, and for a dead one.
    ElementIndex target(const CallKind& call, const ElementRef& element) {
        return may(call) ? elements.living(element) : no_element;
    }
    /// Tells a recorder what a call was given; without one, `make` is not called.
    template <class Call, class Make>
    void note(const KnownCall<Call>& kind, const Make& make) {
        if (recording == nullptr) return;
        Call call = make();
        if constexpr (requires { call.hud; }) recording->name(call.hud);
        recording->call(kind, &call);
    }
    /// The group of an id; null, with a problem, for none.
    RunningGroup* find_group(std::string_view id);
};

/// How the library `rapido::debug` looks into a HUD, and makes a display list of its own.
struct detail::HudAccess {
    using State = Hud::State;
    static State& of(const Hud& hud) { return *hud.state_; }
    /// The only group of a list that is drawn anew.
    static DisplayGroup& only_group(DisplayList& list, const std::optional<Viewport>& viewport) {
        list.viewport_ = viewport;
        list.structure_ = 0;
        list.groups_.resize(1);
        ++list.groups_.front().revision;
        list.groups_.front().begin();
        return list.groups_.front();
    }
};

}  // namespace rapido
