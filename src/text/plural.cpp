#include "rapido/text/plural.hpp"

#include <algorithm>
#include <charconv>

namespace rapido {
namespace {

constexpr std::array<std::string_view, plural_categories> names{"zero", "one", "two", "few", "many", "other"};

/// The operands of the standard: i is the integer part; v and f the visible fraction digits and their value;
/// w and t the same without trailing zeros; e and c the exponent.
struct Expanded {
    std::uint64_t i = 0, v = 0, w = 0, f = 0, t = 0, e = 0;
};

Expanded expand(PluralOperands number) {
    Expanded expanded;
    expanded.e = static_cast<std::uint64_t>(std::max(number.exponent, 0));
    // 1.2 times 10^6 has no visible fraction: the exponent uses up the places first.
    for (; number.exponent > 0 && number.places > 0; --number.exponent)
        --number.places;
    for (; number.exponent > 0; --number.exponent)
        number.digits *= 10;
    std::uint64_t scale = 1;
    for (int place = 0; place < number.places; ++place)
        scale *= 10;
    expanded.i = number.digits / scale;
    expanded.v = expanded.w = static_cast<std::uint64_t>(number.places);
    expanded.f = expanded.t = number.digits % scale;
    while (expanded.w > 0 && expanded.t % 10 == 0) {
        expanded.t /= 10;
        --expanded.w;
    }
    return expanded;
}

}  // namespace

/// Recursion-free descent through `category: relation and relation or relation; ...`.
class PluralParser {
 public:
    explicit PluralParser(std::string_view text) : text_(text) {}

    Result<PluralRules> parse() {
        PluralRules rules;
        while (next_word(), !word_.empty() || at_ < text_.size()) {
            const auto category = std::find(names.begin(), names.end(), word_);
            if (category == names.end() || !skip(':')) return fault();
            auto& rule = rules.rules_.emplace_back();
            rule.category = static_cast<PluralCategory>(category - names.begin());
            if (!parse_condition(rule)) return fault();
            if (rule.category == PluralCategory::other) rules.rules_.pop_back();
            if (!skip(';')) break;
        }
        skip_space();
        if (at_ < text_.size()) return fault();
        return rules;
    }

 private:
    Problem fault() const {
        return {{},
                "plural rules \"" + std::string(text_.substr(0, 80)) + "\": a fault at character " +
                    std::to_string(at_ + 1),
                ""};
    }

    void skip_space() {
        while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\n'))
            ++at_;
    }
    bool skip(char c) {
        skip_space();
        if (at_ >= text_.size() || text_[at_] != c) return false;
        ++at_;
        return true;
    }
    void next_word() {
        skip_space();
        const std::size_t begin = at_;
        while (at_ < text_.size() && text_[at_] >= 'a' && text_[at_] <= 'z')
            ++at_;
        word_ = text_.substr(begin, at_ - begin);
    }
    bool take_word(std::string_view word) {
        const std::size_t before = at_;
        next_word();
        if (word_ == word) return true;
        at_ = before;
        return false;
    }
    bool number(std::uint64_t& value) {
        skip_space();
        const auto [end, error] = std::from_chars(text_.data() + at_, text_.data() + text_.size(), value);
        if (error != std::errc{}) return false;
        at_ = static_cast<std::size_t>(end - text_.data());
        return true;
    }

    bool parse_condition(PluralRules::Rule& rule) {
        skip_space();
        const bool is_empty = at_ >= text_.size() || text_[at_] == '@' || text_[at_] == ';';
        if (!is_empty) {
            do {
                auto& all = rule.any_of_all.emplace_back();
                do {
                    if (!parse_relation(all.emplace_back())) return false;
                } while (take_word("and"));
            } while (take_word("or"));
        } else {
            rule.any_of_all.emplace_back();
        }
        if (skip('@')) at_ = std::min(text_.find(';', at_), text_.size());
        return true;
    }

    bool parse_relation(PluralRules::Relation& relation) {
        next_word();
        if (word_.size() != 1 || std::string_view("nivwftec").find(word_[0]) == std::string_view::npos) return false;
        relation.operand = word_[0];
        if ((skip('%') || take_word("mod")) && (!number(relation.modulus) || relation.modulus == 0)) return false;
        relation.negated = skip('!') || take_word("not");
        if (!skip('=') && !take_word("in")) return false;
        do {
            PluralRules::Span span{};
            if (!number(span.low)) return false;
            span.high = span.low;
            if (text_.substr(at_, 2) == "..") {
                at_ += 2;
                if (!number(span.high)) return false;
            }
            relation.spans.push_back(span);
        } while (skip(','));
        return true;
    }

    std::string_view text_;
    std::size_t at_ = 0;
    std::string_view word_;
};

Result<PluralRules> PluralRules::parse(std::string_view rules) {
    return PluralParser(rules).parse();
}

PluralCategory PluralRules::select(const PluralOperands& operands) const {
    if (rules_.empty()) return PluralCategory::other;
    const Expanded number = expand(operands);
    const auto holds = [&](const Relation& relation) {
        std::uint64_t value = 0;
        switch (relation.operand) {
            case 'n':
                // A number with a fraction is equal to no integer.
                if (number.t != 0) return relation.negated;
                [[fallthrough]];
            case 'i':
                value = number.i;
                break;
            case 'v':
                value = number.v;
                break;
            case 'w':
                value = number.w;
                break;
            case 'f':
                value = number.f;
                break;
            case 't':
                value = number.t;
                break;
            default:
                value = number.e;
        }
        if (relation.modulus != 0) value %= relation.modulus;
        const bool inside = std::any_of(relation.spans.begin(), relation.spans.end(),
                                        [&](const Span& span) { return value >= span.low && value <= span.high; });
        return inside != relation.negated;
    };
    for (const Rule& rule : rules_)
        for (const auto& all : rule.any_of_all)
            if (std::all_of(all.begin(), all.end(), holds)) return rule.category;
    return PluralCategory::other;
}

std::string_view to_string(PluralCategory category) {
    return names[static_cast<std::size_t>(category)];
}

}  // namespace rapido
