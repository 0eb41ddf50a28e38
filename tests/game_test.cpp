// What takes a HUD into a game: its file followed, its log, calls by name, passes, cameras, and the containers of older games.
#include "rapido/game_hud.hpp"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <thread>

#include "draw_words.hpp"
#include "pixels.hpp"
#include "rapido/locale.hpp"
#include "rapido/sdl.hpp"
#include "tool_support.hpp"

namespace rapido::test {
namespace game_test {

TEST(GameHud, follows_its_file_with_fonts_and_images_and_writes_each_problem_once) {
    const TemporaryFolder folder;
    const auto write = [&](const std::string& text) { std::ofstream(folder.path("hud.toml")) << text; };
    write("[[element]]\nkind = 'text'\nid = 'a'\nformat = '{'\n");
    int score = 7;
    Sources sources;
    sources.set("score", watch(score));
    GameHud hud(folder.path("hud.toml"), sources);
    std::vector<std::string> written;
    hud.set_log([&](const Problem& problem) { written.push_back(problem.message); });
    EXPECT_TRUE(written.empty());
    const auto frames = [&] {
        for (int i = 0; i < 4; ++i) {
            std::this_thread::sleep_for(55ms);
            hud.frame({.size = {640, 360}}, {.real = 16ms, .game = 16ms});
        }
    };
    frames();
    ASSERT_EQ(written.size(), 1U);
    EXPECT_NE(written[0].find("format \"{\""), std::string::npos) << written[0];
    EXPECT_TRUE(hud->elements().empty()) << "a faulty file gives an empty HUD";

    std::filesystem::copy(std::string(RAPIDO_SOURCE_DIR) + "/demo/ember_ridge/rank_1.png", folder.path("icon.png"));
    std::filesystem::copy_file("/usr/share/fonts/truetype/dotgothic16/DotGothic16-Regular.ttf", folder.path("own.ttf"));
    written.clear();
    write(
        "font_files = ['own.ttf', 'lost.ttf']\n[[element]]\nkind = 'text'\nid = 'a'\nvalue = 'score'\n"
        "[[element]]\nkind = 'image'\nid = 'i'\nimage = 'icon.png'\n[[element]]\nkind = 'text'\nid = 'lost'\nvalue = "
        "'nowhere'\n");
    frames();
    EXPECT_EQ(hud->text_of(hud->find("a")), "7");
    EXPECT_GT((*hud.operator->())[hud->find("i")].box.width, 0) << "the images are those of its folder";
    EXPECT_EQ(written, (std::vector<std::string>{"cannot be read: No such file or directory",
                                                 "'value' of text 'lost': unknown source 'nowhere'"}))
        << "the fonts are taken on a reload, too";
    DisplayList own;
    hud.hud().draw(own);
    EXPECT_EQ(words_of(hud.list()), words_of(own));

    written.clear();
    write("[[element]]\nkind = 'txt'\nid = 'a'\n");
    frames();
    EXPECT_EQ(written.size(), 1U);
    EXPECT_EQ(hud->text_of(hud->find("a")), "7") << "it stays as it was";
    hud.tell({{}, "no texture", "", ProblemCode::other});
    hud.tell({{}, "no texture", "", ProblemCode::other});
    EXPECT_EQ(written.size(), 2U) << "a drawer says the same in each frame";

    std::filesystem::remove(folder.path("hud.toml"));
    GameHud shipped(folder.path("hud.toml"), {}, false);
    shipped.set_log(nullptr);
    shipped.frame({.size = {640, 360}});
    write("[[element]]\nkind = 'text'\nid = 'a'\nformat = 'x'\n");
    std::this_thread::sleep_for(120ms);
    shipped.frame({.size = {640, 360}});
    EXPECT_TRUE(shipped->elements().empty()) << "it does not follow its file";
    EXPECT_GT(shipped->now(), Nanoseconds{100ms}) << "its own clock";
}

TEST(GameHud, is_drawn_by_one_call_a_frame_and_in_passes) {
    const TemporaryFolder folder;
    const std::string path = folder.write("hud.toml",
                                          "[[element]]\nkind = 'panel'\nid = 'low'\nlayer = -1\ncolor = '#ff7a3c'\n"
                                          "place = { anchor = 'top_left', size = [400, 400] }\n"
                                          "[[element]]\nkind = 'panel'\nid = 'high'\ncolor = '#38b6c9'\n"
                                          "place = { anchor = 'top_left', offset = [400, 0], size = [400, 400] }\n");
    SDL_Surface* const surface = SDL_CreateRGBSurfaceWithFormat(0, 120, 60, 32, SDL_PIXELFORMAT_RGBA32);
    SDL_Renderer* const renderer = SDL_CreateSoftwareRenderer(surface);
    ASSERT_NE(renderer, nullptr) << SDL_GetError();
    {
        GameHud hud(path);
        Problems told;
        hud.set_log([&](const Problem& problem) { told.push_back(problem); });
        SdlDrawer drawer(renderer, hud);
        const auto clear = [&] {
            SDL_SetRenderDrawColor(renderer, 0, 0, 0, 255);
            SDL_RenderClear(renderer);
        };
        const auto lit = [&] {
            SDL_RenderFlush(renderer);
            int count = 0;
            for (int y = 0; y < 60; ++y)
                for (int x = 0; x < 120; ++x) {
                    const auto* const pixel =
                        static_cast<const std::uint8_t*>(surface->pixels) + y * surface->pitch + x * 4;
                    count += pixel[0] + pixel[1] + pixel[2] > 60 ? 1 : 0;
                }
            return count;
        };
        clear();
        drawer.frame(hud, {.real = 16ms, .game = 16ms});
        drawer.frame(hud);
        EXPECT_EQ(hud.list().viewport()->size.width, 120) << "fitted into the output";
        const int both = lit();
        clear();
        EXPECT_TRUE(drawer.draw(hud.below(-1)));
        const int below = lit();
        EXPECT_GT(below, 0);
        EXPECT_LT(below, both);
        EXPECT_TRUE(drawer.draw(hud.above(0)));
        EXPECT_EQ(lit(), both) << "both passes are all of it";
        EXPECT_EQ(told, Problems{});
    }
    SDL_DestroyRenderer(renderer);
    SDL_FreeSurface(surface);
}

TEST(Hud, writes_each_problem_once_by_the_log_of_the_game) {
    Hud hud;
    hud.add(Text{.id = "a", .value = "nobody"});
    std::vector<std::string> written;
    hud.set_log([&](const Problem& problem) { written.push_back(problem.message); });
    EXPECT_EQ(written.size(), 1U) << "what came before";
    for (int i = 0; i < 3; ++i)
        update(hud, 16ms);
    EXPECT_EQ(written.size(), 1U);
    hud.play("b", "pulse");
    EXPECT_EQ(written.size(), 1U) << "at the end of the update";
    update(hud, 16ms);
    update(hud, 16ms);
    EXPECT_EQ(written, (std::vector<std::string>{"'value' of text 'a': unknown source 'nobody'", "no element 'b'"}));
    EXPECT_TRUE(hud.new_problems().empty());
    hud.set_log(nullptr);
    hud.play("c", "pulse");
    update(hud, 16ms);
    EXPECT_EQ(written.size(), 2U);
    EXPECT_EQ(hud.new_problems().size(), 1U);
}

TEST(Hud, takes_calls_by_name) {
    int score = 3;
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {1280, 720}});
    hud.add(Panel{.id = "p"});
    hud.add(Text{.id = "score", .value = watch(score), .inside = "p"});
    const ElementRef log = hud.add(Notice{.id = "log", .messages = {{.id = "saved", .text = "SAVED"}}});
    const ElementRef points = hud.add(PopUps{.id = "points"});
    const ElementRef things =
        hud.add(markers_of({.id = "things", .parameters = {"hp"}, .at_most = 2}, [](const auto&) { return Panel{}; }));
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 16ms);
    EXPECT_TRUE(hud.play("score", "swell"));
    EXPECT_TRUE(hud.notify("log", "saved"));
    EXPECT_TRUE(hud.pop_up("points", {.on_screen = Point{100, 100}, .value = 5}));
    EXPECT_TRUE(hud.set_color("score", rgb(0xff0000)));
    EXPECT_TRUE(hud.set_format("p.score", "<{}>"));
    WorldPoint at{1, 2, 3};
    EXPECT_TRUE(hud.alive(hud.add_marker("things", watch_position(at), {watch(score)})));
    update(hud, 16ms);
    update(hud, 100ms);
    EXPECT_EQ(hud.text_of(hud.find("score")), "<3>");
    EXPECT_EQ(hud[hud.find("score")].color, rgb(0xff0000));
    EXPECT_EQ(hud.text_of(log), "SAVED");
    EXPECT_NE(hud[hud.find("score")].scale, 1) << "it swells";
    EXPECT_TRUE(hud.dismiss("log", "saved"));
    EXPECT_TRUE(hud.notify("log", {.text = "{}", .value = 4}));
    EXPECT_TRUE(hud.problems().empty());
    EXPECT_FALSE(hud.notify("lgo", "saved"));
    ASSERT_EQ(hud.problems().size(), 1U);
    EXPECT_NE(hud.problems()[0].hint.find("'log'"), std::string::npos) << hud.problems()[0].hint;
    (void)points, (void)things;
}

