#include "tool/check_words.hpp"

#include <algorithm>

#include "base/nearest.hpp"
#include "base/utf8.hpp"

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

/// Where a text is written.
Location place_of(const HudDefinition& definition, std::string_view text) {
    for (std::size_t i = 0; i < definition.elements.size() && i < definition.element_locations.size(); ++i) {
        const std::string field = std::visit(
            [&](const auto& any) -> std::string {
                if constexpr (requires { any.format; })
                    if (any.format == text) return "format";
                if constexpr (requires { any.bands.front().format; })
                    for (std::size_t band = 0; band < any.bands.size(); ++band)
                        if (any.bands[band].format == text) return "bands." + std::to_string(band) + ".format";
                if constexpr (requires { any.messages; })
                    for (std::size_t message = 0; message < any.messages.size(); ++message)
                        if (any.messages[message].text == text) return "messages." + std::to_string(message) + ".text";
                if constexpr (requires { any.placeholder; })
                    if (any.placeholder == text) return "placeholder";
                return "";
            },
            definition.elements[i]);
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
