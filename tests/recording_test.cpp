// Recordings: what is played again is what was seen, to the bit.
#include <functional>
#include <sstream>

#include "draw_words.hpp"
#include "file/recording_lines.hpp"
#include "pixels.hpp"
#include "rapido/debug.hpp"
#include "rapido/file.hpp"
#include "rapido/recording.hpp"
#include "rapido/value/expression.hpp"

namespace rapido::test {
namespace recording_test {

std::string happened(const Hud& hud) {
    std::string all;
    for (const Event& event : hud.events())
        all += std::to_string(event.time.count()) + " " + event.id + " " + std::string(to_string(event.kind)) + " " +
               event.detail + "; ";
    return all;
}

/// The first line that differs; empty where none does.
std::string difference(const std::string& a, const std::string& b) {
    std::istringstream first(a), second(b);
    std::string one, other;
    while (one == other) {
        const bool has_one = static_cast<bool>(std::getline(first, one));
        const bool has_other = static_cast<bool>(std::getline(second, other));
        if (!has_one && !has_other) return {};
        if (has_one != has_other) return "one is longer";
    }
    return one + "\nand\n" + other;
}

struct Pilot {
    std::string name;
    int score = 0;
    WorldPoint at;
};

/// A game with something of everything, which does random things to its HUD.
struct Game {
    Random random;
    BoxMeasurer measurer;
    Images images;
    int acres = 3;
    std::int64_t budget = 900;
    float speed = 80.5F;
    double water = 640, tank = 900;
    bool alert = false;
    std::optional<double> heat;
    std::string village = "Pine Hollow";
    Seconds eta{42.5};
    Live<double> fuel{500};
    std::vector<Pilot> pilots{{"Ana", 3, {1, 2, 0}}, {"Bo", 9, {-40, 30, 0}}};
    WorldPoint fire{20, 10, 0};
    double fire_heat = 0.5;
    Countdown mission{30s};
    Sources sources;
    std::optional<Hud> hud;
    std::vector<MarkerRef> markers;
    std::vector<std::unique_ptr<int>> extra;  ///< what elements are bound to that come and go
    std::vector<ElementRef> extras;
    int added = 0;

    explicit Game(std::uint64_t seed) : random(seed) {
        EXPECT_TRUE(images.add("coin.png", 2, 2, std::vector<Color>(4, rgb(0xffc24a))));
        sources.set("plane.water", watch(water));
        sources.set("plane.speed", watch(speed));
        sources.set("plane.fuel", watch(fuel));
        sources.set("alert", watch(alert));
        sources.set("village", watch(village));
        sources.set("pilots", watch_entries(pilots, entry_field("name", &Pilot::name),
                                            entry_field("score", &Pilot::score), entry_position(&Pilot::at)));
        sources.set("mission", mission);
        mission.set_marks(std::array{Mark{.at = 5s, .every = 1s}});
        mission.start();
    }

    HudDefinition definition() const {
        HudDefinition made;
        made.timers = {{.id = "evacuation",
                        .duration = 6s,
                        .start_when = "alert",
                        .speed = constant(1.5F),
                        .loop = true,
                        .marks = {{.at = 3s}}}};
        made.frame_meters = {{.id = "fps"}};
        made.groups = {{.id = "flying", .dimmed = watch(alert)}};
        made.effects = {{.id = "hop", .duration = 300ms, .keyframes = {{.at = 0.4, .offset = Point{3, -9}}}}};
        made.themes = {{.id = "dusk", .color = {{"dim", rgb(0x808080)}}},
                       {.id = "snow", .color = {{"dim", rgb(0x202020)}}}};
        made.styles = {{.id = "strong", .color = Themed<Color>(theme("dim"))}};
        const Easing bent = Easing::cubic_bezier(0.3, 0.1, 0.2, 1);
        made.elements = {
            Text{.id = "acres", .value = watch(acres), .format = "{} {#strong}acres{/strong}", .motion = roll(600ms)},
            Text{.id = "budget",
                 .value = watch(budget),
                 .max = constant(std::uint64_t{2000}),
                 .format = "{}/{max}",
                 .pace = {.settle = 80ms},
                 .motion = tween(700ms, bent)},
            Bar{.id = "water",
                .value = "plane.water",
                .max = watch(tank),
                .motion = spring(400ms),
                .trail = {.delay = 300ms},
                .bands = {{.below = 0.25, .edge_unit = EdgeUnit::ratio, .color = rgb(0xffc24a), .effect = "pulse"}}},
            Dial{.id = "speed", .value = by_name("plane.speed") * 3.6 + 1, .motion = tween(200ms)},
            Text{.id = "heat", .value = watch(heat), .format = "{:.1f}", .motion = tween(300ms)},
            Text{.id = "eta", .value = watch(eta).as_time_left(), .format = "{:%M:%S}"},
            Text{.id = "left",
                 .value = "evacuation.left",
                 .format = "{:%M:%S}",
                 .bands = {{.below = 3, .color = rgb(0xff0000)}}},
            Text{.id = "game_left", .value = "mission.left", .format = "{:.2f}"},
            Text{.id = "village", .value = "village", .visible = "!alert", .enter = "fade"},
            Text{.id = "rich",
                 .value = watch(budget) - watch(acres),
                 .bands = {{.when = watch(budget) > watch(acres) && since(watch(alert)) > 1s, .effect = "pulse"}},
                 .visible = watch(alert) || watch(heat) / 2 < 20},
            Pips{.id = "fuel", .value = by_name("plane.fuel") * 0.01, .max = 6, .gain = "swell"},
            Graph{.id = "rate", .value = "fps.rate"},
            Panel{.id = "row", .layout = Layout::row, .group = "flying"},
            Notice{.id = "news",
                   .messages = {{.id = "low", .text = "low on {}", .value = watch(village), .when = watch(alert)}}},
            Notice{.id = "log", .messages = {{.id = "hi", .text = "hi"}}, .at_most = 3},
            PopUps{.id = "hits"},
            Text{.id = "late", .value = "late.name", .motion = tween(400ms)},
        };
        const auto put = [&](const std::vector<Element>& all) {
            made.elements.insert(made.elements.end(), all.begin(), all.end());
        };
        put(list_of({.id = "board", .entries = "pilots", .key = "name", .sort = "score"}, [](const auto& entry) {
            return nest(Panel{.layout = Layout::row}, Text{.id = "name", .value = entry("name")},
                        Text{.id = "score", .value = entry("score"), .motion = tween(500ms)});
        }));
        put(markers_of({.id = "pilots",
                        .entries = watch_entries(pilots, entry_field("name", &Pilot::name), entry_position(&Pilot::at)),
                        .at_most = 4},
                       [](const auto& entry) { return nest(Panel{}, Text{.id = "name", .value = entry("name")}); }));
        put(markers_of({.id = "fires", .parameters = {"heat"}, .at_most = 3, .at_edge = AtEdge::arrow},
                       [](const auto& entry) { return nest(Panel{}, Bar{.id = "heat", .value = entry("heat")}); }));
        return made;
    }

