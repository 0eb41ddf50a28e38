#include "rapido/text/language.hpp"

namespace rapido {

std::vector<CompactForm> NumberStyle::english_compact() {
    std::vector<CompactForm> forms;
    for (const char* suffix : {"K", "M", "B", "T", "Qa", "Qi", "Sx", "Sp", "Oc", "No", "Dc"})
        for (int i = 0; i < 3; ++i) {
            CompactForm& form = forms.emplace_back();
            form.drop = static_cast<int>(forms.size() + 2) / 3 * 3;
            form.around.fill({"", suffix});
        }
    return forms;
}

PluralRules NumberStyle::english_plurals() {
    return *PluralRules::parse("one: i = 1 and v = 0");
}

}  // namespace rapido
