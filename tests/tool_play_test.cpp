// Tables, sheets and plots of `rapido play` and `rapido plot`, as one asks for them.
#include <nlohmann/json.hpp>
#include <sstream>

#include "rapido/picture.hpp"
#include "tool_support.hpp"

namespace rapido::test {
namespace tool_play_test {

const std::string two_bars =
    "element = [\n"
    "    { kind = \"bar\", id = \"water\", value = \"water\", max = 100, triggers = [{ on = \"gain\", effect "
    "= "
    "\"swell\" }], trail = { delay = 9 } },\n"
    "    { kind = \"text\", id = \"name\", value = \"name\", opacity = 0.5, place = { offset = [0, 40], size "
    "= [200, 40] } },\n"
    "]\n";

TEST(Table, has_the_columns_that_are_asked_for) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml", two_bars);
    const std::string trace = folder.write("trace.csv", "time,water,name\n0,80,Ana\n1,20,Ana\n");
    const std::string play = "play " + hud + " --trace " + trace + " --at 1 ";
    EXPECT_EQ(run_tool(play + "--columns id,text,fill,trail,opacity,box,visible").out,
              "id     text  fill    trail   opacity  box          visible\n"
              "water  -     0.2000  0.8000  1.0000   0,0,160x12   yes\n"
              "name   Ana   -       -       0.5000   0,40,200x40  yes\n");
    const Ran json = run_tool(play + "--columns id,kind,truth,target,shown,trail --json");
    std::stringstream lines(json.out);
    std::string line;
    std::getline(lines, line);
    EXPECT_EQ(line, R"({"id":"water","kind":"bar","truth":20,"target":20,"shown":20,"trail":0.8})");
    std::getline(lines, line);
    EXPECT_EQ(line, R"({"id":"name","kind":"text","truth":"Ana","target":"Ana","shown":"Ana","trail":null})");
    const Ran wrong = run_tool(play + "--columns id,opacitty");
    EXPECT_EQ(wrong.exit, 2);
    EXPECT_NE(wrong.out.find("no column 'opacitty'; did you mean 'opacity'?"), std::string::npos) << wrong.out;
    EXPECT_EQ(run_tool("play " + hud + " --trace " + trace + " --crop water --table").exit, 2);
}

/// How many pixels of a picture have this color, about.
int count(const Picture& picture, Color color) {
    int found = 0;
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x) {
            const Color pixel = picture.pixel(x, y);
            const auto near = [](int a, int b) { return std::abs(a - b) < 24; };
            found += near(pixel.red, color.red) && near(pixel.green, color.green) && near(pixel.blue, color.blue);
        }
    return found;
}

Picture read(const std::string& path, int width, int height) {
    static Fonts fonts;
    Picture picture(width, height, fonts);
    EXPECT_TRUE(picture.draw_image(path));
    return picture;
}

TEST(Sheet, is_filled_by_an_element_that_is_cropped_to) {
    const TemporaryFolder folder;
    const std::string hud = folder.write(
        "hud.toml",
        "element = [{ kind = \"panel\", id = \"plate\", color = \"#ff0000\", radius = 0, place = { anchor = "
        "\"bottom_right\", size = [100, 60] } }]\n");
    const std::string trace = folder.write("trace.csv", "time,x\n0,1\n1,1\n");
    const std::string play = "play " + hud + " --trace " + trace + " --size 1280x720 --at 0.5 --sheet ";
    ASSERT_EQ(run_tool(play + folder.path("whole.png")).exit, 0);
    ASSERT_EQ(run_tool(play + folder.path("part.png") + " --crop plate").exit, 0);
    const int whole = count(read(folder.path("whole.png"), 1280, 756), rgb(0xff0000)),
              part = count(read(folder.path("part.png"), 1280, 756), rgb(0xff0000));
    // The plate, 100 by 60, is seen in a part that has 24 more on each side and the shape of the window: 192 by 108 of 1280 by 720.
    EXPECT_NEAR(static_cast<double>(part) / whole, 1280.0 / 192 * (720.0 / 108), 4);
    EXPECT_EQ(run_tool(play + folder.path("none.png") + " --crop nobody").exit, 1);
}

