// What lives on while something else is added, removed, exchanged or lost.
#include <cmath>
#include <limits>

#include "pixels.hpp"
#include "rapido/debug.hpp"
#include "rapido/file.hpp"
#include "rapido/mesh.hpp"

namespace rapido::test {
namespace lives_test {

TEST(Sources, keep_their_texts_whatever_is_added_beside_them) {
    // Short texts live inside of a string: whoever moves the string moves them.
    std::vector<std::string> texts;
    for (std::size_t length = 0; length <= 40; ++length)
        texts.push_back(std::string(length, static_cast<char>('a' + length % 26)));
    Hud hud;
    std::vector<ElementRef> shown;
    for (std::size_t i = 0; i < texts.size(); ++i)
        shown.push_back(hud.add(Text{.id = "t" + std::to_string(i), .value = watch(texts[i]), .format = "<{}>"}));
    update(hud, 16ms);
    int number = 0;
    for (int round = 0; round < 12; ++round) {
        // Each adds sources, and more of them each time.
        for (int i = 0; i < 1 << round; ++i, ++number) {
            hud.add(Text{.id = "n" + std::to_string(number), .value = watch([i] { return i; })});
            if (number % 7 == 0) hud.add(Timer{.id = "timer" + std::to_string(number)});
        }
        // Another part of the same text is made again from what is kept.
        for (const ElementRef ref : shown)
            hud.set_format(ref, round % 2 == 0 ? "[{}]" : "<{}>");
        update(hud, 16ms);
        for (std::size_t i = 0; i < texts.size(); ++i) {
            const std::string_view text = hud.text_of(shown[i]);
            EXPECT_EQ(text.substr(1, text.size() - 2), texts[i]) << round;
        }
    }
}

TEST(HudFile, of_a_style_with_a_panel_says_what_contradicts_it) {
    const std::string style = "[style.lost]\ninside = \"nowhere\"\n";
    struct Row {
        std::string file, says;
    };
    const std::string nested =
        "[[element]]\nkind = \"panel\"\nid = \"p\"\n[[element.element]]\nkind = \"text\"\nid = \"t\"\nformat "
        "= \"x\"\n";
    for (const Row& row : std::vector<Row>{
             {style + nested + "style = \"lost\"\n", "it stands in the list of 'p' already"},
             {style + nested + "style = [\"lost\", \"lost\"]\n", "it stands in the list of 'p' already"},
             {"[component.c]\n[[component.c.element]]\nkind = \"panel\"\nid = "
              "\"q\"\n[[component.c.element.element]]\nkind = \"text\"\nid "
              "= \"t\"\nformat = \"x\"\nstyle = \"lost\"\n" +
                  style + "[[element]]\nkind = \"c\"\nid = \"s\"\n",
              "it stands in the list of"},
             {style + "[component.c]\n[[component.c.element]]\nkind = \"text\"\nid = \"t\"\nformat = \"x\"\n"
                      "[[element]]\nkind = \"panel\"\nid = \"p\"\n[[element.element]]\nkind = \"list\"\nid = "
                      "\"l\"\n"
                      "style = \"lost\"\nentries = \"e\"\ncomponent = \"c\"\n",
              "it stands in the list of 'p' already"}}) {
        const Result<HudDefinition> read = read_hud(row.file, "hud.toml");
        ASSERT_FALSE(read) << row.file;
        EXPECT_NE(to_string(read.problems().front()).find(row.says), std::string::npos)
            << to_string(read.problems().front());
    }
}

TEST(Frames, of_any_count_draw_something_or_say_why_not) {
    for (const int count : {-7, 0, 1, 4, 1000, 1001, std::numeric_limits<int>::max()})
        for (const int columns : {-1, 0, 3})
            for (int kind = 0; kind < 3; ++kind) {
                const Frames frames{.count = count, .columns = columns, .rate = 60};
                const Element element =
                    kind == 0   ? Element(Image{.id = "e", .image = "dot", .frames = frames})
                    : kind == 1 ? Element(Pips{.id = "e", .value = 2, .max = 3, .image = "dot", .frames = frames})
                                : Element(Level{.id = "e", .value = 1, .max = 2, .image = "dot", .frames = frames});
                Images images("");
                ASSERT_TRUE(images.add("dot", 8, 8, std::vector<Color>(64, white)));
                Hud hud({}, {}, &Stage::fonts(), &images);
                hud.resize({.size = {300, 200}});
                hud.add(element);
                update(hud, 16ms);
                update(hud, 1s);
                DisplayList list;
                hud.draw(list);
                EXPECT_EQ(hud.problems().empty(), count >= 1 && count <= 8 && columns >= 0)
                    << kind << " " << count << " " << columns;
            }
}

TEST(Probes, are_refused_where_the_game_has_an_element_of_that_name) {
    for (const Element& own : {Element(Text{.id = "probes", .format = "x"}), Element(Panel{.id = "probes"})}) {
        Hud hud;
        hud.add(own);
        show_probes(hud);
        for (int i = 0; i < 100; ++i)
            update(hud, 16ms);
        ASSERT_FALSE(hud.problems().empty());
        EXPECT_NE(to_string(hud.problems().front()).find("'probes' of its own"), std::string::npos);
    }
}

TEST(Renderers, draw_what_was_measured_with_other_fonts_and_images) {
    Fonts rich, poor;
    Images many(""), none("");
    for (int i = 0; i < 5; ++i)
        ASSERT_TRUE(many.add("i" + std::to_string(i), 16 + i, 16,
                             std::vector<Color>(static_cast<std::size_t>(16 + i) * 16, white)));
    ASSERT_TRUE(none.add("small", 1, 1, std::vector<Color>(1, white)));
    Hud hud({}, {}, &rich, &many);
    hud.resize({.size = {640, 480}});
    for (int i = 0; i < 5; ++i) {
        hud.add(Text{
            .id = "t" + std::to_string(i),
            .format = "Water 640",
            .place = {.offset = {0, 30.0F * static_cast<float>(i)}},
            .font = std::array{"Inter", "serif", "monospace", "Caladea", "sans-serif"}[static_cast<std::size_t>(i)]});
        hud.add(Image{.id = "i" + std::to_string(i), .image = "i" + std::to_string(i), .bands = {}});
    }
    hud.add(Level{.id = "level", .value = 1, .max = 2, .image = "i4"});
    update(hud, 16ms);
    DisplayList list;
    hud.draw(list);
    for (Fonts* const fonts : {&rich, &poor})
        for (Images* const images : {&many, &none}) {
            Picture picture(640, 480, *fonts, images);
            picture.draw(list);
            MeshAtlas atlas(*fonts, images);
            Mesh mesh(atlas);
            mesh.draw(list);
            std::vector<Glyph> glyphs;
            EXPECT_EQ(fonts->shape(12345, 20, "x", glyphs), 0);
            EXPECT_TRUE(glyphs.empty());
            EXPECT_EQ(fonts->metrics(12345).ascent, FontMetrics{}.ascent);
            EXPECT_EQ(fonts->face(12345), nullptr);
            EXPECT_EQ(images->size(12345), Size{});
            EXPECT_TRUE(images->pixels(12345).empty());
        }
    auto atlas = std::make_unique<MeshAtlas>(rich, &many);
    Mesh mesh(*atlas);
    mesh.draw(list);
    EXPECT_FALSE(mesh.vertices().empty());
    atlas.reset();
    mesh.draw(list);
    EXPECT_TRUE(mesh.vertices().empty());
    ASSERT_FALSE(mesh.status());
    EXPECT_NE(mesh.status().problem().message.find("atlas"), std::string::npos);
}

TEST(Images, know_nothing_of_a_part_that_is_no_number) {
    Images images("");
    const ImageId image = *images.add("half", 4, 2, std::vector<Color>(8, rgb(0xffffff, 0.5)));
    EXPECT_EQ(images.opacity(image, {0, 0, 4, 2}, true).size(), 4U);
    constexpr float nan = std::numeric_limits<float>::quiet_NaN(), inf = std::numeric_limits<float>::infinity();
    for (const Rect& part :
         {Rect{nan, 0, 4, 2}, Rect{0, 0, nan, 2}, Rect{-5, -5, 3, 3}, Rect{100, 100, 4, 4}, Rect{0, 0, -4, -2}})
        EXPECT_LE(images.opacity(image, part, true).size(), 4U);
    EXPECT_EQ(images.opacity(image, {0, 0, inf, inf}, true).size(), 4U) << "all that there is";
    EXPECT_TRUE(images.opacity(99, {0, 0, 4, 2}, false).empty());
}

TEST(Camera, gives_a_place_and_a_way_for_any_numbers) {
    const std::array<double, 8> numbers{0, 1e-300, 1, 1e30, 1e150, 1e300, 1e308, -1e308};
    for (const double scale : numbers)
        for (const double x : numbers)
            for (const double y : numbers) {
                std::array<double, 16> matrix{};
                matrix[0] = matrix[5] = scale;
                matrix[15] = 1;
                const Projected at = Camera::from_matrix(matrix, false).project({x, y, 0}, {1280, 720});
                EXPECT_TRUE(std::isfinite(at.at.x) && std::isfinite(at.at.y)) << scale << " " << x << " " << y;
                EXPECT_NEAR(std::hypot(at.towards.x, at.towards.y), 1, 1e-5) << scale << " " << x << " " << y;
            }
    // The way is that of long double, where the numbers have room in it.
    std::array<double, 16> matrix{};
    matrix[0] = matrix[5] = 1;
    matrix[15] = 1;
    const Point way = Camera::from_matrix(matrix, false).project({3e200, -4e200, 0}, {2, 2}).towards;
    EXPECT_NEAR(way.x, 0.6, 1e-6);
    EXPECT_NEAR(way.y, 0.8, 1e-6);
}

TEST(Timers, are_not_restored_to_where_they_can_never_be) {
    HudDefinition definition;
    definition.timers = {{.id = "down", .kind = TimerKind::countdown, .duration = 4s, .loop = true},
                         {.id = "up", .kind = TimerKind::stopwatch, .duration = 10s},
                         {.id = "free", .kind = TimerKind::stopwatch}};
    Hud hud(definition);
    const ElementRef text = hud.add(Text{.id = "t", .value = by_name("down.left"), .format = "{:.1f}"});
    update(hud, 1s);
    const std::vector<TimerState> good = hud.save_timers();
    ASSERT_EQ(good.size(), 3U);
    EXPECT_TRUE(hud.restore_timers(good));
    constexpr std::int64_t largest = std::numeric_limits<std::int64_t>::max();
    using Run = TimerState::Run;
    const std::vector<TimerState> bad{
        {.id = "down", .position = Nanoseconds{largest}, .duration = 4s},
        {.id = "down", .position = Nanoseconds{-1}, .duration = 4s},
        {.id = "down", .position = 1s, .duration = Nanoseconds{-4}},
        {.id = "down", .position = 1s, .duration = Nanoseconds{largest}},
        {.id = "down", .position = 1s, .duration = 4s, .speed = -1},
        {.id = "down", .position = 1s, .duration = 4s, .speed = std::numeric_limits<double>::quiet_NaN()},
        {.id = "down", .position = 1s, .duration = 4s, .run = static_cast<Run>(9)},
        {.id = "down", .position = 1s, .duration = 4s, .run = Run::ended},
        {.id = "up", .position = 11s, .duration = 10s},
        {.id = "up", .position = 9s, .duration = 10s, .run = Run::ended},
        {.id = "free", .position = 9s, .run = Run::ended}};
    for (std::size_t i = 0; i < bad.size(); ++i) {
        EXPECT_FALSE(hud.restore_timers(std::array{bad[i]})) << i;
        EXPECT_EQ(hud.save_timers(), good) << i << ": nothing has changed";
    }
    EXPECT_EQ(hud.text_of(text), "3.0");
    EXPECT_TRUE(
        hud.restore_timers(std::array{TimerState{.id = "up", .position = 10s, .duration = 10s, .run = Run::ended}}));
}

TEST(Timers, take_marks_and_amounts_at_the_ends_of_all_numbers) {
    for (const double at : {-1e308, 1e308, -1.0, 0.0, 5.0, 9.2e9, std::numeric_limits<double>::infinity()})
        for (const double every : {-1e308, 0.0, 1e-9, 1e308})
            for (const TimerKind kind : {TimerKind::countdown, TimerKind::stopwatch}) {
                Hud hud;
                hud.add(Timer{.id = "t", .kind = kind, .duration = 10s, .marks = {{Seconds{at}, Seconds{every}}}});
                hud.add(Bar{
                    .id = "b", .value = by_name("t.left"), .max = by_name("t.duration"), .bands = {{.below = 0.5}}});
                for (const double step : {0.0, 1.0, 8.0, 1e9, 1e300})
                    hud.update({.real = Seconds{step}, .game = Seconds{step}});
                EXPECT_GE(hud.timer("t")->left().count(), 0);
            }
    // What is pending at the ends of 64 bits stays there.
    std::int64_t score = std::numeric_limits<std::int64_t>::min();
    Hud hud;
    hud.add(Text{.id = "score", .value = watch(score), .motion = roll(1s)});
    const ElementRef pending = hud.add(Text{.id = "pending", .value = by_name("score.pending"), .format = "{}"});
    update(hud, 16ms);
    score = std::numeric_limits<std::int64_t>::max();
    update(hud, 16ms);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(pending), std::to_string(std::numeric_limits<std::int64_t>::max()));
    update(hud, 10s);
    EXPECT_EQ(hud.text_of(pending), "0");
}

TEST(FunctionCatalogue, copies_what_is_returned_while_its_argument_lives) {
    // As gettext does: it returns its argument where it knows no other text.
    static char buffer[16] = "Wasser";
    const FunctionCatalogue words(+[](const char* text) -> const char* {
        return std::string_view(text) == "Water" ? buffer : std::string_view(text) == "none" ? nullptr : text;
    });
    EXPECT_EQ(words.find("Water")->forms.back(), "Wasser");
    const std::string untranslated = "a text that is far too long for the short strings of any library";
    EXPECT_EQ(words.find(std::string_view(untranslated).substr(0, 40))->forms.back(), untranslated.substr(0, 40));
    EXPECT_FALSE(words.find("none"));
    const FunctionCatalogue views([](std::string_view text) { return std::string(text) + "!"; });
    const FunctionCatalogue strings([](const std::string& text) -> std::optional<std::string> { return text + "?"; });
    EXPECT_EQ(strings.find("a")->forms.back(), "a?");
    EXPECT_EQ(views.find("Water")->forms.back(), "Water!");
}

TEST(Notices, let_so_many_messages_wait_and_no_more) {
    Hud hud;
    const ElementRef notice = hud.add(Notice{.id = "n"});
    int taken = 0;
    for (int i = 0; i < 20'000; ++i)
        taken += hud.notify(notice, Message{.id = "m" + std::to_string(i), .text = "message", .show_for = 1s}) ? 1 : 0;
    EXPECT_EQ(taken, 257) << "one that is shown, and those that wait";
    // What is more urgent has its place all the same, and is shown first.
    EXPECT_TRUE(hud.notify(notice, Message{.id = "urgent", .text = "now", .priority = 5, .show_for = 1s}));
    update(hud, 100ms);
    update(hud, 1500ms);
    EXPECT_EQ(hud.text_of(notice), "now");
}

// --- Motion, meters, reload

TEST(MovingTrail, drains_also_under_steady_losses) {
    MovingTrail trail(400ms, tween(500ms));
    trail.snap(100);
    double value = 100;
    Nanoseconds now{0};
    double longest = 0;
    for (int i = 0; i < 60; ++i, now += 100ms) {  // a hit every tenth of a second, for six seconds
        value -= 1;
        trail.set_target(value, value, now);
        trail.advance(now);
        longest = std::max(longest, trail.at(now, value) - value);
    }
    EXPECT_LE(longest, 14) << "what was lost in twice the delay and the way of a drain";
    EXPECT_GE(longest, 8) << "and no less than that of the delays";
    // A single loss waits for its delay alone.
    MovingTrail one(400ms, tween(500ms));
    one.snap(100);
    one.set_target(50, 50, 0ns);
    one.advance(399ms);
    EXPECT_EQ(one.at(399ms, 50), 100);
    one.advance(650ms);
    EXPECT_LT(one.at(650ms, 50), 80);
}

TEST(Shown, tells_widgets_of_a_color_that_the_game_sets) {
    double value = 0.5;
    Hud hud;
    const std::array all{hud.add(Bar{.id = "b", .value = watch(value)}), hud.add(Text{.id = "t", .format = "x"}),
                         hud.add(Bar{.id = "c", .value = watch(value), .bands = {{.below = 0.2, .color = white}}})};
    update(hud, 16ms);
    update(hud, 16ms);
    for (const ElementRef ref : all) {
        EXPECT_FALSE(hud[ref].changed);
        hud.set_color(ref, rgb(0x112233));
        update(hud, 16ms);
        EXPECT_TRUE(hud[ref].changed) << hud[ref].id;
        EXPECT_EQ(hud[ref].color, rgb(0x112233));
        update(hud, 16ms);
        EXPECT_FALSE(hud[ref].changed) << hud[ref].id;
    }
}

TEST(FrameMeters, take_another_interval_while_they_run) {
    HudDefinition definition;
    definition.frame_meters = {{.id = "fps", .interval = 500ms}};
    Hud hud(definition);
    const ElementRef text = hud.add(Text{.id = "t", .value = by_name("fps.rate"), .format = "{:.0f}"});
    for (int i = 0; i < 60; ++i)
        update(hud, Seconds{1.0 / 60});
    EXPECT_EQ(hud.text_of(text), "60");
    EXPECT_TRUE(hud.set_interval("fps", 100ms));
    EXPECT_EQ(hud.text_of(text), "60") << "what was measured stays";
    for (int i = 0; i < 4; ++i)
        update(hud, 50ms);
    EXPECT_EQ(hud.text_of(text), "20");
    definition.frame_meters[0].interval = 2s;
    EXPECT_TRUE(hud.reload(definition).empty());
    EXPECT_EQ(hud.text_of(text), "20") << "a reload goes on, too";
    EXPECT_FALSE(hud.set_interval("fsp", 1s));
    EXPECT_NE(to_string(hud.problems().back()).find("did you mean 'fps'"), std::string::npos);
}

TEST(Reload, of_a_name_that_nobody_offers_yet_is_made_and_warns) {
    Hud hud;
    HudDefinition definition;
    definition.elements = {Text{.id = "a", .value = by_name("nobody"), .placeholder = "none"}};
    const Problems found = hud.reload(definition);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].code, ProblemCode::unknown_source);
    EXPECT_EQ(found[0].severity, Severity::warning) << "an error says that nothing has changed";
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("a")), "none");
}

