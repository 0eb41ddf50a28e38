#include "element/image_look.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "draw/outline.hpp"

namespace rapido {

ImageLook ImageLook::find(const std::string& name, std::string_view field, const Frames& frames, BodyContext& context) {
    ImageLook look;
    look.named_ = !name.empty();
    look.size_ = {32, 32};
    look.frames_.count = 1;
    if (!look.named_ || context.images == nullptr) return look;
    Result<ImageId> found = context.images->find(name);
    if (!found) {
        for (const Problem& problem : found.problems())
            context.warn(field, "'" + name + "' " + problem.message, problem.hint, ProblemCode::missing_image);
        return look;
    }
    // What is out of range is told where the element is made.
    const int count = std::clamp(frames.count, 1, 1000);
    const int columns = frames.columns > 0 ? std::min(frames.columns, count) : count;
    const int rows = (count + columns - 1) / columns;
    const Size whole = context.images->size(*found);
    const Size frame{std::floor(whole.width / static_cast<float>(columns)),
                     std::floor(whole.height / static_cast<float>(rows))};
    if (frame.width < 1 || frame.height < 1) {
        context.warn(field, "'" + name + "' is too small for " + std::to_string(count) + " frames", {},
                     ProblemCode::missing_image);
        return look;
    }
    look.image_ = *found;
    look.frames_ = frames;
    look.frames_.count = count;
    look.frames_.columns = columns;
    look.size_ = frame;
    return look;
}

Rect ImageLook::frame(int number) const {
    const int columns = std::max(frames_.columns, 1);
    return {static_cast<float>(number % columns) * size_.width, static_cast<float>(number / columns) * size_.height,
            size_.width, size_.height};
}

int ImageLook::frame_at(Nanoseconds time) const {
    const double passed = to_seconds(time).count() * static_cast<double>(frames_.rate);
    return passed > 0 && std::isfinite(passed) ? static_cast<int>(std::fmod(std::floor(passed), frames_.count)) : 0;
}

/// Where an image of this size is in a box, after CSS Images 3, 5.5.
Rect ImageLook::fitted(const Rect& box, Size own, ImageFit fit, float scale) {
    if (fit == ImageFit::fill) return box;
    const float across = box.width / own.width, down = box.height / own.height;
    float factor = fit == ImageFit::cover ? std::max(across, down) : std::min(across, down);
    if (fit == ImageFit::none) factor = scale;
    if (fit == ImageFit::scale_down) factor = std::min(factor, scale);
    const Size size{own.width * factor, own.height * factor};
    return {box.x + (box.width - size.width) / 2, box.y + (box.height - size.height) / 2, size.width, size.height};
}

void ImageLook::draw_fitted(const Rect& box, ImageFit fit, int frame_number, Color color, bool smooth,
                            const DrawPlace& at, DisplayGroup& into) const {
    draw_cut(image_ ? fitted(box, size_, fit, at.scale) : box, box, frame_number, color, smooth, at, into);
}

bool ImageLook::draw_cut(const Rect& rect, const Rect& box, int frame_number, Color color, bool smooth,
                         const DrawPlace& at, DisplayGroup& into) const {
    if (!draw(rect, frame_number, color, smooth, at, into)) return false;
    if (!lies_in(rect, box)) into.cut_last(corners_of(box));
    return true;
}

bool ImageLook::draw(const Rect& rect, int frame_number, Color color, bool smooth, const DrawPlace& at,
                     DisplayGroup& into) const {
    if (!named_) return false;
    if (!image_) {
        draw_missing(rect, at, into);
        return false;
    }
    into.image(*image_, frame(frame_number), rect, color, smooth);
    return true;
}

void ImageLook::draw_slices(const Rect& rect, int frame_number, const Insets& slice, Color color, bool smooth,
                            const DrawPlace& at, DisplayGroup& into, std::span<const Point> cut) const {
    const Rect edges = on_pixels(rect);
    const Rect source = frame(frame_number);
    const float across = slice.left + slice.right, down = slice.top + slice.bottom;
    const float scale =
        std::min({at.scale, across > 0 ? edges.width / across : at.scale, down > 0 ? edges.height / down : at.scale});
    const auto stops = [scale](float from, float length, float first, float last, float to, float room) {
        const float begin = std::min(first, length), end = std::max(begin, length - last);
        return std::array<std::array<float, 4>, 2>{
            {{from, from + begin, from + end, from + length},
             {to, to + std::round(begin * scale), to + room - std::round((length - end) * scale), to + room}}};
    };
    const auto columns = stops(source.x, source.width, slice.left, slice.right, edges.x, edges.width);
    const auto rows = stops(source.y, source.height, slice.top, slice.bottom, edges.y, edges.height);
    for (std::size_t row = 0; row < 3; ++row)
        for (std::size_t column = 0; column < 3; ++column) {
            const auto part = [&](std::size_t which) {
                const auto& x = columns[which];
                const auto& y = rows[which];
                return Rect{x[column], y[row], x[column + 1] - x[column], y[row + 1] - y[row]};
            };
            const Rect from = part(0), to = part(1);
            if (from.width <= 0 || from.height <= 0 || to.width <= 0 || to.height <= 0) continue;
            into.image(*image_, from, to, color, smooth);
            if (!cut.empty()) into.cut_last(cut);
        }
}

void ImageLook::draw_missing(const Rect& rect, const DrawPlace& at, DisplayGroup& into) {
    constexpr Color color = rgb(0xffc24a, 0.8);
    const float line = std::max(1.0F, std::round(1.5F * at.scale));
    const Rect edges = on_pixels(rect);
    const Rect inner = edges.inset({line, line, line, line});
    into.rect(edges, 0, rgb(0x10161c, 0.6));
    into.border(edges, 0, line, color);
    const std::array down{Point{inner.x, inner.y}, Point{inner.right(), inner.bottom()}};
    const std::array up{Point{inner.x, inner.bottom()}, Point{inner.right(), inner.y}};
    into.line(down, line, color);
    into.line(up, line, color);
}

}  // namespace rapido
