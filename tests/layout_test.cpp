// Layout: rows, columns, grids, panels in panels, screens of every shape.
#include <cmath>

#include "rapido/file.hpp"
#include "rapido/fonts.hpp"
#include "rapido/locale.hpp"
#include "support.hpp"

namespace rapido::test {
namespace layout_test {

struct Placed {
    Size size;
    std::vector<Rect> boxes;
};

/// What an arrangement makes of items, in an area that begins at (100, 10).
Placed arranged(const Arrangement& arrangement, std::vector<FlowItem> items, Size area) {
    static const Place nowhere;
    for (FlowItem& item : items)
        if (item.place == nullptr) item.place = &nowhere;
    Flow flow;
    Placed placed{flow.measure(arrangement, items), std::vector<Rect>(items.size())};
    flow.arrange(arrangement, {100, 10, area.width, area.height}, items, placed.boxes);
    return placed;
}

TEST(Flow, arranges_as_flexible_boxes_do) {
    const Place grows{.grow = 1}, grows_more{.grow = 3}, grows_a_little{.grow = 0.5F},
        limited{.max_size = {60, 0}, .grow = 1}, low{.anchor = Anchor::bottom_left, .offset = {5, 2}};
    struct Row {
        const char* what;
        Arrangement how;
        std::vector<FlowItem> items;
        Size area;
        Size size;
        std::vector<Rect> boxes;
    };
    // By hand, after CSS Flexible Box Layout 9.5 to 9.7.
    for (const Row& row : std::vector<Row>{
             {"a row",
              {.layout = Layout::row, .gap = 8},
              {{{40, 20}}, {{10, 30}}},
              {200, 50},
              {58, 30},
              {{100, 10, 40, 20}, {148, 10, 10, 30}}},
             {"spare room by growth",
              {.layout = Layout::row, .gap = 10},
              {{{40, 20}, &grows}, {{10, 20}}, {{20, 20}, &grows_more}},
              {250, 20},
              {90, 20},
              {{100, 10, 80, 20}, {190, 10, 10, 20}, {210, 10, 140, 20}}},
             {"growth below one takes its part only",
              {.layout = Layout::row},
              {{{40, 20}, &grows_a_little}},
              {100, 20},
              {40, 20},
              {{100, 10, 70, 20}}},
             {"the largest size is kept, others share again",
              {.layout = Layout::row},
              {{{40, 20}, &limited}, {{40, 20}, &grows}},
              {200, 20},
              {80, 20},
              {{100, 10, 60, 20}, {160, 10, 140, 20}}},
             {"missing room from those that shrink",
              {.layout = Layout::row, .gap = 10},
              {{{60, 20}, nullptr, -1, -1, true}, {{30, 20}}, {{30, 20}, nullptr, -1, -1, true}},
              {110, 20},
              {140, 20},
              {{100, 10, 40, 20}, {150, 10, 30, 20}, {190, 10, 20, 20}}},
             {"nothing shrinks below nothing",
              {.layout = Layout::row},
              {{{60, 20}}, {{30, 20}, nullptr, -1, -1, true}},
              {50, 20},
              {90, 20},
              {{100, 10, 60, 20}, {160, 10, 0, 20}}},
             {"in the middle",
              {.layout = Layout::row, .gap = 10, .align = Align::center, .justify = Justify::center},
              {{{40, 20}}, {{10, 40}}},
              {100, 60},
              {60, 40},
              {{120, 30, 40, 20}, {170, 20, 10, 40}}},
             {"space between",
              {.layout = Layout::row, .gap = 10, .align = Align::end, .justify = Justify::space_between},
              {{{40, 20}}, {{10, 40}}, {{10, 10}}},
              {100, 60},
              {80, 40},
              {{100, 50, 40, 20}, {160, 30, 10, 40}, {190, 60, 10, 10}}},
             {"on one baseline",
              {.layout = Layout::row, .align = Align::baseline},
              {{{40, 20}, nullptr, 15}, {{10, 50}, nullptr, 40}, {{10, 30}}},
              {60, 60},
              {60, 50},
              {{100, 35, 40, 20}, {140, 10, 10, 50}, {150, 10, 10, 30}}},
             {"each by its anchor",
              {.layout = Layout::row},
              {{{40, 20}, &low}, {{10, 30}}},
              {200, 50},
              {50, 30},
              {{105, 38, 40, 20}, {140, 10, 10, 30}}},
             {"a column, stretched",
              {.layout = Layout::column, .gap = 4, .align = Align::stretch},
              {{{40, 20}}, {{10, 30}, &limited}},
              {80, 100},
              {40, 54},
              {{100, 10, 80, 20}, {100, 34, 60, 76}}},
             {"whole digits below each other",
              {.layout = Layout::column},
              {{{50, 20}, nullptr, -1, 40}, {{30, 20}, nullptr, -1, 10}},
              {90, 40},
              {60, 40},
              {{100, 10, 50, 20}, {130, 30, 30, 20}}},
             {"a grid",
              {.layout = Layout::grid, .gap = 10, .row_gap = 4.0F, .columns = 2, .align = Align::center},
              {{{40, 20}}, {{10, 30}, &grows}, {{20, 10}}, {{30, 10}}, {{5, 5}}},
              {100, 100},
              {80, 53},
              {{100, 15, 40, 20}, {150, 10, 50, 30}, {100, 44, 20, 10}, {150, 44, 30, 10}, {100, 58, 5, 5}}},
         }) {
        const Placed placed = arranged(row.how, row.items, row.area);
        EXPECT_EQ(placed.size, row.size) << row.what;
        for (std::size_t i = 0; i < row.boxes.size(); ++i)
            EXPECT_EQ(placed.boxes[i], row.boxes[i])
                << row.what << " " << i << ": " << placed.boxes[i].x << " " << placed.boxes[i].y << " "
                << placed.boxes[i].width << " " << placed.boxes[i].height;
    }
}

TEST(Flow, keeps_boxes_inside_and_apart_at_every_size) {
    Random random(7);
    for (int round = 0; round < 2000; ++round) {
        const Arrangement how{.layout = static_cast<Layout>(1 + random.below(3)),
                              .gap = static_cast<float>(random.below(10)),
                              .columns = 1 + random.below(4),
                              .align = static_cast<Align>(random.below(6)),
                              .justify = static_cast<Justify>(random.below(4))};
        std::vector<Place> places(static_cast<std::size_t>(1 + random.below(7)));
        std::vector<FlowItem> items;
        for (Place& place : places) {
            place.anchor = static_cast<Anchor>(random.below(9));
            place.grow = static_cast<float>(random.below(3));
            const auto side = [&] { return static_cast<float>(random.below(60)); };
            const Size size{side(), side()};
            items.push_back({size, &place, random.below(2) == 0 ? -1 : size.height / 2,
                             random.below(3) == 0 ? size.width / 3 : -1, random.below(2) == 0});
        }
        Flow flow;
        Size area = flow.measure(how, items);
        const Size spare{static_cast<float>(random.below(2) * random.below(90)),
                         static_cast<float>(random.below(2) * random.below(90))};
        const float k = 1 + 3 * static_cast<float>(random.unit());
        std::vector<Rect> boxes(items.size()), larger(items.size());
        flow.arrange(how, {0, 0, area.width + spare.width, area.height + spare.height}, items, boxes);
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            const Rect& box = boxes[i];
            EXPECT_GE(std::min(box.x, box.y), -1e-3F) << round;
            EXPECT_LE(box.right(), area.width + spare.width + 1e-2F) << round;
            EXPECT_LE(box.bottom(), area.height + spare.height + 1e-2F) << round;
            EXPECT_GE(box.width, items[i].size.width - 1e-2F) << round;
            for (std::size_t j = 0; j < i; ++j) {
                const Rect& other = boxes[j];
                EXPECT_TRUE(box.x >= other.right() - 1e-2F || other.x >= box.right() - 1e-2F ||
                            box.y >= other.bottom() - 1e-2F || other.y >= box.bottom() - 1e-2F)
                    << round << ": " << i << " over " << j;
            }
        }
        // Everything k times as large gives boxes that are k times as large.
        Arrangement scaled = how;
        scaled.gap *= k;
        for (FlowItem& item : items)
            item = {{item.size.width * k, item.size.height * k},
                    item.place,
                    item.baseline < 0 ? -1 : item.baseline * k,
                    item.digits < 0 ? -1 : item.digits * k,
                    item.shrinks};
        flow.arrange(scaled, {0, 0, (area.width + spare.width) * k, (area.height + spare.height) * k}, items, larger);
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            EXPECT_NEAR(larger[i].x, boxes[i].x * k, 0.05) << round;
            EXPECT_NEAR(larger[i].bottom(), boxes[i].bottom() * k, 0.05) << round;
        }
    }
}

