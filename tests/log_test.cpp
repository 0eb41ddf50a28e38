// Logs: notices that show several messages at once.
#include <algorithm>
#include <set>

#include "any_rate.hpp"

namespace rapido::test {
namespace log_test {

using Rows = std::vector<std::string>;

TEST(Log, shows_several_messages_at_once_and_the_newest_last) {
    for (const bool newest_first : {false, true}) {
        BoxMeasurer measurer;
        Hud hud{HudDefinition{}, {}, &measurer};
        const auto log = hud.add(Notice{.id = "log",
                                        .enter = "",
                                        .leave = "",
                                        .reading = {.shortest = 2s, .longest = 2s},
                                        .at_most = 3,
                                        .newest = newest_first ? Newest::first : Newest::last,
                                        .place = {.anchor = Anchor::top_left}});
        EXPECT_EQ(hud.problems(), Problems{});
        const auto shows = [&](const Rows& expected) {
            std::vector<std::pair<float, std::string>> found;
            for (const ElementRef ref : hud.elements())
                if (hud[ref].visible && ref != log) found.emplace_back(hud[ref].box.y, hud[ref].text);
            std::sort(found.begin(), found.end());
            Rows rows;
            for (const auto& [y, text] : found)
                rows.push_back(text);
            if (newest_first) std::reverse(rows.begin(), rows.end());
            EXPECT_EQ(rows, expected);
        };
        update(hud, 100ms);
        shows({});
        int acres = 12;
        EXPECT_TRUE(hud.notify(log, {.text = "{} acres", .value = watch(acres)}));
        update(hud, 1s);
        shows({"12 acres"});
        hud.notify(log, {.text = "Refilled"});
        hud.notify(log, {.text = "Hit"});
        update(hud, 500ms);
        shows({"12 acres", "Refilled", "Hit"});
        hud.notify(log, {.text = "Hit"});
        hud.notify(log, {.text = "Waits"});
        update(hud, 100ms);
        shows({"12 acres", "Refilled", "Hit ×2"});
        update(hud, 500ms);
        shows({"Refilled", "Hit ×2", "Waits"});
        EXPECT_EQ(hud[log].box.height, 3 * hud[hud.find("log.1")].box.height + 2 * 4);
        std::vector<std::string> events;
        for (int i = 0; i < 60; ++i) {
            update(hud, 50ms);
            for (const Event& event : hud.events())
                events.push_back(event.id + " " + std::string(to_string(event.kind)) + " " + event.detail);
        }
        shows({});
        EXPECT_EQ(events, (Rows{"log leave Refilled", "log leave Hit", "log leave Waits"}));
    }
}

TEST(Log, gives_way_to_what_is_more_urgent_and_takes_messages_away) {
    Hud hud;
    const auto log = hud.add(Notice{.id = "log",
                                    .messages = {{.id = "fuel", .text = "Fuel low", .lasting = true}},
                                    .enter = "",
                                    .leave = "",
                                    .at_most = 2});
    const auto said = [&] {
        std::set<std::string> texts;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].visible && !hud[ref].text.empty()) texts.insert(std::string(hud[ref].text));
        return texts;
    };
    using Said = std::set<std::string>;
    EXPECT_TRUE(hud.notify(log, "fuel"));
    hud.notify(log, {.id = "a", .text = "A", .show_for = 60s});
    update(hud, 100ms);
    EXPECT_EQ(said(), (Said{"A", "Fuel low"}));
    hud.notify(log, {.id = "b", .text = "B", .priority = 1, .show_for = 60s});
    update(hud, 100ms);
    EXPECT_TRUE(said().contains("B"));
    EXPECT_EQ(said().size(), 2U);
    EXPECT_TRUE(hud.dismiss(log, "b"));
    update(hud, 100ms);
    update(hud, 100ms);
    EXPECT_EQ(said(), (Said{"A", "Fuel low"})) << "what was interrupted comes again";
    EXPECT_TRUE(hud.dismiss(log, "fuel"));
    EXPECT_FALSE(hud.dismiss(log, "fuel"));
    update(hud, 100ms);
    EXPECT_EQ(said(), Said{"A"});
    hud.change<Notice>(log, [](Notice& notice) { notice.show_count = false; });
    EXPECT_EQ(hud.problems(), Problems{});
    update(hud, 100ms);
    EXPECT_EQ(said(), Said{"A"}) << "a change keeps what is said";
    EXPECT_FALSE(hud.change<Notice>(log, [](Notice& notice) { notice.at_most = 3; }));
    hud.snap(log);
    update(hud, 100ms);
    EXPECT_EQ(said(), Said{});
    EXPECT_TRUE(hud.notify(log, {.text = "C"}));
    hud.remove(log);
    update(hud, 100ms);
    EXPECT_TRUE(hud.elements().empty());
}

