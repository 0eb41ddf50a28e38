// What elements draw, as far as their flashes are concerned.
#include <algorithm>
#include <array>
#include <cmath>
#include <span>

#include "hud/effects.hpp"

namespace rapido {
namespace {

/// How much of the box of a line of text its characters cover, about: of a regular weight.
constexpr float ink = 0.22F;
/// So many colors are told apart.
constexpr std::size_t most_parts = 4;
/// The screen that areas are counted on, and the width in degrees that goes with it.
constexpr Size counted{1024, 768};
constexpr float counted_degrees = 30;

float area_of(std::span<const Point> points) {
    float twice = 0;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const Point &a = points[i], &b = points[(i + 1) % points.size()];
        twice += a.x * b.y - b.x * a.y;
    }
    return std::abs(twice) / 2;
}

Rect box_of(std::span<const Point> points) {
    if (points.empty()) return {};
    Point first = points.front(), last = first;
    for (const Point& point : points) {
        first = {std::min(first.x, point.x), std::min(first.y, point.y)};
        last = {std::max(last.x, point.x), std::max(last.y, point.y)};
    }
    return {first.x, first.y, last.x - first.x, last.y - first.y};
}

Rect common(const Rect& a, const Rect& b) {
    const float x = std::max(a.x, b.x), y = std::max(a.y, b.y);
    return {x, y, std::max(0.0F, std::min(a.right(), b.right()) - x),
            std::max(0.0F, std::min(a.bottom(), b.bottom()) - y)};
}

Rect around(const Rect& a, const Rect& b) {
    const float x = std::min(a.x, b.x), y = std::min(a.y, b.y);
    return {x, y, std::max(a.right(), b.right()) - x, std::max(a.bottom(), b.bottom()) - y};
}

/// One command as a part; of no area where it draws nothing that counts.
FlashPart part_of(const DrawGroup& group, const DrawCommand& command) {
    FlashPart part{.color = command.color, .box = command.rect, .area = 0};
    const auto length_of = [](std::span<const Point> points) {
        float length = 0;
        for (std::size_t i = 1; i < points.size(); ++i)
            length += std::hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
        return length;
    };
    switch (command.kind) {
        case DrawCommand::Kind::rect:
        case DrawCommand::Kind::image: {
            const bool is_cut = command.kind == DrawCommand::Kind::rect && command.clip.width > 0;
            if (is_cut) part.box = common(command.rect, command.clip);
            part.area = part.box.width * part.box.height;
            break;
        }
        case DrawCommand::Kind::border:
            part.area = 2 * (command.rect.width + command.rect.height) * command.thickness;
            break;
        case DrawCommand::Kind::text:
            part.box = {command.baseline.x, command.baseline.y - command.size * 0.8F, command.width, command.size};
            part.area = part.box.width * part.box.height * ink;
            break;
        case DrawCommand::Kind::line:
            part.box = box_of(group.points_of(command));
            part.area = length_of(group.points_of(command)) * command.thickness;
            break;
        case DrawCommand::Kind::polygon:
            part.box = box_of(group.points_of(command));
            part.area = area_of(group.points_of(command));
            break;
    }
    if (command.color.alpha == 0) part.area = 0;
    return part;
}

double distance(const FlashPart& a, const FlashPart& b) {
    const double light = std::abs(relative_luminance(a.color) - relative_luminance(b.color));
    return light + std::abs(a.color.alpha - b.color.alpha) / 255.0;
}

/// Of several parts of like color one, so that few are left.
void join(const std::vector<FlashPart>& parts, std::vector<FlashPart>& joined) {
    joined.clear();
    for (const FlashPart& part : parts) {
        if (!(part.area > 0)) continue;
        const auto nearest = std::min_element(
            joined.begin(), joined.end(),
            [&](const FlashPart& a, const FlashPart& b) { return distance(a, part) < distance(b, part); });
        if (nearest == joined.end() || (distance(*nearest, part) > 0.02 && joined.size() < most_parts)) {
            joined.push_back(part);
            continue;
        }
        if (part.area > nearest->area) {
            nearest->color = part.color;
            nearest->below = part.below;
        }
        nearest->area += part.area;
        nearest->box = around(nearest->box, part.box);
    }
}

Rect scaled(const Rect& box, Size by) {
    return {box.x * by.width, box.y * by.height, box.width * by.width, box.height * by.height};
}

}  // namespace

