// Bands that read conditions, words and edges of the game, on every kind of element; triggers with a source of their own.
#include <algorithm>

#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace band_condition_test {

enum class Rarity : std::uint8_t { common, rare };
std::string_view name_of(Rarity rarity) {
    return rarity == Rarity::common ? "common" : "rare";
}

/// What a color is through a filter, with pencil and paper.
Color through(Color color, Color filter) {
    const auto channel = [](int a, int b) { return static_cast<std::uint8_t>((2 * a * b + 255) / 510); };
    return {channel(color.red, filter.red), channel(color.green, filter.green), channel(color.blue, filter.blue),
            color.alpha};
}

std::vector<Color> drawn(const Hud& hud) {
    DisplayList list;
    hud.draw(list);
    std::vector<Color> colors;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            colors.push_back(item.color);
    return colors;
}

/// One of each kind that has bands, which show something.
std::vector<Element> one_of_each(const Source& value, const std::vector<Band>& bands) {
    return {
        Panel{.id = "panel", .place = {.size = {20, 20}}, .bands = bands},
        Text{.id = "text", .value = value, .bands = bands},
        Text{.id = "words", .format = "words", .bands = bands},
        Bar{.id = "bar", .value = value, .max = 100, .bands = bands},
        Ring{.id = "ring", .value = value, .max = 100, .bands = bands},
        Level{.id = "level", .value = value, .max = 100, .bands = bands},
        Pips{.id = "pips", .value = value, .max = 100, .bands = bands},
        Dial{.id = "dial", .value = value, .bands = bands},
        Ruler{.id = "ruler", .value = value, .bands = bands},
        Graph{.id = "graph", .value = value, .bands = bands},
        Image{.id = "image", .image = "dot", .bands = bands},
        Notice{.id = "notice", .bands = bands},
    };
}

TEST(Band, of_a_condition_is_on_every_kind) {
    double cost = 3, mana = 5, hull = 40;
    const Color amber = rgb(0xffc24a);
    Images images("");
    ASSERT_TRUE(images.add("dot", 4, 4, std::vector<Color>(16, rgb(0xffffff))));
    Hud hud({}, {}, &Stage::fonts(), &images);
    hud.resize({.size = {1280, 800}});
    const std::vector<Band> bands{{.id = "dear", .when = watch(cost) > watch(mana), .color = amber, .opacity = 0.5F}};
    std::vector<ElementRef> refs;
    for (const Element& element : one_of_each(watch(hull), bands))
        refs.push_back(hud.add(element));
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 0s);
    std::vector<Color> before;
    for (const ElementRef ref : refs) {
        before.push_back(hud[ref].color);
        EXPECT_NE(hud[ref].color, amber) << hud[ref].id;
        EXPECT_EQ(hud[ref].opacity, 1) << hud[ref].id;
    }
    for (const bool dear : {true, false, true}) {
        cost = dear ? 6 : 5;
        update(hud, 16ms);
        std::vector<std::string> told;
        for (const Event& event : hud.events())
            told.push_back(event.id + " " + std::string(to_string(event.kind)) + " " + event.detail);
        EXPECT_EQ(told.size(), refs.size());
        for (std::size_t i = 0; i < refs.size(); ++i) {
            const Shown shown = hud[refs[i]];
            EXPECT_EQ(shown.color, dear ? amber : before[i]) << shown.id;
            EXPECT_NEAR(shown.opacity, dear ? 0.5 : 1, 1.0 / 255) << shown.id;
            EXPECT_NE(std::find(told.begin(), told.end(),
                                std::string(shown.id) + (dear ? " band_enter dear" : " band_leave dear")),
                      told.end())
                << shown.id;
        }
        update(hud, 16ms);
        EXPECT_TRUE(hud.events().empty());
    }
}

