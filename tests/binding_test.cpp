// Every kind of source, and what becomes of an element when its source does.
#include "support.hpp"

namespace rapido::test {

enum class Gear : std::uint8_t { up, moving, down };
constexpr std::string_view name_of(Gear gear) {
    constexpr std::array<std::string_view, 3> names{"up", "moving", "down"};
    return names[static_cast<std::size_t>(gear)];
}

namespace binding_test {

struct Village {
    std::string name;
    int houses = 0;
    std::string greeting() const { return "Hello " + name; }
};

std::string shown(Hud& hud, const char* id) {
    return std::string(hud[hud.find(id)].text);
}

TEST(Source, may_be_an_enumeration_an_optional_a_member_or_an_entry_of_a_list) {
    Gear gear = Gear::up;
    std::optional<int> repair;
    Village village{"Pine Hollow", 12};
    Village* target = nullptr;
    auto owned = std::make_unique<Village>(Village{"Alder Creek", 3});
    std::vector<Village> villages{{"Stonebridge", 40}, {"Fern Lake", 7}};
    std::vector<std::string> names{"a", "b"};
    int in_danger = 1;
    Hud hud;
    hud.add(Text{.id = "gear", .value = watch(gear)});
    hud.add(Text{.id = "repair", .value = watch(repair), .format = "€{}"});
    hud.add(Text{.id = "houses", .value = watch(village, &Village::houses)});
    hud.add(Text{.id = "greeting", .value = watch(village, &Village::greeting)});
    hud.add(Text{.id = "double", .value = watch(village, [](const Village& v) { return v.houses * 2; })});
    hud.add(Text{.id = "target", .value = watch(target, &Village::name)});
    hud.add(Text{.id = "owned", .value = watch(owned, &Village::houses)});
    hud.add(Text{.id = "danger", .value = watch(villages, in_danger, &Village::name)});
    hud.add(Text{.id = "entry", .value = watch(names, in_danger)});
    hud.add(Text{.id = "maybe", .value = watch([&]() -> std::optional<std::string> {
                                    return in_danger == 1 ? std::optional<std::string>("yes, in danger") : std::nullopt;
                                })});
    const auto expect = [&](std::initializer_list<std::pair<const char*, const char*>> texts) {
        update(hud, 0s);
        for (const auto& [id, text] : texts)
            EXPECT_EQ(shown(hud, id), text) << id;
    };
    expect({{"gear", "up"},
            {"repair", "€--"},
            {"houses", "12"},
            {"greeting", "Hello Pine Hollow"},
            {"double", "24"},
            {"target", "--"},
            {"owned", "3"},
            {"danger", "Fern Lake"},
            {"entry", "b"},
            {"maybe", "yes, in danger"}});
    gear = Gear::down, repair = 1480, village = {"Fern", 5}, target = &village, owned.reset(), in_danger = 0;
    expect({{"gear", "down"},
            {"repair", "€1480"},
            {"houses", "5"},
            {"greeting", "Hello Fern"},
            {"double", "10"},
            {"target", "Fern"},
            {"owned", "--"},
            {"danger", "Stonebridge"},
            {"entry", "a"},
            {"maybe", "--"}});
    villages.clear(), in_danger = -1;
    expect({{"danger", "--"}, {"entry", "--"}});
    EXPECT_EQ(hud.problems(), Problems{});
}

TEST(Source, of_a_shared_pointer_dies_with_its_object) {
    auto village = std::make_shared<Village>(Village{"A village with a long name", 12});
    Hud hud;
    hud.add(Text{.id = "name", .value = watch(village, &Village::name)});
    hud.add(Text{.id = "houses", .value = watch(std::weak_ptr(village), &Village::houses), .placeholder = "gone"});
    update(hud, 0s);
    EXPECT_EQ(shown(hud, "name"), "A village with a long name");
    village.reset();
    update(hud, 0s);
    EXPECT_EQ(shown(hud, "name"), "--");
    EXPECT_EQ(shown(hud, "houses"), "gone");
}

TEST(Source, is_computed_with_and_negated_by_declaration) {
    float speed = 10;
    int celsius = 100;
    bool paused = false;
    std::string text = "x";
    Sources sources;
    sources.set("speed", watch(speed));
    HudDefinition definition;
    definition.timers.push_back({.id = "fire", .duration = 10s});
    definition.elements = {Text{.id = "kmh", .value = watch(speed) * 3.6, .format = "{:.1f} km/h"},
                           Text{.id = "named", .value = Source("speed") * 2 * 2 + 1, .format = "{:.0f}"},
                           Text{.id = "fahrenheit", .value = watch(celsius) * 1.8 + 32, .format = "{:.0f} °F"},
                           Text{.id = "none", .value = watch(text) * 2},
                           Text{.id = "not", .value = watch(paused).negated()},
                           Text{.id = "tenths", .value = Source("fire.left") / 100ms, .format = "{:.0f}"}};
    Hud hud(definition, sources);
    EXPECT_EQ(hud.problems(), Problems{});
    update(hud, 0s);
    EXPECT_EQ(shown(hud, "kmh"), "36.0 km/h");
    EXPECT_EQ(shown(hud, "named"), "41");
    EXPECT_EQ(shown(hud, "fahrenheit"), "212 °F");
    EXPECT_EQ(shown(hud, "none"), "--");
    EXPECT_EQ(shown(hud, "not"), "true");
    EXPECT_EQ(shown(hud, "tenths"), "100");
    update(hud, 1s);
    EXPECT_EQ(shown(hud, "tenths"), "90");
}

TEST(Live, tells_of_its_changes_and_of_its_end) {
    Hud hud;
    {
        Live<int> health{100};
        Live<std::string> name{"Alder Creek"};
        hud.add(Text{.id = "health", .value = watch(health), .max = 100, .format = "{}/{max}"});
        hud.add(Text{.id = "again", .value = watch(health)});
        hud.add(Text{.id = "name", .value = watch(name)});
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "health"), "100/100");
        health -= 58;
        name = "Pine Hollow";
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "again"), "42");
        EXPECT_EQ(shown(hud, "name"), "Pine Hollow");
        Live<int> moved = std::move(health);
        moved = 7;
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "again"), "7");
    }
    update(hud, 0s);
    EXPECT_EQ(shown(hud, "health"), "--/100");
    EXPECT_EQ(shown(hud, "name"), "--");
}

