// Faults of what a HUD is made of, with its name and its place.
#pragma once

#include <algorithm>
#include <chrono>

#include "base/nearest.hpp"
#include "base/problem_log.hpp"
#include "hud/state.hpp"

namespace rapido {

/// Reports faults of one element with its name and its place.
class ElementContext final : public BodyContext {
 public:
    using Formats = std::unordered_map<std::string, Format>;

    ElementContext(ProblemLog& problems, std::string name, const Origin* origin, Formats& formats)
        : problems_(problems), name_(std::move(name)), origin_(origin), formats_(formats) {}

    Result<Format> format(const std::string& pattern, std::string_view field) override {
        if (const auto known = formats_.find(pattern); known != formats_.end()) return known->second;
        Result<Format> parsed = Format::parse(pattern);
        if (!parsed) return Format::parse(pattern, field.empty() ? Location{} : place_of(field));
        // A game that notifies ever new patterns does not gather them.
        constexpr std::size_t most_kept = 1024;
        if (formats_.size() >= most_kept) formats_.clear();
        formats_.emplace(pattern, *parsed);
        return parsed;
    }

    void report(std::string_view field, std::string message, std::string hint) override {
        failed_ = true;
        warn(field, std::move(message), std::move(hint));
    }
    void warn(std::string_view field, std::string message, std::string hint) override {
        const bool verb = message.starts_with("is ") || message.starts_with("shows ") ||
                          message.starts_with("must ") || message.starts_with("needs ");
        problems_.report({place_of(field),
                          "'" + std::string(field) + "' of " + name_ + (verb ? " " : ": ") + message,
                          std::move(hint)});
    }
    void report(Problem problem) override {
        failed_ = true;
        problem.message = name_ + ": " + problem.message;
        problems_.report(std::move(problem));
    }
    Location place_of(std::string_view field) const override {
        return origin_ != nullptr && !problems_.is_full() ? origin_->of(field) : Location{};
    }
    bool failed() const { return failed_; }

 private:
    ProblemLog& problems_;
    std::string name_;
    const Origin* origin_;
    Formats& formats_;
    bool failed_ = false;
};

/// The origin of the one with this index, null where it was written in C++.
inline const Origin* origin_at(const std::vector<Origin>& origins, std::size_t index) {
    return index < origins.size() ? &origins[index] : nullptr;
}

inline bool is_id(std::string_view id) {
    const auto allowed = [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' ||
               c == '-';
    };
    return !id.empty() && std::all_of(id.begin(), id.end(), allowed);
}

inline constexpr std::string_view id_rule = "an id is made of letters, digits, '_' and '-'";
inline constexpr std::string_view needs_fixed_digits = "must show one number with a fixed count of digits";

}  // namespace rapido
