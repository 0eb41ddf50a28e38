// Tests of a HUD, as a game may copy them: what it shows of known values, at a moment of a trace, in every size and language.
#include <gtest/gtest.h>
#include <rapido/debug.hpp>
#include <rapido/file.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
#include <rapido/recording.hpp>

using namespace std::chrono_literals;

namespace {

const std::string folder = EMBER_RIDGE_FOLDER;

/// The sample HUD, played up to a moment of a trace.
struct Played {
    rapido::Fonts fonts;
    rapido::Images images{folder};
    rapido::Result<rapido::HudDefinition> definition = rapido::read_hud_file(folder + "/hud.toml");
    rapido::Result<rapido::Trace> trace;
    std::optional<rapido::TracePlayer> player;
    std::optional<rapido::Hud> hud;

    explicit Played(rapido::Result<rapido::Trace> what) : trace(std::move(what)) {
        EXPECT_TRUE(definition) << to_string(definition.problems().front());
        EXPECT_TRUE(trace) << to_string(trace.problems().front());
        player.emplace(*trace);
        hud.emplace(*definition, player->sources(), &fonts, &images);
        hud->resize({.size = {1280, 800}});
    }
    /// 60 frames a second, as the game would.
    void play_until(rapido::Nanoseconds end) {
        for (rapido::Nanoseconds time = hud->now(); time < end;) {
            const rapido::Nanoseconds before = time;
            time = std::min(end, time + rapido::Nanoseconds{16'666'667});
            player->seek(time);
            hud->update(rapido::to_seconds(time - before));
        }
    }
    std::string_view text(std::string_view id) { return hud->text_of(hud->find(id)); }
};

/// A few seconds that a tester has cut out of a recorded flight, and what must be seen of them.
constexpr const char* low_water = R"(time,plane.water,plane.tank,mission.acres_saved
0,900,3000,1200
1,740,3000,1200
2,740,3000,1237
)";

TEST(EmberRidgeHud, has_no_problem_with_what_the_game_offers) {
    Played played(rapido::Trace::read_file(folder + "/flight.csv"));
    EXPECT_TRUE(played.hud->problems().empty()) << to_string(played.hud->problems().front());
}

TEST(EmberRidgeHud, counts_acres_up_after_a_moment) {
    Played played(rapido::Trace::read(low_water, "low_water.csv"));
    played.play_until(2s + 100ms);
    EXPECT_EQ(played.text("saved.acres"), "1,200") << "the gain stands beside it first";
    EXPECT_EQ(played.text("just_saved"), "+37");
    played.play_until(5s);
    EXPECT_EQ(played.text("saved.acres"), "1,237");
    // Why, if it does not: the explanation is part of the message.
    EXPECT_FALSE(played.hud->operator[](played.hud->find("just_saved")).visible)
        << rapido::explain(*played.hud, played.hud->find("just_saved")).text();
}

TEST(EmberRidgeHud, warns_in_the_last_seconds_of_the_evacuation) {
    Played played(rapido::Trace::read_file(folder + "/flight.csv"));
    played.play_until(128s + 500ms);
    const rapido::Shown countdown = (*played.hud)[played.hud->find("middle.warning.countdown")];
    EXPECT_TRUE(countdown.visible);
    EXPECT_EQ(countdown.text, "5");
    int seconds = 0, ends = 0;
    for (rapido::Nanoseconds time = 128s + 500ms; time < 134s; time += 10ms) {
        played.play_until(time);
        for (const rapido::Event& event : played.hud->events())
            if (event.id == "evacuation") ++(event.kind == rapido::EventKind::end ? ends : seconds);
    }
    EXPECT_EQ(seconds, 4) << "4, 3, 2, 1";
    EXPECT_EQ(ends, 1);
}

TEST(EmberRidgeHud, shows_a_recorded_moment_as_it_did) {
    const rapido::Result<rapido::Recording> recording = rapido::Recording::read_file(folder + "/evacuation.jsonl");
    ASSERT_TRUE(recording) << to_string(recording.problems().front());
    // Through the HUD as it is today: what was recorded is the game.
    const rapido::Result<rapido::HudDefinition> today = rapido::read_hud_file(folder + "/hud.toml");
    rapido::RecordingPlayer player(*recording);
    rapido::Fonts fonts;
    rapido::Images images(folder);
    rapido::Hud hud(*today, player.sources(), &fonts, &images);
    std::string marks;
    while (player.update(hud))
        for (const rapido::Event& event : hud.events())
            if (event.id == "evacuation") marks += event.kind == rapido::EventKind::end ? "end" : event.detail + " ";
    EXPECT_EQ(marks, "5 4 3 2 1 end");
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
}

TEST(EmberRidgeHud, stays_on_the_screen_in_every_size) {
    Played played(rapido::Trace::read_file(folder + "/flight.csv"));
    played.play_until(104s);
    for (const rapido::Size size :
         {rapido::Size{800, 600}, rapido::Size{1280, 800}, rapido::Size{2560, 1080}, rapido::Size{1080, 1920}}) {
        played.hud->resize({.size = size});
        played.hud->update(1 / 60.0);
        for (const rapido::ElementRef element : played.hud->elements()) {
            const rapido::Explanation why = rapido::explain(*played.hud, element);
            for (const rapido::ExplanationLine& line : why.lines)
                EXPECT_EQ(line.says.find("beyond the screen"), std::string::npos) << why.text();
        }
    }
}

}  // namespace
