#include "text/spec.hpp"

#include <algorithm>

#include "base/utf8.hpp"

namespace rapido {
namespace {

constexpr std::string_view aligns = "<>^";
constexpr std::string_view integer_types = "bBdoxX";
constexpr std::string_view real_types = "eEfFgG";

/// Reads a spec from left to right.
class SpecParser {
 public:
    SpecParser(std::string_view text, Spec& spec, SpecFault& fault) : text_(text), spec_(spec), fault_(fault) {}

    bool parse() {
        parse_fill_and_align();
        if (at_ < text_.size() && std::string_view("+- ").find(text_[at_]) != std::string_view::npos)
            spec_.sign = text_[at_++];
        spec_.alternate = skip('#');
        spec_.zero = skip('0');
        if (!parse_number(spec_.width, widest, "width")) return false;
        if (skip('.')) {
            if (at_ >= text_.size() || !is_digit(text_[at_])) return fail("a precision needs digits after its '.'");
            if (!parse_number(spec_.precision, most_precise, "precision")) return false;
        }
        spec_.localized = skip('L');
        if (at_ < text_.size() && text_[at_] == '%') return parse_time();
        if (at_ < text_.size()) {
            if ((std::string("s?") + std::string(integer_types) + std::string(real_types)).find(text_[at_]) ==
                    std::string::npos ||
                text_[at_] == '?')
                return fail("'" + std::string(text_.substr(at_, utf8::front_length(text_.substr(at_)))) +
                            "' is no format type here; expected one of b, d, o, x, e, f, g, s or a chrono spec");
            spec_.type = text_[at_++];
        }
        if (at_ < text_.size())
            return fail("'" + std::string(text_.substr(at_)) + "' stands after the end of the spec");
        return true;
    }

 private:
    static bool is_digit(char c) { return c >= '0' && c <= '9'; }

    bool fail(std::string message, std::string hint = {}) {
        fault_ = {std::move(message), at_, std::move(hint)};
        return false;
    }

    bool skip(char c) {
        if (at_ >= text_.size() || text_[at_] != c) return false;
        ++at_;
        return true;
    }

    void parse_fill_and_align() {
        if (text_.empty()) return;
        const std::size_t length = utf8::front_length(text_);
        if (length < text_.size() && aligns.find(text_[length]) != std::string_view::npos) {
            spec_.fill = text_.substr(0, length);
            spec_.align = text_[length];
            at_ = length + 1;
        } else if (aligns.find(text_[0]) != std::string_view::npos) {
            spec_.align = text_[0];
            at_ = 1;
        }
    }

    /// Reads digits, if there are any.
    bool parse_number(int& number, int limit, std::string_view what) {
        const std::size_t begin = at_;
        int read = 0;
        for (; at_ < text_.size() && is_digit(text_[at_]); ++at_)
            read = std::min(limit + 1, read * 10 + (text_[at_] - '0'));
        if (at_ == begin) return true;
        if (read > limit) {
            constexpr std::size_t most_quoted = 20;
            std::string found(text_.substr(begin, std::min(at_ - begin, most_quoted)));
            if (at_ - begin > most_quoted) found += "…";
            at_ = begin;
            return fail("a " + std::string(what) + " of " + found + " is more than " + std::to_string(limit));
        }
        number = read;
        return true;
    }

    void add_literal(std::string_view literal) {
        if (spec_.time.empty() || spec_.time.back().unit != 0) spec_.time.emplace_back();
        spec_.time.back().literal += literal;
    }

