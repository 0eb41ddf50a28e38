// A state that another thread writes. Also built alone, under ThreadSanitizer.
#include <gtest/gtest.h>

#include <array>
#include <atomic>
#include <thread>

#include "rapido/rapido.hpp"

namespace rapido::test {
namespace {

using namespace std::chrono_literals;

void update(Hud& hud, Seconds step) {
    hud.update({.real = step, .game = step});
}
std::string shown(Hud& hud, const char* id) {
    return std::string(hud[hud.find(id)].text);
}

struct State {
    std::int64_t water = 0;
    std::int64_t tank = 0;
    std::array<std::int64_t, 13> more{};
};

TEST(Shared, has_no_value_before_the_first_write_and_after_its_end) {
    Hud hud;
    {
        Shared<State> shared;
        hud.add(Text{.id = "water",
                     .value = watch(shared, &State::water),
                     .max = watch(shared, &State::tank),
                     .format = "{}/{max}"});
        hud.add(Text{
            .id = "sum", .value = watch(shared, [](const State& s) { return s.water + s.tank; }), .motion = tween(1s)});
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "water"), "--/--");
        shared.write({640, 1000, {}});
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "water"), "640/1000");
        shared.snap({0, 7, {}});
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "sum"), "7") << "a snap comes with the state";
        hud.add(Text{.id = "late", .value = watch(shared, &State::tank)});
        update(hud, 0s);
        EXPECT_EQ(shown(hud, "late"), "7");
    }
    update(hud, 0s);
    EXPECT_EQ(shown(hud, "water"), "--/--");
}

TEST(Shared, arrives_whole_in_every_hud_while_a_thread_writes_as_fast_as_it_can) {
    Shared<State> shared;
    std::atomic<bool> stop{false};
    std::thread writer([&] {
        for (std::int64_t n = 1; !stop; ++n) {
            State state{n, -n, {}};
            state.more.fill(n * 3);
            shared.write(state);
        }
    });
    const auto reader = [&] {
        Hud hud;
        const auto water = hud.add(Text{.id = "water", .value = watch(shared, &State::water)});
        const auto tank = hud.add(Text{.id = "tank", .value = watch(shared, &State::tank)});
        const auto last =
            hud.add(Text{.id = "last", .value = watch(shared, [](const State& s) { return s.more[12]; })});
        std::int64_t newest = 0;
        // Long enough to be overtaken by the writer, however late the machine lets it begin.
        for (int frame = 0; frame < 20000 || newest < 100; ++frame) {
            update(hud, 1ms);
            if (hud[water].text == "--") continue;
            const std::int64_t n = std::stoll(std::string(hud[water].text));
            ASSERT_EQ(hud[tank].text, std::to_string(-n));
            ASSERT_EQ(hud[last].text, std::to_string(3 * n));
            ASSERT_GE(n, newest);
            newest = n;
        }
    };
    std::thread second(reader);
    reader();
    second.join();
    stop = true;
    writer.join();
}

}  // namespace
}  // namespace rapido::test