TEST(Snap, takes_the_present_as_given_without_motion_or_event) {
    int score = 100, hull = 50;
    Live<int> water{10};
    Hud hud;
    hud.add(Group{.id = "plane"});
    const auto a = hud.add(Text{.id = "score", .value = watch(score), .motion = tween(1s)});
    const auto b = hud.add(Text{.id = "hull", .value = watch(hull), .max = 100, .motion = tween(1s), .group = "plane"});
    const auto c = hud.add(Text{.id = "water", .value = watch(water), .format = "{} {delta}", .motion = tween(1s)});
    update(hud, 0s);
    const auto frame = [&] {
        update(hud, 16ms);
        return text_of(hud, a) + " " + text_of(hud, b) + " " + text_of(hud, c);
    };
    score = 900, hull = 0;
    EXPECT_EQ(frame(), "100 50 10 --");
    EXPECT_EQ(hud.events().size(), 1U);
    hud.snap(b);
    EXPECT_EQ(frame().substr(4), "0 10 --") << "what was in flight has landed";
    score = 5, hull = 100;
    hud.snap();
    EXPECT_EQ(frame(), "5 100 10 --");
    EXPECT_TRUE(hud.events().empty());
    hull = 20, score = 6;
    hud.snap("plane");
    EXPECT_EQ(frame(), "5 20 10 --");
    water.snap(900);
    EXPECT_EQ(frame().substr(5), "900 --");
    water.snap(900);
    water = 903;
    EXPECT_EQ(frame().substr(5), "903 --") << "a snap counts for all that came before the frame";
    water -= 3;
    update(hud, 0s);
    update(hud, 2s);
    EXPECT_EQ(text_of(hud, c), "900 -3");
    hud.snap("plan");
    EXPECT_EQ(hud.problems().back().hint, "did you mean 'plane'?");
}

