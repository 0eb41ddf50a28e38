// Numbers that pop up: pooled, merged, and where they are in time.
#pragma once

#include <vector>

#include "element/body.hpp"
#include "element/pattern.hpp"
#include "element/text_block.hpp"
#include "rapido/element/pop_ups.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido {

class PopUpsBody final : public Body {
 public:
    PopUpsBody(const PopUps& pop_ups, Lettering lettering);
    /// Makes the texts of all bands; false, with problems, if one cannot be made.
    bool make_texts(const Language* language, BodyContext& context);

    /// An amount pops up now, on the clock of the element. False for a place that is none.
    bool add(const PopUp& pop, Nanoseconds now, const Camera& camera, Size screen);

    void take_over(Body& other) override;
    void set_language(const Language* language, BodyContext& context) override;
    void snap() override { count_ = 0; }
    bool lives_in_time() const override { return true; }
    Change advance(const Moment& at) override;
    Size measure(TextMeasurer* measurer, Size) override;
    void draw(const DrawPlace& at, DisplayGroup& into) const override;
    Color color() const override { return pop_ups_.color; }
    PopUpsBody* pop_ups() override { return this; }

 private:
    /// One number.
    struct Shown {
        explicit Shown(TextBlock empty) : block(std::move(empty)) {}

        WorldPoint at;
        std::optional<Point> on_screen;
        KeptValue value;
        Nanoseconds born{0};
        Nanoseconds touched{0};  ///< when it was born, or an amount was added
        float aside = 0;         ///< design pixels
        TextBlock block;
        Size size;
        Color color;
        float band_scale = 1;
        bool must_shape = true;
        // At the time of the last frame.
        std::optional<Point> seen;  ///< nothing where it cannot be seen
        float scale = 1, opacity = 1;
    };
    struct Look {
        Color color;
        std::size_t form;
        float scale;
    };
    Shown* mergeable(const Value& value, Point seen, Nanoseconds now, const Camera& camera, Size screen);
    std::optional<Point> seen_of(const Shown& shown, const Camera& camera, Size screen) const;
    Look look_of(const Value& value) const;
    void write(Shown& shown);

    PopUps pop_ups_;
    Lettering lettering_;
    PieceLooks looks_;
    std::vector<std::optional<FormattedText>> forms_;  ///< its own, and those of its bands where they have one
    std::vector<std::unique_ptr<Shown>> pool_;         ///< the first `count_` are seen, the oldest first
    std::size_t count_ = 0;
    std::uint32_t number_ = 0;  ///< of the next one
    Fitted screen_;
    bool was_seen_ = false;
};

}  // namespace rapido
