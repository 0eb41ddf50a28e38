// What markers draw themselves: arrows at the edge.
#pragma once

#include <vector>

#include "element/body.hpp"
#include "rapido/element/markers.hpp"

namespace rapido {

class MarkersBody final : public Body {
 public:
    /// One arrow: its tip, and the way in which it points; design pixels of the screen.
    struct Arrow {
        Point tip;
        Point way;  ///< of length 1
        float opacity = 1;
        friend bool operator==(const Arrow&, const Arrow&) = default;
    };

    explicit MarkersBody(const Markers& markers) : size_(markers.arrow_size), color_(markers.arrow_color) {}

    /// True if that is another image than before.
    bool set_arrows(std::span<const Arrow> arrows, Point origin, float scale);

    Size measure(TextMeasurer*, Size) override { return {}; }
    const Arrangement* arrangement() const override { return &arrangement_; }
    void draw(const DrawPlace& at, DisplayGroup& into) const override;
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