TEST(WhenNoValue, keeps_a_place_hides_or_removes) {
    std::optional<int> value = 3;
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    const auto stays = hud.add(Text{.id = "stays", .value = watch(value)});
    const auto hides = hud.add(Text{.id = "hides", .value = watch(value), .when_no_value = WhenNoValue::hide});
    const auto leaves = hud.add(Bar{.id = "leaves", .value = watch(value), .when_no_value = WhenNoValue::remove});
    update(hud, 0s);
    EXPECT_TRUE(hud[stays].visible && hud[hides].visible && hud[leaves].visible);
    value.reset();
    update(hud, 0s);
    EXPECT_TRUE(hud[stays].visible);
    EXPECT_FALSE(hud[hides].visible);
    EXPECT_EQ(hud[leaves].kind, "") << "it is gone";
    value = 4;
    update(hud, 0s);
    EXPECT_TRUE(hud[hides].visible);
    EXPECT_EQ(hud[hides].text, "4");
    EXPECT_EQ(hud.elements().size(), 2U);
}

TEST(Hud, adds_and_removes_elements_at_any_time) {
    std::vector<std::unique_ptr<int>> values;
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    DisplayList list;
    Random random(12);
    std::vector<std::pair<ElementRef, std::string>> living;
    int made = 0;
    for (int step = 0; step < 3000; ++step) {
        for (int n = random.below(3); n > 0; --n) {
            values.push_back(std::make_unique<int>(++made));
            const std::string id = "e" + std::to_string(made);
            const ElementRef ref = hud.add(Text{.id = id, .value = watch(*values.back())});
            ASSERT_TRUE(ref);
            living.emplace_back(ref, std::to_string(made));
        }
        for (int n = random.below(3); n > 0 && !living.empty(); --n) {
            const auto at = static_cast<std::size_t>(random.below(static_cast<int>(living.size())));
            hud.remove(living[at].first);
            EXPECT_EQ(hud[living[at].first].kind, "") << "dead at once";
            living.erase(living.begin() + static_cast<std::ptrdiff_t>(at));
        }
        if (random.below(2) == 0) continue;
        update(hud, 1ms);
        hud.draw(list);
        ASSERT_EQ(hud.elements().size(), living.size());
        for (const auto& [ref, text] : living)
            ASSERT_EQ(hud[ref].text, text);
    }
    EXPECT_EQ(hud.problems(), Problems{});
}

TEST(Hud, removes_a_panel_with_all_inside_and_lets_an_element_leave_when_it_rests) {
    int score = 0;
    Hud hud;
    const auto panel = hud.add(Panel{.id = "p"});
    const auto inner = hud.add(Panel{.id = "q", .inside = "p"});
    const auto text = hud.add(Text{.id = "t", .value = 1, .inside = "p.q"});
    const auto moving = hud.add(Text{.id = "s", .value = watch(score), .motion = tween(1s)});
    update(hud, 0s);
    hud.remove(panel);
    update(hud, 0s);
    EXPECT_TRUE(hud[inner].kind.empty() && hud[text].kind.empty());
    score = 10;
    update(hud, 0s);
    hud.leave(moving);
    update(hud, 500ms);
    EXPECT_FALSE(hud[moving].text.empty());
    update(hud, 500ms);
    EXPECT_TRUE(hud[moving].text.empty());
    EXPECT_TRUE(hud.add(Panel{.id = "p"})) << "the name is free again";
}

