// Descriptions of what a HUD holds besides its elements.
#pragma once

#include "element/fields.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido RAPIDO_EXPORTED {

inline constexpr std::array mark_fields{
    required_field<&Mark::at>("at", "The time left of a countdown, or passed of a stopwatch.", {"s", 1e-9, 1e9}),
    field<&Mark::every>("every", "The mark comes again after each of these times.", {"s", 0, 1e9}),
};
static_assert(mark_fields.size() == member_count<Mark>);

template <>
inline constexpr std::array<std::string_view, 2> choices_of<TimerKind>{"countdown", "stopwatch"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<TimerState::Run>{"stopped", "running", "paused", "ended"};
template <>
inline constexpr std::array<std::string_view, 6> choices_of<Fit>{"edges", "contain", "cover",
                                                                 "fill",  "none",    "scale-down"};
template <>
inline constexpr std::array<std::string_view, 2> choices_of<FlashRule>{"area", "any_size"};
template <>
inline constexpr Table table_of<Mark>{"mark", mark_fields};

inline constexpr std::array keyframe_fields{
    required_field<&Keyframe::at>("at", "The part of the duration that has passed.", {"", 0, 1}),
    field<&Keyframe::scale>("scale", "The scale around the middle; 1 is at rest.", {"", 0, 100}),
    field<&Keyframe::offset>("offset", "The distance to the right and down.", {"px", -1e5, 1e5}),
    field<&Keyframe::rotation>("rotation", "The rotation, clockwise.", {"degrees", -36000, 36000}),
    field<&Keyframe::opacity>("opacity", "The opacity, which multiplies that of the element.", {"", 0, 1}),
    field<&Keyframe::color>("color", "Replaces all colors of the element."),
    field<&Keyframe::glow>("glow", "How much stronger the glow of the element is; at rest 0.", {"", 0, 1}),
    field<&Keyframe::shine>("shine", "How far a bright stripe is on its way across.", {"", 0, 1}),
    field<&Keyframe::easing>("easing", "The shape of the way to the next keyframe."),
};
static_assert(keyframe_fields.size() == member_count<Keyframe>);
inline constexpr std::array dots_fields{
    field<&Dots::count>("count", "How many dots fly out.", {"", 0, 200}),
    field<&Dots::size>("size", "The size of a dot, across.", {"px", 0, 1000}),
    field<&Dots::color>("color", "The color of the dots."),
};
static_assert(dots_fields.size() == member_count<Dots>);

inline constexpr std::array particles_fields{
    field<&Particles::rate>("rate", "How many particles are born in a second.", {"", 0, 500}),
    field<&Particles::burst>("burst", "How many are born at once when the effect starts, and at each repeat.",
                             {"", 0, 500}),
    field<&Particles::life>("life", "How long a particle lives.", {"s", 0.01, 10}),
    field<&Particles::speed>("speed", "The speed of the fastest at its birth; the slowest has half of it.",
                             {"px/s", 0, 1e5}),
    field<&Particles::direction>("direction", "The direction, clockwise from straight up.", {"degrees", -36000, 36000}),
    field<&Particles::spread>("spread", "How wide they spread around that direction.", {"degrees", 0, 360}),
    field<&Particles::gravity>("gravity", "The acceleration downwards.", {"px/s²", -1e5, 1e5}),
    field<&Particles::anywhere>("anywhere", "Whether they are born anywhere in the element, or in its middle."),
    field<&Particles::size>("size", "The size at birth, across.", {"px", 0, 1000}),
    field<&Particles::end_size>("end_size", "The size at the end.", {"px", 0, 1000}),
    field<&Particles::color>("color", "The color at birth."),
    field<&Particles::end_color>("end_color", "The color at the end; without it, they fade."),
    field<&Particles::image>("image", "An image in place of a dot."),
};
static_assert(particles_fields.size() == member_count<Particles>);
template <>
inline constexpr Table table_of<Particles>{"particles", particles_fields};

template <>
inline constexpr Table table_of<Keyframe>{"keyframe", keyframe_fields};
template <>
inline constexpr Table table_of<Dots>{"dots", dots_fields};

inline constexpr std::array effect_fields{
    required_field<&Effect::id>("id", "The name by which others refer to it."),
    field<&Effect::duration>("duration", "The duration of one run.", {"s", 0.001, 3600}),
    field<&Effect::repeat>("repeat", "How many times the effect runs; zero means until it is stopped.", {"", 0, 10000}),
    field<&Effect::easing>("easing", "The shape of the way from rest to the first keyframe."),
    field<&Effect::keyframes>("keyframes", "The states of the effect, in order of time.", {.most = 64}),
    field<&Effect::scatter>("scatter", "Each offset goes in a random direction, each rotation to a random side."),
    field<&Effect::dots>("dots", "Dots that fly out of the middle."),
    field<&Effect::particles>("particles", "Particles that leave the element while the effect runs."),
    field<&Effect::when_busy>("when_busy", "What the effect does when another one runs."),
    field<&Effect::delay>("delay", "The effect starts so long after its cause.", {"s", 0, 3600}),
    field<&Effect::cool_down>("cool_down", "After a start the effect does not start again for so long.",
                              {"s", 0, 3600}),
    field<&Effect::beat>("beat", "The effect starts at multiples of this time, in step with others.", {"s", 0, 3600}),
    field<&Effect::pivot>("pivot", "The point of the element around which it scales and turns."),
};
static_assert(effect_fields.size() == member_count<Effect>);
inline constexpr Table effect_table{"effect", effect_fields};

inline constexpr std::array timer_fields{
    required_field<&Timer::id>(
        "id", "The name of the timer, which gives the sources ID.left, ID.elapsed, ID.duration and ID.running."),
    field<&Timer::kind>("kind", "Whether the timer counts down or up."),
    field<&Timer::duration>("duration", "The time that a countdown counts from, and at which a stopwatch ends.",
                            {"s", 0, 1e9}),
    field<&Timer::elapsed>("elapsed", "The time that a stopwatch begins at.", {"s", 0, 1e9}),
    field<&Timer::start_when>("start_when", "The timer runs from the full duration each time this becomes true."),
    field<&Timer::pause_when>("pause_when", "The timer stands still while this is true."),
    field<&Timer::speed>("speed", "How fast the timer runs; 1 is as fast as its clock."),
    field<&Timer::loop>("loop", "The timer begins again at its end."),
    field<&Timer::marks>("marks", "Moments that are reported as events.", {.most = 1000}),
    field<&Timer::clock>("clock", "The clock that the timer follows."),
};
inline constexpr std::array frame_meter_fields{
    required_field<&FrameMeter::id>("id",
                                    "The name of the meter, which gives the sources ID.rate, ID.frame_time, "
                                    "ID.average, ID.worst and ID.low."),
    field<&FrameMeter::interval>("interval", "The time over which frames are counted.", {"s", 0.001, 3600}),
};
static_assert(timer_fields.size() == member_count<Timer>);
static_assert(frame_meter_fields.size() == member_count<FrameMeter>);
inline constexpr std::array group_fields{
    required_field<&Group::id>("id", "The name by which others refer to it."),
    field<&Group::visible>("visible", "The elements of the group are shown while this is true."),
    field<&Group::dimmed>("dimmed", "The group is dimmed while this is true."),
    field<&Group::dim>("dim", "The opacity of the group while it is dimmed.", {"", 0, 1}),
    field<&Group::enter>("enter", "The effect with which its elements become visible with the group."),
    field<&Group::leave>("leave", "The effect with which they become hidden with it; without it, enter backwards."),
};
static_assert(group_fields.size() == member_count<Group>);
inline constexpr Table group_table{"group", group_fields};
template <>
inline constexpr std::array<std::string_view, 8> choices_of<SourceType>{"number", "integer", "flag",  "text",
                                                                        "time",   "entries", "color", "image"};
/// Its name is the key of its table, `[source."plane.water"]`; so are those of the fields of entries, `[source.fires.fields.heat]`.
inline constexpr std::array source_fields{
    field<&DeclaredSource::type>("type", "What the value is."),
    field<&DeclaredSource::range>("range",
                                  "The least and the greatest of a number or a time, or of the count of entries."),
    field<&DeclaredSource::sample>("sample", "What the value may be, the usual one first.", {.most = 100}),
    field<&DeclaredSource::unit>("unit", "The unit, for the list of names."),
};
static_assert(source_fields.size() + 2 == member_count<DeclaredSource>);
inline constexpr Table source_table{"source", source_fields};
inline constexpr Table timer_table{"timer", timer_fields};
inline constexpr Table frame_meter_table{"frame_meter", frame_meter_fields};

/// A power of ten is counted in a byte, and each name is for three of them.
inline constexpr std::size_t most_names = 40;

inline constexpr std::array language_fields{
    required_field<&LanguageOptions::language>("language", "The BCP 47 tag of the language."),
    field<&LanguageOptions::font>("font", "A family or a list of families that replaces the HUD's."),
    field<&LanguageOptions::compact_names>("compact_names", "Names in compact numbers that replace those of the HUD.",
                                           {.most = most_names}),
};
static_assert(language_fields.size() == member_count<LanguageOptions>);
inline constexpr Table language_table{"language", language_fields};

inline constexpr std::array accepted_fields{
    field<&Accepted::element>("element", "The path of the element; without one, what belongs to no element."),
    required_field<&Accepted::code>("code", "The word in brackets behind the finding."),
    required_field<&Accepted::why>("why", "Why it is meant so."),
};
static_assert(accepted_fields.size() == member_count<Accepted>);
inline constexpr Table accepted_table{"accept", accepted_fields};

inline constexpr std::array text_style_fields{
    required_field<&TextStyle::id>("id", "The name by which pieces of texts refer to it."),
    field<&TextStyle::color>("color", "The color of the characters."),
    field<&TextStyle::font>("font", "A family or a list of families."),
    field<&TextStyle::weight>("weight", "The weight of the font.", {"", 1, 1000}),
    field<&TextStyle::italic>("italic", "Whether the font is italic."),
    field<&TextStyle::size>("size", "The size of the font.", {"px", 1, largest_length}),
};
static_assert(text_style_fields.size() == member_count<TextStyle>);
inline constexpr Table text_style_table{"style", text_style_fields};

inline constexpr std::array top_fields{
    field<&HudDefinition::design>("design", "The size of the screen that offsets and sizes were chosen for.",
                                  {"px", 1, 1e5}),
    field<&HudDefinition::fit>("fit", "How the design is fitted to a window, as CSS object-fit says."),
    field<&HudDefinition::whole_scale>("whole_scale", "Only whole scales and their reciprocals are used."),
    field<&HudDefinition::margin>("margin", "The distance between the edges of the screen and the anchors.",
                                  {"px", 0, 1e5}),
    field<&HudDefinition::mirror>("mirror",
                                  "Left and right change places in languages that are written from right to left."),
    field<&HudDefinition::flash_limit>(
        "flash_limit", "Which flashes count: those that cover much of what the player sees, or those of any size."),
    field<&HudDefinition::font>("font", "The family of texts that name none, or a list of families."),
    field<&HudDefinition::font_files>(
        "font_files", "Files of fonts in the folder of the HUD that texts may name by their family.", {.most = 100}),
    field<&HudDefinition::compact_names>(
        "compact_names",
        "Names in compact numbers, each for three more powers of ten; without any, those of the language.",
        {.most = most_names}),
};
inline constexpr Table top_table{"the HUD", top_fields};

}  // namespace rapido
