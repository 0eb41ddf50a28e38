// What is shown over the world: cameras, markers and numbers that pop up.
#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "pixels.hpp"
#include "rapido/file.hpp"

namespace rapido::test {
namespace world_test {

using Long = long double;
struct Vector {
    Long x, y, z;
    friend Vector operator-(Vector a, Vector b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
};
Vector cross(Vector a, Vector b) {
    return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};
}
Long dot(Vector a, Vector b) {
    return a.x * b.x + a.y * b.y + a.z * b.z;
}
Vector unit(Vector a) {
    const Long length = std::sqrt(dot(a, a));
    return {a.x / length, a.y / length, a.z / length};
}

/// The product of a perspective and a view that looks from one point to another, column by column.
std::array<float, 16> looking(Vector from, Vector to, Long degrees, Long aspect) {
    const Vector back = unit(from - to), right = unit(cross({0, 1, 0}, back)), up = cross(back, right);
    const Long f = 1 / std::tan(degrees * std::numbers::pi_v<Long> / 360);
    const Long near = 0.1L, far = 5000;
    const Vector rows[3]{right, up, back};
    Long view[4][4]{}, projection[4][4]{};  // by row
    for (int i = 0; i < 3; ++i) {
        view[i][0] = rows[i].x, view[i][1] = rows[i].y, view[i][2] = rows[i].z;
        view[i][3] = -dot(rows[i], from);
    }
    view[3][3] = 1;
    projection[0][0] = f / aspect;
    projection[1][1] = f;
    projection[2][2] = (far + near) / (near - far);
    projection[2][3] = 2 * far * near / (near - far);
    projection[3][2] = -1;
    std::array<float, 16> product{};
    for (std::size_t row = 0; row < 4; ++row)
        for (std::size_t column = 0; column < 4; ++column) {
            Long sum = 0;
            for (std::size_t k = 0; k < 4; ++k)
                sum += projection[row][k] * view[k][column];
            product[column * 4 + row] = static_cast<float>(sum);
        }
    return product;
}

TEST(Camera, projects_as_a_matrix_does) {
    Random random(5);
    const auto any = [&](double reach) { return static_cast<Long>(random.between(-reach, reach)); };
    int in_front = 0;
    for (int i = 0; i < 120'000; ++i) {
        const auto matrix = looking({any(300), any(300), any(300)}, {any(100), any(100), any(100)},
                                    static_cast<Long>(random.between(20, 110)), 16.0L / 9);
        const WorldPoint point{random.between(-400, 400), random.between(-400, 400), random.between(-400, 400)};
        const Size screen{1280, 720};
        const Projected seen = Camera(matrix).project(point, screen);
        Long clip[4];
        for (std::size_t row = 0; row < 4; ++row)
            clip[row] = Long(matrix[row]) * Long(point.x) + Long(matrix[row + 4]) * Long(point.y) +
                        Long(matrix[row + 8]) * Long(point.z) + Long(matrix[row + 12]);
        ASSERT_EQ(seen.in_front, clip[3] > 0);
        ASSERT_NEAR(seen.distance, static_cast<double>(clip[3]), 1e-9 * (1 + std::abs(seen.distance)));
        const Long right = clip[0] * 640, down = -clip[1] * 360, length = std::hypot(right, down);
        ASSERT_NEAR(static_cast<double>(seen.towards.x), static_cast<double>(right / length), 1e-6);
        ASSERT_NEAR(static_cast<double>(seen.towards.y), static_cast<double>(down / length), 1e-6);
        if (!seen.in_front) continue;
        ++in_front;
        const Long x = 640 + right / clip[3], y = 360 + down / clip[3];
        ASSERT_NEAR(static_cast<double>(seen.at.x), static_cast<double>(x),
                    1e-6 * (1e3 + std::abs(static_cast<double>(x))));
        ASSERT_NEAR(static_cast<double>(seen.at.y), static_cast<double>(y),
                    1e-6 * (1e3 + std::abs(static_cast<double>(y))));
    }
    EXPECT_GT(in_front, 30'000);
    EXPECT_FALSE(Camera().project({NAN, 0, 0}, {100, 100}).in_front);
}

TEST(Camera, of_a_flat_world_turns_and_magnifies_around_its_center) {
    Random random(6);
    for (int i = 0; i < 2'000; ++i) {
        const WorldPoint center{random.between(-100, 100), random.between(-100, 100), 0};
        const double zoom = random.between(0.1, 10), degrees = random.between(-360, 360);
        const bool y_up = random.below(2) == 0;
        const Camera camera = Camera::flat({.center = center, .zoom = zoom, .rotation = degrees, .y_up = y_up});
        const double away = random.between(0, 50), way = random.between(0, 2 * std::numbers::pi);
        // In a world with y down a way turns clockwise, seen from the camera it is turned back.
        const WorldPoint point{center.x + away * std::cos(way), center.y + (y_up ? -1 : 1) * away * std::sin(way), 0};
        const double seen_way = way - degrees * std::numbers::pi / 180;
        const Projected seen = camera.project(point, {800, 600});
        ASSERT_TRUE(seen.in_front);
        ASSERT_EQ(seen.distance, 1);
        ASSERT_NEAR(static_cast<double>(seen.at.x), 400 + zoom * away * std::cos(seen_way), 1e-3);
        ASSERT_NEAR(static_cast<double>(seen.at.y), 300 + zoom * away * std::sin(seen_way), 1e-3);
    }
}

struct Fire {
    std::string name;
    std::array<float, 3> at{};
    double heat = 100, max = 100;
    bool in_sight = true;
};

Source fires_of(std::vector<Fire>& fires) {
    return watch_entries(fires, entry_position(&Fire::at), entry_field("name", &Fire::name),
                         entry_field("heat", &Fire::heat), entry_field("max", &Fire::max),
                         entry_field("in_sight", &Fire::in_sight));
}

/// 1280 by 720, and a camera at zero that looks along -z; 100 wide and 20 high are its markers.
struct World {
    std::vector<Fire> fires;
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    ElementRef element;
    std::vector<ElementRef> panels;
    std::array<float, 16> matrix = looking({0, 0, 0}, {0, 0, -1}, 90, 16.0L / 9);

    explicit World(std::vector<Fire> all, Markers markers = {}, const std::string& enter = {}) : fires(std::move(all)) {
        markers.id = "fires";
        markers.entries = fires_of(fires);
        markers.key = "name";
        element = hud.add(markers_of(markers, [&](const auto& fire) {
            return nest(Panel{.place = {.size = {100, 20}}, .plate = false, .enter = enter},
                        Text{.id = "name", .value = fire("name"), .size = 10},
                        Text{.id = "away", .value = fire("distance"), .format = "{:.1f}", .size = 10},
                        Text{.id = "edge", .value = fire("at_edge"), .size = 10});
        }));
        EXPECT_EQ(hud.problems(), Problems{});
        for (const ElementRef ref : hud.elements())
            if (hud[ref].kind == "panel") panels.push_back(ref);
        hud.resize({.size = {1280, 720}});
        hud.set_camera(Camera(matrix));
    }
    void frame(Seconds step = 16ms) { update(hud, step); }
    std::string text(ElementRef panel, const std::string& id) {
        return std::string(hud.text_of(hud.find(std::string(hud[panel].id) + "." + id)));
    }
    /// Where a marker is on the screen; nothing where it is not shown.
    std::optional<Rect> seen(const std::string& name) {
        for (const ElementRef panel : panels) {
            const Shown shown = hud[panel];
            if (!shown.visible || text(panel, "name") != name) continue;
            return Rect{shown.box.x + shown.offset.x, shown.box.y + shown.offset.y, shown.box.width * shown.scale,
                        shown.box.height * shown.scale};
        }
        return std::nullopt;
    }
    Shown panel_of(const std::string& name) {
        for (const ElementRef panel : panels)
            if (hud[panel].visible && text(panel, "name") == name) return hud[panel];
        return {};
    }
    std::string names() {
        std::string all;
        for (const Fire& fire : fires)
            if (seen(fire.name)) all += (all.empty() ? "" : " ") + fire.name;
        return all;
    }
};

TEST(Markers, stand_where_the_camera_sees_their_things) {
    World world({{"a", {0, 0, -10}}, {"b", {5, 0, -10}}, {"behind", {0, 0, 10}}, {"left", {-50, 0, -10}}});
    world.frame();
    EXPECT_EQ(world.names(), "a b");
    // The middle of its lower edge lies on the point; a unit at a distance of 10 is 36 pixels at an angle of 90 degrees.
    EXPECT_EQ(world.seen("a"), (Rect{590, 340, 100, 20}));
    EXPECT_EQ(world.seen("b"), (Rect{590 + 180, 340, 100, 20}));
    const auto panel = world.panel_of("b");
    EXPECT_EQ(world.hud.text_of(world.hud.find(std::string(panel.id) + ".away")), "10.0");
    const std::string at_first(panel.id);
    world.fires[1].at = {0, 5, -20};
    std::reverse(world.fires.begin(), world.fires.end());
    world.frame();
    EXPECT_EQ(world.seen("b"), (Rect{590, 340 - 90, 100, 20}));
    EXPECT_EQ(world.panel_of("b").id, at_first) << "a thing keeps its panel";
    const auto text = world.hud.find(at_first + ".name");
    EXPECT_EQ(world.hud[text].offset, (Point{590, 340 - 90})) << "with all that stands inside";
    world.hud.set_camera(Camera(looking({0, 5, 0}, {0, 5, -1}, 90, 16.0L / 9)));
    world.frame();
    EXPECT_EQ(world.seen("b"), (Rect{590, 340, 100, 20})) << "a camera counts at the next update";
}

TEST(Markers, show_the_nearest_and_those_that_may_be_shown) {
    std::vector<Fire> many;
    for (int i = 0; i < 30; ++i)
        many.push_back(
            {"f" + std::to_string(i), {static_cast<float>(i) - 15, 0, -20 - static_cast<float>(i * 7 % 30)}});
    World world(many, {.at_most = 5, .declutter = false});
    world.frame();
    std::sort(many.begin(), many.end(), [](const Fire& a, const Fire& b) { return a.at[2] > b.at[2]; });
    for (std::size_t i = 0; i < many.size(); ++i)
        EXPECT_EQ(world.seen(many[i].name).has_value(), i < 5) << many[i].name;

    World hurt({{"whole", {0, 0, -10}}, {"hurt", {4, 0, -10}, 50}, {"hidden", {-4, 0, -10}, 50, 100, false}},
               {.in_sight = "in_sight", .show = ShowMarker::below_full, .value_of = "heat", .max_of = "max"});
    hurt.frame();
    EXPECT_EQ(hurt.names(), "hurt");
    hurt.fires[0].heat = 99.5;
    hurt.fires[2].in_sight = true;
    hurt.frame();
    EXPECT_EQ(hurt.names(), "whole hurt hidden");

    // One at the edge is as far away as it is, in whatever direction.
    struct Row {
        std::vector<Fire> fires;
        std::string shown;
    };
    for (const Row& row :
         std::vector<Row>{{{{"before", {0, 0, -3}}, {"behind", {1, 0, 10}}}, "before"},
                          {{{"before", {0, 0, -3}}, {"behind", {1, 0, 2}}}, "behind"},
                          {{{"before", {0, 0, -3}}, {"straight behind", {0, 0, 2}}}, "straight behind"},
                          {{{"nowhere", {0, NAN, 0}}, {"before", {0, 0, -3}}}, "before"},
                          {{{"nowhere", {0, NAN, 0}}}, ""},
                          {{{"first", {1, 0, -3}}, {"second", {0, 0, -3}}}, "first"}}) {
        World edge(row.fires, {.at_most = 1, .at_edge = AtEdge::clamp});
        edge.frame();
        EXPECT_EQ(edge.names(), row.shown);
    }
}

TEST(Markers, of_a_higher_layer_stay_before_nearer_ones) {
    std::vector<Fire> near{{"near", {0, 0, -10}}}, far{{"far", {0, 0, -12}}};
    for (const int layer : {0, 1}) {
        BoxMeasurer measurer;
        Hud hud{HudDefinition{}, {}, &measurer};
        for (const auto& [id, fires, at] : {std::tuple("n", &near, 0), std::tuple("f", &far, layer)})
            hud.add(
                markers_of({.id = id, .entries = fires_of(*fires), .key = "name", .layer = at}, [](const auto& fire) {
                    return nest(Panel{.place = {.size = {100, 20}}}, Text{.id = "name", .value = fire("name")});
                }));
        hud.resize({.size = {1280, 720}});
        hud.set_camera(Camera(looking({0, 0, 0}, {0, 0, -1}, 90, 16.0L / 9)));
        for (int i = 0; i < 3; ++i)
            update(hud, 16ms);
        std::string shown;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].visible) shown += hud.text_of(ref);
        EXPECT_EQ(shown, layer > 0 ? "far" : "near");
    }
}

TEST(Markers, are_shown_for_a_while_after_a_change) {
    World world({{"a", {0, 0, -10}}, {"b", {5, 0, -10}}},
                {.show = ShowMarker::after_change, .value_of = "heat", .show_for = 1s});
    world.frame();
    EXPECT_EQ(world.names(), "") << "what is new has not changed";
    world.fires[1].heat = 40;
    world.frame();
    EXPECT_EQ(world.names(), "b");
    world.fires.insert(world.fires.begin(), {"c", {-5, 0, -10}, 7});
    std::swap(world.fires[1], world.fires[2]);
    world.frame(500ms);
    EXPECT_EQ(world.names(), "b") << "wherever it stands in the container";
    world.frame(490ms);
    EXPECT_EQ(world.names(), "b");
    world.frame(10ms);
    EXPECT_EQ(world.names(), "");
    world.fires[0].heat = 8;
    world.frame();
    EXPECT_EQ(world.names(), "c");
    world.frame(2s);
    world.hud.change<Markers>(world.element, [](Markers& markers) { markers.value_of = "max"; });
    world.frame();
    EXPECT_EQ(world.names(), "") << "another value is no change of it";
    world.fires[0].max = NAN;
    world.frame();
    EXPECT_EQ(world.names(), "c");
    world.frame(2s);
    EXPECT_EQ(world.names(), "") << "what is no number does not change all the time";
}

TEST(Markers, get_smaller_and_fade_with_distance) {
    struct Row {
        float away, scale, opacity;
    };
    for (const Row& row : std::vector<Row>{
             {5, 2, 1}, {10, 2, 1}, {20, 1, 1}, {30, 2.0F / 3, 1}, {100, 0.5F, 1}, {150, 0.5F, 0.5F}, {200, 0, 0}}) {
        World world({{"a", {0, 0, -row.away}}},
                    {.reference_distance = 20, .min_scale = 0.5F, .max_scale = 2, .fade_from = 100, .fade_to = 200});
        world.frame();
        EXPECT_EQ(world.seen("a").has_value(), row.opacity > 0);
        if (row.opacity <= 0) continue;
        const Shown panel = world.panel_of("a");
        EXPECT_NEAR(panel.scale, row.scale, 1e-6F) << row.away;
        EXPECT_NEAR(panel.opacity, row.opacity, 1e-4F) << row.away;
        EXPECT_NEAR(world.seen("a")->x, 640 - 50 * row.scale, 1e-3F);
        EXPECT_NEAR(world.seen("a")->bottom(), 360, 1e-3F) << "its pivot lies on the point";
    }
}

TEST(Markers, stay_at_the_edge_with_an_arrow_that_points_the_right_way) {
    Random random(9);
    const float size = 14;
    int at_edge = 0, behind = 0;
    for (int i = 0; i < 1'500; ++i) {
        const float margin = i % 3 == 0 ? 0 : 30;
        const std::array<float, 3> at{static_cast<float>(random.between(-40, 40)),
                                      static_cast<float>(random.between(-40, 40)),
                                      static_cast<float>(random.between(-30, 30))};
        World world({{"a", at}}, {.at_edge = AtEdge::arrow, .edge_margin = margin, .arrow_size = size});
        world.frame();
        DisplayList list;
        world.hud.draw(list);
        const Projected seen = Camera(world.matrix).project({at[0], at[1], at[2]}, {1280, 720});
        const bool inside = seen.in_front && seen.at.x >= margin && seen.at.x <= 1280 - margin && seen.at.y >= margin &&
                            seen.at.y <= 720 - margin;
        const auto box = world.seen("a");
        ASSERT_TRUE(box);
        ASSERT_GE(box->x, -0.01F);
        ASSERT_LE(box->right(), 1280.01F);
        ASSERT_GE(box->y, -0.01F);
        ASSERT_LE(box->bottom(), 720.01F);
        std::vector<Point> arrow;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items())
                if (item.kind == DisplayItem::Kind::polygon && item.color == rgb(0xf2efe6))
                    arrow.assign(group.points_of(item).begin(), group.points_of(item).end());
        const auto panel = world.panel_of("a");
        EXPECT_EQ(world.hud.text_of(world.hud.find(std::string(panel.id) + ".edge")), inside ? "false" : "true");
        if (inside) {
            EXPECT_TRUE(arrow.empty());
            continue;
        }
        ++at_edge;
        if (!seen.in_front) ++behind;
        ASSERT_EQ(arrow.size(), 4U);
        // Its tip lies on the edge, on the way from the middle of the screen to the thing, and so does its axis.
        const double right = static_cast<double>(at[0]), down = -static_cast<double>(at[1]);
        const double length = std::hypot(right, down);
        const Point tip = arrow[0], notch = arrow[2];
        const double x = static_cast<double>(tip.x) - 640, y = static_cast<double>(tip.y) - 360;
        ASSERT_NEAR(x / std::hypot(x, y), right / length, 1e-3) << i;
        ASSERT_NEAR(y / std::hypot(x, y), down / length, 1e-3) << i;
        const double wide = 640 - static_cast<double>(margin), high = 360 - static_cast<double>(margin);
        ASSERT_NEAR(std::max(std::abs(x) / wide, std::abs(y) / high), 1, 1e-3);
        const Point axis{tip.x - notch.x, tip.y - notch.y};
        ASSERT_GT(static_cast<double>(axis.x) * right + static_cast<double>(axis.y) * down, 0);
        ASSERT_FALSE(tip.x > box->x && tip.x < box->right() && tip.y > box->y && tip.y < box->bottom())
            << "the arrow is not covered";
    }
    EXPECT_GT(at_edge, 500);
    EXPECT_GT(behind, 300);
    // Between the marker and its arrow there is a gap as large as half of the arrow.
    World right({{"a", {900, 0, -10}}}, {.at_edge = AtEdge::arrow, .edge_margin = 30, .arrow_size = size});
    right.frame();
    EXPECT_NEAR(right.seen("a")->right(), 1280 - 30 - 1.5F * size, 0.01);
}