TEST(Band, for_all_multiplies_the_colors_of_all_that_stands_inside) {
    bool off = false, dark = false;
    Images images("");
    ASSERT_TRUE(images.add("dot", 4, 4, std::vector<Color>(16, rgb(0xffffff))));
    const Color gray = rgb(0x808080), blue = rgb(0x3060ff);
    Hud hud({}, {}, &Stage::fonts(), &images);
    hud.resize({.size = {640, 400}});
    const auto refs = nest(Panel{.id = "outer",
                                 .layout = Layout::column,
                                 .bands = {{.when = watch(off), .color = gray, .all = true, .fade = 200ms}}},
                           {nest(Panel{.id = "inner",
                                       .layout = Layout::row,
                                       .color = rgb(0x204060),
                                       .bands = {{.when = watch(dark), .color = blue, .all = true}}},
                                 {Text{.id = "t", .format = "17"}, Image{.id = "i", .image = "dot"},
                                  Bar{.id = "b", .value = 5, .max = 10, .end_color = rgb(0x00ff00)}})});
    for (const Element& element : refs)
        hud.add(element);
    hud.add(Text{.id = "outside", .format = "out"});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 0s);
    const std::vector<Color> plain = drawn(hud);
    ASSERT_GT(plain.size(), 5U);
    off = true;
    update(hud, 0s);
    EXPECT_EQ(drawn(hud), plain) << "the fade begins";
    update(hud, 100ms);
    const std::vector<Color> half = drawn(hud);
    update(hud, 100ms);
    const std::vector<Color> all_gray = drawn(hud);
    dark = true;
    update(hud, 16ms);
    const std::vector<Color> both = drawn(hud);
    ASSERT_EQ(plain.size(), both.size());
    for (std::size_t i = 0; i < plain.size(); ++i) {
        const bool is_outside = i + 1 == plain.size();
        const bool is_outer_plate = i < 2 && plain[i] != rgb(0x204060) && plain[i].red != 0x20;
        EXPECT_EQ(all_gray[i], is_outside ? plain[i] : through(plain[i], gray)) << i;
        if (!is_outside && plain[i].red > 0) {
            EXPECT_LT(half[i].red, plain[i].red) << i;
            EXPECT_GT(half[i].red, all_gray[i].red) << i;
        }
        if (is_outside || is_outer_plate) continue;
        EXPECT_NEAR(both[i].red, through(through(plain[i], gray), blue).red, 1) << i;
        EXPECT_NEAR(both[i].blue, through(through(plain[i], gray), blue).blue, 1) << i;
    }
    off = dark = false;
    update(hud, 16ms);
    update(hud, 1s);
    EXPECT_EQ(drawn(hud), plain);
}

TEST(Band, reads_words_enumerators_flags_and_numbers) {
    std::string word = "calm";
    Rarity rarity = Rarity::common;
    bool flag = false;
    int number = 1;
    double edge = 10, value = 5;
    Hud hud;
    const Color inside = rgb(0xff0000);
    const auto add = [&](const char* id, const Source& source, Band band) {
        band.color = inside;
        return hud.add(Text{.id = id, .value = source, .bands = {band}});
    };
    const ElementRef of_word = add("word", watch(word), {.is = "storm"});
    const ElementRef of_rarity = add("rarity", watch(rarity), {.is = Rarity::rare});
    const ElementRef of_flag = add("flag", watch(flag), {.is = true});
    const ElementRef of_number = add("number", watch(number), {.is = 2});
    const ElementRef of_edge = add("edge", watch(value), {.above = watch(edge), .below = watch(edge) + 5});
    const ElementRef of_both = add("both", watch(number), {.when = watch(flag), .is = 2, .below = 3});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    const auto check = [&](const std::vector<ElementRef>& expected) {
        update(hud, 16ms);
        for (const ElementRef ref : {of_word, of_rarity, of_flag, of_number, of_edge, of_both})
            EXPECT_EQ(hud[ref].color == inside, std::find(expected.begin(), expected.end(), ref) != expected.end())
                << hud[ref].id;
    };
    check({});
    word = "storm";
    check({of_word});
    rarity = Rarity::rare;
    check({of_word, of_rarity});
    word = "storms";
    number = 2;
    check({of_rarity, of_number});
    flag = true;
    check({of_rarity, of_flag, of_number, of_both});
    edge = 4;  // the value stands still, and the edge passes it
    check({of_rarity, of_flag, of_number, of_both, of_edge});
    edge = -1;
    check({of_rarity, of_flag, of_number, of_both});
    edge = 0;
    check({of_rarity, of_flag, of_number, of_both, of_edge});
}

TEST(Band, of_a_condition_lets_nothing_pass_that_pace_holds) {
    int score = 100;
    bool alert = false;
    Hud hud;
    const ElementRef text = hud.add(Text{.id = "t",
                                         .value = watch(score),
                                         .pace = {.interval = 1s},
                                         .bands = {{.when = watch(alert), .color = rgb(0xff0000)}}});
    update(hud, 1s);
    EXPECT_EQ(text_of(hud, text), "100");
    score = 200;
    alert = true;
    update(hud, 100ms);
    EXPECT_EQ(hud[text].color, rgb(0xff0000));
    EXPECT_EQ(text_of(hud, text), "100");
    update(hud, 1s);
    EXPECT_EQ(text_of(hud, text), "200");
}

