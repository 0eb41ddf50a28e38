// Values in flight: what a frame costs with 1,000 of them.
#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <cstdlib>
#include <cstring>

#include "compare.hpp"
#include "rapido/rapido.hpp"

namespace rapido::bench {
namespace {

using namespace std::chrono_literals;

constexpr std::size_t count = 1'000;
constexpr Seconds frame{1.0 / 60};
/// So long that all are in flight whenever they are measured, which begins after `begun`.
constexpr Seconds length{3'600};
constexpr Seconds begun{1'000};

struct Bars {
    std::vector<double> values = std::vector<double>(count, 10.0);
    Hud hud;

    explicit Bars(const Motion& motion) {
        for (std::size_t i = 0; i < count; ++i)
            hud.add(Bar{.id = "b" + std::to_string(i), .value = watch(values[i]), .max = 100, .motion = motion});
        hud.update(0);
        for (std::size_t i = 0; i < count; ++i)
            values[i] = 20 + static_cast<double>(i % 70);
        hud.update(0);
        // That a motion takes an hour is a warning.
        if (hud.elements().size() != count) std::abort();  // it would be measured without its elements
    }
};

void run(benchmark::State& state, Hud& hud) {
    hud.update({.real = begun, .game = begun});
    for (auto _ : state) {
        hud.update({.real = frame, .game = frame});
        benchmark::ClobberMemory();
    }
}

void hud_springs(benchmark::State& state) {
    Bars bars(spring(length));
    run(state, bars.hud);
}
void hud_tweens(benchmark::State& state) {
    Bars bars(tween(length));
    run(state, bars.hud);
}
void hud_resting(benchmark::State& state) {
    Bars bars(tween(Seconds{0.001}));
    bars.hud.update({.real = frame, .game = frame});
    run(state, bars.hud);
}

/// One in flight, with the fill that it gives.
struct Flying {
    double start, target, distance, rate, max, fill;
};

std::vector<Flying> flying() {
    std::vector<Flying> all(count);
    for (std::size_t i = 0; i < count; ++i) {
        const double target = 20 + static_cast<double>(i % 70);
        all[i] = {0, target, 10 - target, 5.83 / length.count(), 100, 0};
    }
    return all;
}

void bare_springs(benchmark::State& state) {
    std::vector<Flying> all = flying();
    double now = begun.count();
    for (auto _ : state) {
        now += frame.count();
        for (Flying& one : all) {
            const double t = now - one.start;
            const double x = std::exp(-one.rate * t) * (one.distance + one.rate * one.distance * t);
            one.fill = std::clamp((one.target + x) / one.max, 0.0, 1.0);
        }
        benchmark::ClobberMemory();
    }
}

/// A cubic Bezier easing by Newton's method, as one would write it down.
double ease_out(double progress) {
    double t = progress;
    for (int i = 0; i < 8; ++i) {
        const double miss = (-0.74 * t + 1.74) * t * t - progress;
        if (std::abs(miss) < 1e-12) break;
        t -= miss / ((-2.22 * t + 3.48) * t);
    }
    return (3 - 2 * t) * t * t;
}

void bare_tweens(benchmark::State& state) {
    std::vector<Flying> all = flying();
    double now = begun.count();
    for (auto _ : state) {
        now += frame.count();
        for (Flying& one : all) {
            const double x = one.distance * (1 - ease_out((now - one.start) / length.count()));
            one.fill = std::clamp((one.target + x) / one.max, 0.0, 1.0);
        }
        benchmark::ClobberMemory();
    }
}

void hud_rolls(benchmark::State& state) {
    std::vector<std::int64_t> values(count, 10);
    Hud hud;
    for (std::size_t i = 0; i < count; ++i)
        hud.add(Text{.id = "t" + std::to_string(i), .value = watch(values[i]), .motion = roll(length)});
    hud.update(0);
    for (std::size_t i = 0; i < count; ++i)
        values[i] = 1'000'000'000'000 + static_cast<std::int64_t>(i);
    hud.update(0);
    run(state, hud);
}

void bare_rolls(benchmark::State& state) {
    std::vector<std::array<char, 24>> texts(count);
    double now = begun.count();
    for (auto _ : state) {
        now += frame.count();
        for (std::size_t i = 0; i < count; ++i) {
            const std::int64_t target = 1'000'000'000'000 + static_cast<std::int64_t>(i);
            const double rest = static_cast<double>(target - 10) * (1 - ease_out(now / length.count()));
            const std::int64_t shown = target - static_cast<std::int64_t>(std::ceil(rest));
            std::to_chars(texts[i].data(), texts[i].data() + 24, shown);
        }
        benchmark::ClobberMemory();
    }
}

void resting_pointers(benchmark::State& state) {
    std::vector<double> values(count, 1);
    std::vector<const double*> pointers;
    std::vector<double> last(count, 1);
    for (const double& value : values)
        pointers.push_back(&value);
    for (auto _ : state) {
        benchmark::ClobberMemory();
        int changed = 0;
        for (std::size_t i = 0; i < count; ++i)
            if (*pointers[i] != last[i]) ++changed;
        benchmark::DoNotOptimize(changed);
    }
}

constexpr std::size_t timer_count = 500;
constexpr int mark_count = 20;

void hud_timers(benchmark::State& state) {
    HudDefinition definition;
    for (std::size_t i = 0; i < timer_count; ++i) {
        Timer timer{.id = "t" + std::to_string(i), .duration = 60s + 1ms * i, .loop = true};
        for (int mark = 1; mark <= mark_count; ++mark)
            timer.marks.push_back({.at = Seconds{mark * 2.5}});
        definition.timers.push_back(std::move(timer));
    }
    Hud hud(definition);
    for (auto _ : state) {
        hud.update({.real = frame, .game = frame});
        benchmark::ClobberMemory();
    }
}

void bare_timers(benchmark::State& state) {
    struct Bare {
        double left, duration;
        std::array<double, mark_count> marks;
    };
    std::vector<Bare> timers(timer_count);
    for (std::size_t i = 0; i < timer_count; ++i) {
        timers[i].left = timers[i].duration = 60 + 0.001 * static_cast<double>(i);
        for (int mark = 1; mark <= mark_count; ++mark)
            timers[i].marks[static_cast<std::size_t>(mark - 1)] = mark * 2.5;
    }
    int fired = 0;
    for (auto _ : state) {
        for (Bare& timer : timers) {
            const double before = timer.left;
            timer.left -= frame.count();
            for (const double mark : timer.marks)
                if (before > mark && timer.left <= mark) ++fired;
            if (timer.left > 0) continue;
            ++fired;
            timer.left += timer.duration;
        }
        benchmark::DoNotOptimize(fired);
        benchmark::ClobberMemory();
    }
}

constexpr std::size_t effect_count = 200;
const Effect lurch{.id = "lurch",
                   .duration = length,
                   .keyframes = {{.at = 0.3, .scale = 1.2F, .rotation = 10.0F}, {.at = 0.7, .scale = 0.9F}}};

void hud_effects(benchmark::State& state) {
    HudDefinition definition;
    definition.effects = {lurch};
    Hud hud(definition);
    std::vector<ElementRef> bars;
    for (std::size_t i = 0; i < effect_count; ++i)
        bars.push_back(hud.add(Bar{.id = "b" + std::to_string(i), .value = 1}));
    hud.update(0);
    for (const ElementRef bar : bars)
        hud.play(bar, "lurch");
    hud.update({.real = begun, .game = begun});
    DisplayList list;
    hud.draw(list);
    for (auto _ : state) {
        hud.update({.real = frame, .game = frame});
        for (const ElementRef bar : bars) {
            const Shown shown = hud[bar];
            benchmark::DoNotOptimize(shown.scale + shown.rotation);
        }
    }
}

void bare_effects(benchmark::State& state) {
    std::vector<Pose> poses(effect_count);
    double now = begun.count();
    for (auto _ : state) {
        now += frame.count();
        for (Pose& pose : poses) {
            pose = pose_of(lurch, now / length.count());
            benchmark::DoNotOptimize(pose.scale + pose.rotation);
        }
    }
}

}  // namespace

std::vector<Case> motion_cases() {
    return {
        {"1,000 springs in flight", "the bare formula in a loop", 2, true, hud_springs, bare_springs},
        {"1,000 tweens in flight", "the bare formula in a loop", 2, true, hud_tweens, bare_tweens},
        {"1,000 rolls in flight", "the bare formula and to_chars", 2, true, hud_rolls, bare_rolls},
        {"1,000 that have landed", "a bare loop over pointers", 2, true, hud_resting, resting_pointers},
        {"500 timers of 20 marks", "subtracting, and asking each mark", 2, true, hud_timers, bare_timers},
        {"200 effects in flight", "the bare keyframes", 2, true, hud_effects, bare_effects},
    };
}

}  // namespace rapido::bench