TEST(Hud, draws_its_layers_in_passes) {
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {1280, 720}});
    int values[6] = {1, 2, 3, 4, 5, 6};
    // A panel takes along what stands inside, whatever its layer there.
    hud.add(Panel{.id = "low", .layer = -2});
    hud.add(Text{.id = "in_low", .value = watch(values[0]), .inside = "low", .layer = 7});
    hud.add(Text{.id = "middle", .value = watch(values[1])});
    hud.add(Panel{.id = "high", .layer = 3});
    hud.add(Text{.id = "in_high", .value = watch(values[2]), .inside = "high", .layer = -5});
    hud.add(Text{.id = "under", .value = watch(values[3]), .layer = -1});
    DisplayList whole, below, above, none;
    const auto texts = [](const DisplayList& list) {
        std::string all;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items())
                if (item.kind == DisplayItem::Kind::text) all += std::string(group.text_of(item));
        return all;
    };
    for (int frame = 0; frame < 4; ++frame) {
        update(hud, 16ms);
        hud.draw(whole);
        hud.draw(below, {.to = -1});
        hud.draw(above, {.from = 0});
        hud.draw(none, {.from = 4});
        EXPECT_EQ(texts(below) + texts(above), texts(whole)) << frame;
        EXPECT_EQ(texts(below).size(), 2U);
        EXPECT_EQ(texts(none), "");
        for (int& value : values)
            value = (value + 1) % 10;
        if (frame == 1)
            hud.remove(hud.find("under")), hud.add(Text{.id = "new", .value = watch(values[4]), .layer = -3});
    }
    // The same list for another pass.
    hud.draw(below, {.from = 0});
    EXPECT_EQ(texts(below), texts(above));
}

