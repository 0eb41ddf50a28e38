// Lists: a panel for each entry of a container of the game.
#include <algorithm>
#include <cmath>
#include <deque>
#include <functional>
#include <list>
#include <map>
#include <memory>
#include <set>

#include "any_rate.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace list_test {

struct Pilot {
    std::string name;
    std::int64_t score = 0;
    std::optional<double> time;
    int rank_of() const { return static_cast<int>(name.size()); }
};

std::vector<Element> board(const Source& entries, List list = {}) {
    list.id = "board";
    list.entries = entries;
    return list_of(list, [](const auto& entry) {
        return nest(Panel{.layout = Layout::row, .plate = false}, Text{.id = "rank", .value = entry("rank")},
                    Text{.id = "name", .value = entry("name")},
                    Text{.id = "score", .value = entry("score"), .motion = tween(1s)});
    });
}

template <class Container>
Source pilots_of(Container& pilots) {
    return watch_entries(pilots, entry_field("name", &Pilot::name), entry_field("score", &Pilot::score),
                         entry_field("time", &Pilot::time));
}

/// A HUD with a list, and what is on screen of it.
struct Board {
    BoxMeasurer measurer;
    Hud hud;
    std::vector<ElementRef> panels;

    explicit Board(const Source& entries, List list = {}, const Sources& sources = {})
        : hud(HudDefinition{}, sources, &measurer) {
        hud.add(board(entries, std::move(list)));
        for (const ElementRef ref : hud.elements())
            if (hud[ref].kind == "panel") panels.push_back(ref);
    }
    std::string text(ElementRef panel, const std::string& id) {
        return std::string(hud.text_of(hud.find(std::string(hud[panel].id) + "." + id)));
    }
    /// `1 Ana 30`, from the top down.
    std::vector<std::string> rows() {
        std::vector<std::pair<float, std::string>> found;
        for (const ElementRef panel : panels)
            if (hud[panel].visible)
                found.emplace_back(hud[panel].box.y,
                                   text(panel, "rank") + " " + text(panel, "name") + " " + text(panel, "score"));
        std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
        std::vector<std::string> texts;
        for (auto& [y, text] : found)
            texts.push_back(std::move(text));
        return texts;
    }
    ElementRef panel_of(const std::string& name) {
        for (const ElementRef panel : panels)
            if (hud[panel].visible && text(panel, "name") == name) return panel;
        return {};
    }
};

using Rows = std::vector<std::string>;

/// No more than a range-based `for` asks for.
struct Strip {
    struct At {
        const Pilot* pilot;
        const Pilot& operator*() const { return *pilot; }
        void operator++() { ++pilot; }
        bool operator!=(const At& other) const { return pilot != other.pilot; }
    };
    const Pilot* first;
    const Pilot* last;
    At begin() const { return {first}; }
    At end() const { return {last}; }
};

TEST(List, shows_a_panel_for_each_entry_of_any_container) {
    const auto shows = [](auto& pilots, const Rows& expected) {
        Board board(pilots_of(pilots));
        update(board.hud, 16ms);
        EXPECT_EQ(board.hud.problems(), Problems{});
        EXPECT_EQ(board.rows(), expected);
    };
    const Rows both{"1 Ana 30", "2 Bo 20"};
    const std::vector<Pilot> pilots{{"Ana", 30, {}}, {"Bo", 20, {}}};
    shows(pilots, both);
    std::deque<Pilot> deque(pilots.begin(), pilots.end());
    shows(deque, both);
    std::list<Pilot> linked(pilots.begin(), pilots.end());
    shows(linked, both);
    const Strip strip{pilots.data(), pilots.data() + 2};
    shows(strip, both);
    const std::array array{pilots[0], pilots[1]};
    shows(array, both);
    std::vector<const Pilot*> pointers{pilots.data(), nullptr, &pilots[1]};
    shows(pointers, {"1 Ana 30", "2 -- --", "3 Bo 20"});
    std::vector<std::shared_ptr<Pilot>> shared{std::make_shared<Pilot>(pilots[0])};
    shows(shared, {"1 Ana 30"});
    std::vector<Pilot> none;
    shows(none, {});

    std::map<std::string, int> scores{{"Bo", 20}, {"Ana", 30}};
    Board board(watch_entries(scores, entry_field("name", [](const auto& entry) { return "Capt. " + entry.first; }),
                              entry_field("score", [](const auto& entry) { return entry.second; })));
    update(board.hud, 16ms);
    EXPECT_EQ(board.rows(), (Rows{"1 Capt. Ana 30", "2 Capt. Bo 20"}));
}