    Seconds step() {
        const int kind = random.below(20);
        return kind == 0 ? Seconds{0} : kind == 1 ? Seconds{1.3} : Seconds{random.between(0.004, 0.03)};
    }

    void change_values() {
        acres += random.below(3);
        budget = random.below(5) == 0 ? random.below(2000) : budget;
        speed += static_cast<float>(random.between(-1, 1.3));
        water = random.below(15) == 0 ? random.between(0, 900) : water * 0.997;
        if (random.below(40) == 0) tank = random.between(800, 1000);
        if (random.below(30) == 0) alert = !alert;
        if (random.below(8) == 0) heat = random.below(3) == 0 ? std::nullopt : std::optional(random.between(0, 90));
        if (random.below(50) == 0) village = random.below(2) == 0 ? "Ash \"Creek\"\n" : "Zoë";
        eta -= Seconds{0.02};
        if (random.below(6) == 0) fuel.set(random.between(0, 600));
        if (random.below(25) == 0) fuel.snap(random.between(0, 600));
        if (random.below(20) == 0) pilots[0].score += 10;
        if (random.below(60) == 0) pilots.push_back({"P" + std::to_string(pilots.size()), random.below(50), {5, 5, 0}});
        if (random.below(80) == 0 && pilots.size() > 1) pilots.pop_back();
        for (Pilot& pilot : pilots)
            pilot.at.x += random.between(-3, 3);
        fire.x += 1;
        fire_heat = random.unit();
    }

    void call() {
        Hud& h = *hud;
        switch (random.below(60)) {
            case 0:
                h.play(h.find("acres"), "hop", 1.7F);
                break;
            case 1:
                h.play(h.find("speed"), "pulse");
                break;
            case 2:
                h.stop(h.find("speed"), "pulse");
                break;
            case 3:
                h.snap(h.find("water"));
                break;
            case 4:
                h.snap("flying");
                break;
            case 5:
                h.snap();
                break;
            case 6:
                h.set_visible(h.find("eta"), random.below(2) == 0);
                break;
            case 7:
                h.set_opacity(h.find("speed"), static_cast<float>(random.unit()));
                break;
            case 8:
                h.set_visible("flying", random.below(2) == 0);
                break;
            case 9:
                h.set_color(h.find("heat"), rgb(0x123456));
                break;
            case 10:
                h.set_color(h.find("acres"), theme("dim"));
                break;
            case 11:
                h.set_format(h.find("budget"), random.below(2) == 0 ? "{:>7}" : "{:+}");
                break;
            case 12:
                h.set_place(h.find("budget"),
                            {.anchor = Anchor::right, .offset = {4, static_cast<float>(random.below(9)) * 1.5F}});
                break;
            case 13:
                h.reset(h.find("budget"));
                break;
            case 14:
                h.notify(h.find("log"), {.id = "n", .text = "{} \"shots\"", .value = watch(acres)});
                break;
            case 15:
                h.notify(h.find("log"), "hi");
                break;
            case 16:
                h.notify(h.find("news"), {.text = "t {}", .value = constant(7s), .lasting = true, .color = rgb(0xff)});
                break;
            case 17:
                h.dismiss(h.find("news"), "");
                break;
            case 18:
                h.pop_up(h.find("hits"), {.at = fire, .value = random.below(90)});
                break;
            case 19:
                h.pop_up(h.find("hits"), {.on_screen = Point{40, 50}, .value = 1.5F});
                break;
            case 20:
                h.set_theme(random.below(2) == 0 ? "dusk" : "snow");
                break;
            case 21:
                h.set_ui_scale(0.8F + 0.1F * static_cast<float>(random.below(4)));
                break;
            case 22:
                h.set_text_scale(1.0F + 0.25F * static_cast<float>(random.below(3)));
                break;
            case 23:
                h.set_reduced_motion(random.below(2) == 0);
                break;
            case 24:
                h.set_camera(Camera::flat({.center = {random.between(-9, 9), 0, 0}, .zoom = 2}));
                break;
            case 25:
                h.resize(
                    {.size = {800.0F + 100 * static_cast<float>(random.below(5)), 600}, .safe_area = {1, 2, 3, 4}});
                break;
            case 26:
                markers.push_back(h.add_marker(h.find("fires"), watch_position(fire), {watch(fire_heat)}));
                break;
            case 27:
                if (!markers.empty())
                    h.remove(markers[static_cast<std::size_t>(random.below(static_cast<int>(markers.size())))]);
                break;
            case 28:
                if (!markers.empty()) h.set_visible(markers.back(), random.below(2) == 0);
                break;
            case 29:
                h.timer("evacuation")->add(2s);
                break;
            case 30:
                h.timer("evacuation")->set_speed(random.between(0.3, 2));
                break;
            case 31:
                h.timer("evacuation")->start();
                break;
            case 32:
                mission.take(1s);
                break;
            case 33:
                mission.start();
                break;
            case 34:
                if (random.below(3) == 0) sources.set("late.name", watch(acres));
                break;
            case 35:
                if (random.below(3) == 0) sources.set("plane.speed", watch(water));
                break;
            case 36:
                add_extra();
                break;
            case 37:
                remove_extra();
                break;
            case 38:
                change_extra();
                break;
            case 39:
                h.restore_timers(h.save_timers());
                break;
            case 40:
                h.set_cost({.update = 1ms, .draw = 2ms});
                break;
            case 45:
                h.set_flash_settings({.rule = random.below(3) == 0   ? std::optional<FlashRule>()
                                              : random.below(2) == 0 ? FlashRule::area
                                                                     : FlashRule::any_size,
                                      .on = random.below(3) > 0,
                                      .ground = rgb(0x204060)});
                break;
            case 41:
                h.set_language(Language{.tag = random.below(2) == 0 ? "de" : "en"});
                break;
            case 42:
                h.set_opacity(0.5F + 0.1F * static_cast<float>(random.below(6)));
                break;
            case 43:
                h.add(Effect{.id = "e" + std::to_string(added++), .keyframes = {{.at = 0.5, .scale = 2.0F}}});
                break;
            case 44:
                h.restore_places(std::array{SavedPlace{"heat", {.offset = {9, 9}}}});
                break;
            default:
                break;
        }
    }