TEST(Camera, is_a_projection_after_a_view) {
    Random random(61);
    const auto number = [&] { return static_cast<float>(random.between(-3, 3)); };
    for (int i = 0; i < 300; ++i) {
        std::array<float, 16> projection{}, view{};
        for (std::size_t k = 0; k < 16; ++k)
            projection[k] = number(), view[k] = number();
        const std::array<double, 4> point{random.between(-9, 9), random.between(-9, 9), random.between(-9, 9), 1};
        const auto through = [](const std::array<float, 16>& matrix, const std::array<double, 4>& of) {
            std::array<double, 4> made{};
            for (std::size_t row = 0; row < 4; ++row)
                for (std::size_t column = 0; column < 4; ++column)
                    made[row] += static_cast<double>(matrix[column * 4 + row]) * of[column];
            return made;
        };
        const std::array<double, 4> clip = through(projection, through(view, point));
        const Projected seen = Camera(projection, view).project({point[0], point[1], point[2]}, {200, 100});
        ASSERT_EQ(seen.in_front, clip[3] > 0);
        ASSERT_NEAR(seen.distance, clip[3], 1e-9);
        if (!seen.in_front || std::abs(clip[0] / clip[3]) > 100 || std::abs(clip[1] / clip[3]) > 100) continue;
        ASSERT_NEAR(static_cast<double>(seen.at.x), 100 + clip[0] / clip[3] * 100, 1e-2);
        ASSERT_NEAR(static_cast<double>(seen.at.y), 50 - clip[1] / clip[3] * 50, 1e-2);
    }
}

TEST(Camera, of_a_world_of_tiles_sees_diamonds) {
    const Camera camera = Camera::isometric({.center = {10, 4, 1}, .tile = {128, 64}, .step_up = 40, .zoom = 0.5});
    struct Row {
        WorldPoint point;
        Point at;
    };
    for (const auto& [point, at] : std::vector<Row>{{{10, 4, 1}, {400, 300}},    // the middle
                                                    {{11, 4, 1}, {432, 316}},    // down to the right
                                                    {{10, 5, 1}, {368, 316}},    // down to the left
                                                    {{11, 5, 1}, {400, 332}},    // straight down
                                                    {{10, 4, 2}, {400, 280}},    // up
                                                    {{8, 1, 0}, {432, 240}}}) {  // -2, -3 and a step down
        const Projected seen = camera.project(point, {800, 600});
        EXPECT_TRUE(seen.in_front);
        EXPECT_NEAR(seen.at.x, at.x, 1e-4);
        EXPECT_NEAR(seen.at.y, at.y, 1e-4);
    }
}

