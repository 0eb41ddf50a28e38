// Patterns: literal text with fields for values.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/value/value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What happens to the digits that are not shown.
enum class Rounding : std::uint8_t {
    automatic,  ///< by use: `up` for the time that a timer has left, `down` for the time that has passed,
                ///< `honest` if there is a maximum, else `nearest`
    nearest,    ///< the nearest, of the exact value; a tie goes to the even digit (ISO C++)
    down,       ///< towards minus infinity: never shows more than there is
    up,         ///< towards plus infinity: never shows less than there is
    honest,     ///< the nearest, but an amount above 0 never shows as 0, and one below its maximum never as the
                ///< maximum
};

/// The values that the fields of a pattern show.
struct FieldValues {
    Value value = {};  ///< `{}` and `{value}`; `{percent}`, `{ratio}` and `{left}` are made of it and the maximum
    Value max = {};    ///< `{max}`
    Value delta = {};  ///< `{delta}`: the last change of the value
    /// While the value is on its way: where it came from and where it goes, so that the digits after its point do not come and go.
    Value start = {}, target = {};
    /// The value as a number, where it is an integer on its way: `{percent}` and `{ratio}` are made of what lies between two, too.
    std::optional<double> amount = {};
    std::span<const Value> named = {};  ///< those of fields with names of their own, in the order of the names
};

enum class FieldName : std::uint8_t { value, max, percent, ratio, left, delta, sign, ordinal, named };

/// A pattern: literal text and fields in braces, `{{` and `}}` for the braces themselves.
///
/// | field | shows |
/// |---|---|
/// | `{}`, `{value}` | the value |
/// | `{max}` | its maximum |
/// | `{percent}`, `{ratio}` | the value as part of the maximum, in hundredths and whole; by default `.0f` and `.2f` |
/// | `{left}` | the maximum minus the value |
/// | `{delta}` | the last change of the value, by default with its sign |
/// | `{ordinal}` | the value, as a whole number, as an ordinal in the language: `1st`, `2.`; under `L` with its digits and marks |
///
/// `{sign}` is where the sign of the first number stands, which is then written without one: `{sign}${:.2f}` is `-$20.00`.
///
/// A field may carry an ISO C++ format spec: `{:>7}`, `{:.1f}`, `{max:02}`, `{:L}`. A duration takes a chrono
/// spec of `%H`, `%I`, `%M`, `%S`, `%p`, `%T`, `%R` and literal text, with a precision for fractions of a
/// second (`{:.1%M:%S}`); so does a plain number, as seconds.
///
/// Markup is that of Unicode MessageFormat 2 (Unicode Technical Standard 35, part 9): `{#warning}` begins a piece in the style of that
/// name and `{/warning}` ends it; `{#coin/}` is the image of that name on the line. Spaces may stand inside of the braces. Pieces are
/// nested, at most 8 deep, and end in the order in which that standard recommends: the last one first. There are no options and no
/// attributes, a name is an id, and a brace is escaped as in ISO C++, `{{`. Only patterns and translations are read so: what a value
/// says is shown as it is, braces and all.
///
/// Departures from ISO, so that a HUD is readable: the largest unit of a duration is not reduced (75 minutes
/// under `%M:%S` is `75:00`), a time is rounded before it is split, negative zero shows no sign, an infinity
/// is `∞`, `f`, `e` and `g` also take an integer, NaN shows the placeholder, and `L` takes its marks from the
/// HUD's language.
class Format {
 public:
    /// A field of a pattern, as checks see it.
    struct Use {
        FieldName field = FieldName::value;
        std::size_t named = 0;   ///< for a field with a name of its own, which
        std::string_view spec;   ///< without the colon
        std::size_t offset = 0;  ///< where the field begins in the pattern, in bytes
    };

    /// A styled piece or an image of a pattern.
    struct PieceUse {
        std::string_view name;
        bool is_image = false;
        std::size_t offset = 0;  ///< where it begins in the pattern, in bytes
    };

    /// Parses a pattern of at most 4096 bytes and 8 fields. Widths are limited to 256, precisions to 30.
    /// `where` is the place of the pattern's first character; problems point at the fault inside it. `names` are fields besides
    /// those of the table.
    static Result<Format> parse(std::string_view pattern, const Location& where = {},
                                std::span<const std::string_view> names = {});

    std::vector<Use> uses() const;
    /// Returns the pieces that need a style or an image of their name.
    std::vector<PieceUse> piece_uses() const;
    /// Whether some field needs the maximum.
    bool uses_max() const;
    /// Returns why a value of this type cannot be shown in that use; empty if it can.
    std::string mismatch(std::size_t use, Value::Type type) const;

    /// The pattern after parsing, for the core alone.
    struct Parsed;
    const Parsed& parsed() const { return *parsed_; }

 private:
    friend class FormattedText;
    std::shared_ptr<const Parsed> parsed_;
};

/// "value", "max", "percent", "ratio", "left", "delta", "sign", "ordinal", "named".
std::string_view to_string(FieldName field);

}  // namespace rapido
