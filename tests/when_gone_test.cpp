// Things that have an end: what is seen of them when the game has destroyed them, and what is told.
#include <map>
#include <set>

#include "rapido/file.hpp"
#include "support.hpp"

namespace rapido::test {
namespace when_gone_test {

struct Enemy {
    int id;
    float health = 100;
    float x = 0, y = 0;
};

Source watch_enemies(std::vector<Enemy>& enemies) {
    return watch_entries(enemies, entry_field("id", &Enemy::id), entry_field("health", &Enemy::health),
                         entry_position([](const Enemy& enemy) {
                             return WorldPoint{enemy.x, enemy.y, 0};
                         }));
}

struct Armored : Enemy {
    float most = 100;
    bool is_seen = true;
    std::string name = "E" + std::to_string(id);
};

Source watch_armored(std::vector<Armored>& enemies) {
    return watch_entries(enemies, entry_field("id", &Armored::id), entry_field("health", &Armored::health),
                         entry_field("most", &Armored::most), entry_field("seen", &Armored::is_seen),
                         entry_field("name", &Armored::name), entry_position([](const Armored& enemy) {
                             return WorldPoint{enemy.x, enemy.y, 0};
                         }));
}

template <class Enemy>
std::vector<Element> bar_of(const Enemy& enemy) {
    return nest(
        Panel{.layout = Layout::row, .leave = "fade"},
        {Text{.id = "id", .value = enemy("id")}, Bar{.id = "bar",
                                                     .value = enemy("health"),
                                                     .max = 100,
                                                     .motion = tween(200ms),
                                                     .trail = {.delay = 100ms, .duration = 200ms},
                                                     .triggers = {{.on = TriggerOn::loss, .effect = "shake"}}}});
}

/// A game of enemies with bars over them.
struct Game {
    std::vector<Enemy> enemies;
    BoxMeasurer measurer;
    Hud hud{{}, {}, &measurer};
    ElementRef markers;

