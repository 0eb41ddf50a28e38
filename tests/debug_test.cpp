// What a tester sees: probes, and what a frame took.
#include "rapido/debug.hpp"

#include <set>

#include "pixels.hpp"
#include "rapido/time.hpp"

namespace rapido::test {
namespace debug_test {

/// The rows of the table, a heading in brackets: `[plane] speed=140`.
std::string table_of(Hud& hud) {
    std::vector<std::pair<float, std::string>> rows;
    for (const ElementRef ref : hud.elements()) {
        const Shown shown = hud[ref];
        if (!shown.visible || !shown.id.starts_with("probes.rows.") || !shown.id.ends_with(".name")) continue;
        const std::string row(shown.id.substr(0, shown.id.size() - 9));
        const Shown group = hud[hud.find(row + ".group")];
        rows.emplace_back(shown.box.y, (group.visible ? "[" + std::string(group.text) + "] " : "") +
                                           std::string(shown.text) + "=" +
                                           std::string(hud.text_of(hud.find(row + ".row.text"))));
    }
    std::sort(rows.begin(), rows.end());
    std::string all;
    for (const auto& [y, row] : rows)
        all += (all.empty() ? "" : "; ") + row;
    return all;
}

TEST(Probes, show_times_in_a_unit_that_says_something_and_what_is_wrong_with_a_pattern) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    show_probes(hud);
    for (const auto& [time, expected] : std::vector<std::pair<Seconds, std::string>>{
             {16.6667ms, "16.7 ms"}, {-2ms, "-2.0 ms"}, {1500ms, "1.50 s"}, {59.999s, "60.00 s"}, {125s, "00:02:05"}}) {
        RAPIDO_PROBE(time);
        RAPIDO_PROBE_AS("{:%M:%S}", time);
        update(hud, 16ms);
        EXPECT_NE(table_of(hud).find("time=" + expected), std::string::npos) << table_of(hud);
    }
    EXPECT_EQ(hud.problems(), Problems{});
    for (int i = 0; i < 3; ++i) {
        RAPIDO_PROBE_AS("{:q}", 5);
        update(hud, 16ms);
        EXPECT_NE(table_of(hud).find("spec"), std::string::npos) << table_of(hud);
        ASSERT_EQ(hud.problems().size(), 1U);
        EXPECT_EQ(hud.problems()[0].code, ProblemCode::bad_format);
        EXPECT_TRUE(hud.problems()[0].message.starts_with("probe '5': ")) << hud.problems()[0].message;
    }
    update(hud, 3s);  // the next test of this thread sees nothing of it
}

TEST(Probes, show_any_value_in_one_line) {
    struct Plane {
        double speed = 140.25;
        int crew = 4;
        std::string village = "Pine Hollow";
    } plane;
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    show_probes(hud);
    EXPECT_EQ(hud.problems(), Problems{});
    const auto frame = [&](bool over_village, Seconds step = 16ms) {
        RAPIDO_PROBE(plane.crew);
        RAPIDO_PROBE_IN("plane", plane.speed * 2);
        RAPIDO_PROBE_IN_AS("plane", "{:.0f} km/h", plane.speed * 3.6);
        if (over_village) RAPIDO_PROBE_IN("mission", plane.village);
        update(hud, step);
        return table_of(hud);
    };
    EXPECT_EQ(frame(true),
              "plane.crew=4; [mission] plane.village=Pine Hollow; [plane] plane.speed * 2=280.5; plane.speed "
              "* 3.6=505 km/h");
    plane.crew = 3;
    EXPECT_EQ(frame(false).substr(0, 12), "plane.crew=3");
    EXPECT_NE(frame(false, 1s).find("village"), std::string::npos) << "it was reached a moment ago";
    frame(false, 1s);
    EXPECT_EQ(frame(false), "plane.crew=3; [plane] plane.speed * 2=280.5; plane.speed * 3.6=505 km/h");
    show_probes(hud, false);
    EXPECT_EQ(frame(true), "");
    bool wanted = true;
    show_probes(hud, watch(wanted));
    EXPECT_NE(frame(true), "");
    wanted = false;
    EXPECT_EQ(frame(true), "");
}

TEST(Probes, stand_in_the_corner_in_which_they_cover_least) {
    BoxMeasurer measurer;
    bool there = false;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.add(Bar{.id = "right",
                .value = 1,
                .place = {.anchor = Anchor::top_right, .size = {300, 200}},
                .visible = watch(there)});
    hud.add(Bar{
        .id = "left", .value = 1, .place = {.anchor = Anchor::top_left, .size = {300, 200}}, .visible = watch(there)});
    show_probes(hud);
    const auto corner = [&] {
        for (int i = 0; i < 65; ++i) {
            RAPIDO_PROBE(there);
            update(hud, 16ms);
        }
        const Rect box = hud[hud.find("probes")].box;
        return std::string(box.y < 360 ? "top " : "bottom ") + (box.x < 640 ? "left" : "right");
    };
    EXPECT_EQ(corner(), "top right");
    there = true;
    EXPECT_EQ(corner(), "bottom right");
    there = false;
    EXPECT_EQ(corner(), "bottom right") << "without a reason it stays";
}

TEST(Probes, keep_clear_of_tags_where_those_are_seen) {
    BoxMeasurer measurer;
    WorldPoint fire{560, -300, 0};  // of a flat world: at the upper right of a screen of 1280 by 720
    std::vector<WorldPoint> fires{fire};
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.add(markers_of({.id = "fires",
                        .entries = watch_entries(fires, entry_position([](const WorldPoint& at) { return at; })),
                        .at_most = 1},
                       [](const auto&) {
                           return nest(Panel{}, Bar{.id = "heat", .value = 1, .place = {.size = {120, 40}}});
                       }));
    show_probes(hud);
    for (int i = 0; i < 65; ++i) {
        RAPIDO_PROBE(fire.x);
        update(hud, 16ms);
    }
    const Rect box = hud[hud.find("probes")].box;
    EXPECT_GT(box.width, 50);
    EXPECT_TRUE(box.right() < 1140 || box.y > 80) << "the marker is laid out elsewhere, and seen in that corner";
}

TEST(Probes, are_nothing_in_a_build_without_them) {
    const TemporaryFolder folder;
    const std::string program = folder.write("game.cpp", R"(#include <rapido/debug.hpp>
int fly(int speed) { RAPIDO_PROBE(speed * 12345); RAPIDO_PROBE_IN_AS("plane", "{}", speed); return speed; })");
    const auto size_of = [&](const std::string& define) {
        const std::string object = folder.path("game.o");
        const std::string item =
            "c++ -std=c++20 -O2 " + define + " -I" RAPIDO_SOURCE_DIR "/include -c " + program + " -o " + object;
        EXPECT_EQ(std::system(item.c_str()), 0);
        std::ifstream file(object, std::ios::binary);
        const std::string bytes{std::istreambuf_iterator<char>(file), std::istreambuf_iterator<char>()};
        return std::pair(bytes.size(),
                         bytes.find("rapido") != std::string::npos || bytes.find("12345") != std::string::npos);
    };
    const std::string bare = folder.write("bare.cpp", "int fly(int speed) { return speed; }");
    const auto [without, names_without] = size_of("-DRAPIDO_DEBUG=0");
    const auto [with, names_with] = size_of("-DRAPIDO_DEBUG=1");
    EXPECT_FALSE(names_without);
    EXPECT_TRUE(names_with);
    EXPECT_LT(without, 2'000U);
    EXPECT_GT(with, without);
}

TEST(FrameCounter, tells_the_average_the_worst_and_the_one_percent_low) {
    FrameCounter meter{1s};
    const auto run = [&](int frames, Seconds step) {
        for (int i = 0; i < frames; ++i)
            meter.advance(step);
    };
    run(50, 10ms);
    EXPECT_FALSE(meter.worst() || meter.low() || meter.average());
    run(50, 10ms);
    EXPECT_NEAR(meter.worst()->count(), 0.010, 1e-9);
    EXPECT_NEAR(meter.average()->count(), 0.010, 1e-9);
    EXPECT_NEAR(*meter.low(), 100, 1e-3);
    run(1, 500ms);
    run(50, 10ms);
    EXPECT_NEAR(meter.worst()->count(), 0.5, 1e-9);
    EXPECT_NEAR(meter.average()->count(), 1.0 / 51, 1e-9);
    EXPECT_NEAR(*meter.low(), 100, 1e-3) << "one of 151 is less than 1 %";
    run(9, 50ms);
    run(55, 10ms);
    EXPECT_NEAR(*meter.low(), 20, 1e-3) << "ten of 215 are slower than 99 %";
    run(1100, 10ms);
    EXPECT_NEAR(*meter.low(), 100, 1e-3) << "only the last thousand count";

    HudDefinition definition;
    definition.frame_meters = {{.id = "f", .interval = 1s}};
    Hud hud{definition};
    const auto text = hud.add(Text{.id = "t",
                                   .value = "f.worst",
                                   .values = {{"low", "f.low"}, {"average", "f.average"}},
                                   .format = "{:.3%S} {low:.0f} {average:.3%S}"});
    EXPECT_EQ(hud.problems(), Problems{});
    for (int i = 0; i < 100; ++i)
        update(hud, 20ms);
    EXPECT_EQ(hud.text_of(text).find("--"), std::string::npos) << hud.text_of(text);
}

TEST(Cost, is_told_by_the_game_and_shown_by_the_hud_itself) {
    Hud hud;
    const auto text = hud.add(Text{
        .id = "t", .value = "hud.update_time", .values = {{"draw", "hud.draw_time"}}, .format = "{:.3%S} {draw:.3%S}"});
    EXPECT_EQ(hud.problems(), Problems{});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "-- --") << "nobody has told it";
    hud.set_cost({.update = 2ms, .draw = 1ms});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "00.002 00.001");
}

