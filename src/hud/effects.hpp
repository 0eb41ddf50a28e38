// Effects in the frame: what starts them, and what they do to the elements that they run on.
#pragma once

#include <functional>
#include <memory>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include "hud/definition_tables.hpp"
#include "hud/frame_time.hpp"
#include "hud/layouter.hpp"
#include "hud/trigger.hpp"
#include "hud/visibility.hpp"
#include "rapido/look/effect_player.hpp"

namespace rapido {

/// What the effects on an element and around it do to what it draws.
struct Moved {
    Transform transform;
    Tint tint;
    float opacity = 1;
};

/// The effects of one element.
struct ElementEffects {
    struct Trigger {
        CompiledTrigger on;
        const Effect* effect = nullptr;
        double full_change = 0;
    };
    EffectPlayer player;
    std::vector<Trigger> triggers;
    std::vector<const Effect*> of_bands;  ///< by band; null where it has none, and empty where none has
    const Effect* enter = nullptr;        ///< of a notice, with each message
    const Effect* leave = nullptr;
    std::uint32_t plays = 0;
    bool is_playing = false;
};

/// Owns the effects of a HUD by name, and those that run on its elements. Effects of every cause start in one place.
class Effects {
 public:
    Effects(Elements& elements, const Visibility& visibility, const Layouter& layouter, ProblemLog& problems);

    // Between frames

    /// Adds an effect of the definition; `fine` if its numbers are in their ranges.
    void define(const Effect& effect, bool fine, const Origin* origin);
    /// Returns the HUD's own effect of a name, or the built-in one; null, with a problem, for none.
    const Effect* find(std::string_view name, Problem& problem) const;
    /// Null for an element that has nothing to play of itself.
    void add(ElementIndex index, std::unique_ptr<ElementEffects> effects);
    void remove(ElementIndex index);
    /// Forgets those that were removed.
    void free_removed();
    /// Starts an effect at once. False if it is dropped.
    bool play(ElementIndex index, const Effect& effect, Nanoseconds at, float strength,
              PlayAs as = PlayAs::effect);
    void stop(ElementIndex index, const Effect& effect, Nanoseconds at);
    /// Lets an element leave; with an effect that plays, once that has run backwards.
    void leave(ElementIndex index, const Effect* effect, Nanoseconds now);
    bool is_leaving(ElementIndex index) const;
    void set_reduced_motion(bool reduced);
    bool reduced_motion() const { return reduced_motion_; }
    void set_limit(FlashLimit& limit);
    FlashLimit* limit() { return limit_; }

    // In a frame

    /// An element takes its present as given: what runs on it ends, and what happened to it before in this frame starts
    /// nothing.
    void snap(ElementIndex index);
    /// Calls `gone` for those that leave, do not move any more, and whose effect has ended.
    void take_left(Nanoseconds now, const std::function<bool(ElementIndex)>& moves,
                   const std::function<void(ElementIndex)>& gone);
    /// What happened starts effects, each at its own time: they have run since then.
    void start(std::span<const Happening> happenings);
    /// Moves the elements on which effects run, and all that stands inside them.
    void advance(Nanoseconds now);

    // Drawing

    Pose pose(ElementIndex index, Nanoseconds now) const;
    Moved moved(ElementIndex index, Nanoseconds now) const;
    /// Draws what an effect draws besides: a stripe of light, dots.
    void draw_over(ElementIndex index, Nanoseconds now, const Rect& box, DrawGroup& into) const;

 private:
    struct Leaving {
        ElementIndex index;
        const Effect* effect;  ///< null for none
    };
    struct OnElement {
        std::unique_ptr<ElementEffects> own;  ///< null where there is nothing to play
        bool moves = false;                   ///< by an effect, its own or one around it
        bool snapped = false;                 ///< in this frame
    };
    ElementEffects& made_for(ElementIndex index);
    void start(ElementIndex index, const Happening& happening);
    void start_message(ElementIndex index, const Happening& happening);

    Elements& elements_;
    const Visibility& visibility_;
    const Layouter& layouter_;
    ProblemLog& problems_;
    std::vector<std::unique_ptr<const Effect>> effects_;
    std::unordered_map<std::string_view, const Effect*> by_name_;  ///< the built-in ones, too
    std::vector<OnElement> on_;                                    ///< by element
    std::vector<std::vector<ElementIndex>> by_timer_;              ///< who waits for a timer
    std::vector<ElementIndex> playing_, snapped_;
    std::vector<Leaving> leaving_;
    FlashLimit own_limit_;
    FlashLimit* limit_ = &own_limit_;
    bool reduced_motion_ = false;
    std::size_t started_ = 0;  ///< in this frame
};

}  // namespace rapido