/// What an element draws, in device pixels, without what later commands cover.
void Effects::gather(ElementIndex index, std::vector<FlashPart>& into) {
    scratch_.begin();
    draw_alone(index, scratch_);
    constexpr std::size_t most_covered = 64;
    for (const DrawCommand& command : scratch_.commands()) {
        FlashPart part = part_of(scratch_, command);
        if (!(part.area > 0)) continue;
        const bool covers = command.kind == DrawCommand::Kind::rect && command.color.alpha > 230;
        for (std::size_t i = into.size() - std::min(into.size(), most_covered); covers && i < into.size(); ++i) {
            const Rect both = common(into[i].box, part.box);
            const float whole = into[i].box.width * into[i].box.height;
            if (!(whole > 0)) continue;
            const float covered = std::min(1.0F, both.width * both.height / whole);
            into[i].area *= 1 - covered;
            if (covered > 0.5F) part.below = into[i].color;
        }
        into.push_back(part);
    }
    for (const ElementIndex child : elements_.children(index))
        if (visibility_.is_drawn(child)) gather(child, into);
}

/// How large a device pixel is on the screen that areas are counted on.
Size Effects::counted_pixel() const {
    const Size viewport = layouter_.viewport() ? layouter_.viewport()->size : counted;
    const float part = settings_.flashes().field_of_view / counted_degrees;
    return {viewport.width > 0 ? counted.width / viewport.width * part : 0,
            viewport.height > 0 ? counted.height / viewport.height * part : 0};
}

/// Whether what was seen of an element still holds: it is where it was, and it was looked at not long ago.
bool Effects::is_fresh(const SeenLook& seen, ElementIndex index, Nanoseconds now) const {
    return seen.at != Nanoseconds::min() && now - FlashLimit::window < seen.at &&
           seen.box == layouter_.device_box(index) && seen.color == elements_[index].body->color();
}

void Effects::want(ElementIndex index) {
    if (!std::exchange(looks_[index].is_wanted, true)) wanted_looks_.push_back(index);
}

const FlashLook& Effects::look_of(ElementIndex index) {
    const SeenLook& seen = looks_[index];
    want(index);
    if (seen.at != Nanoseconds::min()) return seen.look;
    const Color color = elements_[index].body->color();
    const Size pixel = counted_pixel();
    const Rect box = scaled(layouter_.device_box(index), pixel);
    const bool is_counted = layouter_.measurer() != nullptr && settings_.flashes().rule != FlashRule::any_size;
    scratch_look_.parts.assign(
        1, {.color = color, .box = box, .area = is_counted ? box.width * box.height : Flash::any_size});
    scratch_look_.glow.reset();
    scratch_look_.box = box;
    scratch_look_.unit = std::sqrt(pixel.width * pixel.height) * layouter_.screen().scale;
    scratch_look_.settings = settings_.flashes();
    return scratch_look_;
}

void Effects::look_at(ElementIndex index, Nanoseconds now) {
    SeenLook& seen = looks_[index];
    FlashLook& look = seen.look;
    const Color color = elements_[index].body->color();
    seen.at = now;
    seen.box = layouter_.device_box(index);
    seen.color = color;
    look.settings = settings_.flashes();
    const Size pixel = counted_pixel();
    look.box = scaled(seen.box, pixel);
    look.unit = std::sqrt(pixel.width * pixel.height) * layouter_.screen().scale;
    const bool is_counted = layouter_.measurer() != nullptr && settings_.flashes().rule != FlashRule::any_size;
    if (is_counted) {
        scratch_parts_.clear();
        gather(index, scratch_parts_);
        join(scratch_parts_, look.parts);
        for (FlashPart& each : look.parts) {
            each.box = scaled(each.box, pixel);
            each.area *= pixel.width * pixel.height;
        }
    } else {
        look.parts.assign(1, {.color = color});
    }
    const Rest* const rest = elements_[index].rest.get();
    const Glow glow = rest != nullptr && rest->glow ? *rest->glow : Glow{.color = color};
    // What it reaches with more than a little of its light.
    const float reach = glow.radius / 2 * look.unit;
    const Rect box{look.box.x - reach, look.box.y - reach, look.box.width + 2 * reach, look.box.height + 2 * reach};
    look.glow =
        FlashPart{.color = glow.color.value(),
                  .box = box,
                  .area = is_counted ? box.width * box.height - look.box.width * look.box.height : Flash::any_size};
}

void Effects::look_at_flashes(Nanoseconds now) {
    if (flashes().limit == nullptr) return wanted_looks_.clear();
    // What goes on for long may have grown.
    for (const ElementIndex index : playing_)
        if (!is_fresh(looks_[index], index, now)) want(index);
    for (const ElementIndex index : wanted_looks_) {
        SeenLook& seen = looks_[index];
        seen.is_wanted = false;
        if (visibility_.is_drawn(index) && !is_fresh(seen, index, now)) look_at(index, now);
    }
    wanted_looks_.clear();
    for (const ElementIndex index : playing_) {
        if (!visibility_.is_drawn(index)) continue;
        EffectPlayer& player = on_[index].own->player;
        player.set_look(looks_[index].look, now);
        player.watch(now);
        if (player.is_limited(now)) note_limited();
    }
}

}  // namespace rapido