TEST(Markers, do_not_cover_nearer_ones_and_do_not_flicker) {
    World world({{"near", {0, 0, -10}}, {"far", {0, 0, -12}}, {"beside", {-8, 0, -20}}});
    world.frame();
    world.frame();
    EXPECT_EQ(world.names(), "near beside");
    // Moving to and fro by less than the room that a hidden one needs, it is shown or hidden, not both in turn.
    int changes = 0;
    bool last = false;
    for (int i = 0; i < 200; ++i) {
        // At a distance of 12, 30 pixels a unit: its edge touches that of the nearer one, give and take two pixels.
        world.fires[1].at[0] = 100.0F / 30 + (i % 2 == 0 ? 1 : -1) * 2.0F / 30;
        world.frame();
        const bool now = world.seen("far").has_value();
        if (i > 0 && now != last) ++changes;
        last = now;
    }
    EXPECT_LE(changes, 1);
    world.fires[1].at[0] = 5;
    world.frame();
    world.frame();
    EXPECT_EQ(world.names(), "near far beside");
    world.fires[1].at[0] = 0;
    world.frame();
    world.frame();
    EXPECT_EQ(world.names(), "near beside");
    EXPECT_TRUE(world.hud.change<Markers>(world.element, [](Markers& markers) { markers.declutter = false; }));
    world.frame();
    EXPECT_EQ(world.names(), "near far beside") << "a change brings back what was hidden";
    // One that comes hides the farther one in the frame in which it is there.
    World one({{"far", {0, 0, -12}}});
    one.frame();
    one.frame();
    one.fires.push_back({"near", {0, 0, -10}});
    one.frame();
    EXPECT_EQ(one.names(), "near");
    World all({{"near", {0, 0, -10}}, {"far", {0, 0, -12}}}, {.declutter = false});
    all.frame();
    all.frame();
    EXPECT_EQ(all.names(), "near far");
}