TEST(Group, is_shown_hidden_and_dimmed_as_a_whole) {
    bool cutscene = false, menu = false;
    BoxMeasurer measurer;
    HudDefinition definition;
    definition.groups = {Group{.id = "flight", .visible = "!cutscene", .dimmed = "menu", .dim = 0.5F}};
    definition.elements = {Panel{.id = "p", .color = rgb(0xffffff), .group = "flight"},
                           Text{.id = "a", .format = "a", .inside = "p"}, Text{.id = "b", .format = "b"}};
    Sources sources;
    sources.set("cutscene", watch(cutscene));
    sources.set("menu", watch(menu));
    Hud hud(definition, sources, &measurer);
    const auto look = [&] {
        update(hud, 0s);
        std::string seen;
        for (const ElementRef element : hud.elements())
            seen += hud[element].visible ? std::to_string(static_cast<int>(hud[element].opacity * 100)) + " " : "- ";
        return seen;
    };
    EXPECT_EQ(look(), "100 100 100 ");
    menu = true;
    EXPECT_EQ(look(), "50 50 100 ");
    DisplayList list;
    hud.draw(list);
    EXPECT_EQ(list.groups()[0].items()[0].color.alpha, 128);
    hud.set_opacity("flight", 0.5F);
    EXPECT_EQ(look(), "25 25 100 ");
    cutscene = true;
    EXPECT_EQ(look(), "- - 100 ");
    cutscene = false;
    hud.set_visible("flight", false);
    EXPECT_EQ(look(), "- - 100 ");
    hud.set_visible("flight", true);
    hud.set_visible("fligth", true);
    EXPECT_EQ(hud.problems().size(), 1U);
    EXPECT_FALSE(hud.add(Text{.id = "c", .format = "c", .group = "fligt"}));
    EXPECT_EQ(to_string(hud.problems()[1]), "error: 'group' of text 'c': no group 'fligt'; did you mean 'flight'?");
}

TEST(Text, reserves_the_width_of_its_widest_value_so_that_no_neighbor_moves) {
    struct Case {
        Limits range;
        const char* format;
        float characters;
    };
    for (const Case& row : {Case{{0, 999}, "{}", 3}, Case{{-5, 9999}, "{}", 4}, Case{{-1000, 10}, "{}", 5},
                            Case{{0, 1e6}, "{} L", 9}, Case{{0, 0}, "{}", 1}}) {
        int value = 1;
        BoxMeasurer measurer;
        Hud hud({}, {}, &measurer);
        const auto panel = hud.add(Panel{.id = "p", .place = {.anchor = Anchor::top_right}, .padding = {0, 0, 0, 0}});
        const auto text = hud.add(Text{.id = "t",
                                       .value = watch(value),
                                       .format = row.format,
                                       .range = row.range,
                                       .place = {.anchor = Anchor::top_right},
                                       .inside = "p",
                                       .size = 20});
        update(hud, 0s);
        EXPECT_EQ(hud[panel].box.width, row.characters * 10) << row.format;
        const Rect before = hud[panel].box;
        if (row.range.high == 0) continue;
        value = static_cast<int>(row.range.high);
        update(hud, 0s);
        EXPECT_EQ(hud[panel].box, before);
        DisplayList list;
        hud.draw(list);
        const DisplayItem& drawn = list.groups()[1].items()[0];
        EXPECT_EQ(drawn.baseline.x + drawn.width, hud[text].box.right()) << "it stands on its anchored side";
    }
}

TEST(Binding, a_source_of_one_text_may_be_the_maximum_or_the_switch_of_another) {
    int tank = 3;
    int water = 2;
    Hud hud;
    const ElementRef alone = hud.add(Text{.id = "tank", .value = watch(tank)});
    const ElementRef both =
        hud.add(Text{.id = "both", .value = watch(water), .max = watch(tank), .format = "{}/{max}"});
    const ElementRef if_any = hud.add(Text{.id = "any", .format = "any", .visible = watch(tank)});
    update(hud, 16ms);
    for (const int next : {5, 0, 7}) {
        tank = next;
        update(hud, 16ms);
        EXPECT_EQ(hud[alone].text, std::to_string(next));
        EXPECT_EQ(hud[both].text, "2/" + std::to_string(next));
        EXPECT_EQ(hud[if_any].visible, next != 0);
    }
}

enum class Throwing : std::uint8_t { up };
std::string_view name_of(Throwing) {
    throw std::runtime_error("a gear");
}

