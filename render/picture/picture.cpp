#include "rapido/picture.hpp"

#include <cairo-ft.h>
#include <cairo-svg.h>

#include <algorithm>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <fstream>
#include <limits>
#include <numbers>
#include <unordered_map>
#include <vector>

#include "file/paths.hpp"
#include "render/picture/blur.hpp"
#include "render/picture/image_store.hpp"

namespace rapido {
namespace {

constexpr int largest = 16384;
constexpr std::size_t most_background_pixels = 64'000'000;

void set_color(cairo_t* context, Color color) {
    cairo_set_source_rgba(context, color.red / 255.0, color.green / 255.0, color.blue / 255.0, color.alpha / 255.0);
}

void rounded_path(cairo_t* context, const Rect& rect, float given_radius) {
    const double radius = std::clamp(given_radius, 0.0F, std::min(rect.width, rect.height) / 2);
    if (radius <= 0) return cairo_rectangle(context, rect.x, rect.y, rect.width, rect.height);
    constexpr double quarter = std::numbers::pi / 2;
    const double left = rect.x + radius;
    const double top = rect.y + radius;
    const double right = rect.right() - radius;
    const double bottom = rect.bottom() - radius;
    cairo_new_sub_path(context);
    cairo_arc(context, right, top, radius, -quarter, 0);
    cairo_arc(context, right, bottom, radius, 0, quarter);
    cairo_arc(context, left, bottom, radius, quarter, 2 * quarter);
    cairo_arc(context, left, top, radius, 2 * quarter, 3 * quarter);
    cairo_close_path(context);
}

/// What drawing on a picture may take, in nanoseconds as measured on a desktop machine of 2020: a hostile HUD can draw so
/// much that a picture of it would take minutes.
constexpr double most_cost = 1e9;

/// A blur of more pixels is left out, and so many are kept to be drawn again.
constexpr double most_blurred = 16e6;
constexpr double longest_kept = 32000;  // Cairo makes no longer picture
constexpr double most_kept = 16e6;

/// The box of what a item draws, before the transform of its group; generous for a text.
Rect bounds_of(const DisplayItem& item, const DisplayGroup& group) {
    Rect box = item.rect;
    if (item.kind == DisplayItem::Kind::text) {
        const float around = item.size + item.outline;
        return {item.baseline.x - around, item.baseline.y - around - item.size / 2, item.width + 2 * around,
                2 * around + item.size / 2};
    }
    if (item.kind == DisplayItem::Kind::polygon || item.kind == DisplayItem::Kind::line) {
        const std::span<const Point> points = group.points_of(item);
        if (points.empty()) return {};
        const auto [left, right] =
            std::minmax_element(points.begin(), points.end(), [](Point a, Point b) { return a.x < b.x; });
        const auto [top, bottom] =
            std::minmax_element(points.begin(), points.end(), [](Point a, Point b) { return a.y < b.y; });
        const float line = item.kind == DisplayItem::Kind::line ? item.thickness / 2 : 0;
        box = Rect{left->x, top->y, right->x - left->x, bottom->y - top->y}.inset({-line, -line, -line, -line});
    }
    return box;
}

/// The area of what a item draws, as far as it is on the picture; generous where a transform turns it.
Rect seen_bounds(const DisplayItem& item, const DisplayGroup& group) {
    const Rect box = bounds_of(item, group);
    float left = std::numeric_limits<float>::max(), right = -left, top = left, bottom = -left;
    for (const Point corner : {Point{box.x, box.y}, Point{box.right(), box.y}, Point{box.x, box.bottom()},
                               Point{box.right(), box.bottom()}}) {
        const Point at = group.transform().apply(item.transform.apply(corner));
        left = std::min(left, at.x);
        right = std::max(right, at.x);
        top = std::min(top, at.y);
        bottom = std::max(bottom, at.y);
    }
    return {left, top, right - left, bottom - top};
}
double covered_by(const DisplayItem& item, const DisplayGroup& group, const Rect& picture) {
    const Rect seen = seen_bounds(item, group);
    const float wide = std::min(seen.right(), picture.width) - std::max(seen.x, 0.0F);
    const float high = std::min(seen.bottom(), picture.height) - std::max(seen.y, 0.0F);
    return wide > 0 && high > 0 ? static_cast<double>(wide) * static_cast<double>(high) : 0;
}

/// About how many nanoseconds a group takes.
double cost_of(const DisplayGroup& group, const Rect& picture) {
    double cost = 0;
    for (const DisplayItem& item : group.items()) {
        const bool has_points = item.point_count > 0;
        cost += (has_points ? 8000 : 1000) + 200.0 * item.point_count;
        const double covered = covered_by(item, group, picture);
        if (item.blur > 0) cost += 20 * covered + 200.0 * item.blur * item.blur;
        switch (item.kind) {
            case DisplayItem::Kind::text: {
                const double letter = static_cast<double>(item.size) * static_cast<double>(item.size);
                const double whole = static_cast<double>(picture.width) * static_cast<double>(picture.height);
                cost += item.glyph_count * (item.outline > 0 ? 3 : 1) * (20'000 + std::min(letter, whole));
                break;
            }
            case DisplayItem::Kind::image:
                // Other colors take a copy of the part, a mask a picture of its own.
                cost += covered * (item.has_mask ? 12 : 3) +
                        0.02 * static_cast<double>(item.source.width) * static_cast<double>(item.source.height);
                if (item.color != rgb(0xffffff, item.color.alpha / 255.0) || item.tint.part > 0)
                    cost += 8.0 * static_cast<double>(item.source.width) * static_cast<double>(item.source.height);
                break;
            case DisplayItem::Kind::border:
                cost += std::min(covered, 20'000.0);
                break;
            default:
                cost += covered * (item.has_gradient || item.has_mask ? 3 : 1) + (item.has_mask ? 300'000 : 0);
        }
    }
    return cost;
}

/// A file that Cairo writes into, with the reason of the system where that fails.
class FileWriter {
 public:
    explicit FileWriter(const std::string& path) : path_(path), file_(path_of(path), std::ios::binary) { check(); }

    static cairo_status_t write(void* self, const unsigned char* bytes, unsigned int length) {
        FileWriter& writer = *static_cast<FileWriter*>(self);
        writer.file_.write(reinterpret_cast<const char*>(bytes), static_cast<std::streamsize>(length));
        writer.check();
        return writer.file_ ? CAIRO_STATUS_SUCCESS : CAIRO_STATUS_WRITE_ERROR;
    }
    Status finish(cairo_status_t status) {
        file_.close();
        check();
        if (reason_ == 0 && status == CAIRO_STATUS_SUCCESS) return {};
        return Problem{{path_},
                       std::string("cannot be written: ") +
                           (reason_ != 0 ? std::strerror(reason_) : cairo_status_to_string(status)),
                       "",
                       ProblemCode::unwritable};
    }

 private:
    void check() {
        if (!file_ && reason_ == 0) reason_ = errno != 0 ? errno : EIO;
    }

    std::string path_;
    std::ofstream file_;
    int reason_ = 0;
};

}  // namespace

struct Picture::State {
    const Fonts& fonts;
    const Images::State* images;
    Surface surface;
    Context context;
    std::unordered_map<FontId, FontFace> faces;
    std::vector<cairo_glyph_t> glyphs;
    std::unordered_map<std::string, Surface> kept;  ///< opacities, by what was drawn
    double kept_pixels = 0;
    /// The last fill along a map.
    struct Mapped {
        ImageId map = 0;
        float from = 0, to = 0, softness = -1;
        Surface opacity;
    };
    Mapped mapped;
    Status status;
    PixelRect drawn{};  ///< since it was cleared

    static std::unique_ptr<State> on(Surface surface, const Fonts& fonts, const Images::State* images) {
        Context context(cairo_create(surface.get()));
        cairo_font_options_t* const options = cairo_font_options_create();
        cairo_font_options_set_hint_style(options, CAIRO_HINT_STYLE_NONE);
        cairo_font_options_set_hint_metrics(options, CAIRO_HINT_METRICS_OFF);
        cairo_set_font_options(context.get(), options);
        cairo_font_options_destroy(options);
        return std::make_unique<State>(
            State{fonts, images, std::move(surface), std::move(context), {}, {}, {}, 0, {}, {}, {}});
    }

    Rect whole() const {
        return {0, 0, static_cast<float>(cairo_image_surface_get_width(surface.get())),
                static_cast<float>(cairo_image_surface_get_height(surface.get()))};
    }

    /// A HUD of another size would be seen in a corner, or only in part.
    void check_viewport(const DisplayList& list) {
        const Rect canvas = whole();
        const std::string size = pixels(canvas.width) + " x " + pixels(canvas.height);
        const Viewport viewport = list.viewport().value_or(Viewport{});
        const bool fits = viewport.origin.x + viewport.size.width <= canvas.width &&
                          viewport.origin.y + viewport.size.height <= canvas.height;
        const bool is_whole = viewport.size.width == canvas.width && viewport.size.height == canvas.height;
        if (list.groups().empty() || (list.viewport() ? fits : is_whole) || !status) return;
        status = Problem{{},
                         "the HUD fills " + pixels(viewport.size.width) + " x " + pixels(viewport.size.height) +
                             " pixels, and the picture has " + size,
                         "call 'resize' of the HUD with the size of what it is drawn on",
                         ProblemCode::wrong_size,
                         Severity::warning};
    }
    static std::string pixels(float length) { return std::to_string(std::lround(length)); }

    void draw(const DisplayList& list) {
        check_viewport(list);
        double cost = 0;
        for (const DisplayGroup& group : list.groups()) {
            cost += cost_of(group, whole());
            if (cost > most_cost) {
                status = Problem{{},
                                 "the drawing covers the picture too often; what comes later is left out",
                                 "",
                                 ProblemCode::too_much,
                                 Severity::warning};
                return;
            }
            draw(group, group.items());
        }
    }

    void draw(const DisplayGroup& group, std::span<const DisplayItem> items) {
        const Transform& t = group.transform();
        const cairo_matrix_t matrix{t.xx, t.yx, t.xy, t.yy, t.dx, t.dy};
        cairo_save(context.get());
        cairo_transform(context.get(), &matrix);
        cairo_set_operator(context.get(), group.blend == Blend::add ? CAIRO_OPERATOR_ADD : CAIRO_OPERATOR_OVER);
        for (const DisplayItem& item : items) {
            mark(seen_bounds(item, group), item.blur > 0 ? blur_reach(item.blur) : 1);
            if (item.blur > 0 || keeps_outline(group, item))
                draw_kept(group, item);
            else
                draw_sharp(group, item);
        }
        cairo_restore(context.get());
    }

    void mark(const Rect& seen, int around) {
        const Rect canvas = whole();
        const float reach = static_cast<float>(around);
        const auto limited = [](float at, float most) { return std::clamp(std::isfinite(at) ? at : 0, 0.0F, most); };
        const int left = static_cast<int>(limited(std::floor(seen.x) - reach, canvas.width));
        const int top = static_cast<int>(limited(std::floor(seen.y) - reach, canvas.height));
        const int right = static_cast<int>(limited(std::ceil(seen.right()) + reach, canvas.width));
        const int bottom = static_cast<int>(limited(std::ceil(seen.bottom()) + reach, canvas.height));
        if (right <= left || bottom <= top) return;
        if (drawn.is_empty()) {
            drawn = {left, top, right - left, bottom - top};
            return;
        }
        const int x = std::min(drawn.x, left), y = std::min(drawn.y, top);
        drawn = {x, y, std::max(drawn.x + drawn.width, right) - x, std::max(drawn.y + drawn.height, bottom) - y};
    }

    void draw_sharp(const DisplayGroup& group, const DisplayItem& item) {
        set_source(item);
        switch (item.kind) {
            case DisplayItem::Kind::rect:
                draw_rect(item);
                break;
            case DisplayItem::Kind::border:
                draw_border(item);
                break;
            case DisplayItem::Kind::text:
                draw_text(group, item);
                break;
            case DisplayItem::Kind::line:
                draw_line(group, item);
                break;
            case DisplayItem::Kind::polygon:
                draw_polygon(group, item);
                break;
            case DisplayItem::Kind::image:
                draw_image(group, item);
                break;
        }
    }

    /// A line around characters takes ten times as long as they do, so that its opacity is kept, too. In an SVG file it stays an
    /// outline, and where it is turned or scaled it would not be sharp.
    bool keeps_outline(const DisplayGroup& group, const DisplayItem& item) const {
        return item.outline > 0 && group.transform().is_identity() &&
               cairo_surface_get_type(surface.get()) == CAIRO_SURFACE_TYPE_IMAGE;
    }

    /// The opacity of what is drawn sharp is blurred, and its color drawn through that. What was made before in the same way, such
    /// as the shadow of a text that rests, is kept.
    void draw_kept(const DisplayGroup& group, const DisplayItem& item) {
        const Rect bounds = bounds_of(item, group);
        const int reach = item.blur > 0 ? blur_reach(item.blur) : 1;
        const double left = std::floor(static_cast<double>(bounds.x)) - reach;
        const double top = std::floor(static_cast<double>(bounds.y)) - reach;
        const double columns = std::ceil(static_cast<double>(bounds.right())) + reach - left;
        const double rows = std::ceil(static_cast<double>(bounds.bottom())) + reach - top;
        const bool fits = columns <= longest_kept && rows <= longest_kept && columns * rows <= most_blurred;
        if (!(columns > 0 && rows > 0 && fits)) return;
        if (kept_pixels > most_kept) {
            kept.clear();
            kept_pixels = 0;
        }
        Surface& soft = kept[key_of(group, item, left, top)];
        if (soft == nullptr) {
            kept_pixels += columns * rows;
            soft.reset(cairo_image_surface_create(CAIRO_FORMAT_A8, static_cast<int>(columns), static_cast<int>(rows)));
            Context sharp(cairo_create(soft.get()));
            cairo_translate(sharp.get(), -left, -top);
            context.swap(sharp);
            DisplayItem opaque = item;
            opaque.color = {0, 0, 0, 255};
            opaque.has_gradient = false;
            opaque.silhouette = true;
            opaque.blur = 0;
            draw_sharp(group, opaque);
            context.swap(sharp);
            sharp.reset();
            if (item.blur > 0) blur_opacity(soft.get(), item.blur);
        }
        set_color(context.get(), item.color);
        cairo_mask_surface(context.get(), soft.get(), left, top);
    }

    /// Equal for what looks the same when it is blurred: positions count to an eighth of a pixel.
    static std::string key_of(const DisplayGroup& group, const DisplayItem& item, double left, double top) {
        std::string key;
        const auto add = [&](double number) {
            const auto rounded = static_cast<std::int32_t>(std::lround(std::clamp(number, -1e8, 1e8) * 8));
            key.append(reinterpret_cast<const char*>(&rounded), sizeof rounded);
        };
        const auto add_point = [&](Point point) {
            add(static_cast<double>(point.x) - left);
            add(static_cast<double>(point.y) - top);
        };
        add(static_cast<double>(item.kind));
        for (const float number : {item.blur, item.outline, item.size, 256 * item.stretch, item.radius, item.thickness})
            add(static_cast<double>(number));
        for (const Rect& rect : {item.rect, item.clip}) {
            add_point({rect.x, rect.y});
            add_point({rect.right(), rect.bottom()});
        }
        add_point(item.baseline);
        for (const Point& point : group.points_of(item))
            add_point(point);
        for (const Glyph& glyph : group.glyphs_of(item)) {
            add(glyph.id);
            add(glyph.font);
            add(static_cast<double>(glyph.offset.x));
            add(static_cast<double>(glyph.offset.y));
        }
        if (item.kind == DisplayItem::Kind::image || item.has_mask) {
            for (const float number :
                 {item.source.x, item.source.y, item.source.width, item.source.height, item.transform.xx,
                  item.transform.xy, item.transform.dx, item.transform.yx, item.transform.yy, item.transform.dy})
                add(static_cast<double>(number));
            add(item.image);
            add(item.has_mask ? item.mask + 1.0 : 0.0);
            add(item.has_map ? item.map + 1.0 : 0.0);
            // Finer than a gray level.
            for (const float part : {item.map_from, item.map_to, item.map_softness})
                add(4096 * static_cast<double>(part));
        }
        return key;
    }

    void set_source(const DisplayItem& item) {
        if (!item.has_gradient) return set_color(context.get(), item.color);
        const Pattern gradient(cairo_pattern_create_linear(item.gradient_from.x, item.gradient_from.y,
                                                           item.gradient_to.x, item.gradient_to.y));
        const auto add_stop = [&](double at, Color color) {
            cairo_pattern_add_color_stop_rgba(gradient.get(), at, color.red / 255.0, color.green / 255.0,
                                              color.blue / 255.0, color.alpha / 255.0);
        };
        add_stop(0, item.color);
        add_stop(1, item.end_color);
        cairo_set_source(context.get(), gradient.get());
    }

    void add_path(std::span<const Point> points) {
        cairo_new_path(context.get());
        for (const Point& point : points)
            cairo_line_to(context.get(), point.x, point.y);
        cairo_close_path(context.get());
    }

    void draw_polygon(const DisplayGroup& group, const DisplayItem& item) {
        add_path(group.points_of(item));
        if (const Pattern mask = mask_of(item)) {
            cairo_save(context.get());
            cairo_clip(context.get());
            cairo_mask(context.get(), mask.get());
            cairo_restore(context.get());
            return;
        }
        cairo_fill(context.get());
    }

    /// Null where there is none.
    Pattern mask_of(const DisplayItem& item) {
        if (!item.has_mask || images == nullptr) return nullptr;
        cairo_surface_t* const mask = images->surface(item.mask);
        if (mask == nullptr) return nullptr;
        const Rect all{0, 0, static_cast<float>(cairo_image_surface_get_width(mask)),
                       static_cast<float>(cairo_image_surface_get_height(mask))};
        return over_rect(mask, all, item);
    }

    /// What of an image is drawn by its map; null where it has none.
    Pattern map_of(const DisplayItem& item) {
        if (!item.has_map || images == nullptr) return nullptr;
        cairo_surface_t* const map = images->surface(item.map);
        if (map == nullptr) return nullptr;
        if (item.map != mapped.map || item.map_from != mapped.from || item.map_to != mapped.to ||
            item.map_softness != mapped.softness)
            mapped = {item.map, item.map_from, item.map_to, item.map_softness,
                      between_grays(map, item.map_from, item.map_to, item.map_softness)};
        const Rect all{0, 0, static_cast<float>(cairo_image_surface_get_width(map)),
                       static_cast<float>(cairo_image_surface_get_height(map))};
        return over_rect(mapped.opacity.get(), all, item);
    }

    /// A part of an image, as a pattern that lies over the rectangle of the item.
    static Pattern over_rect(cairo_surface_t* part, const Rect& source, const DisplayItem& item) {
        Pattern pattern(cairo_pattern_create_for_surface(part));
        const double across = source.width / static_cast<double>(item.rect.width);
        const double down = source.height / static_cast<double>(item.rect.height);
        const cairo_matrix_t matrix{across, 0, 0, down, -item.rect.x * across, -item.rect.y * down};
        cairo_pattern_set_matrix(pattern.get(), &matrix);
        cairo_pattern_set_filter(pattern.get(), item.smooth ? CAIRO_FILTER_GOOD : CAIRO_FILTER_NEAREST);
        cairo_pattern_set_extend(pattern.get(), CAIRO_EXTEND_PAD);
        return pattern;
    }

    void draw_image(const DisplayGroup& group, const DisplayItem& item) {
        const Rect& rect = item.rect;
        if (images == nullptr || rect.width <= 0 || rect.height <= 0) return;
        cairo_surface_t* const whole = images->surface(item.image);
        if (whole == nullptr) return;
        const bool as_it_is = !item.silhouette && item.color.red == 255 && item.color.green == 255 &&
                              item.color.blue == 255 && !(item.tint.part > 0);
        const Rect& from = item.source;
        // A surface of its own, so that what lies beside the part does not bleed into its edges.
        const Surface part =
            as_it_is ? Surface(cairo_surface_create_for_rectangle(whole, from.x, from.y, from.width, from.height))
            : item.silhouette ? recolored(whole, from, {}, item.color, 1)
                              : recolored(whole, from, item.color, item.tint.color, item.tint.part);
        const Pattern pattern = over_rect(part.get(), from, item);
        const Transform& t = item.transform;
        const cairo_matrix_t matrix{t.xx, t.yx, t.xy, t.yy, t.dx, t.dy};
        cairo_t* const on = context.get();
        cairo_save(on);
        cairo_transform(on, &matrix);
        if (item.point_count > 0) {
            add_path(group.points_of(item));
            cairo_clip(on);
        }
        cairo_rectangle(on, rect.x, rect.y, rect.width, rect.height);
        cairo_clip(on);
        const Pattern map = map_of(item);
        const Pattern mask = mask_of(item);
        if (map) cairo_push_group(on);
        if (mask) cairo_push_group(on);
        cairo_set_source(on, pattern.get());
        cairo_paint_with_alpha(on, item.color.alpha / 255.0);
        if (mask) {
            cairo_pop_group_to_source(on);
            cairo_mask(on, mask.get());
        }
        if (map) {
            cairo_pop_group_to_source(on);
            cairo_mask(on, map.get());
        }
        cairo_restore(on);
    }

    void draw_rect(const DisplayItem& item) {
        if (item.rect.width <= 0 || item.rect.height <= 0) return;
        cairo_save(context.get());
        if (item.clip != item.rect) {
            cairo_rectangle(context.get(), item.clip.x, item.clip.y, item.clip.width, item.clip.height);
            cairo_clip(context.get());
        }
        rounded_path(context.get(), item.rect, item.radius);
        cairo_fill(context.get());
        cairo_restore(context.get());
    }

    void draw_border(const DisplayItem& item) {
        const float half = item.thickness / 2;
        rounded_path(context.get(), item.rect.inset({half, half, half, half}), item.radius - half);
        cairo_set_line_width(context.get(), item.thickness);
        cairo_set_line_join(context.get(), CAIRO_LINE_JOIN_MITER);
        cairo_stroke(context.get());
    }

    void draw_line(const DisplayGroup& group, const DisplayItem& item) {
        cairo_new_path(context.get());
        for (const Point& point : group.points_of(item))
            cairo_line_to(context.get(), point.x, point.y);
        cairo_set_line_width(context.get(), item.thickness);
        cairo_set_line_cap(context.get(), CAIRO_LINE_CAP_ROUND);
        cairo_set_line_join(context.get(), CAIRO_LINE_JOIN_ROUND);
        cairo_stroke(context.get());
    }

    void draw_text(const DisplayGroup& group, const DisplayItem& item) {
        cairo_save(context.get());
        if (item.clip.width > 0) {
            cairo_rectangle(context.get(), item.clip.x, item.clip.y, item.clip.width, item.clip.height);
            cairo_clip(context.get());
        }
        const std::span<const Glyph> all = group.glyphs_of(item);
        // The line and what is inside of it cover each other, and must not be seen through each other.
        const bool is_seen_through = item.outline > 0 && item.color.alpha < 255;
        if (is_seen_through) {
            cairo_push_group_with_content(context.get(), CAIRO_CONTENT_ALPHA);
            cairo_set_source_rgba(context.get(), 0, 0, 0, 1);
        }
        for (std::size_t i = 0; i < all.size();) {
            const FontId font = all[i].font;
            glyphs.clear();
            for (; i < all.size() && all[i].font == font; ++i)
                glyphs.push_back({all[i].id, static_cast<double>(item.baseline.x + all[i].offset.x),
                                  static_cast<double>(item.baseline.y + all[i].offset.y)});
            draw_glyphs(font, item.size, item.stretch, item.outline);
        }
        if (is_seen_through) {
            const Pattern letters(cairo_pop_group(context.get()));
            set_color(context.get(), item.color);
            cairo_mask(context.get(), letters.get());
        }
        cairo_restore(context.get());
    }

    /// Widened by `outline` on every side.
    void draw_glyphs(FontId font, float size, float stretch, float outline) {
        // A list that was measured with other fonts may name a font or a glyph that these do not have: one such glyph would
        // make Cairo draw nothing more.
        const auto known = static_cast<FT_Face>(fonts.face(font));
        if (known == nullptr) return;
        std::erase_if(glyphs, [known](const cairo_glyph_t& glyph) {
            return glyph.index >= static_cast<unsigned long>(known->num_glyphs);
        });
        FontFace& face = faces[font];
        if (face == nullptr) face.reset(cairo_ft_font_face_create_for_ft_face(known, FT_LOAD_NO_HINTING));
        cairo_set_font_face(context.get(), face.get());
        cairo_matrix_t em{};
        cairo_matrix_init_scale(&em, size, static_cast<double>(size) * stretch);
        cairo_set_font_matrix(context.get(), &em);
        // As outlines: glyph images would be moved to whole pixels, and spacing would not be linear any more.
        cairo_glyph_path(context.get(), glyphs.data(), static_cast<int>(glyphs.size()));
        if (outline > 0) {
            cairo_set_line_width(context.get(), 2 * static_cast<double>(outline));
            cairo_set_line_join(context.get(), CAIRO_LINE_JOIN_ROUND);
            cairo_stroke_preserve(context.get());
        }
        cairo_fill(context.get());
    }
};

Picture::Picture(int width, int height, const Fonts& fonts, const Images* images) {
    Surface surface(
        cairo_image_surface_create(CAIRO_FORMAT_ARGB32, std::clamp(width, 1, largest), std::clamp(height, 1, largest)));
    const cairo_status_t made = cairo_surface_status(surface.get());
    if (made != CAIRO_STATUS_SUCCESS) surface.reset(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, 1, 1));
    state_ = State::on(std::move(surface), fonts, images != nullptr ? images->state_.get() : nullptr);
    if (made != CAIRO_STATUS_SUCCESS)
        state_->status = Problem{{},
                                 "a picture of " + std::to_string(width) + " by " + std::to_string(height) +
                                     " pixels cannot be made: " + cairo_status_to_string(made),
                                 "",
                                 ProblemCode::too_large};
}

Picture::~Picture() = default;
Picture::Picture(Picture&&) noexcept = default;
Picture& Picture::operator=(Picture&&) noexcept = default;

int Picture::width() const {
    return cairo_image_surface_get_width(state_->surface.get());
}
int Picture::height() const {
    return cairo_image_surface_get_height(state_->surface.get());
}

const Status& Picture::status() const {
    return state_->status;
}

void Picture::fill(Color color) {
    cairo_t* const context = state_->context.get();
    cairo_save(context);
    cairo_set_operator(context, CAIRO_OPERATOR_SOURCE);
    set_color(context, color);
    cairo_paint(context);
    cairo_restore(context);
    state_->mark(state_->whole(), 0);
}

void Picture::clear() {
    cairo_surface_t* const surface = state_->surface.get();
    const PixelRect& drawn = state_->drawn;
    cairo_surface_flush(surface);
    unsigned char* const first = cairo_image_surface_get_data(surface);
    for (int y = drawn.y; y < drawn.y + drawn.height; ++y)
        std::fill_n(first + static_cast<std::ptrdiff_t>(y) * cairo_image_surface_get_stride(surface) + drawn.x * 4,
                    static_cast<std::size_t>(drawn.width) * 4, std::uint8_t{0});
    cairo_surface_mark_dirty(surface);
    state_->drawn = {};
}

PixelRect Picture::drawn() const {
    return state_->drawn;
}

std::span<const std::uint32_t> Picture::pixels() const {
    cairo_surface_t* const surface = state_->surface.get();
    cairo_surface_flush(surface);
    return {reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(surface)),
            static_cast<std::size_t>(stride()) * static_cast<std::size_t>(height())};
}

int Picture::stride() const {
    return cairo_image_surface_get_stride(state_->surface.get()) / 4;
}

void Picture::blend_onto(void* game_pixels, std::ptrdiff_t row_bytes) const {
    const PixelRect& drawn = state_->drawn;
    const std::span<const std::uint32_t> all = pixels();
    for (int y = drawn.y; y < drawn.y + drawn.height; ++y) {
        const std::uint32_t* const from = all.data() + static_cast<std::ptrdiff_t>(y) * stride();
        auto* const row = static_cast<unsigned char*>(game_pixels) + y * row_bytes;
        for (int x = drawn.x; x < drawn.x + drawn.width; ++x) {
            const std::uint32_t over = from[x], alpha = over >> 24U;
            if (over == 0) continue;
            std::uint32_t below;
            std::memcpy(&below, row + x * 4, sizeof below);
            // Two channels at once: what is below times the rest of the alpha, rounded.
            const std::uint32_t rest = 255 - alpha;
            const auto part = [rest](std::uint32_t pair) {
                const std::uint32_t product = pair * rest + 0x00800080U;
                return ((product + ((product >> 8U) & 0x00ff00ffU)) >> 8U) & 0x00ff00ffU;
            };
            const std::uint32_t seen = over + (part((below >> 8U) & 0x00ff00ffU) << 8U | part(below & 0x00ff00ffU));
            std::memcpy(row + x * 4, &seen, sizeof seen);
        }
    }
}

Status Picture::draw_image(const std::string& path) {
    std::ifstream file(path_of(path), std::ios::binary);
    if (!file)
        return Problem{{path}, std::string("cannot be opened: ") + std::strerror(errno), "", ProblemCode::unreadable};
    Result<Surface> read = read_png(file, most_background_pixels);
    if (!read) return Problem{{path}, read.problems().front().message, read.problems().front().hint};
    const Surface image = *std::move(read);
    const double image_width = cairo_image_surface_get_width(image.get());
    const double image_height = cairo_image_surface_get_height(image.get());
    const double scale = std::max(width() / image_width, height() / image_height);
    cairo_t* const context = state_->context.get();
    cairo_save(context);
    cairo_translate(context, (width() - image_width * scale) / 2, (height() - image_height * scale) / 2);
    cairo_scale(context, scale, scale);
    cairo_set_source_surface(context, image.get(), 0, 0);
    cairo_pattern_set_filter(cairo_get_source(context), CAIRO_FILTER_GOOD);
    cairo_paint(context);
    cairo_restore(context);
    state_->mark(state_->whole(), 0);
    return {};
}

void Picture::draw(const DisplayList& list) {
    state_->draw(list);
}

void Picture::draw(const DisplayGroup& group) {
    state_->draw(group, group.items());
}

void Picture::draw(const DisplayGroup& group, std::size_t first, std::size_t count) {
    const std::span<const DisplayItem> all = group.items();
    first = std::min(first, all.size());
    state_->draw(group, all.subspan(first, std::min(count, all.size() - first)));
}

void Picture::draw(const Picture& picture, const Rect& into) {
    state_->mark(into, 1);
    cairo_t* const context = state_->context.get();
    cairo_save(context);
    cairo_translate(context, into.x, into.y);
    cairo_scale(context, static_cast<double>(into.width) / picture.width(),
                static_cast<double>(into.height) / picture.height());
    cairo_set_source_surface(context, picture.state_->surface.get(), 0, 0);
    cairo_pattern_set_filter(cairo_get_source(context), CAIRO_FILTER_GOOD);
    cairo_paint(context);
    cairo_restore(context);
}

Color Picture::pixel(int x, int y) const {
    if (x < 0 || y < 0 || x >= width() || y >= height()) return {0, 0, 0, 0};
    cairo_surface_flush(state_->surface.get());
    const unsigned char* const row =
        cairo_image_surface_get_data(state_->surface.get()) +
        static_cast<std::ptrdiff_t>(y) * cairo_image_surface_get_stride(state_->surface.get());
    const std::uint32_t argb = reinterpret_cast<const std::uint32_t*>(row)[x];
    const std::uint32_t alpha = argb >> 24;
    const auto straight = [&](std::uint32_t channel) {
        return alpha == 0 ? std::uint8_t{0} : static_cast<std::uint8_t>((channel * 255 + alpha / 2) / alpha);
    };
    return {straight((argb >> 16) & 255), straight((argb >> 8) & 255), straight(argb & 255),
            static_cast<std::uint8_t>(alpha)};
}

Status Picture::write_png(const std::string& path) const {
    FileWriter file(path);
    return file.finish(cairo_surface_write_to_png_stream(state_->surface.get(), FileWriter::write, &file));
}

Status Picture::write_svg(const DisplayList& list, int width, int height, const Fonts& fonts, const Images* images,
                          const std::string& path) {
    FileWriter file(path);
    Surface surface(cairo_svg_surface_create_for_stream(FileWriter::write, &file, std::clamp(width, 1, largest),
                                                        std::clamp(height, 1, largest)));
    cairo_surface_t* const written = surface.get();
    cairo_svg_surface_set_document_unit(written, CAIRO_SVG_UNIT_PX);
    const std::unique_ptr<Picture::State> state =
        State::on(std::move(surface), fonts, images != nullptr ? images->state_.get() : nullptr);
    for (const DisplayGroup& group : list.groups())
        state->draw(group, group.items());
    state->context.reset();
    cairo_surface_finish(written);
    return file.finish(cairo_surface_status(written));
}

Status write_svg(const DisplayList& list, int width, int height, const Fonts& fonts, const std::string& path,
                 const Images* images) {
    return Picture::write_svg(list, width, height, fonts, images, path);
}

}  // namespace rapido
