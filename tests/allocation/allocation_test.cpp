// A steady frame allocates nothing. In a program of its own, because it replaces operator new.
#include <gtest/gtest.h>

#include <atomic>
#include <cstdlib>
#include <new>

#include "rapido/rapido.hpp"
#ifdef RAPIDO_WITH_MESH
#include "rapido/mesh.hpp"
#endif

namespace {
std::atomic<long> allocations{0};
std::atomic<long> live{0};  ///< made and not yet given back
}  // namespace

static void give_back(void* memory) noexcept {
    if (memory != nullptr) --live;
    std::free(memory);
}

void* operator new(std::size_t size) {
    ++allocations;
    ++live;
    if (void* memory = std::malloc(size)) return memory;
    throw std::bad_alloc();
}
void* operator new(std::size_t size, const std::nothrow_t&) noexcept {
    ++allocations;
    ++live;
    return std::malloc(size);
}
void* operator new(std::size_t size, std::align_val_t alignment) {
    ++allocations;
    ++live;
    const auto step = static_cast<std::size_t>(alignment);
    if (void* memory = std::aligned_alloc(step, (size + step - 1) / step * step)) return memory;
    throw std::bad_alloc();
}
void operator delete(void* memory) noexcept {
    give_back(memory);
}
void operator delete(void* memory, std::size_t) noexcept {
    give_back(memory);
}
void operator delete(void* memory, std::align_val_t) noexcept {
    give_back(memory);
}
void operator delete(void* memory, std::size_t, std::align_val_t) noexcept {
    give_back(memory);
}