// --- Lists

TEST(List, shows_who_comes_back_while_it_leaves_in_the_same_panel) {
    struct Pilot {
        std::string name;
        int score = 0;
    };
    std::vector<Pilot> pilots{{"Ana", 1}, {"Bo", 2}, {"Cy", 3}};
    BoxMeasurer measurer;
    HudDefinition definition;
    definition.effects = {{.id = "slowly", .duration = 1s, .keyframes = {{.at = 0, .opacity = 0.0F}}}};
    Hud hud(definition, {}, &measurer);
    hud.add(list_of(
        List{.id = "l",
             .entries = watch_entries(pilots, entry_field("name", &Pilot::name), entry_field("score", &Pilot::score)),
             .key = "name",
             .sort = "score",
             .at_most = 2},
        [](const auto& entry) {
            return nest(Panel{.plate = false, .enter = "slowly", .leave = "slowly"},
                        Text{.id = "t", .value = entry("name")}, Text{.id = "s", .value = entry("score")});
        }));
    const auto of = [&](const std::string& who) {
        std::vector<std::string> panels;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].visible && hud[ref].id.ends_with(".t") && hud[ref].text == who)
                panels.emplace_back(hud[ref].id);
        return panels;
    };
    Random random(8);
    for (int i = 0; i < 400; ++i) {
        update(hud, 50ms);
        for (const Pilot& pilot : pilots)
            EXPECT_LE(of(pilot.name).size(), 1U) << "frame " << i << ": " << pilot.name << " is there twice";
        // Who leaves the two best comes back within the second that leaving takes.
        if (i % 5 == 0) pilots[static_cast<std::size_t>(random.below(3))].score = random.below(100);
    }
    // What it reads is followed while it leaves.
    pilots = {{"Ana", 90}, {"Bo", 80}, {"Cy", 3}};
    for (int i = 0; i < 60; ++i)
        update(hud, 50ms);
    const std::string panel = of("Bo").at(0);
    pilots[2].score = 95;
    update(hud, 50ms);
    update(hud, 50ms);
    pilots[1].score = 42;
    update(hud, 50ms);
    ASSERT_EQ(of("Bo"), std::vector<std::string>{panel}) << "it is still leaving";
    EXPECT_EQ(hud.text_of(hud.find(panel.substr(0, panel.size() - 1) + "s")), "42");
}

