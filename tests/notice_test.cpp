// Notices: who is on screen, for how long, and what the game is told.
#include "rapido/file.hpp"
#include "rapido/look.hpp"
#include "support.hpp"

namespace rapido::test {
namespace notice_test {

TEST(ReadingTime, grows_with_the_text_between_two_limits) {
    const ReadingTime reading;
    struct Row {
        std::string text;
        double seconds;
    };
    for (const Row& row : std::vector<Row>{
             {"", 2},
             {"Fire!", 2},
             {std::string(24, 'a'), 3},                   // 1 s + 24 / 12
             {"Évacuez : 45 secondes é", 1 + 23 / 12.0},  // characters, not bytes
             {std::string(500, 'a'), 8},
         })
        EXPECT_DOUBLE_EQ(reading.of(row.text).count(), row.seconds) << row.text;
    EXPECT_DOUBLE_EQ((ReadingTime{.shortest = 5s, .longest = 3s}.of("x").count()), 5);
}

/// What happens to messages of one second, each by its key: "1+ 1- 1." appears, begins to leave, has left; "1!" is
/// skipped.
std::string story(NoticeQueue& queue) {
    std::string told;
    for (const NoticeChange& change : queue.changes())
        told += (told.empty() ? "" : " ") + std::to_string(change.key) + "+-.!"[static_cast<std::size_t>(change.kind)] +
                std::to_string(change.time / 1ms);
    queue.forget_changes();
    return told;
}

PostedMessage message(std::uint32_t key, int priority = 0) {
    return {.key = key, .priority = priority, .show_for = 1s};
}

/// Messages that are posted, and what becomes of them.
struct Posts {
    const char* what;
    std::vector<std::pair<int, PostedMessage>> posts;  // ms
    std::string story;
};

/// The story is the same in one long step and in many small ones. Messages take 100 ms to enter and 200 to leave.
void expect_story(const Posts& row, Seconds gap, std::size_t places) {
    for (const int step : {9000, 7, 33}) {
        NoticeQueue queue(100ms, 200ms, gap, places);
        std::size_t next = 0;
        for (int ms = 0; ms < 9000 + step; ms += step) {
            for (; next < row.posts.size() && row.posts[next].first <= ms; ++next)
                queue.post(row.posts[next].second, 1ms * row.posts[next].first);
            queue.advance(1ms * ms);
        }
        EXPECT_EQ(story(queue), row.story) << row.what << " in steps of " << step;
    }
}

TEST(NoticeQueue, shows_one_after_the_other_by_priority_and_age) {
    PostedMessage banner = message(8);
    banner.lasting = true;
    PostedMessage stale = message(9);
    stale.expires = 500ms;
    // 100 ms to enter, 1000 to be read, 200 to leave, and a pause of 50.
    for (const Posts& row : std::vector<Posts>{
             {"alone", {{0, message(1)}}, "1+0 1-1100 1.1300"},
             {"in turn", {{0, message(1)}, {10, message(2)}}, "1+0 1-1100 1.1300 2+1350 2-2450 2.2650"},
             {"the higher first",
              {{0, message(1)}, {10, message(2)}, {20, message(3)}, {2000, message(4, 1)}},
              "1+0 1-1100 1.1300 2+1350 2-2000 2.2200 4+2250 4-3350 4.3550 3+3600 3-4700 3.4900"},
             {"an unread one comes again",
              {{0, message(1)}, {300, message(2, 1)}},
              "1+0 1-300 1.500 2+550 2-1650 2.1850 1+1900 1-3000 1.3200"},
             {"renewed", {{0, message(1)}, {900, message(1)}}, "1+0 1-1900 1.2100"},
             {"renewed while it enters", {{0, message(1)}, {50, message(1)}}, "1+0 1-1100 1.1300"},
             {"merged while they wait",
              {{0, message(1)}, {10, message(2)}, {20, message(2)}},
              "1+0 1-1100 1.1300 2+1350 2-2450 2.2650"},
             {"too late", {{0, message(1)}, {10, stale}}, "1+0 9!510 1-1100 1.1300"},
             {"just in time", {{0, message(1)}, {850, stale}}, "1+0 1-1100 1.1300 9+1350 9-2450 9.2650"},
             {"a banner returns, and stays",
              {{0, banner}, {500, message(1, 1)}, {600, message(2)}},
              "8+0 8-500 8.700 1+750 1-1850 1.2050 8+2100"},
         })
        expect_story(row, 50ms, 1);
}

TEST(NoticeQueue, of_several_places_lets_no_message_wait_while_one_is_free) {
    PostedMessage lasting = message(9);
    lasting.lasting = true;
    PostedMessage brief = message(1);
    brief.show_for = 300ms;
    // 100 ms to enter, 1000 to be read, 200 to leave.
    for (const Posts& row : std::vector<Posts>{
             {"two at once", {{0, message(1)}, {10, message(2)}}, "1+0 2+10 1-1100 2-1110 1.1300 2.1310"},
             {"the first place that is free",
              {{0, brief}, {0, message(2)}, {10, message(3)}, {20, message(4)}},
              "1+0 2+0 1-400 1.600 3+600 2-1100 2.1300 4+1300 3-1700 3.1900 4-2400 4.2600"},
             {"one that lasts keeps one place only",
              {{0, lasting}, {0, message(1)}, {10, message(2)}},
              "9+0 1+0 1-1100 1.1300 2+1300 2-2400 2.2600"},
             {"the least urgent gives way, and comes again",
              {{0, message(1, 1)}, {0, message(2)}, {300, message(3, 2)}},
              "1+0 2+0 2-300 2.500 3+500 1-1100 1.1300 2+1300 3-1600 3.1800 2-2400 2.2600"},
             {"nobody gives way where a place becomes free",
              {{0, brief}, {0, message(2)}, {450, message(3, 2)}},
              "1+0 2+0 1-400 1.600 3+600 2-1100 2.1300 3-1700 3.1900"},
             {"each urgent one has a place of its own",
              {{0, message(1)}, {0, message(2)}, {100, message(3, 2)}, {110, message(4, 2)}},
              "1+0 2+0 1-100 2-110 1.300 3+300 2.310 4+310 3-1400 4-1410 3.1600 2+1600 4.1610 1+1610 "
              "2-2700 1-2710 2.2900 1.2910"},
         })
        expect_story(row, 0s, 2);
    NoticeQueue queue(0s, 0s, 0s, 2);
    queue.post(message(1), 0s);
    queue.close(0);
    EXPECT_FALSE(queue.has(1)) << "what stood in a place that is closed is gone";
    queue.post(message(2), 1ms);
    queue.post(message(3), 2ms);
    EXPECT_EQ(queue.shown(0), nullptr);
    EXPECT_EQ(queue.shown(1)->key, 2U);
    EXPECT_EQ(queue.waiting(), 1U);
}

TEST(NoticeQueue, counts_equal_ones_takes_away_and_holds) {
    NoticeQueue queue(0s, 0s, 0s);
    for (int i = 0; i < 3; ++i)
        queue.post(message(1), 1ms * i);
    EXPECT_EQ(queue.count(), 3);
    queue.post(message(2), 5ms);
    EXPECT_TRUE(queue.has(2));
    queue.take_away(2, 6ms);
    EXPECT_FALSE(queue.has(2));
    queue.take_away(1, 7ms);
    EXPECT_EQ(story(queue), "1+0 1-7 1.7");
    queue.hold(true, 10ms);
    queue.post(message(3), 20ms);
    queue.advance(2s);
    EXPECT_EQ(queue.shown(), nullptr);
    queue.hold(false, 3s);
    EXPECT_EQ(story(queue), "3+3000");
    queue.clear();
    EXPECT_TRUE(queue.resting());
}

std::string told(const Hud& hud) {
    std::string all;
    for (const Event& event : hud.events())
        all += event.id + " " + std::string(to_string(event.kind)) + " " + event.detail + "\n";
    return all;
}

TEST(Notice, is_hidden_until_something_is_to_be_said) {
    int hull = 100;
    bool won = false;
    bool menu = false;
    Hud hud;
    hud.add(Bar{.id = "hull", .value = watch(hull), .max = 100, .bands = {{.id = "critical", .below = 0.2}}});
    const ElementRef notice =
        hud.add(Notice{.id = "news",
                       .messages = {{.id = "hull",
                                     .text = "Hull {}",
                                     .value = watch(hull),
                                     .on = TriggerOn::band_enter,
                                     .element = "hull",
                                     .band = "critical"},
                                    {.id = "won", .text = "Won", .when = watch(won), .priority = 5, .lasting = true}},
                       .enter = "",
                       .leave = "",
                       .time_between = 0s,
                       .visible = watch(menu).negated()});
    EXPECT_TRUE(hud.problems().empty());
    update(hud, 10ms);
    EXPECT_FALSE(hud[notice].visible);
    hull = 15;
    update(hud, 10ms);
    EXPECT_TRUE(hud[notice].visible);
    EXPECT_EQ(hud[notice].text, "Hull 15");
    EXPECT_EQ(told(hud), "hull band_enter critical\nnews enter hull\n");
    hull = 7;  // live while it is on screen
    update(hud, 1s);
    EXPECT_EQ(hud[notice].text, "Hull 7");
    // The game's own, merged and counted.
    EXPECT_TRUE(hud.notify(notice, {.text = "Drop {}!", .value = constant(hull), .priority = 1}));
    update(hud, 0s);
    EXPECT_EQ(hud[notice].text, "Drop 7!");
    hull = 6;
    EXPECT_TRUE(hud.notify(notice, {.text = "Drop {}!", .value = 7, .priority = 1}));
    update(hud, 10ms);
    EXPECT_EQ(hud[notice].text, "Drop 7! ×2");
    won = true;
    update(hud, 10ms);
    EXPECT_EQ(hud[notice].text, "Won");
    menu = true;
    update(hud, 60s);
    EXPECT_FALSE(hud[notice].visible);
    menu = false;
    update(hud, 10ms);
    EXPECT_EQ(hud[notice].text, "Won");
    won = false;
    update(hud, 10ms);
    EXPECT_FALSE(hud[notice].visible);
    won = true;
    hud.snap();
    update(hud, 10ms);  // what is true stays, silently or not, and nothing old comes back
    EXPECT_EQ(hud[notice].text, "Won");
    EXPECT_TRUE(hud.dismiss(notice, "won"));
    EXPECT_FALSE(hud.dismiss(notice, "wno"));
    update(hud, 10ms);
    EXPECT_FALSE(hud[notice].visible);
    EXPECT_FALSE(hud.notify(notice, "wno"));
    EXPECT_TRUE(hud.notify(notice, "won"));
    update(hud, 10ms);
    EXPECT_TRUE(hud[notice].visible);
}

TEST(Notice, appears_with_its_effect_and_leaves_with_it_backwards) {
    for (const bool reduced : {false, true}) {
        Hud hud;
        const ElementRef notice = hud.add(Notice{.id = "n", .reading = {.shortest = 1s, .longest = 1s}});
        hud.set_reduced_motion(reduced);
        update(hud, 1s);
        hud.notify(notice, {.text = "Fire"});  // 0.5 s fading in, 1 s, 0.5 s fading out
        std::vector<float> opacity;
        for (int i = 0; i < 40; ++i) {
            update(hud, 50ms);
            if (hud[notice].visible) opacity.push_back(hud[notice].opacity);
        }
        ASSERT_EQ(opacity.size(), 39U);
        for (std::size_t i = 0; i < opacity.size(); ++i) {
            const bool moves = !reduced && (i < 9 || i > 29);
            EXPECT_EQ(opacity[i] < 1, moves) << i;
            EXPECT_NEAR(opacity[i], opacity[opacity.size() - 1 - i], 1e-6) << i;
        }
        EXPECT_EQ(hud[notice].text, "");
    }
}

TEST(Notice, removes_what_leaves_when_its_effect_is_over) {
    Hud hud;
    const ElementRef text = hud.add(Text{.id = "t", .format = "bye"});
    update(hud, 10ms);
    hud.leave(text, "fade");
    update(hud, 250ms);
    EXPECT_NEAR(hud[text].opacity, 0.5, 1e-3);
    update(hud, 249ms);
    EXPECT_TRUE(hud[text].visible);
    update(hud, 1ms);
    EXPECT_FALSE(hud[text].visible);
    EXPECT_TRUE(hud.elements().empty());
}

TEST(Notice, reports_what_cannot_be) {
    const Result<HudDefinition> read = read_hud(R"([[timer]]
id = "fuse"

[[element]]
kind = "notice"
id = "news"
enter = "fad"
leave = "pulse"
messages = [
    { text = "a {", on = "mark", timer = "fuse" },
    { text = "{}" },
    { text = "b", on = "gain", element = "x" },
    { text = "c", on = "full" },
    { text = "d", on = "end", timer = "fus" },
    { text = "e", value = "nothing" },
]

[[element]]
kind = "notice"
id = "late"
messages = [{ text = "f", on = "empty", element = "wtaer" }]

[[element]]
kind = "bar"
id = "water"
value = 1
)",
                                                "hud.toml");
    ASSERT_TRUE(read);
    std::string all;
    const Hud faulty(*read);
    for (const Problem& problem : faulty.problems())
        all += to_string(problem) + "\n";
    for (const std::string_view part :
         {"hud.toml:7:10: error: 'enter' of notice 'news': no effect 'fad'; did you mean 'fade'?",
          "hud.toml:8:10: error: 'leave' of notice 'news': effect 'pulse' never ends",
          "'messages.1.text' of notice 'news' shows {} but has no 'value'",
          "'messages.2.on' of notice 'news': a message cannot be posted by a gain or a loss",
          "'messages.3' of notice 'news' needs 'element'",
          "'messages.4.timer' of notice 'news': no timer 'fus'; did you mean 'fuse'?",
          "'messages.5.value' of notice 'news': unknown source 'nothing'",
          "'messages.0.element' of notice 'late': no element 'wtaer'; did you mean 'water'?"})
        EXPECT_NE(all.find(part), std::string::npos) << part << "\n" << all;
    Hud hud;
    EXPECT_FALSE(hud.notify(hud.add(Text{.id = "t", .format = ""}), {.text = "x"}));
    EXPECT_FALSE(hud.problems().empty());
}

TEST(Notice, keeps_away_from_the_edge_of_the_screen_and_not_of_a_panel) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.add(Panel{.id = "p", .layout = Layout::column, .plate = false});
    const auto inside = hud.add(Notice{.id = "in", .inside = "p"});
    const auto alone = hud.add(Notice{.id = "alone"});
    for (const ElementRef notice : {inside, alone})
        hud.notify(notice, {.text = "Refilled"});
    update(hud, 16ms);
    EXPECT_EQ(hud[inside].box.y, 0);
    EXPECT_EQ(hud[alone].box.y, 96);
}

TEST(Notice, says_nothing_old_when_it_declares_other_messages) {
    for (const int at_most : {1, 2}) {
        Hud hud;
        const auto news = hud.add(Notice{.id = "news",
                                         .messages = {{.id = "a", .text = "Tank full", .lasting = true}},
                                         .enter = "",
                                         .leave = "",
                                         .at_most = at_most});
        const auto said = at_most > 1 ? hud.find("news.1") : news;
        EXPECT_TRUE(hud.notify(news, "a"));
        update(hud, 16ms);
        ASSERT_EQ(hud.text_of(said), "Tank full");
        EXPECT_TRUE(hud.change<Notice>(news, [](Notice& notice) { notice.messages.push_back({.text = "b"}); }));
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(said), "");
        EXPECT_FALSE(hud[said].visible);
    }
}

}  // namespace notice_test
}  // namespace rapido::test