TEST(Markers, do_not_overlap_in_their_first_frame_and_take_their_arrows_along) {
    World world({{"near", {0, 0, -10}}, {"far", {0, 0, -12}}, {"beside", {-8, 0, -20}}});
    world.frame();
    DisplayList list;
    world.hud.draw(list);
    int drawn = 0;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            drawn += item.kind == DisplayItem::Kind::text && item.color.alpha > 0 ? 1 : 0;
    EXPECT_EQ(drawn, 3 * 2) << "three texts of each of the two that are not covered";

    World edge({{"a", {900, 0, -10}}}, {.at_edge = AtEdge::arrow}, "fade");
    const auto arrow = [&] {
        edge.hud.draw(list);
        double most = 0;
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items())
                if (item.kind == DisplayItem::Kind::polygon && item.color.red == 0xf2)
                    most = std::max(most, item.color.alpha / 255.0);
        return most;
    };
    edge.frame();
    edge.frame(1s);
    EXPECT_NEAR(arrow(), 1, 0.01);
    edge.fires.clear();
    edge.frame();
    double last = 1;
    for (int i = 0; i < 6; ++i) {
        edge.frame(60ms);
        const double now = arrow();
        EXPECT_LT(now, last) << i;
        EXPECT_NEAR(now, static_cast<double>(edge.hud[edge.panels.front()].opacity), 0.02) << i;
        last = now;
    }
}