TEST(Log, tells_each_of_several_messages_of_one_frame) {
    Hud hud;
    const auto log = hud.add(Notice{.id = "log", .enter = "", .leave = "", .at_most = 3});
    for (const char* const text : {"Hull", "Fuel", "Rain"})
        hud.notify(log, {.text = text, .show_for = 9s});
    update(hud, 100ms);
    std::vector<std::string> told;
    for (const Event& event : hud.events())
        told.push_back(event.detail);
    EXPECT_EQ(told, (std::vector<std::string>{"Hull", "Fuel", "Rain"}));
}

TEST(Log, gives_no_message_to_a_plate_that_is_gone_after_a_change) {
    Hud hud;
    const auto log = hud.add(Notice{.id = "log", .enter = "", .leave = "", .at_most = 2});
    hud.remove(hud.find("log.1"));
    update(hud, 100ms);
    // Another number of declared messages: the queue begins anew.
    ASSERT_TRUE(hud.change<Notice>(log, [](Notice& notice) { notice.messages.push_back({.id = "m", .text = "M"}); }));
    update(hud, 100ms);
    hud.notify(log, {.text = "A", .show_for = 1s});
    hud.notify(log, {.text = "B", .show_for = 1s});
    const auto said = [&] {
        std::vector<std::string> texts;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].visible && !hud[ref].text.empty()) texts.emplace_back(hud[ref].text);
        return texts;
    };
    update(hud, 100ms);
    EXPECT_EQ(said(), std::vector<std::string>{"A"});
    update(hud, 1500ms);
    EXPECT_EQ(said(), std::vector<std::string>{"B"});
}

TEST(Log, goes_on_when_plates_are_removed_in_mid_message) {
    Hud hud;
    const auto log = hud.add(Notice{.id = "log", .at_most = 3});
    hud.notify(log, {.text = "A", .show_for = 9s});
    hud.notify(log, {.text = "B", .show_for = 9s});
    update(hud, 16ms);
    hud.remove(hud.find("log.1"));
    EXPECT_TRUE(hud.notify(log, {.text = "C", .show_for = 9s}));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("log.2")), "B");
    EXPECT_EQ(hud.text_of(hud.find("log.3")), "C");
    hud.remove(hud.find("log.2"));
    hud.remove(hud.find("log.3"));
    update(hud, 16ms);
    EXPECT_TRUE(hud.notify(log, {.text = "D"})) << "even without any";
    update(hud, 8s);
    EXPECT_EQ(hud.problems(), Problems{});
}

TEST(Log, is_the_same_at_any_frame_rate_and_leaves_no_plate_empty) {
    expect_the_same_at_any_rate(
        [](BoxMeasurer& measurer) {
            auto hud = std::make_unique<Hud>(
                HudDefinition{.effects = {{.id = "out", .duration = 137ms, .keyframes = {{.at = 0, .opacity = 0.0F}}}}},
                Sources{}, &measurer);
            hud->add(Notice{.id = "log",
                            .enter = "out",
                            .leave = "out",
                            .at_most = 2,
                            .place_motion = tween(313ms),
                            .place = {.anchor = Anchor::top_left}});
            return hud;
        },
        nullptr,
        [](Hud& hud, int ms) {
            const ElementRef log = hud.find("log");
            if (ms == 100) {
                hud.notify(log, {.text = "fuel", .show_for = 421ms});
                hud.notify(log, {.text = "hull", .show_for = 1507ms});
                hud.notify(log, {.text = "rain", .show_for = 433ms});
                hud.notify(log, {.text = "wind", .show_for = 451ms});
            }
            std::string said;
            for (const char* const plate : {"log.1", "log.2"})
                if (hud[hud.find(plate)].visible) said += std::string(hud.text_of(hud.find(plate))) + " ";
            // `fuel` is gone at 795 ms, `rain` at 1502: who waits has the plate that is free, not that of `hull`.
            const bool is_right = ms == 1000   ? said == "rain hull " || said == "hull rain "
                                  : ms == 1700 ? said.find("wind") != std::string::npos
                                               : true;
            EXPECT_TRUE(is_right) << ms << ": " << said;
        });
}

TEST(Log, is_posted_to_by_events_and_sources) {
    bool low = false;
    int hull = 3;
    Hud hud;
    hud.add(Bar{.id = "hull", .value = watch(hull), .max = 3});
    hud.add(Notice{.id = "log",
                   .messages = {{.text = "Low", .when = watch(low), .lasting = true},
                                {.text = "Destroyed", .on = TriggerOn::empty, .element = "hull"}},
                   .at_most = 2});
    EXPECT_EQ(hud.problems(), Problems{});
    update(hud, 16ms);
    low = true;
    hull = 0;
    update(hud, 16ms);
    std::set<std::string> said;
    for (const ElementRef ref : hud.elements())
        if (hud[ref].visible) said.insert(std::string(hud[ref].text));
    EXPECT_TRUE(said.contains("Low") && said.contains("Destroyed"));
    low = false;
    for (int i = 0; i < 40; ++i)
        update(hud, 16ms);
    EXPECT_FALSE(hud[hud.find("log.1")].visible && hud.text_of(hud.find("log.1")) == "Low");
}

}  // namespace log_test
}  // namespace rapido::test
