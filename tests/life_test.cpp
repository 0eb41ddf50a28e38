// All states in which an element can be, times all that may happen to it, beside a twin to which it did not happen.
#include <functional>
#include <memory>
#include <sstream>

#include "life.hpp"
#include "rapido/debug.hpp"
#include "rapido/recording.hpp"
#include "rapido/text.hpp"

namespace rapido::test {
namespace life_test {

using Game = LifeGame;
using Pilot = LifePilot;

/// A way of an element. Something has begun at frame 17, shortly before what happens to it at frame 20; at frame 50 it goes on.
struct Way {
    std::string name;
    std::function<std::vector<Element>(Game&)> elements;
    std::function<void(Game&, Hud&, int frame)> script = [](Game&, Hud&, int) {};
};

void jump(Game& game, Hud&, int frame) {
    if (frame == 17) game.value = 20;
    if (frame == 50) game.value = 75;
}
template <class Kind>
Kind of_value(Game& game, Kind kind) {
    kind.id = "e";
    kind.value = watch(game.value);
    if constexpr (requires { kind.max; } && !std::is_same_v<Kind, Pips>) kind.max = 100;
    return kind;
}

std::vector<Way> all_ways() {
    const auto of = [](auto kind) { return [kind](Game& game) { return std::vector<Element>{of_value(game, kind)}; }; };
    const auto steady = [](Game& game, Hud&, int) { game.value = 20; };
    const auto hide = [](bool Game::*what, int first, bool before) {
        return [=](Game& game, Hud&, int frame) {
            game.*what = frame < first ? before : !before;
            if (frame >= 50) game.*what = before;
        };
    };
    const std::vector<Band> ratio{{.id = "low",
                                   .below = 0.3,
                                   .edge_unit = EdgeUnit::ratio,
                                   .color = rgb(0xff0000),
                                   .fade = 200ms,
                                   .effect = "hop"}};
    return {
        {"a text at rest", of(Text{.format = "{:.0f} {#loud}L{/loud}"}), {}},
        {"a text in flight", of(Text{.motion = tween(700ms)}), jump},
        {"a text that rolls", of(Text{.motion = roll(700ms)}), jump},
        {"a text on a spring", of(Text{.motion = spring(700ms)}), jump},
        {"a text whose digits turn", of(Text{.format = "{:.0f}", .digit_motion = DigitMotion{.duration = 900ms}}),
         jump},
        {"a text that is an odometer",
         of(Text{.format = "{:.1f}", .motion = tween(700ms), .digit_motion = DigitMotion{}}), jump},
        {"a text whose digits flip",
         of(Text{.format = "{:+.0f} L", .digit_motion = DigitMotion{.kind = DigitMotionKind::flip, .stagger = 200ms}}),
         jump},
        {"a text that waits", of(Text{.pace = {.settle = 300ms}, .motion = tween(300ms)}), jump},
        {"a text that lets pass at times", of(Text{.pace = {.interval = 250ms}}), jump},
        {"a bar that trails",
         of(Bar{.trail = {.delay = 100ms, .duration = 600ms}, .triggers = {{.on = TriggerOn::loss, .effect = "hop"}}}),
         jump},
        {"a bar in a band of ratios at rest", of(Bar{.bands = ratio}), steady},
        {"a bar that has come into a band of ratios", of(Bar{.bands = ratio}), jump},
        {"a text in a band of values",
         of(Text{.bands = {{.id = "low",
                            .below = 30,
                            .edge_unit = EdgeUnit::value,
                            .color = rgb(0xff),
                            .format = "low {:.0f}"}}}),
         jump},
        {"a text in a band with a state",
         of(Text{.bands = {{.id = "low",
                            .below = 30,
                            .edge_unit = EdgeUnit::value,
                            .color = rgb(0xff),
                            .fade = 300ms,
                            .effect = "throb"}}}),
         jump},
        {"a text that a band hides",
         of(Text{.bands = {{.below = 30, .edge_unit = EdgeUnit::value, .visible = false}}, .leave = "arrive"}), jump},
        {"a text in a band of a condition",
         [](Game& game) {
             return std::vector<Element>{Text{.id = "e",
                                              .format = "x",
                                              .bands = {{.id = "low",
                                                         .when = watch(game.value) < watch(game.count) * 8,
                                                         .color = rgb(0xff),
                                                         .opacity = 0.5F,
                                                         .fade = 300ms,
                                                         .effect = "hop"}}}};
         },
         jump},
        {"a panel in a band that is for all inside",
         [](Game& game) {
             return nest(Panel{.id = "p",
                               .bands = {{.id = "low",
                                          .when = watch(game.value) < 30,
                                          .color = rgb(0xff8040),
                                          .all = true,
                                          .fade = 300ms}},
                               .triggers = {{.on = TriggerOn::loss, .effect = "hop", .source = watch(game.value)}}},
                         Text{.id = "e", .value = watch(game.value), .motion = tween(700ms)});
         },
         jump},
        {"a dial on its way", of(Dial{.motion = tween(600ms)}), jump},
        {"a ring that trails", of(Ring{.trail = {.delay = 100ms}, .bands = ratio}), jump},
        {"pips that are lost", of(Pips{.max = 10, .gain = "swell", .loss = "arrive"}),
         [](Game& game, Hud&, int frame) { game.value = frame < 17   ? 8
                                                        : frame < 50 ? 3
                                                                     : 6; }},
        {"a graph", of(Graph{.span = 1s, .resolution = 30}),
         [](Game& game, Hud&, int frame) { game.value = (frame * 37) % 90; }},
        {"a level with waves", of(Level{}), jump},
        {"a scale", of(Ruler{.motion = tween(500ms)}), jump},
        {"a text without a value",
         [](Game& game) {
             return std::vector<Element>{Text{.id = "e", .value = watch(game.maybe), .motion = tween(300ms)}};
         },
         [](Game& game, Hud&, int frame) {
             if (frame == 17) game.maybe.reset();
             if (frame == 50) game.maybe = 3;
         }},
        {"a text that hides without a value",
         [](Game& game) {
             return std::vector<Element>{
                 Text{.id = "e", .value = watch(game.maybe), .when_no_value = WhenNoValue::hide, .enter = "arrive"}};
         },
         [](Game& game, Hud&, int frame) {
             if (frame == 17) game.maybe.reset();
             if (frame == 50) game.maybe = 3;
         }},
        {"a text that enters",
         [](Game& game) {
             return std::vector<Element>{
                 Text{.id = "e", .format = "x", .visible = watch(game.shown), .enter = "arrive"}};
         },
         hide(&Game::shown, 17, false)},
        {"a text that leaves",
         [](Game& game) {
             return std::vector<Element>{
                 Text{.id = "e", .format = "x", .visible = watch(game.shown), .leave = "arrive"}};
         },
         hide(&Game::shown, 17, true)},
        {"a text that is hidden",
         [](Game& game) {
             return std::vector<Element>{
                 Text{.id = "e", .value = watch(game.value), .motion = tween(700ms), .visible = watch(game.shown)}};
         },
         [](Game& game, Hud& hud, int frame) {
             game.shown = frame < 10 || frame > 30;
             jump(game, hud, frame);
         }},
        {"a text in a hidden panel",
         [](Game& game) {
             return nest(Panel{.id = "p", .visible = watch(game.shown), .enter = "arrive"},
                         Text{.id = "e", .value = watch(game.value), .motion = tween(700ms)});
         },
         hide(&Game::shown, 17, false)},
        {"a text in a group that hides",
         [](Game& game) {
             return std::vector<Element>{Text{.id = "e", .value = watch(game.value), .group = "entering"}};
         },
         hide(&Game::group, 17, true)},
        {"a text in a dimmed group",
         [](Game&) { return std::vector<Element>{Text{.id = "e", .format = "x", .group = "g"}}; },
         hide(&Game::dim, 17, false)},
        {"a text with an effect that was asked for", of(Text{}),
         [](Game&, Hud& hud, int frame) {
             if (frame == 17) hud.play(hud.find("e"), "hop", 1.5F);
             if (frame == 18) hud.play(hud.find("e"), "throb");
             if (frame == 50) hud.stop(hud.find("e"), "throb");
         }},
        {"a text with colors and a place of the game", of(Text{.color = Themed<Color>(theme("main"))}),
         [](Game&, Hud& hud, int frame) {
             if (frame == 17) hud.set_opacity(hud.find("e"), 0.5F);
         }},
        {"a text of a timer",
         [](Game&) {
             return std::vector<Element>{Text{.id = "e",
                                              .value = "t.left",
                                              .format = "{:.2f}",
                                              .bands = {{.id = "end", .below = 0.4, .color = rgb(0xff0000)}},
                                              .triggers = {{.on = TriggerOn::mark, .effect = "hop", .timer = "t"}}}};
         },
         {}},
        {"a text of a timer that was started",
         [](Game&) { return std::vector<Element>{Text{.id = "e", .value = "once.left", .format = "{:.2f}"}}; },
         [](Game& game, Hud&, int frame) { game.alert = frame >= 17; }},
        {"a text of what is pending",
         [](Game& game) {
             return std::vector<Element>{
                 Text{.id = "sum", .value = watch(game.count), .pace = {.settle = 200ms}, .motion = roll(400ms)},
                 Text{.id = "e", .value = "sum.pending", .format = "{:+}", .visible = "sum.pending"}};
         },
         [](Game& game, Hud&, int frame) {
             if (frame == 15 || frame == 18 || frame == 50) game.count += 40;
         }},
        {"a text that shows its last change", of(Text{.format = "{:.0f} {delta:+.0f}"}), jump},
        {"a text with pieces in lines",
         of(Text{.format = "{:.0f} {#loud}liters{/loud}\nof water", .motion = tween(400ms)}), jump},
        {"a notice that says something",
         [](Game& game) {
             return std::vector<Element>{Notice{
                 .id = "e",
                 .messages = {{.id = "low", .text = "low {}", .value = watch(game.value), .when = watch(game.alert)},
                              {.id = "mark", .text = "mark", .on = TriggerOn::mark, .timer = "t"}},
                 .enter = "arrive",
                 .leave = "arrive"}};
         },
         [](Game& game, Hud&, int frame) { game.alert = frame >= 17 && frame < 60; }},
        {"a log with messages",
         [](Game&) {
             return std::vector<Element>{Notice{.id = "e", .enter = "arrive", .leave = "arrive", .at_most = 3}};
         },
         [](Game&, Hud& hud, int frame) {
             if (frame == 5 || frame == 17 || frame == 18 || frame == 50)
                 hud.notify(hud.find("e"),
                            {.text = "{#loud}shot{/loud} {}", .value = constant(frame), .show_for = 600ms});
         }},
        {"amounts that pop up", [](Game&) { return std::vector<Element>{PopUps{.id = "e"}}; },
         [](Game&, Hud& hud, int frame) {
             if (frame == 12 || frame == 18 || frame == 50)
                 hud.pop_up(hud.find("e"), {.on_screen = Point{50.0F + static_cast<float>(frame), 60}, .value = frame});
         }},
        {"entries of a list that change places",
         [](Game& game) {
             return list_of(List{.id = "e",
                                 .entries = watch_entries(game.pilots, entry_field("name", &Pilot::name),
                                                          entry_field("score", &Pilot::score)),
                                 .key = "name",
                                 .sort = "score",
                                 .place_motion = tween(600ms)},
                            [](const auto& entry) {
                                return nest(Panel{.layout = Layout::row, .enter = "arrive", .leave = "arrive"},
                                            Text{.id = "name", .value = entry("name")},
                                            Text{.id = "score", .value = entry("score"), .motion = tween(500ms)});
                            });
         },
         [](Game& game, Hud&, int frame) {
             if (frame == 16) game.pilots[2].score = 90;
             if (frame == 18) game.pilots.push_back({"Di", 25, {}});
             if (frame == 19) game.pilots.erase(game.pilots.begin());
             if (frame == 50) game.pilots[0].score = 99;
         }},
        {"markers",
         [](Game& game) {
             return markers_of(Markers{.id = "e",
                                       .entries = watch_entries(game.pilots, entry_field("name", &Pilot::name),
                                                                entry_position(&Pilot::at)),
                                       .key = "name",
                                       .at_most = 3},
                               [](const auto& entry) {
                                   return nest(Panel{.enter = "arrive", .leave = "arrive"},
                                               Text{.id = "name", .value = entry("name")});
                               });
         },
         [](Game& game, Hud& hud, int frame) {
             if (frame == 0) hud.set_camera(Camera::flat({.center = {2, 1, 0}, .zoom = 60}));
             game.pilots[0].at.x += 0.05;
             if (frame == 18) game.pilots.pop_back();
             if (frame == 50) game.pilots.push_back({"Di", 25, {1, 2, 0}});
         }},
    };
}

/// A game with a HUD that goes a way.
class Life {
 public:
    Game game;
    HudDefinition definition;
    BoxMeasurer measurer;
    std::unique_ptr<Hud> hud;