TEST(List, orders_by_a_field_and_shows_the_first) {
    std::vector<Pilot> pilots{{"Ana", 30, 4.5}, {"Bo", 70, {}}, {"Cy", 50, 2.0}, {"Di", 70, 3.0}};
    const auto shows = [&](const List& list, const Rows& expected) {
        Board board(pilots_of(pilots), list);
        update(board.hud, 16ms);
        EXPECT_EQ(board.rows(), expected) << list.sort;
    };
    shows({.sort = "score", .sort_order = SortOrder::descending}, {"1 Bo 70", "2 Di 70", "3 Cy 50", "4 Ana 30"});
    shows({.sort = "score", .at_most = 2}, {"1 Ana 30", "2 Cy 50"});
    shows({.sort = "name", .sort_order = SortOrder::descending, .at_most = 1}, {"1 Di 70"});
    shows({.sort = "time"}, {"1 Cy 50", "2 Di 70", "3 Ana 30", "4 Bo 70"});
    shows({.sort = "time", .sort_order = SortOrder::descending}, {"1 Ana 30", "2 Di 70", "3 Cy 50", "4 Bo 70"});
    pilots[0].time = std::numeric_limits<double>::quiet_NaN();
    shows({.sort = "time"}, {"1 Cy 50", "2 Di 70", "3 Ana 30", "4 Bo 70"});
    shows({.at_most = 0}, {});  // which is refused
}

TEST(List, tells_how_many_there_are) {
    std::vector<Pilot> pilots(7);
    Board board(pilots_of(pilots), {.at_most = 5});
    const auto text =
        board.hud.add(Text{.id = "all", .value = "board.count", .max = "board.more", .format = "{} ({max} more)"});
    update(board.hud, 16ms);
    EXPECT_EQ(board.hud.text_of(text), "7 (2 more)");
    pilots.resize(3);
    update(board.hud, 16ms);
    EXPECT_EQ(board.hud.text_of(text), "3 (0 more)");

    // Also what stands before the list: in a definition, and where the list is added later.
    HudDefinition definition;
    definition.elements = {Panel{.id = "left"}, Text{.id = "all", .value = "board.count", .inside = "left"},
                           List{.id = "board", .entries = pilots_of(pilots), .inside = "left"}};
    Hud hud(definition);
    EXPECT_EQ(hud.problems(), Problems{});
    const auto early = hud.add(Text{.id = "early", .value = "late.count"});
    EXPECT_EQ(hud.problems().size(), 1U);
    hud.add(List{.id = "late", .entries = pilots_of(pilots)});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("all")), "3");
    EXPECT_EQ(hud.text_of(early), "3");
}

/// What a list must show, by a stable sort of all of it.
std::vector<Pilot> expected_of(std::vector<Pilot> pilots, bool is_sorted, std::size_t most) {
    if (is_sorted)
        std::stable_sort(pilots.begin(), pilots.end(),
                         [](const Pilot& a, const Pilot& b) { return a.score > b.score; });
    if (pilots.size() > most) pilots.resize(most);
    return pilots;
}

