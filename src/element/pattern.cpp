#include "element/pattern.hpp"

namespace rapido {
namespace {

/// The type of what a field shows, where it is known.
std::optional<Value::Type> type_of(FieldName field, const BodyContext& context) {
    if (field == FieldName::max) return context.max_type;
    if (field != FieldName::left || !context.value_type || !context.max_type) return context.value_type;
    const auto is_whole = [](Value::Type type) { return type == Value::Type::int64 || type == Value::Type::uint64; };
    if (is_whole(*context.value_type) && is_whole(*context.max_type)) return context.value_type;
    const bool same = *context.value_type == *context.max_type;
    return same || *context.value_type == Value::Type::text ? context.value_type : Value::Type::float64;
}

void check_fields(const Format& format, const Pattern& pattern, std::string_view name, BodyContext& context) {
    const std::vector<Format::Use> uses = format.uses();
    for (std::size_t i = 0; i < uses.size(); ++i) {
        const FieldName field = uses[i].field;
        if (field == FieldName::named || field == FieldName::sign) continue;  // of a type that is known when it is read
        const bool needs_max = field != FieldName::value && field != FieldName::delta && field != FieldName::ordinal;
        const std::string braces = field == FieldName::value ? "{}" : "{" + std::string(to_string(field)) + "}";
        if (needs_max && !pattern.has_max) {
            context.report(name, "shows " + braces + " but has no 'max'");
            continue;
        }
        if (field != FieldName::max && !pattern.has_value) {
            context.report(name, "shows " + braces + " but has no 'value'");
            continue;
        }
        const auto type = type_of(field, context);
        if (!type) continue;
        const std::string mismatch = format.mismatch(i, *type);
        const std::string_view spec = uses[i].spec;
        const char last = spec.empty() ? ' ' : spec.back();
        const bool is_bare = spec.find('.') != std::string_view::npos && last >= '0' && last <= '9';
        const bool by_digits = std::string_view("eEgG").find(last) != std::string_view::npos || is_bare;
        if (mismatch.empty() && pattern.asks_for_rounding && by_digits && spec.find('%') == std::string_view::npos &&
            type != Value::Type::text)
            context.report(name,
                           "spec '" + std::string(spec) + "' of " + braces +
                               " counts significant digits, which are rounded to nearest; 'rounding' needs 'f' or 'd'");
        if (mismatch.empty()) continue;
        context.report(name, "spec '" + std::string(uses[i].spec) + "' of " + braces + ": " + mismatch);
    }
}

}  // namespace

Rounding rounding_for(Rounding rounding, detail::ValueUse use, bool has_max) {
    if (rounding != Rounding::automatic) return rounding;
    if (use == detail::ValueUse::time_left) return Rounding::up;
    if (use == detail::ValueUse::time_passed) return Rounding::down;
    return has_max ? Rounding::honest : Rounding::nearest;
}

std::optional<FormattedText> make_formatted_text(const Pattern& pattern, TextOptions options, const Language* language,
                                                 BodyContext& context) {
    static const PluralForms none;
    const PluralForms& forms = pattern.plural != nullptr ? *pattern.plural : none;
    std::optional<Translation> translated;
    if (language != nullptr) {
        translated = language->translation(pattern.format);
        if (const std::optional<Translation> placeholder = language->translation(options.placeholder))
            options.placeholder = placeholder->forms.back();
    }
    const std::array<const std::string*, plural_categories> own{&forms.zero, &forms.one,  &forms.two,
                                                                &forms.few,  &forms.many, &pattern.format};
    const std::array<std::string_view, plural_categories> names{"plural.zero", "plural.one",  "plural.two",
                                                                "plural.few",  "plural.many", pattern.field};
    std::optional<FormattedText> made;
    // `other` first: the text is made of it.
    for (std::size_t i = plural_categories; i-- > 0;) {
        const std::string& form = translated ? translated->forms[i] : *own[i];
        const bool is_other = i + 1 == plural_categories;
        if (form.empty() && !is_other) continue;
        const Result<Format> format = context.format(form, translated ? std::string_view() : names[i], pattern.names);
        if (!format) {
            for (const Problem& problem : format.problems())
                context.report(problem);
            if (is_other) return std::nullopt;
            continue;
        }
        check_fields(*format, pattern, names[i], context);
        if (pattern.looks != nullptr) pattern.looks->find(*format, pattern.around, names[i], context);
        if (is_other)
            made.emplace(*format, options);
        else
            made->set_form(static_cast<PluralCategory>(i), *format);
    }
    if (made && language != nullptr) made->set_numbers(&language->numbers);
    return made;
}

}  // namespace rapido
