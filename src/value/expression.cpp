#include "rapido/value/expression.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <vector>

#include "base/fields.hpp"
#include "base/nearest.hpp"
#include "base/real_number.hpp"
#include "base/utf8.hpp"
#include "value/computation.hpp"
#include "value/source_name.hpp"

namespace rapido {
namespace {

using detail::Binding;
using detail::Operation;

/// Deeper brackets than any that could be computed are not followed.
constexpr int most_nested = 64;

constexpr std::array<std::string_view, 6> words{"and", "or", "not", "none", "true", "false"};

struct Function {
    std::string_view name;
    std::size_t arguments;
};
constexpr std::array<Function, 6> functions{
    {{"min", 2}, {"max", 2}, {"abs", 1}, {"clamp", 3}, {"since", 1}, {"seconds", 1}}};

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}
bool is_letter(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_';
}
bool is_blank(char c) {
    return c == ' ' || c == '\t' || c == '\n' || c == '\r';
}

/// By descent, a function for each strength of signs.
class Parser {
 public:
    Parser(std::string_view text, const NamedOperand& named) : text_(text), named_(named) {}

    Result<Source> parse() {
        next();
        Binding made = either();
        if (!failed_ && kind_ != Token::end) {
            const std::string hint = did_you_mean(token_, words);
            fail(is_sign(")") ? "has a ')' without a '('"
                              : "has " + quoted(token_) + " where a sign or the end is wanted",
                 hint.empty() ? did_you_mean(last_name_, words) : hint);
        }
        if (failed_) return std::move(problem_);
        return Source(std::move(made));
    }

 private:
    enum class Token : std::uint8_t { end, name, number, text, sign };

    static std::string quoted(std::string_view text) { return "'" + utf8::shortened(text) + "'"; }
    std::string place(std::size_t at) const {
        return ", at character " + std::to_string(utf8::length(text_.substr(0, at)) + 1);
    }
    void fail(std::string message, std::string hint = {}) {
        if (failed_) return;
        failed_ = true;
        problem_.code = ProblemCode::syntax;
        problem_.message = std::move(message) + place(begin_);
        problem_.hint = std::move(hint);
        kind_ = Token::end;
        token_ = {};
    }

    void next() {
        if (failed_) return;
        before_ = at_;
        while (at_ < text_.size() && is_blank(text_[at_]))
            ++at_;
        begin_ = at_;
        kind_ = Token::end;
        token_ = {};
        if (at_ == text_.size()) return;
        const char c = text_[at_];
        if (is_letter(c) || c == '$' ||
            (c == '!' && at_ + 1 < text_.size() && (is_letter(text_[at_ + 1]) || text_[at_ + 1] == '$'))) {
            read_name();
        } else if (is_digit(c) || (c == '.' && at_ + 1 < text_.size() && is_digit(text_[at_ + 1]))) {
            read_number();
        } else if (c == '\'') {
            read_text();
        } else {
            kind_ = Token::sign;
            static constexpr std::array<std::string_view, 4> two{"<=", ">=", "==", "!="};
            const std::string_view pair = text_.substr(at_, 2);
            const bool is_two = std::find(two.begin(), two.end(), pair) != two.end();
            token_ = text_.substr(at_, is_two ? 2 : 1);
            at_ += token_.size();
            static constexpr std::string_view known = "+-*/%()<>,";
            if (!is_two && known.find(c) == std::string_view::npos) unknown_sign(pair);
        }
    }

    void unknown_sign(std::string_view pair) {
        const char c = pair[0];
        std::string hint;
        if (pair == "&&" || c == '&') hint = "write 'and'";
        if (pair == "||" || c == '|') hint = "write 'or'";
        if (c == '!') hint = "write 'not'";
        if (c == '=') hint = "write '==' to ask whether two are equal";
        if (c == '"') hint = "a text stands in single quotes";
        const std::string_view rest = text_.substr(begin_);
        fail("has " + quoted(rest.substr(0, utf8::front_length(rest))) + ", which is no sign", hint);
    }

    /// Letters, digits, `_` and `-` in parts that are joined by dots. Recordings name what has no name with `:` and `#`.
    void read_name() {
        kind_ = Token::name;
        at_ += text_.substr(at_).starts_with("!$") ? 2 : 1;
        const auto goes_on = [](char c) {
            return is_letter(c) || is_digit(c) || c == '-' || c == '.' || c == ':' || c == '#';
        };
        while (at_ < text_.size() && goes_on(text_[at_]))
            ++at_;
        token_ = text_.substr(begin_, at_ - begin_);
        const std::string_view bare = token_.substr(token_.find_first_not_of("!$"));
        if (const std::string_view fault = fault_of_name(bare); !fault.empty() && !is_plain_word(token_))
            fail("has the name " + quoted(token_) + ", which " + std::string(fault));
    }