TEST(Markers, leave_where_their_things_ended) {
    World world({{"a", {0, 0, -10}}}, {}, "fade");
    world.frame();
    world.frame();
    world.fires.clear();
    world.frame(16ms);
    world.frame(50ms);
    ASSERT_TRUE(world.seen("a")) << "it is still leaving";
    EXPECT_LT(world.panel_of("a").opacity, 1);
    world.hud.set_camera(Camera(looking({1, 0, 0}, {1, 0, -1}, 90, 16.0L / 9)));
    world.frame(50ms);
    ASSERT_TRUE(world.seen("a"));
    EXPECT_FLOAT_EQ(world.seen("a")->x, 590 - 36) << "its place stays in the world";
    for (int i = 0; i < 20; ++i)
        world.frame(50ms);
    EXPECT_FALSE(world.seen("a"));
}

TEST(Markers, are_given_one_by_one_by_the_game) {
    BoxMeasurer measurer;
    Sources sources;
    int shared = 5;
    sources.set("shared", watch(shared));
    Hud hud{HudDefinition{}, sources, &measurer};
    hud.resize({.size = {800, 600}});
    const auto markers = hud.add(
        markers_of({.id = "t", .parameters = {"name", "heat"}, .at_edge = AtEdge::clamp}, [](const auto& thing) {
            return nest(Panel{.plate = false},
                        Text{.id = "text", .value = thing("name"), .max = thing("heat"), .format = "{} {max}"});
        }));
    EXPECT_EQ(hud.problems(), Problems{});
    const auto said = [&] {
        update(hud, 16ms);
        std::vector<std::string> all;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].kind == "text" && hud[ref].visible) all.emplace_back(hud.text_of(ref));
        std::sort(all.begin(), all.end());
        return all;
    };
    using Said = std::vector<std::string>;
    struct Enemy {
        std::string name;
        double heat;
        Point at;
    };
    Enemy ana{"Ana", 3, {-200, 0}}, bo{"Bo", 4, {100, 50}};
    const MarkerRef first = hud.add_marker(markers, watch_position(ana.at), {watch(ana.name), watch(ana.heat)});
    const MarkerRef second = hud.add_marker(markers, watch_position([&] { return bo.at; }), {watch(bo.name), "shared"});
    EXPECT_TRUE(hud.alive(first) && hud.alive(second));
    EXPECT_EQ(said(), (Said{"Ana 3", "Bo 5"}));
    ana.heat = 2;
    hud.set_visible(second, false);
    EXPECT_EQ(said(), Said{"Ana 2"});
    hud.set_visible(second, true);
    hud.remove(first);
    EXPECT_FALSE(hud.alive(first));
    const Point away{-300, -200};
    const MarkerRef third = hud.add_marker(markers, watch_position(away), {constant("Cy"), 7});
    EXPECT_EQ(third.index, first.index) << "its place is used again";
    EXPECT_FALSE(hud.alive(first)) << "and a dead reference stays dead";
    hud.remove(first);
    EXPECT_EQ(said(), (Said{"Bo 5", "Cy 7"}));
    hud.set_visible(third, false);
    EXPECT_EQ(said(), Said{"Bo 5"});
    hud.remove(third);
    const MarkerRef fourth = hud.add_marker(markers, watch_position(away), {constant("Di"), 8});
    EXPECT_EQ(fourth.index, third.index);
    EXPECT_EQ(said(), (Said{"Bo 5", "Di 8"})) << "what takes its place is not hidden with it";
    EXPECT_FALSE(hud.add_marker(markers, watch_position(bo.at), {1}));
    EXPECT_EQ(to_string(hud.problems().back()),
              "error: markers 't' takes 2 values with each thing, and was given 1; they are in the order of "
              "'parameters'");
    EXPECT_FALSE(hud.add_marker(markers, watch_position(bo.at), {"shard", 1}));
    EXPECT_EQ(to_string(hud.problems().back()), "error: unknown source 'shard'; did you mean 'shared'?");
    EXPECT_FALSE(hud.add_marker(markers, watch_position(bo.at), {"Ed", by_name("shard") + 1}));
    // What is computed, from names that are computed, too.
    sources.set("twice", by_name("shared") * 2);
    const Point beside{-100, 120};
    EXPECT_TRUE(hud.add_marker(markers, watch_position(beside), {constant("Ed"), by_name("twice") + watch(ana.heat)}));
    EXPECT_EQ(said(), (Said{"Bo 5", "Di 8", "Ed 12"}));
    shared = 6;
    EXPECT_EQ(said(), (Said{"Bo 6", "Di 8", "Ed 14"}));
    Countdown bomb{10s};
    hud.add_timer("bomb", bomb);
    EXPECT_FALSE(hud.add_marker(markers, watch_position(away), {constant("Fi"), by_name("bomb.left") < 3}));
    EXPECT_EQ(
        to_string(hud.problems().back()),
        "error: 'bomb.left' is a source that the HUD tells, and a thing is read by itself; give it a value of the "
        "game");
    hud.remove(markers);
    EXPECT_FALSE(hud.alive(fourth));
}

