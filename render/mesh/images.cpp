// Images, and what one quad cannot do.
#include "draw/map_opacity.hpp"
#include "render/mesh/group_maker.hpp"

namespace rapido {

bool GroupMaker::read_image(ImageId image, Size& size) {
    if (atlas_.images == nullptr) return false;
    size = atlas_.images->size(image);
    if (!(size.width >= 1 && size.height >= 1)) return false;
    if (image >= atlas_.image_pixels.size()) atlas_.image_pixels.resize(image + std::size_t{1});
    std::vector<std::uint8_t>& pixels = atlas_.image_pixels[image];
    if (pixels.empty()) pixels = atlas_.images->pixels(image);
    return pixels.size() == static_cast<std::size_t>(size.width) * static_cast<std::size_t>(size.height) * 4;
}

/// A part of an image with a row of its own edge around it, so that filtering stays inside. As a silhouette, it is white.
AtlasIndex GroupMaker::image_part(ImageId image, const PixelRect& part, bool as_silhouette) {
    AtlasKey key = key_of(as_silhouette ? Made::silhouette : Made::image);
    key.add(image);
    for (const int number : {part.x, part.y, part.width, part.height})
        key.add(number);
    if (const AtlasIndex known = atlas_.find(key); known != nowhere) return known;
    Size size;
    if (!read_image(image, size)) return nowhere;
    const AtlasIndex index = atlas_.add(key, part.width + 2, part.height + 2);
    if (index == nowhere) {
        is_complete = false;
        return nowhere;
    }
    std::vector<std::uint8_t>& texels = atlas_.texels;
    texels.resize(static_cast<std::size_t>(part.width + 2) * static_cast<std::size_t>(part.height + 2) * 4);
    std::size_t at = 0;
    for (int y = -1; y <= part.height; ++y)
        for (int x = -1; x <= part.width; ++x, at += 4) {
            const std::uint8_t* const texel = texel_of(image, size, part.x + std::clamp(x, 0, part.width - 1),
                                                       part.y + std::clamp(y, 0, part.height - 1));
            for (std::size_t i = 0; i < 4; ++i)
                texels[at + i] = as_silhouette ? texel[3] : texel[i];
        }
    atlas_.put(index, texels.data());
    return index;
}

const std::uint8_t* GroupMaker::texel_of(ImageId image, Size size, int x, int y) const {
    const int wide = static_cast<int>(size.width), high = static_cast<int>(size.height);
    const auto at = static_cast<std::size_t>(std::clamp(y, 0, high - 1)) * static_cast<std::size_t>(wide) +
                    static_cast<std::size_t>(std::clamp(x, 0, wide - 1));
    return atlas_.image_pixels[image].data() + at * 4;
}

void GroupMaker::draw_image(const DisplayItem& item) {
    const Rect& rect = item.rect;
    Size size;
    if (rect.width <= 0 || rect.height <= 0 || !read_image(item.image, size)) return;
    const std::span<const Point> cut = group_.points_of(item);
    const bool is_turned = !moves_only_ || !item.transform.is_identity();
    const bool is_simple = !item.has_mask && !item.has_map && item.blur <= 0 && item.smooth &&
                           (cut.empty() || (is_rect(cut) && !is_turned));
    if (!is_simple) return draw_baked(item, size, cut);
    const PixelRect part{static_cast<int>(item.source.x), static_cast<int>(item.source.y),
                         std::max(1, static_cast<int>(item.source.width)),
                         std::max(1, static_cast<int>(item.source.height))};
    Bounds clip = everywhere;
    if (!cut.empty()) clip = bounds_of(moved(bounds_of_points(cut)));
    const auto put = [&](bool as_silhouette, const DisplayItem& as, bool only_light) {
        const AtlasIndex index = image_part(item.image, part, as_silhouette);
        if (index != nowhere) image(index, as, clip, only_light);
    };
    if (item.silhouette) return put(true, item, false);
    if (!(item.tint.part > 0)) return put(false, item, false);
    // Its own colors and those of the tint, each as far as it counts: the second adds no opacity.
    DisplayItem own = item, tinted = item;
    const float rest = 1 - item.tint.part;
    for (std::uint8_t Color::*const channel : {&Color::red, &Color::green, &Color::blue}) {
        own.color.*channel = static_cast<std::uint8_t>(static_cast<float>(item.color.*channel) * rest + 0.5F);
        tinted.color.*channel =
            static_cast<std::uint8_t>(static_cast<float>(item.tint.color.*channel) * item.tint.part + 0.5F);
    }
    put(false, own, false);
    put(true, tinted, true);
}

/// Over its rectangle, whose edges may cut through pixels.
void GroupMaker::image(AtlasIndex index, const DisplayItem& item, const Bounds& clip, bool only_light) {
    const AtlasEntry& entry = atlas_.entries[index];
    const AtlasPages::Page& page = atlas_.pages[entry.page];
    const Rect& rect = item.rect;
    const auto u = [&](float part) {
        return (static_cast<float>(entry.at.x + 1) + part * static_cast<float>(entry.at.width - 2)) /
               static_cast<float>(page.width);
    };
    const auto v = [&](float part) {
        return (static_cast<float>(entry.at.y + 1) + part * static_cast<float>(entry.at.height - 2)) /
               static_cast<float>(page.height);
    };
    const bool before = std::exchange(adds_light_, adds_light_ || only_light);
    if (moves_only_ && item.transform.is_identity()) {
        const Rect at = moved(rect);
        const Bounds inside = common_part(bounds_of(at), clip);
        std::array<Span, 3> columns, rows;
        const int column_count = spans_of(std::floor(at.x), std::ceil(at.right()), inside.left, inside.right, columns);
        const int row_count = spans_of(std::floor(at.y), std::ceil(at.bottom()), inside.top, inside.bottom, rows);
        for (int r = 0; r < row_count; ++r)
            for (int c = 0; c < column_count; ++c) {
                const Span& x = columns[static_cast<std::size_t>(c)];
                const Span& y = rows[static_cast<std::size_t>(r)];
                const auto across = [&](float along) { return u(std::clamp((along - at.x) / at.width, 0.0F, 1.0F)); };
                const auto down = [&](float along) { return v(std::clamp((along - at.y) / at.height, 0.0F, 1.0F)); };
                add_quad(entry.page, corners({x.from, y.from, x.to, y.to}),
                         corners({across(x.from), down(y.from), across(x.to), down(y.to)}), item, x.part * y.part);
            }
    } else {
        std::array<Point, 4> at = corners(bounds_of(rect));
        for (Point& corner : at)
            corner = moved(item.transform.apply(corner));
        add_quad(entry.page, at, corners({u(0), v(0), u(1), v(1)}), item, 1);
    }
    adds_light_ = before;
    use(index);
}

/// A polygon whose opacity is that of an image over its rectangle.
void GroupMaker::draw_masked(const DisplayItem& item, std::span<const Point> points) {
    Size size;
    if (!read_image(item.mask, size)) return;
    bake(item, bounds_of_points(points), points, {}, false);
}

void GroupMaker::draw_baked(const DisplayItem& item, Size size, std::span<const Point> cut) {
    (void)size;
    bake(item, item.rect, cut, item.source, true);
}

/// What one quad cannot do is drawn here, pixel by pixel, and kept as an image of the size in which it is seen.
void GroupMaker::bake(const DisplayItem& item, const Rect& bounds, std::span<const Point> cut, const Rect& source,
                      bool has_image) {
    const Transform own = has_image ? item.transform : Transform{};
    const bool is_turned = !moves_only_ || !own.is_identity();
    const int reach = item.blur > 0 ? blur_reach(item.blur) : 1;
    const Point shift = is_turned ? Point{} : Point{group_.transform().dx, group_.transform().dy};
    const float left = std::floor(bounds.x + shift.x) - static_cast<float>(reach),
                top = std::floor(bounds.y + shift.y) - static_cast<float>(reach);
    const float right = std::ceil(bounds.right() + shift.x) + static_cast<float>(reach),
                bottom = std::ceil(bounds.bottom() + shift.y) + static_cast<float>(reach);
    if (!(right > left && bottom > top && right - left < 4096 && bottom - top < 4096)) return;
    const int width = static_cast<int>(right - left), height = static_cast<int>(bottom - top);
    const Point origin{left - shift.x, top - shift.y};
    const bool as_mask = !has_image || item.silhouette || item.blur > 0;
    AtlasKey key = key_of(Made::baked);
    key.add(has_image ? item.image : nowhere);
    key.add(item.has_mask ? item.mask : nowhere);
    key.add(item.has_map ? item.map : nowhere);
    for (const float number : {source.x, source.y, source.width, source.height, item.rect.x - left, item.rect.y - top,
                               item.rect.width, item.rect.height, item.blur, item.map_from * 256, item.map_to * 256,
                               item.map_softness * 256, shift.x - std::floor(shift.x), shift.y - std::floor(shift.y)})
        key.add(number);
    key.add(static_cast<int>(item.smooth) + 2 * static_cast<int>(as_mask));
    add_points(key, cut, {left, top});
    key.add(width);
    key.add(height);
    if (!as_mask) {
        key.add(item.color.red << 16 | item.color.green << 8 | item.color.blue);
        key.add(item.tint.color.red << 16 | item.tint.color.green << 8 | item.tint.color.blue);
        key.add(item.tint.part * 16);
    }
    AtlasIndex index = atlas_.find(key);
    if (index == nowhere) {
        index = atlas_.add(key, width, height);
        if (index == nowhere) {
            is_complete = false;
            return;
        }
        draw_pixels(item, cut, source, has_image, origin, width, height);
        if (as_mask) {
            if (item.blur > 0) blur_opacity(atlas_.coverage.bytes.data(), width, height, width, item.blur);
            atlas_.put_coverage(index);
        } else {
            atlas_.put(index, atlas_.texels.data());
        }
    }
    DisplayItem as = item;
    if (!as_mask) as.color = {255, 255, 255, item.color.alpha};
    if (!is_turned)
        return add_texels(index, {static_cast<int>(left), static_cast<int>(top), width, height}, {0, 0, width, height},
                          false, false, everywhere, as);
    std::array<Point, 4> at =
        corners({origin.x, origin.y, origin.x + static_cast<float>(width), origin.y + static_cast<float>(height)});
    for (Point& corner : at)
        corner = moved(own.apply(corner));
    const AtlasEntry& entry = atlas_.entries[index];
    const AtlasPages::Page& page = atlas_.pages[entry.page];
    const auto texture = [](int first, int count, int whole) {
        return std::pair(static_cast<float>(first) / static_cast<float>(whole),
                         static_cast<float>(first + count) / static_cast<float>(whole));
    };
    const auto [u0, u1] = texture(entry.at.x, entry.at.width, page.width);
    const auto [v0, v1] = texture(entry.at.y, entry.at.height, page.height);
    add_quad(entry.page, at, corners({u0, v0, u1, v1}), as, 1);
    use(index);
}

/// Four channels of an image at a place that may lie between pixels.
std::array<float, 4> GroupMaker::sampled(ImageId image, Size size, const Rect& part, Point at, bool smooth) const {
    std::array<float, 4> sum{};
    const auto add = [&](int x, int y, float weight) {
        const int low_x = static_cast<int>(part.x), low_y = static_cast<int>(part.y);
        const std::uint8_t* const texel =
            texel_of(image, size, std::clamp(x, low_x, low_x + std::max(0, static_cast<int>(part.width) - 1)),
                     std::clamp(y, low_y, low_y + std::max(0, static_cast<int>(part.height) - 1)));
        for (std::size_t i = 0; i < 4; ++i)
            sum[i] += weight * static_cast<float>(texel[i]);
    };
    if (!smooth) {
        add(static_cast<int>(std::floor(at.x)), static_cast<int>(std::floor(at.y)), 1);
        return sum;
    }
    const float x = at.x - 0.5F, y = at.y - 0.5F;
    const float left = std::floor(x), top = std::floor(y), across = x - left, down = y - top;
    add(static_cast<int>(left), static_cast<int>(top), (1 - across) * (1 - down));
    add(static_cast<int>(left) + 1, static_cast<int>(top), across * (1 - down));
    add(static_cast<int>(left), static_cast<int>(top) + 1, (1 - across) * down);
    add(static_cast<int>(left) + 1, static_cast<int>(top) + 1, across * down);
    return sum;
}

/// Fills `coverage` with opacities, and `texels` with colors.
void GroupMaker::draw_pixels(const DisplayItem& item, std::span<const Point> cut, const Rect& source, bool has_image,
                             Point origin, int width, int height) {
    const Rect& rect = item.rect;
    atlas_.coverage.reset(width, height);
    atlas_.rasterizer.begin(origin);
    if (!cut.empty())
        atlas_.rasterizer.add(cut);
    else
        atlas_.rasterizer.add_rounded(rect, 0);
    atlas_.rasterizer.fill(atlas_.coverage);
    atlas_.texels.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4);
    Size image_size, mask_size, map_size;
    const bool has_mask = item.has_mask && read_image(item.mask, mask_size);
    const bool has_map = item.has_map && read_image(item.map, map_size);
    const bool is_there = has_image && read_image(item.image, image_size);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const auto at = static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
            float opacity = static_cast<float>(atlas_.coverage.bytes[at]) / 255;
            std::array<float, 4> color{255, 255, 255, 255};
            if (opacity > 0) {
                const Point part{(origin.x + static_cast<float>(x) + 0.5F - rect.x) / rect.width,
                                 (origin.y + static_cast<float>(y) + 0.5F - rect.y) / rect.height};
                const auto over = [&](ImageId image, Size size, const Rect& of) {
                    return sampled(image, size, of, {of.x + part.x * of.width, of.y + part.y * of.height}, item.smooth);
                };
                if (is_there) color = over(item.image, image_size, source);
                if (has_mask) opacity *= over(item.mask, mask_size, {0, 0, mask_size.width, mask_size.height})[3] / 255;
                if (has_map)
                    opacity *= reached(item, over(item.map, map_size, {0, 0, map_size.width, map_size.height}));
            }
            const std::array<std::uint8_t, 3> factors{item.color.red, item.color.green, item.color.blue};
            const std::array<std::uint8_t, 3> tints{item.tint.color.red, item.tint.color.green, item.tint.color.blue};
            for (std::size_t i = 0; i < 3; ++i) {
                const float own = color[i] * static_cast<float>(factors[i]) / 255;
                const float tinted = static_cast<float>(tints[i]) * color[3] / 255;
                atlas_.texels[at * 4 + i] =
                    static_cast<std::uint8_t>((own + (tinted - own) * item.tint.part) * opacity + 0.5F);
            }
            atlas_.texels[at * 4 + 3] = static_cast<std::uint8_t>(color[3] * opacity + 0.5F);
            atlas_.coverage.bytes[at] = atlas_.texels[at * 4 + 3];
        }
}

/// How far a pixel of a map is drawn: see `DisplayItem::map`.
float GroupMaker::reached(const DisplayItem& item, const std::array<float, 4>& texel) {
    if (texel[3] <= 0) return 0;
    const float gray = (0.2126F * texel[0] + 0.7152F * texel[1] + 0.0722F * texel[2]) / texel[3];
    return map_opacity(gray, item.map_from, item.map_to, item.map_softness);
}

}  // namespace rapido
