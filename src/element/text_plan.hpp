// What the description of a text says, for all that say the same.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "element/text_block.hpp"

namespace rapido {

/// What a text may say, in the language of its description.
struct TextPatterns {
    std::string format;
    bool has_value = false;
    bool has_max = false;
    bool asks_for_rounding = false;
    PieceLooks::Around around;
    std::shared_ptr<const PluralForms> plural;  ///< null where one pattern counts for all
    std::vector<std::string> of_bands;          ///< empty where a band has none
    std::vector<std::string> names;             ///< of its further values
    std::vector<InlineImage> pictures;          ///< chosen by values

    explicit TextPatterns(const Text& text);
    std::vector<std::string_view> name_views() const { return {names.begin(), names.end()}; }
    /// Whether a text may say more than one thing.
    bool has_choice() const { return plural != nullptr || !of_bands.empty() || !names.empty() || !pictures.empty(); }
};

/// A text as it was described. A thousand that differ in their values and their places alone have one.
struct TextPlan {
    TextPatterns patterns;
    TextOptions options;
    Lettering lettering;
    Limits range;
    float align = 0;                  ///< the part of spare room before it
    std::optional<float> aligned_at;  ///< the same, where the text says so itself
    bool aligns_digits = false;
    int weight = 400;
    bool italic = false;
    bool uses_hud_font = false;
    std::optional<Value::Type> value_type;
    std::optional<DigitMotion> digit_motion;
    bool moves = false;  ///< its value goes on its way

    TextPlan(const Text& text, TextOptions options, BodyContext& context);
    /// Equal for equal plans; of what usually differs.
    std::size_t hash() const;
    /// Whether they say the same; never where there is a choice of patterns, which is compared nowhere.
    friend bool operator==(const TextPlan& a, const TextPlan& b) { return a.is_same(b); }

 private:
    bool is_same(const TextPlan& other) const;
};

}  // namespace rapido