TEST(Markers, refuse_what_they_cannot_show) {
    std::vector<Fire> fires;
    const auto problem_of = [&](const Markers& markers) {
        Hud hud;
        hud.add(markers);
        return hud.problems().empty() ? "" : to_string(hud.problems().front());
    };
    const Source nowhere = watch_entries(fires, entry_field("name", &Fire::name));
    EXPECT_EQ(problem_of({.id = "t", .entries = nowhere}),
              "error: 'entries' of markers 't' needs entries with places in the world; add "
              "rapido::entry_position, in a "
              "trace the fields 'x' and 'y'");
    EXPECT_EQ(problem_of({.id = "t", .entries = fires_of(fires), .in_sight = "insight"}),
              "error: 'in_sight' of markers 't': the entries have no field 'insight'; did you mean 'in_sight'?");
    EXPECT_EQ(problem_of({.id = "t", .show = ShowMarker::below_full}), "error: 'show' of markers 't' needs 'value_of'");
    EXPECT_EQ(problem_of({.id = "t", .entries = fires_of(fires), .parameters = {"a"}}),
              "error: 'parameters' of markers 't' must not be there where there is 'entries'");
    EXPECT_EQ(problem_of({.id = "t", .parameters = {"a"}, .value_of = "b"}),
              "error: 'value_of' of markers 't' is 'b', which is not in 'parameters'");
}