TEST(Watch, of_what_throws_has_no_value_in_that_frame_and_says_so) {
    struct Pilot {
        int score;
    };
    BoxMeasurer measurer;
    std::vector<Pilot> pilots{{3}, {5}};
    bool loses = false;
    Sources sources;
    sources.set("best", watch([&] { return pilots.at(pilots.size() - 1).score; }));
    sources.set("pilots", watch_entries(pilots, entry_field("score", [&](const Pilot& pilot) {
                                            if (loses && pilot.score == 3) throw 3;
                                            return pilot.score;
                                        })));
    Hud hud(HudDefinition{}, sources, &measurer);
    const ElementRef best = hud.add(Text{.id = "best", .value = by_name("best")});
    const ElementRef own = hud.add(Text{.id = "own", .value = watch([&] {
                                                         if (loses) throw std::out_of_range("no pilot");
                                                         return 7;
                                                     })});
    hud.add(list_of(List{.id = "board", .entries = by_name("pilots"), .at_most = 2},
                    [](const auto& entry) { return nest(Panel{}, Text{.id = "score", .value = entry("score")}); }));
    const ElementRef frames = hud.add(Text{.id = "calm", .value = watch(loses)});
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(best), "5");
    EXPECT_TRUE(hud.problems().empty());

    pilots.pop_back();
    pilots.pop_back();
    loses = true;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(best), "--");
    EXPECT_EQ(hud.text_of(own), "--");
    EXPECT_EQ(hud.text_of(frames), "true") << "what else there is goes on in the same frame";
    ASSERT_EQ(hud.problems().size(), 2U);
    EXPECT_EQ(hud.problems()[0].code, ProblemCode::getter_threw);
    EXPECT_TRUE(hud.problems()[0].message.starts_with("the getter of source 'best' has thrown: "))
        << hud.problems()[0].message;
    EXPECT_EQ(hud.problems()[1].message, "the getter of 'value' of text 'own' has thrown: no pilot");

    pilots = {{3}, {8}};
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(best), "8") << "the next frame goes on";
    EXPECT_EQ(hud.text_of(own), "--");
    EXPECT_EQ(hud.problems().size(), 3U) << "each is told once";
    EXPECT_EQ(hud.problems()[2].message,
              "the getter of source 'pilots' has thrown: something that is no std::exception");
    hud.set_color(own, rgb(0xff0000));
    EXPECT_EQ(hud.problems().size(), 3U) << "no call is blamed";
    loses = false;
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(own), "7");

    // So does all else that a game gives to be read: parts of a shared state, names of an enumeration, places.
    Shared<Pilot> shared;
    shared.write({4});
    const Throwing gear = Throwing::up;
    hud.add(
        Text{.id = "part", .value = watch(shared, [](const Pilot&) -> int { throw std::runtime_error("a part"); })});
    hud.add(Text{.id = "gear", .value = watch(gear)});
    const ElementRef fires = hud.add(markers_of(
        Markers{.id = "fires"}, [](const auto&) { return nest(Panel{}, Text{.id = "mark", .format = "x"}); }));
    hud.add_marker(fires, watch_position([]() -> Point { throw std::runtime_error("a place"); }), {});
    update(hud, 16ms);
    update(hud, 16ms);
    std::string all;
    for (const Problem& problem : hud.problems())
        all += problem.message + "\n";
    for (const std::string what : {"has thrown: a part", "has thrown: a gear", "has thrown: a place"})
        EXPECT_NE(all.find(what), std::string::npos) << what << "\n" << all;
    EXPECT_EQ(hud.problems().size(), 6U) << "each is told once: " << all;
    EXPECT_EQ(hud.text_of(best), "8") << "and all else goes on";

    // A place that throws is nowhere; and where no HUD reads, what was thrown goes on.
    const PositionSource nowhere(std::function<WorldPoint()>([]() -> WorldPoint { throw std::runtime_error("lost"); }));
    EXPECT_THROW(static_cast<void>(nowhere.read()), std::runtime_error);
}

}  // namespace binding_test
}  // namespace rapido::test
