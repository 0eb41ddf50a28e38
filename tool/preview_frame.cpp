#include "tool/preview_frame.hpp"
#include "rapido/rapido.hpp"
#include "tool/palette.hpp"

#include <algorithm>
#include <array>

namespace rapido::tool {
namespace {

constexpr Color slate = rgb(0x0b1015, 0.96);
constexpr float edge = 12;

constexpr std::array<std::array<std::string_view, 2>, 14> keys{{
    {"space", "plays, and stands still"},
    {".", "one frame"},
    {"left, right", "a second back and forth; with shift, ten"},
    {"home", "begins anew"},
    {"up, down", "faster, slower"},
    {"v", "sets a value by hand"},
    {"b", "boxes and ids, and why the element under the mouse shows what it shows"},
    {"s", "the next size of the window"},
    {"l, t", "the next language, the next theme"},
    {"+, -", "the player's size of everything"},
    {"m", "without movement"},
    {"p", "a picture into a file"},
    {"h", "these keys"},
    {"q, escape", "ends"},
}};

}  // namespace

PreviewFrame::PreviewFrame(Fonts& fonts, ImageFinder* images)
    : hud_({.font = "Inter, sans-serif"}, {}, &fonts, images) {
    add_bar();
    add_problems();
    add_keys();
    add_values();
}

void PreviewFrame::add_bar() {
    hud_.add(Panel{.id = "bar",
                   .place = {.anchor = Anchor::bottom_left, .size = {0, bar_height}, .stretch = Stretch::width},
                   .layout = Layout::row,
                   .gap = 20,
                   .align = Align::center,
                   .padding = {0, edge, 0, edge},
                   .color = slate,
                   .radius = 0.0F,
                   .visible = watch([this] { return says_.has_bar; })});
    const auto text = [&](const char* id, std::string Says::*part, Color color, int weight) {
        hud_.add(Text{.id = id,
                      .value = watch([this, part]() -> std::string_view { return says_.*part; }),
                      .inside = "bar",
                      .color = color,
                      .weight = weight,
                      .size = 13,
                      .overflow = Overflow::ellipsis});
    };
    text("file", &Says::file, ink, 600);
    text("state", &Says::state, amber, 600);
    hud_.add(Bar{.id = "position",
                 .value = watch([this] { return says_.part; }),
                 .max = 1,
                 .place = {.size = {80, 4}, .grow = 1},
                 .inside = "bar",
                 .color = teal,
                 .background = rgb(0xf2efe6, 0.16),
                 .radius = 2.0F});
    text("time", &Says::time, ink, 500);
    text("view", &Says::view, dim, 500);
    hud_.add(Text{.id = "help", .format = "H  keys", .inside = "bar", .color = dim, .weight = 500, .size = 13});
    hud_.add(Panel{.id = "note",
                   .place = {.anchor = Anchor::bottom_right, .offset = {edge, bar_height + edge}},
                   .padding = {8, 14, 8, 14},
                   .color = slate,
                   .visible = watch([this] { return !says_.note.empty(); })});
    hud_.add(Text{.id = "words",
                  .value = watch([this]() -> std::string_view { return says_.note; }),
                  .inside = "note",
                  .color = teal,
                  .weight = 500,
                  .size = 13});
}

void PreviewFrame::add_problems() {
    hud_.add(Panel{.id = "problems",
                   .place = {.anchor = Anchor::top_left, .offset = {edge, edge}},
                   .layout = Layout::column,
                   .gap = 6,
                   .color = slate,
                   .border = 1,
                   .border_color = ember,
                   .visible = watch([this] { return !says_.problems.empty(); })});
    hud_.add(Text{.id = "head",
                  .value = watch([this]() -> std::string_view {
                      return says_.is_nothing  ? "The file has faults"
                             : says_.is_broken ? "The file has faults: this is the last good one"
                                               : "The file can be shown, and this is wrong with it";
                  }),
                  .inside = "problems",
                  .color = ember,
                  .weight = 700,
                  .size = 14});
    for (std::size_t i = 0; i < problem_lines; ++i)
        hud_.add(Text{.id = "line" + std::to_string(i),
                      .value = watch([this, i]() -> std::string_view {
                          return i < says_.problems.size() ? std::string_view(says_.problems[i]) : "";
                      }),
                      .place = {.max_size = {900, 0}},
                      .inside = "problems",
                      .color = ink,
                      .size = 13,
                      .wrap = Wrap::wrap,
                      .max_lines = 3,
                      .visible = watch([this, i] { return i < says_.problems.size(); })});
}

void PreviewFrame::add_keys() {
    hud_.add(Panel{.id = "keys",
                   .place = {.anchor = Anchor::center, .offset = {0, -bar_height / 2}},
                   .layout = Layout::grid,
                   .gap = 20,
                   .row_gap = 6,
                   .columns = 2,
                   .align = Align::start,
                   .padding = {16, 24, 18, 24},
                   .color = slate,
                   .visible = watch([this] { return says_.shows_keys; })});
    for (std::size_t i = 0; i < keys.size(); ++i) {
        hud_.add(Text{.id = "key" + std::to_string(i),
                      .format = std::string(keys[i][0]),
                      .inside = "keys",
                      .color = amber,
                      .weight = 600,
                      .size = 14});
        hud_.add(Text{.id = "does" + std::to_string(i),
                      .format = std::string(keys[i][1]),
                      .inside = "keys",
                      .color = ink,
                      .size = 14});
    }
}

void PreviewFrame::add_values() {
    hud_.add(Panel{.id = "values",
                   .place = {.anchor = Anchor::top_right, .offset = {edge, edge}},
                   .layout = Layout::column,
                   .gap = 10,
                   .padding = {12, 16, 14, 16},
                   .color = slate,
                   .visible = watch([this] { return !says_.values.empty(); })});
    hud_.add(Panel{.id = "list",
                   .layout = Layout::grid,
                   .gap = 18,
                   .row_gap = 4,
                   .columns = 3,
                   .align = Align::start,
                   .plate = false,
                   .inside = "values"});
    const auto cell = [&](std::string id, std::size_t i, std::string Line::*part, TextAlign align) {
        hud_.add(Text{.id = std::move(id),
                      .value = watch([this, i, part]() -> std::string_view {
                          return i < says_.values.size() ? std::string_view(says_.values[i].*part) : "";
                      }),
                      .bands = {},
                      .inside = "values.list",
                      .color = ink,
                      .size = 13,
                      .align = align,
                      .visible = watch([this, i] { return i < says_.values.size(); })});
    };
    for (std::size_t i = 0; i < lines; ++i) {
        cell("name" + std::to_string(i), i, &Line::name, TextAlign::start);
        cell("value" + std::to_string(i), i, &Line::value, TextAlign::end);
        cell("range" + std::to_string(i), i, &Line::range, TextAlign::start);
    }
    hud_.add(Text{.id = "typed",
                  .value = watch([this]() -> std::string_view { return says_.typed; }),
                  .inside = "values",
                  .color = amber,
                  .weight = 600,
                  .size = 14});
    hud_.add(Text{
        .id = "how",
        .format = "up, down: choose    left, right: change    type and enter: set    delete: give back    v: close",
        .inside = "values",
        .color = dim,
        .size = 12});
}

void PreviewFrame::show(const Says& says, const Viewport& viewport, float pixel_ratio, Seconds step) {
    says_ = says;
    if (says_.problems.size() > problem_lines) {
        const std::size_t others = says_.problems.size() - problem_lines + 1;
        says_.problems.resize(problem_lines - 1);
        says_.problems.push_back("and " + std::to_string(others) + " more");
    }
    // The list scrolls with what is chosen.
    const auto chosen =
        std::find_if(says_.values.begin(), says_.values.end(), [](const Line& line) { return line.is_chosen; });
    const auto at = static_cast<std::size_t>(chosen - says_.values.begin());
    if (says_.values.size() > lines) {
        const std::size_t first = std::min(at > lines / 2 ? at - lines / 2 : 0, says_.values.size() - lines);
        says_.values.erase(says_.values.begin(), says_.values.begin() + static_cast<std::ptrdiff_t>(first));
        says_.values.resize(lines);
    }
    for (std::size_t i = 0; i < lines; ++i) {
        if (i >= says_.values.size()) continue;
        const Line& line = says_.values[i];
        const Color color = line.is_chosen ? amber : line.is_by_hand ? teal : ink;
        hud_.set_color(hud_.find("name" + std::to_string(i)), color);
        hud_.set_color(hud_.find("value" + std::to_string(i)), color);
        hud_.set_color(hud_.find("range" + std::to_string(i)), line.is_chosen ? amber : dim);
    }
    // A design pixel is one of the desktop.
    const Size design{viewport.size.width / pixel_ratio, viewport.size.height / pixel_ratio};
    if (!(design == design_)) hud_.reload({.design = design, .font = "Inter, sans-serif"});
    design_ = design;
    hud_.resize(viewport);
    hud_.update(step);
}

}  // namespace rapido::tool