/// The texts that pop up, with the middle and the size of each, as they are drawn.
struct Seen {
    std::string text;
    float x, y, size;
    Color color;
};
std::vector<Seen> popped(const Hud& hud) {
    DisplayList list;
    hud.draw(list);
    std::vector<Seen> all;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            if (item.kind == DisplayItem::Kind::text)
                all.push_back({std::string(group.text_of(item)), item.baseline.x + item.width / 2, item.baseline.y,
                               item.size, item.color});
    return all;
}

struct PopStage {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{.design = {800, 600}}, {}, &measurer};
    ElementRef pop_ups;
    explicit PopStage(PopUps described) {
        described.id = "damage";
        pop_ups = hud.add(described);
        EXPECT_EQ(hud.problems(), Problems{});
        hud.resize({.size = {800, 600}});
        update(hud, 16ms);
    }
    bool pop_up(double x, double y, const Value& value) {
        return hud.pop_up(pop_ups, {.at = {x, y, 0}, .value = value});
    }
    std::vector<Seen> frame(Seconds step = 0s) {
        update(hud, step);
        return popped(hud);
    }
};

TEST(PopUps, of_one_moment_and_place_are_one_number) {
    struct Popped {
        Nanoseconds at;
        double x;
        Value value;
    };
    struct Row {
        std::vector<Popped> popped;
        std::vector<std::string> seen;  ///< from the left, at a tenth of a second after the last one
    };
    for (const Row& row : std::vector<Row>{
             {{{0ms, 0, 7}, {0ms, 20, 5}}, {"12"}},
             {{{0ms, 0, 7}, {0ms, 20.5, 5}}, {"7", "5"}},
             {{{0ms, 0, 7}, {300ms, 0, 5}}, {"12"}},
             {{{0ms, 0, 7}, {304ms, 0, 5}}, {"7", "5"}},
             {{{0ms, 0, 7}, {250ms, 0, 5}, {500ms, 0, 3}}, {"15"}},
             {{{0ms, 0, 7}, {0ms, 0, -5}, {100ms, 0, -1}}, {"7", "-6"}},
             {{{0ms, 0, 7}, {0ms, 0, "miss"}}, {"7", "miss"}},
             {{{0ms, 0, 7}, {0ms, 30, 5}, {0ms, 15, 1}}, {"7", "6"}},
             {{{0ms, 0, 1.5}, {0ms, 0, 2}}, {"3.5"}},
             {{{0ms, 0, INT64_MAX}, {0ms, 0, 1}}, {"9223372036854775808"}},
             // One that was merged is seen for the whole time from then on.
             {{{0ms, 0, 7}, {250ms, 0, 5}, {1150ms, 100, 1}}, {"12", "1"}},
         }) {
        PopStage stage({.show_for = 1s, .spread = 0, .start_scale = 1, .merge_time = 300ms, .merge_distance = 20});
        std::vector<Seen> all;
        Nanoseconds now{0};
        for (const Popped& pop : row.popped) {
            if (pop.at > now) stage.frame(pop.at - std::exchange(now, pop.at));
            EXPECT_TRUE(stage.pop_up(pop.x, 0, pop.value));
        }
        all = stage.frame(96ms);
        std::stable_sort(all.begin(), all.end(), [](const Seen& a, const Seen& b) { return a.x < b.x; });
        std::vector<std::string> seen;
        for (const Seen& one : all)
            seen.push_back(one.text);
        EXPECT_EQ(seen, row.seen) << row.popped.back().x;
    }
    // What happens behind the camera happens at no place of the screen.
    PopStage stage({.merge_distance = 20});
    stage.hud.set_camera(Camera(looking({0, 0, 0}, {0, 0, -1}, 90, 4.0L / 3)));
    stage.hud.pop_up(stage.pop_ups, {.on_screen = Point{1, 1}, .value = 7});
    stage.hud.pop_up(stage.pop_ups, {.at = {0, 0, 10}, .value = 5});
    const auto seen = stage.frame();
    ASSERT_EQ(seen.size(), 1U);
    EXPECT_EQ(seen[0].text, "7");
}

