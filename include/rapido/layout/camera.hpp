// From the world of a game to the screen.
#pragma once

#include <array>
#include <span>

#include "rapido/base/exported.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What a camera makes of a point of the world.
struct Projected {
    Point at{};  ///< on a screen, design pixels, y down; without meaning where it is not `in_front`
    double distance =
        0;  ///< along the view, in units of the world; 1 for a parallel projection; negative behind the camera
    bool in_front = false;  ///< false behind the camera, in its plane, and for a point that is not finite
    Point towards{};        ///< the way to it from the middle of the screen, of length 1, also for what is behind
};

/// How a game looks at its world, by values: nothing is followed.
///
/// A three-dimensional one is the product of projection and view, 16 floats column by column: clip = M (x, y, z, 1). A point is in front
/// where the w of clip is above zero, which is its distance; (clip.x, clip.y) / w goes from -1, -1 at the lower left corner of the screen
/// to 1, 1 at the upper right one. Where y points down in clip space, negate the second row.
class Camera {
 public:
    /// One design pixel for each unit of a flat world, whose zero is in the middle of the screen.
    Camera() = default;
    explicit Camera(std::span<const float, 16> view_projection);
    /// The same from both parts, such as the two matrices of OpenGL without shaders: first the view counts, then the projection.
    Camera(std::span<const float, 16> projection, std::span<const float, 16> view);

    /// A flat world, y down: `center` is in the middle of the screen, a unit is `zoom` design pixels, and the camera is turned clockwise by
    /// `rotation` degrees, so that what it sees turns the other way. With `y_up` the y of the world points up.
    struct Flat {
        WorldPoint center{};
        double zoom = 1;
        double rotation = 0;
        bool y_up = false;
    };
    static Camera flat(const Flat& look);

    /// A world of tiles that are seen from a corner: x goes down to the right, y down to the left, z up. `center`, in tiles, is in the middle of the screen; a
    /// tile of 1 by 1 is a diamond of `tile`, and one step up is `step_up` pixels, all by `zoom` design pixels for each pixel.
    struct Isometric {
        WorldPoint center{};
        Size tile{64, 32};
        double step_up = 32;
        double zoom = 1;
    };
    static Camera isometric(const Isometric& look);

    /// The same from a matrix of doubles. With `is_flat` it gives design pixels from the middle of the screen, y down, in place of clip
    /// space.
    static Camera from_matrix(std::span<const double, 16> matrix, bool is_flat = false);
    /// Returns what `from_matrix` makes an equal camera of.
    std::span<const double, 16> matrix() const { return matrix_; }
    bool is_flat() const { return is_flat_; }

    /// Where a point is seen on a screen of a size, whose upper left corner is zero.
    Projected project(const WorldPoint& point, Size screen) const;

    friend RAPIDO_EXPORTED bool operator==(const Camera&, const Camera&);

 private:
    std::array<double, 16> matrix_{1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1};
    bool is_flat_ = true;  ///< the matrix gives design pixels from the middle of the screen, y down
};

}  // namespace rapido