    /// An element that is bound to what is gone when it is.
    void add_extra() {
        extra.push_back(std::make_unique<int>(random.below(100)));
        const std::string id = "x" + std::to_string(added++ % 3);
        if (const ElementRef made =
                hud->add(Text{.id = id, .value = watch(*extra.back()), .motion = tween(1s), .inside = "row"}))
            extras.push_back(made);
        else
            extra.pop_back();
    }
    void remove_extra() {
        if (extras.empty()) return;
        hud->remove(extras.back());
        extras.pop_back();
        extra.pop_back();
    }
    void change_extra() {
        if (extras.empty()) return;
        auto other = std::make_unique<int>(random.below(100));
        hud->change<Text>(extras.back(), [&](Text& text) {
            text.value = watch(*other);
            text.size = 20 + static_cast<float>(random.below(20));
        });
        extra.back() = std::move(other);
    }

    /// One frame of the game.
    void frame() {
        change_values();
        for (int calls = random.below(4); calls > 0; --calls)
            call();
        const Seconds real = step(), game = random.below(5) == 0 ? Seconds{0} : real * 0.75;
        mission.advance(game);
        for (int& value : values())
            value += random.below(3);
        hud->update({.real = real, .game = game});
    }
    std::vector<std::reference_wrapper<int>> values() {
        std::vector<std::reference_wrapper<int>> all;
        for (const auto& each : extra)
            all.push_back(*each);
        return all;
    }
};

TEST(Recording, is_played_as_it_was_seen_to_the_bit) {
    for (std::uint64_t seed = 1; seed <= 4; ++seed) {
        std::ostringstream file;
        RecordingWriter writer(file);
        Game game(seed);
        game.hud.emplace(game.definition(), game.sources, &game.measurer, &game.images);
        for (const Problem& problem : game.hud->problems())
            EXPECT_EQ(problem.code, ProblemCode::unknown_source) << to_string(problem);
        ASSERT_TRUE(record(*game.hud, &writer));
        std::vector<std::string> seen, events;
        DisplayList list;
        for (int i = 0; i < 400; ++i) {
            game.frame();
            game.hud->draw(list);
            seen.push_back(words_of(list));
            events.push_back(happened(*game.hud));
        }
        for (const Problem& problem : writer.problems())
            ADD_FAILURE() << to_string(problem);

        const Result<Recording> recording = Recording::read(file.str(), "rec.jsonl");
        for (const Problem& problem : recording.problems())
            ADD_FAILURE() << to_string(problem);
        ASSERT_TRUE(recording);
        EXPECT_EQ(recording->frame_count(), seen.size());
        // What is computed is written as such, of names for what it is computed from, and those are what is kept.
        for (const Element& element : recording->definition().elements)
            if (element.id() == "rich") {
                const Text rich = *element.as<Text>();
                EXPECT_EQ(write_expression(rich.value), "rich.value - rich.value#2");
                EXPECT_EQ(write_expression(rich.bands.at(0).when),
                          "rich.bands.0.when > rich.bands.0.when#2 and since(rich.bands.0.when#3) > 1");
                EXPECT_EQ(write_expression(rich.visible), "rich.visible or rich.visible#2 / 2 < 20");
            }
        RecordingPlayer player(*recording);
        Hud hud(recording->definition(), player.sources(), &game.measurer, &game.images);
        DisplayList again;
        for (std::size_t i = 0; i < seen.size(); ++i) {
            ASSERT_TRUE(player.update(hud));
            hud.draw(again);
            ASSERT_EQ(happened(hud), events[i]) << seed << " " << i;
            ASSERT_EQ(difference(words_of(again), seen[i]), "") << seed << " frame " << i;
        }
        EXPECT_FALSE(player.update(hud));
    }
}

TEST(Recording, takes_along_lists_and_tags_that_come_change_and_go_while_it_runs) {
    struct Fire {
        std::string name;
        double heat;
        WorldPoint at;
    };
    for (std::uint64_t seed = 1; seed <= 6; ++seed) {
        Random random(seed);
        std::vector<Fire> fires{{"Ash", 3, {}}, {"Kiln Hill", 40, {90, 20, 0}}, {"Otter", 20, {-80, 60, 0}}};
        Sources sources;
        sources.set("fires", watch_entries(fires, entry_field("name", &Fire::name), entry_field("heat", &Fire::heat),
                                           entry_position(&Fire::at)));
        const auto row = [](const auto& entry) {
            return nest(Panel{.layout = Layout::row}, Text{.id = "name", .value = entry("name")},
                        Bar{.id = "heat", .value = entry("heat"), .max = 99, .motion = tween(300ms)});
        };
        std::ostringstream file;
        RecordingWriter writer(file);
        BoxMeasurer measurer;
        Hud hud(HudDefinition{}, sources, &measurer);
        ASSERT_TRUE(record(hud, &writer));
        std::vector<std::string> seen;
        DisplayList list;
        for (int i = 0; i < 160; ++i) {
            if (i == 5)
                hud.add(list_of({.id = "board", .entries = "fires", .key = "name", .sort = "heat", .at_most = 2}, row));
            if (i == 9) hud.add(markers_of({.id = "markers", .entries = "fires", .key = "name", .at_most = 3}, row));
            if (i == 12) hud.add(Text{.id = "count", .value = "board.more", .format = "and {} more"});
            if (i == 60) hud.remove(hud.find("board.2"));
            if (i == 80)
                hud.change<List>(hud.find("board"), [](List& board) { board.sort_order = SortOrder::ascending; });
            if (i == 100) hud.remove(hud.find("board"));
            if (i == 110) hud.add(list_of({.id = "board", .entries = "fires", .at_most = 4}, row));
            if (i == 130) hud.remove(hud.find("markers.1"));
            for (Fire& fire : fires)
                fire.heat = random.between(0, 99);
            if (random.below(12) == 0) fires.push_back({"F" + std::to_string(i), 9, {random.between(-99, 99), 0, 0}});
            if (random.below(12) == 0 && fires.size() > 1) fires.erase(fires.begin());
            update(hud, Seconds{random.between(0.004, 0.05)});
            hud.draw(list);
            seen.push_back(words_of(list));
        }
        EXPECT_EQ(hud.problems(), Problems{});
        EXPECT_EQ(writer.problems(), Problems{});
        const Result<Recording> recording = Recording::read(file.str(), "rec.jsonl");
        ASSERT_TRUE(recording) << to_string(recording.problems().front());
        RecordingPlayer player(*recording);
        Hud again(recording->definition(), player.sources(), &measurer);
        for (std::size_t i = 0; i < seen.size(); ++i) {
            ASSERT_TRUE(player.update(again));
            again.draw(list);
            ASSERT_EQ(difference(words_of(list), seen[i]), "") << seed << " frame " << i;
        }
        EXPECT_EQ(again.problems(), Problems{});
    }
}

/// A recording of a game, with what was seen.
struct Recorded {
    Game game;
    std::string text;
    std::vector<std::string> seen;
    std::vector<Nanoseconds> times;

