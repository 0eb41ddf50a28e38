// Patterns with fields, and the texts that they make.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/problem.hpp"
#include "rapido/value/value.hpp"

namespace rapido {

/// What happens to the digits that are not shown.
enum class Rounding : std::uint8_t {
    nearest,  ///< the nearest, of the exact value; a tie goes to the even digit (ISO C++)
    down,     ///< towards minus infinity: never shows more than there is
    up,       ///< towards plus infinity: never shows less than there is
};

/// What the fields of a pattern may show, by name.
struct FieldValues {
    Value value = {};  ///< `{}` and `{value}`
    Value max = {};    ///< `{max}`
};

/// A pattern: literal text and fields in braces, `{{` and `}}` for the braces themselves.
///
/// A field is `{}`, `{value}` or `{max}`, and may carry an ISO C++ format spec: `{:>7}`, `{:.1f}`,
/// `{max:02}`. A duration takes a chrono spec of `%H`, `%M`, `%S`, `%T`, `%R` and literal text, with a
/// precision for fractions of a second (`{:.1%M:%S}`); so does a plain number, as seconds.
///
/// Departures from ISO, so that a HUD is readable: the largest unit of a duration is not reduced (75 minutes
/// under
/// `%M:%S` is `75:00`), a time is rounded before it is split, negative zero shows no sign, an infinity is
/// `∞`, `f`, `e`, `g` and `a` also take an integer, and NaN shows the placeholder.
class Format {
 public:
    /// A field of a pattern, as checks see it.
    struct Use {
        std::string_view name;   ///< "value" or "max"
        std::string_view spec;   ///< without the colon
        std::size_t offset = 0;  ///< of the field in the pattern, in bytes
    };

    /// Parses a pattern of at most 4096 bytes and 8 fields. Widths are limited to 256, precisions to 30.
    /// `where` is the place of the pattern's first character; problems point at the fault inside it.
    static Result<Format> parse(std::string_view pattern, const Location& where = {});

    std::vector<Use> uses() const;
    /// The problem with showing a value of this type in that use; empty where there is none.
    std::string mismatch(std::size_t use, Value::Type type) const;

    /// The pattern after parsing; of no use outside.
    struct Parsed;

 private:
    friend class FormattedText;
    std::shared_ptr<const Parsed> parsed_;
};

/// One text on screen, made again only when its visible characters would differ.
///
///     rapido::FormattedText label{*rapido::Format::parse("{} acres")};
///     if (label.update({.value = mission.acres})) widget.set_text(label.text());
class FormattedText {
 public:
    explicit FormattedText(Format format, Rounding rounding = Rounding::nearest,
                           std::string placeholder = "--");

    /// Shows these values; true if the visible characters changed. Always true the first time.
    bool update(const FieldValues& values);

    const std::string& text() const { return text_; }

 private:
    /// What is visible of one field: the digits, not the value.
    struct Key {
        enum class Kind : std::uint8_t { placeholder, infinity, digits, real, boolean, text };
        std::uint64_t bits = 0;
        Kind kind = Kind::placeholder;
        bool negative = false;
        friend bool operator==(const Key&, const Key&) = default;
    };
    friend class FieldWriter;

    Format format_;
    Rounding rounding_;
    bool made_ = false;
    std::string placeholder_;
    std::vector<Key> keys_;
    std::string text_;
    std::string draft_;
};

}  // namespace rapido