TEST(List, follows_a_container_that_changes_in_every_way) {
    for (const std::uint64_t seed : {1U, 2U, 3U, 4U, 5U, 6U}) {
        Random random(seed);
        const bool is_sorted = seed % 2 == 0;
        std::vector<Pilot> pilots;
        Board board(
            pilots_of(pilots),
            {.key = "name", .sort = is_sorted ? "score" : "", .sort_order = SortOrder::descending, .at_most = 6});
        int born = 0;
        std::map<std::string, ElementRef> before;
        for (int frame = 0; frame < 600; ++frame) {
            const int changes = random.below(3);
            for (int i = 0; i < changes; ++i) {
                const int what = random.below(5);
                const auto any = [&] {
                    return static_cast<std::size_t>(random.below(static_cast<int>(pilots.size())));
                };
                if (what == 0 || pilots.empty())
                    pilots.insert(pilots.begin() + random.below(static_cast<int>(pilots.size()) + 1),
                                  {"P" + std::to_string(++born), random.below(100), {}});
                else if (what == 1)
                    pilots.erase(pilots.begin() + static_cast<std::ptrdiff_t>(any()));
                else if (what == 2)
                    std::swap(pilots[any()], pilots[any()]);
                else
                    pilots[any()].score += random.below(50);
            }
            update(board.hud, 16ms);
            ASSERT_EQ(board.hud.problems(), Problems{});
            const std::vector<Pilot> expected = expected_of(pilots, is_sorted, 6);
            std::map<std::string, ElementRef> now;
            float below = -1;
            for (std::size_t rank = 0; rank < expected.size(); ++rank) {
                const ElementRef panel = board.panel_of(expected[rank].name);
                ASSERT_TRUE(panel) << expected[rank].name << ", seed " << seed << ", frame " << frame;
                ASSERT_EQ(board.text(panel, "rank"), std::to_string(rank + 1));
                ASSERT_GT(board.hud[panel].box.y, below) << "they stand in their order";
                below = board.hud[panel].box.y;
                const ElementRef score = board.hud.find(std::string(board.hud[panel].id) + ".score");
                ASSERT_EQ(board.hud[score].truth, Value(expected[rank].score));
                const auto known = before.find(expected[rank].name);
                if (known != before.end()) {
                    ASSERT_EQ(known->second, panel) << "an entry keeps its panel";
                } else {
                    ASSERT_EQ(board.hud[score].shown, board.hud[score].truth) << "a new one is taken as given";
                }
                now[expected[rank].name] = panel;
            }
            ASSERT_EQ(board.rows().size(), expected.size());
            before = std::move(now);
        }
    }
}

TEST(List, lets_entries_travel_to_their_new_places) {
    std::vector<Pilot> pilots{{"Ana", 30, {}}, {"Bo", 20, {}}, {"Cy", 10, {}}};
    Board board(pilots_of(pilots), {.key = "name",
                                    .sort = "score",
                                    .sort_order = SortOrder::descending,
                                    .place_motion = tween(100ms, Easing::linear())});
    update(board.hud, 16ms);
    const auto seen = [&](const std::string& name) {
        const Shown shown = board.hud[board.panel_of(name)];
        return shown.box.y + shown.offset.y;
    };
    const float first = seen("Ana"), second = seen("Bo"), third = seen("Cy");
    pilots[2].score = 40;
    update(board.hud, 10ms);
    EXPECT_FLOAT_EQ(seen("Cy"), third) << "it starts where it was";
    EXPECT_FLOAT_EQ(seen("Ana"), first);
    EXPECT_EQ(board.hud[board.panel_of("Cy")].box.y, first) << "its place is the new one";
    update(board.hud, 50ms);
    EXPECT_NEAR(seen("Cy"), (third + first) / 2, 0.01);
    EXPECT_NEAR(seen("Ana"), (first + second) / 2, 0.01);
    const auto score = board.hud.find(std::string(board.hud[board.panel_of("Cy")].id) + ".score");
    EXPECT_NEAR(board.hud[score].offset.y, (third - first) / 2, 0.01) << "with all that stands inside";
    update(board.hud, 60ms);
    EXPECT_FLOAT_EQ(seen("Cy"), first);

    pilots[2].score = 1;
    board.hud.snap();
    update(board.hud, 10ms);
    EXPECT_FLOAT_EQ(seen("Cy"), third) << "a snap has no way";
    board.hud.set_reduced_motion(true);
    pilots[2].score = 40;
    update(board.hud, 10ms);
    EXPECT_FLOAT_EQ(seen("Cy"), first) << "and neither has reduced motion";
    board.hud.set_reduced_motion(false);
    pilots[2].name = "Cyrus the long";
    update(board.hud, 10ms);
    update(board.hud, 10ms);
    pilots[0].score = 1'000'000;
    update(board.hud, 10ms);
    EXPECT_EQ(board.hud[board.panel_of("Ana")].offset.x, 0) << "only their order makes them travel";
}

