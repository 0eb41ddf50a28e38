// Keys to characters.
#include "text/field_writer.hpp"

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>

#include "base/utf8.hpp"

namespace rapido {
namespace {

using Key = FieldWriter::Key;
using Kind = FieldWriter::Kind;
using Buffer = std::array<char, 512>;

std::string_view view(const Buffer& buffer, const char* end) {
    return {buffer.data(), static_cast<std::size_t>(end - buffer.data())};
}

/// Whole numbers, in any base.
std::string_view integer_text(const Spec& spec, std::uint64_t bits, Buffer& buffer) {
    char* at = buffer.data();
    int base = 10;
    const char type = spec.type;
    if (type == 'b' || type == 'B') base = 2;
    if (type == 'o') base = 8;
    if (type == 'x' || type == 'X') base = 16;
    if (spec.alternate && base != 10 && !(base == 8 && bits == 0)) {
        *at++ = '0';
        if (base != 8) *at++ = type;
    }
    char* const end = std::to_chars(at, buffer.data() + buffer.size(), bits, base).ptr;
    if (type == 'X')
        for (char* c = at; c != end; ++c)
            if (*c >= 'a') *c = static_cast<char>(*c - 'a' + 'A');
    return view(buffer, end);
}

/// `bits` with a point before its last `places` digits, and at least one digit before the point.
std::string_view fixed_text(std::uint64_t bits, int places, bool always_point, Buffer& buffer) {
    std::array<char, 20> digits;
    const char* const digits_end = std::to_chars(digits.data(), digits.data() + digits.size(), bits).ptr;
    const auto have = static_cast<int>(digits_end - digits.data());
    char* at = buffer.data();
    const int whole = have - places;
    if (whole <= 0) *at++ = '0';
    at = std::copy_n(digits.data(), std::max(whole, 0), at);
    if (places > 0 || always_point) *at++ = '.';
    at = std::fill_n(at, std::max(-whole, 0), '0');
    at = std::copy(digits.data() + std::max(whole, 0), digits.data() + have, at);
    return view(buffer, at);
}

/// `#` of ISO: always a point, and with `g` all significant digits.
char* write_alternate(const Spec& spec, char* begin, char* end, char* limit) {
    char* const exponent = std::find_if(begin, end, [](char c) { return c == 'e'; });
    char* const point = std::find(begin, exponent, '.');
    const bool is_general = spec.type == 'g' || spec.type == 'G' || (spec.type == 0 && spec.precision >= 0);
    const char* const first = std::find_if(begin, exponent, [](char c) { return c >= '1' && c <= '9'; });
    // Of zero, its own digit counts.
    const auto digits = std::max<std::ptrdiff_t>(
        std::count_if(first, static_cast<const char*>(exponent), [](char c) { return c != '.'; }), 1);
    const std::ptrdiff_t asked = spec.precision < 0 ? 6 : std::max(spec.precision, 1);
    const std::ptrdiff_t zeros = is_general ? std::max<std::ptrdiff_t>(asked - digits, 0) : 0;
    const std::ptrdiff_t more = zeros + (point == exponent ? 1 : 0);
    if (more > limit - end) return end;
    std::copy_backward(exponent, end, end + more);
    char* at = exponent;
    if (point == exponent) *at++ = '.';
    std::fill_n(at, zeros, '0');
    return end + more;
}

std::string_view sign_of(const Spec& spec, bool negative) {
    if (negative) return "-";
    if (spec.sign == '+') return "+";
    return spec.sign == ' ' ? " " : "";
}

/// As many characters as fit into `precision` columns; all of them without a precision.
std::string_view cut(std::string_view text, int precision) {
    if (precision < 0) return text;
    std::size_t end = 0, used = 0;
    while (end < text.size()) {
        used += utf8::front_columns(text.substr(end));
        if (used > static_cast<std::size_t>(precision)) break;
        end += utf8::front_length(text.substr(end));
    }
    return text.substr(0, end);
}

/// A text that a spec of numbers met only at run time is shown whole.
std::string_view text_of(const Format::Parsed::Piece& piece, const FieldValues& values) {
    const Value& shown = piece.field == FieldName::max     ? values.max
                         : piece.field == FieldName::named ? values.named[piece.named]
                                                           : values.value;
    const std::string_view text = shown.text();
    const bool takes_text = (piece.spec.type == 0 || piece.spec.type == 's') && !piece.spec.is_time();
    return takes_text ? cut(text, piece.spec.precision) : text;
}

void pad(const Spec& spec, std::string_view sign, std::string_view body, char default_align, std::string& out) {
    if (spec.width == 0) {
        out += sign;
        out += body;
        return;
    }
    const char align = spec.align == 0 ? default_align : spec.align;
    const int missing = std::max(0, spec.width - static_cast<int>(utf8::columns(sign) + utf8::columns(body)));
    const int before = align == '>' ? missing : align == '^' ? missing / 2 : 0;
    for (int i = 0; i < before; ++i)
        out += spec.fill;
    out += sign;
    out += body;
    for (int i = before; i < missing; ++i)
        out += spec.fill;
}

}  // namespace

PluralOperands FieldWriter::operands(const Key& key) const {
    if (key.kind == Kind::digits) {
        const int exponent = key.power > 0 ? numbers_.compact[static_cast<std::size_t>(key.power - 1)].drop : 0;
        return {key.bits, key.places, exponent};
    }
    if (key.kind != Kind::real) return {};
    const DecimalDigits digits = shortest_digits(std::bit_cast<double>(key.bits), key.power != 0);
    const int places = std::clamp(digits.count - digits.point, 0, 17);
    const auto decimal = round_digits(digits, places, Rounding::nearest);
    return decimal ? PluralOperands{decimal->digits, places, 0} : PluralOperands{};
}

/// As a number, with what stands around it in the language.
void FieldWriter::write_ordinal(const Spec& spec, const Key& key, std::string& out) const {
    const auto& [before, after] =
        numbers_.ordinal_around[static_cast<std::size_t>(numbers_.ordinals.select(operands(key)))];
    Spec bare = spec;
    bare.width = 0;
    Buffer buffer;
    std::string written = before;
    number(bare, key, integer_text(bare, key.bits, buffer), written);
    pad(spec, "", written + after, '>', out);
}

void FieldWriter::write(const Format::Parsed::Piece& piece, const Key& key, const FieldValues& values,
                        std::string& out) const {
    const Spec& spec = piece.spec;
    if (piece.field == FieldName::ordinal && key.kind == Kind::digits) return write_ordinal(spec, key, out);
    Buffer buffer;
    switch (key.kind) {
        case Kind::placeholder:
            return pad(spec, "", options_.placeholder, '>', out);
        case Kind::infinity:
            return pad(spec, sign_of(spec, key.negative), "∞", '>', out);
        case Kind::sign:
            out += key.negative ? std::string_view(numbers_.minus) : sign_of(spec, false);
            return;
        case Kind::flag:
            return pad(spec, "", key.bits != 0 ? "true" : "false", '<', out);
        case Kind::text:
            return pad(spec, "", text_of(piece, values), '<', out);
        case Kind::real: {
            const std::string_view digits = real_text(spec, key, buffer);
            Key shown = key;
            // What is shown as zero has no sign.
            shown.negative = key.negative && digits.substr(0, digits.find_first_of("eE")).find_first_of("123456789") !=
                                                 std::string_view::npos;
            return number(spec, shown, digits, out);
        }
        case Kind::whole: {
            char* at = buffer.data() + integer_text({}, key.bits, buffer).size();
            if (key.places > 0 || spec.alternate) *at++ = '.';
            at = std::fill_n(at, key.places, '0');
            return number(spec, key, view(buffer, at), out);
        }
        case Kind::digits:
            break;
    }
    if (spec.is_time()) return number(spec, key, time_text(spec, key, buffer), out);
    const bool has_point = key.places > 0 || spec.type == 'f' || spec.type == 'F';
    number(spec, key,
           has_point ? fixed_text(key.bits, key.places, spec.alternate, buffer) : integer_text(spec, key.bits, buffer),
           out);
}

/// What is left of the grammar: no type, `e`, `g`, numbers too large for a key of digits, and those too large for a type
/// of whole numbers, which are written without it.
std::string_view FieldWriter::real_text(const Spec& spec, const Key& key, Buffer& buffer) const {
    const double magnitude = std::bit_cast<double>(key.bits);
    const bool is_float32 = key.power != 0;
    char* const begin = buffer.data();
    char* const limit = begin + buffer.size();
    const auto written = [&](auto... how) {
        return is_float32 ? std::to_chars(begin, limit, static_cast<float>(magnitude), how...).ptr
                          : std::to_chars(begin, limit, magnitude, how...).ptr;
    };
    const int precision = spec.precision < 0 ? 6 : spec.precision;
    char* end = nullptr;
    switch (spec.type) {
        case 'e':
        case 'E':
            end = written(std::chars_format::scientific, precision);
            break;
        case 'f':
        case 'F':
            end = written(std::chars_format::fixed, precision);
            break;
        case 'g':
        case 'G':
            end = written(std::chars_format::general, precision);
            break;
        default:
            // A compact number beyond all names; and what is too large for a key of digits, but no longer than a line.
            if (options_.compact_digits > 0 && spec.precision < 0) {
                end = written(std::chars_format::scientific, options_.compact_digits - 1);
                break;
            }
            if (spec.precision < 0 && !spec.alternate && magnitude < 1e21 && magnitude >= 1) {
                end = written(std::chars_format::fixed, 0);
                break;
            }
            end = spec.precision < 0 ? written() : written(std::chars_format::general, precision);
    }
    if (spec.alternate) end = write_alternate(spec, begin, end, limit);
    if (spec.type == 'E' || spec.type == 'G') std::replace(begin, end, 'e', 'E');
    return view(buffer, end);
}

std::string_view FieldWriter::time_text(const Spec& spec, const Key& key, Buffer& buffer) const {
    const int digits = std::max(spec.precision, 0);
    std::uint64_t ticks_a_second = 1;
    for (int i = 0; i < digits; ++i)
        ticks_a_second *= 10;
    const auto smallest = static_cast<std::uint64_t>(spec.smallest_unit().count());
    const auto largest = static_cast<std::uint64_t>(spec.largest_unit().count());
    const auto ticks_of = [&](std::uint64_t unit) { return unit / smallest * ticks_a_second; };
    char* at = buffer.data();
    char* const end = buffer.data() + buffer.size();
    bool leading = options_.drop_zero_parts;  // all parts so far were zero
    bool dropped = false;                     // the last part was left out, and so is the text after it
    for (const TimePart& part : spec.time) {
        if (end - at < 64 + static_cast<std::ptrdiff_t>(part.literal.size())) break;
        if (part.unit == 0) {
            if (!dropped) at = std::copy(part.literal.begin(), part.literal.end(), at);
            continue;
        }
        const auto unit = static_cast<std::uint64_t>(TimePart::length(part.unit).count());
        std::uint64_t count = key.bits / ticks_of(unit);
        if (part.unit == 'p') {
            at = std::copy_n(count % 24 < 12 ? "AM" : "PM", 2, at);
            continue;
        }
        if (part.unit == 'I') count = (count + 11) % 12 + 1;
        if (unit != largest) count %= 60;
        dropped = leading && count == 0 && unit != smallest;
        if (dropped) continue;
        if (count < 10 && !leading) *at++ = '0';
        leading = false;
        at = std::to_chars(at, end, count).ptr;
        if (part.unit == 'S' && digits > 0) {
            *at++ = '.';
            std::uint64_t fraction = key.bits % ticks_a_second;
            for (int i = digits - 1; i >= 0; --i, fraction /= 10)
                at[i] = static_cast<char>('0' + fraction % 10);
            at += digits;
        }
    }
    return view(buffer, at);
}

void FieldWriter::number(const Spec& spec, const Key& key, std::string_view digits, std::string& out) const {
    const bool is_compact = options_.compact_digits > 0 && spec.type == 0 && key.kind == Kind::digits;
    if (spec.localized || is_compact) {
        const std::string_view sign = key.negative       ? std::string_view(numbers_.minus)
                                      : spec.sign == '+' ? std::string_view(numbers_.plus)
                                                         : sign_of(spec, false);
        const std::string written = localized(spec, key, digits);
        if (!spec.zero || spec.align != 0) return pad(spec, sign, written, '>', out);
        const int length = static_cast<int>(utf8::length(sign) + utf8::length(written));
        out += sign;
        for (int i = length; i < spec.width; ++i)
            out += numbers_.digits[0];
        out += written;
        return;
    }
    const std::string_view sign = sign_of(spec, key.negative);
    const auto length = static_cast<int>(sign.size() + digits.size());
    if (!spec.zero || spec.align != 0 || length >= spec.width) return pad(spec, sign, digits, '>', out);
    const bool has_base =
        digits.size() > 1 && digits[0] == '0' && std::string_view("xXbB").find(digits[1]) != std::string_view::npos;
    const std::size_t base = has_base ? 2 : 0;
    out += sign;
    out += digits.substr(0, base);
    out.append(static_cast<std::size_t>(spec.width - length), '0');
    out += digits.substr(base);
}

std::string FieldWriter::localized(const Spec& spec, const Key& key, std::string_view digits) const {
    const bool has_form = key.kind == Kind::digits && key.power > 0;
    const CompactForm* const form = has_form ? &numbers_.compact[static_cast<std::size_t>(key.power - 1)] : nullptr;
    const bool is_time = spec.is_time();
    const auto whole = std::min(digits.find_first_not_of("0123456789"), digits.size());
    const auto primary = static_cast<std::size_t>(numbers_.primary_group);
    const auto secondary = static_cast<std::size_t>(numbers_.secondary_group);
    // CLDR: compact numbers take separators from five digits on.
    const auto minimum =
        static_cast<std::size_t>(std::max(numbers_.minimum_grouping, options_.compact_digits > 0 ? 2 : 1));
    const bool grouped = !is_time && primary > 0 && whole >= primary + minimum &&
                         (spec.type == 0 || std::string_view("dfFgG").find(spec.type) != std::string_view::npos);
    // The word of a power agrees with the number before it: 4.00 thousands, not 4000.
    const auto category = static_cast<std::size_t>(
        form == nullptr ? PluralCategory::other : numbers_.plurals.select({key.bits, key.places, 0}));
    std::string text;
    if (form != nullptr) text += form->around[category].first;
    for (std::size_t i = 0; i < digits.size(); ++i) {
        const char c = digits[i];
        const std::size_t after = whole - i;  // digits of the whole part from here on
        if (grouped && i > 0 && i < whole && after >= primary &&
            (after - primary) % std::max<std::size_t>(secondary, 1) == 0)
            text += numbers_.group;
        if (c >= '0' && c <= '9')
            text += numbers_.digits[static_cast<std::size_t>(c - '0')];
        else if (c == '.')
            text += numbers_.decimal;
        else
            text += c;
    }
    if (form != nullptr) text += form->around[category].second;
    return text;
}

}  // namespace rapido
