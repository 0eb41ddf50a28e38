// HUD files of a legal size that ask for too much: each is played in little more time than a plain one.
#include "hostile_files.hpp"

#include <chrono>

#include "rapido/file.hpp"
#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {
namespace hostile_test {

/// Kilobytes, of this process, as the kernel counts them; zero where it does not.
long memory(const std::string& what) {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);)
        if (line.starts_with(what)) return std::stol(line.substr(what.size() + 1));
    return 0;
}

struct Cost {
    double seconds = 0;
    double megabytes = 0;
};

/// What checking, making, five updates with a hitch, and drawing take, and the most memory at any moment of them.
Cost play(const std::string& text, Fonts& fonts, const std::string& folder) {
    std::ofstream("/proc/self/clear_refs") << 5;  // the peak begins anew
    const long before = memory("VmRSS:");
    const auto start = std::chrono::steady_clock::now();
    {
        Images images(folder);
        const Problems problems = check_hud(text, "h.toml", {}, &fonts);
        EXPECT_LE(problems.size(), 101U);
        const auto definition = read_hud(text, "h.toml");
        Hud hud(definition ? *definition : HudDefinition{}, {}, &fonts, &images);
        hud.resize({.size = {640, 400}});
        for (const double step : {0.0, 0.016, 10.0, 0.016, 0.016})
            update(hud, Seconds{step});
        DisplayList list;
        hud.draw(list);
        Picture picture(640, 400, fonts, &images);
        picture.draw(list);
        EXPECT_LE(hud.problems().size(), 101U);
    }
    const std::chrono::duration<double> passed = std::chrono::steady_clock::now() - start;
    return {passed.count(), static_cast<double>(memory("VmHWM:") - before) / 1000};
}

TEST(HudFile, of_a_legal_size_takes_no_more_than_twenty_times_a_plain_one) {
#ifdef RAPIDO_SANITIZED
    GTEST_SKIP() << "what sanitizers cost is not what is asked here";
#endif
    const TemporaryFolder folder;
    Fonts fonts;
    {
        Picture large(4096, 4096, fonts);
        large.fill(rgb(0xff7a3c, 0.5));
        ASSERT_TRUE(large.write_png(folder.path("large.png")));
    }
    std::string plain =
        repeated(4'000, [](int i) { return element("text", i, "value=1250\nformat=\"{} acres saved\""); });
    plain += "#" + std::string(3'900'000 - plain.size(), 'x');
    play(plain, fonts, folder.path(""));  // fonts are found, and memory is there
    const Cost usual = play(plain, fonts, folder.path(""));
    for (const HostileFile& file : hostile_files()) {
        ASSERT_LE(file.text.size(), 4'000'000U) << file.name;
        const Cost cost = play(file.text, fonts, folder.path(""));
        EXPECT_LE(cost.seconds, 20 * usual.seconds) << file.name;
        EXPECT_LE(cost.megabytes, 256) << file.name;
    }
}

TEST(HudFile, counts_what_styles_make_wherever_it_is_made_from) {
    // A third of a megabyte that would be eight million messages.
    std::string text = "[style.s]\nmessages = [\n";
    for (int i = 0; i < 2000; ++i)
        text += "{ id = \"m" + std::to_string(i) + "\", text = \"a message\" },\n";
    text += "]\n";
    for (int i = 0; i < 3900; ++i)
        text += "[[element]]\nkind = \"notice\"\nid = \"n" + std::to_string(i) + "\"\nstyle = \"s\"\n";
    const auto read = read_hud(text, "hud.toml");
    ASSERT_FALSE(read);
    EXPECT_EQ(read.problems().size(), 1U);
    EXPECT_EQ(read.problems().front().code, ProblemCode::too_large);
    EXPECT_NE(to_string(read.problems().front()).find("let fewer elements use long styles"), std::string::npos);
}

TEST(Images, count_one_file_once_and_all_of_them_together) {
    const TemporaryFolder folder;
    Fonts fonts;
    ASSERT_TRUE(Picture(3000, 3000, fonts).write_png(folder.path("a.png")));
    for (const char* const name : {"b.png", "c.png", "d.png"})
        std::filesystem::copy(folder.path("a.png"), folder.path(name));
    Images images(folder.path(""));
    const auto first = images.find("a.png");
    ASSERT_TRUE(first);
    for (const char* const spelling : {"./a.png", ".//a.png", "././././a.png"}) {
        const auto found = images.find(spelling);
        ASSERT_TRUE(found) << spelling;
        EXPECT_EQ(*found, *first) << "no second copy";
    }
    EXPECT_TRUE(images.find("b.png"));
    EXPECT_TRUE(images.find("c.png"));
    const auto too_much = images.find("d.png");
    ASSERT_FALSE(too_much);
    EXPECT_EQ(too_much.problems()[0].message, "is too much: 32 million pixels are read, of all images together");
}

TEST(Picture, is_cleared_by_a_transparent_color_and_says_what_it_cannot_draw) {
    Fonts fonts;
    Picture picture(8, 8, fonts);
    picture.fill(rgb(0xff0000));
    picture.fill(rgb(0x00ff00, 0));
    EXPECT_EQ(picture.pixel(3, 3).alpha, 0);
    EXPECT_TRUE(picture.status());

    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {1280, 720}});
    for (int i = 0; i < 2000; ++i)
        hud.add(Bar{.id = "b" + std::to_string(i), .value = 1, .place = {.size = {1280, 720}}});
    update(hud, 0s);
    DisplayList list;
    hud.draw(list);
    Picture wide(1280, 720, fonts);
    wide.draw(list);
    ASSERT_FALSE(wide.status());
    EXPECT_NE(wide.status().problem().message.find("covers the picture too often"), std::string::npos);
}

TEST(Draw, leaves_out_what_no_screen_can_show) {
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {1280, 720}});
    for (int i = 0; i < 300; ++i)
        hud.add(Bar{.id = "b" + std::to_string(i), .value = 1, .place = {.size = {1000, 10}}, .segments = 1000});
    update(hud, 0s);
    DisplayList list;
    for (int i = 0; i < 3; ++i)
        hud.draw(list);
    std::size_t items = 0;
    for (const DisplayGroup& group : list.groups())
        items += group.items().size();
    EXPECT_GT(items, 200'000U);
    EXPECT_LE(items, DisplayList::most_items);
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_NE(hud.problems()[0].message.find("more than a screen can show"), std::string::npos);
}

}  // namespace hostile_test
}  // namespace rapido::test