    bool parse_time() {
        while (at_ < text_.size()) {
            if (text_[at_] != '%') {
                const std::size_t length = utf8::front_length(text_.substr(at_));
                add_literal(text_.substr(at_, length));
                at_ += length;
                continue;
            }
            if (at_ + 1 == text_.size())
                return fail("'%' alone is no part of a duration",
                            "a part of the maximum in hundredths is '{percent}%'");
            const char unit = text_[at_ + 1];
            switch (unit) {
                case '%':
                    add_literal("%");
                    break;
                case 'H':
                case 'I':
                case 'M':
                case 'p':
                case 'S':
                    spec_.time.push_back({unit, {}});
                    break;
                case 'T':
                case 'R':
                    spec_.time.push_back({'H', {}});
                    spec_.time.push_back({0, ":"});
                    spec_.time.push_back({'M', {}});
                    if (unit == 'R') break;
                    spec_.time.push_back({0, ":"});
                    spec_.time.push_back({'S', {}});
                    break;
                default:
                    return fail("'%" + std::string(text_.substr(at_ + 1, utf8::front_length(text_.substr(at_ + 1)))) +
                                "' is no part of a duration; expected one of %H, %I, %M, %S, %p, %T, %R or %%");
            }
            at_ += 2;
        }
        const bool has_unit =
            std::any_of(spec_.time.begin(), spec_.time.end(), [](const TimePart& part) { return part.unit != 0; });
        if (!has_unit) return fail("a chrono spec needs at least one of %H, %M or %S");
        if (spec_.precision > 9) return fail("a fraction of a second has at most 9 digits");
        if (spec_.precision > 0 && spec_.smallest_unit() != std::chrono::seconds{1})
            return fail("a precision needs '%S': there is no fraction of a second to show");
        return true;
    }

    std::string_view text_;
    Spec& spec_;
    SpecFault& fault_;
    std::size_t at_ = 0;
};

bool one_of_types(char type, std::string_view types) {
    return type == 0 || types.find(type) != std::string_view::npos;
}

}  // namespace

Nanoseconds TimePart::length(char unit) {
    if (unit == 'S') return std::chrono::seconds{1};
    if (unit == 'M') return std::chrono::minutes{1};
    return std::chrono::hours{1};
}

bool Spec::is_half_day() const {
    return std::any_of(time.begin(), time.end(),
                       [](const TimePart& part) { return part.unit == 'I' || part.unit == 'p'; });
}

Nanoseconds Spec::smallest_unit() const {
    Nanoseconds smallest = std::chrono::hours{1};
    for (const TimePart& part : time)
        if (part.unit != 0) smallest = std::min(smallest, TimePart::length(part.unit));
    return smallest;
}

Nanoseconds Spec::largest_unit() const {
    Nanoseconds largest{0};
    for (const TimePart& part : time)
        if (part.unit != 0) largest = std::max(largest, TimePart::length(part.unit));
    return largest;
}

bool parse_spec(std::string_view text, Spec& spec, SpecFault& fault) {
    return SpecParser(text, spec, fault).parse();
}

std::string spec_mismatch(const Spec& spec, Value::Type type) {
    const std::string found = spec.is_time() ? "a chrono spec" : "type '" + std::string(1, spec.type) + "'";
    const std::string shown = std::string(" does not suit ") +
                              (type == Value::Type::int64 || type == Value::Type::uint64 ? "an " : "a ") +
                              std::string(to_string(type));
    switch (type) {
        case Value::Type::none:
            return {};
        case Value::Type::text:
            if (spec.is_time() || !one_of_types(spec.type, "s")) return found + shown;
            if (spec.sign != '-' || spec.alternate || spec.zero) return "a sign, '#' or '0' does not suit a text";
            return {};
        case Value::Type::flag:
            if (spec.is_time() || !one_of_types(spec.type,
                                                "s"
                                                "bBdoxX"))
                return found + shown;
            if (spec.precision >= 0) return "a precision does not suit a flag";
            return {};
        case Value::Type::int64:
        case Value::Type::uint64:
            if (spec.is_time()) return {};
            if (spec.type == 's') return found + shown;
            if (spec.precision >= 0 && one_of_types(spec.type, integer_types))
                return "a precision does not suit an integer; write '.Nf' to show a fraction";
            return {};
        case Value::Type::float32:
        case Value::Type::float64:
            if (!spec.is_time() && !one_of_types(spec.type, real_types))
                return found + shown + "; write '.0f' to show a whole number";
            return {};
        case Value::Type::duration:
            if (!spec.is_time() && !one_of_types(spec.type, real_types)) return found + shown;
            return {};
    }
    return {};
}

}  // namespace rapido