TEST(Fit, puts_the_design_on_every_window_as_object_fit_does) {
    struct Row {
        Fit fit;
        Size window;
        float scale, stretch;
        Point origin;
        Size size;
    };
    // A design of 400 x 200; object-fit and object-position 50% 50%.
    for (const Row& row : std::vector<Row>{
             {Fit::edges, {800, 600}, 2, 1, {0, 0}, {400, 300}},
             {Fit::contain, {800, 600}, 2, 1, {0, 100}, {400, 200}},
             {Fit::contain, {1200, 400}, 2, 1, {200, 0}, {400, 200}},
             {Fit::cover, {800, 600}, 3, 1, {-200, 0}, {400, 200}},
             {Fit::fill, {800, 600}, 2, 1.5F, {0, 0}, {400, 200}},
             {Fit::none, {800, 600}, 1, 1, {200, 200}, {400, 200}},
             {Fit::none, {200, 100}, 1, 1, {-100, -50}, {400, 200}},
             {Fit::scale_down, {800, 600}, 1, 1, {200, 200}, {400, 200}},
             {Fit::scale_down, {200, 600}, 0.5F, 1, {0, 250}, {400, 200}},
         }) {
        const Fitted fitted = fit_screen({.design = {400, 200}, .fit = row.fit}, {.size = row.window});
        const int which = static_cast<int>(row.fit);
        EXPECT_FLOAT_EQ(fitted.scale, row.scale) << which;
        EXPECT_FLOAT_EQ(fitted.stretch, row.stretch) << which;
        EXPECT_EQ(fitted.origin, row.origin) << which;
        EXPECT_EQ(fitted.size, row.size) << which;
        EXPECT_EQ(fitted.area, (Rect{0, 0, row.size.width, row.size.height})) << which;
    }
}

