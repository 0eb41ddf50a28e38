#include "rapido/layout/camera.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rapido {

Camera::Camera(std::span<const float, 16> view_projection) : is_flat_(false) {
    for (std::size_t i = 0; i < matrix_.size(); ++i)
        matrix_[i] = static_cast<double>(view_projection[i]);
}

Camera::Camera(std::span<const float, 16> projection, std::span<const float, 16> view) : is_flat_(false) {
    for (std::size_t column = 0; column < 4; ++column)
        for (std::size_t row = 0; row < 4; ++row) {
            double sum = 0;
            for (std::size_t k = 0; k < 4; ++k)
                sum += static_cast<double>(projection[k * 4 + row]) * static_cast<double>(view[column * 4 + k]);
            matrix_[column * 4 + row] = sum;
        }
}

Camera Camera::from_matrix(std::span<const double, 16> matrix, bool is_flat) {
    Camera made;
    std::copy(matrix.begin(), matrix.end(), made.matrix_.begin());
    made.is_flat_ = is_flat;
    return made;
}

Camera Camera::flat(const Flat& look) {
    const double angle = look.rotation * std::numbers::pi / 180;
    const double along = std::cos(angle) * look.zoom, across = std::sin(angle) * look.zoom;
    const double up = look.y_up ? -1 : 1;
    Camera camera;
    // Turned back by the angle, after the center was moved to zero.
    camera.matrix_[0] = along;
    camera.matrix_[1] = -across;
    camera.matrix_[4] = across * up;
    camera.matrix_[5] = along * up;
    camera.matrix_[12] = -(camera.matrix_[0] * look.center.x + camera.matrix_[4] * look.center.y);
    camera.matrix_[13] = -(camera.matrix_[1] * look.center.x + camera.matrix_[5] * look.center.y);
    return camera;
}

Camera Camera::isometric(const Isometric& look) {
    const double across = static_cast<double>(look.tile.width) / 2 * look.zoom;
    const double down = static_cast<double>(look.tile.height) / 2 * look.zoom;
    Camera camera;
    auto& m = camera.matrix_;
    m[0] = across;
    m[1] = down;
    m[4] = -across;
    m[5] = down;
    m[9] = -look.step_up * look.zoom;
    const WorldPoint& at = look.center;
    m[12] = -(m[0] * at.x + m[4] * at.y);
    m[13] = -(m[1] * at.x + m[5] * at.y + m[9] * at.z);
    return camera;
}

Projected Camera::project(const WorldPoint& point, Size screen) const {
    const auto& m = matrix_;
    const auto row = [&](std::size_t i) {
        return m[i] * point.x + m[i + 4] * point.y + m[i + 8] * point.z + m[i + 12];
    };
    const double x = row(0), y = row(1), w = is_flat_ ? 1 : row(3);
    Projected projected;
    projected.towards = {0, 1};
    if (!std::isfinite(x) || !std::isfinite(y) || !std::isfinite(w)) return projected;
    projected.distance = w;
    projected.in_front = w > 0;
    const double half_width = static_cast<double>(screen.width) / 2;
    const double half_height = static_cast<double>(screen.height) / 2;
    // From the middle of the screen; of what is behind, not yet divided, so that right stays right.
    // A product may be beyond all numbers.
    const auto limited = [](double number) { return std::clamp(number, -1e307, 1e307); };
    const double right = limited(is_flat_ ? x : x * half_width);
    const double down = limited(is_flat_ ? y : -y * half_height);
    // Further out than any screen is, and a number all the same.
    const auto on_screen = [](double middle, double at) {
        constexpr double farthest = 1e9;
        const double place = middle + at;
        return static_cast<float>(std::isnan(place) ? middle : std::clamp(place, -farthest, farthest));
    };
    if (projected.in_front) projected.at = {on_screen(half_width, right / w), on_screen(half_height, down / w)};
    const double length = std::hypot(right, down);
    if (length > 0) projected.towards = {static_cast<float>(right / length), static_cast<float>(down / length)};
    return projected;
}

}  // namespace rapido