TEST(List, lets_entries_enter_and_leave) {
    std::vector<Pilot> pilots{{"Ana", 30, {}}, {"Bo", 20, {}}, {"Cy", 10, {}}};
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.add(list_of({.id = "board", .entries = pilots_of(pilots), .key = "name"}, [](const auto& entry) {
        return nest(Panel{.plate = false, .enter = "fade"}, Text{.id = "name", .value = entry("name")});
    }));
    const auto panel_of = [&](std::string_view name) {
        for (const ElementRef ref : hud.elements())
            if (hud[ref].kind == "text" && hud[ref].visible && hud.text_of(ref) == name) return hud[ref];
        return Shown{};
    };
    update(hud, 16ms);
    const float second = panel_of("Bo").box.y, third = panel_of("Cy").box.y;
    EXPECT_EQ(panel_of("Bo").opacity, 1) << "the first frame is silent";
    pilots.erase(pilots.begin() + 1);
    pilots.push_back({"Di", 5, {}});
    update(hud, 50ms);
    EXPECT_EQ(panel_of("Bo").text, "Bo") << "one that leaves is still drawn";
    EXPECT_EQ(panel_of("Bo").box.y, second) << "and keeps its room";
    EXPECT_EQ(panel_of("Cy").box.y, third);
    EXPECT_LT(panel_of("Di").opacity, 1);
    update(hud, 10ms);
    EXPECT_EQ(panel_of("Bo").text, "Bo") << "what stands at its old place is another one";
    EXPECT_EQ(panel_of("Bo").box.y, second);
    for (int i = 0; i < 30; ++i)
        update(hud, 50ms);
    EXPECT_FALSE(panel_of("Bo").visible);
    EXPECT_EQ(panel_of("Cy").box.y, second);
    EXPECT_EQ(panel_of("Di").box.y, third);
    EXPECT_EQ(panel_of("Di").opacity, 1);
    for (int i = 0; i < 100; ++i) {  // more than there are panels, in a row
        pilots[0].name = "P" + std::to_string(i);
        update(hud, 1ms);
        ASSERT_TRUE(panel_of(pilots[0].name).visible) << i;
    }
}

TEST(List, tells_apart_equal_keys_and_entries_without_one) {
    std::vector<Pilot> pilots{{"Ana", 1, {}}, {"Ana", 2, {}}, {"", 3, {}}, {"", 4, {}}};
    Board board(pilots_of(pilots), {.key = "name"});
    update(board.hud, 16ms);
    EXPECT_EQ(board.rows(), (Rows{"1 Ana 1", "2 Ana 2", "3  3", "4  4"}));

    // A second one of a key takes that of no other: who is alone with a key keeps the panel whatever the others do.
    std::vector<Pilot> numbered{{"Ana", 5, {}}, {"Bo", 5, {}}, {"Cy", 6, {}}};
    Board other(pilots_of(numbered), {.key = "score"});
    update(other.hud, 16ms);
    const auto panel_of = [&](std::string_view name) {
        for (const ElementRef ref : other.panels)
            if (other.hud[ref].visible && other.text(ref, "name") == name) return ref;
        return ElementRef{};
    };
    const ElementRef before = panel_of("Cy");
    ASSERT_TRUE(before);
    std::swap(numbered[0], numbered[2]);
    update(other.hud, 16ms);
    EXPECT_EQ(panel_of("Cy"), before);
}

TEST(List, binds_when_its_name_comes) {
    Sources sources;
    std::vector<Pilot> pilots{{"Ana", 30, {}}};
    Board board("pilots", {}, sources);
    EXPECT_FALSE(board.hud.problems().empty()) << "nobody has the name";
    EXPECT_EQ(board.hud.problems().size(), 1U);
    update(board.hud, 16ms);
    EXPECT_EQ(board.rows(), Rows{});
    sources.set("pilots", pilots_of(pilots));
    update(board.hud, 16ms);
    update(board.hud, 16ms);
    EXPECT_EQ(board.rows(), Rows{"1 Ana 30"});
    EXPECT_TRUE(board.hud.problems().empty()) << "a name that has come is no problem any more";
    std::vector<Pilot> others{{"Bo", 20, {}}, {"Cy", 10, {}}};
    sources.set("pilots", pilots_of(others));
    update(board.hud, 16ms);
    EXPECT_EQ(board.rows(), (Rows{"1 Bo 20", "2 Cy 10"}));
}

TEST(List, may_be_removed_and_added_again) {
    std::vector<Pilot> pilots{{"Ana", 30, {}}};
    Board board(pilots_of(pilots));
    const auto count = board.hud.add(Text{.id = "count", .value = "board.count"});
    update(board.hud, 16ms);
    EXPECT_EQ(board.hud.text_of(count), "1");
    board.hud.remove(board.hud.find("board"));
    update(board.hud, 16ms);
    EXPECT_EQ(board.hud.text_of(count), "--") << "nobody tells it any more";
    EXPECT_EQ(board.hud.elements().size(), 1U) << "its panels are gone with it";
    struct Plane {
        double name;  // a number where the other list has a text
        std::string score;
    };
    std::vector<Plane> planes{{1.5, "high"}, {2.5, "low"}};
    board.hud.add(list_test::board(
        watch_entries(planes, entry_field("name", &Plane::name), entry_field("score", &Plane::score))));
    update(board.hud, 16ms);
    EXPECT_EQ(board.hud.text_of(count), "2");
    EXPECT_EQ(board.hud.text_of(board.hud.find("board.1.name")), "1.5");
    EXPECT_EQ(board.hud.text_of(board.hud.find("board.2.score")), "low");
    EXPECT_EQ(board.hud.problems(), Problems{});
}