    explicit Game(std::vector<Enemy> all, Markers described = {}) : enemies(std::move(all)) {
        described.id = "enemies";
        described.entries = watch_enemies(enemies);
        described.key = "id";
        described.declutter = false;
        hud.resize({.size = {800, 600}});
        hud.set_camera(Camera::flat({.center = {400, 300, 0}, .zoom = 1}));
        for (const Element& element : markers_of(described, [](const auto& enemy) { return bar_of(enemy); }))
            hud.add(element);
        markers = hud.find("enemies");
        EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    }
    /// What is seen: of each enemy, the fill of its bar. Two bars of one enemy are a fault.
    std::map<int, double> seen() {
        std::map<int, double> bars;
        for (const ElementRef ref : hud.elements()) {
            const std::string path(hud[ref].id);
            if (!path.ends_with(".bar") || !hud[ref].visible) continue;
            const int id = std::stoi(text_of(hud, hud.find(path.substr(0, path.size() - 3) + "id")));
            EXPECT_TRUE(bars.emplace(id, hud[ref].fill.value()).second) << "two bars of " << id;
        }
        return bars;
    }
    void kill(int id) {
        std::erase_if(enemies, [id](const Enemy& enemy) { return enemy.id == id; });
    }
};

TEST(WhenGone, lets_the_last_hit_drain_of_what_the_game_destroys_at_once) {
    for (const Seconds frame : {Seconds{5ms}, Seconds{16ms}, Seconds{90ms}}) {
        Random random(71);
        std::vector<Enemy> all;
        for (int id = 0; id < 300; ++id)
            all.push_back({id, 100, static_cast<float>(random.below(800)), static_cast<float>(random.below(600))});
        Game game(all, {.when_gone = {{"health", 0}}, .at_most = 200});
        update(game.hud, frame);
        std::map<int, double> draining;  // of those that are dead: how full it was last
        int drained = 0, in_between = 0;
        double due = 0;
        for (int step = 0; frame.count() * step < 12; ++step) {
            const std::map<int, double> before = game.seen();
            for (due += frame.count() * 40; due >= 1 && !game.enemies.empty(); due -= 1) {
                Enemy& enemy =
                    game.enemies[static_cast<std::size_t>(random.below(static_cast<int>(game.enemies.size())))];
                enemy.health -= static_cast<float>(20 + random.below(60));
                const int id = enemy.id;
                if (enemy.health > 0) continue;
                // In the frame of its last hit, and another one takes its place in the container.
                std::swap(enemy, game.enemies.back());
                game.enemies.pop_back();
                if (before.contains(id)) draining[id] = before.at(id);
            }
            update(game.hud, frame);
            const std::map<int, double> now = game.seen();
            for (auto at = draining.begin(); at != draining.end();) {
                const auto seen = now.find(at->first);
                if (seen == now.end()) {
                    EXPECT_EQ(at->second, 0) << "enemy " << at->first << " left before its bar was empty";
                    ++drained;
                    at = draining.erase(at);
                    continue;
                }
                EXPECT_LE(seen->second, at->second + 1e-6) << at->first;
                in_between += seen->second < at->second && seen->second > 0 ? 1 : 0;
                at->second = seen->second;
                ++at;
            }
        }
        EXPECT_GT(drained, 80);
        if (frame < Seconds{50ms}) {
            EXPECT_GT(in_between, 5 * drained);
        }
    }
}

TEST(WhenGone, keeps_a_bar_where_it_was_and_turns_it_round_when_the_thing_comes_back) {
    std::vector<Enemy> enemies{{1, 80, 0, 0}, {2, 60, 0, 0}, {3, 40, 0, 0}};
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    for (const Element& element :
         list_of({.id = "all", .entries = watch_enemies(enemies), .key = "id", .when_gone = {{"health", 0}}},
                 [](const auto& enemy) { return bar_of(enemy); }))
        hud.add(element);
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 16ms);
    const ElementRef bar = hud.find("all.2.bar"), panel = hud.find("all.2"), last = hud.find("all.3");
    const float place = hud[panel].box.y, below = hud[last].box.y;
    const Enemy second = enemies[1];
    enemies.erase(enemies.begin() + 1);
    update(hud, 16ms);
    update(hud, 100ms);
    EXPECT_TRUE(hud[panel].visible);
    EXPECT_EQ(hud[panel].opacity, 1) << "it does not leave yet";
    EXPECT_GT(hud[bar].fill.value(), 0);
    EXPECT_LT(hud[bar].fill.value(), 0.6);
    EXPECT_EQ(hud[panel].box.y, place);
    EXPECT_EQ(hud[last].box.y, below);
    const double fill = hud[bar].fill.value();
    enemies.push_back(second);
    update(hud, 1ms);
    EXPECT_EQ(text_of(hud, hud.find("all.2.id")), "2");
    EXPECT_NEAR(hud[bar].fill.value(), fill, 0.02) << "from where it was";
    update(hud, 1s);
    EXPECT_NEAR(hud[bar].fill.value(), 0.6, 1e-6);
    EXPECT_EQ(hud[panel].opacity, 1);

