// A number, or where one comes from.
#pragma once

#include <concepts>
#include <type_traits>
#include <utility>

#include "rapido/base/exported.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A number, or a source that gives one: `.below = 0.25`, `.below = rapido::watch(limit)`. A variable is taken as the number that it has
/// now. A duration counts in seconds, and a literal text is the name of a source.
class Amount {
 public:
    Amount() = default;
    template <class T>
    requires(std::is_arithmetic_v<T> && !std::same_as<T, bool>) constexpr Amount(T number) noexcept
        : number_(static_cast<double>(number)) {}
    template <class T>
    requires is_duration<T> Amount(T time)
    noexcept : number_(Value(time).number()) {}
    template <class T>
    requires(std::derived_from<std::remove_cvref_t<T>, Source> || detail::Literal<T>) Amount(T&& source)
        : source_(kept(Source(std::forward<T>(source)))) {}
    Amount(const Amount& other) : number_(other.number_), source_(other.source_ != nullptr ? copied(other) : nullptr) {}
    Amount(Amount&& other) noexcept : number_(other.number_), source_(std::exchange(other.source_, nullptr)) {}
    Amount& operator=(Amount other) noexcept {
        number_ = other.number_;
        std::swap(source_, other.source_);
        return *this;
    }
    ~Amount() {
        if (source_ != nullptr) release();
    }

    /// Returns the number; of a source, the one that was applied last, at first zero.
    double number() const { return number_; }
    /// Returns the source; null for a number.
    const Source* source() const { return source_; }
    /// Takes the number that the source gives.
    void apply(double number) { number_ = number; }
    friend RAPIDO_EXPORTED bool operator==(const Amount& a, const Amount& b);

 private:
    static const Source* kept(Source source);
    static const Source* copied(const Amount& other);
    void release() noexcept;

    double number_ = 0;  // first: a description reads it without knowing this class
    const Source* source_ = nullptr;
};

}  // namespace rapido
