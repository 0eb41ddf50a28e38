// A value that owns its text.
#pragma once

#include <string>

#include "rapido/value/value.hpp"

namespace rapido {

/// Keeps a value longer than the text that it views.
class KeptValue {
 public:
    KeptValue() = default;
    KeptValue(const Value& value) { *this = value; }
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
