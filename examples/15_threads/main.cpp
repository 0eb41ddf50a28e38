// Three threads: the simulation writes its state whole, the game's thread makes a HUD of it, and a third one draws. None waits for
// another but for a list to draw into.
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>

#include <atomic>
#include <condition_variable>
#include <cstdio>
#include <mutex>
#include <thread>

using namespace std::chrono_literals;

/// What the simulation knows. It is copied whole, so that the water and its tank never come from two moments.
struct State {
    double water = 0, tank = 0;
    int drops = 0;
};

/// Two display lists that go to and fro: one is filled while the other is drawn. `take` gives the newest one.
class TwoLists {
 public:
    /// The list to fill; the game waits here while the other one is drawn and this one is not taken yet.
    rapido::DisplayList* to_fill() {
        std::unique_lock lock(mutex_);
        changed_.wait(lock, [&] { return !is_full_; });
        return &lists_[filled_];
    }
    void fill() {
        const std::lock_guard lock(mutex_);
        is_full_ = true;
        changed_.notify_all();
    }
    /// A full list; the one that was taken before may be filled from now on. Nothing after the end.
    const rapido::DisplayList* take() {
        std::unique_lock lock(mutex_);
        changed_.wait(lock, [&] { return is_full_ || is_over_; });
        if (!is_full_) return nullptr;
        is_full_ = false;
        const rapido::DisplayList* const taken = &lists_[filled_];
        filled_ = 1 - filled_;
        changed_.notify_all();
        return taken;
    }
    void end() {
        const std::lock_guard lock(mutex_);
        is_over_ = true;
        changed_.notify_all();
    }

 private:
    std::mutex mutex_;
    std::condition_variable changed_;
    std::array<rapido::DisplayList, 2> lists_;
    std::size_t filled_ = 0;
    bool is_full_ = false, is_over_ = false;
};

int main() {
    constexpr int frames = 120;
    rapido::Shared<State> shared;
    std::atomic<bool> is_over = false;
    std::atomic<int> steps = 0;
    std::thread simulation([&] {
        State state{.water = 3000, .tank = 3000, .drops = 0};
        while (!is_over) {
            state.water -= 5;
            if (state.water < 0) {  // a larger tank after each flight: both change in one step
                state.tank += 100;
                state.water = state.tank;
                ++state.drops;
            }
            shared.write(state);
            ++steps;
            std::this_thread::sleep_for(200us);
        }
    });

    TwoLists lists;
    int drawn = 0;
    rapido::Fonts fonts;  // measured with by the game's thread, drawn with by the other one
    std::thread renderer([&] {
        rapido::Picture picture(480, 120, fonts);
        while (const rapido::DisplayList* const list = lists.take()) {
            picture.fill(rapido::rgb(0x10161c));
            picture.draw(*list);
            ++drawn;
        }
        if (const rapido::Status written = picture.write_png("threads.png"); !written)
            std::fprintf(stderr, "%s\n", to_string(written.problem()).c_str());
    });

    rapido::Hud hud({.design = {480, 120}, .font = "Inter, sans-serif"}, {}, &fonts);
    hud.resize({.size = {480, 120}});
    hud.add(rapido::Text{.id = "water",
                         .value = watch(shared, &State::water),
                         .max = watch(shared, &State::tank),
                         .format = "{:.0f} of {max:.0f} L",
                         .place = {.offset = {24, 20}}});
    const auto bar =
        hud.add(rapido::Bar{.id = "bar",
                            .value = watch(shared, &State::water),
                            .max = watch(shared, &State::tank),
                            .place = {.anchor = rapido::Anchor::bottom_left, .offset = {24, 24}, .size = {432, 20}}});
    bool is_torn = false;
    for (int frame = 0; frame < frames; ++frame) {
        hud.update(1 / 60.0);
        is_torn = is_torn || hud[bar].fill > 1;
        hud.draw(*lists.to_fill());
        lists.fill();
    }
    lists.end();
    renderer.join();
    is_over = true;
    simulation.join();
    std::printf("%d frames, %d drawn, %s; the simulation did %s\n", frames, drawn, is_torn ? "torn" : "never torn",
                steps > 0 ? "its steps" : "nothing");
}
