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

/// The names of the fields of a pattern: what stands behind a brace up to a colon or the other brace.
std::vector<std::string> field_names(std::string_view pattern) {
    std::vector<std::string> names;
    for (std::size_t at = 0; at + 1 < pattern.size(); ++at) {
        if (pattern[at] != '{') continue;
        if (pattern[at + 1] == '{') {
            ++at;
            continue;
        }
        const std::size_t end = pattern.find_first_of(":}", at);
        const std::string_view name = pattern.substr(at + 1, std::min(end, pattern.size()) - at - 1);
        const auto is_of_name = [](char c) {
            return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_';
        };
        if (!name.empty() && std::all_of(name.begin(), name.end(), is_of_name)) names.emplace_back(name);
    }
    return names;
}

class TranslationReader {
 public:
    explicit TranslationReader(std::string name) : name_(std::move(name)) {}

    Result<Translations> read(std::string_view text) {
        if (text.size() > largest_file) return Problem{{name_}, "is larger than 4 MB", "", ProblemCode::too_large};
        if (const int line = utf8::line_of_fault(text); line > 0)
            return Problem{{name_, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
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
        // Which sources a text has besides its value is known only where it is used.
        const std::vector<std::string> words = field_names(*text);
        const std::vector<std::string_view> names(words.begin(), words.end());
        for (const Problem& problem : Format::parse(*text, inside, names).problems())
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
