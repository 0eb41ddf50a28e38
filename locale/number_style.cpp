#include <unicode/compactdecimalformat.h>
#include <unicode/decimfmt.h>
#include <unicode/formattedvalue.h>
#include <unicode/locid.h>
#include <unicode/numberformatter.h>
#include <unicode/numsys.h>
#include <unicode/plurrule.h>
#include <unicode/rbnf.h>
#include <unicode/unum.h>

#include <algorithm>
#include <memory>
#include <optional>

#include "rapido/hud/hud.hpp"
#include "rapido/locale.hpp"

namespace rapido {
namespace {

std::string utf8(const icu::UnicodeString& text) {
    std::string bytes;
    text.toUTF8String(bytes);
    return bytes;
}

std::string symbol(const icu::DecimalFormatSymbols& symbols, icu::DecimalFormatSymbols::ENumberFormatSymbol which) {
    return utf8(symbols.getConstSymbol(which));
}

bool is_known(const icu::Locale& locale) {
    int32_t count = 0;
    const icu::Locale* const available = icu::Locale::getAvailableLocales(count);
    return std::any_of(available, available + count, [&](const icu::Locale& known) {
        return std::string_view(known.getLanguage()) == locale.getLanguage();
    });
}

/// How ICU writes a number compactly, cut into what stands before its digits, the digits, and what stands
/// after.
struct Written {
    std::string before, after;
    int whole_digits = 0;
};

Written cut_digits(const icu::number::FormattedNumber& formatted, UErrorCode& status) {
    const icu::UnicodeString text = formatted.toString(status);
    icu::ConstrainedFieldPosition position;
    int32_t begin = text.length();
    int32_t end = 0;
    Written written;
    while (formatted.nextPosition(position, status)) {
        const bool is_whole = position.getField() == UNUM_INTEGER_FIELD;
        if (!is_whole && position.getField() != UNUM_DECIMAL_SEPARATOR_FIELD &&
            position.getField() != UNUM_FRACTION_FIELD)
            continue;
        begin = std::min(begin, position.getStart());
        end = std::max(end, position.getLimit());
        if (is_whole) {
            const icu::UnicodeString digits = text.tempSubStringBetween(position.getStart(), position.getLimit());
            for (int32_t i = 0; i < digits.length(); i = digits.moveIndex32(i, 1))
                written.whole_digits += u_isdigit(digits.char32At(i)) ? 1 : 0;
        }
    }
    written.before = utf8(text.tempSubStringBetween(0, begin));
    written.after = utf8(text.tempSubString(end));
    return written;
}

/// ICU has no call for its compact patterns: each is read off numbers that it formats, one for each plural
/// category that occurs among the numbers with so many digits before the point.
std::vector<CompactForm> compact_forms(const icu::Locale& locale, const PluralRules& rules, UErrorCode& status) {
    const auto formatter = icu::number::NumberFormatter::withLocale(locale)
                               .notation(icu::number::Notation::compactShort())
                               .precision(icu::number::Precision::maxSignificantDigits(3));
    std::vector<CompactForm> forms;
    double power_of_ten = 1000;
    for (int power = 3; power <= 19 && U_SUCCESS(status); ++power, power_of_ten *= 10) {
        CompactForm& form = forms.emplace_back();
        const Written first = cut_digits(formatter.formatDouble(power_of_ten, status), status);
        // Behind the last name there are only more and more digits.
        if (power > 15 && first.whole_digits > 4) {
            forms.pop_back();
            break;
        }
        form.drop = power + 1 - first.whole_digits;
        if (form.drop == 0) continue;
        form.around.fill({first.before, first.after});
        std::array<bool, plural_categories> seen{};
        // 1 to 99 with one digit after the point or none reach every category that the rules tell apart by
        // digits.
        for (int tenths = 10; tenths < 10000; ++tenths) {
            const int whole = tenths / 10;
            const int digits = whole < 10 ? 1 : whole < 100 ? 2 : 3;
            if (digits != first.whole_digits) continue;
            const bool has_tenth = tenths % 10 != 0;
            const PluralOperands operands{static_cast<std::uint64_t>(has_tenth ? tenths : whole), has_tenth ? 1 : 0, 0};
            const auto category = static_cast<std::size_t>(rules.select(operands));
            if (seen[category]) continue;
            const double amount = tenths / 10.0 * power_of_ten / (digits == 1 ? 1 : digits == 2 ? 10 : 100);
            const Written written = cut_digits(formatter.formatDouble(amount, status), status);
            if (written.whole_digits != digits) continue;
            seen[category] = true;
            form.around[category] = {written.before, written.after};
        }
        const auto other = static_cast<std::size_t>(PluralCategory::other);
        for (std::size_t category = 0; category < plural_categories; ++category)
            if (!seen[category]) form.around[category] = form.around[other];
    }
    // Beyond the last power for which there is a word of its own, the last one counts.
    while (!forms.empty() && forms.back().drop == 0)
        forms.pop_back();
    return forms;
}

/// ICU tells ordinals by what it writes, too: what stands around the digits of the smallest number of each category. False where that is not
/// so for all of the first twenty, as in Afrikaans, for which CLDR knows one category alone.
bool take_ordinals(const icu::Locale& locale, NumberStyle& style) {
    UErrorCode status = U_ZERO_ERROR;
    const std::unique_ptr<icu::PluralRules> rules(icu::PluralRules::forLocale(locale, UPLURAL_TYPE_ORDINAL, status));
    const icu::RuleBasedNumberFormat format(icu::URBNF_ORDINAL, locale, status);
    if (U_FAILURE(status)) return false;
    Result<PluralRules> parsed = PluralRules::parse(utf8(rules->getRules()));
    if (!parsed) return false;
    style.ordinals = *std::move(parsed);
    const auto category_of = [&](int number) {
        return static_cast<std::size_t>(style.ordinals.select({static_cast<std::uint64_t>(number), 0, 0}));
    };
    const auto around = [&](int number) {
        icu::UnicodeString text;
        format.format(number, text);
        int32_t begin = 0, end = text.length();
        while (begin < end && u_isdigit(text.char32At(begin)) == 0)
            begin = text.moveIndex32(begin, 1);
        while (end > begin && u_isdigit(text.char32At(text.moveIndex32(end, -1))) == 0)
            end = text.moveIndex32(end, -1);
        return std::pair(utf8(text.tempSubStringBetween(0, begin)), utf8(text.tempSubString(end)));
    };
    std::array<bool, plural_categories> seen{};
    constexpr int most = 200, first = 20;
    for (int number = most; number > 0; --number) {
        style.ordinal_around[category_of(number)] = around(number);
        seen[category_of(number)] = true;
    }
    for (std::size_t category = 0; category < plural_categories; ++category)
        if (!seen[category]) style.ordinal_around[category] = style.ordinal_around.back();
    for (int number = 1; number <= first; ++number)
        if (style.ordinal_around[category_of(number)] != around(number)) return false;
    return true;
}

/// How many digits stand before the first separator at least: ICU tells it only by what it writes.
int minimum_grouping(const icu::Locale& locale, const NumberStyle& style, UErrorCode& status) {
    const auto formatter = icu::number::NumberFormatter::withLocale(locale);
    std::int64_t number = 1;
    for (int i = 0; i < style.primary_group; ++i)
        number *= 10;
    for (int minimum = 1; minimum <= 3; ++minimum, number *= 10)
        if (utf8(formatter.formatInt(number, status).toString(status)).find(style.group) != std::string::npos)
            return minimum;
    return 1;
}

/// The tag that the name of a locale of an operating system means: `pt-BR` for `pt_BR.UTF-8`, `sr` for `sr@latin`.
std::string tag_of(std::string_view name) {
    std::string tag(name.substr(0, name.find_first_of(".@")));
    std::replace(tag.begin(), tag.end(), '_', '-');
    return tag;
}

Result<icu::Locale> locale_of(std::string_view name) {
    const std::string tag = tag_of(name);
    UErrorCode status = U_ZERO_ERROR;
    icu::Locale locale =
        icu::Locale::forLanguageTag(icu::StringPiece(tag.data(), static_cast<int32_t>(tag.size())), status);
    if (U_FAILURE(status) || locale.isBogus() || tag.empty())
        return Problem{
            {}, "'" + std::string(name) + "' is not a BCP 47 language tag", "write 'de', 'pt-BR' or 'ar-EG'"};
    if (!is_known(locale)) return Problem{{}, "CLDR knows no language '" + std::string(tag) + "'", ""};
    return locale;
}

/// The literal text of a pattern.
std::string literal(const icu::UnicodeString& text) {
    std::string written;
    for (const char c : utf8(text)) {
        if (c == '{' || c == '}') written += c;
        written += c;
    }
    return written;
}

}  // namespace

Result<NumberStyle> number_style(std::string_view tag) {
    const Result<icu::Locale> found = locale_of(tag);
    if (!found) return found.problems();
    const icu::Locale& locale = *found;
    UErrorCode status = U_ZERO_ERROR;

    const std::unique_ptr<icu::NumberFormat> format(icu::NumberFormat::createInstance(locale, UNUM_DECIMAL, status));
    const std::unique_ptr<icu::PluralRules> plurals(icu::PluralRules::forLocale(locale, status));
    const auto* const decimal = dynamic_cast<const icu::DecimalFormat*>(format.get());
    if (U_FAILURE(status) || decimal == nullptr)
        return Problem{{}, "ICU has no numbers for '" + std::string(tag) + "': " + u_errorName(status), ""};

    using Symbols = icu::DecimalFormatSymbols;
    const Symbols& symbols = *decimal->getDecimalFormatSymbols();
    NumberStyle style;
    style.digits[0] = symbol(symbols, Symbols::kZeroDigitSymbol);
    for (int digit = 1; digit <= 9; ++digit)
        style.digits[static_cast<std::size_t>(digit)] =
            symbol(symbols, static_cast<Symbols::ENumberFormatSymbol>(Symbols::kOneDigitSymbol + digit - 1));
    style.decimal = symbol(symbols, Symbols::kDecimalSeparatorSymbol);
    style.group = symbol(symbols, Symbols::kGroupingSeparatorSymbol);
    style.minus = symbol(symbols, Symbols::kMinusSignSymbol);
    style.plus = symbol(symbols, Symbols::kPlusSignSymbol);
    style.primary_group = decimal->isGroupingUsed() ? decimal->getGroupingSize() : 0;
    style.secondary_group =
        decimal->getSecondaryGroupingSize() > 0 ? decimal->getSecondaryGroupingSize() : style.primary_group;
    style.minimum_grouping = minimum_grouping(locale, style, status);

    Result<PluralRules> rules = PluralRules::parse(utf8(plurals->getRules()));
    if (!rules) return rules.problems();
    style.plurals = *std::move(rules);
    style.compact = compact_forms(locale, style.plurals, status);
    // Where its categories do not tell them apart, an ordinal is a number with a point.
    if (!take_ordinals(locale, style)) {
        style.ordinal_around.fill({"", "."});
        style.ordinals = {};
    }
    // CLDR has names up to 10^15; English goes on.
    // That of a country may be of another kind: lakhs and crores in India.
    if (std::string_view(locale.getLanguage()) == "en" &&
        style.compact == compact_forms(icu::Locale::getEnglish(), style.plurals, status))
        style.compact = NumberStyle::english_compact();
    if (U_FAILURE(status)) return Problem{{}, "ICU cannot write compact numbers for '" + std::string(tag) + "'", ""};
    return style;
}

Result<std::string> currency_format(std::string_view tag, std::string_view currency) {
    const Result<icu::Locale> locale = locale_of(tag);
    if (!locale) return locale.problems();
    UErrorCode status = U_ZERO_ERROR;
    const icu::CurrencyUnit unit(icu::StringPiece(currency.data(), static_cast<int32_t>(currency.size())), status);
    const auto formatter = icu::number::NumberFormatter::withLocale(*locale).unit(unit);
    const auto written = formatter.formatInt(-1, status);
    const icu::UnicodeString text = written.toString(status);
    const icu::UnicodeString positive = formatter.formatInt(1, status).toString(status);
    if (currency.size() != 3 || U_FAILURE(status))
        return Problem{
            {},
            "'" + utf8(icu::UnicodeString::fromUTF8(std::string(currency))) + "' is not a currency code of ISO 4217",
            "write 'EUR', 'USD' or 'JPY'"};
    const icu::DecimalFormatSymbols symbols(*locale, status);
    const std::string minus = symbol(symbols, icu::DecimalFormatSymbols::kMinusSignSymbol);
    // ICU has no call for the parts of its pattern: they are read off an amount that it writes.
    std::string pattern;
    int decimals = 0;
    int32_t at = 0;
    std::optional<std::size_t> digits_at;  ///< where their count stands in the pattern
    icu::ConstrainedFieldPosition part;
    while (written.nextPosition(part, status)) {
        const auto field = part.getField();
        const bool is_sign = field == UNUM_SIGN_FIELD;
        const bool is_digits =
            field == UNUM_INTEGER_FIELD || field == UNUM_DECIMAL_SEPARATOR_FIELD || field == UNUM_FRACTION_FIELD;
        if (field == UNUM_FRACTION_FIELD) decimals = part.getLimit() - part.getStart();
        if (!is_sign && !is_digits) continue;
        pattern += literal(text.tempSubStringBetween(at, part.getStart()));
        at = part.getLimit();
        // Some languages have a space where the sign of a loss would be.
        const bool is_space = is_sign && positive.charAt(part.getStart()) == u'\u00a0';
        // The marks of direction that come with a sign are no part of its field.
        const std::string sign = utf8(text.tempSubStringBetween(part.getStart(), part.getLimit()));
        if (is_sign && minus.ends_with(sign)) {
            const std::string_view marks = std::string_view(minus).substr(0, minus.size() - sign.size());
            if (pattern.ends_with(marks)) pattern.resize(pattern.size() - marks.size());
        }
        if (is_sign) pattern += is_space ? "{sign: }" : "{sign}";
        if (is_digits && !digits_at) {
            digits_at = (pattern += "{:.").size();
            pattern += "Lf}";
        }
    }
    pattern += literal(text.tempSubString(at));
    return pattern.insert(digits_at.value_or(pattern.size()), std::to_string(decimals));
}

Result<Language> language(std::string_view tag) {
    Result<NumberStyle> style = number_style(tag);
    if (!style) return style.problems();
    Language made;
    made.tag = tag_of(tag);
    made.right_to_left = locale_of(tag)->isRightToLeft() != 0;
    made.numbers = *std::move(style);
    return made;
}

Status set_language(Hud& hud, std::string_view tag, const Catalogue* words) {
    Result<Language> made = language(tag);
    if (!made) return made.problems().front();
    made->catalogue = words;
    hud.set_language(*made);
    return {};
}

Status set_language(Hud& hud, std::string_view tag, std::map<std::string, Translation, std::less<>> translations) {
    Result<Language> made = language(tag);
    if (!made) return made.problems().front();
    made->translations = std::move(translations);
    hud.set_language(*made);
    return {};
}

}  // namespace rapido