TEST(Overlay, is_written_in_a_font_that_can_be_read_whatever_that_of_the_hud_is) {
    // A measurer that tells families apart.
    class Families final : public TextMeasurer {
     public:
        std::optional<FontId> find(std::string_view family, int, bool) override {
            return family == "Tiny Pixels" ? 1 : 2;
        }
        FontMetrics metrics(FontId) override { return {0.75F, 0.25F}; }
        float shape(FontId, float size, std::string_view text, std::vector<Glyph>& glyphs) override {
            glyphs.assign(text.size(), {});
            return size * static_cast<float>(text.size());
        }
    } families;
    Hud hud{HudDefinition{.font = "Tiny Pixels"}, {}, &families};
    hud.resize({.size = {800, 600}});
    hud.add(Text{.id = "score", .value = 7, .place = {.anchor = Anchor::top_left}});
    update(hud, 16ms);
    const auto fonts_of = [](const DisplayList& list) {
        std::set<FontId> fonts;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items())
                if (item.kind == DisplayItem::Kind::text) fonts.insert(item.font);
        return fonts;
    };
    DisplayList own, overlay;
    hud.draw(own);
    draw_overlay(hud, overlay, Point{2, 2});
    EXPECT_EQ(fonts_of(own), std::set<FontId>{1});
    EXPECT_EQ(fonts_of(overlay), std::set<FontId>{2});
}