    void read_number() {
        kind_ = Token::number;
        const char* const end = text_.data() + text_.size();
        const auto read = read_real(text_.data() + at_, end, real_);
        const auto whole = std::from_chars(text_.data() + at_, end, whole_);
        is_whole_ = whole.ec == std::errc() && whole.ptr == read.ptr;
        at_ = static_cast<std::size_t>(read.ptr - text_.data());
        token_ = text_.substr(begin_, at_ - begin_);
        if (read.ec != std::errc()) return fail("has a number that is too large");
        if (at_ < text_.size() && is_letter(text_[at_]))
            fail("has a number with letters behind it", "a time is written in seconds");
    }

    void read_text() {
        kind_ = Token::text;
        said_.clear();
        for (++at_;; ++at_) {
            if (at_ >= text_.size()) return fail("has a text without a quote at its end");
            if (text_[at_] == '\'') {
                if (at_ + 1 >= text_.size() || text_[at_ + 1] != '\'') break;
                ++at_;
            }
            said_ += text_[at_];
        }
        ++at_;
        token_ = text_.substr(begin_, at_ - begin_);
    }

    /// No more is read of what is too large.
    Binding computed_of(Operation operation, std::initializer_list<Binding> operands) {
        Binding made = Binding::computed(operation, operands);
        if (made.computation()->is_too_large)
            fail("is computed from more than 64 terms, or more than 16 deep", "give a part of it a name in 'Sources'");
        return made;
    }

    static bool is_plain_word(std::string_view token) {
        return std::find(words.begin(), words.end(), token) != words.end();
    }
    bool is_word(std::string_view word) const { return kind_ == Token::name && token_ == word; }
    bool is_sign(std::string_view sign) const { return kind_ == Token::sign && token_ == sign; }
    bool take(std::string_view sign) {
        if (!is_sign(sign)) return false;
        next();
        return true;
    }

    Binding either() {
        return chain(1, [this] { return chain(2, [this] { return opposite(); }); });
    }
    Binding opposite() {
        if (!is_word("not")) return comparison();
        if (++nested_ > most_nested) fail("is nested too deeply");
        next();
        Binding made = opposite().negated();
        --nested_;
        return made;
    }

    Binding comparison() {
        const bool first_is_none = is_word("none");
        Binding made = sum();
        const Notation* const found = notation_of(4);
        if (found == nullptr) return made;
        next();
        const bool second_is_none = is_word("none");
        const Binding second = sum();
        if (notation_of(4) != nullptr) fail("compares three values in a row", "write 'a < b and b < c'");
        const bool asks_for_none = first_is_none || second_is_none;
        if (!asks_for_none) return computed_of(found->operation, {made, second});
        if (found->operation != Operation::equal && found->operation != Operation::unequal)
            fail("compares with 'none', which is neither less nor more than anything", "write '== none' or '!= none'");
        return computed_of(found->operation == Operation::equal ? Operation::absent : Operation::present,
                           {first_is_none ? second : made});
    }

    Binding sum() {
        return chain(5, [this] { return chain(6, [this] { return signed_one(); }); });
    }
    template <class Operand>
    Binding chain(int strength, Operand operand) {
        Binding made = operand();
        while (const Notation* const found = notation_of(strength)) {
            const bool has_blanks = before_ < begin_ && at_ < text_.size() && is_blank(text_[at_]);
            if (found->sign == "-" && !has_blanks)
                fail("has a '-' without blanks around it", "write 'a - b'; 'a-b' is a name");
            next();
            made = computed_of(found->operation, {made, operand()});
        }
        return made;
    }
    const Notation* notation_of(int strength) const {
        if (kind_ != Token::sign && kind_ != Token::name) return nullptr;
        const auto found = std::find_if(notations.begin(), notations.end(), [&](const Notation& known) {
            return known.strength == strength && known.sign == token_;
        });
        return found != notations.end() ? &*found : nullptr;
    }

    Binding signed_one() {
        if (!is_sign("-")) return primary();
        if (++nested_ > most_nested) fail("is nested too deeply");
        next();
        const bool is_number = kind_ == Token::number;
        Binding made = signed_one();
        --nested_;
        std::string storage;
        if (is_number && made.access() == Binding::Access::constant)
            return Binding::constant(computed(Operation::negative, made.read(storage)));
        return computed_of(Operation::negative, {made});
    }

