// One element on black, and what is lit of it.
#pragma once

#include "rapido/images.hpp"
#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {

inline constexpr Color white = rgb(0xffffff), black = rgb(0x000000);

/// A HUD of one element on a screen of so many pixels, a design pixel each.
struct Stage {
    Images images;
    Hud hud;
    ElementRef element;
    DisplayList list;
    int width, height;

    explicit Stage(const Element& of, int wide = 300, int high = 200, const std::string& folder = {})
        : images(folder),
          hud({.design = {static_cast<float>(wide), static_cast<float>(high)}}, {}, &fonts(), &images),
          width(wide),
          height(high) {
        hud.resize({.size = {static_cast<float>(wide), static_cast<float>(high)}});
        element = hud.add(of);
    }
    static Fonts& fonts() {
        static Fonts all;
        return all;
    }
    void image(const std::string& name, int wide, int high, const std::vector<Color>& pixels) {
        EXPECT_TRUE(images.add(name, wide, high, pixels));
    }
    void pass(Seconds step) { update(hud, step); }
    Picture shot() {
        hud.draw(list);
        Picture picture(width, height, fonts(), &images);
        picture.fill(black);
        picture.draw(list);
        return picture;
    }
    Picture first() {
        pass(0s);
        EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
        return shot();
    }
};

/// How many pixels are lit, half ones as halves.
inline double lit(const Picture& picture) {
    double sum = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x)
            sum += picture.pixel(x, y).red / 255.0;
    return sum;
}

/// All texts that are drawn, in order.
inline std::string written(Stage& stage) {
    stage.shot();
    std::string all;
    for (const DisplayGroup& group : stage.list.groups())
        for (const DisplayItem& item : group.items())
            if (item.kind == DisplayItem::Kind::text)
                all += (all.empty() ? "" : " ") + std::string(group.text_of(item));
    return all;
}

inline bool same_pixels(const Picture& a, const Picture& b) {
    for (int y = 0; y < a.height(); ++y)
        for (int x = 0; x < a.width(); ++x)
            if (!(a.pixel(x, y) == b.pixel(x, y))) return false;
    return true;
}

}  // namespace rapido::test