TEST(PopUps, rise_fade_and_are_gone) {
    PopStage stage({.show_for = 1s, .rise = 40, .spread = 0, .start_scale = 1});
    EXPECT_TRUE(stage.pop_up(100, -50, 37));
    const float middle = stage.frame().at(0).y;
    float last = middle + 1;
    for (int i = 0; i <= 9; ++i) {
        const auto all = stage.frame(i == 0 ? 0s : 100ms);
        ASSERT_EQ(all.size(), 1U);
        const double part = i / 10.0;
        EXPECT_EQ(all[0].text, "37");
        EXPECT_NEAR(all[0].x, 500, 0.01);
        EXPECT_NEAR(all[0].y, static_cast<double>(middle) - 40 * (1 - (1 - part) * (1 - part)), 0.01);
        EXPECT_LT(all[0].y, last);
        last = all[0].y;
        EXPECT_NEAR(all[0].color.alpha, part <= 0.6 ? 255 : 255 * (1 - part) / 0.4, 1) << i;
    }
    EXPECT_TRUE(stage.frame(100ms).empty());
    stage.hud.set_reduced_motion(true);
    stage.pop_up(100, -50, 37);
    EXPECT_EQ(stage.frame().at(0).y, middle);
    EXPECT_EQ(stage.frame(900ms).at(0).y, middle) << "with reduced motion it stays";
    EXPECT_EQ(stage.frame().at(0).color.alpha, 255);
    EXPECT_TRUE(stage.frame(101ms).empty());
}

TEST(PopUps, end_with_a_snap_and_go_on_while_they_are_hidden) {
    PopStage stage({});
    stage.pop_up(0, 0, 1);
    EXPECT_EQ(stage.frame().size(), 1U);
    stage.hud.set_visible(stage.pop_ups, false);
    EXPECT_EQ(stage.frame(500ms).size(), 0U);
    stage.hud.set_visible(stage.pop_ups, true);
    EXPECT_EQ(stage.frame(300ms).size(), 1U) << "it is as old as if it had been seen";
    stage.hud.snap();
    EXPECT_EQ(stage.frame().size(), 0U);
    stage.pop_up(0, 0, 2);
    EXPECT_EQ(stage.frame(8s).size(), 0U) << "one long hitch";
}