TEST(Trigger, has_a_source_of_its_own) {
    double hull = 100, water = 10;
    HudDefinition definition;
    definition.effects = {{.id = "hit", .duration = 100ms, .keyframes = {{.at = 0.5, .scale = 2.0F}}},
                          {.id = "dry", .duration = 100ms, .keyframes = {{.at = 0.5, .scale = 3.0F}}}};
    Hud hud(definition);
    const ElementRef panel = hud.add(
        Panel{.id = "p",
              .triggers = {{.on = TriggerOn::loss, .effect = "hit", .source = watch(hull), .full_strength_at = 40},
                           {.on = TriggerOn::empty, .effect = "dry", .source = watch(water)}}});
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    /// How large it is in the middle of an effect that began with what was changed now.
    const auto peak = [&] {
        update(hud, 16ms);
        EXPECT_EQ(hud[panel].scale, 1);
        update(hud, 50ms);
        const float scale = hud[panel].scale;
        update(hud, 200ms);
        return scale;
    };
    EXPECT_EQ(peak(), 1) << "the first value is no loss";
    hull = 60;
    EXPECT_NEAR(peak(), 2, 1e-4);
    hull = 50;
    EXPECT_NEAR(peak(), 1.25, 1e-4) << "a quarter of the loss that counts whole";
    hull = 90;
    EXPECT_EQ(peak(), 1) << "a gain";
    water = 1;
    EXPECT_EQ(peak(), 1) << "a loss of another source";
    water = 0;
    EXPECT_NEAR(peak(), 3, 1e-4);
    water = -1;
    EXPECT_EQ(peak(), 1) << "it was empty before";
    hull = 40;
    hud.snap();
    EXPECT_EQ(peak(), 1) << "what comes with a snap";
    hull = 0;
    Panel other = *hud.description(panel).as<Panel>();
    other.gap = 5;
    EXPECT_TRUE(hud.change(panel, other));
    EXPECT_NEAR(peak(), 2, 1e-4) << "a change of the panel in the same frame";
    hud.remove(panel);
    hull = -100;
    update(hud, 16ms);
    hud.add(other);
    EXPECT_TRUE(hud.problems().empty());
    update(hud, 16ms);
}

TEST(HudFile, reads_and_writes_bands_and_triggers_of_conditions) {
    const std::string file = R"([[element]]
kind = "panel"
id = "card"
bands = [
    { id = "dear", when = "card.cost > player.mana", color = "#808080", all = true, opacity = 0.5 },
    { when = "!world.paused", effect = "pulse" },
]
triggers = [{ on = "loss", effect = "shake", source = "player.mana" }]

[[element.element]]
kind = "text"
id = "cost"
value = "card.cost"
bands = [{ is = 7, color = "#ff0000" }, { above = "player.mana", below = "player.mana + 2", hysteresis = 1 }]

[[element]]
kind = "text"
id = "rank"
value = "player.rank"
bands = [{ is = "Ace", color = "#ffd040" }, { is = true }]

[[element]]
kind = "pop_ups"
id = "hits"
bands = [{ sign = "negative", color = "#ff0000" }]
)";
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    const Result<HudDefinition> again = read_hud(*written, "again.toml");
    ASSERT_TRUE(again) << to_string(again.problems()[0]);
    EXPECT_EQ(again->elements, read->elements);
    EXPECT_NE(written->find("when = \"card.cost > player.mana\""), std::string::npos) << *written;

    int cost = 7, mana = 3;
    std::string rank = "Ace";
    Sources sources;
    sources.set("card.cost", watch(cost));
    sources.set("player.mana", watch(mana));
    sources.set("player.rank", watch(rank));
    sources.set("world.paused", constant(false));
    Hud hud(*again, sources);
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    update(hud, 16ms);
    EXPECT_EQ(hud[hud.find("rank")].color, rgb(0xffd040));
    EXPECT_EQ(hud[hud.find("card.cost")].color, through(rgb(0xff0000), rgb(0x808080)));
}