TEST(Fit, draws_to_the_corner_that_it_says) {
    struct Row {
        Fit fit;
        Point corner;  // of a plate at the bottom right of a design of 400 x 200, in a window of 800 x 600 at (50, 7)
    };
    for (const Row& row : {Row{Fit::edges, {850, 607}}, Row{Fit::contain, {850, 507}}, Row{Fit::cover, {1050, 607}},
                           Row{Fit::fill, {850, 607}}, Row{Fit::none, {650, 407}}}) {
        BoxMeasurer measurer;
        Hud hud({.design = {400, 200},
                 .fit = row.fit,
                 .elements = {Panel{.id = "p", .place = {.anchor = Anchor::bottom_right, .size = {40, 20}}}}},
                {}, &measurer);
        hud.resize({.size = {800, 600}, .origin = {50, 7}});
        update(hud, 0s);
        DisplayList list;
        hud.draw(list);
        const Rect& plate = list.groups()[0].items()[0].rect;
        const Point corner = list.groups()[0].transform().apply({plate.right(), plate.bottom()});
        EXPECT_NEAR(corner.x, row.corner.x, 0.01) << static_cast<int>(row.fit);
        EXPECT_NEAR(corner.y, row.corner.y, 0.01) << static_cast<int>(row.fit);
    }
}

