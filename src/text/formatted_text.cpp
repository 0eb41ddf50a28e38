#include <fmt/format.h>

#include <array>
#include <bit>
#include <charconv>
#include <cmath>

#include "base/utf8.hpp"
#include "rapido/text/format.hpp"
#include "text/decimal.hpp"
#include "text/format_parsed.hpp"

namespace rapido {

/// Turns a value into a key, and a key into characters: equal keys give equal characters.
class FieldWriter {
 public:
    using Key = FormattedText::Key;
    using Kind = Key::Kind;

    static Key key_of(const Spec& spec, const Value& value, Rounding rounding) {
        switch (value.type()) {
            case Value::Type::none:
                return {};
            case Value::Type::text:
                return {.bits = 0, .kind = Kind::text};
            case Value::Type::boolean:
                if (spec.type == 0 || spec.type == 's')
                    return {.bits = value.boolean() ? 1U : 0U, .kind = Kind::boolean};
                return {.bits = value.boolean() ? 1U : 0U, .kind = Kind::digits};
            case Value::Type::int64:
                if (spec.is_time()) return seconds_key(spec, value.number(), false, rounding);
                if (!shows_fraction(spec)) return integer_key(value.int64());
                return real_key(spec, value.number(), false, rounding);
            case Value::Type::uint64:
                if (spec.is_time()) return seconds_key(spec, value.number(), false, rounding);
                if (!shows_fraction(spec)) return {.bits = value.uint64(), .kind = Kind::digits};
                return real_key(spec, value.number(), false, rounding);
            case Value::Type::float32:
            case Value::Type::float64: {
                const bool is_float32 = value.type() == Value::Type::float32;
                if (spec.is_time()) return seconds_key(spec, value.real(), is_float32, rounding);
                return real_key(spec, value.real(), is_float32, rounding);
            }
            case Value::Type::duration:
                if (spec.is_time()) return time_key(spec, value.duration().count(), rounding);
                return real_key(spec, value.number(), false, rounding);
        }
        return {};
    }

    static void write(const Spec& spec, const Key& key, const Value& value, std::string_view placeholder,
                      std::string& out) {
        std::array<char, 512> buffer;
        switch (key.kind) {
            case Kind::placeholder:
                return pad(spec, "", placeholder, spec.align == 0 ? '>' : spec.align, out);
            case Kind::infinity:
                return pad(spec, sign_of(spec, key.negative), "∞", spec.align == 0 ? '>' : spec.align, out);
            case Kind::boolean:
                return pad(spec, "", key.bits != 0 ? "true" : "false", spec.align == 0 ? '<' : spec.align,
                           out);
            case Kind::text:
                return pad(spec, "", cut(value.text(), spec.precision), spec.align == 0 ? '<' : spec.align,
                           out);
            case Kind::real:
                return number(spec, key.negative, real_digits(spec, key, value, buffer), out);
            case Kind::digits:
                if (spec.is_time())
                    return number(spec, key.negative, time_digits(spec, key.bits, buffer), out);
                return number(spec, key.negative, plain_digits(spec, key.bits, buffer), out);
        }
    }

 private:
    using Buffer = std::array<char, 512>;

    static bool shows_fraction(const Spec& spec) {
        return std::string_view("aAeEfFgG").find(spec.type) != std::string_view::npos && spec.type != 0;
    }

    static bool is_fixed(const Spec& spec) { return (spec.type == 'f' || spec.type == 'F'); }
    static int places(const Spec& spec) { return spec.precision < 0 ? 6 : spec.precision; }

    static Key integer_key(std::int64_t value) {
        const auto bits = static_cast<std::uint64_t>(value);
        return {.bits = value < 0 ? 0 - bits : bits, .kind = Kind::digits, .negative = value < 0};
    }

    static Key decimal_key(const Decimal& decimal) {
        return {.bits = decimal.digits, .kind = Kind::digits, .negative = decimal.negative};
    }

    static Key real_key(const Spec& spec, double value, bool is_float32, Rounding rounding) {
        if (std::isnan(value)) return {};
        if (std::isinf(value)) return {.bits = 0, .kind = Kind::infinity, .negative = value < 0};
        if (is_fixed(spec))
            if (const auto decimal = round_decimal(value, is_float32, places(spec), rounding))
                return decimal_key(*decimal);
        return {
            .bits = std::bit_cast<std::uint64_t>(std::abs(value)), .kind = Kind::real, .negative = value < 0};
    }

