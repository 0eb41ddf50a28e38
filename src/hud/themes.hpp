// The themes of a HUD, and the names of theirs that descriptions have.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "base/fields.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido {

/// Calls back for each name of a theme in an aggregate: with the field, and the words for what it names.
using ThemeReport = std::function<void(std::string_view field, std::string message, std::string hint)>;

class Themes {
 public:
    /// Adds a theme, or replaces the one of its id.
    void add(const Theme& theme);
    void remove(std::string_view id);
    /// Gives the themes of these ids the first places, in this order; the used one stays.
    void order(const std::vector<std::string>& ids);
    /// False for an id that no theme has.
    bool use(std::string_view id);
    const std::string& used() const;
    std::vector<std::string_view> names() const;
    /// Returns the names that the first theme has, and this one lacks, as `color 'dim'`.
    std::vector<std::string> lacking(const Theme& theme) const;

    /// Whether an aggregate has a name of a theme anywhere.
    static bool has_names(const Table& table, const void* aggregate);
    /// Gives every name in an aggregate the value that the present theme has for it, or else the first one. A name that neither
    /// has keeps its value and is reported.
    void apply(const Table& table, void* aggregate, const ThemeReport& report, const std::string& prefix = {}) const;
    /// Leaves only the values in an aggregate.
    static void forget_names(const Table& table, void* aggregate);
    void apply(Themed<Color>& color, const ThemeReport& report = nullptr) const;
    void apply(Themed<std::string>& text, const ThemeReport& report, std::string_view field) const;

 private:
    template <class T>
    void apply_one(Themed<T>& value, const std::string& field, const ThemeReport& report) const;

    std::vector<Theme> all_;
    std::size_t used_ = 0;
};

}  // namespace rapido