    explicit Life(const Way& way, Recorder* recorder = nullptr, bool is_of_game = false) : way_(way) {
        definition = around(game);
        std::vector<Element> elements = way.elements(game);
        if (!is_of_game) definition.elements.swap(elements);
        hud = std::make_unique<Hud>(definition, Sources{}, &measurer);
        hud->add(elements);
        EXPECT_TRUE(recorder == nullptr || record(*hud, recorder));
        hud->resize({.size = {800, 600}});
        for (const Problem& problem : hud->problems())
            ADD_FAILURE() << way.name << ": " << to_string(problem);
    }
    void frame() {
        if (way_.script) way_.script(game, *hud, frame_);
        ++frame_;
    }
    void finish() {
        update(*hud, 16ms);
        hud->draw(list_);
    }
    std::string seen() const { return test::seen(*hud); }
    const DisplayList& list() const { return list_; }

 private:
    const Way& way_;
    int frame_ = 0;
    DisplayList list_;
};

void reload(Life& life, const HudDefinition& definition) {
    for (const Problem& problem : life.hud->reload(definition))
        ADD_FAILURE() << to_string(problem);
}

/// Something that leaves everything as it was.
struct Happening {
    std::string name;
    std::function<void(Life&)> happens;
};

std::vector<Happening> all_happenings() {
    const auto each = [](auto call) {
        return [call](Life& life) {
            for (const ElementRef ref : life.hud->elements())
                call(*life.hud, ref);
        };
    };
    const auto is_own = [](Hud& hud, ElementRef ref) { return hud[ref].id.find('.') == std::string_view::npos; };
    return {
        {"change to the same", each([](Hud& hud, ElementRef ref) {
             EXPECT_TRUE(hud.change(ref, hud.description(ref))) << to_string(hud.problems().back());
         })},
        {"change there and back", each([is_own](Hud& hud, ElementRef ref) {
             if (!is_own(hud, ref)) return;
             const Element before = hud.description(ref);
             Element other = before;
             edit(other, [](auto& any) {
                 any.layer = 3;
                 if constexpr (requires { any.color; }) any.color = rgb(0x00ff00);
                 if constexpr (requires { any.size; }) any.size += 3;
             });
             EXPECT_TRUE(hud.change(ref, other) && hud.change(ref, before));
         })},
        {"reload of the same", [](Life& life) { reload(life, life.definition); }},
        {"reload there and back",
         [](Life& life) {
             HudDefinition other = life.definition;
             other.elements.push_back(Text{.id = "another", .format = "y"});
             other.themes[0].color["main"] = rgb(0x777777);
             other.styles[0].size = 50;
             other.effects[0].keyframes[0].at = 0.7;
             other.groups[0].dim = 0.2F;
             other.timers[0].marks[0].every = 50ms;
             for (Element& element : other.elements)
                 edit(element, [](auto& any) { any.layer = 2; });
             reload(life, other);
             reload(life, life.definition);
         }},
        {"text scale there and back",
         [](Life& life) {
             life.hud->set_text_scale(2);
             life.hud->set_text_scale(1);
         }},
        {"theme there and back",
         [](Life& life) { EXPECT_TRUE(life.hud->set_theme("night") && life.hud->set_theme("day")); }},
        {"language there and back",
         [](Life& life) {
             life.hud->set_language({.tag = "ar", .right_to_left = true});
             life.hud->set_language({});
         }},
        {"another size and back",
         [](Life& life) {
             life.hud->resize({.size = {300, 900}});
             life.hud->set_ui_scale(2);
             life.hud->set_ui_scale(1);
             life.hud->resize({.size = {800, 600}});
         }},
        {"a place and a color that are taken back", each([is_own](Hud& hud, ElementRef ref) {
             if (!is_own(hud, ref) || hud[ref].opacity != 1) return;
             hud.set_place(ref, {.anchor = Anchor::bottom_right});
             hud.set_color(ref, rgb(0x0000ff));
             hud.reset(ref);
         })},
        {"hidden and shown again", each([](Hud& hud, ElementRef ref) {
             hud.set_visible(ref, false);
             hud.set_visible(ref, true);
         })},
        {"something is added and removed",
         [](Life& life) {
             const ElementRef panel = life.hud->add(Panel{.id = "new"});
             life.hud->add(Text{.id = "inner", .value = watch(life.game.value), .inside = "new"});
             life.hud->remove(panel);
         }},
        {"timers are saved and restored",
         [](Life& life) { EXPECT_TRUE(life.hud->restore_timers(life.hud->save_timers())); }},
        {"the HUD moves",
         [](Life& life) {
             Hud moved = std::move(*life.hud);
             *life.hud = std::move(moved);
         }},
        {"it is looked at",
         [](Life& life) {
             DisplayList fresh;
             life.hud->draw(fresh);
             for (const ElementRef ref : life.hud->elements())
                 static_cast<void>(explain(*life.hud, ref));
             draw_overlay(*life.hud, fresh, Point{100, 100});
         }},
        {"another theme and another group are added",
         [](Life& life) {
             EXPECT_TRUE(life.hud->add(Theme{.id = "new", .color = {{"main", rgb(0)}}}));
             EXPECT_TRUE(life.hud->add(Group{.id = "new" + std::to_string(life.hud->now().count())}));
         }},
    };
}

TEST(Life, goes_on_as_if_nothing_had_happened_where_nothing_has_changed) {
    std::size_t compared = 0;
    for (const Way& way : all_ways())
        for (const Happening& happening : all_happenings()) {
            Life life(way), twin(way);
            for (int i = 0; i < 90; ++i) {
                life.frame();
                twin.frame();
                if (i == 20) happening.happens(life);
                life.finish();
                twin.finish();
                if (i < 19) continue;
                ++compared;
                if (life.seen() == twin.seen() && words_of(life.list()) == words_of(twin.list())) continue;
                ADD_FAILURE() << way.name << ", " << happening.name << ", frame " << i << ":\n"
                              << life.seen() << "-- and without --\n"
                              << twin.seen() << "-- drawn --\n"
                              << first_difference(life.list(), twin.list());
                break;
            }
        }
    EXPECT_GT(compared, 30'000U);
}

TEST(Life, of_what_the_game_has_added_goes_on_where_the_definition_becomes_another) {
    for (const Way& way : all_ways()) {
        Life life(way, nullptr, true), twin(way, nullptr, true);
        for (int i = 0; i < 90; ++i) {
            life.frame();
            twin.frame();
            if (i == 20) {
                HudDefinition other = life.definition;
                other.styles[0].size = 50;
                other.effects.push_back({.id = "of nobody"});
                reload(life, other);
            }
            // All are made anew, with what they had at first.
            if (i == 20) reload(life, life.definition);
            life.finish();
            twin.finish();
            ASSERT_EQ(life.seen(), twin.seen()) << way.name << ", frame " << i;
            ASSERT_EQ(first_difference(life.list(), twin.list()), "") << way.name << ", frame " << i;
        }
    }
}

TEST(Life, is_recorded_without_being_touched_and_played_as_it_was) {
    for (const Way& way : all_ways()) {
        std::ostringstream file;
        RecordingWriter writer(file);
        Life life(way, &writer), twin(way);
        std::vector<std::string> frames;
        for (int i = 0; i < 90; ++i) {
            life.frame();
            twin.frame();
            // What is called is recorded, too: one after the other, all that may happen.
            if (i >= 18 && i % 2 == 0) {
                const std::vector<Happening> all = all_happenings();
                const Happening& happening = all[static_cast<std::size_t>(i / 2) % all.size()];
                happening.happens(life);
                happening.happens(twin);
            }
            life.finish();
            twin.finish();
            frames.push_back(life.seen() + words_of(life.list()));
            ASSERT_EQ(life.seen(), twin.seen()) << way.name << ", frame " << i;
            ASSERT_EQ(first_difference(life.list(), twin.list()), "") << way.name << ", frame " << i;
        }
        const Result<Recording> recording = Recording::read(file.str(), "r");
        ASSERT_TRUE(recording) << way.name << ": " << to_string(recording.problems().front());
        RecordingPlayer player(*recording);
        player.set_languages(
            [](std::string_view tag) { return Language{.tag = std::string(tag), .right_to_left = tag == "ar"}; });
        BoxMeasurer measurer;
        Hud hud(recording->definition(), player.sources(), &measurer);
        DisplayList list;
        for (std::size_t i = 0; player.update(hud); ++i) {
            hud.draw(list);
            ASSERT_LT(i, frames.size());
            ASSERT_EQ(seen(hud) + words_of(list), frames[i]) << way.name << ", frame " << i;
        }
    }
}

TEST(Event, of_one_moment_come_in_the_order_in_which_they_happened) {
    std::vector<int> values(60, 5);
    std::vector<Element> bars;
    for (std::size_t i = 0; i < values.size(); ++i)
        bars.push_back(Bar{.id = "b" + std::to_string(i), .value = watch(values[i]), .max = 5});
    HudDefinition definition{.elements = bars};
    // Its mark lies before the end of the frame, in which all else happens, and is told behind it.
    definition.timers = {{.id = "late", .duration = 9s, .marks = {{.at = 4800ms}}},
                         {.id = "early", .duration = 9s, .marks = {{.at = 4990ms}}}};
    for (Timer& timer : definition.timers)
        timer.duration = 5s;
    Hud hud(definition);
    update(hud, 0s);
    std::fill(values.begin(), values.end(), 0);
    update(hud, 300ms);
    std::vector<std::string> told;
    for (const Event& event : hud.events())
        told.push_back(event.id);
    ASSERT_EQ(told.size(), values.size() + 2);
    EXPECT_EQ(told[0], "early");
    EXPECT_EQ(told[1], "late");
    for (std::size_t i = 0; i < values.size(); ++i)
        EXPECT_EQ(told[i + 2], "b" + std::to_string(i));
}

TEST(Leave, waits_for_what_moves_two_seconds_at_most_however_late_it_is) {
    for (const Seconds begins : {Seconds{0.5}, Seconds{60}}) {
        BoxMeasurer measurer;
        Hud hud({}, {}, &measurer);
        double value = 0;
        const ElementRef bar = hud.add(Bar{.id = "b", .value = watch(value), .motion = tween(1s, Easing::linear())});
        update(hud, 0s);
        update(hud, begins);
        value = 1;
        update(hud, 1ms);
        hud.leave(bar, "fade");
        for (int i = 1; i <= 9; ++i) {
            update(hud, 100ms);
            ASSERT_TRUE(hud.alive(bar)) << i;
            EXPECT_EQ(hud[bar].opacity, 1) << "it is still on its way";
        }
        update(hud, 200ms);
        update(hud, 50ms);
        EXPECT_LT(hud[bar].opacity, 1) << "and leaves when it is there";
    }
}

TEST(PopUps, that_are_over_change_nothing_any_more) {
    BoxMeasurer measurer;
    Hud hud({}, {}, &measurer);
    const ElementRef hits = hud.add(PopUps{.id = "hits", .show_for = 300ms});
    update(hud, 0s);
    hud.pop_up(hits, {.on_screen = Point{100, 100}, .value = 5});
    update(hud, 16ms);
    EXPECT_TRUE(hud[hits].changed);
    update(hud, 1s);
    update(hud, 16ms);
    for (int i = 0; i < 3; ++i) {
        update(hud, 16ms);
        EXPECT_FALSE(hud[hits].changed) << i;
    }
}

}  // namespace life_test
}  // namespace rapido::test
