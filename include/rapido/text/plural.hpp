// Plural categories and rules of CLDR.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"

namespace rapido RAPIDO_EXPORTED {

enum class PluralCategory : std::uint8_t { zero, one, two, few, many, other };
inline constexpr std::size_t plural_categories = 6;

/// A number as it is shown: `digits` with a point before the last `places` of them, times 10^`exponent` where
/// it is compact (`1.2M` is 12, one place, exponent 6). The sign does not count.
struct PluralOperands {
    std::uint64_t digits = 0;
    int places = 0;
    int exponent = 0;
};

/// The plural rules of one language, in the syntax of Unicode Technical Standard 35, part 3: `one: i = 1 and
/// v = 0`, rules separated by `;`, samples ignored; also in its older words, `i mod 10 in 2..4`. Without
/// rules every number is `other`.
class PluralRules {
 public:
    PluralRules() = default;
    static Result<PluralRules> parse(std::string_view rules);

    PluralCategory select(const PluralOperands& operands) const;

    friend bool operator==(const PluralRules&, const PluralRules&) = default;

 private:
    friend class PluralParser;
    struct Span {
        std::uint64_t low, high;
        friend bool operator==(const Span&, const Span&) = default;
    };
    struct Relation {
        char operand = 'n';
        std::uint64_t modulus = 0;  ///< zero is none
        bool negated = false;
        std::vector<Span> spans;
        friend bool operator==(const Relation&, const Relation&) = default;
    };
    struct Rule {
        PluralCategory category = PluralCategory::other;
        std::vector<std::vector<Relation>> any_of_all;
        friend bool operator==(const Rule&, const Rule&) = default;
    };
    std::vector<Rule> rules_;
};

/// "zero", "one", "two", "few", "many", "other".
std::string_view to_string(PluralCategory category);

}  // namespace rapido