    static Key time_key(const Spec& spec, std::int64_t nanoseconds, Rounding rounding) {
        std::int64_t unit = spec.smallest_unit().count();
        for (int i = 0; i < spec.precision; ++i)
            unit /= 10;
        return integer_key(round_division(nanoseconds, unit, rounding));
    }

    static Key seconds_key(const Spec& spec, double seconds, bool is_float32, Rounding rounding) {
        if (std::isnan(seconds)) return {};
        const auto decimal = round_shortest(seconds, is_float32, 9, Rounding::nearest);
        if (!decimal) return {.bits = 0, .kind = Kind::infinity, .negative = seconds < 0};
        const auto count = static_cast<std::int64_t>(decimal->digits);
        return time_key(spec, decimal->negative ? -count : count, rounding);
    }

    /// The first `precision` code points; all of them without a precision.
    static std::string_view cut(std::string_view text, int precision) {
        if (precision < 0) return text;
        std::size_t end = 0;
        for (int i = 0; i < precision && end < text.size(); ++i)
            end += utf8::front_length(text.substr(end));
        return text.substr(0, end);
    }

    static std::string_view plain_digits(const Spec& spec, std::uint64_t bits, Buffer& buffer) {
        char* const begin = buffer.data();
        if (is_fixed(spec)) return with_point(bits, places(spec), spec.alternate, buffer);
        char* at = begin;
        int base = 10;
        const char type = spec.type;
        if (type == 'b' || type == 'B') base = 2;
        if (type == 'o') base = 8;
        if (type == 'x' || type == 'X') base = 16;
        if (spec.alternate && base != 10 && !(base == 8 && bits == 0)) {
            *at++ = '0';
            if (base != 8) *at++ = type;
        }
        char* const end = std::to_chars(at, begin + buffer.size(), bits, base).ptr;
        if (type == 'X')
            for (char* c = at; c != end; ++c)
                if (*c >= 'a') *c = static_cast<char>(*c - 'a' + 'A');
        return {begin, static_cast<std::size_t>(end - begin)};
    }

    /// `bits` with a point before its last `count` digits, and at least one digit before the point.
    static std::string_view with_point(std::uint64_t bits, int count, bool always_point, Buffer& buffer) {
        std::array<char, 20> digits;
        const char* const digits_end = std::to_chars(digits.data(), digits.data() + digits.size(), bits).ptr;
        const auto have = static_cast<int>(digits_end - digits.data());
        char* at = buffer.data();
        const int whole = have - count;
        for (int i = 0; i < std::max(whole, 1); ++i)
            *at++ = i < whole ? digits[static_cast<std::size_t>(i)] : '0';
        if (count > 0 || always_point) *at++ = '.';
        for (int i = whole; i < have; ++i)
            *at++ = i < 0 ? '0' : digits[static_cast<std::size_t>(i)];
        return {buffer.data(), static_cast<std::size_t>(at - buffer.data())};
    }

    static std::string_view real_digits(const Spec& spec, const Key& key, const Value& value,
                                        Buffer& buffer) {
        const double magnitude = std::bit_cast<double>(key.bits);
        const bool is_float32 = value.type() == Value::Type::float32;
        if (spec.type == 0 && spec.precision < 0 && !spec.alternate) {
            char* const end = buffer.data() + buffer.size();
            const auto made = is_float32 ? std::to_chars(buffer.data(), end, static_cast<float>(magnitude))
                                         : std::to_chars(buffer.data(), end, magnitude);
            return {buffer.data(), static_cast<std::size_t>(made.ptr - buffer.data())};
        }
        // The rest of the grammar is fmt's: it sees a spec made here from the parsed form, never text from a
        // file.
        std::string rebuilt = "{:";
        if (spec.alternate) rebuilt += '#';
        if (spec.precision >= 0) rebuilt += '.' + std::to_string(spec.precision);
        if (spec.type != 0) rebuilt += spec.type;
        rebuilt += '}';
        const auto made =
            is_float32 ? fmt::format_to_n(buffer.data(), buffer.size(), fmt::runtime(rebuilt),
                                          static_cast<float>(magnitude))
                       : fmt::format_to_n(buffer.data(), buffer.size(), fmt::runtime(rebuilt), magnitude);
        return {buffer.data(), std::min(made.size, buffer.size())};
    }

