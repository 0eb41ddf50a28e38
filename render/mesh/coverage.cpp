#include "render/mesh/coverage.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rapido {
namespace {

constexpr float unit = 64;  ///< of FreeType, to a pixel
/// What FreeType can count in its 16 bits.
constexpr std::size_t most_points = 32'000;

FT_Pos position(float length) {
    return static_cast<FT_Pos>(std::lround(std::clamp(length, -30'000.0F, 30'000.0F) * unit));
}

}  // namespace

Rasterizer::Rasterizer() {
    if (FT_Init_FreeType(&library_) == 0) FT_Stroker_New(library_, &stroker_);
}

Rasterizer::~Rasterizer() {
    if (stroker_ != nullptr) FT_Stroker_Done(stroker_);
    if (library_ != nullptr) FT_Done_FreeType(library_);
}

void Rasterizer::begin(Point origin, float scale) {
    origin_ = origin;
    scale_ = scale;
    widening_ = 0;
    points_.clear();
    tags_.clear();
    ends_.clear();
}

void Rasterizer::add_point(Point point, char tag) {
    if (points_.size() >= most_points) return;
    points_.push_back({position((point.x - origin_.x) * scale_), position((point.y - origin_.y) * scale_)});
    tags_.push_back(static_cast<decltype(tags_)::value_type>(tag));
}

/// All outlines go the same way round, so that overlaps are inside once, and holes the other way.
void Rasterizer::end_contour(bool turns_back) {
    const std::size_t first = ends_.empty() ? 0 : static_cast<std::size_t>(ends_.back()) + 1;
    if (points_.size() < first + 3) {
        points_.resize(first);
        tags_.resize(first);
        return;
    }
    std::int64_t area = 0;
    for (std::size_t i = first; i < points_.size(); ++i) {
        const FT_Vector a = points_[i], b = points_[i + 1 < points_.size() ? i + 1 : first];
        area += static_cast<std::int64_t>(a.x) * b.y - static_cast<std::int64_t>(b.x) * a.y;
    }
    if ((area < 0) != turns_back) {
        std::reverse(points_.begin() + static_cast<std::ptrdiff_t>(first), points_.end());
        std::reverse(tags_.begin() + static_cast<std::ptrdiff_t>(first), tags_.end());
    }
    ends_.push_back(static_cast<decltype(ends_)::value_type>(points_.size() - 1));
}

void Rasterizer::add(std::span<const Point> points, bool as_hole) {
    for (const Point& point : points)
        add_point(point);
    end_contour(as_hole);
}

void Rasterizer::add_rounded(const Rect& rect, float given_radius, bool as_hole) {
    if (rect.width <= 0 || rect.height <= 0) return;
    const float radius = std::clamp(given_radius, 0.0F, std::min(rect.width, rect.height) / 2);
    if (radius <= 0) {
        const Point corners[]{
            {rect.x, rect.y}, {rect.right(), rect.y}, {rect.right(), rect.bottom()}, {rect.x, rect.bottom()}};
        return add(corners, as_hole);
    }
    // Four quarters of a circle as cubic curves.
    constexpr float bend = 0.5522847F;
    const auto quarter = [&](Point middle, float x, float y) {
        const bool is_first = (x < 0) == (y < 0);
        const Point along{middle.x + radius * (is_first ? x : 0), middle.y + radius * (is_first ? 0 : y)};
        const Point across{middle.x + radius * (is_first ? 0 : x), middle.y + radius * (is_first ? y : 0)};
        const auto between = [&](Point from, Point other) {
            return Point{from.x + bend * (other.x - middle.x), from.y + bend * (other.y - middle.y)};
        };
        add_point(along);
        add_point(between(along, across), 2);
        add_point(between(across, along), 2);
        add_point(across);
    };
    quarter({rect.x + radius, rect.y + radius}, -1, -1);
    quarter({rect.right() - radius, rect.y + radius}, 1, -1);
    quarter({rect.right() - radius, rect.bottom() - radius}, 1, 1);
    quarter({rect.x + radius, rect.bottom() - radius}, -1, 1);
    end_contour(as_hole);
}

