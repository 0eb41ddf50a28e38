// Effects in the frame: what starts them, and what they do to the elements that they run on.
#pragma once

#include <functional>
#include <memory>
#include <span>
#include <string>
#include <unordered_map>
#include <utility>
#include <vector>

#include "element/image_look.hpp"
#include "hud/definition_tables.hpp"
#include "hud/frame_time.hpp"
#include "hud/layouter.hpp"
#include "hud/readouts.hpp"
#include "hud/settings.hpp"
#include "hud/themes.hpp"
#include "hud/trigger.hpp"
#include "hud/visibility.hpp"
#include "look/flash_looks.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/look/effect_player.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What the effects on an element and around it do to what it draws.
struct Moved {
    Transform transform;
    Tint tint;
    float opacity = 1;
    float scale = 1;     ///< of all of them
    float rotation = 0;  ///< the same
};

/// What starts effects on one element.
struct ElementEffects {
    struct Trigger {
        CompiledTrigger on;
        const Effect* effect = nullptr;
        double full_strength_at = 0;
    };
    std::vector<Trigger> triggers;
    std::vector<const Effect*> of_bands;  ///< by band; null where it has none, and empty where none has
    const Effect* enter = nullptr;        ///< when it becomes visible; of a notice, with each message
    const Effect* leave = nullptr;        ///< runs backwards when it becomes hidden
    bool has_states = false;              ///< one of its bands has an effect without an end

    bool names(const Effect& effect) const;
};

/// Owns the effects of a HUD by name, and those that run on its elements. Effects of every cause start in one place.
class Effects final : public FlashLooks {
 public:
    Effects(const Settings& settings, Elements& elements, Visibility& visibility, const Readouts& readouts,
            const Layouter& layouter, ProblemLog& problems);

    // Between frames

    /// Adds an effect of the HUD; `fine` if its numbers are in their ranges. False, with a problem, if it cannot be played.
    bool define(const Effect& effect, bool fine, const Locations* locations);
    /// Nothing is called by this name any more, but for a built-in effect; what runs goes on.
    void undefine(std::string_view id);
    /// Returns the HUD's own effect of a name, or the built-in one; null, with a problem, for none.
    const Effect* find(std::string_view name, Problem& problem) const;
    /// The image of the particles of an effect that was defined.
    void set_picture(std::string_view id, ImageLook picture);
    /// Gives the names of colors in effects the values of the present theme.
    void follow_theme(const Themes& themes);
    /// Null for an element that has nothing to play of itself.
    void add(ElementIndex index, std::unique_ptr<ElementEffects> effects);
    void remove(ElementIndex index);
    /// Other things start effects on an element from now on; those that run go on.
    void change(ElementIndex index, std::unique_ptr<ElementEffects> effects, Nanoseconds now);
    /// Forgets those that were removed.
    void free_removed();
    /// Starts an effect that the game asks for: at once on an element that is shown, else in the next frame, if the element is shown
    /// then. False if it is dropped.
    bool request(ElementIndex index, const Effect& effect, Nanoseconds at, float strength);
    void stop(ElementIndex index, const Effect& effect, Nanoseconds at, std::optional<EffectCause> cause = {});
    /// Lets an element leave: when its motion has landed, the effect runs backwards, and then it is gone. That takes two seconds
    /// at most.
    void leave(ElementIndex index, const Effect* effect, Nanoseconds now);
    bool is_leaving(ElementIndex index) const;
    /// Motion is reduced from now on, or no more; other flashes count.
    void follow_reduced_motion();
    void follow_flashes();
    void set_limit(FlashLimit& limit);
    /// Whom bodies and bands ask; without an element.
    FlashAsker flashes() { return {settings_.flashes_of_game.on ? limit_ : nullptr, this, 0}; }
    void want(ElementIndex index) override;
    const FlashLook& look_of(ElementIndex index) override;
    Nanoseconds ahead_of(ClockKind clock) const override {
        return clock == ClockKind::game ? ahead_of_game_ : Nanoseconds{0};
    }
    void note_limited() override { is_limited_ = true; }
    /// Whether the flash limit holds anything in this frame, or held something in the frame before.
    bool is_limited() const { return is_limited_; }
    bool was_limited() const { return was_limited_; }
    /// Draws what an element is at rest; set by the HUD.
    std::function<void(ElementIndex, DisplayGroup&)> draw_alone;

    // In a frame