TEST(WatchEach, goes_through_a_linked_list_by_the_addresses_of_its_things) {
    struct Enemy {
        int health = 0;
        Enemy* next = nullptr;
    };
    Enemy third{30}, second{20, &third}, first{10, &second};
    Enemy* begin = &first;
    Hud hud;
    const auto row = [](const auto& entry) { return nest(Panel{}, Text{.id = "hp", .value = entry("health")}); };
    hud.add(list_of({.id = "l",
                     .entries = watch_each<Enemy>(
                         [&begin](const auto& see) {
                             for (const Enemy* enemy = begin; enemy != nullptr; enemy = enemy->next)
                                 see(*enemy);
                         },
                         entry_address("id"), entry_field("health", &Enemy::health)),
                     .key = "id",
                     .at_most = 4},
                    row));
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    const auto shown = [&] {
        update(hud, 16ms);
        std::vector<std::string> all;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].visible && hud[ref].kind == "text") all.emplace_back(hud[ref].text);
        std::sort(all.begin(), all.end());
        return all;
    };
    EXPECT_EQ(shown(), (std::vector<std::string>{"10", "20", "30"}));
    const auto of = [&](std::string_view text) {
        for (const ElementRef ref : hud.elements())
            if (hud[ref].visible && hud[ref].text == text) return ref;
        return ElementRef();
    };
    const ElementRef last = of("30");
    // The second is taken out: the third keeps its element, as its address is its key.
    first.next = &third;
    third.health = 31;
    EXPECT_EQ(shown(), (std::vector<std::string>{"10", "31"}));
    EXPECT_EQ(hud.text_of(last), "31");
    begin = nullptr;
    EXPECT_EQ(shown(), std::vector<std::string>{});
}

TEST(Markers, stand_so_far_from_their_things_in_the_world) {
    struct Thing {
        double x = 0, y = 0, z = 0;
    };
    std::vector<Thing> things{{100, 50, 0}};
    const Result<HudDefinition> read = read_hud(
        "[component.mark]\nplate = false\n[[component.mark.element]]\nkind = 'panel'\nid = 'p'\nplace = { size = [20, "
        "10] }\n"
        "[[element]]\nkind = 'markers'\nid = 'm'\nentries = 'things'\ncomponent = 'mark'\nworld_offset = [10, -30, "
        "2.5]\n",
        "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    EXPECT_NE(written->find("world_offset = [10, -30, 2.5]"), std::string::npos) << *written;
    EXPECT_FALSE(read_hud("[[element]]\nkind = 'markers'\nid = 'm'\nworld_offset = [1, 2]\n", "hud.toml"));
    Sources sources;
    sources.set("things", watch_entries(things, entry_position([](const Thing& thing) { return thing; })));
    BoxMeasurer measurer;
    Hud hud(*read, sources, &measurer);
    hud.resize({.size = {1280, 720}});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    for (const double zoom : {1.0, 2.0}) {
        hud.set_camera(Camera::flat({.zoom = zoom}));
        update(hud, 16ms);
        update(hud, 16ms);
        const Rect seen = hud[hud.find("m.1")].drawn_box;
        // The middle of the lower edge lies there.
        EXPECT_NEAR(static_cast<double>(seen.x + seen.width / 2), 640 + zoom * 110, 0.51);
        EXPECT_NEAR(static_cast<double>(seen.bottom()), 360 + zoom * 20, 0.51);
    }
}

TEST(Language, is_set_by_its_tag_with_its_words) {
    double acres = 1240.5;
    Hud hud;
    const ElementRef text = hud.add(Text{.id = "t", .value = watch(acres), .format = "{:.1Lf} acres"});
    const FunctionCatalogue words([](const std::string& key) -> std::optional<std::string> {
        return key == "{:.1Lf} acres" ? std::optional<std::string>("{:.1Lf} Acres gerettet") : std::nullopt;
    });
    EXPECT_TRUE(set_language(hud, "de", &words));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "1.240,5 Acres gerettet");
    EXPECT_TRUE(set_language(hud, "pl", {{"{:.1Lf} acres", Translation::of("akry: {:.1Lf}")}}));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "akry: 1240,5");
    const Status wrong = set_language(hud, "no such tag");
    ASSERT_FALSE(wrong);
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(text), "akry: 1240,5") << "nothing has changed";
}

TEST(FrameClock, begins_at_zero_and_goes_on) {
    FrameClock clock;
    EXPECT_EQ(clock.step(), Seconds{0});
    std::this_thread::sleep_for(20ms);
    EXPECT_GE(clock.step(), 20ms);
    EXPECT_GE(clock.step(), Seconds{0});
}

}  // namespace game_test
}  // namespace rapido::test
