// Descriptions of the aggregates that elements share.
#pragma once

#include <span>

#include "base/fields.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/element/at_end.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/text.hpp"
#include "rapido/element/ticks.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/flow.hpp"
#include "rapido/look/band.hpp"
#include "rapido/look/effect.hpp"
#include "rapido/motion/motion.hpp"
#include "rapido/motion/trail.hpp"
#include "rapido/pace/pace.hpp"

namespace rapido RAPIDO_EXPORTED {

// clang-format off
template <> struct FieldTypeOf<Source> : KnownFieldType<FieldType::source> {};
template <> struct FieldTypeOf<Amount> : KnownFieldType<FieldType::amount> {};
template <> struct FieldTypeOf<ImageName> : KnownFieldType<FieldType::image> {};
template <> struct FieldTypeOf<Shift> : KnownFieldType<FieldType::amounts> {};
template <> struct FieldTypeOf<KeptValue> : KnownFieldType<FieldType::value> {};
template <> struct FieldTypeOf<Easing> : KnownFieldType<FieldType::easing> {};
template <> struct FieldTypeOf<Limits> : KnownFieldType<FieldType::limits> {};
template <> struct FieldTypeOf<std::vector<KeptValue>> : KnownFieldType<FieldType::values> {};
template <> struct FieldTypeOf<std::vector<NamedSource>> : KnownFieldType<FieldType::sources> {};
template <> inline constexpr bool is_list<std::vector<NamedSource>> = false;
// clang-format on

/// The largest size of a font, a corner or a line: more than any screen, and far from overflow.
inline constexpr double largest_length = 1e4;

template <>
inline constexpr std::array<std::string_view, 2> choices_of<Blend>{"normal", "add"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<Wrap>{"nowrap", "wrap", "balance"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<TextTransform>{"none", "uppercase", "lowercase"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<Stretch>{"none", "width", "height", "both"};
template <>
inline constexpr std::array<std::string_view, 9> choices_of<Anchor>{
    "top_left", "top", "top_right", "left", "center", "right", "bottom_left", "bottom", "bottom_right"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<Layout>{"free", "row", "column", "grid"};
template <>
inline constexpr std::array<std::string_view, 6> choices_of<Align>{"anchor", "start",   "center",
                                                                   "end",    "stretch", "baseline"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<Justify>{"start", "center", "end", "space-between"};
template <>
inline constexpr std::array<std::string_view, 5> choices_of<TextAlign>{"automatic", "start", "center", "end", "digits"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<Overflow>{"visible", "clip", "ellipsis", "shrink"};
template <>
inline constexpr std::array<std::string_view, 5> choices_of<Rounding>{"automatic", "nearest", "down", "up", "honest"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<WhenNoValue>{"placeholder", "hide", "remove"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<MotionKind>{"instant", "tween", "spring", "roll"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<Pick>{"last", "average", "minimum", "maximum"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<EdgeUnit>{"automatic", "value", "ratio"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<BandReads>{"target", "truth", "shown"};
template <>
inline constexpr std::array<std::string_view, 2> choices_of<FillPattern>{"plain", "stripes"};
template <>
inline constexpr std::array<std::string_view, 2> choices_of<ClockKind>{"real", "game"};
template <>
inline constexpr std::array<std::string_view, 9> choices_of<TriggerOn>{
    "gain", "loss", "empty", "full", "band_enter", "band_leave", "start", "mark", "end"};
template <>
inline constexpr std::array<std::string_view, 3> choices_of<WhenBusy>{"interrupt", "wait", "drop"};
template <>
inline constexpr std::array<std::string_view, 9> choices_of<Shape>{"box",   "circle", "diamond", "hexagon",    "drop",
                                                                   "heart", "person", "flask",   "thermometer"};
template <>
inline constexpr std::array<std::string_view, 4> choices_of<Direction>{"right", "left", "up", "down"};

inline constexpr std::array motion_fields{
    field<&Motion::kind>("kind", "How the shown value travels."),
    field<&Motion::duration>("duration",
                             "The duration of a tween, the settling time of a spring, the longest duration of a roll.",
                             {"s", 0, 3600}),
    field<&Motion::easing>("easing", "The shape of a flight from rest, of a tween or a roll."),
    field<&Motion::damping>("damping", "The damping ratio of a spring; 1 is critical.", {"", 0.05, 20}),
    field<&Motion::shortest>("shortest", "The time that a roll takes for a jump of one unit.", {"s", 0, 3600}),
    field<&Motion::full_duration_at>("full_duration_at", "The jump for which a roll takes its whole duration.",
                                     {"", 1, 1e18}),
};
inline constexpr std::array pace_fields{
    field<&Pace::settle>("settle", "A change passes when the value has been quiet for so long.", {"s", 0, 3600}),
    field<&Pace::settle_cap>("settle_cap", "The longest wait; zero means four times settle.", {"s", 0, 3600}),
    field<&Pace::interval>("interval", "Changes pass at multiples of this time.", {"s", 0, 3600}),
    field<&Pace::pick>("pick", "Which of the values in an interval passes."),
    field<&Pace::quantize>("quantize", "The value passes as the nearest multiple of this.", {"", 0, 1e18}),
    field<&Pace::smallest_change>("smallest_change", "A smaller change is held back.", {"", 0, 1e18}),
};
inline constexpr std::array trail_fields{
    field<&Trail::delay>("delay", "The time before the trail drains; zero means no trail.", {"s", 0, 3600}),
    field<&Trail::duration>("duration", "The time that the trail takes to drain.", {"s", 0, 3600}),
    field<&Trail::easing>("easing", "The shape of the drain."),
    field<&Trail::color>("color", "The color of what was lost."),
};
inline constexpr std::array at_end_fields{
    field_of_element<&AtEnd::element>("element", "The element whose middle lies where the fill ends."),
    field<&AtEnd::turned>("turned", "Whether it is turned to look along the way of the fill."),
};
inline constexpr std::array place_fields{
    field<&Place::anchor>("anchor",
                          "The point of the screen or panel that the element hangs on; without it, that of its kind."),
    field<&Place::offset>("offset",
                          "The distance inwards from the anchored edges; zero without an anchor is that of the kind.",
                          {"px", -1e5, 1e5}),
    field<&Place::pivot>("pivot", "The point of the element that hangs there; without it, the same as the anchor."),
    field<&Place::size>(
        "size", "The smallest width and height; zero means as large as the content, or as the kind is by itself.",
        {"px", 0, 1e5}),
    field<&Place::max_size>("max_size", "The largest width and height; zero is without a limit.", {"px", 0, 1e5}),
    field<&Place::stretch>("stretch", "The axes along which the element takes all the room of its area."),
    field<&Place::margin>("margin", "The room that is kept between the element and the edges of its area.",
                          {"px", -1e5, 1e5}),
    field<&Place::grow>("grow", "The element's part of the spare room along a row, column or grid.", {"", 0, 1e6}),
};
inline constexpr std::array plural_fields{
    field<&PluralForms::zero>("zero", "The pattern for the plural category zero."),
    field<&PluralForms::one>("one", "The pattern for the plural category one."),
    field<&PluralForms::two>("two", "The pattern for the plural category two."),
    field<&PluralForms::few>("few", "The pattern for the plural category few."),
    field<&PluralForms::many>("many", "The pattern for the plural category many."),
};
static_assert(plural_fields.size() == member_count<PluralForms>);
static_assert(motion_fields.size() == member_count<Motion>);
static_assert(pace_fields.size() == member_count<Pace>);
static_assert(trail_fields.size() == member_count<Trail>);
static_assert(place_fields.size() == member_count<Place>);
static_assert(at_end_fields.size() == member_count<AtEnd>);

template <>
inline constexpr Table table_of<Motion>{"motion", motion_fields};
inline constexpr std::array band_fields{
    field<&Band::id>("id", "The name of the band in the events band_enter and band_leave."),
    field<&Band::when>("when", "The band holds while this is true."),
    field<&Band::is>("is", "The band holds while the value is this text, flag or number."),
    field<&Band::above>("above", "The value is inside at this amount or more.", {"", -1e300, 1e300}),
    field<&Band::below>("below", "The value is inside at this amount or less.", {"", -1e300, 1e300}),
    field<&Band::hysteresis>("hysteresis", "How far beyond its edge a value must be to leave the band.",
                             {"", 0, 1e300}),
    field<&Band::edge_unit>("edge_unit", "What the edges mean: amounts, or parts of the maximum."),
    field<&Band::reads>("reads", "The value that the band reads: true, let through by pace, or shown."),
    field<&Band::color>("color", "The color of the element inside the band."),
    field<&Band::all>("all", "The color multiplies all colors of the element and of what stands inside."),
    field<&Band::opacity>("opacity", "The opacity of the element and of what stands inside, besides its own.",
                          {"", 0, 1}),
    field<&Band::fade>("fade", "How long the change of color and opacity takes.", {"s", 0, 3600}),
    field<&Band::visible>("visible", "Whether the element is shown inside the band, whatever its source says."),
    field<&Band::format>("format", "The pattern of a text inside the band."),
    field<&Band::image>("image", "The file of an image inside the band."),
    field<&Band::pattern>("pattern", "The pattern of a fill inside the band."),
    field<&Band::motion>("motion", "The motion to new targets inside the band."),
    field<&Band::effect>("effect",
                         "The effect that starts when the value enters the band; an endless one ends when "
                         "the value leaves it."),
};
static_assert(band_fields.size() == member_count<Band>);
template <>
inline constexpr Table table_of<Band>{"band", band_fields};
template <>
inline constexpr Table table_of<Pace>{"pace", pace_fields};
template <>
inline constexpr Table table_of<AtEnd>{"at_end", at_end_fields};
template <>
inline constexpr Table table_of<Trail>{"trail", trail_fields};
inline constexpr std::array trigger_fields{
    field<&Trigger::on>("on", "What starts the effect."),
    required_field<&Trigger::effect>("effect", "The id of the effect that starts."),
    field<&Trigger::source>("source", "Whose gain, loss and empty start it, in place of the value of the element."),
    field<&Trigger::band>("band", "The id of the band, for band_enter and band_leave; without it any band counts."),
    field<&Trigger::timer>("timer", "The timer, for start, mark and end."),
    field<&Trigger::at>("at", "The mark; without it any mark counts.", {"s", 0, 1e9}),
    field<&Trigger::full_strength_at>(
        "full_strength_at", "The gain or loss that plays at full strength; smaller ones play weaker.", {"", 0, 1e300}),
};
static_assert(trigger_fields.size() == member_count<Trigger>);
template <>
inline constexpr Table table_of<Trigger>{"trigger", trigger_fields};
template <>
inline constexpr Table table_of<PluralForms>{"plural", plural_fields};
template <>
inline constexpr Table table_of<Place>{"place", place_fields};

inline constexpr std::array tick_fields{
    required_field<&Tick::at>("at", "The value."),
    field<&Tick::thickness>("thickness", "The thickness of the line, which replaces the usual one.",
                            {"px", 0, largest_length}),
    field<&Tick::color>("color", "The color of the line, which replaces that of all."),
};
static_assert(tick_fields.size() == member_count<Tick>);
template <>
inline constexpr Table table_of<Tick>{"tick", tick_fields};

inline constexpr std::array stop_fields{
    required_field<&ColorStop::at>("at", "The value."),
    required_field<&ColorStop::color>("color", "The color at this value."),
};
static_assert(stop_fields.size() == member_count<ColorStop>);
template <>
inline constexpr Table table_of<ColorStop>{"color", stop_fields};
inline constexpr std::array label_fields{
    required_field<&TickLabel::at>("at", "The value."),
    required_field<&TickLabel::text>("text", "The text in place of its number."),
};
static_assert(label_fields.size() == member_count<TickLabel>);
template <>
inline constexpr Table table_of<TickLabel>{"label", label_fields};
inline constexpr std::array ticks_fields{
    field<&Ticks::at>("at", "Values with a tick.", {.most = 1000}),
    field<&Ticks::every>("every", "The step between two ticks; zero draws none.", {"", 0, 1e300}),
    field<&Ticks::long_every>("long_every", "The step between two long ticks.", {"", 0, 1e300}),
    field<&Ticks::format>("format",
                          "The pattern for the number at each long mark, or at each mark if there are no long ones."),
    field<&Ticks::labels>("labels", "Texts in place of numbers.", {.most = 64}),
    field<&Ticks::length>("length", "The length of a short tick.", {"px", 0, largest_length}),
    field<&Ticks::size>("size", "The size of the numbers.", {"px", 1, largest_length}),
    field<&Ticks::color>("color", "The color of the ticks and of the numbers; without it, that of the kind."),
};
static_assert(ticks_fields.size() == member_count<Ticks>);
template <>
inline constexpr Table table_of<Ticks>{"ticks", ticks_fields};
inline constexpr std::array zone_fields{
    required_field<&Zone::from>("from", "The value at which the zone begins."),
    required_field<&Zone::to>("to", "The value at which the zone ends."),
    field<&Zone::color>("color", "The color of the zone."),
};
static_assert(zone_fields.size() == member_count<Zone>);
template <>
inline constexpr Table table_of<Zone>{"zone", zone_fields};
template <>
inline constexpr std::array<std::string_view, 5> choices_of<ImageFit>{"fill", "contain", "cover", "none", "scale-down"};
inline constexpr std::array frames_fields{
    field<&Frames::count>("count", "How many frames the image has.", {"", 1, 1000}),
    field<&Frames::columns>("columns", "How many frames stand in a row of the image; zero means all of them.",
                            {"", 0, 1000}),
    field<&Frames::rate>("rate", "How many frames are shown in a second.", {"", 0, 1000}),
};
static_assert(frames_fields.size() == member_count<Frames>);
template <>
inline constexpr Table table_of<Frames>{"frames", frames_fields};

/// The members of `Motions` are five keys of the element itself: so many more than it has members.
inline constexpr std::size_t flat_motions = 4;

/// What every element that follows a value has besides it.
template <class Kind>
inline constexpr std::array following_fields{
    field<&Kind::pace>("pace", "When the shown value may change."),
    field<&Kind::motion, &Motions::both>("motion", "How the shown value follows."),
    field<&Kind::motion, &Motions::up>("motion_up", "Replaces the motion when the value rises."),
    field<&Kind::motion, &Motions::down>("motion_down", "Replaces the motion when the value falls."),
    field<&Kind::motion, &Motions::max>("max_motion", "How the shown maximum follows."),
    field<&Kind::motion, &Motions::cycle>("cycle", "The values that come round again; zero is none.", {"", 0, 1e18}),
    field<&Kind::clock>("clock", "The clock that pace, motion and fades follow."),
    field<&Kind::when_no_value>("when_no_value", "What happens to the element when its value is gone."),
};
inline constexpr std::array outline_fields{
    field<&Outline::width>("width", "The width of the line around the characters.", {"px", 0, 100}),
    field<&Outline::color>("color", "The color of the line."),
};
static_assert(outline_fields.size() == member_count<Outline>);
template <>
inline constexpr Table table_of<Outline>{"outline", outline_fields};
inline constexpr std::array shadow_fields{
    field<&Shadow::offset>("offset", "The distance to the right and down.", {"px", -1000, 1000}),
    field<&Shadow::blur>("blur", "How soft its edge is, as in CSS; zero is sharp.", {"px", 0, 200}),
    field<&Shadow::color>("color", "The color of the shadow."),
};
static_assert(shadow_fields.size() == member_count<Shadow>);
template <>
inline constexpr Table table_of<Shadow>{"shadow", shadow_fields};
inline constexpr std::array glow_fields{
    field<&Glow::radius>("radius", "How far the light reaches.", {"px", 0, 200}),
    field<&Glow::strength>("strength", "How strong it is, on top of the opacity of its color.", {"", 0, 1}),
    field<&Glow::color>("color", "The color of the light."),
};
static_assert(glow_fields.size() == member_count<Glow>);
template <>
inline constexpr Table table_of<Glow>{"glow", glow_fields};

/// How the characters of a kind look that shows a text.
template <class Kind>
inline constexpr std::array lettering_fields{
    field<&Kind::font>("font", "A family or a list of families; empty is the HUD's."),
    field<&Kind::weight>("weight", "The weight of the font: 400 is regular, 700 bold.", {"", 1, 1000}),
    field<&Kind::italic>("italic", "Whether the font is italic."),
    field<&Kind::size>("size", "The size of the font.", {"px", 1, largest_length}),
    field<&Kind::letter_spacing>("letter_spacing", "How much wider the gaps between characters are.",
                                 {"px", -1000, 1000}),
    field<&Kind::line_height>("line_height", "The height of a line in sizes of the font; zero is that of the font.",
                              {"", 0, 100}),
    field<&Kind::transform>("transform", "Whether letters are drawn as capitals or as small letters."),
    field<&Kind::wrap>("wrap", "Whether lines are broken where there is no more room."),
    field<&Kind::max_lines>("max_lines", "How many lines there are at most; zero is without a limit.", {"", 0, 100}),
    field<&Kind::outline>("outline", "A line around the characters."),
    field<&Kind::shadow>("shadow", "The shadow of the characters."),
};

/// What all but pop-ups have, which have bands of their own.
template <class Kind>
inline constexpr std::array banded_fields{
    field<&Kind::bands>("bands", "Ranges of the value, and conditions, in which the element looks different.",
                        {.most = 32}),
};

/// What every element has.
template <class Kind>
inline constexpr std::array placed_fields{
    field<&Kind::triggers>("triggers", "What starts effects on the element.", {.most = 32}),
    field<&Kind::place>("place", "Where the element stands."),
    field<&Kind::inside>("inside", "The panel that the element stands in; empty is the screen."),
    field<&Kind::group>("group", "The group that the element is shown, hidden, dimmed and snapped with."),
    field<&Kind::opacity>("opacity", "The opacity of the element and of what stands inside.", {"", 0, 1}),
    field<&Kind::rotation>("rotation", "How far it is turned around its middle, clockwise.",
                           {"degrees", -36000, 36000}),
    field<&Kind::scale>("scale", "How much larger it is drawn, around the point by which it is held.", {"", 0, 100}),
    field<&Kind::shift>("shift", "How far it is drawn from its place, to the right and down.", {"px", -1e5, 1e5}),
    field<&Kind::blend>("blend", "How its colors are put over those below."),
    field<&Kind::glow>("glow", "A soft light around the element."),
    field<&Kind::layer>("layer", "Among siblings, those of a higher layer are drawn later.", {"", -1000, 1000}),
    field<&Kind::visible>("visible", "The element is shown while this is true."),
};
/// What all but a notice have for becoming visible and hidden.
template <class Kind>
inline constexpr std::array entering_fields{
    field<&Kind::enter>("enter", "The effect with which the element becomes visible."),
    field<&Kind::leave>("leave", "The effect with which the element becomes hidden; without it, enter backwards."),
};

template <std::size_t... Counts>
constexpr auto joined(const std::array<Field, Counts>&... parts) {
    std::array<Field, (Counts + ...)> all{};
    std::size_t at = 0;
    const auto append = [&](const auto& part) {
        for (const Field& each : part)
            all[at++] = each;
    };
    (append(parts), ...);
    return all;
}

}  // namespace rapido
