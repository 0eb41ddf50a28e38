// Takes the matrices of Eigen. Its vectors need nothing: `watch_position` takes them as they are.
#pragma once

#include <Eigen/Core>

#include <array>

#include "rapido/base/exported.hpp"
#include "rapido/layout/camera.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Returns the camera of a product of projection and view, a matrix of 4 by 4 floats or doubles, in whatever order Eigen stores it, or an
/// expression that gives one: `hud.set_camera(rapido::camera_of(projection * view))`.
template <class Derived>
Camera camera_of(const Eigen::MatrixBase<Derived>& view_projection) {
    static_assert(Derived::RowsAtCompileTime == 4 && Derived::ColsAtCompileTime == 4,
                  "rapido::camera_of takes a matrix of 4 by 4 numbers");
    const Eigen::Matrix4d matrix = view_projection.template cast<double>();
    std::array<double, 16> columns{};
    for (Eigen::Index column = 0; column < 4; ++column)
        for (Eigen::Index row = 0; row < 4; ++row)
            columns[static_cast<std::size_t>(column * 4 + row)] = matrix(row, column);
    return Camera::from_matrix(columns);
}

}  // namespace rapido
