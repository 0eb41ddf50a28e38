// What an element is made with: where its faults are reported, formats, fonts.
#pragma once

#include <string>
#include <unordered_map>
#include <vector>

#include "base/plans.hpp"
#include "base/problem_log.hpp"
#include "element/body.hpp"
#include "element/text_plan.hpp"
#include "hud/bindings.hpp"
#include "hud/themes.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/hud/definition.hpp"
#include "rapido/text/language.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Parsed patterns, and what texts with them look like: the same is made once.
class Formats {
 public:
    Result<Format> parse(const std::string& pattern);

    Plans<TextPlan> plans;

 private:
    std::unordered_map<std::string, Format> known_;
};

/// What of a HUD depends on its language: for each field the last that fits the language and has it counts.
struct LanguageTable {
    LanguageOptions of_all{.font = "sans-serif"};
    std::vector<LanguageOptions> by_language;

    /// Null is no language.
    std::string_view font(const Language* language) const;
    /// The language as it was given, with the names of this HUD in its compact numbers.
    Language with_names(Language language) const;
};

/// Reports faults of one thing in a HUD with its name and its place.
class ElementContext final : public BodyContext {
 public:
    ElementContext(ProblemLog& problems, std::string name, const Locations* locations, Formats& formats)
        : problems_(problems), name_(std::move(name)), locations_(locations), formats_(formats) {}

    Result<Format> format(const std::string& pattern, std::string_view field,
                          std::span<const std::string_view> names = {}) override;
    std::shared_ptr<const TextPlan> shared(TextPlan plan) override;
    void report(std::string_view field, std::string message, std::string hint = {},
                ProblemCode code = ProblemCode::unfit) override;
    void warn(std::string_view field, std::string message, std::string hint = {},
              ProblemCode code = ProblemCode::unfit) override;
    void report(Problem problem) override;
    Location place_of(std::string_view field) const override;
    bool failed() const override { return failed_; }
    /// Returns the source that is read for a field, with one user more. A name that nobody has yet is a problem; its source has no
    /// value until it comes.
    /// A problem of a field that was found before.
    void tell_of(std::string_view field, const Problem& problem) {
        tell(field, problem.message, problem.hint, problem.code, Severity::error);
    }
    SourceIndex connect(const Source& source, std::string_view field, Bindings& bindings);

    /// Reports a name that no theme has: a fault, but the element is there, with what it has without it.
    ThemeReport report_theme();

    /// Reports an id that is none.
    void check_id(std::string_view id);
    /// Reports the numbers of an aggregate that are not in their ranges, in definitions written in C++, too.
    void check_numbers(const Table& table, const void* aggregate);
    /// Reports a name that nothing has, with the nearest of those that there are.
    template <class Names>
    void report_unknown(std::string_view field, std::string_view what, std::string_view name, Names&& names) {
        report(field, "no " + std::string(what) + " '" + std::string(name) + "'",
               problems_.is_full() ? std::string() : nearest_of(name, names()), ProblemCode::unknown_name);
    }

 private:
    void tell(std::string_view field, std::string message, std::string hint, ProblemCode code, Severity severity);
    static std::string nearest_of(std::string_view name, const std::vector<std::string_view>& names);

    ProblemLog& problems_;
    std::string name_;
    const Locations* locations_;
    Formats& formats_;
    bool failed_ = false;
};

/// The locations of the one with this index, null where it was written in C++.
inline const Locations* locations_at(const std::vector<Locations>& origins, std::size_t index) {
    return index < origins.size() ? &origins[index] : nullptr;
}

}  // namespace rapido
