// What tags draw themselves: arrows at the edge.
#pragma once

#include <vector>

#include "element/body.hpp"
#include "rapido/element/tags.hpp"

namespace rapido {

class TagsBody final : public Body {
 public:
    /// One arrow: its tip, and the way in which it points; design pixels of the screen.
    struct Arrow {
        Point tip;
        Point way;  ///< of length 1
        float opacity = 1;
        friend bool operator==(const Arrow&, const Arrow&) = default;
    };

    explicit TagsBody(const Tags& tags) : size_(tags.arrow_size), color_(tags.arrow_color) {}

    /// True if that is another picture than before.
    bool set_arrows(std::span<const Arrow> arrows, Point origin, float scale);

    Size measure(TextMeasurer*, Size) override { return {}; }
    const Arrangement* arrangement() const override { return &arrangement_; }
    void draw(const DrawPlace& at, DrawGroup& into) const override;
    Color color() const override { return color_; }

 private:
    float size_;
    Color color_;
    Arrangement arrangement_{};
    std::vector<Arrow> arrows_;
    Point origin_;
    float scale_ = 1;
};

}  // namespace rapido