TEST(Plot, draws_steps_as_steps_and_what_moves_as_it_moves) {
    const TemporaryFolder folder;
    std::string trace = folder.write("trace.csv", "time,water\n0,0\n1,100\n2,100\n");
    const auto plotted = [&](const std::string& motion, const std::string& more) {
        const std::string hud = folder.write(
            "hud.toml", "element = [{ kind = \"bar\", id = \"water\", value = \"water\", max = 100" + motion + " }]\n");
        const Ran ran =
            run_tool("plot " + hud + " --trace " + trace + more + " --of water --png " + folder.path("plot.png"));
        EXPECT_EQ(ran.exit, 0) << ran.out;
        return read(folder.path("plot.png"), 1280, 800);
    };
    // The area is 1144 by 608 at 96, 104; the range is -6 to 106.
    const auto x = [](double time) { return static_cast<int>(96 + 1144 * time / 2); };
    const auto y = [](double value) { return static_cast<int>(104 + 608 * (106 - value) / 112); };
    const auto is_shown = [](const Picture& picture, int at_x, int at_y) {
        for (int below = -3; below <= 3; ++below) {
            const Color pixel = picture.pixel(at_x, at_y + below);
            if (std::abs(pixel.red - 0x38) < 16 && std::abs(pixel.green - 0xb6) < 16) return true;
        }
        return false;
    };
    const Picture step = plotted("", "");
    EXPECT_TRUE(is_shown(step, x(0.5), y(0)) && is_shown(step, x(0.9), y(0)));
    EXPECT_FALSE(is_shown(step, x(0.5), y(50))) << "it has not changed yet";
    EXPECT_TRUE(is_shown(step, x(1.5), y(100)));
    // With four frames a second, on the way from 1 to 2 s.
    const Picture moving = plotted(", motion = { kind = \"tween\", duration = 1, easing = \"linear\" }", " --rate 4");
    EXPECT_TRUE(is_shown(moving, x(0.5), y(0)));
    EXPECT_TRUE(is_shown(moving, x(1.375), y(37.5))) << "it moves between two frames, too";
    trace = folder.write("turned.csv", "time,water\n0,0\n1,100\n1.25,50\n2,50\n");
    const Picture turned = plotted(", motion = { kind = \"tween\", duration = 1, easing = \"linear\" }", " --rate 4");
    EXPECT_TRUE(is_shown(turned, x(1.125), y(12.5))) << "also up to where its target changes";
}

TEST(Play, refuses_more_frames_than_anybody_waits_for) {
    const TemporaryFolder folder;
    const std::string play = "play " + folder.write("hud.toml", two_bars + "") + " --trace " +
                             folder.write("trace.csv", "time,water,name\n0,10,1\n1e9,50,2\n");
    const Ran endless = run_tool(play + " --rate 60 --table");
    EXPECT_EQ(endless.exit, 1);
    EXPECT_NE(endless.out.find("that is more than 5000000 frames; end it earlier with --to, or give a lower --rate"),
              std::string::npos)
        << endless.out;
    EXPECT_EQ(run_tool(play + " --table").exit, 0) << "a frame for each row";
    EXPECT_EQ(run_tool(play + " --rate 60 --to 10 --table").exit, 0);
}

TEST(Plot, shows_several_elements_and_their_effects) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml", two_bars + "");
    const std::string trace = folder.write("trace.csv", "time,water,name\n0,10,1\n1,50,2\n2,20,3\n");
    const std::string plot =
        "plot " + hud + " --trace " + trace + " --rate 60 --png " + folder.path("plot.png") + " --of ";
    ASSERT_EQ(run_tool(plot + "water").exit, 0);
    const Color effect = mix(rgb(0x8fce5a), rgb(0x10161c), 0.35);
    const Picture one = read(folder.path("plot.png"), 1280, 800);
    // `swell` takes 0.25 s of 2 s, in a band of 16 pixels.
    const int pixels = count(one, effect);
    EXPECT_GT(pixels, 1144 / 10 * 12) << "the effect that a gain starts";
    EXPECT_LT(pixels, 1144 / 5 * 20);
    const Ran both = run_tool(plot + "water --of water");
    EXPECT_EQ(both.exit, 0) << both.out;
    EXPECT_GT(count(read(folder.path("plot.png"), 1280, 800), effect), pixels + pixels / 2) << "once for each";
    const Ran text = run_tool(plot + "water --of name");
    EXPECT_EQ(text.exit, 0) << text.out;
    EXPECT_EQ(run_tool(plot + "nobody").exit, 1);
}

}  // namespace tool_play_test
}  // namespace rapido::test
