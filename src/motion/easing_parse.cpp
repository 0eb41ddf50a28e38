// The notation of the CSS Easing Functions standard.
#include <array>
#include <charconv>
#include <cmath>
#include <limits>
#include <optional>
#include <string>

#include "base/nearest.hpp"
#include "base/real_number.hpp"
#include "base/utf8.hpp"
#include "rapido/motion/easing.hpp"

namespace rapido {
namespace {

constexpr std::array<std::string_view, 10> words{"linear",     "ease",     "ease-in",        "ease-out", "ease-in-out",
                                                 "step-start", "step-end", "cubic-bezier()", "steps()",  "linear()"};
constexpr std::array<std::string_view, 6> jump_terms{"jump-start", "jump-end", "jump-none",
                                                     "jump-both",  "start",    "end"};
/// More would be a picture, not a curve.
constexpr std::size_t most_stops = 256;
constexpr int most_steps = 10'000;

bool is_space(char c) {
    return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f';
}
bool is_word(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '-' || c == '_' || (c >= '0' && c <= '9');
}

/// Reads from left to right and remembers its first fault.
class Parser {
 public:
    Parser(std::string_view text, const Location& where) : text_(text), where_(where) {}

    Result<Easing> read() {
        skip_space();
        const std::size_t start = at_;
        const std::string word = read_word();
        Easing easing;
        if (!accept('('))
            easing = read_name(word, start);
        else if (word == "cubic-bezier")
            easing = read_bezier();
        else if (word == "steps")
            easing = read_steps();
        else if (word == "linear")
            easing = read_stops();
        else
            unknown(word + "()", start);
        skip_space();
        if (!problem_ && at_ < text_.size())
            fail(at_, "expected nothing behind it, found '" + utf8::shortened(text_.substr(at_)) + "'");
        if (problem_) return *std::move(problem_);
        return easing;
    }

 private:
    void fail(std::size_t at, std::string message, std::string hint = {}) {
        if (problem_) return;
        Location place = where_;
        if (place.column > 0) place.column += static_cast<int>(at);
        problem_ = Problem{std::move(place), "easing '" + utf8::shortened(text_) + "': " + std::move(message),
                           std::move(hint), ProblemCode::bad_easing};
    }

    void unknown(const std::string& word, std::size_t at) {
        fail(at, "expected " + one_of(words), did_you_mean(word, words));
    }

    void skip_space() {
        while (at_ < text_.size() && is_space(text_[at_]))
            ++at_;
    }

    bool accept(char c) {
        if (at_ >= text_.size() || text_[at_] != c) return false;
        ++at_;
        skip_space();
        return true;
    }

    void expect(char c) {
        skip_space();
        if (!accept(c)) fail(at_, std::string("expected '") + c + "'");
    }

    /// Keywords of CSS may be written in capitals.
    std::string read_word() {
        std::string word;
        for (; at_ < text_.size() && is_word(text_[at_]); ++at_) {
            const char c = text_[at_];
            word += c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
        }
        return word;
    }

    double read_number() {
        skip_space();
        const char* begin = text_.data() + at_;
        const char* const end = text_.data() + text_.size();
        const bool plus = begin != end && *begin == '+';
        const char* const digits = begin != end && (*begin == '+' || *begin == '-') ? begin + 1 : begin;
        const bool starts = digits != end && ((*digits >= '0' && *digits <= '9') || *digits == '.');
        double number = 0;
        const auto read = read_real(plus ? begin + 1 : begin, end, number);
        if (!starts || read.ec != std::errc() || !std::isfinite(number)) {
            fail(at_, "expected a number");
            return 0;
        }
        at_ = static_cast<std::size_t>(read.ptr - text_.data());
        return number;
    }

    Easing read_name(const std::string& word, std::size_t start) {
        if (word == "linear") return Easing::linear();
        if (word == "ease") return Easing::ease();
        if (word == "ease-in") return Easing::ease_in();
        if (word == "ease-out") return Easing::ease_out();
        if (word == "ease-in-out") return Easing::ease_in_out();
        if (word == "step-start") return Easing::steps(1, Easing::JumpTerm::jump_start);
        if (word == "step-end") return Easing::steps(1);
        unknown(word, start);
        return {};
    }

    Easing read_bezier() {
        std::array<double, 4> numbers{};
        for (std::size_t i = 0; i < numbers.size(); ++i) {
            if (i > 0) expect(',');
            const std::size_t at = at_;
            numbers[i] = read_number();
            if (i % 2 == 0 && !(numbers[i] >= 0 && numbers[i] <= 1))
                fail(at, "the first and the third number, both x, must lie between 0 and 1");
        }
        expect(')');
        return Easing::cubic_bezier(numbers[0], numbers[1], numbers[2], numbers[3]);
    }

