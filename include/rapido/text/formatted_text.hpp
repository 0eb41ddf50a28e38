// A text that is made of values.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <string_view>
#include <utility>

#include "rapido/base/exported.hpp"
#include "rapido/text/format.hpp"
#include "rapido/text/language.hpp"

namespace rapido RAPIDO_EXPORTED {

class NumberText;

/// What a pattern does not say of how a text is made.
struct TextOptions {
    Rounding rounding = Rounding::automatic;
    std::string placeholder = "--";  ///< stands in place of a field that has no value
    int compact_digits = 0;          ///< significant digits of `12.3K`, 1 to 15; zero writes numbers in full
    bool drop_zero_parts = false;    ///< leading zero parts of a duration are left out: `42`, `1:07`, `1:02:03`
    bool time_of_day = false;        ///< hours of a duration begin again after 24
    bool seconds_left = false;       ///< a number under `{}` is a time that is left: whole seconds
    friend bool operator==(const TextOptions&, const TextOptions&) = default;
};

/// A part of a text in a style of its own, or an image on its line.
struct TextPiece {
    std::size_t begin = 0, end = 0;  ///< bytes; of an image those of U+FFFC
    std::string_view name{};         ///< of the style or the image
    bool is_image = false;
    friend RAPIDO_EXPORTED bool operator==(const TextPiece&, const TextPiece&);
};

/// One text, which is made again only when its visible characters would differ: a value is first turned into the digits that
/// would be seen, and only other digits make another text.
///
///     rapido::FormattedText label{*rapido::Format::parse("{} acres")};
///     if (label.update({.value = mission.acres})) widget.set_text(label.text());
class FormattedText {
 public:
    explicit FormattedText(Format format, TextOptions options = {});

    /// Sets the pattern for another plural category than `other`. The first number that the format shows chooses.
    void set_form(PluralCategory category, Format format);
    /// Sets the marks, compact forms and plural rules of a language, which must outlive the text. Null is English.
    void set_numbers(const NumberStyle* numbers);

    /// Returns another text of the same pattern, language and options, which shows nothing yet.
    FormattedText copy() const;

    /// Shows these values. Returns whether the visible characters changed; the first time they always have.
    bool update(const FieldValues& values);

    /// Returns the characters, which are valid until the next update.
    std::string_view text() const;
    /// Returns the styled pieces and the images of the text, in the order in which they begin: where they overlap, the later one
    /// counts. Valid until the next update.
    std::span<const TextPiece> pieces() const { return pieces_; }
    /// Lets a `NumberText`, which must outlive this text, write and hold the characters where only one number of them
    /// changes; while it holds them, it may be updated in place of this text, with the same maximum and delta. Null for
    /// none, as at first. The characters stay.
    void write_into(NumberText* number);
    /// Returns how many digits are shown after the point, if the text shows one number of this type with a fixed count of
    /// digits.
    std::optional<int> places(std::optional<Value::Type> type) const;
    /// Returns these values in units of the last digit of such a text; nothing if no digits would be shown.
    std::optional<std::int64_t> count(const FieldValues& values) const;
    /// Whether any of its patterns has this field.
    bool shows(FieldName field) const;
    /// Returns how often the characters were written, whether or not they differed.
    std::uint32_t times_made() const;

 private:
    friend class FieldWriter;

    /// What is visible of one field: its digits, not its value.
    struct Key {
        enum class Kind : std::uint8_t { placeholder, infinity, digits, whole, real, flag, text, sign };
        std::uint64_t bits = 0;
        Kind kind = Kind::placeholder;
        bool negative = false;
        std::int8_t places = 0;  ///< digits after the point; of a whole number so many zeros
        std::int8_t power = 0;   ///< of a compact number: which compact form, from 1
        friend bool operator==(const Key&, const Key&) = default;
    };
    using Forms = std::array<std::optional<Format>, plural_categories>;

    std::size_t first_number() const;
    const Format& form_for(std::size_t first) const;
    void write(const Format& form, const FieldValues& values);
    void mark(const Format& form, std::size_t before, std::size_t from);
    bool make(const FieldValues& values, bool first);
    void take_back();
    void hand_over(const FieldValues& values);

    Format format_;
    std::shared_ptr<const TextOptions> options_;  ///< most texts have the same
    std::unique_ptr<Forms> forms_;
    const NumberStyle* numbers_ = nullptr;
    std::vector<Key> keys_;
    std::uint32_t times_made_ = 0;
    bool made_ = false;  ///< with the present forms and language
    std::string text_;   ///< unless `number_` holds it
    std::vector<TextPiece> pieces_;
    NumberText* number_ = nullptr;
    std::pair<std::uint32_t, std::uint32_t> number_in_text_;  ///< where the value stands in `text_`
    Value handed_max_;                                        ///< what was shown of the maximum when it was handed over
};

}  // namespace rapido