    Recorded(std::uint64_t seed, int frames) : game(seed) {
        std::ostringstream file;
        RecordingWriter writer(file);
        game.hud.emplace(game.definition(), game.sources, &game.measurer, &game.images);
        EXPECT_TRUE(record(*game.hud, &writer));
        DisplayList list;
        for (int i = 0; i < frames; ++i) {
            game.frame();
            game.hud->draw(list);
            seen.push_back(words_of(list));
            times.push_back(game.hud->now());
        }
        text = file.str();
    }
};

TEST(Recording, is_cut_to_a_moment_that_is_played_alike_again) {
    for (std::uint64_t seed = 11; seed <= 16; ++seed) {
        Recorded whole(seed, 200);
        const auto recording = Recording::read(whole.text, "whole.jsonl");
        ASSERT_TRUE(recording);
        // From a second before its middle on, with all that lasts.
        std::ostringstream file;
        RecordingWriter writer(file);
        RecordingPlayer player(*recording);
        Hud hud(recording->definition(), player.sources(), &whole.game.measurer, &whole.game.images);
        ASSERT_TRUE(record(hud, &writer));
        player.skip_to(hud, whole.times[100]);
        EXPECT_EQ(player.next(), 101U) << "with all frames that ended by then";
        std::vector<std::string> seen;
        DisplayList list;
        while (player.update(hud)) {
            hud.draw(list);
            seen.push_back(words_of(list));
        }
        EXPECT_EQ(seen.size(), 99U);
        EXPECT_EQ(hud.now(), whole.times.back() - whole.times[100]) << "the clock begins here";

        const auto cut = Recording::read(file.str(), "cut.jsonl");
        ASSERT_TRUE(cut) << to_string(cut.problems().front());
        RecordingPlayer again(*cut);
        Hud other(cut->definition(), again.sources(), &whole.game.measurer, &whole.game.images);
        for (std::size_t i = 0; again.update(other); ++i) {
            other.draw(list);
            ASSERT_EQ(difference(words_of(list), seen[i]), "") << seed << " " << i;
        }
        // What is at rest shows the same as in the whole.
        for (const char* const id : {"village", "eta"}) {
            const Hud& then = *whole.game.hud;
            EXPECT_EQ(hud[hud.find(id)].text, then[whole.game.hud->find(id)].text) << id;
        }
    }
}

TEST(Recording, begins_before_all_other_calls) {
    std::ostringstream file;
    RecordingWriter writer(file);
    for (const auto& call : std::vector<std::function<void(Hud&)>>{[](Hud& hud) { hud.update(0.1); },
                                                                   [](Hud& hud) { hud.set_ui_scale(2); },
                                                                   [](Hud& hud) { hud.add(Text{.id = "a"}); }}) {
        Hud hud;
        call(hud);
        EXPECT_FALSE(record(hud, &writer));
        EXPECT_EQ(to_string(hud.problems().back()),
                  "error: a recording begins before all other calls; call 'record' right behind the constructor");
    }
    EXPECT_EQ(file.str(), "");
    int score = 5;
    Hud hud;
    EXPECT_TRUE(record(hud, &writer));
    hud.add(Text{.id = "score", .value = watch(score)});
    hud.update(0.1);
    EXPECT_TRUE(record(hud, nullptr)) << "and ends at any time";
    hud.update(0.1);
    EXPECT_EQ(file.str(),
              "{\"recording\":2,\"hud\":\"\"}\n"
              "{\"call\":\"add\",\"hud\":\"\\n[[element]]\\nkind = \\\"text\\\"\\nid = \\\"score\\\"\\nvalue = "
              "\\\"score.value\\\"\\n\",\"names\":{\"score.value\":\"int64\"}}\n"
              "{\"time\":100000000,\"values\":{\"score.value\":5}}\n");
    EXPECT_TRUE(Recording::is_recording(file.str()));
    EXPECT_FALSE(Recording::is_recording("{\"time\": 0, \"recording\": 1}"));
    EXPECT_TRUE(Recording::is_recording(" {\r\n\t\"recording\": 1}"));
}

TEST(Recording, plays_through_a_hud_that_was_edited) {
    Recorded recorded(3, 60);
    const auto recording = Recording::read(recorded.text, "rec.jsonl");
    ASSERT_TRUE(recording);
    RecordingPlayer player(*recording);
    HudDefinition edited;
    edited.elements = {Text{.id = "water", .value = "plane.water", .format = "{:.0f} L"}};
    Hud hud(edited, player.sources());
    while (player.update(hud)) {
    }
    char expected[32];
    std::snprintf(expected, sizeof expected, "%.0f L", recorded.game.water);
    EXPECT_EQ(hud.text_of(hud.find("water")), expected);
    for (const Problem& problem : hud.problems())
        EXPECT_TRUE(problem.code == ProblemCode::unknown_name || problem.code == ProblemCode::bad_call ||
                    problem.code == ProblemCode::unfit || problem.code == ProblemCode::unknown_source)
            << to_string(problem) << " " << static_cast<int>(problem.code);
}

TEST(Recording, names_the_line_of_what_is_wrong) {
    const std::string first = R"({"recording":2,"hud":"","names":{"a":"int64","b":{"fields":[["n","text"]]}}})";
    struct Row {
        std::string lines;
        std::string problem;
    };
    for (const Row& row : std::vector<Row>{
             {"", "r.jsonl: error: is empty"},
             {"{}", "r.jsonl:1:1: error: this is no recording; its first line begins with {\"recording\": 2"},
             {R"({"recording":3,"hud":""})",
              "r.jsonl:1:1: error: is a recording of version 3; this reads versions 1 and 2"},
             {R"({"recording":2})", "r.jsonl:1:1: error: has no 'hud'"},
             {R"({"recording":2,"hud":"[[element]]\nkind = \"txt\""})", "unknown kind 'txt'"},
             {first + "\n\n[1]", "r.jsonl:3:1: error: expected an object"},
             {first + "\n{\"time\":\n", "unexpected end of input"},
             {first + "\n{\"time\":}", "r.jsonl:2:1: error: syntax error"},
             {first + "\n{}", "r.jsonl:2:1: error: has neither a 'call' nor a 'time'"},
             {first + R"(
{"call":"dance"})",
              "r.jsonl:2:1: error: no call is named 'dance'"},
             {first + R"(
{"call":"play","element":"a"})",
              "r.jsonl:2:1: error: 'play' has no 'strength'"},
             {first + R"(
{"call":"resize"})",
              "r.jsonl:2:1: error: 'resize' has no 'origin'"},
             {first + R"(
{"call":"change","element":"a"})",
              "r.jsonl:2:1: error: 'change' has no 'hud'"},
             {first + R"(
{"time":1.5})",
              "r.jsonl:2:1: error: 'time' is not a whole number"},
             {first + R"(
{"time":-1})",
              "r.jsonl:2:1: error: 'time' is not a time in nanoseconds"},
             {first + R"(
{"time":5}
{"time":4})",
              "r.jsonl:3:1: error: goes back in time from the frame before"},
             {first + R"(
{"time":5,"game_time":5}
{"time":6,"game_time":4})",
              "r.jsonl:3:1: error: goes back in time from the frame before"},
             {first + R"(
{"time":5,"values":{"c":1}})",
              "r.jsonl:2:1: error: 'c' is no known name"},
             {first + R"(
{"time":5,"values":{"a":[1]}})",
              "r.jsonl:2:1: error: 'a' is not a value"},
             {first + R"(
{"time":5,"entries":{"b":[["x",1]]}})",
              "r.jsonl:2:1: error: 'b' is not a list of entries with 1 values"},
             {first + "\n{\"time\":5,\"values\":[[[[[[[[[[1]]]]]]]]]]}", "r.jsonl:2:1: error: is nested too deep"},
         }) {
        const auto read = Recording::read(row.lines, "r.jsonl");
        ASSERT_FALSE(read) << row.lines;
        EXPECT_NE(to_string(read.problems().back()).find(row.problem), std::string::npos)
            << row.lines << "\n"
            << to_string(read.problems().back());
    }
    EXPECT_TRUE(Recording::read(first + "\n{\"time\":5,\"values\":{\"a\":1}}", "r.jsonl"));
}

