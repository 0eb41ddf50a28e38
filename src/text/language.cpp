#include "rapido/text/language.hpp"

#include <algorithm>

namespace rapido {

std::vector<CompactForm> NumberStyle::english_compact() {
    static const std::vector<std::string> names{"K", "M", "B", "T", "Qa", "Qi", "Sx", "Sp", "Oc", "No", "Dc"};
    return compact_by(names);
}

std::vector<CompactForm> NumberStyle::compact_by(std::span<const std::string> names) {
    std::vector<CompactForm> forms;
    constexpr std::size_t most_names = 40;  // a key counts powers of ten in a byte
    for (const std::string& name : names.first(std::min(names.size(), most_names)))
        for (int i = 0; i < 3; ++i) {
            CompactForm& form = forms.emplace_back();
            form.drop = static_cast<int>(forms.size() + 2) / 3 * 3;
            form.around.fill({"", name});
        }
    return forms;
}

PluralRules NumberStyle::english_plurals() {
    return *PluralRules::parse("one: i = 1 and v = 0");
}

std::array<std::pair<std::string, std::string>, plural_categories> NumberStyle::english_ordinals() {
    std::array<std::pair<std::string, std::string>, plural_categories> around;
    around.fill({"", "th"});
    around[static_cast<std::size_t>(PluralCategory::one)].second = "st";
    around[static_cast<std::size_t>(PluralCategory::two)].second = "nd";
    around[static_cast<std::size_t>(PluralCategory::few)].second = "rd";
    return around;
}

PluralRules NumberStyle::english_ordinal_rules() {
    return *PluralRules::parse(
        "one: n % 10 = 1 and n % 100 != 11; two: n % 10 = 2 and n % 100 != 12; few: n % 10 = 3 and n % 100 != 13");
}

std::optional<Translation> Language::translation(std::string_view text) const {
    const auto found = translations.find(text);
    if (found != translations.end()) return found->second;
    return catalogue != nullptr ? catalogue->find(text) : std::nullopt;
}

}  // namespace rapido