TEST(List, refuses_what_it_cannot_show) {
    std::vector<Pilot> pilots(1);
    const auto problem_of = [](std::vector<Element> elements) {
        int number = 7;
        Sources sources;
        sources.set("number", watch(number));
        Hud hud{HudDefinition{}, sources};
        hud.add(elements);
        return hud.problems().empty() ? "" : hud.problems().front().message + "; " + hud.problems().front().hint;
    };
    const auto one = [](const std::string& field) {
        return [field](const auto& entry) { return Text{.id = "t", .value = entry(field)}; };
    };
    EXPECT_EQ(problem_of(list_of({.id = "l", .entries = "number"}, one("name"))),
              "'entries' of list 'l' needs entries, and this source is one value; offer it by "
              "rapido::watch_entries");
    EXPECT_EQ(problem_of(list_of({.id = "l", .entries = pilots_of(pilots), .sort = "scor"}, one("name"))),
              "'sort' of list 'l': the entries have no field 'scor'; did you mean 'score'?");
    EXPECT_EQ(problem_of(list_of({.id = "l", .entries = pilots_of(pilots)}, one("nmae"))),
              "'value' of text 'l.1': the entries of list 'l' have no field 'nmae'; did you mean 'name'?");
}

TEST(List, is_stamped_by_a_file_and_read_from_a_trace) {
    const char* const file = R"(
        [component.row]
        parameters = { name = "source", score = "source", tint = { type = "color", default = "#ffffff" } }
        layout = "row"
        [[component.row.element]]
        kind = "text"
        id = "name"
        value = "$name"
        color = "$tint"
        [[component.row.element]]
        kind = "text"
        id = "score"
        value = "$score"

        [[element]]
        kind = "panel"
        id = "left"
        [[element.element]]
        kind = "list"
        id = "board"
        entries = "pilots"
        component = "row"
        key = "name"
        sort = "score"
        sort_order = "descending"
        at_most = 3
        with = { tint = "#ff0000" })";
    const auto definition = read_hud(file, "hud.toml");
    ASSERT_TRUE(definition) << to_string(definition.problems().front());
    const auto trace = Trace::read(
        "{\"time\": 0, \"pilots\": [{\"name\": \"Ana\", \"score\": 1}, {\"name\": \"Bo\", \"score\": 5}]}\n"
        "{\"time\": 1, \"pilots\": [{\"name\": \"Cy\", \"score\": 3}]}\n"
        "{\"time\": 2, \"pilots.2.name\": \"Di\"}\n",
        "trace");
    ASSERT_TRUE(trace) << to_string(trace.problems().front());
    TracePlayer player(*trace);
    BoxMeasurer measurer;
    Hud hud{*definition, player.sources(), &measurer};
    EXPECT_EQ(hud.problems(), Problems{});
    const auto shows = [&](Nanoseconds time, const Rows& expected) {
        player.seek(time);
        update(hud, 16ms);
        std::vector<std::pair<float, std::string>> found;
        for (const ElementRef ref : hud.elements()) {
            if (hud[ref].kind != "panel" || !hud[ref].visible || hud[ref].id == "left") continue;
            const std::string path(hud[ref].id);
            found.emplace_back(hud[ref].box.y, std::string(hud.text_of(hud.find(path + ".name"))) + " " +
                                                   std::string(hud.text_of(hud.find(path + ".score"))));
            EXPECT_EQ(hud[hud.find(path + ".name")].color, rgb(0xff0000));
        }
        std::sort(found.begin(), found.end());
        Rows rows;
        for (const auto& [y, text] : found)
            rows.push_back(text);
        EXPECT_EQ(rows, expected);
    };
    shows(0s, {"Bo 5", "Ana 1"});
    shows(1s, {"Cy 3"});
    shows(2s, {"Cy 3", "Di --"});

    const auto first_problem = [&](const std::string& from, const std::string& to) {
        std::string text = file;
        text.replace(text.find(from), from.size(), to);
        const auto read = read_hud(text, "hud.toml");
        return read ? "" : to_string(read.problems().front());
    };
    EXPECT_EQ(first_problem("component = \"row\"", "component = \"rows\""),
              "hud.toml:22:21: error: 'component' of list 'board': no component 'rows'; did you mean 'row'?");
    std::string twice = file;
    twice.replace(twice.find("layout = \"row\""), 14, "layuot = \"row\"");
    twice.replace(twice.find("id = \"score\"\n        value"), 25, "id = \"score\"\n        vlaue");
    const auto faults = read_hud("desgin = 1\n" + twice, "hud.toml");
    ASSERT_FALSE(faults);
    EXPECT_EQ(faults.problems().size(), 3U) << "each fault once, also of what a list stamps";
    EXPECT_EQ(first_problem("component = \"row\"\n", ""),
              "hud.toml:18:9: error: list 'board' has no 'component'; name the one that shows an entry");
    EXPECT_EQ(first_problem("{ tint = \"#ff0000\" }", "{ tnit = 1 }"),
              "hud.toml:27:18: error: unknown key 'tnit' in 'with' of list 'board'; did you mean 'tint'?");
}

