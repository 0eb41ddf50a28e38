// What went wrong, where, and what was probably meant. Nothing in Rapido throws or prints.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A place in a file; line and column count from 1, zero means that there is none.
struct Location {
    std::string file{};
    int line = 0;
    int column = 0;
    friend RAPIDO_EXPORTED bool operator==(const Location&, const Location&);
};

/// How much is lost by a problem.
enum class Severity : std::uint8_t {
    error,    ///< something that was asked for is not there
    warning,  ///< something else stands in for it: another font, a crossed box, a part of a list
    note,     ///< worth knowing
};

/// What kind of problem it is, for programs that tell them apart. The words do not change from version to version.
enum class ProblemCode : std::uint8_t {
    other,
    syntax,          ///< a file breaks the rules of its format
    unreadable,      ///< a file cannot be opened or read
    unwritable,      ///< a file cannot be written
    too_large,       ///< more than a limit allows
    unknown_key,     ///< a key that the thing does not have
    missing_key,     ///< a key that the thing needs
    wrong_type,      ///< a value of another type than the key takes
    unknown_word,    ///< a word that is none of the choices
    out_of_range,    ///< a number outside of its range
    bad_id,          ///< an id that is none
    duplicate,       ///< an id, a name or a key that is taken
    bad_format,      ///< a pattern that cannot be read
    bad_easing,      ///< an easing that cannot be read
    unknown_source,  ///< nobody offers a source of this name yet
    unknown_name,    ///< no element, group, effect, band, timer or message of this name
    circle,          ///< panels that stand inside each other
    unfit,           ///< a field that does not fit the kind of element, or the type of its source
    contradiction,   ///< two fields that cannot both hold
    fixed,           ///< a change of what cannot change while it runs
    missing_font,    ///< no font family of this name is installed
    missing_glyph,   ///< no font has a character
    missing_image,   ///< an image that cannot be shown
    bad_call,        ///< a call that cannot be answered
    getter_threw,    ///< what a game has given to be read has thrown an exception
    bad_step,        ///< a step of time that is none
    too_much,        ///< more than one frame can hold
    wrong_size,      ///< a drawing for another size
    // What `rapido check` finds in a HUD that can be made.
    no_room,       ///< a text that gets less room than it needs
    overlap,       ///< two elements that are seen together and lie over each other
    off_screen,    ///< an element that leaves the screen or its safe area
    low_contrast,  ///< a text that differs too little from what lies behind it
    small_text,    ///< a text that is too small to be read from where players sit
    color_only,    ///< a state that only a color tells
    flicker,       ///< a band that is entered and left again and again within a second
    flash,         ///< an effect that flashes more often than is safe
    unreachable,   ///< a part that can never show
    unused,        ///< something that is declared, and that nothing asks for
    untranslated,  ///< a text without a translation
};

/// One thing to report. The message names the thing, what was found and what was expected.
struct Problem {
    Location location{};
    std::string message{};
    std::string hint{};  ///< such as "did you mean 'format'?"; may be empty
    ProblemCode code = ProblemCode::other;
    Severity severity = Severity::error;
    friend RAPIDO_EXPORTED bool operator==(const Problem&, const Problem&);
};

using Problems = std::vector<Problem>;

/// `file:line:column: error: message; hint`, leaving out the parts of the place that are not known.
std::string to_string(const Problem& problem);
/// Returns the word for a severity: "error".
std::string_view to_string(Severity severity);
/// Returns the word for a code: "unknown_source".
std::string_view to_string(ProblemCode code);

/// Whether something was done, or why it was not.
///
///     if (const rapido::Status written = picture.write_png("hud.png"); !written) log(to_string(written.problem()));
class [[nodiscard]] Status {
 public:
    /// It was done.
    Status() = default;
    Status(Problem problem) : problem_(std::move(problem)) {}

    explicit operator bool() const { return !problem_; }
    /// Only where it was not done.
    const Problem& problem() const { return *problem_; }

 private:
    std::optional<Problem> problem_;
};

/// A thing, or the reasons why there is none.
template <class T>
class [[nodiscard]] Result {
 public:
    Result(T value) : value_(std::move(value)) {}
    Result(Problems problems) : problems_(std::move(problems)) {}
    Result(Problem problem) { problems_.push_back(std::move(problem)); }

    explicit operator bool() const { return value_.has_value(); }
    bool has_value() const { return value_.has_value(); }

    /// The thing; only where there is one.
    T& operator*() & { return *value_; }
    const T& operator*() const& { return *value_; }
    T&& operator*() && { return std::move(*value_); }
    T* operator->() { return &*value_; }
    const T* operator->() const { return &*value_; }

    /// Empty exactly where there is a thing.
    const Problems& problems() const& { return problems_; }
    Problems problems() && { return std::move(problems_); }

 private:
    std::optional<T> value_;
    Problems problems_;
};

}  // namespace rapido