void Rasterizer::line(std::span<const Point> points, float thickness) {
    const float half = thickness / 2;
    const auto circle = [&](Point middle) {
        const int steps = std::clamp(static_cast<int>(std::ceil(5 * std::sqrt(half * scale_))), 8, 64);
        for (int i = 0; i < steps; ++i) {
            const float angle = 2 * std::numbers::pi_v<float> * static_cast<float>(i) / static_cast<float>(steps);
            add_point({middle.x + half * std::cos(angle), middle.y + half * std::sin(angle)});
        }
        end_contour(false);
    };
    if (points.empty()) return;
    // What lies over itself covers its soft edges twice: a line that comes back to its beginning has no ends.
    const bool is_closed = points.size() > 2 && points.front() == points.back();
    if (!is_closed) circle(points.front());
    Point first_way{}, last_way{};
    for (std::size_t i = 1; i < points.size(); ++i) {
        const Point from = points[i - 1], to = points[i];
        const float length = std::hypot(to.x - from.x, to.y - from.y);
        if (!(length > 0)) continue;
        const Point way{(to.x - from.x) / length, (to.y - from.y) / length};
        const float across_x = -way.y * half, across_y = way.x * half;
        const Point sides[]{{from.x + across_x, from.y + across_y},
                            {to.x + across_x, to.y + across_y},
                            {to.x - across_x, to.y - across_y},
                            {from.x - across_x, from.y - across_y}};
        add(sides);
        // Where it hardly turns, what a round corner adds is not seen.
        const bool turns = way.x * last_way.x + way.y * last_way.y < 0.99F;
        const bool is_first = last_way == Point{};
        if (!is_first && turns) circle(from);
        if (is_first) first_way = way;
        last_way = way;
    }
    const bool turns_at_end = first_way.x * last_way.x + first_way.y * last_way.y < 0.99F;
    if (points.size() > 1 && (!is_closed || turns_at_end)) circle(points.back());
}

bool Rasterizer::add_glyph(FT_Face face, std::uint32_t glyph, Point at, float size, float stretch) {
    // In units of the font: its size, which others may have set, does not change.
    if (face == nullptr ||
        FT_Load_Glyph(face, glyph, FT_LOAD_NO_SCALE | FT_LOAD_NO_BITMAP | FT_LOAD_IGNORE_TRANSFORM) != 0)
        return false;
    const FT_Outline& outline = face->glyph->outline;
    if (face->glyph->format != FT_GLYPH_FORMAT_OUTLINE || outline.n_points == 0 || face->units_per_EM == 0)
        return false;
    const std::size_t first = points_.size();
    const auto count = static_cast<std::size_t>(outline.n_points);
    if (first + count > most_points) return false;
    const float scale = size / static_cast<float>(face->units_per_EM);
    for (std::size_t i = 0; i < count; ++i)
        add_point({at.x + static_cast<float>(outline.points[i].x) * scale,
                   at.y - static_cast<float>(outline.points[i].y) * scale * stretch},
                  static_cast<char>(outline.tags[i]));
    for (int i = 0; i < outline.n_contours; ++i)
        ends_.push_back(
            static_cast<decltype(ends_)::value_type>(static_cast<std::size_t>(outline.contours[i]) + first));
    return true;
}

void Rasterizer::fill(Coverage& into) {
    if (points_.empty() || library_ == nullptr || into.width <= 0 || into.height <= 0) return;
    FT_Outline outline{};
    outline.n_points = static_cast<decltype(outline.n_points)>(points_.size());
    outline.n_contours = static_cast<decltype(outline.n_contours)>(ends_.size());
    outline.points = points_.data();
    outline.tags = tags_.data();
    outline.contours = ends_.data();
    fill(outline, into);
    if (!(widening_ > 0) || stroker_ == nullptr) return;
    // The line around it, and where either of both is, it is.
    FT_Stroker_Set(stroker_, position(widening_ * scale_), FT_STROKER_LINECAP_ROUND, FT_STROKER_LINEJOIN_ROUND, 0);
    if (FT_Stroker_ParseOutline(stroker_, &outline, 0) != 0) return;
    FT_UInt point_count = 0, contour_count = 0;
    if (FT_Stroker_GetCounts(stroker_, &point_count, &contour_count) != 0) return;
    FT_Outline line{};
    if (FT_Outline_New(library_, point_count, static_cast<FT_Int>(contour_count), &line) != 0) return;
    line.n_points = line.n_contours = 0;
    FT_Stroker_Export(stroker_, &line);
    other_ = into.bytes;
    std::fill(into.bytes.begin(), into.bytes.end(), std::uint8_t{0});
    fill(line, into);
    for (std::size_t i = 0; i < other_.size(); ++i)
        into.bytes[i] = std::max(into.bytes[i], other_[i]);
    FT_Outline_Done(library_, &line);
}

void Rasterizer::fill(FT_Outline& outline, Coverage& into) {
    FT_Bitmap bitmap{};
    bitmap.rows = static_cast<unsigned>(into.height);
    bitmap.width = static_cast<unsigned>(into.width);
    // Upwards in memory, so that y points down.
    bitmap.pitch = -into.width;
    bitmap.buffer = into.bytes.data();
    bitmap.num_grays = 256;
    bitmap.pixel_mode = FT_PIXEL_MODE_GRAY;
    FT_Outline_Get_Bitmap(library_, &outline, &bitmap);
}

}  // namespace rapido