TEST(List, goes_on_when_panels_are_removed_hidden_and_snapped_in_one_hitch) {
    std::vector<Pilot> pilots{{"Ana", 30, {}}, {"Bo", 20, {}}, {"Cy", 10, {}}};
    Board board(pilots_of(pilots), {.key = "name", .sort = "score", .at_most = 3});
    update(board.hud, 16ms);
    const ElementRef list = board.hud.find("board");
    board.hud.set_visible(list, false);
    pilots[0].score = 5;
    board.hud.remove(board.panels.front());
    board.panels.erase(board.panels.begin());
    update(board.hud, 8s);
    board.hud.snap(list);
    board.hud.set_visible(list, true);
    pilots.push_back({"Di", 1, {}});
    update(board.hud, 8s);
    EXPECT_EQ(board.rows(), (Rows{"1 Di 1", "2 Ana 5", "3 Cy 10"}));
}

TEST(List, closes_up_when_a_row_has_left_whatever_the_frames_are) {
    std::vector<Pilot> pilots;
    expect_the_same_at_any_rate(
        [&](BoxMeasurer& measurer) {
            pilots = {{"Ana", 30, {}}, {"Bo", 20, {}}, {"Cy", 10, {}}};
            const Effect out{.id = "out", .duration = 137ms, .keyframes = {{.at = 0, .opacity = 0.0F}}};
            auto hud = std::make_unique<Hud>(HudDefinition{.effects = {out}}, Sources{}, &measurer);
            const List list{.id = "board", .entries = pilots_of(pilots), .key = "name", .at_most = 3};
            hud->add(list_of(list, [](const auto& entry) {
                return nest(Panel{.layout = Layout::row, .plate = false, .leave = "out"},
                            Text{.id = "name", .value = entry("name")});
            }));
            return hud;
        },
        [&](Hud&, int ms) {
            if (ms == 500) pilots.erase(pilots.begin());
            if (ms == 1200) pilots.push_back({"Di", 5, {}});
            if (ms == 1300) pilots.erase(pilots.begin());
        });
    // And not before it has.
    pilots = {{"Ana", 30, {}}, {"Bo", 20, {}}};
    const Effect out{.id = "out", .duration = 500ms, .keyframes = {{.at = 0, .opacity = 0.0F}}};
    BoxMeasurer measurer;
    Hud hud{HudDefinition{.effects = {out}}, {}, &measurer};
    const List list{
        .id = "board", .entries = pilots_of(pilots), .key = "name", .place_motion = tween(1s, Easing::linear())};
    hud.add(list_of(list, [](const auto& entry) {
        return nest(Panel{.plate = false, .leave = "out"}, Text{.id = "name", .value = entry("name")});
    }));
    update(hud, 16ms);
    const ElementRef second = hud.find("board.2");
    const float high = hud[second].box.y - hud[hud.find("board.1")].box.y;
    ASSERT_GT(high, 0);
    pilots.erase(pilots.begin());
    update(hud, 0s);
    update(hud, 400ms);
    EXPECT_EQ(hud[second].offset.y, 0);
    update(hud, 200ms);
    EXPECT_NEAR(hud[second].offset.y, 0.9F * high, 0.1F) << "it has moved for a tenth of a second";
}

}  // namespace list_test
}  // namespace rapido::test
