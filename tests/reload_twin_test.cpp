// Reloads from one definition to another, beside a HUD that was made of the other.
#include <algorithm>
#include <cstdlib>

#include "life.hpp"

namespace rapido::test {
namespace reload_twin_test {

using Game = LifeGame;

TEST(ReloadTwin, of_a_timer_that_a_reload_takes_out_and_puts_back_begins_anew) {
    bool start = false, hold = false;
    struct Row {
        std::string name;
        Timer before, after;
    };
    for (const Row& row : std::vector<Row>{
             {"the same", {.id = "t", .duration = 5s}, {.id = "t", .duration = 5s}},
             {"another duration", {.id = "t", .duration = 5s}, {.id = "t", .duration = 9s, .marks = {{8s}}}},
             {"another kind", {.id = "t", .duration = 5s}, {.id = "t", .kind = TimerKind::stopwatch}},
             {"one that is started",
              {.id = "t", .duration = 5s, .start_when = watch(start)},
              {.id = "t", .duration = 5s, .start_when = watch(start)}},
             {"one that is held",
              {.id = "t", .duration = 5s, .pause_when = watch(hold)},
              {.id = "t", .duration = 5s, .speed = constant(2.0), .loop = true}},
         }) {
        const std::vector<Element> shown{Text{.id = "left", .value = "t.left", .format = "{:.3f}"},
                                         Text{.id = "passed", .value = "t.elapsed", .format = "{:.3f}"}};
        Hud hud(HudDefinition{.timers = {row.before}, .elements = shown});
        const auto frames = [&](Hud& of, bool is_started) {
            start = is_started;
            hold = false;
            std::string all;
            for (int i = 0; i < 90; ++i) {
                if (i == 20) start = true;
                if (i == 40) hold = true;
                update(of, 50ms);
                all +=
                    std::string(of.text_of(of.find("left"))) + " " + std::string(of.text_of(of.find("passed"))) + "\n";
                for (const Event& event : of.events())
                    all += std::string(to_string(event.kind)) + " " + event.detail + "\n";
            }
            return all;
        };
        frames(hud, false);  // at the end of which it is started
        EXPECT_TRUE(hud.reload(HudDefinition{}).empty());
        const ElementRef of_game = hud.add(Text{.id = "own", .value = "t.left"});
        update(hud, 50ms);
        EXPECT_EQ(hud.text_of(of_game), "--") << row.name;
        EXPECT_TRUE(hud.save_timers().empty());
        EXPECT_TRUE(hud.reload(HudDefinition{.timers = {row.after}, .elements = shown}).empty());
        Hud fresh(HudDefinition{.timers = {row.after}, .elements = shown});
        EXPECT_EQ(frames(hud, true), frames(fresh, true)) << row.name;
        EXPECT_EQ(hud.text_of(of_game) == "--", row.after.kind == TimerKind::stopwatch) << row.name;
    }
}

TEST(ReloadTwin, of_a_group_follows_an_effect_that_only_the_group_names) {
    for (const auto& [before, after] : {std::pair(0ms, 800ms), std::pair(100ms, 500ms)}) {
        Game game;
        game.group = false;
        HudDefinition definition = around(game);
        definition.elements = {Text{.id = "e", .format = "x", .group = "entering"}};
        definition.effects[2].duration = before + 100ms;
        Hud hud(definition), fresh;
        for (int i = 0; i < 5; ++i)
            update(hud, 16ms);
        definition.effects[2].duration = after;
        EXPECT_TRUE(hud.reload(definition).empty());
        fresh = Hud(definition);
        for (int i = 0; i < 60; ++i) {
            if (i == 2) game.group = true;
            update(hud, 16ms);
            update(fresh, 16ms);
            ASSERT_EQ(seen(hud, false), seen(fresh, false)) << i;
        }
    }
}

/// A definition out of a small stock of names, so that two of them have much in common.
class AnyDefinition {
 public:
    AnyDefinition(Game& game, std::uint64_t seed) : game_(game), random_(seed) {}

