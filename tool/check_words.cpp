#include "tool/check_words.hpp"

#include <algorithm>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/kinds.hpp"
#include "rapido/element/notice.hpp"

namespace rapido::tool {
namespace {

/// Whether a pattern has words: letters outside of its fields.
bool has_words(std::string_view pattern) {
    int depth = 0, letters = 0;
    while (!pattern.empty()) {
        const char32_t c = utf8::front(pattern);
        pattern.remove_prefix(utf8::front_length(pattern));
        if (c == U'{') ++depth;
        if (c == U'}') --depth;
        const bool is_sign = c < U'A' || (c > U'Z' && c < U'a') || (c > U'z' && c < U'\u00c0') || c == U'\u00d7' ||
                             c == U'\u00f7' || (c >= U'\u2000' && c <= U'\u2bff') || c >= U'\ue000';
        if (depth == 0 && !is_sign) ++letters;
    }
    return letters > 1;  // `x` and `m` are signs, too
}

/// The field of an element that has this text; empty for none.
std::string field_of(std::string_view text, const Element& element) {
    WrittenElement written(element);
    for (const char* const name : {"format", "placeholder"})
        if (const auto* const known = written.field<std::string>(name); known != nullptr && *known == text) return name;
    if (const auto* const bands = written.field<std::vector<Band>>("bands"))
        for (std::size_t i = 0; i < bands->size(); ++i)
            if ((*bands)[i].format == text) return "bands." + std::to_string(i) + ".format";
    if (const auto* const messages = written.field<std::vector<Message>>("messages"))
        for (std::size_t i = 0; i < messages->size(); ++i)
            if ((*messages)[i].text == text) return "messages." + std::to_string(i) + ".text";
    return "";
}

/// Where a text is written.
Location place_of(const HudDefinition& definition, std::string_view text) {
    for (std::size_t i = 0; i < definition.elements.size() && i < definition.element_locations.size(); ++i) {
        const std::string field = field_of(text, definition.elements[i]);
        if (!field.empty()) return definition.element_locations[i].of(field);
    }
    return {};
}

}  // namespace

std::optional<Translation> AskedWords::find(std::string_view text) const {
    const auto known = translations_.find(text);
    const bool is_there = known != translations_.end();
    asked_.emplace(text, is_there);
    return is_there ? std::optional(known->second) : std::nullopt;
}

void AskedWords::report(const HudDefinition& definition, const std::string& language, const std::string& file,
                        Findings& findings) const {
    std::vector<std::string_view> missing, unused;
    for (const auto& [text, is_there] : asked_)
        if (!is_there && has_words(text)) missing.push_back(text);
    for (const auto& [text, translation] : translations_)
        if (!asked_.contains(text)) unused.push_back(text);
    for (const std::string_view text : missing)
        findings.add(
            "untranslated " + language + " " + std::string(text),
            {{place_of(definition, text), "\"" + std::string(text) + "\" has no translation into '" + language + "'",
              did_you_mean(text, unused), ProblemCode::untranslated, Severity::warning}});
    for (const std::string_view text : unused)
        findings.add("unused " + language + " " + std::string(text),
                     {{{file},
                       "nothing of the HUD says \"" + std::string(text) + "\"",
                       did_you_mean(text, missing),
                       ProblemCode::unused,
                       Severity::warning}});
}

}  // namespace rapido::tool