/// Plays all of a recording, and draws each frame.
void play_through(const Recording& recording) {
    RecordingPlayer player(recording);
    BoxMeasurer measurer;
    Hud hud(recording.definition(), player.sources(), &measurer);
    DisplayList list;
    while (player.update(hud))
        hud.draw(list);
}

TEST(Recording, of_a_game_that_ended_in_a_line_plays_up_to_there) {
    const Recorded recorded(3, 30);
    const std::size_t first_line = recorded.text.find('\n');
    const auto whole = Recording::read(recorded.text, "r.jsonl");
    ASSERT_TRUE(whole);
    EXPECT_TRUE(whole->warnings().empty());
    std::size_t last = 0;
    for (std::size_t length = first_line + 1; length < recorded.text.size(); length += 211) {
        const std::string cut = recorded.text.substr(0, length);
        const auto read = Recording::read(cut, "r.jsonl");
        ASSERT_TRUE(read) << cut.substr(cut.rfind('\n')) << "\n" << to_string(read.problems().front());
        EXPECT_GE(read->frame_count(), last);
        last = read->frame_count();
        const std::string rest = cut.substr(cut.rfind('\n') + 1);
        if (rest.empty() || rest.back() == '}') continue;
        ASSERT_EQ(read->warnings().size(), 1U) << rest;
        EXPECT_NE(to_string(read->warnings().front()).find("warning: is cut off"), std::string::npos)
            << to_string(read->warnings().front());
    }
    EXPECT_GT(last, 20U);
    // Also in the middle of a character.
    const std::string before = R"({"recording":2,"hud":""})"
                               "\n{\"time\":5}\n{\"call\":\"set_visible\",\"group\":\"";
    for (const std::string& character : {std::string("é"), std::string("火"), std::string("🔥")})
        for (std::size_t bytes = 1; bytes <= character.size(); ++bytes) {
            const auto read = Recording::read(before + character.substr(0, bytes), "r.jsonl");
            ASSERT_TRUE(read) << character << bytes << to_string(read.problems().front());
            EXPECT_EQ(read->frame_count(), 1U);
            EXPECT_EQ(read->warnings().size(), 1U);
        }
    EXPECT_FALSE(Recording::read(before + "\x80\x80\"", "r.jsonl")) << "what is no character at all";
}