// --- Texts and numbers

TEST(Translations, take_the_sources_of_a_text_by_their_names) {
    const auto words = read_translations("\"{hp} of {}\" = \"{} davon {hp:>3} {{frei}}\"\n", "de.toml");
    ASSERT_TRUE(words) << to_string(words.problems().front());
    int hp = 7, all = 9;
    Hud hud;
    const ElementRef text =
        hud.add(Text{.id = "t", .value = watch(all), .values = {{"hp", watch(hp)}}, .format = "{hp} of {}"});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "7 of 9");
    hud.set_language({.tag = "de", .translations = *words});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "9 davon   7 {frei}");
    EXPECT_TRUE(hud.problems().empty());
    EXPECT_FALSE(read_translations("a = \"{hp:\"\n", "de.toml")) << "what is no pattern in any text";
}

TEST(Pictures, that_are_missing_are_told_wherever_they_come_from) {
    Fonts& fonts = Stage::fonts();
    Images images;
    int coins = 3;
    Hud hud(HudDefinition{}, {}, &fonts, &images);
    const ElementRef text = hud.add(Text{.id = "coins", .value = watch(coins), .format = "{} coins"});
    const auto expect_told = [&](std::size_t count, const std::string& of) {
        update(hud, 16ms);
        ASSERT_EQ(hud.problems().size(), count);
        EXPECT_EQ(to_string(hud.problems().back()),
                  "warning: 'format' of text 'coins': '" + of + ".png' is not there: there is no folder of images");
    };
    EXPECT_TRUE(hud.set_format(text, "{} {#coin/}"));
    expect_told(1, "coin");
    EXPECT_TRUE(hud.set_format(text, "{} coins"));
    Language german{.tag = "de"};
    german.translations["{} coins"].forms.back() = "{} {#penny/}";
    hud.set_language(german);
    expect_told(2, "penny");
}

TEST(Lines, of_thai_hold_as_many_words_as_have_room) {
    Fonts& fonts = Stage::fonts();
    std::vector<LineEnd> ends;
    for (const std::string& text :
         {std::string("สวัสดีชาวโลก ยินดีต้อนรับ"), std::string("ສະບາຍດີຊາວໂລກ"), std::string("សួស្តីពិភពលោក")}) {
        ends.clear();
        fonts.find_line_ends(text, ends);
        EXPECT_GT(ends.size(), 1U) << text;
        for (const LineEnd& end : ends)
            EXPECT_FALSE(end.must) << text << " at " << end.at;
    }
    ends.clear();
    fonts.find_line_ends("one\ntwo", ends);
    ASSERT_EQ(ends.size(), 2U);
    EXPECT_TRUE(ends[0].must);
}

}  // namespace lives_test
}  // namespace rapido::test
