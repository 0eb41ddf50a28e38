// From a value to what is visible of it, and from that to characters.
#pragma once

#include "rapido/text/formatted_text.hpp"
#include "text/decimal.hpp"
#include "text/format_parsed.hpp"

namespace rapido {

/// Equal keys give equal characters, so that a text is made again only for another key.
class FieldWriter {
 public:
    using Key = FormattedText::Key;
    using Kind = Key::Kind;

    FieldWriter(const TextOptions& options, const NumberStyle& numbers) : options_(options), numbers_(numbers) {}

    Key key_of(const Format::Parsed::Piece& piece, const FieldValues& values) const;
    /// The same for a field of a format: where a field is the sign of the first number, that number has none.
    Key key_in(const Format& format, std::size_t piece, const FieldValues& values) const;
    void write(const Format::Parsed::Piece& piece, const Key& key, const FieldValues& values, std::string& out) const;
    /// What plural rules see of a number.
    PluralOperands operands(const Key& key) const;

 private:
    /// A value to be shown, and the maximum that honest rounding keeps it below.
    struct Amount {
        Value value;
        Value max;
    };

    void write_ordinal(const Spec& spec, const Key& key, std::string& out) const;

    // Values to keys (field_keys.cpp)
    Amount amount_of(const Format::Parsed::Piece& piece, const FieldValues& values) const;
    Rounding rounding_of(FieldName field) const;
    Key number_key(const Spec& spec, const Amount& amount, Rounding rounding) const;
    Key default_key(const Amount& amount, const FieldValues& values, Rounding rounding) const;
    static Key scientific_key(const DecimalDigits& digits);
    Key fixed_key(int places, const Amount& amount, Rounding rounding) const;
    Key time_key(const Spec& spec, const Amount& amount, Rounding rounding) const;
    Key part_key(const Spec& spec, FieldName field, const FieldValues& values, Rounding rounding) const;
    Key compact_key(const Amount& amount, Rounding rounding) const;
    Key compact_digits(const DecimalDigits& digits, Rounding rounding) const;

    // Keys to characters (field_writer.cpp)
    using Buffer = std::array<char, 512>;
    std::string_view real_text(const Spec& spec, const Key& key, Buffer& buffer) const;
    std::string_view time_text(const Spec& spec, const Key& key, Buffer& buffer) const;
    void number(const Spec& spec, const Key& key, std::string_view digits, std::string& out) const;
    std::string localized(const Spec& spec, const Key& key, std::string_view digits) const;

    const TextOptions& options_;
    const NumberStyle& numbers_;
};

}  // namespace rapido