    HudDefinition make() {
        HudDefinition made = around(game_);
        made.timers.resize(static_cast<std::size_t>(random_.below(3)));
        made.themes[0].color["main"] = color();
        made.styles[0].color = color();
        made.styles[0].size = length(20, 40);
        for (Effect& effect : made.effects)
            effect.keyframes[0].scale = 1 + static_cast<float>(random_.below(3)) / 2;
        made.effects[2].duration = Seconds{random_.between(0.1, 0.6)};
        made.groups[0].dim = random_.below(2) == 0 ? 0.5F : 0.2F;
        if (random_.below(4) == 0) made.groups[1].enter = one_of({"hop", ""});
        if (random_.below(4) == 0) made.groups.pop_back();
        if (random_.below(3) == 0) made.font = "other";
        const std::array panels{"", "p", "p.q"};
        const bool has_p = random_.below(4) > 0, has_q = has_p && random_.below(3) > 0;
        if (has_p) made.elements.push_back(common(Panel{.id = "p", .layout = static_cast<Layout>(random_.below(4))}));
        if (has_q) made.elements.push_back(common(Panel{.id = "q", .inside = "p"}));
        for (const std::string id : {"a", "b", "c", "d", "e", "f"}) {
            if (random_.below(4) == 0) continue;
            Element element = any_element(id);
            const int deepest = has_q ? 3 : has_p ? 2 : 1;
            const std::string inside = panels[static_cast<std::size_t>(random_.below(deepest))];
            const bool has_group = made.groups.size() > 1;
            edit(element, [&](auto& any) {
                any.inside = inside;
                if (random_.below(4) == 0) any.group = has_group && random_.below(2) == 0 ? "entering" : "g";
            });
            made.elements.push_back(element);
        }
        std::shuffle(made.elements.begin() + has_p + has_q, made.elements.end(), Shuffling{random_});
        return made;
    }

 private:
    struct Shuffling {
        using result_type = std::uint64_t;
        Random& random;
        static constexpr result_type min() { return 0; }
        static constexpr result_type max() { return UINT64_MAX; }
        result_type operator()() { return random.bits(); }
    };
    std::string one_of(std::vector<std::string> all) {
        return all[static_cast<std::size_t>(random_.below(static_cast<int>(all.size())))];
    }
    float length(int low, int high) { return static_cast<float>(low + random_.below(high - low)); }
    Themed<Color> color() {
        if (random_.below(3) == 0) return theme("main");
        return rgb(static_cast<std::uint32_t>(random_.below(1 << 24)));
    }
    template <class Kind>
    Kind common(Kind kind) {
        kind.opacity = static_cast<float>(random_.unit());
        kind.layer = random_.below(3);
        kind.place.anchor = static_cast<Anchor>(random_.below(9));
        if (random_.below(3) == 0) kind.visible = watch(game_.shown);
        if (random_.below(4) == 0) kind.rotation = length(0, 90);
        if (random_.below(4) == 0) kind.glow = Glow{.radius = length(1, 9)};
        if constexpr (requires { kind.enter; }) kind.enter = one_of({"arrive", "", "hop"});
        if constexpr (requires { kind.color; }) kind.color = color();
        if constexpr (requires { kind.value; }) {
            kind.value = random_.below(2) == 0 ? watch(game_.value) : watch(game_.other);
            if constexpr (requires { kind.max; }) kind.max = random_.below(2) == 0 ? 100 : 150;
        }
        if constexpr (requires { kind.motion.both; }) {
            kind.motion = random_.below(3) == 0   ? Motions(tween(300ms))
                          : random_.below(2) == 0 ? Motions(roll(200ms))
                                                  : Motions();
            if (random_.below(3) == 0) kind.pace = {.settle = 50ms};
            if (random_.below(2) == 0)
                kind.bands.push_back({.id = "low",
                                      .below = static_cast<double>(length(5, 90)),
                                      .edge_unit = EdgeUnit::value,
                                      .color = color(),
                                      .fade = 100ms,
                                      .effect = one_of({"hop", ""})});
            if (random_.below(4) == 0)
                kind.bands.push_back({.above = 0.2, .edge_unit = EdgeUnit::ratio, .color = color()});
        }
        if constexpr (requires { kind.motion.both; }) {
            if (random_.below(3) == 0) kind.triggers = {{.on = TriggerOn::loss, .effect = "hop"}};
        } else if (random_.below(3) == 0) {
            kind.triggers = {{.on = TriggerOn::loss, .effect = "hop", .source = watch(game_.other)}};
        }
        if (random_.below(3) == 0)
            kind.bands.push_back({.id = one_of({"mid", ""}),
                                  .when = watch(game_.value) > watch(game_.other) + 20,
                                  .color = color(),
                                  .all = random_.below(2) == 0,
                                  .opacity = 0.5F});
        return kind;
    }
    Element any_element(const std::string& id) {
        switch (random_.below(9)) {
            case 0:
                return common(Bar{.id = id, .trail = {.delay = random_.below(2) == 0 ? 100ms : 0ms}});
            case 1:
                return common(Ring{.id = id});
            case 2:
                return common(Dial{.id = id});
            case 3:
                return common(Pips{.id = id, .gain = one_of({"swell", ""})});
            case 4:
                return common(Notice{.id = id,
                                     .messages = {{.id = "m",
                                                   .text = "{#loud}low{/loud} {}",
                                                   .value = watch(game_.count),
                                                   .when = watch(game_.alert),
                                                   .lasting = true}}});
            case 5:
                return common(Level{.id = id});
            default:
                return common(Text{.id = id,
                                   .format = one_of({"{:.0f}", "{:.0f}\n{#loud}liters{/loud}", "<{:.1f}>"}),
                                   .size = length(10, 40)});
        }
    }