TEST(PopUps, are_the_same_at_every_frame_rate_and_follow_the_camera) {
    std::map<int, std::vector<Seen>> by_rate;
    for (const int rate : {1, 7, 30, 144}) {
        PopStage stage({.show_for = 2s});
        stage.pop_up(10, 20, 5);
        stage.pop_up(200, 20, 6);
        for (int i = 0; i < rate; ++i)
            stage.frame(Seconds{1.0 / rate});
        by_rate[rate] = popped(stage.hud);
    }
    for (const auto& [rate, seen] : by_rate) {
        ASSERT_EQ(seen.size(), 2U);
        EXPECT_NEAR(seen[0].y, by_rate[1][0].y, 1e-3) << rate;
        EXPECT_NEAR(seen[1].x, by_rate[1][1].x, 1e-3) << rate;
    }
    PopStage stage({});
    stage.pop_up(10, 0, 5);
    stage.hud.pop_up(stage.pop_ups, {.on_screen = Point{50, 60}, .value = 6});
    const auto before = stage.frame();
    stage.hud.set_camera(Camera::flat({.center = {10, 0, 0}}));
    const auto after = stage.frame();
    EXPECT_NEAR(after[0].x, before[0].x - 10, 1e-3);
    EXPECT_EQ(after[1].x, before[1].x) << "a point of the screen stays";
    EXPECT_FALSE(stage.pop_up(NAN, 0, 1));
    const auto text = stage.hud.add(Text{.id = "t", .format = "x"});
    EXPECT_FALSE(stage.hud.pop_up(text, {.value = 1}));
    EXPECT_EQ(to_string(stage.hud.problems().back()), "error: text 't' is no pop_ups");
}

TEST(PopUps, are_never_more_than_the_most_and_look_as_their_amount) {
    PopStage stage({.at_most = 10,
                    .start_scale = 1,
                    .bands = {{.above = 100, .color = rgb(0xff0000), .format = "{}!", .scale = 2},
                              {.above = 1000, .below = 2000, .color = rgb(0x00ff00)}},
                    .size = 10});
    for (int i = 0; i < 500; ++i)
        stage.pop_up((i % 25 - 12) * 30.0, (i / 25 - 10) * 25.0, i);
    const auto all = stage.frame();
    ASSERT_EQ(all.size(), 10U);
    for (std::size_t i = 0; i < 10; ++i) {
        EXPECT_EQ(all[i].text, std::to_string(490 + i) + "!") << "the newest stay";
        EXPECT_EQ(all[i].size, 20);
        EXPECT_EQ(to_string(all[i].color), "#ff0000");
    }
    stage.pop_up(0, 290, -2000);
    EXPECT_EQ(stage.frame().back().text, "-2000!") << "amounts count without their sign, field by field";
    EXPECT_EQ(to_string(stage.frame().back().color), "#00ff00");
    stage.pop_up(0, 290, 2001);
    EXPECT_EQ(to_string(stage.frame().back().color), "#ff0000");
    std::vector<float> starts;
    PopStage spread({.spread = 20, .merge_time = 0s});
    for (int i = 0; i < 8; ++i) {
        spread.pop_up(0, 0, i);
        spread.frame(1ms);
    }
    for (const Seen& seen : spread.frame())
        starts.push_back(seen.x - 400);
    EXPECT_LT(*std::min_element(starts.begin(), starts.end()), -10);
    EXPECT_GT(*std::max_element(starts.begin(), starts.end()), 10);
    for (const float start : starts)
        EXPECT_LE(std::abs(start), 20);
}

TEST(Markers, are_stamped_by_a_file_and_follow_a_trace) {
    const auto definition = read_hud(R"(
        [component.fire]
        parameters = { heat = "source", distance = "source", tint = "color" }
        [[component.fire.element]]
        kind = "text"
        id = "heat"
        value = "$heat"
        color = "$tint"
        [[element]]
        kind = "markers"
        id = "fires"
        entries = "fires"
        component = "fire"
        with = { tint = "#ff0000" }
        at_most = 3
        [[element]]
        kind = "pop_ups"
        id = "damage"
        format = "-{}"
        bands = [{ above = 100, scale = 1.5, color = "#ff7a3c" }])",
                                     "hud.toml");
    ASSERT_TRUE(definition) << to_string(definition.problems().front());
    const auto trace = Trace::read(
        "time,fires.1.x,fires.1.y,fires.1.heat,fires.2.x,fires.2.y,fires.2.heat\n"
        "0,0,0,5,,,\n1,10,0,6,50,20,7\n",
        "t.csv");
    ASSERT_TRUE(trace) << to_string(trace.problems().front());
    TracePlayer player(*trace);
    BoxMeasurer measurer;
    Hud hud{*definition, player.sources(), &measurer};
    EXPECT_EQ(hud.problems(), Problems{});
    const auto said = [&](Nanoseconds time) {
        player.seek(time);
        update(hud, 16ms);
        std::string all;
        for (const ElementRef ref : hud.elements())
            if (hud[ref].kind == "text" && hud[ref].visible) all += std::string(hud.text_of(ref)) + " ";
        return all;
    };
    EXPECT_EQ(said(0s), "5 ");
    EXPECT_EQ(said(1s), "6 7 ");
}

}  // namespace world_test
}  // namespace rapido::test
