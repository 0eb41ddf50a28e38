// Timers in a HUD.
#include "support.hpp"

namespace rapido::test {
namespace timer_test {

/// Everything that a HUD tells of a script of game steps, in frames of random length.
TEST(Timer, tells_the_same_events_and_ends_on_the_same_text_at_every_frame_rate) {
    Random random(52);
    for (int round = 0; round < 12; ++round) {
        struct Change {
            Nanoseconds time;
            int what;
        };
        std::vector<Change> changes;
        for (int i = 0; i < 14; ++i)
            changes.push_back({Nanoseconds{random.below(12'000) * 1'000'000LL}, random.below(5)});
        std::sort(changes.begin(), changes.end(), [](const Change& a, const Change& b) { return a.time < b.time; });
        std::vector<std::string> first;
        for (const Nanoseconds longest : {Nanoseconds(1ms), Nanoseconds(1s) / 144, Nanoseconds(1s) / 60,
                                          Nanoseconds(1s) / 24, Nanoseconds(300ms), Nanoseconds(5s)}) {
            bool pause = false;
            double speed = 1;
            HudDefinition definition;
            definition.timers = {{.id = "round",
                                  .duration = 6s,
                                  .pause_when = watch(pause),
                                  .speed = watch(speed),
                                  .loop = round % 2 == 0,
                                  .marks = {{4s}, {Seconds{2.5}}, {2s, 500ms}}},
                                 {.id = "day",
                                  .kind = TimerKind::stopwatch,
                                  .elapsed = 10s,
                                  .marks = {{11s, 1s}},
                                  .clock = ClockKind::real}};
            Hud hud(definition);
            hud.add(Text{.id = "left",
                         .value = "round.left",
                         .format = "{:.2%S}",
                         .bands = {{.id = "late", .below = 3, .hysteresis = 0.25, .format = "!{:.2%S}"},
                                   {.id = "last", .below = 1, .color = rgb(0xff0000), .fade = 500ms}}});
            hud.add(Text{.id = "day", .value = "day.elapsed", .format = "{:%M:%S}"});
            ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
            update(hud, 0s);
            std::vector<std::string> lines;
            const auto collect = [&] {
                for (const Event& event : hud.events())
                    lines.push_back(std::to_string(event.time.count()) + " " + event.id + " " +
                                    std::string(to_string(event.kind)) + " " + event.detail);
            };
            Nanoseconds now{0};
            bool slow = false;
            std::size_t next = 0;
            while (now < 12s) {
                Nanoseconds until = 12s;
                if (next < changes.size()) until = std::min(until, changes[next].time);
                if (until > now) {
                    const double most = static_cast<double>(std::min(until - now, longest).count());
                    Nanoseconds step{1 + static_cast<std::int64_t>(random.unit() * (most - 1))};
                    if (slow && step.count() % 2 != 0) step += Nanoseconds{1};
                    now += step;
                    if (next < changes.size() && now == changes[next].time) {
                        if (changes[next].what == 0) pause = !pause;
                        if (changes[next].what == 1) speed = speed == 1 ? 2 : 1;
                    }
                    hud.update({.real = step, .game = slow ? step / 2 : step});
                    collect();
                }
                for (; next < changes.size() && changes[next].time <= now; ++next) {
                    if (changes[next].what == 2) hud.timer("round")->add(1s);
                    if (changes[next].what == 3) hud.timer("round")->take(700ms);
                    if (changes[next].what == 4) slow = !slow;
                }
            }
            hud.update(0);
            collect();
            lines.push_back(text_of(hud, hud.find("left")) + to_string(hud[hud.find("left")].color));
            lines.push_back(text_of(hud, hud.find("day")));
            if (first.empty()) first = lines;
            ASSERT_EQ(lines, first) << "round " << round << " at steps up to " << longest.count() << " ns";
        }
        EXPECT_GT(first.size(), 12U);
    }
}

TEST(Timer, of_the_game_is_shown_and_told_by_every_hud) {
    Countdown round{3s};
    round.set_marks(std::vector<Mark>{{2s}, {1s}});
    Sources sources;
    Sources mission;
    mission.set("round", round);
    sources.set("mission", mission);
    HudDefinition definition;
    definition.elements = {Text{.id = "t", .value = "mission.round.left", .format = "{:%S}"},
                           Bar{.id = "b", .value = "mission.round.left", .max = "mission.round.duration"}};
    Hud first(definition, sources), second;
    EXPECT_TRUE(second.add_timer("round", round));
    EXPECT_FALSE(second.add_timer("round", round));
    const auto text = second.add(Text{.id = "t", .value = "round.left", .format = "{:%S}"});
    ASSERT_TRUE(first.problems().empty()) << to_string(first.problems()[0]);
    round.start();
    update(first, 0s);
    update(second, 0s);
    int told = 0;
    for (int i = 0; i < 7; ++i) {
        round.advance(500ms);  // the game does, once; both HUDs only look
        for (Hud* hud : {&first, &second}) {
            update(*hud, 500ms);
            for (const Event& event : hud->events()) {
                EXPECT_EQ(event.id, hud == &first ? "mission.round" : "round");
                ++told;
            }
        }
    }
    EXPECT_EQ(told, 6);
    EXPECT_EQ(text_of(second, text), "00");
    EXPECT_EQ(*first[first.find("b")].fill, 0);
    EXPECT_EQ(second.timer("round"), nullptr) << "it is not this HUD's to advance";
}

TEST(Timer, follows_its_clock_through_pause_and_slow_motion) {
    HudDefinition definition;
    definition.timers = {{.id = "round", .duration = 10s}, {.id = "menu", .duration = 10s, .clock = ClockKind::real}};
    Hud hud(definition);
    float value = 0;
    const auto bar = [&](ClockKind clock, const char* id) {
        return hud.add(Bar{.id = id, .value = watch(value), .motion = tween(10s, Easing::linear()), .clock = clock});
    };
    const auto in_game = bar(ClockKind::game, "game"), in_menu = bar(ClockKind::real, "menu_bar");
    hud.update(0);
    value = 1;
    hud.update(0);
    hud.update({.real = 2s, .game = 0s});  // paused
    EXPECT_EQ(hud.timer("round")->left(), 10s);
    EXPECT_EQ(hud.timer("menu")->left(), 8s);
    EXPECT_NEAR(*hud[in_game].fill, 0, 1e-9);
    EXPECT_NEAR(*hud[in_menu].fill, 0.2, 1e-6);
    hud.update({.real = 2s, .game = 500ms});  // slow motion
    EXPECT_EQ(hud.timer("round")->left(), 9500ms);
    EXPECT_NEAR(*hud[in_game].fill, 0.05, 1e-6);
    EXPECT_NEAR(*hud[in_menu].fill, 0.4, 1e-6);
}

TEST(Timer, gives_the_time_of_day) {
    HudDefinition definition;
    definition.timers = {{.id = "day",
                          .kind = TimerKind::stopwatch,
                          .duration = 24h,
                          .elapsed = 23h + 58min,
                          .speed = 60.0,  // a minute a second
                          .loop = true}};
    Hud hud(definition);
    const auto clock = hud.add(Text{.id = "a", .value = "day.elapsed", .format = "{:%H:%M}", .time_of_day = true});
    const auto twelve = hud.add(Text{.id = "b", .value = "day.elapsed", .format = "{:%I:%M %p}", .time_of_day = true});
    std::vector<std::string> seen;
    update(hud, 0s);
    for (int i = 0; i < 4; ++i) {
        seen.push_back(text_of(hud, clock) + " " + text_of(hud, twelve));
        update(hud, 1s);
    }
    EXPECT_EQ(seen, (std::vector<std::string>{"23:58 11:58 PM", "23:59 11:59 PM", "00:00 12:00 AM", "00:01 12:01 AM"}));
}

TEST(Timers, of_a_hud_are_saved_and_restored_with_a_game) {
    bool evacuating = true, held = false;
    HudDefinition definition;
    definition.timers = {{.id = "evacuation",
                          .duration = 45s,
                          .start_when = watch(evacuating),
                          .pause_when = watch(held),
                          .marks = {{30s}, {10s}}},
                         {.id = "flight", .kind = TimerKind::stopwatch}};
    definition.elements = {Text{.id = "left", .value = "evacuation.left", .format = "{:.1%S}"},
                           Text{.id = "passed", .value = "flight.elapsed", .format = "{:.1%S}"}};
    Hud hud(definition);
    update(hud, 1s);
    update(hud, 20s);
    hud.timer("flight")->set_speed(2);
    const std::vector<TimerState> saved = hud.save_timers();
    ASSERT_EQ(saved.size(), 2U);
    Hud loaded(definition);
    EXPECT_TRUE(loaded.restore_timers(saved));
    std::vector<std::string> told[2];
    for (int i = 0; i < 40; ++i) {
        int which = 0;
        for (Hud* each : {&hud, &loaded}) {
            update(*each, 500ms);
            for (const Event& event : each->events())
                told[which].push_back(event.id + " " + std::string(to_string(event.kind)) + " " + event.detail);
            ++which;
        }
        for (const char* id : {"left", "passed"})
            ASSERT_EQ(hud[hud.find(id)].text, loaded[loaded.find(id)].text) << id << " " << i;
    }
    EXPECT_EQ(told[1], told[0]);
    EXPECT_EQ(told[1], (std::vector<std::string>{"evacuation mark 10"})) << "the mark at 30 s was passed before";
    EXPECT_FALSE(loaded.restore_timers(std::vector<TimerState>{{.id = "evacuaton"}}));
    EXPECT_EQ(loaded.problems().back().hint, "did you mean 'evacuation'?");
    // A stopwatch that is set to its end has ended, and reports nothing, as a countdown.
    Stopwatch watch(0s, 10s);
    watch.start();
    watch.set(10s);
    EXPECT_TRUE(watch.ended());
    EXPECT_EQ(watch.event_count(), 0U);
    EXPECT_FALSE(watch.advance(1s));
}

}  // namespace timer_test
}  // namespace rapido::test
