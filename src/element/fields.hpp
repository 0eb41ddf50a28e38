// Descriptions of the aggregates that elements share.
#pragma once

#include <span>

#include "base/fields.hpp"
#include "rapido/element.hpp"
#include "rapido/look/effect.hpp"

namespace rapido {

// clang-format off
template <> struct FieldTypeOf<Source> : KnownFieldType<FieldType::source> {};
template <> struct FieldTypeOf<Easing> : KnownFieldType<FieldType::easing> {};
template <> struct FieldTypeOf<Limits> : KnownFieldType<FieldType::limits> {};
// clang-format on

template <>
struct Choices<Anchor> {
    static constexpr std::array<std::string_view, 9> names{
        "top_left", "top", "top_right", "left", "center", "right", "bottom_left", "bottom", "bottom_right"};
};
template <>
struct Choices<Layout> {
    static constexpr std::array<std::string_view, 4> names{"stack", "row", "column", "grid"};
};
template <>
struct Choices<Align> {
    static constexpr std::array<std::string_view, 6> names{"anchor", "start",   "center",
                                                           "end",    "stretch", "baseline"};
};
template <>
struct Choices<Justify> {
    static constexpr std::array<std::string_view, 4> names{"start", "center", "end", "space_between"};
};
template <>
struct Choices<TextAlign> {
    static constexpr std::array<std::string_view, 5> names{"automatic", "start", "center", "end", "digits"};
};
template <>
struct Choices<Overflow> {
    static constexpr std::array<std::string_view, 4> names{"visible", "clip", "ellipsis", "shrink"};
};
template <>
struct Choices<Rounding> {
    static constexpr std::array<std::string_view, 5> names{"automatic", "nearest", "down", "up", "honest"};
};
template <>
struct Choices<WhenNoValue> {
    static constexpr std::array<std::string_view, 3> names{"placeholder", "hide", "remove"};
};
template <>
struct Choices<MotionKind> {
    static constexpr std::array<std::string_view, 4> names{"instant", "tween", "spring", "roll"};
};
template <>
struct Choices<WindowKind> {
    static constexpr std::array<std::string_view, 4> names{"last", "average", "minimum", "maximum"};
};
template <>
struct Choices<BandOf> {
    static constexpr std::array<std::string_view, 3> names{"automatic", "value", "ratio"};
};
template <>
struct Choices<BandOn> {
    static constexpr std::array<std::string_view, 3> names{"target", "truth", "shown"};
};
template <>
struct Choices<FillPattern> {
    static constexpr std::array<std::string_view, 2> names{"plain", "stripes"};
};
template <>
struct Choices<ClockKind> {
    static constexpr std::array<std::string_view, 2> names{"real", "game"};
};
template <>
struct Choices<TriggerOn> {
    static constexpr std::array<std::string_view, 9> names{
        "gain", "loss", "empty", "full", "band_enter", "band_leave", "start", "mark", "end"};
};
template <>
struct Choices<WhenBusy> {
    static constexpr std::array<std::string_view, 3> names{"interrupt", "wait", "drop"};
};
template <>
struct Choices<Shape> {
    static constexpr std::array<std::string_view, 9> names{"box",   "circle", "diamond", "hexagon",    "drop",
                                                           "heart", "person", "flask",   "thermometer"};
};
template <>
struct Choices<Direction> {
    static constexpr std::array<std::string_view, 4> names{"right", "left", "up", "down"};
};

inline constexpr std::array motion_fields{
    field<&Motion::kind>("kind", "how the shown value travels"),
    field<&Motion::duration>("duration", "of a tween, the settling time of a spring, the longest of a roll",
                             {"s", 0, 3600}),
    field<&Motion::easing>("easing", "shape of a flight from rest of a tween or a roll, a CSS easing"),
    field<&Motion::damping>("damping", "ratio of a spring; 1 is critical", {"", 0.05, 20}),
    field<&Motion::shortest>("shortest", "of a roll: for a jump of one unit", {"s", 0, 3600}),
    field<&Motion::full_jump>("full_jump", "of a roll: the jump that takes the whole duration",
                              {"", 1, 1e18}),
};
inline constexpr std::array pace_fields{
    field<&Pace::settle>("settle", "a change passes when the value has been quiet for so long",
                         {"s", 0, 3600}),
    field<&Pace::settle_cap>("settle_cap", "the longest wait; zero is four times settle", {"s", 0, 3600}),
    field<&Pace::interval>("interval", "changes pass at multiples of it", {"s", 0, 3600}),
    field<&Pace::window>("window", "what passes of the values in an interval"),
    field<&Pace::quantize>("quantize", "to the nearest multiple", {"", 0, 1e18}),
    field<&Pace::smallest_change>("smallest_change", "a smaller one is held back", {"", 0, 1e18}),
};
inline constexpr std::array trail_fields{
    field<&BarTrail::delay>("delay", "before it drains; zero is no trail", {"s", 0, 3600}),
    field<&BarTrail::duration>("duration", "of the drain", {"s", 0, 3600}),
    field<&BarTrail::easing>("easing", "of the drain, a CSS easing"),
    field<&BarTrail::color>("color", "of what was lost"),
};
inline constexpr std::array place_fields{
    field<&Place::anchor>("anchor", "the point of the screen or panel that it hangs on"),
    field<&Place::offset>("offset", "inwards from the anchored edges", {"px", -1e5, 1e5}),
    field<&Place::pivot>("pivot", "the point of the element that hangs there"),
    field<&Place::size>("size", "width and height at least; zero is as large as what it holds",
                        {"px", 0, 1e5}),
    field<&Place::max_size>("max_size", "width and height at most; zero is without a limit", {"px", 0, 1e5}),
    field<&Place::grow>("grow", "its part of the spare room along a row, column or grid", {"", 0, 1e6}),
};
inline constexpr std::array plural_fields{
    field<&PluralForms::zero>("zero", "pattern for the plural category zero"),
    field<&PluralForms::one>("one", "pattern for the plural category one"),
    field<&PluralForms::two>("two", "pattern for the plural category two"),
    field<&PluralForms::few>("few", "pattern for the plural category few"),
    field<&PluralForms::many>("many", "pattern for the plural category many"),
};
static_assert(plural_fields.size() == member_count<PluralForms>);
static_assert(motion_fields.size() == member_count<Motion>);
static_assert(pace_fields.size() == member_count<Pace>);
static_assert(trail_fields.size() == member_count<BarTrail>);
static_assert(place_fields.size() == member_count<Place>);

template <>
struct Description<Motion> {
    static constexpr Table table{"motion", motion_fields};
};
inline constexpr std::array band_fields{
    field<&Band::id>("id", "its name in the events band_enter and band_leave"),
    field<&Band::below>("below", "inside at this or less", {"", -1e300, 1e300}),
    field<&Band::above>("above", "inside at this or more", {"", -1e300, 1e300}),
    field<&Band::margin>("margin", "how far beyond its edge a value must be to leave", {"", 0, 1e300}),
    field<&Band::of>("of", "what its edges mean"),
    field<&Band::on>("on", "which value it reads"),
    field<&Band::color>("color", "of the element, inside"),
    field<&Band::fade>("fade", "of the change of color", {"s", 0, 3600}),
    field<&Band::visible>("visible", "whether the element is shown, inside"),
    field<&Band::format>("format", "of a text, inside"),
    field<&Band::image>("image", "of an image, inside: a file"),
    field<&Band::pattern>("pattern", "of a fill, inside"),
    field<&Band::motion>("motion", "to new targets, inside"),
    field<&Band::effect>("effect", "started on entering; an endless one ends on leaving"),
};
static_assert(band_fields.size() == member_count<Band>);
template <>
struct Description<Band> {
    static constexpr Table table{"band", band_fields};
};
template <>
struct Description<Pace> {
    static constexpr Table table{"pace", pace_fields};
};
template <>
struct Description<BarTrail> {
    static constexpr Table table{"trail", trail_fields};
};
inline constexpr std::array trigger_fields{
    field<&Trigger::on>("on", "what happened"),
    required_field<&Trigger::effect>("effect", "the id of the effect"),
    field<&Trigger::band>("band", "which band, for band_enter and band_leave"),
    field<&Trigger::timer>("timer", "which timer, for start, mark and end"),
    field<&Trigger::at>("at", "which mark", {"s", 0, 1e9}),
    field<&Trigger::full_change>("full_change", "the gain or loss that plays at full strength",
                                 {"", 0, 1e300}),
};
static_assert(trigger_fields.size() == member_count<Trigger>);
template <>
struct Description<Trigger> {
    static constexpr Table table{"effects", trigger_fields};
};
template <>
struct Description<PluralForms> {
    static constexpr Table table{"plural", plural_fields};
};
template <>
struct Description<Place> {
    static constexpr Table table{"place", place_fields};
};

/// The largest size of a font, a corner or a line: more than any screen, and far from overflow.
inline constexpr double largest_length = 1e4;

inline constexpr std::array tick_fields{
    required_field<&Tick::at>("at", "the value"),
    field<&Tick::thickness>("thickness", "of the line", {"px", 0, largest_length}),
    field<&Tick::color>("color", "of the line"),
};
static_assert(tick_fields.size() == member_count<Tick>);
template <>
struct Description<Tick> {
    static constexpr Table table{"tick", tick_fields};
};

inline constexpr std::array scale_marks_fields{
    field<&ScaleMarks::every>("every", "the step between two; zero draws none", {"", 0, 1e300}),
    field<&ScaleMarks::long_every>("long_every", "the step between two long ones", {"", 0, 1e300}),
    field<&ScaleMarks::format>("format", "for the number at each long one, or at each"),
    field<&ScaleMarks::length>("length", "of a short one", {"px", 0, largest_length}),
    field<&ScaleMarks::size>("size", "of the numbers", {"px", 1, largest_length}),
    field<&ScaleMarks::color>("color", "of the marks and the numbers"),
};
static_assert(scale_marks_fields.size() == member_count<ScaleMarks>);
template <>
struct Description<ScaleMarks> {
    static constexpr Table table{"marks", scale_marks_fields};
};
inline constexpr std::array zone_fields{
    required_field<&Zone::from>("from", "where it begins"),
    required_field<&Zone::to>("to", "where it ends"),
    field<&Zone::color>("color", "of it"),
};
static_assert(zone_fields.size() == member_count<Zone>);
template <>
struct Description<Zone> {
    static constexpr Table table{"zone", zone_fields};
};
inline constexpr std::array frames_fields{
    field<&Frames::count>("count", "how many", {"", 1, 1000}),
    field<&Frames::columns>("columns", "in a row of the image; zero: all of them", {"", 0, 1000}),
    field<&Frames::rate>("rate", "how many a second", {"", 0, 1000}),
};
static_assert(frames_fields.size() == member_count<Frames>);
template <>
struct Description<Frames> {
    static constexpr Table table{"frames", frames_fields};
};

/// The members of `Motions` are four keys of the element itself: so many more than it has members.
inline constexpr std::size_t flat_motions = 3;

/// What every element that follows a value has besides it.
template <class Kind>
inline constexpr std::array following_fields{
    field<&Kind::pace>("pace", "when it may change"),
    field<&Kind::motion, &Motions::both>("motion", "how the shown value follows"),
    field<&Kind::motion, &Motions::rise>("rise", "replaces 'motion' when the value rises"),
    field<&Kind::motion, &Motions::fall>("fall", "replaces 'motion' when the value falls"),
    field<&Kind::motion, &Motions::max>("max_motion", "how the shown maximum follows"),
    field<&Kind::bands>("bands", "where it looks different", {.most = 32}),
    field<&Kind::clock>("clock", "that pace, motion and fades follow"),
    field<&Kind::when_no_value>("when_no_value", "what becomes of it when its value is gone"),
};
/// What every element has.
template <class Kind>
inline constexpr std::array placed_fields{
    field<&Kind::effects>("effects", "what starts effects", {.most = 32}),
    field<&Kind::place>("place", "where it stands"),
    field<&Kind::inside>("inside", "the panel that it stands in"),
    field<&Kind::group>("group", "shown, hidden, dimmed and snapped with it"),
    field<&Kind::layer>("layer", "higher is drawn later", {"", -1000, 1000}),
    field<&Kind::visible>("visible", "shown while this is true"),
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
