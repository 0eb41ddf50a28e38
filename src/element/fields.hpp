// Descriptions of the aggregates that elements share.
#pragma once

#include <span>

#include "base/fields.hpp"
#include "rapido/element.hpp"

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
struct Choices<Rounding> {
    static constexpr std::array<std::string_view, 5> names{"automatic", "nearest", "down", "up", "honest"};
};
template <>
struct Choices<WhenNoValue> {
    static constexpr std::array<std::string_view, 3> names{"placeholder", "hide", "remove"};
};
template <>
struct Choices<MotionKind> {
    static constexpr std::array<std::string_view, 2> names{"instant", "tween"};
};
template <>
struct Choices<Direction> {
    static constexpr std::array<std::string_view, 4> names{"right", "left", "up", "down"};
};

inline constexpr std::array motion_fields{
    field<&Motion::kind>("kind", "how the shown value travels"),
    field<&Motion::duration>("duration", "length of a flight from rest; zero is instant", {"s", 0, 3600}),
    field<&Motion::easing>("easing", "shape of a flight from rest, a CSS easing"),
};
inline constexpr std::array place_fields{
    field<&Place::anchor>("anchor", "the point of the screen or panel that it hangs on"),
    field<&Place::offset>("offset", "inwards from the anchored edges", {"px", -1e5, 1e5}),
    field<&Place::size>("size", "width and height; zero is as large as what it holds", {"px", 0, 1e5}),
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
static_assert(place_fields.size() == member_count<Place>);

template <>
struct Description<Motion> {
    static constexpr Table table{"motion", motion_fields};
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

}  // namespace rapido
