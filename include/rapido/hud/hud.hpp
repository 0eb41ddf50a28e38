// A running HUD.
#pragma once

#include <functional>
#include <initializer_list>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/hud/definition.hpp"
#include "rapido/hud/event.hpp"
#include "rapido/layout/camera.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/time/clock.hpp"
#include "rapido/time/game_timer.hpp"

namespace rapido RAPIDO_EXPORTED {

class DisplayList;
class FlashLimit;
class ImageFinder;
class Recorder;
class PositionSource;
class TextMeasurer;
struct FlashSettings;
struct Language;
struct Message;
struct PopUp;
namespace detail {
struct HudAccess;
}

/// One element of one HUD. A default one, one that was removed, and one of another HUD is dead: it reads as an empty element,
/// and `Hud::alive` says so.
struct ElementRef {
    std::uint32_t index = UINT32_MAX;
    std::uint32_t generation = 0;
    std::uint32_t hud = 0;
    /// Whether it was ever given; whether its element still is there only the HUD knows: see `Hud::alive`.
    explicit operator bool() const { return index != UINT32_MAX; }
    friend bool operator==(const ElementRef&, const ElementRef&) = default;
};

/// One thing that was given to markers by `Hud::add_marker`.
struct MarkerRef {
    std::uint32_t element = UINT32_MAX, element_generation = 0;  ///< of the markers
    std::uint32_t index = UINT32_MAX, generation = 0;
    std::uint32_t hud = 0;
    /// Whether it was ever given.
    explicit operator bool() const { return index != UINT32_MAX; }
    friend bool operator==(const MarkerRef&, const MarkerRef&) = default;
};

/// What the last update has put on screen of one element. The views are valid until the next one.
struct Shown {
    std::string_view id{};    ///< the path: the ids of the panels around it and its own, with dots between
    std::string_view kind{};  ///< as in a HUD file: "text", "bar", "dial"
    std::string_view text{};  ///< the characters of a text, and of a notice while it says something
    /// The fill of an element that has one, 0 to 1; of a dial and a scale, where they point.
    std::optional<double> fill{};
    /// Where what was just lost ends, `fill` to 1; nothing for an element without a fill.
    std::optional<double> trail{};
    Value truth{};   ///< what the source gave
    Value target{};  ///< what pace let through
    Value shown{};   ///< where motion has it
    Color color{};
    float opacity = 1;     ///< the product of those of its groups, and of the effects on it and the panels around it
    float scale = 1;       ///< the product of those of the effects on it and the panels around it
    Point offset{};        ///< how far those effects move the point by which it is held in its place, design pixels
    float rotation = 0;    ///< the sum of those effects, degrees clockwise around that point
    bool visible = false;  ///< false also inside a hidden panel and in a hidden group; true while it still leaves
    Rect box{};            ///< at rest, design pixels, y down; empty without a text measurer and while it is hidden
    Rect drawn_box{};      ///< the rectangle that the box covers as it is drawn, with the effects on it and around it
    bool changed = false;  ///< anything above but the boxes differs from the frame before
    bool text_changed = false;
};

/// Where the game, or its player, has put an element.
struct SavedPlace {
    std::string id{};  ///< the path of the element
    Place place{};
    friend RAPIDO_EXPORTED bool operator==(const SavedPlace&, const SavedPlace&);
};

/// Which outermost elements are drawn, by their layer, with what stands inside; both ends count. By default all.
struct Layers {
    int from = -1000;
    int to = 1000;
};

/// What a frame of a HUD cost: `update`, `draw`, and the renderer.
struct FrameCost {
    Seconds update{0};
    Seconds draw{0};
    Seconds render{0};
    friend RAPIDO_EXPORTED bool operator==(const FrameCost&, const FrameCost&);
};

/// Values on a screen, kept right: it reads the game's state, and shows it.
///
///     rapido::Hud hud;
///     const auto acres = hud.add(rapido::Text{.id = "acres", .value = rapido::watch(acres_saved)});
///     while (running) {
///         hud.update({.real = frame, .game = frame});
///         if (hud.text_changed(acres)) label.set_text(hud.text_of(acres));
///     }
///
/// A HUD belongs to one thread. It never throws, prints or reads a clock. One that was moved from is empty, like a new one.
/// While a HUD reads its sources, a getter must not change or draw that HUD: such a call does nothing, and is a problem.
///
/// Each update makes a whole frame. What the game calls between two updates counts from the next one on: until then all that is drawn and
/// read of an element is as the last update has left it, however often and into whichever list it is drawn. An element that is
/// removed is drawn until then, too, and its reference is dead at once.
class Hud {
 public:
    /// An empty HUD, to be filled with `add`.
    Hud();
    /// A HUD of what can be made of `definition`; the rest is in `problems`. Names are looked up in
    /// `sources`, which the HUD keeps, and images in `images`. Measurer and images must outlive the HUD. Without a measurer there is no layout and nothing to
    /// draw; where an image is missing, a crossed box stands for it.
    explicit Hud(const HudDefinition& definition, const Sources& sources = {}, TextMeasurer* measurer = nullptr,
                 ImageFinder* images = nullptr);
    ~Hud();
    Hud(Hud&&) noexcept;
    Hud& operator=(Hud&&) noexcept;

