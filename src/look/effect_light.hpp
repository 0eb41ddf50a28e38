// The light of an element on which effects play.
#pragma once

#include "look/flash_light.hpp"
#include "rapido/look/effect_player.hpp"

namespace rapido {

/// Properties of a pose, as bits.
namespace effect_property {
enum Bits : std::uint8_t {
    scale = 1,
    offset = 2,
    rotation = 4,
    opacity = 8,
    color = 16,
    shine = 32,
    dots = 64,
    glow = 128,
};
}  // namespace effect_property

/// What is left of an earlier pose has settled after this time.
inline constexpr Nanoseconds residual_length{360'000'000};

/// What of an element may flash, how its light has changed, and what the limit holds.
struct EffectPlayer::Light {
    /// One color on one ground.
    struct Track {
        LightTrack bright;
        RedTrack red;
        void go_on(Nanoseconds now) {
            bright.go_on(now);
            red.go_on(now);
        }
    };
    /// A pair of a part on a ground.
    struct Found {
        FlashPair pair;
        std::size_t track;
        float area;
        bool is_half = false;  ///< only its first change is known
        bool is_red = false;
    };
    /// From `from` to `to` the pose is the one of `at`.
    struct Hold {
        Nanoseconds at, from, to;
        friend bool operator==(const Hold&, const Hold&) = default;
    };

    /// A flash that the limit has taken on.
    struct Taken {
        std::size_t part;
        Nanoseconds begin, end;
        bool is_red = false;
    };

    class Plan;
    struct Scratch;
    static thread_local Scratch scratch;

    static constexpr int most_holds = 12;  ///< of one plan

    explicit Light(Color color) {
        set_color(color);
        holds.reserve(most_holds + 4);
        taken.reserve(32);
        shown_flashes.reserve(32);
    }

    FlashLook look;
    bool is_known = true;                   ///< the look is that of what is drawn
    Before before;                          ///< the last change of what runs
    Nanoseconds planned{0};                 ///< when that was
    std::uint32_t owner = 0;                ///< of the limit
    bool is_followed = false;               ///< there is a moment up to which the light is known
    bool is_absent = false;                 ///< until something runs again nothing of the element is there
    Nanoseconds followed{0};                ///< up to here
    Nanoseconds drawn{Nanoseconds::min()};  ///< at this moment a frame was drawn
    std::vector<std::uint16_t> counted;     ///< the numbers of parts of which there is enough to be looked at, in order
    std::vector<Track> tracks;              ///< for each part, its light around it and its motion, on each ground
    std::vector<Hold> holds;                ///< in order
    std::vector<Taken> taken;               ///< within the last second, in order
    // What frames have really shown.
    std::vector<Track> shown;
    bool is_shown = false;             ///< they have followed `last_shown`, of this look
    std::vector<Taken> shown_flashes;  ///< within the last second
    std::optional<Pose> last_shown;
    std::optional<Pose> instead;  ///< at the moment of the frame, in place of what is due
    Nanoseconds instead_at{Nanoseconds::min()};

    void set_look(const FlashLook& given) {
        look = given;
        find_counted();
    }
    /// Of an unknown size.
    void set_color(Color color) {
        look.parts.assign(1, {.color = color});
        look.glow.reset();
        find_counted();
    }
    void forget_look() {
        look.parts.clear();
        look.glow.reset();
        find_counted();
    }
    void find_counted();

    /// The moment whose pose is seen at `now`.
    Nanoseconds held_at(Nanoseconds now) const {
        for (const Hold& hold : holds)
            if (now >= hold.from && now < hold.to) return hold.at;
        return now;
    }
    void forget() {
        is_followed = is_absent = false;
        holds.clear();
        taken.clear();
        shown_flashes.clear();
        last_shown.reset();
        instead.reset();
    }
    /// For each part: itself, and the strips at its four sides over which it moves; then the light around all.
    static constexpr std::size_t places = 5;
    std::size_t part_count() const { return look.parts.size() * places + (look.glow ? 1 : 0); }
    bool is_glow(std::size_t number) const { return number >= look.parts.size() * places; }
    bool is_strip(std::size_t number) const { return !is_glow(number) && number % places > 0; }
    const FlashPart& part(std::size_t number) const {
        return is_glow(number) ? *look.glow : look.parts[number / places];
    }
    /// Whether there is enough of it to be looked at.
    bool counts(std::size_t number) const;
    std::size_t ground_count() const { return look.settings.ground ? 1 : 2; }
    Color ground(std::size_t number) const {
        return look.settings.ground ? *look.settings.ground : number == 0 ? rgb(0x000000) : rgb(0xffffff);
    }
    /// How much of the place of a part is covered at a pose: of a strip beside it all, half or nothing.
    enum class Covered : std::uint8_t { all, half, nothing };
    Covered covered(std::size_t number, const Pose& pose) const;
    /// Whether two poses differ in nothing but where the element is.
    static bool is_same_light(const Pose& a, const Pose& b) {
        return a.opacity == b.opacity && a.color == b.color && a.color_part == b.color_part && a.glow == b.glow;
    }
    bool is_seen_same(const Pose& a, const Pose& b) const;
    /// What is seen of a track at a pose; null where nothing of the element is there.
    Color color_of(std::size_t track, const Pose* pose) const {
        const Color behind = ground(track % ground_count());
        const std::size_t number = track / ground_count();
        return pose != nullptr ? seen(number, behind, *pose, covered(number, *pose)) : behind;
    }
    void see(Nanoseconds now, const Pose* pose);
    template <class Note>
    void follow(std::vector<Track>& all, Note note) const;
    float reach(std::size_t number, const Pose& pose) const;
    float strip_length(std::size_t number) const;
    Color seen(std::size_t part, Color ground, const Pose& pose, Covered covered) const;
    void begin(const Pose& seen);
    bool goes_on_as_shown(Nanoseconds now, const Pose& pose);
    bool is_refused(FlashLimit& limit, Nanoseconds now, const Pose& pose);
};

}  // namespace rapido
