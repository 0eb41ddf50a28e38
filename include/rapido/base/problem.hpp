// What went wrong, where, and what was probably meant. Nothing in Rapido throws or prints.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace rapido {

/// A place in a file; line and column count from 1, zero means that there is none.
struct Location {
    std::string file{};
    int line = 0;
    int column = 0;
    friend bool operator==(const Location&, const Location&) = default;
};

/// One thing to report. The message names the thing, what was found and what was expected.
struct Problem {
    Location location{};
    std::string message{};
    std::string hint{};  ///< such as "did you mean 'format'?"; may be empty
    friend bool operator==(const Problem&, const Problem&) = default;
};

using Problems = std::vector<Problem>;

/// `file:line:column: error: message; hint`, leaving out the parts of the place that are not known.
std::string to_string(const Problem& problem);

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
