// The pips of one kind: how much of each is full, and the effects that run on them.
#pragma once

#include <algorithm>
#include <array>
#include <vector>

#include "element/body.hpp"
#include "rapido/look/effect_player.hpp"

namespace rapido {

/// What happens to a pip.
enum class PipChange : std::uint8_t { nothing, appear, gain, loss };

/// What all pips of one element have in common.
struct PipRules {
    int steps = 1;  ///< in which one becomes full; zero: as far as the value says
    const Effect* appear = nullptr;
    const Effect* gain = nullptr;
    const Effect* loss = nullptr;
    const Effect* shine = nullptr;
    Nanoseconds shine_every{0};
    Nanoseconds shine_step{0};  ///< from one pip to the next
    const Effect* last = nullptr;

    const Effect* effect_of(PipChange change) const;
    bool names(const Effect& effect) const {
        const std::array all{appear, gain, loss, shine, last};
        return std::find(all.begin(), all.end(), &effect) != all.end();
    }
    bool has_effects() const {
        return appear != nullptr || gain != nullptr || loss != nullptr || shine != nullptr || last != nullptr;
    }
};

struct Pip {
    float lit = 0;                          ///< how much of it is full
    float before = 0;                       ///< what was, while a gain or a loss runs
    PipChange runs = PipChange::nothing;    ///< what its effect is for
    PipChange begins = PipChange::nothing;  ///< what it is to begin
    bool leaves = false;                    ///< gone when its effect has run
    std::int64_t shone = 0;                 ///< how often the shine has passed
    bool is_last = false;                   ///< the only one that is not empty
    EffectPlayer player;
};

class PipRow {
 public:
    /// Extra pips are there only while they are full: without places for empty ones.
    explicit PipRow(bool has_empty) : has_empty_(has_empty) {}

    const std::vector<Pip>& pips() const { return pips_; }
    void clear() { pips_.clear(); }
    /// As many as the maximum, as many of them full as the value. `silent`: nothing was gained or lost. True if it looks
    /// different.
    bool set(double value, double max, const PipRules& rules, bool silent);
    /// Lets time pass; `first` is the number of the first one among all of the element. True if it looks different.
    bool advance(const Moment& at, const PipRules& rules, Color color, std::uint32_t first);
    /// Plays what there is to play on the last full one that is left; after `advance`. True if it looks different.
    bool play_last(const Moment& at, const PipRules& rules, Color color);
    /// Whether an effect runs, or is to begin.
    bool is_busy() const;
    /// Lets go of an effect that will not be there any more; false while one of them plays it.
    bool forget(const Effect& effect);

 private:
    void begin(Pip& pip, PipChange change, const PipRules& rules, bool silent);
    bool advance(Pip& pip, const Moment& at, const PipRules& rules, Color color, std::uint32_t number);
    void show_limit(Pip& pip, const Moment& at, Color color);

    bool has_empty_;
    bool is_looked_at_ = false;
    FlashLook look_;  ///< room that is used again
    std::vector<Pip> pips_;
};

}  // namespace rapido