TEST(PopUps, look_otherwise_by_sign) {
    Hud hud({}, {}, &Stage::fonts());
    hud.resize({.size = {640, 400}});
    const ElementRef ups = hud.add(PopUps{
        .id = "hits",
        .start_scale = 1,
        .bands = {{.sign = Sign::negative, .color = rgb(0xff0000)}, {.sign = Sign::positive, .color = rgb(0x00ff00)}},
        .color = rgb(0x0000ff)});
    for (const auto& [amount, color] : std::vector<std::pair<Value, Color>>{{Value(-3), rgb(0xff0000)},
                                                                            {Value(0.5), rgb(0x00ff00)},
                                                                            {Value(0), rgb(0x0000ff)},
                                                                            {Value("MISS"), rgb(0x0000ff)}}) {
        hud.pop_up(ups, {.on_screen = Point{100, 100}, .value = amount});
        update(hud, 16ms);
        const std::vector<Color> colors = drawn(hud);
        ASSERT_FALSE(colors.empty());
        EXPECT_EQ(rgb(static_cast<std::uint32_t>(colors[0].red << 16 | colors[0].green << 8 | colors[0].blue)), color);
        update(hud, 5s);
    }
}

TEST(Band, that_cannot_be_is_a_problem) {
    struct Row {
        Element element;
        std::string says;
    };
    double value = 1;
    std::string word = "x";
    for (const Row& row : std::vector<Row>{
             {Panel{.id = "p", .bands = {{.below = 3}}}, "reads a value, and the element has none"},
             {Text{.id = "p", .format = "x", .bands = {{.is = "x"}}}, "reads a value, and the element has none"},
             {Panel{.id = "p", .bands = {{.color = rgb(1)}}}, "needs 'below', 'above', 'is' or 'when'"},
             {Text{.id = "p", .value = watch(word), .bands = {{.below = 3}}},
              "needs a number, and this source is a text"},
             {Text{.id = "p", .value = watch(value), .bands = {{.when = watch(value), .reads = BandReads::truth}}},
              "'when' reads what is true"},
             {Panel{.id = "p", .bands = {{.when = watch(value), .motion = tween(1s)}}},
              "of elements that show a value"},
             {Panel{.id = "p", .bands = {{.when = watch(value), .format = "x"}}}, "is of texts only"},
             {List{.id = "p", .bands = {{.when = watch(value), .color = rgb(1)}}}, "a list has no color of its own"},
             {Panel{.id = "p", .bands = {{.when = watch(value), .all = true}}}, "there is no color"},
             {Panel{.id = "p", .bands = {{.when = "no.name"}}}, "unknown source 'no.name'"},
             {Text{.id = "p", .value = watch(value), .max = 5, .bands = {{.below = 3}}}, "edge_unit = \"value\""},
             {Panel{.id = "p", .triggers = {{.on = TriggerOn::loss, .effect = "shake"}}},
              "waits for a change of the value, and the element has none"},
             {Panel{.id = "p", .triggers = {{.on = TriggerOn::band_enter, .effect = "shake"}}},
              "waits for a band, and the element has none"},
             {Panel{.id = "p", .triggers = {{.on = TriggerOn::full, .effect = "shake", .source = watch(value)}}},
              "is for gain, loss and empty only"},
         }) {
        Hud hud;
        hud.add(row.element);
        ASSERT_FALSE(hud.problems().empty()) << row.says;
        std::string all;
        for (const Problem& problem : hud.problems())
            all += to_string(problem) + "\n";
        EXPECT_NE(all.find(row.says), std::string::npos) << all;
    }
}

TEST(Band, of_a_condition_alone_is_heard_after_a_change) {
    bool low = false;
    for (const bool is_panel : {true, false}) {
        low = false;
        BoxMeasurer measurer;
        Hud hud({}, {}, &measurer);
        const std::vector<Band> bands{{.id = "low", .when = watch(low), .color = rgb(0xff7a3c)}};
        const ElementRef warned = is_panel ? hud.add(Panel{.id = "p", .bands = bands})
                                           : hud.add(Text{.id = "p", .format = "LOW", .bands = bands});
        update(hud, 16ms);
        if (is_panel)
            hud.change<Panel>(warned, [](Panel& panel) { panel.gap = 5; });
        else
            hud.change<Text>(warned, [](Text& text) { text.size = 50; });
        low = true;
        update(hud, 16ms);
        ASSERT_EQ(hud.events().size(), 1U) << is_panel;
        EXPECT_EQ(hud.events()[0].kind, EventKind::band_enter);
        EXPECT_EQ(hud[warned].color, rgb(0xff7a3c));
        // And one that is in the band keeps its color through another.
        if (is_panel)
            hud.change<Panel>(warned, [](Panel& panel) { panel.gap = 7; });
        else
            hud.change<Text>(warned, [](Text& text) { text.size = 40; });
        update(hud, 16ms);
        EXPECT_EQ(hud[warned].color, rgb(0xff7a3c)) << is_panel;
        EXPECT_TRUE(hud.events().empty());
    }
}

}  // namespace band_condition_test
}  // namespace rapido::test
