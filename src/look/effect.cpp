#include "rapido/look/effect.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rapido {
namespace {

/// The two keyframes around a moment that give a property, and how far it is from one to the other; null is rest.
struct Between {
    const Keyframe* from = nullptr;
    const Keyframe* to = nullptr;
    double part = 0;
};

/// An effect at one moment. Most properties stand in the same keyframes, so that one easing serves them all.
class Moment {
 public:
    Moment(const Effect& effect, double progress) : effect_(effect), progress_(progress) {}

    template <class T>
    Between around(std::optional<T> Keyframe::*property) {
        Between found;
        for (const Keyframe& frame : effect_.keyframes) {
            if (!(frame.*property)) continue;
            if (frame.at <= progress_) found.from = &frame;
            if (frame.at > progress_ && found.to == nullptr) found.to = &frame;
        }
        if (found.from == nullptr && found.to == nullptr) return found;
        if (found.from == last_.from && found.to == last_.to) return last_;
        const double start = found.from != nullptr ? found.from->at : 0;
        const double end = found.to != nullptr ? found.to->at : 1;
        const double part = end > start ? (progress_ - start) / (end - start) : 1;
        found.part = (found.from != nullptr ? found.from->easing : effect_.easing).at(part);
        return last_ = found;
    }
    float number(std::optional<float> Keyframe::*property, float rest) {
        const Between found = around(property);
        if (found.from == nullptr && found.to == nullptr) return rest;
        const float from = found.from != nullptr ? *(found.from->*property) : rest;
        const float to = found.to != nullptr ? *(found.to->*property) : rest;
        return from + (to - from) * static_cast<float>(found.part);
    }
    void add_tint(Pose& pose);

 private:
    const Effect& effect_;
    double progress_;
    Between last_;
};

class Chance {
 public:
    Chance(const Effect& effect, std::uint32_t seed) : effect_(effect), seed_(seed) {}

    Point offset(const Keyframe* frame) const {
        if (frame == nullptr) return {};
        if (!effect_.scatter) return *frame->offset;
        const double angle = 2 * std::numbers::pi * chance(seed_, index(frame));
        const auto length = static_cast<double>(std::hypot(frame->offset->x, frame->offset->y));
        return {static_cast<float>(length * std::cos(angle)), static_cast<float>(length * std::sin(angle))};
    }
    float rotation(const Keyframe* frame) const {
        if (frame == nullptr) return 0;
        return effect_.scatter && chance(~seed_, index(frame)) < 0.5 ? -*frame->rotation : *frame->rotation;
    }

 private:
    std::uint32_t index(const Keyframe* frame) const {
        return static_cast<std::uint32_t>(frame - effect_.keyframes.data());
    }
    const Effect& effect_;
    std::uint32_t seed_;
};

std::vector<Effect> make_built_in() {
    const Easing in = Easing::ease_in(), out = Easing::ease_out(), both = Easing::ease_in_out();
    const Color white = rgb(0xffffff);
    return {
        {.id = "swell",
         .duration = Seconds{0.28},
         .easing = out,
         .keyframes = {{.at = 0.3, .scale = 1.22F, .easing = both}, {.at = 1, .scale = 1.0F}},
         .when_busy = WhenBusy::interrupt},
        {.id = "flash", .duration = Seconds{0.3}, .keyframes = {{.at = 0, .color = white, .easing = out}}},
        {.id = "shake",
         .duration = Seconds{0.4},
         .keyframes = {{.at = 0.1, .offset = Point{9, 0}, .rotation = 2.5F},
                       {.at = 0.25, .offset = Point{8, 0}, .rotation = 2.0F},
                       {.at = 0.4, .offset = Point{6, 0}, .rotation = 1.5F},
                       {.at = 0.55, .offset = Point{4, 0}, .rotation = 1.0F},
                       {.at = 0.7, .offset = Point{2.5F, 0}, .rotation = 0.5F},
                       {.at = 0.85, .offset = Point{1, 0}}},
         .scatter = true},
        {.id = "fade", .duration = Seconds{0.5}, .keyframes = {{.at = 0, .opacity = 0.0F, .easing = both}}},
        {.id = "pulse",
         .duration = Seconds{1},
         .repeat = 0,
         .easing = both,
         .keyframes = {{.at = 0.5, .scale = 1.06F, .opacity = 0.75F, .easing = both}},
         .when_busy = WhenBusy::drop,
         .beat = Seconds{1}},
        {.id = "blink",
         .duration = Seconds{0.8},
         .repeat = 3,
         .easing = Easing::steps(1),
         .keyframes = {{.at = 0.5, .opacity = 0.25F, .easing = Easing::steps(1)}},
         .when_busy = WhenBusy::drop},
        {.id = "shine",
         .duration = Seconds{0.7},
         .keyframes = {{.at = 0, .shine = 0.0F, .easing = in}, {.at = 1, .shine = 1.0F}},
         .when_busy = WhenBusy::wait},
        {.id = "burst",
         .duration = Seconds{0.6},
         .keyframes = {{.at = 0, .scale = 1.0F, .offset = Point{0, 0}, .easing = out},
                       {.at = 0.5, .opacity = 1.0F, .easing = in},
                       {.at = 1, .scale = 0.3F, .offset = Point{70, 0}, .opacity = 0.0F}},
         .dots = {.count = 14, .size = 8}},
    };
}

void Moment::add_tint(Pose& pose) {
    const Between tint = around(&Keyframe::color);
    const auto tinted = static_cast<float>(std::clamp(tint.part, 0.0, 1.0));
    if (tint.from != nullptr && tint.to != nullptr) {
        pose.color = mix(*tint.from->color, *tint.to->color, tint.part);
        pose.color_part = 1;
    } else if (tint.from != nullptr) {
        pose.color = *tint.from->color;
        pose.color_part = 1 - tinted;
    } else if (tint.to != nullptr) {
        pose.color = *tint.to->color;
        pose.color_part = tinted;
    }
}

}  // namespace