    /// The same, but all or nothing: on any error there is no HUD. Warnings are in its `problems`.
    static Result<Hud> make(const HudDefinition& definition, const Sources& sources = {},
                            TextMeasurer* measurer = nullptr, ImageFinder* images = nullptr);

    /// Adds an element; its sources are bound, or names of this HUD's timers and meters, or of the sources that the HUD was
    /// made with. A name that nobody has yet is a problem; the element is there all the same, without a value until somebody sets
    /// the name. On any other problem, reported in `problems`, nothing is added and the reference is dead.
    ElementRef add(const Element& element);
    /// Adds several, such as a component that a function of the game returns by `nest`. Returns the first of them. Where one cannot be,
    /// none is added.
    ElementRef add(const std::vector<Element>& elements);
    /// Adds a group, for elements that are added after it; a timer or a meter, whose sources are there from now on; an effect, for
    /// elements that are added after it and for `play`. False, with a problem, if it cannot be, or if there is one with this id.
    bool add(const Group& group);
    bool add(const Timer& timer);
    bool add(const FrameMeter& meter);
    bool add(const Effect& effect);
    /// Adds a style for pieces of texts that are added after it, or replaces the one of its id.
    bool add(const TextStyle& style);
    /// Adds a theme, or replaces the one of its id. The first one is used until `set_theme`.
    bool add(const Theme& theme);

    /// Shows the colors, fonts and radii of another theme at the next update. Nothing moves, and nothing is reported. False, with a
    /// problem, if there is none with this id.
    bool set_theme(std::string_view id);
    /// Returns the id of the theme that is used; empty without themes.
    std::string_view theme() const;

    /// Returns what an element was made of, or was changed to; an empty element for a dead reference. What `set_color` and the like
    /// have set is not in it.
    Element description(ElementRef element) const;
    /// Gives a running element another description, of the same kind, id and panel. It keeps its place among its siblings, its value
    /// in flight, trail, bands, effects and messages. A changed format, color, place or font shows at the next update, and nothing is
    /// reported; of a changed source the value is taken as given; a changed motion is a new target at this moment. False for a dead
    /// element, and, with problems, where the change cannot be: then nothing has changed. Costs as much as `add`.
    bool change(ElementRef element, const Element& description);
    /// The same in place, for an element of one kind: `hud.change<Text>(score, [](Text& text) { text.size = 40; })`.
    template <class Described, class Edit>
    bool change(ElementRef element, Edit&& edit) {
        std::optional<Described> description = this->description(element).template as<Described>();
        if (!description) return change(element, Described{});  // which says so
        edit(*description);
        return change(element, *description);
    }

    // What the game sets of an element counts on top of its description, until `reset`: also when the description changes. Bands and
    // effects count on top of it. Dead references are ignored.