TEST(Recording, limits_what_all_its_lines_make) {
    const std::string first = R"({"recording":2,"hud":""})";
    // Each line is small, and stamps a component many times.
    std::string bomb = R"({"call":"add","hud":"[component.c]\n)";
    for (int i = 0; i < 40; ++i)
        bomb += R"([[component.c.element]]\nkind = \"text\"\nid = \"e)" + std::to_string(i) + R"(\"\nformat = \"x\"\n)";
    for (int i = 0; i < 40; ++i)
        bomb += R"([[element]]\nkind = \"c\"\nid = \"s)" + std::to_string(i) + R"(\"\n)";
    bomb += "\"}\n";
    std::string bombs = first + "\n", names = R"({"recording":2,"hud":"","names":{)";
    for (int i = 0; i < 100; ++i)
        bombs += bomb;
    for (int i = 0; i < 10'001; ++i)
        names += (i > 0 ? ",\"n" : "\"n") + std::to_string(i) + "\":\"int64\"";
    for (const auto& [text, says] : std::vector<std::pair<std::string, std::string>>{
             {bombs, "adds more than 50000 elements in all"}, {names + "}}", "has more than 10000 names"}}) {
        const auto read = Recording::read(text, "r.jsonl");
        ASSERT_FALSE(read);
        const bool is_said =
            std::any_of(read.problems().begin(), read.problems().end(), [&, &words = says](const Problem& problem) {
                return problem.message.find(words) != std::string::npos ||
                       problem.message.find("larger than one can be") != std::string::npos;
            });
        EXPECT_TRUE(is_said) << to_string(read.problems().front());
    }
}

TEST(RecordingWriter, says_what_cannot_be_read_again) {
    HudDefinition definition;
    definition.themes = {{.id = "day"}, {.id = "day"}};
    std::ostringstream text;
    RecordingWriter writer(text);
    Hud hud(definition);
    record(hud, &writer);
    update(hud, 16ms);
    ASSERT_FALSE(writer.problems().empty());
    EXPECT_NE(to_string(writer.problems().front()).find("this recording cannot be read again"), std::string::npos);
    EXPECT_FALSE(Recording::read(text.str(), "r.jsonl"));
}

TEST(Recording, survives_any_number) {
    const Recorded recorded(5, 40);
    Random random(30);
    const std::vector<std::string> numbers{"9223372036854775807",
                                           "-9223372036854775808",
                                           "18446744073709551615",
                                           "1e308",
                                           "-1e308",
                                           "2305843009213693951",
                                           "4611686018427387904",
                                           "0",
                                           "-1",
                                           "1e-300"};
    int played = 0;
    for (int i = 0; i < 200; ++i) {
        std::string text = recorded.text;
        for (int hits = 1 + random.below(4); hits > 0; --hits) {
            std::size_t at =
                text.find_first_of("0123456789", static_cast<std::size_t>(random.below(static_cast<int>(text.size()))));
            if (at == std::string::npos) continue;
            // What a HUD may say is limited where HUD files are read, and tried there.
            const std::string line = text.substr(text.rfind('\n', at) + 1, 400);
            if (line.find("\"hud\"") != std::string::npos) continue;
            while (at > 0 && (std::isdigit(static_cast<unsigned char>(text[at - 1])) != 0 || text[at - 1] == '.'))
                --at;
            const std::size_t end = text.find_first_not_of("0123456789.e+-", at);
            text.replace(at, end - at,
                         numbers[static_cast<std::size_t>(random.below(static_cast<int>(numbers.size())))]);
        }
        const auto recording = Recording::read(text, "numbers.jsonl");
        if (!recording) continue;
        ++played;
        play_through(*recording);
    }
    EXPECT_GT(played, 50);
}