    Game& game_;
    Random random_;
};

TEST(ReloadTwin, comes_to_the_same_by_a_reload_as_from_the_beginning) {
    const char* const wanted = std::getenv("RAPIDO_RELOADS");
#ifdef RAPIDO_SANITIZED
    constexpr std::uint64_t usual = 20;
#else
    constexpr std::uint64_t usual = 60;
#endif
    const std::uint64_t count = wanted != nullptr ? std::stoull(wanted) : usual;
    for (std::uint64_t seed = 1; seed <= count && !testing::Test::HasFailure(); ++seed) {
        Game game;
        AnyDefinition any(game, seed);
        const HudDefinition first = any.make(), second = any.make();
        BoxMeasurer measurer;
        Hud reloaded(first, {}, &measurer);
        reloaded.resize({.size = {800, 600}});
        Random random(seed);
        const auto play = [&] {
            if (random.below(9) == 0) game.value = random.below(100);
            if (random.below(9) == 0) game.shown = !game.shown;
            if (random.below(9) == 0) game.group = !game.group;
            if (random.below(9) == 0) game.dim = !game.dim;
            if (random.below(9) == 0) game.alert = !game.alert;
        };
        for (int i = 0; i < 40; ++i) {
            play();
            update(reloaded, 16ms);
        }
        for (const Problem& problem : reloaded.reload(second))
            ADD_FAILURE() << seed << ": " << to_string(problem);
        Hud fresh(second, {}, &measurer);
        fresh.resize({.size = {800, 600}});
        fresh.update(0.016 * 40);  // so that both have lived as long
        DisplayList of_reloaded, of_fresh;
        for (int i = 0; i < 150 && !testing::Test::HasFailure(); ++i) {
            // What was in flight lands, and then all goes on.
            if (i >= 100) play();
            update(reloaded, 16ms);
            update(fresh, 16ms);
            if (i < 99) continue;
            reloaded.draw(of_reloaded);
            fresh.draw(of_fresh);
            EXPECT_EQ(seen(reloaded, false), seen(fresh, false)) << "seed " << seed << ", frame " << i;
            EXPECT_EQ(first_difference(of_reloaded, of_fresh), "") << "seed " << seed << ", frame " << i;
        }
    }
}

}  // namespace reload_twin_test
}  // namespace rapido::test
