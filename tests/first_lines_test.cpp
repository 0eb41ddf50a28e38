// What one writes first, and would do nothing: each is what was meant, or says how it is written.
#include <functional>

#include "rapido/images.hpp"
#include "support.hpp"

namespace rapido::test {
namespace first_lines_test {

/// The problems of a HUD, a line each.
std::string said(const Hud& hud) {
    std::string lines;
    for (const Problem& problem : hud.problems())
        lines += to_string(problem) + "\n";
    return lines;
}

TEST(FirstLines, of_an_element_do_what_was_meant_or_say_how_it_is_written) {
    struct Row {
        Element element;
        std::string says;
    };
    int hull = 50;
    for (const Row& row : std::vector<Row>{
             {Bar{.id = "e", .value = watch(hull), .max = 100, .bands = {{.below = 25, .color = rgb(0xff0000)}}},
              "error: 'bands.0.below' of bar 'e' is 25, and with a maximum an edge is a part of it, from 0 to 1; write "
              "0.25 for a quarter of it, or edge_unit = \"value\" for an amount, or \"ratio\" for more than all of "
              "it\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .bands = {{.below = 0.25}, {.above = 1}}}, ""},
             {Bar{.id = "e",
             .value = watch(hull),
             .max = 100,
             .bands = {{.above = 1.5, .edge_unit = EdgeUnit::ratio}, {.below = 25, .edge_unit = EdgeUnit::value}}},
              ""},
             {Text{.id = "e", .value = watch(hull), .bands = {{.below = 25}}}, ""},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .trail = {.color = rgb(0xff0000)}},
              "warning: 'trail' of bar 'e': without a 'delay' there is none; give the time before it drains, such as "
              "0.4\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = Motion{.duration = 400ms}},
              "warning: 'motion' of bar 'e': it is instant, and has a duration or an easing; give its kind, such as "
              "tween(300ms), in a file kind = \"tween\"\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = {.down = Motion{.easing = Easing::linear()}}},
              "warning: 'motion_down' of bar 'e': it is instant, and has a duration or an easing; give its kind, such "
              "as tween(300ms), in a file kind = \"tween\"\n"},
             {Bar{.id = "e", .value = watch(hull), .max = 100, .motion = instant()}, ""},
             {Image{.id = "e", .value = watch(hull)}, "error: 'image' of image 'e' must be the name of a file\n"},
         }) {
        Hud hud;
        hud.add(row.element);
        update(hud, 0s);
        EXPECT_EQ(said(hud), row.says);
    }
}

TEST(FirstLines, of_images_take_the_first_of_those_that_a_value_chooses) {
    int number = 0;
    Images images(RAPIDO_SOURCE_DIR "/demo/ember_ridge");
    Hud hud({}, {}, nullptr, &images);
    const auto icon = hud.add(Image{.id = "i", .value = watch(number), .images = {"rank_1.png"}});
    update(hud, 0s);
    EXPECT_TRUE(hud.alive(icon));
    EXPECT_EQ(said(hud), "");
}

TEST(FirstLines, of_times_are_told_apart_from_what_is_meant) {
    HudDefinition definition;
    definition.timers = {{.id = "bomb", .duration = 10s, .marks = {{1s, 1s}, {5s, 1s}}}};
    EXPECT_EQ(said(Hud(definition)),
              "warning: 'marks.0' of timer 'bomb': it comes once, as 'every' goes on from 'at' towards zero; at = 10, "
              "every = 1 is each of the last ten seconds\n");
    for (const auto& [step, count, says] : std::vector<std::tuple<Seconds, int, std::string>>{
             {Seconds{16.7}, 29, ""},  // a game that loads
             {Seconds{16.7}, 40,
              "warning: steps of 16.7 s, one after the other; a step of time is in seconds: write update(0.016), or "
              "update(16ms)\n"},
             {Seconds{0.0167}, 1000, ""},
         }) {
        Hud hud;
        for (int i = 0; i < count; ++i)
            hud.update(step);
        EXPECT_EQ(said(hud), says);
    }
}

}  // namespace first_lines_test
}  // namespace rapido::test
