// Whether a HUD has all that a language needs.
#pragma once

#include <map>

#include "tool/check_stage.hpp"

namespace rapido::tool {

/// Translations of a language, which remember what a HUD has asked for.
class AskedWords final : public Catalogue {
 public:
    using Translations = std::map<std::string, Translation, std::less<>>;
    explicit AskedWords(Translations translations) : translations_(std::move(translations)) {}
    std::optional<Translation> find(std::string_view text) const override;

    /// Texts with letters that have no translation, and translations that nothing has asked for.
    void report(const HudDefinition& definition, const std::string& language, const std::string& file,
                Findings& findings) const;

 private:
    Translations translations_;
    mutable std::map<std::string, bool, std::less<>> asked_;  ///< and whether there is one
};

}  // namespace rapido::tool
