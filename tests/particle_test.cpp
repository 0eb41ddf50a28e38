// Particles: where they are follows from their birth alone.
#include "rapido/images.hpp"
#include "support.hpp"

namespace rapido::test {
namespace particle_test {

/// A HUD of one bar in the middle of its screen, and an effect with particles on it.
struct Fire {
    BoxMeasurer measurer;
    Images images;
    double value = 1;
    Hud hud;
    ElementRef bar;
    std::size_t own = 0;  ///< items of the bar itself

    explicit Fire(Effect effect, Bar look = {}) {
        effect.id = "fire";
        const std::vector<Color> pixels(4, rgb(0xffffff));
        static_cast<void>(images.add("spark.png", 2, 2, pixels));
        hud = Hud(HudDefinition{.design = {400, 400}, .effects = {effect}}, {}, &measurer, &images);
        hud.resize({.size = {400, 400}});
        look.id = "b";
        look.value = watch(value);
        look.max = 10;
        look.place = {.anchor = Anchor::center, .size = {40, 20}};
        bar = hud.add(look);
        update(hud, 0s);
        own = 2;
    }
    /// Those that fly.
    std::vector<DisplayItem> particles() const {
        DisplayList list;
        hud.draw(list);
        const auto items = list.groups()[0].items();
        std::vector<DisplayItem> all;
        for (const DisplayItem& item : items)
            if (item.kind == DisplayItem::Kind::image ||
                (item.kind == DisplayItem::Kind::rect && item.rect.width == item.rect.height))
                all.push_back(item);
        return all;
    }
};

constexpr Point middle{200, 200};

TEST(Particles, fly_as_their_birth_says) {
    Fire fire({.duration = 1s,
               .repeat = 0,
               .particles = {.rate = 100,
                             .life = 500ms,
                             .speed = 80,
                             .direction = 90,
                             .spread = 0,
                             .gravity = 200,
                             .size = 4,
                             .end_size = 4}});
    EXPECT_TRUE(fire.particles().empty());
    fire.hud.play(fire.bar, "fire");
    for (int i = 0; i < 130; ++i) {
        update(fire.hud, 10ms);
        const std::vector<DisplayItem> all = fire.particles();
        // A hundred in a second, of which each lives for half of one; each is up to one interval late.
        EXPECT_NEAR(static_cast<double>(all.size()), std::min(i + 1, 50), 2);
        for (const DisplayItem& particle : all) {
            // How far it has faded says how old it is.
            const double age = 0.5 * (1 - particle.color.alpha / 255.0);
            const double x = static_cast<double>(particle.rect.x + 2 - middle.x);
            const double y = static_cast<double>(particle.rect.y + 2 - middle.y);
            EXPECT_GE(x, 40 * age - 0.3);
            EXPECT_LE(x, 80 * age + 0.3);
            EXPECT_NEAR(y, 100 * age * age, 0.3);
        }
    }
}

TEST(Particles, are_the_same_at_every_frame_rate_and_in_every_run) {
    const auto seen = [](int frames) {
        Fire fire({.duration = 300ms,
                   .repeat = 4,
                   .particles = {.rate = 60, .burst = 5, .life = 700ms, .gravity = -50, .anywhere = true}});
        fire.hud.play(fire.bar, "fire");
        for (int i = 0; i < frames; ++i)
            fire.hud.update(Seconds{1.0} / frames);
        std::string all;
        for (const DisplayItem& particle : fire.particles())
            all += std::to_string(std::lround(particle.rect.x * 10)) + "," +
                   std::to_string(std::lround(particle.rect.y * 10)) + " ";
        return all;
    };
    const std::string one = seen(1);
    EXPECT_GT(one.size(), 100U);
    for (const int frames : {1, 24, 60, 144, 1000})
        EXPECT_EQ(seen(frames), one) << frames;
}

TEST(Particles, end_with_what_started_them_and_the_last_flies_on) {
    Effect effect{.duration = 100ms, .repeat = 0, .particles = {.rate = 200, .life = 400ms}};
    Fire fire(effect, {.bands = {{.above = 5, .edge_unit = EdgeUnit::value, .effect = "fire"}}});
    update(fire.hud, 1s);
    EXPECT_TRUE(fire.particles().empty());
    // For as long as the band holds, also from the first frame and after a snap.
    fire.value = 7;
    fire.hud.snap(fire.bar);
    update(fire.hud, 16ms);
    update(fire.hud, 1s);
    EXPECT_NEAR(static_cast<double>(fire.particles().size()), 80, 3);
    fire.value = 1;
    update(fire.hud, 10ms);
    update(fire.hud, 300ms);
    const std::size_t left = fire.particles().size();
    EXPECT_GT(left, 0U);
    EXPECT_LT(left, 60U);
    update(fire.hud, 300ms);
    EXPECT_TRUE(fire.particles().empty());
    // A snap ends them at once.
    fire.value = 7;
    update(fire.hud, 500ms);
    fire.hud.snap(fire.bar);
    fire.value = 1;
    update(fire.hud, 16ms);
    EXPECT_TRUE(fire.particles().empty());
}

TEST(Particles, burst_at_each_repeat_and_are_bounded) {
    Fire fire({.duration = 1s, .repeat = 2, .particles = {.burst = 20, .life = 500ms, .image = "spark.png"}});
    fire.hud.play(fire.bar, "fire");
    EXPECT_TRUE(fire.particles().empty()) << "that is seen in the next frame";
    update(fire.hud, 0s);
    std::string counts;
    for (int i = 0; i < 8; ++i) {
        counts += std::to_string(fire.particles().size()) + " ";
        update(fire.hud, 250ms);
    }
    EXPECT_EQ(counts, "20 20 0 0 20 20 0 0 ") << "a life of half a second";
    EXPECT_TRUE(fire.hud.problems().empty());

    Fire many({.duration = 50ms, .repeat = 0, .particles = {.rate = 500, .burst = 500, .life = 10s}});
    many.hud.play(many.bar, "fire");
    update(many.hud, 9s);
    EXPECT_EQ(many.particles().size(), 1000U);

    Fire still({.duration = 1s, .repeat = 0, .particles = {.rate = 100}});
    still.hud.set_reduced_motion(true);
    still.hud.play(still.bar, "fire");
    update(still.hud, 500ms);
    EXPECT_TRUE(still.particles().empty());
    // Those that fly are gone, too.
    many.hud.set_reduced_motion(true);
    update(many.hud, 16ms);
    EXPECT_TRUE(many.particles().empty());
}

TEST(Particles, of_a_large_burst_are_a_flash) {
    struct Row {
        int burst;
        float size;
        Color color;
        int bursts;  ///< of five in a second
        std::optional<Color> ground{};
    };
    // Of 400 x 400 pixels a quarter of ten degrees has 21,824 x 400 x 400 / (1024 x 768) = 4,440, and a round particle of 10 pixels 78.5.
    for (const Row& row : std::vector<Row>{{57, 10, rgb(0xffc24a), 3},
                                           {56, 10, rgb(0xffc24a), 5},
                                           {57, 10, rgb(0x101010), 3},  // on white
                                           {57, 10, rgb(0x101010), 5, rgb(0x000000)},
                                           {1, 80, rgb(0xffffff), 3}}) {
        Fire fire({.duration = 100ms,
                   .particles = {.burst = row.burst, .life = 100ms, .size = row.size, .color = row.color}});
        fire.hud.set_flash_settings({.ground = row.ground});
        int seen = 0;
        for (int i = 0; i < 5; ++i) {
            fire.hud.play(fire.bar, "fire");
            update(fire.hud, 1ms);
            seen += fire.particles().empty() ? 0 : 1;
            update(fire.hud, 179ms);
        }
        EXPECT_EQ(seen, row.bursts) << row.burst << " of " << row.size;
    }
}

}  // namespace particle_test
}  // namespace rapido::test
