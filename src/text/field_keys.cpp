// Values to keys: all rounding happens here.
#include <bit>
#include <charconv>
#include <cmath>
#include <limits>

#include "base/real_number.hpp"
#include "text/field_writer.hpp"

namespace rapido {
namespace {

using Key = FieldWriter::Key;
using Kind = FieldWriter::Kind;

std::uint64_t magnitude_of(std::int64_t value) {
    const auto bits = static_cast<std::uint64_t>(value);
    return value < 0 ? 0 - bits : bits;
}

Key integer_key(std::int64_t value) {
    return {.bits = magnitude_of(value), .kind = Kind::digits, .negative = value < 0};
}

Key decimal_key(const Decimal& decimal, int places) {
    return {.bits = decimal.digits,
            .kind = Kind::digits,
            .negative = decimal.negative,
            .places = static_cast<std::int8_t>(places)};
}

Key infinity_key(bool negative) {
    return {.bits = 0, .kind = Kind::infinity, .negative = negative};
}

bool is_integral(const Value& value) {
    return value.is_integer() || value.type() == Value::Type::flag;
}

bool is_finite_number(const Value& value) {
    return value.is_number() && std::isfinite(value.number());
}

/// Of a finite number; a duration counts in seconds.
DecimalDigits digits_of(const Value& value) {
    switch (value.type()) {
        case Value::Type::uint64:
            return integer_digits(value.uint64(), false);
        case Value::Type::float32:
            return shortest_digits(value.real(), true);
        case Value::Type::float64:
            return shortest_digits(value.real(), false);
        case Value::Type::duration: {
            DecimalDigits digits = integer_digits(magnitude_of(value.duration().count()), value.duration().count() < 0);
            if (digits.count > 0) digits.point -= 9;
            return digits;
        }
        default:
            return integer_digits(magnitude_of(value.int64()), value.int64() < 0);
    }
}

bool is_below(const Value& value, const Value& max) {
    return is_finite_number(max) && less(value, max);
}

std::int64_t signed_count(const Decimal& decimal) {
    const auto count = static_cast<std::int64_t>(decimal.digits);
    return decimal.negative ? -count : count;
}

/// A float32 as the double that its shortest decimal means: 0.1f is a tenth.
double as_meant(const Value& value) {
    if (value.type() != Value::Type::float32) return value.number();
    std::array<char, 32> text;
    const auto made = std::to_chars(text.data(), text.data() + text.size(), static_cast<float>(value.real()));
    double meant = 0;
    read_real(text.data(), made.ptr, meant);
    return meant;
}

/// Seconds as nanoseconds, as the shortest decimal says; nothing beyond the range of a duration.
std::optional<std::int64_t> nanoseconds_of(const Value& value) {
    if (value.type() == Value::Type::duration) return value.duration().count();
    if (!is_finite_number(value)) return std::nullopt;
    if (const auto decimal = round_digits(digits_of(value), 9, Rounding::nearest)) return signed_count(*decimal);
    // Of so many seconds a double has no billionths.
    const double nanoseconds = value.number() * 1e9;
    if (!(std::abs(nanoseconds) < 9.2e18)) return std::nullopt;
    return static_cast<std::int64_t>(nanoseconds);
}

bool shows_fraction(const Spec& spec) {
    return spec.type != 0 && std::string_view("eEfFgG").find(spec.type) != std::string_view::npos;
}
bool is_fixed(const Spec& spec) {
    return spec.type == 'f' || spec.type == 'F';
}
bool is_whole(const Spec& spec) {
    return spec.type != 0 && std::string_view("bBdoxX").find(spec.type) != std::string_view::npos;
}

/// The look of a real number without a type and a precision: fit for a player.
bool is_default(const Spec& spec) {
    return spec.type == 0 && spec.precision < 0 && !spec.alternate;
}

/// Digits after the point up to which the default look goes: two; below a hundredth two significant digits.
int most_places(const DecimalDigits& digits) {
    constexpr int most = 18;
    if (digits.count == 0 || digits.point >= -1) return 2;
    return std::min(2 - digits.point, most);
}

/// Leaves out zeros at the end of a fraction.
Key without_zeros(Key key) {
    for (; key.kind == Kind::digits && key.places > 0 && key.bits % 10 == 0; key.bits /= 10)
        --key.places;
    return key;
}

/// How many digits after the point the default look gives a number.
int shown_places(const Value& value) {
    if (!is_finite_number(value)) return 0;
    const DecimalDigits digits = digits_of(value);
    const int places = most_places(digits);
    const auto rounded = round_digits(digits, places, Rounding::nearest);
    return rounded ? without_zeros(decimal_key(*rounded, places)).places : 0;
}

}  // namespace

Rounding FieldWriter::rounding_of(FieldName field) const {
    const Rounding rounding = options_.rounding == Rounding::automatic ? Rounding::nearest : options_.rounding;
    // What has no maximum is not honest about one.
    if (field == FieldName::named && rounding == Rounding::honest) return Rounding::nearest;
    // An honest maximum is never shown as less than it is.
    if (field == FieldName::max && rounding == Rounding::honest) return Rounding::up;
    return rounding;
}

FieldWriter::Amount FieldWriter::amount_of(const Format::Parsed::Piece& piece, const FieldValues& values) const {
    switch (piece.field) {
        case FieldName::named:
            return {piece.named < values.named.size() ? values.named[piece.named] : Value(), {}};
        case FieldName::max:
            return {values.max, {}};
        case FieldName::left:
            return {difference(values.max, values.value), {}};
        case FieldName::delta:
            return {values.delta, {}};
        default:
            return {values.value, values.max};
    }
}

Key FieldWriter::key_in(const Format& format, std::size_t index, const FieldValues& values) const {
    const Format::Parsed& parsed = format.parsed();
    if (!parsed.has_sign) return key_of(parsed.pieces[index], values);
    std::size_t first = 0;
    while (first < parsed.pieces.size() && parsed.pieces[first].field == FieldName::sign)
        ++first;
    if (parsed.pieces[index].field == FieldName::sign) {
        const bool negative = first < parsed.pieces.size() && key_of(parsed.pieces[first], values).negative;
        return {.bits = 0, .kind = Kind::sign, .negative = negative};
    }
    Key key = key_of(parsed.pieces[index], values);
    if (index == first) key.negative = false;
    return key;
}

Key FieldWriter::key_of(const Format::Parsed::Piece& piece, const FieldValues& values) const {
    const Spec& spec = piece.spec;
    // The common case first: an integer as it is.
    if (piece.field == FieldName::value && values.value.type() == Value::Type::int64 && options_.compact_digits == 0 &&
        !shows_fraction(spec) && !spec.is_time())
        return integer_key(values.value.int64());

    const Rounding rounding = rounding_of(piece.field);
    if (piece.field == FieldName::percent || piece.field == FieldName::ratio)
        return part_key(spec, piece.field, values, rounding);
    const Amount amount = amount_of(piece, values);
    switch (amount.value.type()) {
        case Value::Type::none:
            return {};
        case Value::Type::text:
            return {.bits = 0, .kind = Kind::text};
        case Value::Type::flag:
            if (spec.type == 0 || spec.type == 's') return {.bits = amount.value.flag() ? 1U : 0U, .kind = Kind::flag};
            return {.bits = amount.value.flag() ? 1U : 0U, .kind = Kind::digits};
        default:
            break;
    }
    if (std::isnan(amount.value.number())) return {};
    if (!is_finite_number(amount.value)) return infinity_key(amount.value.number() < 0);
    if (spec.is_time()) return time_key(spec, amount, rounding);
    if (piece.field == FieldName::ordinal && !amount.value.is_integer()) return fixed_key(0, amount, rounding);
    if (options_.compact_digits > 0 && spec.type == 0) return compact_key(amount, rounding);
    if (amount.value.type() == Value::Type::duration && is_default(spec)) {
        // Time that is left, or has passed, is counted in whole seconds.
        const bool is_counted = rounding == Rounding::up || rounding == Rounding::down;
        return is_counted ? fixed_key(0, amount, rounding) : default_key(amount, values, rounding);
    }
    if (amount.value.is_real() && is_default(spec)) return default_key(amount, values, rounding);
    return number_key(spec, amount, rounding);
}

/// Up to two digits after the point, without zeros at the end. On its way a number keeps as many as its start or its target has, so
/// that it does not become wider and narrower.
Key FieldWriter::default_key(const Amount& amount, const FieldValues& values, Rounding rounding) const {
    const bool is_on_way = amount.value == values.value && values.start.has_value() && values.target.has_value();
    if (options_.seconds_left) return fixed_key(0, amount, rounding);
    const int places = is_on_way ? std::max(shown_places(values.start), shown_places(values.target))
                                 : most_places(digits_of(amount.value));
    const Key key = fixed_key(places, amount, rounding);
    if (key.kind == Kind::digits) return is_on_way ? key : without_zeros(key);
    return fixed_key(0, amount, rounding);
}

Key FieldWriter::number_key(const Spec& spec, const Amount& amount, Rounding rounding) const {
    const Value& value = amount.value;
    if (is_integral(value) && !shows_fraction(spec)) {
        if (value.type() == Value::Type::uint64) return {.bits = value.uint64(), .kind = Kind::digits};
        return integer_key(value.int64());
    }
    if (is_fixed(spec)) return fixed_key(spec.precision < 0 ? 6 : spec.precision, amount, rounding);
    // A type of whole numbers that meets another number only at run time shows it rounded.
    if (is_whole(spec)) return fixed_key(0, amount, rounding);
    const double number = value.number();
    const bool is_float32 = value.type() == Value::Type::float32;
    return {.bits = std::bit_cast<std::uint64_t>(std::abs(number)),
            .kind = Kind::real,
            .negative = number < 0,
            .power = static_cast<std::int8_t>(is_float32 ? 1 : 0)};
}

Key FieldWriter::fixed_key(int places, const Amount& amount, Rounding rounding) const {
    const Value& value = amount.value;
    std::optional<Decimal> decimal;
    if (value.is_real() && rounding != Rounding::honest)
        decimal = round_decimal(value.real(), value.type() == Value::Type::float32, places, rounding);
    else if (places <= 18)
        decimal = round_digits(digits_of(value), places, rounding);
    if (decimal && rounding == Rounding::honest) {
        std::optional<std::int64_t> shown_max;
        if (is_below(value, amount.max))
            if (const auto max = round_digits(digits_of(amount.max), places, Rounding::up))
                shown_max = signed_count(*max);
        const std::int64_t count =
            keep_honest(signed_count(*decimal), value.number() > 0, value.number() < 0, shown_max);
        decimal = Decimal{magnitude_of(count), count < 0};
    }
    if (decimal) return decimal_key(*decimal, places);
    if (is_integral(value) && places < 128) {
        const bool negative = value.type() != Value::Type::uint64 && value.int64() < 0;
        return {.bits = negative ? magnitude_of(value.int64()) : value.uint64(),
                .kind = Kind::whole,
                .negative = negative,
                .places = static_cast<std::int8_t>(places)};
    }
    const double number = value.number();
    return {.bits = std::bit_cast<std::uint64_t>(std::abs(number)), .kind = Kind::real, .negative = number < 0};
}

Key FieldWriter::time_key(const Spec& spec, const Amount& amount, Rounding rounding) const {
    std::int64_t unit = spec.smallest_unit().count();
    for (int i = 0; i < spec.precision; ++i)
        unit /= 10;
    const auto nanoseconds = nanoseconds_of(amount.value);
    if (!nanoseconds) return infinity_key(amount.value.number() < 0);
    std::int64_t ticks = round_division(*nanoseconds, unit, rounding);
    if (rounding == Rounding::honest) {
        std::optional<std::int64_t> shown_max;
        const auto max = nanoseconds_of(amount.max);
        if (max && *nanoseconds < *max) shown_max = round_division(*max, unit, Rounding::up);
        ticks = keep_honest(ticks, *nanoseconds > 0, *nanoseconds < 0, shown_max);
    }
    if (options_.time_of_day || spec.is_half_day()) {
        const std::int64_t day = Nanoseconds{std::chrono::hours{24}}.count() / unit;
        ticks = (ticks % day + day) % day;
    }
    return integer_key(ticks);
}

Key FieldWriter::part_key(const Spec& spec, FieldName field, const FieldValues& values, Rounding rounding) const {
    const Value value = values.amount && values.value.is_number() ? Value(*values.amount) : values.value;
    const Value& max = values.max;
    if (!value.is_number() || !is_finite_number(max) || !(max.number() > 0) || std::isnan(value.number())) return {};
    if (!is_finite_number(value)) return infinity_key(value.number() < 0);
    const bool is_percent = field == FieldName::percent;
    const int places = is_whole(spec) ? 0 : spec.precision < 0 ? 6 : spec.precision;
    const bool integers = (value.is_integer() && max.is_integer()) ||
                          (value.type() == Value::Type::duration && max.type() == Value::Type::duration);
    double part = as_meant(value) / as_meant(max) * (is_percent ? 100 : 1);
    // A part of something is never nothing, however small it is.
    if (part == 0 && value.number() != 0)
        part = std::copysign(std::numeric_limits<double>::denorm_min(), value.number());
    // The quotient of two finite numbers may be beyond all of them.
    if (!std::isfinite(part)) return infinity_key(part < 0);
    const DecimalDigits digits = significant_digits(part, 15);

    std::optional<Decimal> decimal;
    const int percent_places = is_percent ? places : places - 2;
    if (integers && percent_places >= -2) {
        const bool negative = value.type() != Value::Type::uint64 && value.int64() < 0;
        const std::uint64_t magnitude =
            value.type() == Value::Type::uint64 ? value.uint64() : magnitude_of(value.int64());
        decimal = round_percent(magnitude, negative, max.uint64(), percent_places, rounding);
    }
    if (!decimal && places <= 18) decimal = round_digits(digits, places, rounding);
    if (!(is_fixed(spec) || is_whole(spec)) || !decimal)
        return {.bits = std::bit_cast<std::uint64_t>(std::abs(part)), .kind = Kind::real, .negative = part < 0};
    if (rounding == Rounding::honest) {
        std::optional<std::int64_t> whole;
        if (less(value, max))
            if (const auto shown = round_digits(integer_digits(is_percent ? 100 : 1, false), places, Rounding::up))
                whole = signed_count(*shown);
        const std::int64_t count = keep_honest(signed_count(*decimal), value.number() > 0, value.number() < 0, whole);
        decimal = Decimal{magnitude_of(count), count < 0};
    }
    return decimal_key(*decimal, places);
}

Key FieldWriter::compact_digits(const DecimalDigits& given, Rounding rounding) const {
    DecimalDigits digits = given;
    while (true) {
        const int power = digits.point - 1;
        // Beyond the last name it is written with an exponent, or in full where that is no wider.
        const int named = numbers_.compact.empty() ? 15 : static_cast<int>(numbers_.compact.size()) + 3;
        if (power >= named) {
            const int exponent_width = options_.compact_digits + (options_.compact_digits > 1 ? 1 : 0) + 4;
            const int full_width = power + 1 + (numbers_.primary_group > 0 ? power / 3 : 0);
            const auto full =
                power < 18 && full_width <= exponent_width ? round_digits(digits, 0, rounding) : std::nullopt;
            if (!full) return scientific_key(digits);
            return {.bits = full->digits, .kind = Kind::digits, .negative = full->negative};
        }
        std::size_t form = 0;
        int drop = 0;
        if (power >= 3 && !numbers_.compact.empty()) {
            form = std::min<std::size_t>(static_cast<std::size_t>(power - 3), numbers_.compact.size() - 1);
            drop = numbers_.compact[form].drop;
        }
        const int whole = power + 1 - drop;
        const int places = drop == 0 ? 0 : std::max(0, options_.compact_digits - whole);
        // An amount beyond 10^18 units of its last digit is shown with fewer of them.
        const int kept = std::max(whole, 0) + places > 18 ? 0 : places;
        const auto rounded = round_digits(digits, kept - drop, rounding);
        if (!rounded) return scientific_key(digits);
        // Rounded up to the next power: 999 950 is not 1000.0K but 1.00M.
        const DecimalDigits next = integer_digits(rounded->digits, false);
        const bool carried = next.point > std::max(whole, 0) + kept && whole > 0;
        if (carried && !(next.count == digits.count && next.point + drop - kept == digits.point)) {
            digits = next;
            digits.point += drop - kept;
            digits.negative = given.negative;
            continue;
        }
        return {.bits = rounded->digits,
                .kind = Kind::digits,
                .negative = rounded->negative,
                .places = static_cast<std::int8_t>(kept),
                .power = static_cast<std::int8_t>(drop == 0 ? 0 : form + 1)};
    }
}

/// With so many significant digits as are asked for.
Key FieldWriter::scientific_key(const DecimalDigits& digits) {
    std::array<char, 40> text;
    char* at = text.data();
    for (int i = 0; i < digits.count; ++i)
        *at++ = static_cast<char>('0' + digits.digits[static_cast<std::size_t>(i)]);
    *at++ = 'e';
    at = std::to_chars(at, text.data() + text.size(), digits.point - digits.count).ptr;
    double magnitude = 0;
    read_real(text.data(), at, magnitude);
    return {.bits = std::bit_cast<std::uint64_t>(magnitude), .kind = Kind::real, .negative = digits.negative};
}

Key FieldWriter::compact_key(const Amount& amount, Rounding rounding) const {
    const Value& value = amount.value;
    Key key = compact_digits(digits_of(value), rounding);
    if (rounding != Rounding::honest) return key;
    if (is_below(value, amount.max) && key == compact_digits(digits_of(amount.max), Rounding::up))
        key = compact_digits(digits_of(value), Rounding::down);
    if (key.bits == 0 && value.number() != 0) {
        key.bits = 1;
        key.negative = value.number() < 0;
    }
    return key;
}

}  // namespace rapido