TEST(Fit, keeps_to_whole_scales_the_players_size_margins_and_what_is_safe) {
    const auto scale_of = [](Size window, float ui_scale = 1) {
        return fit_screen({.design = {400, 200}, .whole_scale = true, .ui_scale = ui_scale}, {.size = window}).scale;
    };
    EXPECT_EQ(scale_of({1199, 900}), 2);
    EXPECT_EQ(scale_of({1200, 900}), 3);
    EXPECT_EQ(scale_of({399, 900}), 0.5F);
    EXPECT_EQ(scale_of({150, 900}), 1 / 3.0F);
    EXPECT_EQ(scale_of({800, 900}, 1.7F), 3);
    const Fitted larger = fit_screen({.design = {400, 200}, .ui_scale = 2}, {.size = {800, 600}});
    EXPECT_EQ(larger.scale, 4);
    EXPECT_EQ(larger.size, (Size{200, 150}));
    // 40 device pixels of a cut-out on the left are 20 design pixels, and below the bars of 100 there is nothing unsafe.
    const Viewport phone{.size = {800, 600}, .origin = {7, 0}, .safe_area = {60, 0, 0, 40}};
    const FitOptions options{.design = {400, 200}, .margin = {1, 2, 3, 4}};
    EXPECT_EQ(fit_screen(options, phone).area, (Rect{24, 31, 374, 266}));
    FitOptions with_bars = options;
    with_bars.fit = Fit::contain;
    EXPECT_EQ(fit_screen(with_bars, phone).area, (Rect{24, 1, 374, 196}));
    EXPECT_EQ(fit_screen(with_bars, phone).origin, (Point{7, 100}));
}

/// A HUD of panels in panels, with `texts` that grow and shrink and come and go.
struct Nested {
    BoxMeasurer measurer;
    std::vector<int> values;
    std::vector<std::uint8_t> visible;
    std::unique_ptr<Hud> hud;

    explicit Nested(std::vector<int> start, std::vector<std::uint8_t> shown)
        : values(std::move(start)), visible(std::move(shown)) {
        hud = std::make_unique<Hud>(HudDefinition{.design = {1000, 800}}, Sources{}, &measurer);
        hud->resize({.size = {1000, 800}});
        constexpr std::array layouts{Layout::row, Layout::column, Layout::grid, Layout::free};
        for (std::size_t i = 0; i < values.size(); ++i) {
            const std::string name = std::to_string(i);
            std::string inside;
            for (std::size_t level = 0; level < 3; ++level) {
                const std::size_t group = i >> (3 * (3 - level));
                const std::string id = "p" + std::to_string(group);
                const std::string path = inside.empty() ? id : inside + "." + id;
                if (i % (std::size_t{1} << (3 * (3 - level))) == 0)
                    hud->add(Panel{.id = id,
                                   .place = {.anchor = static_cast<Anchor>(group % 9), .grow = 1},
                                   .layout = layouts[(group + level) % 4],
                                   .gap = 3,
                                   .align = static_cast<Align>(group % 6),
                                   .inside = inside});
                inside = path;
            }
            hud->add(Text{.id = "t" + name,
                          .value = watch(values[i]),
                          .inside = inside,
                          .size = 8 + static_cast<float>(i % 5),
                          .visible = watch(reinterpret_cast<bool&>(visible[i]))});
        }
        update(*hud, 16ms);
    }
};