    Binding primary() {
        Binding made;
        if (kind_ == Token::number) {
            made = Binding::constant(is_whole_ ? Value(whole_) : Value(real_));
        } else if (kind_ == Token::text) {
            made = Binding::kept(Value(said_));
        } else if (kind_ == Token::name) {
            return named();
        } else if (take("(")) {
            if (++nested_ > most_nested) fail("is nested too deeply");
            made = either();
            --nested_;
            if (!is_sign(")") && !failed_) fail("lacks a ')'");
        } else {
            fail(kind_ == Token::end ? "ends where a value is wanted"
                                     : "has " + quoted(token_) + " where a value is wanted");
        }
        next();
        return made;
    }

    Binding named() {
        const std::string_view name = token_;
        const std::size_t begin = begin_;
        if (name == "true" || name == "false" || name == "none") {
            next();
            return Binding::constant(name == "none" ? Value() : Value(name == "true"));
        }
        if (is_plain_word(name)) {
            fail("has " + quoted(name) + " where a value is wanted");
            return {};
        }
        last_name_ = name;
        next();
        if (is_sign("(")) return call(name, begin);
        const bool is_negated = name.starts_with('!');
        const std::string_view bare = name.substr(is_negated ? 1 : 0);
        Result<Source> found = named_ ? named_(bare) : Result<Source>(by_name(bare));
        if (!found) {
            if (!failed_) {
                failed_ = true;
                problem_ = found.problems().front();
            }
            return {};
        }
        return is_negated ? found->binding().negated() : found->binding();
    }

    Binding call(std::string_view name, std::size_t begin) {
        const auto known = std::find_if(functions.begin(), functions.end(),
                                        [&](const Function& function) { return function.name == name; });
        if (known == functions.end()) {
            begin_ = begin;
            std::vector<std::string_view> names;
            for (const Function& function : functions)
                names.push_back(function.name);
            const std::string hint = did_you_mean(name, names);
            fail("has an unknown function " + quoted(name), hint.empty() ? "expected " + one_of(names) : hint);
            return {};
        }
        if (++nested_ > most_nested) fail("is nested too deeply");
        next();
        std::vector<Binding> arguments{either()};
        while (take(","))
            arguments.push_back(either());
        --nested_;
        if (!failed_ && arguments.size() != known->arguments)
            fail("gives " + std::string(name) + " " + std::to_string(arguments.size()) + " values; it takes " +
                 std::to_string(known->arguments));
        if (!failed_ && !is_sign(")")) fail("lacks a ')'");
        if (failed_) return {};
        if (name == "since" &&
            (arguments[0].computation() != nullptr || arguments[0].access() == Binding::Access::constant)) {
            fail("asks since when something computed has changed", "'since' takes the name of a source");
            return {};
        }
        next();
        if (name == "abs") return computed_of(Operation::magnitude, {arguments[0]});
        if (name == "since") return computed_of(Operation::since, {arguments[0]});
        if (name == "seconds")
            return computed_of(Operation::quotient, {arguments[0], Binding::constant(Value(Seconds{1}))});
        if (name == "min") return computed_of(Operation::least, {arguments[0], arguments[1]});
        const Binding low = computed_of(Operation::greatest, {arguments[0], arguments[1]});
        return name == "max" ? low : computed_of(Operation::least, {low, arguments[2]});
    }

    std::string_view text_;
    const NamedOperand& named_;
    std::size_t at_ = 0, begin_ = 0;  ///< behind and before the present token
    std::size_t before_ = 0;          ///< behind the one before it
    Token kind_ = Token::end;
    std::string_view token_, last_name_;
    std::string said_;
    double real_ = 0;
    std::int64_t whole_ = 0;
    bool is_whole_ = false, failed_ = false;
    int nested_ = 0;
    Problem problem_;
};

}  // namespace

Result<Source> parse_expression(std::string_view text, const NamedOperand& named) {
    return Parser(text, named).parse();
}

std::string write_expression(const Source& source) {
    const Binding& binding = source.binding();
    bool can_be_said = !binding.counts_down();
    const auto leaf = [&](const Binding& one) {
        can_be_said = can_be_said && one.access() == Binding::Access::name && !one.counts_down();
        return (one.is_negated() ? "!" : "") + one.name();
    };
    std::string written;
    if (const detail::Computation* const made = binding.computation()) {
        if (!made->is_too_large) written = made->notation(leaf, &can_be_said);
        if (binding.is_negated() && !written.empty()) written = "not (" + written + ")";
    } else {
        written = leaf(binding);
    }
    return can_be_said ? written : std::string();
}

}  // namespace rapido