TEST(Recording, survives_any_damage) {
    const Recorded recorded(5, 40);
    Random random(9);
    int read = 0;
    for (int i = 0; i < 150; ++i) {
        std::string text = recorded.text;
        for (int hits = 1 + random.below(3); hits > 0; --hits) {
            const auto at = static_cast<std::size_t>(random.below(static_cast<int>(text.size())));
            switch (random.below(4)) {
                case 0:
                    text[at] = static_cast<char>(32 + random.below(90));
                    break;
                case 1:
                    text.erase(at, static_cast<std::size_t>(random.below(60)));
                    break;
                case 2:
                    text.insert(at, std::string(1, "0{}[],:\"-"[random.below(9)]));
                    break;
                default:
                    text.insert(at, text.substr(at / 2, static_cast<std::size_t>(random.below(80))));
                    break;
            }
        }
        const auto recording = Recording::read(text, "damaged.jsonl");
        if (!recording) continue;
        ++read;
        play_through(*recording);
    }
    EXPECT_GT(read, 5) << "some damage is to numbers alone";
}

TEST(Recording, of_an_earlier_version_is_played) {
    // As it was written before calls had descriptions.
    const std::string lines =
        R"({"recording":2,"hud":"[[group]]\nid = \"g\"\n[[timer]]\nid = \"t\"\n[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"a.value\"\n[[element]]\nkind = \"notice\"\nid = \"n\"\n[[element]]\nkind = \"pop_ups\"\nid = \"p\"\n","names":{"a.value":"int64"}}
{"call":"resize","origin":[0.0,0.0],"size":[640.0,480.0],"safe_area":[0.0,0.0,0.0,0.0]}
{"call":"add_timer","hud":"","new_timers":{"mission":{"kind":"countdown","clock":"game"}}}
{"call":"add","hud":"[[element]]\nkind = \"text\"\nid = \"b\"\nvalue = \"b.value\"\n","names":{"b.value":"float64"}}
{"time":16000000,"values":{"a.value":7,"b.value":0.5}}
{"call":"snap"}
{"call":"set_format","element":"a","format":"<{}>"}
{"call":"set_color","element":"a","color":"#ff0000"}
{"call":"set_place","element":"b","hud":"[[element]]\nkind = \"panel\"\nid = \"panel\"\nplace.offset = [3.0, 4.0]\n"}
{"call":"set_opacity","element":"b","opacity":0.5}
{"call":"set_visible","group":"g","visible":false}
{"call":"set_camera","matrix":[1,0,0,0,0,1,0,0,0,0,1,0,0,0,0,1],"flat":true}
{"call":"set_flash_settings","rule":"area","on":true,"field_of_view":30.0}
{"call":"set_cost","cost":[0.001,0.002,0.0]}
{"call":"set_ui_scale","scale":1.5}
{"call":"set_reduced_motion","reduced":false}
{"call":"play","element":"a","effect":"swell","strength":1.0}
{"call":"stop","element":"a","effect":"swell"}
{"call":"notify","element":"n","value":5,"type":"int64","hud":"[[element]]\nkind = \"notice\"\nid = \"notice\"\nmessages = [{ text = \"hello {}\" }]\n"}
{"call":"pop_up","element":"p","value":3,"at":[0.0,0.0,0.0],"on_screen":[5.0,6.0]}
{"time":32000000}
{"call":"restore_timers","timer":{"id":"t","position":30000000000,"duration":60000000000,"speed":1.0,"run":"paused","loop":false,"held":false}}
{"call":"dismiss","element":"n"}
{"call":"leave","element":"b"}
{"time":48000000}
)";
    const Result<Recording> read = Recording::read(lines, "r.jsonl");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    RecordingPlayer player(*read);
    BoxMeasurer measurer;
    Hud hud(read->definition(), player.sources(), &measurer);
    ASSERT_TRUE(player.update(hud));
    const ElementRef a = hud.find("a"), b = hud.find("b");
    EXPECT_EQ(hud.text_of(a), "7");
    EXPECT_EQ(hud.text_of(b), "0.5");
    ASSERT_TRUE(player.update(hud));
    EXPECT_EQ(hud.text_of(a), "<7>");
    EXPECT_EQ(hud[a].color, rgb(0xff0000));
    EXPECT_EQ(hud[b].opacity, 0.5F);
    EXPECT_EQ(hud.text_of(hud.find("n")), "hello 5");
    ASSERT_TRUE(player.update(hud));
    EXPECT_EQ(hud.timer("t")->left(), 30s);
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
    ASSERT_FALSE(player.update(hud));
}

