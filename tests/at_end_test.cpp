// What rides at the end of a fill: where it is, how it is turned, and what hides, moves and ends it.
#include <cmath>
#include <numbers>

#include "pixels.hpp"
#include "rapido/file.hpp"
#include "rapido/text.hpp"

namespace rapido::test {
namespace at_end_test {

constexpr double pi = std::numbers::pi;

/// A HUD on a screen of 400 by 300, a design pixel each or two, with something that rides.
struct Ride {
    BoxMeasurer measurer;
    Images images{""};
    Hud hud;
    ElementRef fill, rider;

    Ride(const Element& filled, float scale = 1, bool mirrored = false)
        : hud({.design = {400, 300}}, {}, &measurer, &images) {
        if (mirrored) hud.set_language({.tag = "ar", .right_to_left = true});
        hud.resize({.size = {400 * scale, 300 * scale}});
        hud.add(Effect{.id = "nudge", .duration = 300ms, .keyframes = {{.at = 0.5, .offset = Point{4, 9}}}});
        fill = hud.add(filled);
        rider = hud.add(Panel{.id = "spark", .place = {.anchor = Anchor::bottom_right, .size = {12, 6}}});
        EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
        update(hud, 0s);
        EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    }
    /// The middle of the rider as it is seen, design pixels.
    Point middle(ElementRef of) {
        const Rect box = hud[of].drawn_box;
        return {box.x + box.width / 2, box.y + box.height / 2};
    }
    Point middle() { return middle(rider); }
};

struct Row {
    Element fill;
    Point at;
    float rotation;
    double off = 0.51;  ///< fills begin and end on whole pixels
    bool mirrored = false;
};

TEST(AtEnd, lies_where_the_fill_ends_and_looks_along_its_way) {
    const Place box{.anchor = Anchor::top_left, .offset = {40, 60}, .size = {200, 80}};
    const AtEnd spark{.element = "spark"};
    const auto on_ring = [](double degrees, double radius) {
        return Point{static_cast<float>(140 + radius * std::sin(degrees * pi / 180)),
                     static_cast<float>(100 - radius * std::cos(degrees * pi / 180))};
    };
    const std::vector<Row> rows{
        {Bar{.id = "f", .value = 0.25, .at_end = spark, .place = box}, {90, 100}, 0},
        {Bar{.id = "f", .value = 0, .at_end = spark, .place = box}, {40, 100}, 0},
        {Bar{.id = "f", .value = 7, .at_end = spark, .place = box}, {240, 100}, 0},
        {Bar{.id = "f", .value = 0.25, .at_end = spark, .place = box, .direction = Direction::left}, {190, 100}, 180},
        {Bar{.id = "f", .value = 0.25, .at_end = spark, .place = box, .direction = Direction::up}, {140, 120}, -90},
        {Bar{.id = "f", .value = 0.25, .at_end = spark, .place = box, .direction = Direction::down}, {140, 80}, 90},
        {Bar{.id = "f", .value = 0.25, .at_end = {"spark", false}, .place = box, .direction = Direction::down},
         {140, 80},
         0},
        {Bar{.id = "f", .value = 0.5, .at_end = spark, .place = box, .border = 4, .padding = 6}, {140, 100}, 0},
        {Bar{.id = "f", .value = 0.25, .at_end = spark, .place = box, .border = 4, .padding = 6}, {95, 100}, 0},
        {Bar{.id = "f", .value = 0.6, .at_end = spark, .place = box, .segments = 4}, {140, 100}, 0, 1.1},
        {Ring{.id = "f", .value = 0.25, .at_end = spark, .place = box, .thickness = 10}, on_ring(90, 35), 90},
        {Ring{.id = "f", .value = 0.5, .at_end = spark, .place = box, .start = -135, .sweep = 270, .thickness = 10},
         on_ring(0, 35), 0},
        {Ring{.id = "f", .value = 0.75, .at_end = spark, .place = box, .sweep = -180, .thickness = 20},
         on_ring(-135, 30), 45},
        {Ring{.id = "f", .value = 0.3, .at_end = spark, .place = box, .thickness = 10, .segments = 4}, on_ring(90, 35),
         90},
        {Level{.id = "f", .value = 0.25, .at_end = spark, .place = box, .shape = Shape::box}, {140, 120}, -90},
        {Level{.id = "f",
               .value = 0.5,
               .at_end = spark,
               .place = box,
               .corners = {{0, 0}, {1, 1}, {0, 1}},
               .direction = Direction::down},
         {90, 100},
         90},
        {Level{.id = "f",
               .value = 0.25,
               .at_end = spark,
               .place = box,
               .corners = {{0, 0}, {1, 1}, {0, 1}},
               .direction = Direction::down,
               .fill_by = FillBy::area},
         {90, 100},
         90},
        // In a mirrored layout the boxes stand on the other side, and what goes sideways goes the other way.
        {Bar{.id = "f", .value = 0.25, .at_end = spark, .place = box}, {310, 100}, 180, 0.51, true},
        {Level{.id = "f",
               .value = 0.25,
               .at_end = spark,
               .place = box,
               .shape = Shape::box,
               .direction = Direction::right},
         {310, 100},
         180,
         0.51,
         true},
    };
    for (std::size_t i = 0; i < rows.size(); ++i)
        for (const float scale : {1.0F, 2.0F, 0.75F}) {
            Ride ride(rows[i].fill, scale, rows[i].mirrored);
            const Point seen = ride.middle();
            const double off = rows[i].off / std::min(1.0, static_cast<double>(scale)) + 0.3;
            EXPECT_NEAR(seen.x, rows[i].at.x, off) << "row " << i << " at " << scale;
            EXPECT_NEAR(seen.y, rows[i].at.y, off) << "row " << i << " at " << scale;
            EXPECT_NEAR(std::remainder(ride.hud[ride.rider].rotation - rows[i].rotation, 360), 0, 0.01) << "row " << i;
        }
}

TEST(AtEnd, follows_a_gray_map_along_its_way) {
    // A ring of a gray that grows clockwise from the top.
    constexpr int size = 128;
    std::vector<Color> pixels(size * size, rgb(0, 0));
    for (int y = 0; y < size; ++y)
        for (int x = 0; x < size; ++x) {
            const double across = x - size / 2 + 0.5, down = y - size / 2 + 0.5, radius = std::hypot(across, down);
            if (radius < 40 || radius > 60) continue;
            const double turn = std::fmod(std::atan2(across, -down) / (2 * pi) + 1, 1);
            const auto gray = static_cast<std::uint32_t>(std::lround(turn * 255));
            pixels[static_cast<std::size_t>(y * size + x)] = rgb(gray << 16U | gray << 8U | gray);
        }
    double value = 0;
    Ride ride(Bar{.id = "none", .value = 0});
    ASSERT_TRUE(ride.images.add("way.png", size, size, pixels));
    ride.hud.add(Level{.id = "f",
                       .value = watch(value),
                       .at_end = {"spark"},
                       .place = {.offset = {50, 20}, .size = {256, 256}},
                       .fill_map = "way.png"});
    for (value = 0.1; value < 0.95; value += 0.05) {
        update(ride.hud, 16ms);
        const Point seen = ride.middle();
        EXPECT_NEAR(std::hypot(seen.x - 178, seen.y - 148), 100, 3) << value;
        const double turn = std::fmod(std::atan2(seen.x - 178, 148 - seen.y) / (2 * pi) + 1, 1);
        EXPECT_NEAR(turn, value, 0.01) << value;
        EXPECT_NEAR(std::remainder(ride.hud[ride.rider].rotation - value * 360, 360), 0, 4) << value;
    }
    EXPECT_TRUE(ride.hud.problems().empty());
}

TEST(AtEnd, moves_with_the_fill_in_every_frame_and_is_hidden_with_it) {
    double value = 0;
    bool shows = true;
    Ride ride(Bar{.id = "f",
                  .value = watch(value),
                  .motion = tween(1s, Easing::linear()),
                  .at_end = {"spark"},
                  .triggers = {{.on = TriggerOn::loss, .effect = "nudge"}},
                  .place = {.offset = {40, 60}, .size = {200, 20}},
                  .visible = watch(shows)});
    Hud& hud = ride.hud;
    DisplayList list, fresh;
    value = 1;
    for (int i = 1; i <= 20; ++i) {
        update(hud, 50ms);
        EXPECT_NEAR(ride.middle().x, 40 + 200 * hud[ride.fill].fill.value(), 1.1) << i;
        EXPECT_NEAR(ride.middle().x, 40 + 10 * (i - 1), 1.1) << i;
    }
    // A shaken bar takes it along.
    value = 0.5;
    update(hud, 1ms);
    bool was_off = false;
    for (int i = 0; i < 20; ++i) {
        update(hud, 16ms);
        EXPECT_NEAR(ride.middle().y, ride.middle(ride.fill).y, 0.01);
        was_off = was_off || std::abs(ride.middle().y - 70) > 0.5 || hud[ride.fill].offset.x != 0;
        // What was drawn before is drawn anew where it has to be.
        hud.draw(list);
        DisplayList other;
        hud.draw(other);
        ASSERT_EQ(list.groups().size(), other.groups().size());
        for (std::size_t group = 0; group < list.groups().size(); ++group)
            EXPECT_EQ(list.groups()[group].transform(), other.groups()[group].transform()) << i;
    }
    EXPECT_TRUE(was_off);
    update(hud, 2s);
    shows = false;
    update(hud, 16ms);
    EXPECT_FALSE(hud[ride.rider].visible);
    shows = true;
    update(hud, 16ms);
    EXPECT_TRUE(hud[ride.rider].visible);
    EXPECT_NEAR(ride.middle().x, 140, 1);
    // It may ride on another one, on none, and be alone in the end.
    const ElementRef ring = hud.add(Ring{.id = "r", .value = 0.5, .place = {.offset = {300, 200}, .size = {60, 60}}});
    hud.change<Bar>(ride.fill, [](Bar& bar) { bar.at_end = {}; });
    update(hud, 16ms);
    EXPECT_NEAR(ride.middle().x, 384, 0.1);
    EXPECT_EQ(hud[ride.rider].rotation, 0);
    hud.change<Ring>(ring, [](Ring& changed) { changed.at_end = {"spark"}; });
    update(hud, 16ms);
    EXPECT_NEAR(ride.middle().x, 330, 0.1);
    EXPECT_NEAR(ride.middle().y, 256, 0.1);
    hud.remove(ring);
    update(hud, 16ms);
    update(hud, 16ms);
    EXPECT_NEAR(ride.middle().x, 384, 0.1);
    EXPECT_TRUE(hud[ride.rider].visible);
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
}

TEST(AtEnd, finds_its_sibling_in_components_and_lists_and_takes_a_whole_panel) {
    struct Runner {
        std::string name;
        float way;
    };
    std::vector<Runner> runners{{"Ana", 0.2F}, {"Bo", 0.9F}};
    BoxMeasurer measurer;
    Hud hud({.design = {400, 300}}, {}, &measurer);
    hud.resize({.size = {400, 300}});
    for (const Element& element : list_of(
             {.id = "race",
     .entries = watch_entries(runners, entry_field("name", &Runner::name), entry_field("way", &Runner::way)),
     .key = "name",
     .layout = Layout::column},
             [](const auto& runner) {
                 return nest(
                     Panel{.place = {.size = {200, 30}}, .plate = false},
                     Bar{.id = "way", .value = runner("way"), .at_end = {"head", false}, .place = {.size = {200, 8}}},
                     Panel{.id = "head", .layout = Layout::row},
                     Text{.id = "name", .value = runner("name"), .inside = "head"});
             }))
        hud.add(element);
    update(hud, 16ms);
    ASSERT_TRUE(hud.problems().empty()) << to_string(hud.problems()[0]);
    const auto middle = [&](const std::string& id) {
        const Rect box = hud[hud.find(id)].drawn_box;
        return box.x + box.width / 2;
    };
    EXPECT_NEAR(middle("race.1.head"), 40, 1);
    EXPECT_NEAR(middle("race.1.head.name"), 40, 1);
    EXPECT_NEAR(middle("race.2.head.name"), 180, 1);
    std::swap(runners[0].way, runners[1].way);
    update(hud, 16ms);
    EXPECT_NEAR(middle("race.1.head.name"), 180, 1);

    const std::string file = R"([component.gauge]
parameters = { value = "source" }
[[component.gauge.element]]
kind = "ring"
id = "ring"
value = "$value"
at_end = { element = "holder.mark" }
[[component.gauge.element]]
kind = "panel"
id = "holder"
element = [{ kind = "image", id = "mark", image = "mark.png" }]
[[element]]
kind = "gauge"
id = "one"
value = 0.25
[[element]]
kind = "gauge"
id = "two"
value = 0.5
)";
    const Result<HudDefinition> read = read_hud(file, "hud.toml");
    ASSERT_TRUE(read) << to_string(read.problems()[0]);
    Hud made(*read, {}, &measurer);
    update(made, 16ms);
    EXPECT_TRUE(made.problems().empty()) << to_string(made.problems()[0]);
    EXPECT_EQ(made[made.find("one.holder.mark")].rotation, 90);
    EXPECT_EQ(made[made.find("two.holder.mark")].rotation, 180);
    const Result<std::string> written = write_hud(*read);
    ASSERT_TRUE(written);
    EXPECT_NE(written->find("at_end = { element = \"one.holder.mark\" }"), std::string::npos) << *written;
    // The same file again changes nothing.
    EXPECT_EQ(made.reload(*read), Problems{});
    update(made, 16ms);
    EXPECT_EQ(made[made.find("one.holder.mark")].rotation, 90);
}

TEST(AtEnd, hides_what_rides_on_what_rides_in_the_same_frame_whatever_their_order) {
    bool shows = true;
    std::vector<Element> all{
        Bar{.id = "a", .value = 0.5, .at_end = {"b"}, .visible = watch(shows)},
        Bar{.id = "b", .value = 0.5, .at_end = {"c"}, .enter = "fade"},
        Ring{.id = "c", .value = 0.5, .at_end = {"d"}},
        Panel{.id = "d"},
        Text{.id = "t", .format = "x", .inside = "d"},
    };
    for (int order = 0; order < 5; ++order) {
        std::rotate(all.begin(), all.begin() + 1, all.end());
        shows = true;
        BoxMeasurer measurer;
        Hud hud({.elements = all}, {}, &measurer);
        update(hud, 16ms);
        ASSERT_EQ(hud.problems(), Problems{});
        for (const bool next : {false, true, false, true}) {
            update(hud, 1s);
            shows = next;
            update(hud, 16ms);
            update(hud, 1s);
            for (const char* const id : {"a", "b", "c", "d", "d.t"})
                EXPECT_EQ(hud[hud.find(id)].visible, next) << id << order;
        }
        shows = false;
        update(hud, 16ms);
        EXPECT_FALSE(hud[hud.find("a")].visible);
        EXPECT_TRUE(hud[hud.find("b")].visible) << "it leaves by its effect";
        EXPECT_FALSE(hud[hud.find("d.t")].visible);
    }
}

TEST(AtEnd, says_what_cannot_be) {
    const auto bar = [](const char* id, const char* rider, const char* inside = "") {
        return Bar{.id = id, .value = 0.5, .at_end = {rider}, .inside = inside};
    };
    const std::vector<std::pair<std::vector<Element>, std::string>> rows{
        {{bar("b", "sprak"), Panel{.id = "spark"}},
         "error: 'at_end' of bar 'b': no element 'sprak'; did you mean 'spark'?"},
        {{bar("b", "b")}, "error: 'at_end' of bar 'b': 'b' holds it, or is at its end in turn"},
        {{Panel{.id = "p"}, bar("b", "p", "p")},
         "error: 'at_end' of bar 'p.b': 'p' holds it, or is at its end in turn"},
        {{bar("b", "c"), bar("c", "b")}, "error: 'at_end' of bar 'c': 'b' holds it, or is at its end in turn"},
        // Through the panels around: it would be moved with itself.
        {{Panel{.id = "r"}, Panel{.id = "q"}, bar("f", "r", "q"), bar("g", "q", "r")},
         "error: 'at_end' of bar 'r.g': 'q' holds it, or is at its end in turn"},
        {{bar("b", "s"), bar("c", "s"), Panel{.id = "s"}},
         "error: 'at_end' of bar 'c': 's' is at the end of bar 'b' already"},
    };
    for (const auto& [elements, says] : rows) {
        BoxMeasurer measurer;
        Hud hud({.elements = elements}, {}, &measurer);
        for (int i = 0; i < 3; ++i)
            update(hud, 16ms);
        ASSERT_EQ(hud.problems().size(), 1U) << says;
        EXPECT_EQ(to_string(hud.problems()[0]), says);
    }
    // In a file, with its place, when it is read and when it is read again.
    const std::string file =
        "[[element]]\nkind = \"bar\"\nid = \"b\"\nvalue = 0.5\nat_end = { element = \"ALL\" }\n"
        "[[element]]\nkind = \"panel\"\nid = \"spark\"\n";
    const auto with = [&](const std::string& name) {
        return *read_hud(std::string(file).replace(file.find("ALL"), 3, name), "hud.toml");
    };
    const Hud wrong(with("sprak"));
    ASSERT_EQ(wrong.problems().size(), 1U);
    EXPECT_EQ(to_string(wrong.problems()[0]),
              "hud.toml:5:10: error: 'at_end' of bar 'b': no element 'sprak'; did you mean 'spark'?");
    Hud right(with("spark"));
    EXPECT_EQ(right.problems(), Problems{});
    update(right, 16ms);
    const Problems found = right.reload(with("spakr"));
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(to_string(found[0]),
              "hud.toml:5:10: error: 'at_end' of bar 'b': no element 'spakr'; did you mean 'spark'?");
    update(right, 16ms);
}

}  // namespace at_end_test
}  // namespace rapido::test