    /// Replaces the definition that this HUD was made from, while it runs: a file that was saved again. An element of the same path and kind
    /// keeps its value in flight, trail, bands, effects and messages, a timer its position, and references to both stay valid; what else
    /// the definition lacks is removed, and what is new is added. Values of changed sources are taken as given. What was added from C++, and
    /// what the game has set, stays. Returns what is wrong with the new definition: with an error among it, nothing has changed. Else
    /// `problems` begins anew with it.
    Problems reload(const HudDefinition& definition);

    /// Replaces the color of an element.
    void set_color(ElementRef element, const Themed<Color>& color);
    /// Shows or hides an element, on top of its source `visible`.
    void set_visible(ElementRef element, bool visible);
    /// Multiplies the opacity of an element, and of all that stands inside, by 0 to 1.
    void set_opacity(ElementRef element, float opacity);
    /// Shows or hides the whole HUD, and multiplies its opacity.
    void set_visible(bool visible);
    void set_opacity(float opacity);
    /// Replaces the format of a text, in the time that its parts take. False, with a problem, for one that cannot be read; then nothing has changed.
    bool set_format(ElementRef element, std::string_view format);
    /// Replaces the place of an element. It may be called in every frame: with the same anchor, pivot and `max_size` only the layout is
    /// done again. False, with a problem, for one that cannot be.
    bool set_place(ElementRef element, const Place& place);
    /// Takes back all of that.
    void reset(ElementRef element);

    /// Returns the places that the game has set by `set_place`, to be saved with the settings of a player who moves elements: plain
    /// values.
    std::vector<SavedPlace> save_places() const;
    /// Sets them again. An id that this HUD does not have is a problem, and the others are set; false then.
    bool restore_places(std::span<const SavedPlace> places);

    /// Takes the element away, with everything inside. The reference is dead at once; safe at any time.
    void remove(ElementRef element);
    /// The same when the motion in flight has landed, and then an effect that something appears with (`fade`) has run backwards;
    /// without one, and for a hidden element, nothing is waited for but the motion. It takes two seconds at most.
    void leave(ElementRef element, std::string_view effect = {});

    /// The element with this path, or the only one with this id; dead if there is none, which is a problem.
    ElementRef find(std::string_view id);

    /// One frame: clocks and timers, sources, events, motion, texts, layout. A step that is negative or not
    /// finite counts as zero, with a problem.
    void update(Step step);
    /// The same with one step for both clocks, for a game without a pause: `hud.update(dt)`, in seconds, or `hud.update(16ms)`.
    template <std::convertible_to<Seconds> Time>
    void update(Time step) {
        update(Step{.real = step, .game = step});
    }

    /// Takes the present as given, at the next update after it has read its sources: after loading a saved
    /// game, a respawn, a change of level. Nothing travels, nothing is reported, what was in flight has
    /// landed. Timers go on. What is played, notified and popped after the call is shown.
    void snap();
    /// The same for an element and what stands inside.
    void snap(ElementRef element);
    /// The same for all elements of a group; an unknown one is a problem.
    void snap(std::string_view group);

    /// Starts an effect of this HUD, or a built-in one, on an element; `strength`, -100 to 100, multiplies its way from
    /// rest. On an element that was just added, or is hidden, it starts in the next update, if the element is shown then. False if
    /// it is dropped, for a dead element, and, with a problem, for an unknown effect and a strength that is not finite.
    bool play(ElementRef element, std::string_view effect, float strength = 1);
    /// Ends it at the end of its present run.
    void stop(ElementRef element, std::string_view effect);
    /// Lets a notice say something; `when` and what posts it by events do not count. It is merged with an equal one, of
    /// the same id and text. False for a dead element, one that is no notice, and a text that cannot be made, each a
    /// problem.
    bool notify(ElementRef notice, const Message& message);
    /// The same for the message of the notice with this id; an unknown one is a problem.
    bool notify(ElementRef notice, std::string_view message);
    /// Takes a message of the notice away, whether it is shown or waits; false if there is none with this id.
    bool dismiss(ElementRef notice, std::string_view message);