    /// Frees those that were undefined since the last frame; what something still names or plays is looked at again after the next one.
    void free_undefined();
    /// The real clock is so far ahead of that of the game.
    void begin_frame(Nanoseconds ahead_of_game) {
        was_limited_ = std::exchange(is_limited_, false);
        ahead_of_game_ = ahead_of_game;
    }
    /// An element takes its present as given: what runs on it ends, and what happened to it before in this frame starts
    /// nothing.
    void snap(ElementIndex index);
    /// What runs on an element ends; what happens in this frame may start something.
    void end_all(ElementIndex index) {
        if (on_[index].player != nullptr) on_[index].player->clear();
    }
    /// Calls `gone` for those that leave, do not move any more, and whose effect has ended.
    void take_left(Nanoseconds now, const std::function<bool(ElementIndex)>& moves,
                   const std::function<void(ElementIndex)>& gone);
    /// Elements that became visible or hidden enter and leave.
    void show_changes();
    /// What happened starts effects, each at its own time: they have run since then. So do what the game has asked for and the
    /// states of bands.
    void start(std::span<const Happening> happenings, Nanoseconds now);
    /// Moves the elements on which effects run, and all that stands inside them.
    void advance(Nanoseconds now);
    /// An element whose effect of leaving has ended, so that it is hidden.
    struct Hidden {
        ElementIndex index;
        Nanoseconds at;
    };
    /// Those of the last call of `advance`.
    std::span<const Hidden> hidden() const { return hidden_; }
    /// When all has its place: what is drawn of those that flash is looked at, and their flashes are asked for.
    void look_at_flashes(Nanoseconds now);

    /// What plays on an element; null where nothing ever has.
    const EffectPlayer* player(ElementIndex index) const { return on_[index].player.get(); }

    // Drawing

    Pose pose(ElementIndex index, Nanoseconds now) const;
    /// In device pixels, as it is drawn.
    Moved moved(ElementIndex index, Nanoseconds now) const;
    /// In design pixels.
    Moved moved_in_design(ElementIndex index, Nanoseconds now) const;
    /// Draws what an effect draws besides: a stripe of light, dots.
    void draw_over(ElementIndex index, Nanoseconds now, const Rect& box, DisplayGroup& into) const;

 private:
    struct Leaving {
        ElementIndex index;
        const Effect* effect;  ///< null for none
        Nanoseconds since;
        bool plays = false;
        bool moved = false;       ///< its motion was in flight
        bool has_waited = false;  ///< for its motion to land
    };
    struct Hiding {
        ElementIndex index;
        Nanoseconds end;  ///< when its effect ends
    };
    /// What the game asked for on an element that was not shown.
    struct Request {
        ElementIndex index;
        const Effect* effect;
        Nanoseconds at;
        float strength;
    };
    struct OnElement {
        std::unique_ptr<ElementEffects> own;   ///< null where nothing starts any
        std::unique_ptr<EffectPlayer> player;  ///< null where nothing has played yet
        std::uint32_t plays = 0;               ///< how often something has
        bool is_playing = false;
        bool moves = false;    ///< by an effect, its own or one around it
        bool snapped = false;  ///< in this frame
    };
    /// What an element drew when it was last looked at, for its flashes.
    struct SeenLook {
        FlashLook look;
        Nanoseconds at{(Nanoseconds::min)()};  ///< the least where it never was
        Rect box;
        Color color;
        bool is_wanted = false;
    };
    bool is_fresh(const SeenLook& seen, ElementIndex index, Nanoseconds now) const;
    Size counted_pixel() const;
    void set_own(ElementIndex index, std::unique_ptr<ElementEffects> effects);
    EffectPlayer& player_for(ElementIndex index);
    bool play(ElementIndex index, const Effect& effect, Nanoseconds at, PlayOptions options);
    bool let_go(const Effect& effect);
    void look_at(ElementIndex index, Nanoseconds now);
    void gather(ElementIndex index, std::vector<FlashPart>& into);
    void keep_state(ElementIndex index, Nanoseconds now);
    void hide_left();
    const Effect* effect_of(const VisibilityChange& change) const;
    template <class BoxOf>
    Moved moved(ElementIndex index, Nanoseconds now, float scale, BoxOf&& box_of) const;
    void start(ElementIndex index, const Happening& happening);
    void start_message(ElementIndex index, const Happening& happening);

    const Settings& settings_;
    Elements& elements_;
    Visibility& visibility_;
    const Readouts& readouts_;
    const Layouter& layouter_;
    ProblemLog& problems_;
    std::vector<std::unique_ptr<Effect>> effects_;
    std::unordered_map<const Effect*, ImageLook> pictures_;        ///< of particles that have one
    std::unordered_map<std::string_view, const Effect*> by_name_;  ///< the built-in ones, too
    Pages<OnElement> on_;                                          ///< by element
    std::vector<std::vector<ElementIndex>> by_timer_;              ///< who waits for a timer
    std::vector<ElementIndex> playing_, snapped_;
    std::vector<ElementIndex> with_states_;  ///< those whose bands have effects without an end
    std::vector<Hiding> hiding_;             ///< those that are drawn until an effect has ended
    std::vector<Hidden> hidden_;
    std::vector<Leaving> leaving_;
    std::vector<Request> requests_;
    FlashLimit own_limit_;
    FlashLimit* limit_ = &own_limit_;
    std::unordered_map<ElementIndex, SeenLook> looks_;  ///< of what flashes
    std::vector<ElementIndex> wanted_looks_;
    DisplayGroup scratch_;
    std::vector<FlashPart> scratch_parts_;
    FlashLook scratch_look_;
    Nanoseconds ahead_of_game_{0};
    bool is_limited_ = false, was_limited_ = false;
    bool has_undefined_ = false;  ///< since the last frame
    std::size_t started_ = 0;     ///< in this frame
};

}  // namespace rapido