    static std::string_view time_digits(const Spec& spec, std::uint64_t ticks, Buffer& buffer) {
        const int digits = std::max(spec.precision, 0);
        std::uint64_t ticks_a_unit = 1;
        for (int i = 0; i < digits; ++i)
            ticks_a_unit *= 10;
        const auto smallest = static_cast<std::uint64_t>(spec.smallest_unit().count());
        const auto largest = static_cast<std::uint64_t>(spec.largest_unit().count());
        char* at = buffer.data();
        char* const end = buffer.data() + buffer.size();
        for (const TimePart& part : spec.time) {
            if (part.unit == 0) {
                // A long literal is cut rather than run over the buffer.
                const auto room = static_cast<std::size_t>(end - at);
                if (part.literal.size() + 64 > room) break;
                at = std::copy(part.literal.begin(), part.literal.end(), at);
                continue;
            }
            const std::uint64_t unit = part.unit == 'H'   ? 3'600'000'000'000U
                                       : part.unit == 'M' ? 60'000'000'000U
                                                          : 1'000'000'000U;
            std::uint64_t count = ticks / (unit / smallest * ticks_a_unit);
            if (unit != largest) count %= 60;
            if (end - at < 64) break;
            if (count < 10) *at++ = '0';
            at = std::to_chars(at, end, count).ptr;
            if (part.unit == 'S' && digits > 0) {
                *at++ = '.';
                std::uint64_t fraction = ticks % ticks_a_unit;
                for (int i = digits - 1; i >= 0; --i, fraction /= 10)
                    at[i] = static_cast<char>('0' + fraction % 10);
                at += digits;
            }
        }
        return {buffer.data(), static_cast<std::size_t>(at - buffer.data())};
    }

    static std::string_view sign_of(const Spec& spec, bool negative) {
        if (negative) return "-";
        if (spec.sign == '+') return "+";
        return spec.sign == ' ' ? " " : "";
    }

    static void number(const Spec& spec, bool negative, std::string_view digits, std::string& out) {
        const std::string_view sign = sign_of(spec, negative);
        const auto length = static_cast<int>(sign.size() + digits.size());
        if (spec.zero && spec.align == 0 && length < spec.width) {
            const bool has_base = digits.size() > 1 && digits[0] == '0' && (digits[1] | 0x20) >= 'b' &&
                                  (digits[1] | 0x20) <= 'x';
            const std::size_t base = has_base ? 2 : 0;
            out += sign;
            out += digits.substr(0, base);
            out.append(static_cast<std::size_t>(spec.width - length), '0');
            out += digits.substr(base);
            return;
        }
        pad(spec, sign, digits, spec.align == 0 ? '>' : spec.align, out);
    }

    static void pad(const Spec& spec, std::string_view sign, std::string_view body, char align,
                    std::string& out) {
        const int length = spec.width == 0 ? 0 : static_cast<int>(utf8::length(sign) + utf8::length(body));
        const int missing = std::max(0, spec.width - length);
        const int before = align == '>' ? missing : align == '^' ? missing / 2 : 0;
        for (int i = 0; i < before; ++i)
            out += spec.fill;
        out += sign;
        out += body;
        for (int i = before; i < missing; ++i)
            out += spec.fill;
    }
};

FormattedText::FormattedText(Format format, Rounding rounding, std::string placeholder)
    : format_(std::move(format)), rounding_(rounding), placeholder_(std::move(placeholder)) {
    keys_.resize(format_.parsed_->pieces.size());
    // Enough for most texts, so that a steady frame does not grow them.
    text_.reserve(32);
    draft_.reserve(32);
}

bool FormattedText::update(const FieldValues& values) {
    const auto& pieces = format_.parsed_->pieces;
    bool differs = !made_;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Key key =
            FieldWriter::key_of(pieces[i].spec, pieces[i].shows_max ? values.max : values.value, rounding_);
        // A text has no digits to compare: it is written and compared as a whole.
        differs = differs || key.kind == Key::Kind::text || key != keys_[i];
        keys_[i] = key;
    }
    if (!differs) return false;
    draft_.clear();
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        draft_ += pieces[i].literal;
        FieldWriter::write(pieces[i].spec, keys_[i], pieces[i].shows_max ? values.max : values.value,
                           placeholder_, draft_);
    }
    draft_ += format_.parsed_->tail;
    const bool changed = !made_ || draft_ != text_;
    made_ = true;
    if (changed) text_.swap(draft_);
    return changed;
}

}  // namespace rapido