namespace rapido::test {
namespace {

using namespace std::chrono_literals;

class LineMeasurer final : public TextMeasurer {
 public:
    std::optional<FontId> find(std::string_view, int, bool) override { return 0; }
    FontMetrics metrics(FontId) override { return {0.75F, 0.25F}; }
    float shape(FontId, float size, std::string_view text, std::vector<Glyph>& glyphs) override {
        glyphs.assign(text.size(), Glyph{});
        return size / 2 * static_cast<float>(text.size());
    }
};

struct State {
    int water = 0;
    int tank = 1000;
};

TEST(SteadyFrame, allocates_nothing_whatever_changes_and_moves) {
    int score = 0;
    double fuel = 800;
    bool visible = true;
    std::string village = "Alder Creek";
    std::optional<int> repair;
    Live<int> health{100};
    Shared<State> shared;
    LineMeasurer measurer;
    HudDefinition definition;
    definition.timers.push_back({.id = "t", .duration = 1h});
    definition.timers.push_back({.id = "loop", .duration = 200ms, .loop = true, .marks = {{150ms}, {100ms, 20ms}}});
    definition.frame_meters.push_back({.id = "f", .interval = 100ms});
    Hud hud(definition, {}, &measurer);
    hud.add(Panel{.id = "p", .visible = watch(visible)});
    hud.add(Text{.id = "score", .value = watch(score), .format = "{} points", .inside = "p"});
    hud.add(Text{.id = "rolling", .value = watch(score), .format = "{:L} {delta}", .motion = tween(400ms)});
    hud.add(Text{.id = "computed",
                 .value = watch(score) * 2 - watch(fuel),
                 .visible = (since(watch(score)) < 4 || watch(village) == "Cedar Point") && !(watch(fuel) > 1e6)});
    hud.add(Text{.id = "compact", .value = watch(score), .compact_digits = 3});
    hud.add(Text{.id = "fuel", .value = watch(fuel), .max = 1000, .format = "{:.1f}/{max:.0f} {percent}%"});
    hud.add(Text{.id = "plural", .value = watch(score), .format = "{} acres", .plural = {.one = "{} acre"}});
    hud.add(Text{.id = "village", .value = watch(village)});
    hud.add(Text{.id = "repair", .value = watch(repair)});
    hud.add(Text{.id = "health", .value = watch(health)});
    hud.add(Text{.id = "water",
                 .value = watch(shared, &State::water),
                 .max = watch(shared, &State::tank),
                 .format = "{}/{max}"});
    hud.add(Text{.id = "time", .value = "t.left", .format = "{:.1%H:%M:%S}"});
    hud.add(Text{.id = "fps", .value = "f.rate", .format = "{:.0f}"});
    hud.add(Bar{.id = "bar", .value = watch(fuel), .max = 1000, .motion = tween(300ms)});
    hud.add(Bar{.id = "hull",
                .value = watch(fuel),
                .max = 1000,
                .pace = {.interval = 50ms, .pick = Pick::average, .quantize = 5},
                .motion = {.both = spring(200ms, 0.6F),
                           .down = tween(100ms, *Easing::parse("linear(0, 0.2, 1)")),
                           .max = tween(100ms)},
                .trail = {.delay = 100ms}});
    hud.add(Text{.id = "total", .value = watch(score), .pace = {.settle = 40ms}, .motion = roll(300ms)});
    hud.add(Text{.id = "gain", .value = "total.gain", .format = "{:+}", .visible = "total.pending"});
    hud.add(Text{.id = "late",
                 .value = "loop.left",
                 .format = "{:.1%S}",
                 .bands = {{.id = "b", .below = 0.1, .color = rgb(0xff7a3c), .fade = 30ms, .format = "!{:.1%S}"}}});
    hud.add(Bar{.id = "hit",
                .value = watch(fuel),
                .max = 1000,
                .bands = {{.below = 0.7, .effect = "pulse"}},
                .triggers = {{.on = TriggerOn::loss, .effect = "flash"}, {.on = TriggerOn::gain, .effect = "shine"}}});
    const auto moved = hud.add(Text{.id = "settling", .value = watch(village), .pace = {.settle = 30ms}});
    hud.add(Panel{.id = "grid", .layout = Layout::grid, .gap = 4, .columns = 2, .align = Align::baseline});
    hud.add(Panel{.id = "row", .layout = Layout::row, .inside = "grid"});
    hud.add(Text{.id = "a", .value = watch(score), .inside = "grid.row", .align = TextAlign::digits});
    hud.add(Text{.id = "b",
                 .value = watch(village),
                 .place = {.max_size = {60, 0}},
                 .inside = "grid",
                 .overflow = Overflow::ellipsis});
    hud.add(Text{.id = "c", .value = watch(fuel), .format = "{:.1f}", .inside = "grid", .align = TextAlign::digits});
    hud.add(Bar{.id = "cells",
                .value = watch(fuel),
                .max = 1000,
                .segments = 12,
                .ticks = {.at = {{.at = 500}}},
                .parts = {{.value = watch(score)}, {.value = 10, .where = PartWhere::end}}});
    hud.add(Ring{.id = "ring", .value = watch(fuel), .max = 1000, .motion = tween(300ms), .round_ends = true});
    hud.add(Notice{.id = "news",
                   .messages = {{.id = "low", .text = "Low: {}", .value = watch(score), .when = watch(visible)},
                                {.text = "Late", .on = TriggerOn::mark, .timer = "loop", .priority = 1}}});
    hud.add(Level{.id = "level", .value = watch(fuel), .max = 1000, .wave = {.height = 4}, .border = 2});
    hud.add(Pips{.id = "pips",
                 .value = watch(repair),
                 .max = 5,
                 .shape = Shape::heart,
                 .extra = {{.value = 2}},
                 .gain = "swell",
                 .loss = "fade",
                 .in_turn = {.effect = "shine", .every = 100ms, .step = 10ms},
                 .border = 1});
    hud.add(Dial{.id = "dial",
                 .value = watch(fuel),
                 .max = 1000,
                 .motion = spring(200ms),
                 .ticks = {.every = 100, .format = "{:.0f}"}});
    hud.add(Ruler{.id = "scale",
                  .value = watch(fuel),
                  .max = 1000,
                  .colors = {{0, rgb(0x38b6c9)}, {1000, rgb(0xff7a3c)}},
                  .ticks = {.every = 250, .format = "{:.0f}"}});
    hud.add(Graph{.id = "graph", .value = watch(fuel), .span = 1s, .resolution = 40, .ticks = {.at = {{.at = 500}}}});
    struct Pilot {
        std::string name;
        int score;
    };
    std::vector<Pilot> pilots;
    for (int i = 0; i < 12; ++i)
        pilots.push_back({"pilot " + std::to_string(10 + i), i});
    hud.add(list_of(
        {.id = "board",
         .entries = watch_entries(pilots, entry_field("name", &Pilot::name), entry_field("score", &Pilot::score)),
         .key = "name",
         .sort = "score",
         .at_most = 6},
        [](const auto& entry) {
            return nest(Panel{.layout = Layout::row, .enter = "fade"}, Text{.id = "name", .value = entry("name")},
                        Bar{.id = "score", .value = entry("score"), .max = 100, .motion = tween(50ms)});
        }));
    // Of a thousand things a hundred come or go, and as many amounts pop up, in each frame.
    struct Thing {
        std::array<float, 2> at{};
        double heat = 0;
    };
    std::vector<Thing> things(1000);
    std::array<MarkerRef, 1000> marked;
    const auto markers = hud.add(markers_of({.id = "markers",
                                             .parameters = {"heat"},
                                             .at_edge = AtEdge::arrow,
                                             .show = ShowMarker::after_change,
                                             .value_of = "heat"},
                                            [](const auto& thing) {
                                                return nest(Panel{.enter = "fade"},
                                                            Bar{.id = "bar", .value = thing("heat"), .max = 100});
                                            }));
    const auto pop_ups = hud.add(PopUps{.id = "pops", .at_most = 100, .bands = {{.above = 50, .format = "{}!"}}});
    const auto change_things = [&](int i) {
        for (int k = 0; k < 100; ++k) {
            const auto index = static_cast<std::size_t>((i * 37 + k) % 1000);
            things[index].at = {static_cast<float>(index % 40) * 30 - 600, static_cast<float>(index / 40) * 40 - 150};
            things[index].heat = (i + k) % 90;
            if (hud.alive(marked[index]))
                hud.remove(marked[index]);
            else
                marked[index] = hud.add_marker(markers, watch_position(things[index].at), {watch(things[index].heat)});
            hud.pop_up(pop_ups, {.at = world_point(things[index].at), .value = k});
        }
    };
    ASSERT_EQ(hud.problems(), Problems{});
    DisplayList list;
    const auto frame = [&](int i) {
        score = (i * 7919) % 1'000'000;
        fuel = 500 + 400.0 * ((i * 31) % 97) / 97;
        village = i % 2 == 0 ? "Pine Hollow" : "Stonebridge Upper Valley";
        repair = i % 3 == 0 ? std::optional<int>() : i;
        visible = i % 5 != 0;
        health = i % 100;
        change_things(i);
        pilots[static_cast<std::size_t>(i % 12)].score = i * 31 % 97;
        shared.write({i, 1000});
        hud.set_place(moved, {.offset = {static_cast<float>(i % 40), 300}});
        hud.update({.real = 16ms, .game = 16ms});
        hud.draw(list);
    };
    // Once each text has been as long as it gets, nothing grows any more.
    for (int i = 0; i < 1000; ++i)
        frame(i);
    const long before = allocations;
    for (int i = 0; i < 1000; ++i)
        frame(i);
    EXPECT_EQ(allocations - before, 0);
    const long probe = allocations;
    const auto* made = new std::string(100, 'x');
    EXPECT_GT(allocations - probe, 0) << "the count works";
    delete made;
}

/// What is made and goes again leaves nothing behind, whatever it was made of.
TEST(Growth, ends_when_elements_patterns_and_problems_come_and_go) {
    LineMeasurer measurer;
    HudDefinition definition;
    definition.timers = {{.id = "t", .duration = 10s, .loop = true, .marks = {{.at = 5s, .every = 1s}}}};
    definition.elements = {Notice{.id = "n", .enter = "fade", .leave = "fade"}};
    double value = 0;
    Hud hud(definition, {}, &measurer);
    const ElementRef notice = hud.find("n");
    DisplayList list;
    int round = 0;
    const auto pass = [&] {
        ++round;
        const std::string number = std::to_string(round);
        const auto color = rgb(static_cast<std::uint32_t>(round));
        const ElementRef refs[]{
            hud.add(Text{.id = "a", .value = "t.left", .format = "{:%S}", .visible = "!t.running"}),
            hud.add(Bar{.id = "b",
                        .value = Source("t.left") / 1s * (0.1 * round),
                        .bands = {{.id = "x", .below = 5, .color = color, .effect = "pulse"}},
                        .triggers = {{.on = TriggerOn::mark, .effect = "shake", .timer = "t"}},
                        .color = color}),
            hud.add(Text{.id = "c", .value = watch(value), .format = "{} in " + number, .motion = roll(300ms)}),
            hud.add(Text{.id = "d", .value = "t.elapsed", .format = "{:.1%S}", .bands = {{.above = 0.01 * round}}}),
        };
        hud.add(Text{.id = "e", .value = rapido::by_name("no." + number)});
        hud.notify(notice, {.text = "message " + number, .show_for = 20ms});
        if (round % 50 == 0) hud.snap();
        value += round;
        for (int i = 0; i < 3; ++i) {
            hud.update({.real = 20ms, .game = 20ms});
            hud.draw(list);
        }
        for (const ElementRef ref : refs)
            hud.remove(ref);
    };
    // Problems are counted up to ten thousand; the caches of patterns and plans are full long before.
    for (int i = 0; i < 11'000; ++i)
        pass();
    const long before = live;
    for (int i = 0; i < 5'000; ++i)
        pass();
    EXPECT_LT(std::abs(live - before), 3'000) << "a leak of one allocation a round is 5000";
    EXPECT_EQ(hud.problems().size(), 101U);
}

/// What a definition had is given back when the next ones have something else, but for what still plays.
TEST(Growth, ends_when_definitions_come_and_go) {
    int water = 0;
    HudDefinition definition;
    definition.styles.push_back({.id = "key"});
    definition.groups.push_back({.id = "group", .enter = "glimmer"});
    definition.timers.push_back({.id = "timer"});
    definition.effects = {{.id = "glimmer", .repeat = 2}, {.id = "blinks", .repeat = 0}};
    definition.elements = {
        Text{.id = "text", .value = by_name("water"), .triggers = {{.effect = "glimmer"}}, .group = "group"},
        Pips{.id = "pips", .value = by_name("water"), .max = 5, .gain = "glimmer"}};
    Sources sources;
    sources.set("water", watch(water));
    LineMeasurer measurer;
    Hud hud(definition, sources, &measurer);
    hud.add(Text{.id = "game", .value = watch(water), .bands = {{.above = 2, .effect = "blinks"}}});
    const auto reload = [&](int round) {
        water = round % 5;
        for (Effect& effect : definition.effects)
            effect.keyframes = {{.at = 0.5F, .scale = 1 + static_cast<float>(round % 7)}};
        definition.styles.front().color = rgb(static_cast<std::uint32_t>(round));
        EXPECT_TRUE(hud.reload(definition).empty());
        hud.update(1.0 / 64);
    };
    for (int round = 0; round < 100; ++round)
        reload(round);
    const long before = live;
    for (int round = 0; round < 1'000; ++round)
        reload(round);
    EXPECT_LT(std::abs(live - before), 500) << "a leak of one allocation a round is 1000";
}

#ifdef RAPIDO_WITH_MESH
TEST(SteadyFrame, of_triangles_allocates_nothing_either) {
    Fonts fonts;
    MeshAtlas atlas(fonts);
    Mesh mesh(atlas);
    int number = 0;
    Hud hud(HudDefinition{}, {}, &fonts);
    for (int i = 0; i < 20; ++i)
        hud.add(Text{.id = "t" + std::to_string(i),
                     .value = watch(number),
                     .place = {.offset = {5, 20.0F * static_cast<float>(i)}}});
    hud.add(Bar{.id = "bar", .value = watch(number), .max = 99, .place = {.offset = {200, 5}}});
    hud.add(Ring{.id = "ring", .value = watch(number), .max = 99, .place = {.offset = {200, 50}, .size = {60, 60}}});
    DisplayList list;
    const auto frames = [&](int count) {
        for (int i = 0; i < count; ++i) {
            number = 10 + i % 30;
            hud.update({.real = 16ms, .game = 16ms});
            hud.draw(list);
            mesh.draw(list);
        }
    };
    frames(120);  // all characters and all looks of the ring are there
    const long before = allocations;
    frames(60);
    EXPECT_EQ(allocations - before, 0);
    EXPECT_GT(mesh.vertices().size(), 160U);
}
#endif

}  // namespace
}  // namespace rapido::test
