// Elements as values: what is kept of a description, and what makes two of them differ.
#include "support.hpp"

namespace rapido::test {
namespace element_test {

TEST(Element, keeps_what_it_was_made_of_and_differs_where_that_does) {
    const Text text{.id = "a",
                    .value = "plane.water",
                    .format = "{} L",
                    .plural = {.one = "{} drop"},
                    .motion = {.both = spring(2s), .down = instant()},
                    .bands = {{.below = 3.0, .color = rgb(0xff0000)}},
                    .place = {.anchor = Anchor::bottom, .offset = {3, 4}},
                    .color = theme("ink"),
                    .outline = Outline{.width = 1},
                    .visible = 1};
    const Element element = text;
    EXPECT_EQ(element.kind(), "text");
    ASSERT_TRUE(element.as<Text>());
    EXPECT_FALSE(element.as<Bar>());
    const Text kept = *element.as<Text>();
    EXPECT_EQ(kept.id, "a");
    EXPECT_EQ(kept.value.name(), "plane.water");
    EXPECT_EQ(kept.plural.one, "{} drop");
    EXPECT_EQ(kept.motion, text.motion);
    EXPECT_EQ(kept.bands, text.bands);
    EXPECT_EQ(kept.place, text.place);
    EXPECT_EQ(kept.color.name(), "ink");
    EXPECT_EQ(kept.outline, text.outline);
    EXPECT_FALSE(kept.shadow) << "which was not given";
    EXPECT_EQ(kept.size, Text{}.size);
    EXPECT_EQ(Element(kept), element);
    const std::vector<void (*)(Text&)> edits{[](Text& t) { t.id = "b"; },
                                             [](Text& t) { t.inside = "p"; },
                                             [](Text& t) { t.value = "other"; },
                                             [](Text& t) { t.value = {}; },
                                             [](Text& t) { t.plural.one = ""; },
                                             [](Text& t) { t.motion.down.reset(); },
                                             [](Text& t) { t.bands[0].below = 4; },
                                             [](Text& t) { t.place.offset.x = 0; },
                                             [](Text& t) { t.color = theme("dim"); },
                                             [](Text& t) { t.outline.reset(); },
                                             [](Text& t) { t.shadow = Shadow{}; },
                                             [](Text& t) { t.size = 25; }};
    for (const auto edit : edits) {
        Text other = kept;
        edit(other);
        EXPECT_NE(Element(other), element);
        EXPECT_NE(other, kept);
        EXPECT_EQ(*Element(other).as<Text>(), other);
    }
    EXPECT_EQ(Element(), Element(Panel{}));
    EXPECT_NE(Element(Panel{}), Element(Text{}));
    Element moved = element;
    moved.set_id("b");
    moved.set_inside("p.q");
    EXPECT_EQ(moved.as<Text>()->inside + "." + moved.as<Text>()->id, "p.q.b");
    EXPECT_EQ(element.id(), "a") << "a copy is one of its own";
}

}  // namespace element_test
}  // namespace rapido::test
