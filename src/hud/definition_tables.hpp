// Descriptions of what a HUD holds besides its elements.
#pragma once

#include "element/fields.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido {

inline constexpr std::array mark_fields{
    required_field<&Mark::at>("at", "time left of a countdown, time passed of a stopwatch", {"s", 1e-9, 1e9}),
    field<&Mark::every>("every", "and again after each of these", {"s", 0, 1e9}),
};
static_assert(mark_fields.size() == member_count<Mark>);

template <>
struct Choices<TimerKind> {
    static constexpr std::array<std::string_view, 2> names{"countdown", "stopwatch"};
};
template <>
struct Choices<Fit> {
    static constexpr std::array<std::string_view, 6> names{"edges", "contain", "cover",
                                                           "fill",  "none",    "scale_down"};
};
template <>
struct Description<Mark> {
    static constexpr Table table{"mark", mark_fields};
};

inline constexpr std::array keyframe_fields{
    required_field<&Keyframe::at>("at", "part of the duration", {"", 0, 1}),
    field<&Keyframe::scale>("scale", "around the middle; 1 is at rest", {"", 0, 100}),
    field<&Keyframe::offset>("offset", "to the right and down", {"px", -1e5, 1e5}),
    field<&Keyframe::rotation>("rotation", "clockwise", {"degrees", -36000, 36000}),
    field<&Keyframe::opacity>("opacity", "on top of the element's", {"", 0, 1}),
    field<&Keyframe::color>("color", "replaces all colors of the element"),
    field<&Keyframe::shine>("shine", "where a bright stripe is on its way across", {"", 0, 1}),
    field<&Keyframe::easing>("easing", "of the way to the next keyframe"),
};
static_assert(keyframe_fields.size() == member_count<Keyframe>);
inline constexpr std::array dots_fields{
    field<&Dots::count>("count", "how many fly out", {"", 0, 200}),
    field<&Dots::size>("size", "across", {"px", 0, 1000}),
    field<&Dots::color>("color", "of the dots"),
};
static_assert(dots_fields.size() == member_count<Dots>);

template <>
struct Description<Keyframe> {
    static constexpr Table table{"keyframe", keyframe_fields};
};
template <>
struct Description<Dots> {
    static constexpr Table table{"dots", dots_fields};
};

inline constexpr std::array effect_fields{
    required_field<&Effect::id>("id", "its name"),
    field<&Effect::duration>("duration", "of one run", {"s", 0.001, 3600}),
    field<&Effect::repeat>("repeat", "how many times it runs; zero: until it is stopped", {"", 0, 10000}),
    field<&Effect::easing>("easing", "of the way to the first keyframe"),
    field<&Effect::keyframes>("keyframes", "its states, in order of time", {.most = 64}),
    field<&Effect::scatter>("scatter",
                            "each offset goes in a random direction, each rotation to a random side"),
    field<&Effect::dots>("dots", "that fly out of the middle"),
    field<&Effect::when_busy>("when_busy", "what it does when another one runs"),
    field<&Effect::cool_down>("cool_down", "it does not start again for so long", {"s", 0, 3600}),
    field<&Effect::beat>("beat", "it starts at multiples of this", {"s", 0, 3600}),
};
static_assert(effect_fields.size() == member_count<Effect>);
inline constexpr Table effect_table{"effect", effect_fields};

inline constexpr std::array timer_fields{
    required_field<&Timer::id>("id",
                               "its name; it gives the sources ID.left, ID.elapsed, ID.duration, ID.running"),
    field<&Timer::kind>("kind", "whether it counts down or up"),
    field<&Timer::duration>("duration", "what it counts down from; where a stopwatch ends", {"s", 0, 1e9}),
    field<&Timer::begin>("begin", "what a stopwatch begins at", {"s", 0, 1e9}),
    field<&Timer::start>("start", "runs from the full duration each time this becomes true"),
    field<&Timer::pause>("pause", "stands still while this is true"),
    field<&Timer::speed>("speed", "how fast it runs; 1 is like its clock"),
    field<&Timer::loop>("loop", "begins again at its end"),
    field<&Timer::marks>("marks", "moments that are reported", {.most = 1000}),
    field<&Timer::clock>("clock", "which it follows"),
};
inline constexpr std::array meter_fields{
    required_field<&Meter::id>("id", "its name; it gives the source ID.rate"),
    field<&Meter::interval>("interval", "over which frames are counted", {"s", 0.001, 3600}),
};
static_assert(timer_fields.size() == member_count<Timer>);
static_assert(meter_fields.size() == member_count<Meter>);
inline constexpr std::array group_fields{
    required_field<&Group::id>("id", "its name"),
    field<&Group::visible>("visible", "its elements are shown while this is true"),
    field<&Group::dimmed>("dimmed", "dimmed while this is true"),
    field<&Group::dim>("dim", "opacity while dimmed", {"", 0, 1}),
};
static_assert(group_fields.size() == member_count<Group>);
inline constexpr Table group_table{"group", group_fields};
inline constexpr Table timer_table{"timer", timer_fields};
inline constexpr Table meter_table{"meter", meter_fields};

inline constexpr std::array locale_fields{
    required_field<&LocaleFont::locale>("locale", "a BCP 47 tag"),
    required_field<&LocaleFont::font>("font", "a family or a list of them, instead of the HUD's"),
};
static_assert(locale_fields.size() == member_count<LocaleFont>);
inline constexpr Table locale_table{"locale", locale_fields};

inline constexpr std::array top_fields{
    field<&HudDefinition::design>("design", "the screen that offsets and sizes were chosen for",
                                  {"px", 1, 1e5}),
    field<&HudDefinition::fit>("fit", "how it is fitted to a window"),
    field<&HudDefinition::whole_scale>("whole_scale", "only whole scales and their reciprocals"),
    field<&HudDefinition::margin>("margin", "between the edges and the anchors", {"px", 0, 1e5}),
    field<&HudDefinition::mirror>("mirror", "left and right change places in languages from right to left"),
    field<&HudDefinition::font>("font", "the family of texts that name none, or a list of them"),
};
inline constexpr Table top_table{"the HUD", top_fields};

}  // namespace rapido
