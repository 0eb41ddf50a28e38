// Translations: TOML, one key a text.
#include <algorithm>
#include <array>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "file/first_problems.hpp"
#include "file/prescan.hpp"
#include "file/syntax_problem.hpp"
#include "file/toml.hpp"
#include "rapido/file.hpp"
#include "rapido/text/format.hpp"

namespace rapido {
namespace {

constexpr std::size_t largest_file = 4'000'000;

using Translations = std::map<std::string, Translation, std::less<>>;

class TranslationReader {
 public:
    explicit TranslationReader(std::string name) : name_(std::move(name)) {}

    Result<Translations> read(std::string_view text) {
        if (text.size() > largest_file)
            return Problem{{name_}, "is larger than 4 MB", "", ProblemCode::too_large};
        if (const int line = utf8::line_of_fault(text); line > 0)
            return Problem{
                {name_, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
        if (auto problem = prescan_toml(text, name_)) return *std::move(problem);
        const toml::parse_result parsed = toml::parse(text, name_);
        if (!parsed) return syntax_problem(parsed.error(), text, name_);
        for (const auto& [key, node] : parsed.table())
            read_text(key, node);
        if (problems_.count() > 0) return problems_.take();
        return std::move(translations_);
    }

 private:
    Location place(const toml::source_region& region) const {
        return {name_, static_cast<int>(region.begin.line), static_cast<int>(region.begin.column)};
    }

    void read_text(const toml::key& key, const toml::node& node) {
        const std::string name = "translation of '" + std::string(key.str()) + "'";
        Translation& translation = translations_[std::string(key.str())];
        const auto other = static_cast<std::size_t>(PluralCategory::other);
        if (node.is_string()) return read_pattern(node, translation.forms[other]);
        const toml::table* const table = node.as_table();
        if (table == nullptr) {
            problems_.add({place(node.source()), name + ": expected a text, or a table of plural forms", ""});
            return;
        }
        std::array<std::string_view, plural_categories> categories;
        for (std::size_t i = 0; i < plural_categories; ++i)
            categories[i] = to_string(static_cast<PluralCategory>(i));
        for (const auto& [category, form] : *table) {
            const auto known = std::find(categories.begin(), categories.end(), category.str());
            if (known == categories.end())
                problems_.add({place(category.source()),
                               name + ": unknown plural category '" + std::string(category.str()) + "'",
                               did_you_mean(category.str(), categories)});
            else
                read_pattern(form, translation.forms[static_cast<std::size_t>(known - categories.begin())]);
        }
        if (!table->contains("other")) problems_.add({place(table->source()), name + " has no 'other'", ""});
    }

    void read_pattern(const toml::node& node, std::string& pattern) {
        const auto text = node.value_exact<std::string>();
        if (!text) {
            problems_.add({place(node.source()), "expected a text", ""});
            return;
        }
        Location inside = place(node.source());
        ++inside.column;
        for (const Problem& problem : Format::parse(*text, inside).problems())
            problems_.add(problem);
        pattern = *text;
    }

    std::string name_;
    Translations translations_;
    FirstProblems problems_;
};

}  // namespace

Result<Translations> read_translations(std::string_view text, const std::string& name) {
    return TranslationReader(name).read(text);
}

Result<Translations> read_translations_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_file);
    if (!text) return text.problems();
    return read_translations(*text, path);
}

}  // namespace rapido
