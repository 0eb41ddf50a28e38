#include "hud/element_context.hpp"

#include <algorithm>

#include "base/nearest.hpp"

namespace rapido {
namespace {

bool is_id(std::string_view id) {
    const auto allowed = [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
    };
    return !id.empty() && std::all_of(id.begin(), id.end(), allowed);
}

bool fits(const LanguageOptions& options, const Language& language) {
    return language.tag == options.language || language.tag.starts_with(options.language + "-");
}

}  // namespace

Result<Format> Formats::parse(const std::string& pattern) {
    if (const auto known = known_.find(pattern); known != known_.end()) return known->second;
    Result<Format> parsed = Format::parse(pattern);
    if (!parsed) return parsed;
    // A game that notifies ever new patterns does not gather them.
    constexpr std::size_t most_kept = 1024;
    if (known_.size() >= most_kept) known_.clear();
    known_.emplace(pattern, *parsed);
    return parsed;
}

std::string_view LanguageTable::font(const Language* language) const {
    std::string_view found = of_all.font;
    if (language == nullptr) return found;
    for (const LanguageOptions& known : by_language)
        if (fits(known, *language) && !known.font.empty()) found = known.font;
    return found;
}

Language LanguageTable::with_names(Language language) const {
    const std::vector<std::string>* names = &of_all.compact_names;
    for (const LanguageOptions& known : by_language)
        if (fits(known, language) && !known.compact_names.empty()) names = &known.compact_names;
    if (!names->empty()) language.numbers.compact = NumberStyle::compact_by(*names);
    return language;
}

Result<Format> ElementContext::format(const std::string& pattern, std::string_view field,
                                      std::span<const std::string_view> names) {
    if (!names.empty()) return Format::parse(pattern, field.empty() ? Location{} : place_of(field), names);
    Result<Format> parsed = formats_.parse(pattern);
    if (!parsed && !field.empty()) return Format::parse(pattern, place_of(field));
    return parsed;
}

std::shared_ptr<const TextPlan> ElementContext::shared(TextPlan plan) {
    return formats_.plans.share(std::move(plan));
}

void ElementContext::report(std::string_view field, std::string message, std::string hint, ProblemCode code) {
    failed_ = true;
    tell(field, std::move(message), std::move(hint), code, Severity::error);
}

void ElementContext::warn(std::string_view field, std::string message, std::string hint, ProblemCode code) {
    tell(field, std::move(message), std::move(hint), code, Severity::warning);
}

void ElementContext::tell(std::string_view field, std::string message, std::string hint, ProblemCode code,
                          Severity severity) {
    const bool verb = message.starts_with("is ") || message.starts_with("shows ") || message.starts_with("must ") ||
                      message.starts_with("needs ");
    problems_.report({place_of(field), "'" + std::string(field) + "' of " + name_ + (verb ? " " : ": ") + message,
                      std::move(hint), code, severity});
}

void ElementContext::report(Problem problem) {
    failed_ = true;
    problem.message = name_ + ": " + problem.message;
    problems_.report(std::move(problem));
}

Location ElementContext::place_of(std::string_view field) const {
    return locations_ != nullptr && !problems_.is_full() ? locations_->of(field) : Location{};
}

SourceIndex ElementContext::connect(const Source& source, std::string_view field, Bindings& bindings) {
    Problem problem;
    const auto index = bindings.find(source, problem);
    // What is unknown may come later; what can never be is a fault.
    if (!index)
        report(field, std::move(problem.message), std::move(problem.hint), problem.code);
    else if (!problem.message.empty())
        tell(field, std::move(problem.message), std::move(problem.hint), problem.code, Severity::error);
    return index.value_or(no_source);
}

ThemeReport ElementContext::report_theme() {
    return [this](std::string_view field, std::string message, std::string hint) {
        tell(field, std::move(message), std::move(hint), ProblemCode::unknown_name, Severity::error);
    };
}

void ElementContext::check_id(std::string_view id) {
    if (!is_id(id)) report("id", "an id is made of letters, digits, '_' and '-'", {}, ProblemCode::bad_id);
}

void ElementContext::check_numbers(const Table& table, const void* aggregate) {
    check_ranges(table, aggregate, [this](std::string_view field, const Field& range) {
        report(field, "must be " + range_of(range), {}, ProblemCode::out_of_range);
    });
}

std::string ElementContext::nearest_of(std::string_view name, const std::vector<std::string_view>& names) {
    return did_you_mean(name, names);
}

}  // namespace rapido
