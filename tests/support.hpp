// What several tests need.
#pragma once

#include <gtest/gtest.h>

#include <string>

#include "rapido/layout.hpp"
#include "rapido/rapido.hpp"
#include "tool_support.hpp"

namespace rapido::test {

/// Adds one to a number written in decimal digits, with pencil and paper: 1999 becomes 2000.
inline void add_one(std::string& digits) {
    std::size_t i = digits.size();
    while (i > 0 && digits[i - 1] == '9')
        digits[--i] = '0';
    if (i > 0)
        ++digits[i - 1];
    else
        digits.insert(0, 1, '1');
}

/// Changes an element of any kind: `change` is called with what it says, written out.
template <class Edit>
void edit(Element& element, const Edit& change) {
    const auto edit_one = [&]<class Described>(std::optional<Described> described) {
        if (!described) return;
        change(*described);
        element = *described;
    };
    edit_one(element.as<Panel>()), edit_one(element.as<Text>()), edit_one(element.as<Bar>());
    edit_one(element.as<Ring>()), edit_one(element.as<Level>()), edit_one(element.as<Pips>());
    edit_one(element.as<Dial>()), edit_one(element.as<Ruler>()), edit_one(element.as<Graph>());
    edit_one(element.as<Image>()), edit_one(element.as<Notice>()), edit_one(element.as<List>());
    edit_one(element.as<Markers>()), edit_one(element.as<PopUps>());
}

/// One frame of both clocks.
inline void update(Hud& hud, Seconds step) {
    hud.update({.real = step, .game = step});
}

inline std::string text_of(Hud& hud, ElementRef element) {
    return std::string(hud[element].text);
}

/// A measurer that is all arithmetic: every code unit is half an em wide, the ascent 0.75 and the descent
/// 0.25 em.
class BoxMeasurer final : public TextMeasurer {
 public:
    int shaped = 0;

    std::optional<FontId> find(std::string_view family, int, bool) override {
        return family == "missing" ? std::nullopt : std::optional<FontId>(0);
    }
    FontMetrics metrics(FontId) override { return {0.75F, 0.25F}; }
    float shape(FontId, float size, std::string_view text, std::vector<Glyph>& glyphs) override {
        ++shaped;
        glyphs.clear();
        for (std::size_t i = 0; i < text.size(); ++i)
            glyphs.push_back({static_cast<std::uint32_t>(text[i]), {size / 2 * static_cast<float>(i), 0}});
        return size / 2 * static_cast<float>(text.size());
    }
};

}  // namespace rapido::test