    /// How the game looks at its world from the next update on, until the next call: see `Camera`.
    void set_camera(const Camera& camera);
    /// Marks a thing of the world, whose place and values are read in each update; `values` are in the order of `Markers::parameters`. What is
    /// watched must live until `remove`. Dead, with a problem, for an element that is no markers or has entries, and for other values
    /// than it wants.
    MarkerRef add_marker(ElementRef markers, const PositionSource& at, std::span<const Source> values = {});
    MarkerRef add_marker(ElementRef markers, const PositionSource& at, std::initializer_list<Source> values);
    /// Whether the thing is marked: it was not removed, nor were its markers.
    bool alive(MarkerRef marker) const;
    /// The thing is gone: its marker leaves where it was. A dead reference is ignored.
    void remove(MarkerRef marker);
    /// Shows or hides the marker of a thing.
    void set_visible(MarkerRef marker, bool visible);

    /// Lets an amount pop up; the camera and the screen of the last update say where a point of the world is, and later cameras move it. False
    /// for a dead element and one that is no pop_ups, which is a problem, and for a place that is not finite.
    bool pop_up(ElementRef pop_ups, const PopUp& pop);

    // The same by the path of an element, or by the id of the only one that has it, as `find` takes them; false, with a problem, for none. A name is looked for
    // in each call: what is called in every frame keeps its reference.
    bool play(std::string_view element, std::string_view effect, float strength = 1);
    void stop(std::string_view element, std::string_view effect);
    bool notify(std::string_view notice, const Message& message);
    bool notify(std::string_view notice, std::string_view message);
    bool dismiss(std::string_view notice, std::string_view message);
    bool pop_up(std::string_view pop_ups, const PopUp& pop);
    MarkerRef add_marker(std::string_view markers, const PositionSource& at, std::initializer_list<Source> values = {});
    bool set_color(std::string_view element, const Themed<Color>& color);
    bool set_format(std::string_view element, std::string_view format);

    /// Lets a meter count over another interval from now on; what it shows stays until the next one closes. False, with a problem, for an
    /// unknown meter.
    bool set_interval(std::string_view meter, Seconds interval);

    /// Shares the limit of flashes with other HUDs: one for a window. It must outlive the HUD. Without it the HUD has
    /// its own.
    void set_flash_limit(FlashLimit& limit);
    /// Sets which flashes count, what is behind the HUD, and how large it is in the eyes of the player; see docs/effects.md. It replaces all
    /// that was set before. A field of view that is no angle counts as 30 degrees. Runs that have begun go on.
    void set_flash_settings(const FlashSettings& settings);

    /// Whether the flash limit holds anything back since the last `update`; the source `hud.flash_limited` says so, too, a frame later.
    bool flash_limited() const;

    /// Shows or hides a group, on top of its source `visible`; an unknown one is a problem.
    void set_visible(std::string_view group, bool visible);
    /// Opacity of a group from 0 to 1, on top of its source `dimmed`; an unknown one is a problem.
    void set_opacity(std::string_view group, float opacity);

    /// With it, every motion and every trail is a plain change, and what is in flight has landed; pace, gains
    /// beside counters and the delay of a trail stay, so that nothing is lost but the movement. A player's
    /// setting; off at first.
    void set_reduced_motion(bool reduced);

    /// From the next update on every text is in this language: its translations, numbers and plural forms.
    /// Nothing travels and nothing is reported. Patterns that do not fit are problems, and shown
    /// untranslated.
    void set_language(const Language& language);

    /// The part of the window to fill: `hud.resize({1920, 1080})`, or with an origin and a safe area. Takes effect in `draw` and `Shown::box` at the next update.
    void resize(const Viewport& viewport);
    void resize(Size size) { resize(Viewport{.size = size}); }

    /// The player's size of everything, 0.25 to 4, limited to that; 1 at first. Takes effect like `resize`.
    void set_ui_scale(float scale);
    /// The player's size of texts alone, 0.5 to 3, limited to that; 1 at first. What stands around them follows. Costs as much as adding
    /// all elements.
    void set_text_scale(float scale);