TEST(Overlay, finds_nothing_where_an_element_has_no_area) {
    Hud hud;
    const auto markers = hud.add(markers_of({.id = "fires"}, [](const auto&) { return nest(Panel{}); }));
    update(hud, 16ms);
    EXPECT_TRUE(hud[markers].visible);
    for (const Point point : {Point{0, 0}, Point{20, 30}, Point{600, 400}})
        EXPECT_FALSE(hud.element_at(point)) << point.x;
}

TEST(Overlay, shows_boxes_ids_and_why) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{.design = {400, 300}}, {}, &measurer};
    hud.resize({.size = {800, 600}});
    const auto panel = hud.add(Panel{.id = "plate", .place = {.offset = {20, 20}, .size = {100, 60}}});
    const auto text = hud.add(Text{.id = "score", .value = 7, .inside = "plate"});
    hud.add(Bar{.id = "hidden", .value = 1, .visible = constant(false)});
    update(hud, 16ms);
    const Rect box = hud[text].box;
    const Point middle{(box.x + box.width / 2) * 2, (box.y + box.height / 2) * 2};  // in device pixels
    EXPECT_EQ(hud.element_at(middle), text);
    EXPECT_EQ(hud.element_at({200, 130}), panel) << "beside the text";
    EXPECT_FALSE(hud.element_at({700, 500}));
    hud.play(panel, "shake");
    const auto drawn = [&](std::optional<Point> point) {
        DisplayList list;
        draw_overlay(hud, list, point);
        std::vector<std::string> texts;
        int lines = 0;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items()) {
                if (item.kind == DisplayItem::Kind::text) texts.emplace_back(group.text_of(item));
                if (item.kind == DisplayItem::Kind::line) ++lines;
            }
        EXPECT_EQ(lines, 2) << "what is hidden has no box";
        return texts;
    };
    EXPECT_EQ(drawn({}), std::vector<std::string>{"score"});
    const std::vector<std::string> why = drawn(middle);
    ASSERT_GT(why.size(), 4U);
    EXPECT_EQ(why[1], "text 'plate.score' shows \"7\"");
    EXPECT_EQ(why[2], "source");
    EXPECT_EQ(why[3].substr(0, 26), "reads a constant: 7, since");
    // What moves is found where it is drawn.
    const auto markers =
        hud.add(markers_of({.id = "t", .parameters = {"v"}, .pivot = Anchor::center}, [](const auto& thing) {
            return nest(Panel{.place = {.size = {40, 20}}, .plate = false},
                        Bar{.id = "bar", .value = thing("v"), .place = {.size = {40, 20}}});
        }));
    const Point at{100, 100};
    hud.add_marker(markers, watch_position(at), {0.5});
    update(hud, 1s);
    update(hud, 16ms);
    const ElementRef found = hud.element_at({(200 + 100) * 2, (150 + 100) * 2});
    EXPECT_EQ(hud[found].id, "t.1.bar");
}

}  // namespace debug_test
}  // namespace rapido::test