/// A finalizer of avalanche type (Steele and Flood 2014, the mixing steps of SplitMix).
double chance(std::uint32_t seed, std::uint32_t index) {
    std::uint64_t bits = (std::uint64_t{seed} << 32 | index) + 0x9e3779b97f4a7c15U;
    bits = (bits ^ (bits >> 30)) * 0xbf58476d1ce4e5b9U;
    bits = (bits ^ (bits >> 27)) * 0x94d049bb133111ebU;
    bits ^= bits >> 31;
    return static_cast<double>(bits >> 11) * 0x1p-53;
}

Pose pose_of(const Effect& effect, double progress, float strength, std::uint32_t seed) {
    constexpr float strongest = 100;
    progress = progress > 0 ? std::min(progress, 1.0) : 0;
    strength = std::isfinite(strength) ? std::clamp(strength, -strongest, strongest) : 0;
    Pose pose;
    Moment now(effect, progress);
    pose.scale = 1 + (now.number(&Keyframe::scale, 1) - 1) * strength;
    pose.opacity = std::clamp(1 + (now.number(&Keyframe::opacity, 1) - 1) * strength, 0.0F, 1.0F);

    const Chance chance_of(effect, seed);
    const Between turn = now.around(&Keyframe::rotation);
    const float from = chance_of.rotation(turn.from);
    pose.rotation = (from + (chance_of.rotation(turn.to) - from) * static_cast<float>(turn.part)) * strength;
    const Between way = now.around(&Keyframe::offset);
    const Point a = chance_of.offset(way.from);
    const Point b = chance_of.offset(way.to);
    const auto part = static_cast<float>(way.part);
    pose.offset = {(a.x + (b.x - a.x) * part) * strength, (a.y + (b.y - a.y) * part) * strength};

    pose.glow = std::clamp(now.number(&Keyframe::glow, 0) * strength, 0.0F, 1.0F);
    now.add_tint(pose);
    pose.color_part *= std::clamp(strength, 0.0F, 1.0F);

    const Between shine = now.around(&Keyframe::shine);
    if (shine.from != nullptr && shine.to != nullptr) pose.shine = now.number(&Keyframe::shine, 0);
    return pose;
}

Pose light_of(const Effect& effect, double progress) {
    progress = progress > 0 ? std::min(progress, 1.0) : 0;
    Pose pose;
    Moment now(effect, progress);
    pose.opacity = std::clamp(now.number(&Keyframe::opacity, 1), 0.0F, 1.0F);
    pose.glow = std::clamp(now.number(&Keyframe::glow, 0), 0.0F, 1.0F);
    now.add_tint(pose);
    return pose;
}

std::span<const Effect> built_in_effects() {
    static const std::vector<Effect> effects = make_built_in();
    return effects;
}

}  // namespace rapido
