// Timers on their own.
#include "support.hpp"

namespace rapido::test {
namespace game_timer_test {

struct Told {
    TimerEvent::Kind kind;
    std::int64_t at;  // of a mark, nanoseconds
    Nanoseconds time;
};

std::string words(const GameTimer& timer, std::uint64_t after = 0) {
    std::string text;
    for (const TimerEvent& event : timer.events(after)) {
        if (!text.empty()) text += " ";
        if (event.kind == TimerEvent::Kind::end) text += "end";
        if (event.kind == TimerEvent::Kind::skipped) text += "skipped:" + std::to_string(event.count);
        if (event.kind == TimerEvent::Kind::mark) text += std::to_string(event.at.count() / 1'000'000);
        text += "@" + std::to_string(event.time.count() / 1'000'000);
    }
    return text;
}

TEST(GameTimer, tells_marks_in_order_of_time_however_long_the_step) {
    const std::vector<Mark> marks{{45s}, {15s}, {5s, 1s}, {90s}, {60s}, {3s}};
    for (const Nanoseconds step : {Nanoseconds(60s), Nanoseconds(7s), Nanoseconds(16ms)}) {
        Countdown countdown{60s};
        countdown.set_marks(marks);
        countdown.start();
        std::string all;
        std::uint64_t seen = 0;
        for (Nanoseconds now{0}; now < 61s; now += step) {
            countdown.advance(step);
            const std::string more = words(countdown, seen);
            all += (all.empty() || more.empty() ? "" : " ") + more;
            seen = countdown.event_count();
        }
        // 60 is where it starts, 90 above it; 3 is in the series.
        EXPECT_EQ(all, "45000@15000 15000@45000 5000@55000 4000@56000 3000@57000 2000@58000 1000@59000 end@60000");
    }
    Stopwatch stopwatch{2s};
    stopwatch.set_marks(std::vector<Mark>{{3s, 2s}, {10s}});
    stopwatch.start();
    stopwatch.advance(9s);
    EXPECT_EQ(words(stopwatch), "3000@1000 5000@3000 7000@5000 9000@7000 10000@8000 11000@9000");
    EXPECT_EQ(stopwatch.elapsed(), 11s);
}

TEST(GameTimer, takes_and_gives_time) {
    struct Row {
        const char* what;
        void (*act)(GameTimer&);
        const char* told;
        Nanoseconds position;
        bool running;
    };
    const std::vector<Row> rows{
        {"runs",
         [](GameTimer& t) {
             t.start();
             t.advance(4s);
         },
         "8000@2000", 6s, true},
        {"take fires what it passes", [](GameTimer& t) { t.take(3s); }, "5000@4000", 3s, true},
        {"add arms it again",
         [](GameTimer& t) {
             t.add(3s);
             t.advance(2s);
         },
         "5000@5000", 4s, true},
        {"set fires nothing",
         [](GameTimer& t) {
             t.set(9s);
             t.set(2s);
         },
         "", 2s, true},
        {"nor does a start on a mark",
         [](GameTimer& t) {
             t.set(5s);
             t.advance(1s);
         },
         "", 4s, true},
        {"more than its duration",
         [](GameTimer& t) {
             t.add(20s);
             t.advance(15s);
         },
         "", 9s, true},
        {"a pause",
         [](GameTimer& t) {
             t.pause();
             t.advance(5s);
         },
         "", 9s, false},
        {"taken while it is paused", [](GameTimer& t) { t.take(2s); }, "8000@27000", 7s, false},
        {"twice as fast",
         [](GameTimer& t) {
             t.resume();
             t.set_speed(2);
             t.advance(1s);
         },
         "5000@28000", 5s, true},
        {"standing still",
         [](GameTimer& t) {
             t.set_speed(0);
             t.advance(9s);
         },
         "", 5s, true},
        {"to its end and beyond",
         [](GameTimer& t) {
             t.set_speed(1);
             t.advance(7s);
         },
         "end@42000", 0s, false},
        {"once",
         [](GameTimer& t) {
             t.advance(7s);
             t.take(1s);
         },
         "", 0s, false},
        {"time after the end",
         [](GameTimer& t) {
             t.add(6s);
             t.advance(1s);
         },
         "", 6s, false},
        {"and on",
         [](GameTimer& t) {
             t.resume();
             t.advance(2s);
         },
         "5000@53000", 4s, true},
        {"taken to its end", [](GameTimer& t) { t.take(99s); }, "end@54000", 0s, false},
        {"set to its end",
         [](GameTimer& t) {
             t.start();
             t.set(0s);
             t.advance(1s);
         },
         "", 0s, false},
        {"nonsense",
         [](GameTimer& t) {
             t.start();
             t.take(Seconds{NAN});
             t.add(Seconds{INFINITY});
             t.add(-5s);
             t.set(Seconds{NAN});
         },
         "", 10s, true},
    };
    Countdown countdown{10s};
    countdown.set_marks(std::vector<Mark>{{8s}, {5s}, {0s}, {Seconds{NAN}}, {-2s}});
    std::uint64_t seen = 0;
    for (const Row& row : rows) {
        row.act(countdown);
        EXPECT_EQ(words(countdown, seen), row.told) << row.what;
        EXPECT_EQ(countdown.left(), row.position) << row.what;
        EXPECT_EQ(countdown.running(), row.running) << row.what;
        seen = countdown.event_count();
    }
}

TEST(GameTimer, loops_and_carries_the_overshoot_on) {
    Countdown countdown{3s};
    countdown.set_loop(true);
    countdown.set_marks(std::vector<Mark>{{1s}});
    countdown.start();
    EXPECT_EQ(countdown.advance(8s), Seconds{2});
    EXPECT_EQ(words(countdown), "1000@2000 end@3000 1000@5000 end@6000 1000@8000");
    EXPECT_EQ(countdown.left(), 1s);
    Stopwatch lap{0s, 3s};
    lap.set_loop(true);
    lap.start();
    EXPECT_EQ(lap.advance(7s), Seconds{1});
    EXPECT_EQ(lap.elapsed(), 1s);
    EXPECT_EQ(lap.left(), 2s);
}

TEST(GameTimer, counts_what_is_too_much_to_tell) {
    for (const double speed : {1.0, 0.25, 3.0}) {
        Countdown countdown{1ms};
        countdown.set_loop(true);
        countdown.set_marks(std::vector<Mark>{{Seconds{0.0005}}, {Seconds{0.0002}, Seconds{0.0001}}});
        countdown.set_speed(speed);
        countdown.start();
        countdown.advance(Seconds{10});
        const auto events = countdown.events();
        ASSERT_EQ(events.size(), 257U);
        EXPECT_EQ(events.back().kind, TimerEvent::Kind::skipped);
        // Four a loop: 0.5, 0.2, 0.1 and the end. A third of a millisecond is not a whole number of nanoseconds.
        const double expected = 10'000 * speed * 4;
        EXPECT_NEAR(static_cast<double>(256 + events.back().count), expected, speed == 3 ? 1 : 0) << speed;
        EXPECT_TRUE(countdown.running());
        EXPECT_NEAR(to_seconds(countdown.left()).count(), 0.001, 1e-9);
    }
}

/// Steps a microsecond at a time, and looks at every mark.
struct Twin {
    bool down;
    double position, duration, speed = 1;  // microseconds
    bool loop = false, running = true, ended = false;
    std::vector<double> marks{};  // single ones
    std::vector<Told> told{};