/// A call that the library does not know, with a field of each type.
struct Salute {
    bool wide = false;
    float strength = 1;
    double angle = 0;
    Seconds time{0};
    Nanoseconds moment{0};
    std::uint64_t number = 0;
    std::string to{};
    Themed<Color> color{};
    std::optional<Point> at{};
    Size size{};
    Insets around{};
    std::array<double, 3> place{};
    FlashRule rule = FlashRule::area;
    KeptValue value{};
    HudDefinition hud{};
};
std::vector<Salute> saluted;
void apply(const Salute& call, CallStage& at) {
    saluted.push_back(call);
    at.hud.add(call.hud.elements.at(0));
}
constexpr std::array salute_fields{
    required_field<&Salute::wide>("wide", "Whether with both arms."),
    field<&Salute::strength>("strength", "How strong."),
    field<&Salute::angle>("angle", "How far."),
    field<&Salute::time>("time_of_day", "When."),
    field<&Salute::moment>("moment", "When, to the nanosecond."),
    field<&Salute::number>("number", "How often."),
    field<&Salute::to>("to", "Whom."),
    field<&Salute::color>("color", "In which color."),
    field<&Salute::at>("at", "Where."),
    field<&Salute::size>("size", "How large."),
    field<&Salute::around>("around", "How far around."),
    field<&Salute::place>("place", "Where in the world."),
    field<&Salute::rule>("rule", "By which rule."),
    field<&Salute::value>("value", "With which value."),
    field<&Salute::hud>("hud", "With what."),
};
constexpr auto salute_call = call_kind<Salute>("salute", "Greets.", salute_fields);

TEST(Recording, reads_nothing_more_of_what_is_gone) {
    int value_reads = 0, place_reads = 0;
    std::ostringstream file;
    RecordingWriter writer(file);
    HudDefinition definition;
    definition.elements = {Panel{.id = "a"}, Panel{.id = "b", .inside = "a"},
                           // Its panel is written by the end of its path.
                           Text{.id = "t", .value = watch([&] { return ++value_reads; }), .inside = "b"}};
    for (const Element& element :
         markers_of({.id = "fires"}, [](const auto&) { return nest(Panel{}, Text{.id = "x", .format = "x"}); }))
        definition.elements.push_back(element);
    Hud hud(definition);
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
    ASSERT_TRUE(record(hud, &writer));
    const ElementRef fires = hud.find("fires");
    ASSERT_TRUE(hud.alive(hud.add_marker(fires, watch_position([&] {
                                             return Point{static_cast<float>(++place_reads), 0};
                                         }),
                                         {})));
    update(hud, 16ms);
    EXPECT_GT(value_reads, 0);
    EXPECT_GT(place_reads, 0);
    hud.remove(hud.find("a"));
    hud.remove(fires);
    const int values = value_reads, places = place_reads;
    for (int i = 0; i < 3; ++i)
        update(hud, 16ms);
    EXPECT_EQ(value_reads, values);
    EXPECT_EQ(place_reads, places);
    EXPECT_TRUE(Recording::read(file.str(), "r"));
}

TEST(Recording, takes_a_call_that_is_described_anywhere) {
    const Salute given{.wide = true,
                       .strength = -0.1F,
                       .angle = 0.1,
                       .time = Seconds{1e-9},
                       .moment = Nanoseconds{-9'007'199'254'740'993},
                       .number = UINT64_MAX,
                       .to = "Ana \"Zoë\"\n",
                       .color = theme("dim"),
                       .at = Point{-1.5F, 1e9F},
                       .size = {3, 4},
                       .around = {1, 2, 3, 4},
                       .place = {nan(""), HUGE_VAL, -HUGE_VAL},
                       .rule = FlashRule::any_size,
                       .value = Value(0.5F),
                       .hud = {.elements = {Text{.id = "new", .format = "hello"}}}};
    std::ostringstream file;
    RecordingWriter writer(file);
    writer.begin({}, {});
    writer.call({&salute_call, &given, {}});
    writer.frame({.time = 1s, .game_time = 1s});
    EXPECT_TRUE(writer.problems().empty());

    EXPECT_FALSE(Recording::read(file.str(), "r")) << "the library does not know it";
    std::vector<const CallKind*> calls = all_calls();
    calls.push_back(&salute_call);
    const Result<Recording> read = read_recording(file.str(), "r", calls);
    ASSERT_TRUE(read) << to_string(read.problems().front());
    RecordingPlayer player(*read);
    Hud hud(read->definition(), player.sources());
    saluted.clear();
    ASSERT_TRUE(player.update(hud));
    EXPECT_EQ(hud.text_of(hud.find("new")), "hello");
    ASSERT_EQ(saluted.size(), 1U);
    const Salute& got = saluted.front();
    EXPECT_EQ(std::tie(got.wide, got.strength, got.angle, got.time, got.moment, got.number, got.to, got.color),
              std::tie(given.wide, given.strength, given.angle, given.time, given.moment, given.number, given.to,
                       given.color));
    EXPECT_EQ(std::tie(got.at, got.size, got.around, got.rule, got.value),
              std::tie(given.at, given.size, given.around, given.rule, given.value));
    EXPECT_TRUE(std::isnan(got.place[0]) && got.place[1] == HUGE_VAL && got.place[2] == -HUGE_VAL);

    // Each field that is damaged is named.
    std::string line = file.str();
    line = line.substr(line.find('\n') + 1);
    line = line.substr(0, line.find('\n'));
    for (const Field& one : salute_fields) {
        std::string damaged = line;
        const std::size_t value = damaged.find("\"" + std::string(one.name) + "\":") + one.name.size() + 3;
        damaged.insert(value, "[[]],\"rest\":");
        const Result<Recording> bad = read_recording("{\"recording\":2,\"hud\":\"\"}\n" + damaged, "r", calls);
        ASSERT_FALSE(bad) << damaged;
        EXPECT_NE(bad.problems().front().message.find("'" + std::string(one.name) + "' is not "), std::string::npos)
            << bad.problems().front().message;
    }
}

}  // namespace recording_test
}  // namespace rapido::test
