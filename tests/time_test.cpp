#include "rapido/time.hpp"
#include "support.hpp"

namespace rapido::test {
namespace time_test {

TEST(Clock, stays_within_a_nanosecond_of_ten_hours_at_144_frames) {
    Clock clock;
    constexpr int frames = 10 * 3600 * 144;
    for (int i = 0; i < frames; ++i)
        clock.advance(Seconds{1.0 / 144});
    // The step itself is a rounded double: the true sum of these steps is frames times it.
    const long double sum = static_cast<long double>(1.0 / 144) * frames;
    EXPECT_NEAR(static_cast<double>(static_cast<long double>(clock.now().count()) - sum * 1e9L), 0, 1);
    EXPECT_NEAR(to_seconds(clock.now() - 10h).count(), 0, 1e-6);
}

TEST(Clock, takes_no_step_that_is_not_one) {
    Clock clock;
    clock.advance(2s);
    for (const double step : {-1.0, -1e-9, double(NAN), double(INFINITY), -double(INFINITY)})
        EXPECT_FALSE(clock.advance(Seconds{step})) << step;
    EXPECT_TRUE(clock.advance(0s));
    EXPECT_EQ(clock.now(), 2s);
}

TEST(Countdown, reports_its_end_once_when_a_frame_overshoots) {
    for (const double rate : {5.0, 24.0, 60.0, 144.0, 1000.0, 0.02}) {
        Countdown countdown{45s};
        countdown.start();
        int ends = 0;
        double ended_at = 0;
        for (int frame = 1; frame <= static_cast<int>(60 * rate) + 2; ++frame) {
            if (const auto overshoot = countdown.advance(Seconds{1 / rate})) {
                ++ends;
                ended_at = frame / rate - overshoot->count();
            }
            EXPECT_GE(countdown.left(), 0ns);
            EXPECT_EQ(countdown.left() + countdown.elapsed(), 45s);
        }
        EXPECT_EQ(ends, 1) << rate;
        EXPECT_NEAR(ended_at, 45, 2e-9) << rate;
        EXPECT_TRUE(countdown.ended());
        EXPECT_EQ(countdown.left(), 0ns);
    }
}

TEST(Countdown, runs_pauses_and_begins_again) {
    Countdown countdown{10s};
    EXPECT_FALSE(countdown.advance(20s)) << "it was not started";
    countdown.start();
    countdown.advance(3s);
    countdown.pause();
    EXPECT_FALSE(countdown.advance(20s));
    EXPECT_EQ(countdown.left(), 7s);
    countdown.resume();
    EXPECT_EQ(countdown.advance(9s), Seconds{2});
    countdown.resume();
    EXPECT_FALSE(countdown.running()) << "it has ended";
    countdown.start();
    EXPECT_EQ(countdown.left(), 10s);
    countdown.advance(4s);
    countdown.reset();
    EXPECT_EQ(countdown.left(), 10s);
    EXPECT_FALSE(countdown.running());
}

TEST(Countdown, of_no_length_ends_in_its_first_frame) {
    for (const double length : {0.0, -5.0, double(NAN)}) {
        Countdown countdown{Seconds{length}};
        countdown.start();
        EXPECT_EQ(countdown.advance(Seconds{0.25}), Seconds{0.25});
        EXPECT_FALSE(countdown.advance(1s));
    }
}

TEST(FrameCounter, divides_frames_by_the_time_that_really_passed) {
    FrameCounter meter{0.5s};
    for (int i = 0; i < 29; ++i)
        EXPECT_FALSE(meter.advance(Seconds{1.0 / 60}));
    EXPECT_EQ(meter.rate(), std::nullopt) << "no interval has closed";
    EXPECT_FALSE(meter.advance(Seconds{0.01}));
    EXPECT_TRUE(meter.advance(Seconds{0.04}));  // 31 frames in 29/60 + 0.05 s
    EXPECT_NEAR(*meter.rate(), 31 / (29.0 / 60 + 0.05), 1e-6);
    // The next close is at 1.0 s, not half a second after this one: the remainder is carried over.
    const double left = 1.0 - (29.0 / 60 + 0.05);
    EXPECT_FALSE(meter.advance(Seconds{left - 0.001}));
    EXPECT_TRUE(meter.advance(Seconds{0.002}));
    EXPECT_NEAR(*meter.rate(), 2 / (left + 0.001), 1e-6);
}

TEST(FrameCounter, closes_once_for_a_hitch_over_several_intervals) {
    FrameCounter meter{0.5s};
    EXPECT_TRUE(meter.advance(5s));
    EXPECT_DOUBLE_EQ(*meter.rate(), 0.2);
    EXPECT_FALSE(meter.advance(Seconds{0.25}));
    EXPECT_TRUE(meter.advance(Seconds{0.25}));
    EXPECT_DOUBLE_EQ(*meter.rate(), 4);
}

}  // namespace time_test
}  // namespace rapido::test