    void go(double to, std::int64_t now) {
        std::vector<double> hit;
        for (const double mark : marks)
            if (down ? mark < position && mark >= to : mark > position && mark <= to) hit.push_back(mark);
        std::sort(hit.begin(), hit.end());
        if (down) std::reverse(hit.begin(), hit.end());
        for (const double mark : hit)
            told.push_back({TimerEvent::Kind::mark, std::llround(mark * 1000), Nanoseconds{now * 1000}});
        position = to;
        if (down ? position > 0 : duration == 0 || position < duration) return;
        told.push_back({TimerEvent::Kind::end, 0, Nanoseconds{now * 1000}});
        if (loop) {
            const double over = down ? -position : position - duration;
            position = down ? duration : 0;
            go(down ? position - over : position + over, now);
        } else {
            position = down ? 0 : duration;
            ended = true;
            running = false;
        }
    }
    void step(std::int64_t now) {
        if (running && speed > 0) go(position + (down ? -speed : speed), now);
    }
};

/// What the game does to a timer, and when.
struct Act {
    std::int64_t time;  // microseconds
    int what;
    double amount;
};

void act(GameTimer& timer, const Act& act) {
    const Seconds amount{act.amount / 1e6};
    switch (act.what) {
        case 0:
            return timer.pause();
        case 1:
            return timer.resume();
        case 2:
            return timer.add(amount);
        case 3:
            return timer.take(amount);
        case 4:
            return timer.set_speed(act.amount);
        case 5:
            return timer.set(amount);
        default:
            return timer.start();
    }
}

void act(Twin& twin, const Act& act, double begin) {
    switch (act.what) {
        case 0:
            twin.running = false;
            return;
        case 1:
            twin.running = !twin.ended;
            return;
        case 2:
        case 3: {
            const double to = twin.position + (act.what == 2 ? act.amount : -act.amount);
            const bool ahead = (act.what == 2) == !twin.down;
            if (ahead && twin.ended) return;
            // A jump to the end carries nothing over.
            const double limited = twin.down ? std::max(to, 0.0) : twin.duration > 0 ? std::min(to, twin.duration) : to;
            if (ahead) return twin.go(limited, act.time);
            twin.position = std::max(to, 0.0);
            twin.ended = false;
            return;
        }
        case 4:
            twin.speed = act.amount;
            return;
        case 5:
            twin.position = twin.down || twin.duration == 0 ? act.amount : std::min(act.amount, twin.duration);
            twin.ended = twin.down && act.amount == 0;
            twin.running = twin.running && !twin.ended;
            return;
        default:
            twin.position = begin;
            twin.running = true;
            twin.ended = false;
    }
}

TEST(GameTimer, is_its_own_twin_that_steps_a_microsecond_at_a_time) {
    Random random(51);
    for (int round = 0; round < 24; ++round) {
        const bool down = round % 3 != 2;
        const bool loop = round % 2 == 0;
        const double duration = down || loop ? 2.0 * (1000 + random.below(400'000)) : 0;
        std::vector<Mark> marks;
        Twin twin{.down = down, .position = down ? duration : 0, .duration = duration, .loop = loop};
        for (int i = 0; i < 5; ++i) {
            twin.marks.push_back(2.0 * (1 + random.below(300'000)));
            marks.push_back({Seconds{twin.marks.back() / 1e6}});
        }
        // Every 20 ms from 100 ms down, or from there up.
        marks.push_back({.at = 100ms, .every = 20ms});
        for (int i = 0; down ? i < 5 : i < 90; ++i)
            twin.marks.push_back(100'000 + 20'000.0 * (down ? -i : i));
        std::vector<Act> acts;
        for (int i = 0; i < 12; ++i) {
            const int what = random.below(7);
            const double amount = what == 4 ? std::array{0.0, 0.5, 1.0, 2.0}[static_cast<std::size_t>(random.below(4))]
                                            : 2.0 * random.below(200'000);
            acts.push_back({random.below(800'000), what, amount});
        }
        std::sort(acts.begin(), acts.end(), [](const Act& a, const Act& b) { return a.time < b.time; });

        const auto play = [&](Nanoseconds longest) {
            Countdown countdown(Seconds{duration / 1e6});
            Stopwatch stopwatch(0s, Seconds{duration / 1e6});
            GameTimer* const timer = down ? static_cast<GameTimer*>(&countdown) : &stopwatch;
            timer->set_loop(loop);
            timer->set_marks(marks);
            timer->start();
            std::vector<Told> told;
            std::uint64_t seen = 0;
            const auto look = [&] {
                for (const TimerEvent& event : timer->events(seen))
                    told.push_back(
                        {event.kind, event.kind == TimerEvent::Kind::mark ? event.at.count() : 0, event.time});
                EXPECT_EQ(told.size(), timer->event_count()) << "each is told once";
                seen = timer->event_count();
            };
            Nanoseconds now{0};
            const auto go_to = [&](Nanoseconds until) {
                while (now < until) {
                    const double most = static_cast<double>(std::min(until - now, longest).count());
                    const Nanoseconds step{1 + static_cast<std::int64_t>(random.unit() * (most - 1))};
                    timer->advance(step);
                    now += step;
                    look();
                }
            };
            for (const Act& next : acts) {
                go_to(Nanoseconds{next.time * 1000});
                act(*timer, next);
                look();
            }
            go_to(800ms);
            EXPECT_NEAR(static_cast<double>((down ? timer->left() : timer->elapsed()).count()), twin.position * 1000,
                        2000)
                << round;
            return told;
        };
        std::size_t next = 0;
        for (std::int64_t now = 0; now <= 800'000; ++now) {
            if (now > 0) twin.step(now);
            for (; next < acts.size() && acts[next].time == now; ++next)
                act(twin, acts[next], down ? duration : 0);
        }
        std::vector<Told> first;
        for (const Nanoseconds longest :
             {Nanoseconds(5s), Nanoseconds(300ms), Nanoseconds(16'666'667ns), Nanoseconds(1ms)}) {
            const std::vector<Told> told = play(longest);
            ASSERT_EQ(told.size(), twin.told.size()) << "round " << round;
            for (std::size_t i = 0; i < told.size(); ++i) {
                ASSERT_EQ(told[i].kind, twin.told[i].kind) << "round " << round << " event " << i;
                ASSERT_EQ(told[i].at, twin.told[i].at) << "round " << round << " event " << i;
                ASSERT_NEAR(static_cast<double>(told[i].time.count()), static_cast<double>(twin.told[i].time.count()),
                            2000);
            }
            if (first.empty()) first = told;
            for (std::size_t i = 0; i < told.size(); ++i)
                ASSERT_EQ(told[i].time, first[i].time) << "to the nanosecond, at every frame rate";
        }
    }
}

TEST(GameTimer, drifts_by_less_than_a_microsecond_in_ten_hours) {
    Stopwatch stopwatch;
    stopwatch.set_marks(std::vector<Mark>{{1s, 1s}});
    stopwatch.start();
    std::uint64_t seen = 0;
    std::int64_t second = 0;
    for (int i = 0; i < 10 * 3600 * 144 + 1; ++i) {
        stopwatch.advance(Seconds{1.0 / 144});
        for (const TimerEvent& event : stopwatch.events(seen)) {
            ++second;
            ASSERT_EQ(event.at, second * 1s);
            ASSERT_EQ(event.time, second * 1s) << "at its exact time";
        }
        seen = stopwatch.event_count();
    }
    EXPECT_EQ(second, 36'000);
    EXPECT_NEAR(static_cast<double>((stopwatch.elapsed() - 10h).count()), 1e9 / 144, 1000);
}

TEST(GameTimer, keeps_its_position_whatever_its_speed_does) {
    // An hour at 144 frames a second with another speed in each: a long double sums up what must have passed.
    Stopwatch watch;
    watch.start();
    Random random(3);
    const Nanoseconds frame{6'944'444};
    long double passed = 0;
    for (int i = 0; i < 144 * 3600; ++i) {
        const double speed = random.between(0.2, 3);
        watch.set_speed(speed);
        (void)watch.advance(to_seconds(frame));
        passed += static_cast<long double>(speed) * 6'944'444;
    }
    EXPECT_NEAR(static_cast<double>(static_cast<long double>(watch.elapsed().count()) - passed), 0, 1000);
}

TEST(GameTimer, tells_a_mark_on_its_end_in_the_same_way_however_it_comes_there) {
    const std::vector<Mark> marks{{5s}, {10s}};
    Stopwatch runs(0s, 10s), added(0s, 10s);
    for (Stopwatch* watch : {&runs, &added}) {
        watch->set_marks(marks);
        watch->start();
    }
    (void)runs.advance(12s);
    added.add(12s);
    std::vector<std::pair<TimerEvent::Kind, Nanoseconds>> told[2];
    for (int i = 0; i < 2; ++i)
        for (const TimerEvent& event : (i == 0 ? runs : added).events())
            told[i].emplace_back(event.kind, event.at);
    EXPECT_EQ(told[0], told[1]);
    EXPECT_EQ(told[0].size(), 2U);
}

}  // namespace game_timer_test
}  // namespace rapido::test