TEST(Layout, gives_what_a_new_hud_would_whatever_changed_before) {
    Random random(11);
    constexpr std::size_t count = 200;
    Nested old(std::vector<int>(count, 1), std::vector<std::uint8_t>(count, 1));
    EXPECT_TRUE(old.hud->problems().empty());
    for (int round = 0; round < 60; ++round) {
        for (int i = random.below(9); i >= 0; --i) {
            const auto at = static_cast<std::size_t>(random.below(static_cast<int>(count)));
            old.values[at] = random.below(3) == 0 ? random.below(1'000'000) : random.below(10);
            if (random.below(3) == 0) old.visible[at] ^= 1U;
        }
        update(*old.hud, 16ms);
        const Nested fresh(old.values, old.visible);
        const auto elements = fresh.hud->elements();
        const auto same = old.hud->elements();
        ASSERT_EQ(elements.size(), same.size());
        for (std::size_t i = 0; i < elements.size(); ++i)
            if ((*fresh.hud)[elements[i]].visible) {
                ASSERT_EQ((*old.hud)[same[i]].box, (*fresh.hud)[elements[i]].box)
                    << round << " " << (*fresh.hud)[elements[i]].id;
            }
    }
}

TEST(Layout, measures_only_what_changed) {
    Nested nested(std::vector<int>(200, 1), std::vector<std::uint8_t>(200, 1));
    nested.measurer.shaped = 0;
    nested.values[17] = 12345;
    update(*nested.hud, 16ms);
    EXPECT_EQ(nested.measurer.shaped, 1);
}

TEST(Layout, cuts_shrinks_or_lets_go_beyond_what_has_no_room) {
    struct Row {
        Overflow overflow;
        std::string drawn;
        float size, x;
        bool clips;
    };
    // "EVACUATE" at 20 is 80 wide, in a box of 50 at the right edge of 200.
    for (const Row& row : std::vector<Row>{{Overflow::visible, "EVACUATE", 20, 120, false},
                                           {Overflow::clip, "EVACUATE", 20, 150, true},
                                           {Overflow::ellipsis, "EV…", 20, 150, false},
                                           {Overflow::shrink, "EVACUATE", 12.5F, 150, false}}) {
        BoxMeasurer measurer;
        Hud hud({.design = {200, 100}}, {}, &measurer);
        hud.resize({.size = {200, 100}});
        const auto text = hud.add(Text{.id = "t",
                                       .format = "EVACUATE",
                                       .place = {.anchor = Anchor::top_right, .max_size = {50, 0}},
                                       .size = 20,
                                       .overflow = row.overflow});
        update(hud, 0s);
        EXPECT_EQ(hud[text].box, (Rect{150, 0, 50, 20}));
        EXPECT_EQ(hud[text].text, "EVACUATE") << "what it says is what it says";
        DisplayList list;
        hud.draw(list);
        const DisplayGroup& group = list.groups()[0];
        const DisplayItem& item = group.items()[0];
        EXPECT_EQ(group.text_of(item), row.drawn);
        EXPECT_FLOAT_EQ(item.size, row.size);
        EXPECT_FLOAT_EQ(item.baseline.x, row.x) << row.drawn;
        EXPECT_EQ(item.clip.width > 0, row.clips);
    }
}

TEST(Layout, changes_sides_for_a_language_from_right_to_left) {
    for (const bool mirror : {true, false}) {
        BoxMeasurer measurer;
        Hud hud({.design = {400, 200}, .margin = {0, 0, 0, 10}, .mirror = mirror}, {}, &measurer);
        hud.resize({.size = {400, 200}});
        const auto panel = hud.add(Panel{.id = "p", .layout = Layout::row, .gap = 5, .padding = {1, 2, 3, 4}});
        const auto first = hud.add(Text{.id = "a", .format = "aaaa", .inside = "p", .size = 10});
        const auto second = hud.add(Text{.id = "b", .format = "bb", .inside = "p", .size = 10});
        const auto bar = hud.add(Bar{.id = "bar", .value = 0.25, .place = {.size = {100, 10}}, .radius = 0});
        update(hud, 0s);
        EXPECT_EQ(hud[panel].box, (Rect{10, 0, 41, 14}));
        hud.set_language({.tag = "ar", .right_to_left = true});
        update(hud, 0s);
        // Within the area from 10 to 400.
        const auto at = [&](float x, float width) { return mirror ? 410 - x - width : x; };
        EXPECT_EQ(hud[panel].box, (Rect{at(10, 41), 0, 41, 14}));
        EXPECT_EQ(hud[first].box, (Rect{at(14, 20), 1, 20, 10}));
        EXPECT_EQ(hud[second].box, (Rect{at(39, 10), 1, 10, 10}));
        DisplayList list;
        hud.draw(list);
        const DisplayItem& fill = list.groups()[3].items()[1];
        EXPECT_EQ(fill.clip.x, mirror ? 375 : 10);
        EXPECT_EQ(fill.clip.width, 25);
        EXPECT_EQ(hud[bar].box.width, 100);
    }
}

