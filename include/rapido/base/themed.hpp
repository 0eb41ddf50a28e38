// A value, or the name of one in the theme of a HUD.
#pragma once

#include <string>
#include <type_traits>
#include <utility>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

class Source;

/// The name of a color, a font or a radius in the theme: `.color = rapido::theme("dim")`.
struct ThemeName {
    std::string name{};
};
inline ThemeName theme(std::string name) {
    return {std::move(name)};
}

namespace detail {
/// A text, or a source, that most do without: a pointer, which copies share. Nothing of it is compiled where it is used.
class RareText {
 public:
    RareText() = default;
    explicit RareText(std::string text);
    explicit RareText(const Source& source);
    RareText(const RareText& other) noexcept : kept_(other.kept_) {
        if (kept_ != nullptr) hold();
    }
    RareText(RareText&& other) noexcept : kept_(other.kept_) { other.kept_ = nullptr; }
    RareText& operator=(RareText other) noexcept {
        std::swap(kept_, other.kept_);
        return *this;
    }
    ~RareText() {
        if (kept_ != nullptr) release();
    }
    bool empty() const { return kept_ == nullptr; }
    const std::string& get() const;
    /// Null for a text.
    const Source* source() const;
    bool is_same(const RareText& other) const;

 private:
    struct Kept;
    void hold() const noexcept;
    void release() noexcept;
    Kept* kept_ = nullptr;  ///< null for an empty text
};
}  // namespace detail

/// A value, the name of one that the theme of the HUD gives, or a source that gives it: `.color = rapido::watch(team_color)`. A HUD that is told
/// another theme shows the value of that theme. Two are equal if they have the same name or source, or none and the same value.
template <class T>
class Themed {
 public:
    Themed() = default;
    Themed(ThemeName name) : name_(std::move(name.name)) {}
    Themed(const Source& source) : name_(source) {}
    template <class Given>
    requires(std::is_convertible_v<Given&&, T> && !std::is_same_v<std::remove_cvref_t<Given>, Themed>)
        Themed(Given&& value)
    noexcept(std::is_nothrow_constructible_v<T, Given&&>) : value_(static_cast<T>(std::forward<Given>(value))) {}

    /// Not a color: a number, or the text of one, says so in words.
    template <class Given>
    requires(std::is_same_v<T, Color> && !std::is_convertible_v<Given&&, T> &&
             (std::is_integral_v<std::remove_cvref_t<Given>> || std::is_convertible_v<Given&&, const char*> ||
              std::is_convertible_v<Given&&, std::string>)) Themed(Given&&) {
        static_assert(!sizeof(Given),
                      "this is no color: write rapido::rgb(0xff0000), rapido::theme(\"name\"), or "
                      "rapido::Color::parse(text) for a text");
    }

    /// Returns the value: for a name, the one of the theme that was applied last.
    const T& value() const { return value_; }
    operator const T&() const { return value_; }
    /// Returns the name; empty for a value.
    const std::string& name() const { return name_.get(); }
    /// Returns the source; null for a value and a name.
    const Source* source() const { return name_.source(); }

    /// Takes the value that a theme has for the name, or a source gives.
    void apply(T value) { value_ = std::move(value); }
    /// Means a name from now on, and keeps the value until that is applied.
    void apply_name(ThemeName name) { name_ = detail::RareText(std::move(name.name)); }
    /// Goes on as a value without a name.
    void forget_name() { name_ = detail::RareText(); }

    friend bool operator==(const Themed& a, const Themed& b) {
        return a.name_.is_same(b.name_) && (!a.name_.empty() || a.value_ == b.value_);
    }
    friend bool operator==(const Themed& a, const T& b) { return a.name_.empty() && a.value_ == b; }

 private:
    T value_{};
    detail::RareText name_{};
};

}  // namespace rapido