    enemies.pop_back();
    update(hud, 16ms);
    for (int i = 0; i < 20; ++i)
        update(hud, 50ms);
    EXPECT_FALSE(hud[panel].visible);
    // What is only not shown any more is not gone.
    hud.change<List>(hud.find("all"), [](List& list) { list.at_most = 1; });
    update(hud, 16ms);
    EXPECT_NEAR(hud[hud.find("all.3.bar")].fill.value(), 0.4, 1e-6);
    enemies[1].health = 20;
    std::swap(enemies[0], enemies[1]);
    update(hud, 1ms);
    update(hud, 50ms);
    EXPECT_LT(hud[hud.find("all.3.bar")].fill.value(), 0.4) << "it follows its entry, wherever that stands";
}

TEST(WhenGone, stays_two_seconds_at_most_and_not_where_it_is_hidden) {
    Game game({{1, 50, 400, 300}}, {.when_gone = {{"health", 0}}});
    game.hud.change<Bar>(game.hud.find("enemies.1.bar"), [](Bar& bar) { bar.motion = tween(60s); });
    update(game.hud, 16ms);
    const ElementRef panel = game.hud.find("enemies.1");
    game.kill(1);
    update(game.hud, 16ms);
    update(game.hud, 1900ms);
    EXPECT_TRUE(game.hud[panel].visible);
    update(game.hud, 200ms);
    update(game.hud, 1s);
    EXPECT_FALSE(game.hud[panel].visible);

    game.enemies.push_back({2, 50, 400, 300});
    update(game.hud, 16ms);
    ASSERT_TRUE(game.hud[panel].visible);
    game.kill(2);
    game.hud.set_visible(game.markers, false);
    update(game.hud, 16ms);
    update(game.hud, 16ms);
    game.hud.set_visible(game.markers, true);
    update(game.hud, 16ms);
    EXPECT_FALSE(game.hud[panel].visible) << "it has gone unseen";
}

TEST(Markers, that_a_hit_brings_up_drain_from_what_was_before) {
    for (const ShowMarker show : {ShowMarker::after_change, ShowMarker::below_full}) {
        std::vector<Armored> enemies{{{1, 100, 400, 300}}, {{2, 100, 300, 300}}};
        BoxMeasurer measurer;
        Hud hud({}, {}, &measurer);
        hud.resize({.size = {800, 600}});
        hud.set_camera(Camera::flat({.center = {400, 300, 0}, .zoom = 1}));
        for (const Element& element : markers_of({.id = "m",
                                      .entries = watch_armored(enemies),
                                      .key = "id",
                                      .show = show,
                                      .value_of = "health",
                                      .max_of = "most",
                                      .show_for = 1s},
                                                 [](const auto& enemy) { return bar_of(enemy); }))
            hud.add(element);
        ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
        update(hud, 16ms);
        const ElementRef panel = hud.find("m.1"), bar = hud.find("m.1.bar");
        for (int round = 0; round < 3; ++round) {
            EXPECT_FALSE(hud[panel].visible) << static_cast<int>(show) << round;
            enemies[0].health = 40;
            update(hud, 1ms);
            ASSERT_TRUE(hud[panel].visible);
            EXPECT_GT(hud[bar].fill.value(), 0.95) << "it begins where it was";
            EXPECT_EQ(hud[bar].truth.number(), 40);
            update(hud, 50ms);
            EXPECT_NE(hud[bar].offset, Point{}) << "a loss, as any other";
            EXPECT_LT(hud[bar].fill.value(), 0.95);
            EXPECT_GT(hud[bar].fill.value(), 0.4);
            EXPECT_GT(hud[bar].trail, hud[bar].fill.value());
            update(hud, 600ms);
            EXPECT_NEAR(hud[bar].fill.value(), 0.4, 1e-6);
            enemies[0].health = 100;
            for (int i = 0; i < 45; ++i)
                update(hud, 50ms);
        }
    }
}

TEST(Markers, that_nothing_had_brought_up_are_seen_to_drain_when_the_first_hit_is_the_last) {
    for (const ShowMarker show : {ShowMarker::after_change, ShowMarker::below_full})
        for (const Nanoseconds frame : {Nanoseconds{5ms}, Nanoseconds{16ms}, Nanoseconds{90ms}}) {
            std::vector<Armored> enemies;
            for (const float x : {100.0F, 200.0F, 5000.0F, 300.0F, 400.0F})
                enemies.push_back({{static_cast<int>(enemies.size()) + 1, 100, x, 300}});
            enemies[3].is_seen = false;
            BoxMeasurer measurer;
            Hud hud({}, {}, &measurer);
            hud.resize({.size = {800, 600}});
            hud.set_camera(Camera::flat({.center = {400, 300, 0}, .zoom = 1}));
            for (const Element& element :
                 markers_of({.id = "m",
                 .entries = watch_armored(enemies),
                 .key = "id",
                 .when_gone = {{"health", 0}},
                 .at_most = 3,
                 .in_sight = "seen",
                 .show = show,
                 .value_of = "health",
                 .max_of = "most",
                 .show_for = 1s},
                            [](const auto& enemy) {
                                std::vector<Element> all = bar_of(enemy);
                                all.push_back(Text{.id = "name", .value = enemy("name"), .inside = all[0].id()});
                                return all;
                            }))
                hud.add(element);
            ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
            const auto seen = [&] {
                std::map<std::string, double> bars;
                for (int number = 1; number <= 35; ++number) {
                    const std::string panel = "m." + std::to_string(number);
                    if (!hud[hud.find(panel)].visible || hud[hud.find(panel)].opacity <= 0) continue;
                    const double fill = hud[hud.find(panel + ".bar")].fill.value();
                    EXPECT_TRUE(bars.emplace(hud.text_of(hud.find(panel + ".name")), fill).second);
                }
                return bars;
            };
            update(hud, 16ms);
            update(hud, 16ms);
            EXPECT_TRUE(seen().empty());
            // The second, one off the screen and one behind a wall are gone, and the first takes a hit.
            enemies[0].health = 60;
            enemies.erase(enemies.begin() + 1, enemies.begin() + 4);
            update(hud, frame);
            std::map<std::string, double> now = seen();
            ASSERT_EQ(now.size(), 2U);
            double last = now.at("E2");
            EXPECT_GT(now.at("E1"), 0.6);
            EXPECT_GT(last, frame < 50ms ? 0.8 : 0.4) << "it begins where it was";
            double trail = 0;
            int frames = 0;
            for (; frames < 400 && now.contains("E2"); ++frames) {
                EXPECT_LE(now.at("E2"), last);
                last = now.at("E2");
                for (const ElementRef ref : hud.elements())
                    if (hud[ref].id.ends_with(".bar"))
                        trail = std::max(trail, hud[ref].trail.value_or(0) - hud[ref].fill.value());
                update(hud, frame);
                now = seen();
            }
            EXPECT_EQ(last, 0) << "and leaves when it is empty";
            EXPECT_GT(trail, 0.1);
            EXPECT_GT(frames * to_seconds(frame).count(), 0.3);
            EXPECT_LT(frames * to_seconds(frame).count(), 2.1);
            enemies.clear();
            hud.snap();
            update(hud, frame);
            EXPECT_TRUE(seen().empty()) << "after a snap nothing has an end";
        }
}

TEST(Markers, that_come_up_when_they_are_gone_show_what_was_asked_for_only_now_without_a_value) {
    std::vector<Armored> enemies{{{1, 100, 400, 300}}, {{2, 100, 300, 300}}};
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    hud.resize({.size = {800, 600}});
    hud.set_camera(Camera::flat({.center = {400, 300, 0}, .zoom = 1}));
    Markers described{.id = "m",
                      .entries = watch_armored(enemies),
                      .key = "id",
                      .when_gone = {{"health", 0}},
                      .at_most = 3,
                      .show = ShowMarker::after_change,
                      .value_of = "health"};
    for (const Element& element : markers_of(described, [](const auto& enemy) { return bar_of(enemy); }))
        hud.add(element);
    update(hud, 16ms);
    update(hud, 16ms);
    // A field that nobody showed, and a field that says what hides it, in the frame of the last hit.
    const ElementRef name = hud.add(Text{.id = "name", .value = by_name("m.1.name"), .inside = "m.1"});
    hud.change<Markers>(hud.find("m"), [](Markers& markers) { markers.show_for = 2s; });
    enemies.erase(enemies.begin());
    update(hud, 16ms);
    EXPECT_TRUE(hud[hud.find("m.1")].visible);
    EXPECT_EQ(hud.text_of(name), "--");
    update(hud, 3s);
    update(hud, 1s);
    hud.change<Markers>(hud.find("m"), [](Markers& markers) { markers.in_sight = "seen"; });
    enemies.clear();
    update(hud, 16ms);
    for (const char* const panel : {"m.1", "m.2"})
        EXPECT_FALSE(hud[hud.find(panel)].visible) << "whether it was seen is not known";
    EXPECT_EQ(hud.problems(), Problems{});
}

TEST(Event, has_the_key_of_its_thing_and_comes_for_things_off_the_screen) {
    Game game({{11, 50, 400, 300}, {12, 50, 5000, 300}, {13, 50, -900, 300}, {14, 50, 300, 300}},
              {.when_gone = {{"health", 0}}, .value_of = "health"});
    const ElementRef news = game.hud.add(Notice{
        .id = "news", .messages = {{.id = "out", .text = "ONE LESS", .on = TriggerOn::empty, .element = "enemies"}}});
    update(game.hud, 16ms);
    const auto told = [&] {
        std::multiset<std::string> all;
        for (const Event& event : game.hud.events())
            if (event.id != "news")
                all.insert(event.id + " " + std::string(to_string(event.kind)) + " " +
                           (event.key.get().has_value() ? std::to_string(event.key.get().int64()) : "-"));
        return all;
    };
    using All = std::multiset<std::string>;
    EXPECT_EQ(told(), All{});
    game.enemies[0].health = 0;
    game.enemies[1].health = -5;
    update(game.hud, 16ms);
    EXPECT_EQ(told(), (All{"enemies.1.bar empty 11", "enemies empty 11", "enemies empty 12"}));
    EXPECT_EQ(game.hud.text_of(news), "ONE LESS ×2") << "a message may wait for that, too";
    update(game.hud, 16ms);
    EXPECT_EQ(told(), All{});
    game.kill(11);
    game.kill(13);
    game.kill(14);
    update(game.hud, 16ms);
    EXPECT_EQ(told(), (All{"enemies empty 13", "enemies empty 14", "enemies.2.bar empty 14"}))
        << "one that was empty before is not told again";
    game.kill(12);
    update(game.hud, 16ms);
    EXPECT_EQ(told(), All{});
    game.enemies.push_back({15, 30, -900, 300});
    update(game.hud, 16ms);
    EXPECT_EQ(told(), All{});
    game.kill(15);  // the last one
    update(game.hud, 16ms);
    EXPECT_EQ(told(), (All{"enemies empty 15"}));
}

TEST(WhenGone, is_said_in_a_file_and_says_what_is_wrong) {
    const std::string file = R"([component.row]
parameters = { health = "source" }
[[component.row.element]]
kind = "bar"
id = "bar"
value = "$health"
max = 100

[[element]]
kind = "list"
id = "all"
entries = "enemies"
component = "row"
key = "id"
when_gone = { health = 0 }
)";
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    EXPECT_NE(written->find("when_gone = { health = 0 }"), std::string::npos) << *written;
    std::vector<Enemy> enemies{{1, 50, 0, 0}};
    Sources sources;
    sources.set("enemies", watch_enemies(enemies));
    Hud hud(*read, sources);
    update(hud, 16ms);
    enemies.clear();
    update(hud, 16ms);
    EXPECT_EQ(hud[hud.find("all.1.bar")].truth.number(), 0);

    for (const auto& [list, says] : std::vector<std::pair<List, std::string>>{
             {{.key = "id", .when_gone = {{"healht", 0}}},
              "the entries have no field 'healht'; did you mean 'health'?"},
             {{.when_gone = {{"health", 0}}}, "'when_gone' of list 'x' needs 'key'"},
             {{.key = "id", .when_gone = {{"health", "no.name"}}}, "unknown source 'no.name'"}}) {
        Hud wrong;
        List made = list;
        made.id = "x";
        made.entries = watch_enemies(enemies);
        wrong.add(list_of(made, [](const auto& enemy) { return bar_of(enemy); }));
        ASSERT_FALSE(wrong.problems().empty()) << says;
        EXPECT_NE(to_string(wrong.problems()[0]).find(says), std::string::npos) << to_string(wrong.problems()[0]);
    }
}

}  // namespace when_gone_test
}  // namespace rapido::test