TEST(Layout, of_the_sample_hud_holds_at_every_size_in_every_language) {
    const Result<HudDefinition> definition = read_hud_file(sample("hud.toml"));
    ASSERT_TRUE(definition);
    const Result<Trace> trace = Trace::read_file(sample("flight.csv"));
    ASSERT_TRUE(trace);
    Fonts fonts;
    for (const std::string_view tag : {"en", "de", "ar-u-nu-latn", "ja"}) {
        TracePlayer player(*trace);
        Hud hud(*definition, player.sources(), &fonts);
        Language words = *language(tag);
        if (tag != "en") words.translations = *read_translations_file(sample(std::string(tag.substr(0, 2)) + ".toml"));
        hud.set_language(words);
        // The last seconds of the evacuation with a broken hull and a hot engine: all that there can be, at once.
        player.seek(Nanoseconds{88'000'000'000});
        update(hud, 88s);
        player.seek(Nanoseconds{124'000'000'000});
        update(hud, 36s);
        update(hud, 500ms);
        ASSERT_TRUE(hud[hud.find("news")].visible);
        for (const Viewport& viewport : std::vector<Viewport>{{.size = {640, 360}},
                                                              {.size = {1280, 800}},
                                                              {.size = {1920, 1080}},
                                                              {.size = {2560, 1080}},
                                                              {.size = {3840, 2160}},
                                                              {.size = {1080, 1920}},
                                                              {.size = {640, 800}},  // split screen
                                                              {.size = {640, 800}, .origin = {640, 0}},
                                                              {.size = {1280, 800}, .safe_area = {40, 90, 30, 60}}}) {
            hud.resize(viewport);
            update(hud, 0s);
            const float scale = std::min(viewport.size.width / 1280, viewport.size.height / 800);
            const Insets& unsafe = viewport.safe_area;
            const Rect safe{unsafe.left / scale + 24, unsafe.top / scale + 24,
                            (viewport.size.width - unsafe.left - unsafe.right) / scale - 48,
                            (viewport.size.height - unsafe.top - unsafe.bottom) / scale - 48};
            const std::string where = std::string(tag) + " " + std::to_string(viewport.size.width) + " x " +
                                      std::to_string(viewport.size.height) + " ";
            std::vector<Shown> plates;
            std::vector<Shown> all;
            for (const ElementRef ref : hud.elements()) {
                const Shown shown = hud[ref];
                if (!shown.visible) continue;
                all.push_back(shown);
                EXPECT_GE(shown.box.x, safe.x - 0.1F) << where << shown.id;
                EXPECT_GE(shown.box.y, safe.y - 0.1F) << where << shown.id;
                EXPECT_LE(shown.box.right(), safe.right() + 0.1F) << where << shown.id;
                EXPECT_LE(shown.box.bottom(), safe.bottom() + 0.1F) << where << shown.id;
            }
            // No two overlap unless one stands inside the other, or wholly on a gauge beside it that is to be written on.
            for (std::size_t i = 0; i < all.size(); ++i)
                for (std::size_t j = 0; j < i; ++j) {
                    const Rect &a = all[i].box, &b = all[j].box;
                    const bool apart = a.x >= b.right() - 0.1F || b.x >= a.right() - 0.1F || a.y >= b.bottom() - 0.1F ||
                                       b.y >= a.bottom() - 0.1F;
                    const bool within = all[i].id.starts_with(std::string(all[j].id) + ".");
                    const std::string_view gauge = all[j].id;
                    const bool on_gauge = (all[j].kind == "level" || all[j].kind == "ring" || all[j].kind == "dial") &&
                                          all[i].id.starts_with(gauge.substr(0, gauge.rfind('.') + 1)) && a.x >= b.x &&
                                          a.y >= b.y && a.right() <= b.right() && a.bottom() <= b.bottom();
                    EXPECT_TRUE(apart || within || on_gauge) << where << all[i].id << " over " << all[j].id;
                }
        }
        EXPECT_TRUE(hud.problems().empty()) << tag << ": " << to_string(hud.problems().front());
    }
}

TEST(Layout, survives_what_nobody_should_ask_for) {
    BoxMeasurer measurer;
    Hud hud({.design = {400, 200}}, {}, &measurer);
    std::string inside;
    for (int depth = 0; depth < 1000; ++depth) {
        hud.add(Panel{.id = "p",
                      .layout = depth % 2 == 0 ? Layout::row : Layout::column,
                      .padding = {1, 1, 1, 1},
                      .inside = inside});
        inside += inside.empty() ? "p" : ".p";
    }
    const auto text = hud.add(Text{.id = "t", .format = "deep", .inside = inside, .size = 10});
    for (const Size size : {Size{400, 200}, Size{0, 0}, Size{1, 1}, Size{INFINITY, -3}, Size{400, 200}}) {
        hud.resize({.size = size, .safe_area = {NAN, -5, INFINITY, 1e9F}});
        update(hud, 0s);
        hud.resize({.size = size});
        update(hud, 0s);
    }
    EXPECT_EQ(hud[text].box, (Rect{1000, 1000, 20, 10}));
    EXPECT_TRUE(hud.problems().empty());
    EXPECT_FALSE(hud.add(Panel{.id = "loop", .inside = "loop"})) << "a row in itself";
    EXPECT_EQ(to_string(hud.problems().back()), "error: 'inside' of panel 'loop.loop': 'loop' stands inside itself");

    for (const float bad : {-50.0F, NAN, INFINITY, -INFINITY, 1e30F}) {
        Hud odd({.design = {400, 200}}, {}, &measurer);
        odd.add(Panel{.id = "p", .layout = Layout::grid, .gap = bad, .columns = -3, .padding = {bad, bad, bad, bad}});
        const auto inner =
            odd.add(Text{.id = "t",
                         .format = "x",
                         .place = {.offset = {bad, bad}, .size = {bad, bad}, .max_size = {bad, bad}, .grow = bad},
                         .inside = "p",
                         .size = 10});
        update(odd, 0s);
        const Rect box = odd[inner].box;
        EXPECT_TRUE(std::isfinite(box.x) && std::isfinite(box.width) && box.width >= 0) << bad;
        EXPECT_FALSE(odd.problems().empty()) << bad;
    }
}

TEST(Stack, gives_all_of_its_room_to_what_grows) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.add(Panel{.id = "p", .place = {.size = {200, 100}}, .padding = {10, 10, 10, 10}});
    const auto grows = hud.add(Bar{.id = "a", .value = 1, .place = {.grow = 1}, .inside = "p"});
    const auto stays = hud.add(Bar{.id = "b", .value = 1, .inside = "p"});
    const auto limited = hud.add(Bar{.id = "c", .value = 1, .place = {.max_size = {50, 0}, .grow = 1}, .inside = "p"});
    update(hud, 16ms);
    EXPECT_EQ(hud[grows].box, (Rect{10, 10, 180, 80}));
    EXPECT_EQ(hud[stays].box, (Rect{10, 10, 160, 12}));
    EXPECT_EQ(hud[limited].box, (Rect{10, 10, 50, 80}));
}

}  // namespace layout_test
}  // namespace rapido::test
