// A value that owns its text.
#pragma once

#include <string>
#include <string_view>
#include <type_traits>

#include "rapido/base/exported.hpp"
#include "rapido/value/value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Keeps a value longer than the text that it views.
class KeptValue {
 public:
    KeptValue() = default;
    KeptValue(const Value& value) { *this = value; }
    /// A literal text, a number, a flag; an enumerator by its name, if there is a `name_of`, or else by its number.
    template <class T>
    requires(std::is_arithmetic_v<T> || std::is_enum_v<T>) KeptValue(T value) {
        if constexpr (!std::is_enum_v<T>)
            *this = Value(value);
        else if constexpr (requires { name_of(value); })
            *this = Value(std::string_view(name_of(value)));
        else
            *this = Value(static_cast<std::underlying_type_t<T>>(value));
    }
    template <std::size_t size>
    KeptValue(const char (&text)[size]) : KeptValue(Value(static_cast<const char*>(text))) {}
    KeptValue& operator=(const Value& value) {
        const bool is_text = value.type() == Value::Type::text;
        if (is_text) text_ = value.text();
        value_ = is_text ? Value("") : value;
        return *this;
    }

    /// A text in it is valid until the next value.
    Value get() const { return value_.type() == Value::Type::text ? Value(std::string_view(text_)) : value_; }
    friend bool operator==(const KeptValue& a, const KeptValue& b) { return a.get() == b.get(); }

 private:
    Value value_;
    std::string text_;
};

}  // namespace rapido