    /// Whether the element is there: it was added to this HUD and not removed. One that leaves is there until it is gone.
    bool alive(ElementRef element) const;
    /// All of what is on screen of an element, as a copy: nothing is changed through it. Where one part is enough, the calls below
    /// ask for that part alone.
    const Shown operator[](ElementRef element) const;
    /// `Shown::text`, empty for a dead element. Valid until the next update.
    std::string_view text_of(ElementRef element) const;
    /// `Shown::fill`, nothing for an element that has none.
    std::optional<double> fill_of(ElementRef element) const;
    /// `Shown::text_changed`: a game with widgets of its own sets only those.
    bool text_changed(ElementRef element) const;
    /// Returns the element that is drawn last at a point of the window, in device pixels, one that holds no others before those that do; dead
    /// for none.
    ElementRef element_at(Point point) const;
    /// Tells what the last frame cost, as measured by the game: the sources `hud.update_time`, `hud.draw_time` and `hud.render_time`, from
    /// the next update on.
    void set_cost(const FrameCost& cost);
    /// All elements, in the order in which they were added.
    std::vector<ElementRef> elements() const;
    /// All elements, in the order in which the last update has them drawn: the groups of a display list that was drawn since are theirs.
    std::vector<ElementRef> draw_order() const;

    /// What happened in the last update, by time, timers before values; valid until the next one. One update tells a thousand
    /// events; the others are lost, with a problem.
    std::span<const Event> events() const;

    /// What notices began to show in the last update, for a screen reader; valid until the next one.
    std::span<const Announcement> announcements() const;

    /// A timer that this HUD advances, to be started, paused, given time and so on by the game between two updates;
    /// null for an unknown id, which is a problem. Its marks are given in the definition: among them the HUD keeps the
    /// edges of bands. Valid as long as the HUD is not moved from or destroyed.
    GameTimer* timer(std::string_view id);
    /// Returns all timers that this HUD advances as they are now, to be saved with a game: plain values.
    std::vector<TimerState> save_timers() const;
    /// Puts timers where they were: nothing is reported, and a timer whose `start_when` is true does not begin again. A timer of
    /// an id that this HUD does not have is a problem, and the others are restored.
    bool restore_timers(std::span<const TimerState> timers);
    /// Gives a timer that the game advances, by this clock, the sources of a timer, and reports its events; any
    /// number of HUDs may have it. It must outlive the HUD. For a HUD made from a definition, `Sources::set` does the
    /// same. False, with a problem, if there is one with this id.
    bool add_timer(const std::string& id, const GameTimer& timer, ClockKind clock = ClockKind::game);

    /// Brings `list` up to date with the last update: rewrites only the groups of elements that changed since it was last drawn.
    void draw(DisplayList& list) const;
    /// The same of some layers, so that the game draws between them: markers below a menu of its own, messages above. Each pass has a list of its own.
    void draw(DisplayList& list, const Layers& layers) const;

    /// How often the characters of a text were written since the HUD was made: an unchanged text adds
    /// nothing.
    std::uint64_t texts_made() const;

    /// Now, on the real clock.
    Nanoseconds now() const;

    /// The names that its readouts, groups and timers ask the game for, in alphabetical order: those that `Sources` has, and those that it
    /// lacks. Entries of lists are asked for as a whole.
    std::vector<std::string> wanted_sources() const;
    /// The names that the HUD offers to its readouts itself, as far as anybody has asked for them, and those of its timers and meters.
    std::vector<std::string> offered_sources() const;

    /// What went wrong so far, each once: the first hundred, and then one that counts the others. A name that was unknown and has come leaves the
    /// list.
    const Problems& problems() const;
    /// Those that came since the last call, for a log that is written in each frame. Valid until the next call on the HUD.
    std::span<const Problem> new_problems();
    /// Lets a function of the game write what is wrong, each problem once: at once what `new_problems` has not given yet, and later at the end of
    /// each update what is new. `new_problems` gives nothing then. With none, nothing is written any more.
    void set_log(std::function<void(const Problem&)> log);

 private:
    friend struct detail::HudAccess;
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