    Easing read_steps() {
        const std::size_t at = at_;
        const double count = read_number();
        auto term = Easing::JumpTerm::jump_end;
        skip_space();
        if (accept(',')) {
            const std::size_t start = at_;
            const std::string word = read_word();
            std::size_t found = 0;
            while (found < jump_terms.size() && jump_terms[found] != word)
                ++found;
            if (found == jump_terms.size())
                fail(start, "unknown jump term '" + word + "'; expected " + one_of(jump_terms),
                     did_you_mean(word, jump_terms));
            else
                term = static_cast<Easing::JumpTerm>(found < 4 ? found : found - 4);
        }
        const int least = term == Easing::JumpTerm::jump_none ? 2 : 1;
        if (count != std::floor(count) || count < least || count > most_steps)
            fail(at, "expected a whole number of steps from " + std::to_string(least) + " to " +
                         std::to_string(most_steps));
        expect(')');
        return problem_ ? Easing() : Easing::steps(static_cast<int>(count), term);
    }

    std::optional<double> read_percentage() {
        skip_space();
        const std::size_t start = at_;
        const bool number =
            at_ < text_.size() && std::string_view("+-.0123456789").find(text_[at_]) != std::string_view::npos;
        if (!number || problem_) return std::nullopt;
        const double percent = read_number();
        if (at_ < text_.size() && text_[at_] == '%') {
            ++at_;
            return percent / 100;
        }
        at_ = start;
        return std::nullopt;
    }

    /// A number and up to two percentages, in either order; two percentages are two stops.
    void read_stop(std::vector<Easing::Stop>& stops) {
        std::optional<double> first = read_percentage();
        std::optional<double> second = first ? read_percentage() : std::nullopt;
        const double output = read_number();
        if (!first) {
            first = read_percentage();
            second = first ? read_percentage() : std::nullopt;
        }
        constexpr double missing = std::numeric_limits<double>::quiet_NaN();
        stops.push_back({first.value_or(missing), output});
        if (second) stops.push_back({*second, output});
    }

    Easing read_stops() {
        std::vector<Easing::Stop> stops;
        const std::size_t start = at_;
        do {
            read_stop(stops);
            skip_space();
        } while (!problem_ && stops.size() <= most_stops && accept(','));
        expect(')');
        if (stops.size() < 2 || stops.size() > most_stops)
            fail(start, "expected 2 to " + std::to_string(most_stops) + " stops");
        if (problem_) return {};
        place_stops(stops);
        return Easing::linear(std::move(stops));
    }

    /// Inputs that were left out: 0 for the first, 1 for the last, even distances between.
    static void place_stops(std::vector<Easing::Stop>& stops) {
        if (std::isnan(stops.front().input)) stops.front().input = 0;
        double largest = stops.front().input;
        // The last one may not lie before any other.
        for (const Easing::Stop& stop : stops)
            if (stop.input > largest) largest = stop.input;
        if (std::isnan(stops.back().input)) stops.back().input = largest > 1 ? largest : 1;
        largest = stops.front().input;
        for (Easing::Stop& stop : stops)
            if (!std::isnan(stop.input)) stop.input = largest = stop.input > largest ? stop.input : largest;
        for (std::size_t i = 1; i < stops.size(); ++i) {
            if (!std::isnan(stops[i].input)) continue;
            std::size_t next = i;
            while (std::isnan(stops[next].input))
                ++next;
            const double from = stops[i - 1].input;
            stops[i].input = from + (stops[next].input - from) / static_cast<double>(next - i + 1);
        }
    }

    std::string_view text_;
    Location where_;
    std::size_t at_ = 0;
    std::optional<Problem> problem_;
};

}  // namespace

Result<Easing> Easing::parse(std::string_view text, const Location& where) {
    return Parser(text, where).read();
}

std::span<const std::string_view> Easing::names() {
    return words;
}

namespace {

std::string exact(double number) {
    std::array<char, 32> text;
    const auto made = std::to_chars(text.data(), text.data() + text.size(), number);
    return {text.data(), made.ptr};
}

/// The percentage that is read as this input: next to its hundredfold, which is rounded.
std::string percentage(double input) {
    const double about = input * 100;
    for (const double near : {about, std::nextafter(about, 0.0), std::nextafter(about, 1000.0)})
        if (near / 100 == input) return exact(near) + "%";
    return exact(about) + "%";
}

}  // namespace

std::string Easing::notation() const {
    switch (curve_) {
        case Curve::line:
            return "linear";
        case Curve::bezier:
            return "cubic-bezier(" + exact(x1_) + ", " + exact(y1_) + ", " + exact(x2_) + ", " + exact(y2_) + ")";
        case Curve::steps: {
            constexpr std::array<std::string_view, 4> terms{"jump-start", "jump-end", "jump-none", "jump-both"};
            return "steps(" + std::to_string(count_) + ", " + std::string(terms[static_cast<std::size_t>(term_)]) + ")";
        }
        case Curve::stops:
            break;
    }
    std::string text = "linear(";
    for (const Stop& stop : *stops_)
        text += (text.back() == '(' ? "" : ", ") + exact(stop.output) + " " + percentage(stop.input);
    return text + ")";
}

}  // namespace rapido
