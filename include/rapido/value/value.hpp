// What a source gives at one moment.
#pragma once

#include <chrono>
#include <concepts>
#include <cstdint>
#include <string>
#include <string_view>
#include <type_traits>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

template <class T>
inline constexpr bool is_duration = false;
template <class Rep, class Period>
inline constexpr bool is_duration<std::chrono::duration<Rep, Period>> = true;
template <>
inline constexpr bool is_duration<Seconds> = true;

/// One value of one of the types that a HUD can show, or no value. It has sixteen bytes. A text is a view, which is valid as
/// long as the string that it was made from. A `Value` variable may itself be watched: its type may then change while
/// running.
class Value {
 public:
    // As wide as the rest, so that a copy is two whole words: one byte at the end would be copied by stores that
    // overlap, and the next read of it would wait for them.
    enum class Type : std::uint32_t { none, flag, int64, uint64, float32, float64, text, duration };

    /// Makes no value: an element shows its placeholder.
    constexpr Value() = default;
    constexpr Value(std::same_as<bool> auto value) : integer_(value ? 1 : 0), type_(Type::flag) {}
    constexpr Value(std::signed_integral auto value) : integer_(value), type_(Type::int64) {}
    template <std::unsigned_integral T>
    requires(!std::same_as<T, bool>) constexpr Value(T value) : natural_(value), type_(Type::uint64) {}
    constexpr Value(float value) : real_(value), type_(Type::float32) {}
    constexpr Value(double value) : real_(value), type_(Type::float64) {}
    /// A number beyond the range of a double becomes an infinity.
    constexpr Value(long double value) : real_(static_cast<double>(value)), type_(Type::float64) {}
    constexpr Value(std::string_view text)
        : chars_(text.data()), size_(static_cast<std::uint32_t>(text.size())), type_(Type::text) {}
    constexpr Value(const char* text) : Value(std::string_view(text)) {}
    Value(const std::string& text) : Value(std::string_view(text)) {}
    /// A duration is kept in whole nanoseconds, saturated at 292 years; a floating point duration is rounded to the nearest.
    template <class Rep, class Period>
    constexpr Value(std::chrono::duration<Rep, Period> time) : type_(Type::duration) {
        if constexpr (std::is_floating_point_v<Rep>) {
            integer_ = to_nanoseconds(Seconds{time}).count();
        } else {
            constexpr auto most = std::chrono::duration_cast<std::chrono::duration<Rep, Period>>((Nanoseconds::max)());
            if (time > most)
                integer_ = (Nanoseconds::max)().count();
            else if (time < -most)
                integer_ = (Nanoseconds::min)().count();
            else
                integer_ = std::chrono::duration_cast<Nanoseconds>(time).count();
        }
    }

    Value(Seconds time) : Value(to_nanoseconds(time)) {}

    constexpr Type type() const { return type_; }
    constexpr bool has_value() const { return type_ != Type::none; }
    constexpr bool is_integer() const { return type_ == Type::int64 || type_ == Type::uint64; }
    constexpr bool is_real() const { return type_ == Type::float32 || type_ == Type::float64; }
    /// Whether the value is an amount: everything but a text and no value.
    constexpr bool is_number() const { return type_ != Type::none && type_ != Type::text; }

    // Each of these is for its own type only.
    constexpr bool flag() const { return integer_ != 0; }
    constexpr std::int64_t int64() const { return integer_; }
    constexpr std::uint64_t uint64() const { return natural_; }
    constexpr double real() const { return real_; }
    constexpr std::string_view text() const { return {chars_, size_}; }
    constexpr Nanoseconds duration() const { return Nanoseconds{integer_}; }

    /// Returns the amount as a double: a duration in seconds, true as 1; NaN for a text and for no value.
    double number() const { return type_ == Type::float64 ? real_ : other_number(); }

    /// Returns what a condition makes of the value: no value, zero, NaN, false and the empty text are false.
    bool truth() const;

    /// Equal for the same type and bits, or the same text: NaN equals itself, 0.0 differs from -0.0 and 1 from 1.0.
    friend bool operator==(const Value& a, const Value& b) {
        if (a.type_ != b.type_) return false;
        return a.type_ == Type::text ? a.text() == b.text() : a.natural_ == b.natural_;
    }

 private:
    double other_number() const;

    union {
        std::int64_t integer_ = 0;
        std::uint64_t natural_;
        double real_;
        const char* chars_;
    };
    std::uint32_t size_ = 0;
    Type type_ = Type::none;
};

/// Returns an amount in the type of an example: integers are rounded to the nearest, ties to even, and limited to their range;
/// a duration takes seconds. An example without an amount is returned itself.
Value amount_like(const Value& example, double amount);

/// Returns `a` minus `b`: the difference of integers as an integer, of durations as a duration, of others, and one that does
/// not fit, as a double. Returns no value if one of them has no amount.
Value difference(const Value& a, const Value& b);

/// Returns whether the amount `a` is less than `b`; integers are compared as integers. False if one has no amount.
bool less(const Value& a, const Value& b);

/// Returns the word for a type: "no value", "flag", "integer", "number", "text", "duration".
std::string_view to_string(Value::Type type);

}  // namespace rapido
