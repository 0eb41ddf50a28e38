// The adapter for Eigen: what it gives is what plain arrays give.
#include "rapido/eigen.hpp"
#include "support.hpp"

namespace rapido::test {
namespace eigen_test {

TEST(Eigen, gives_its_matrices_to_cameras_and_its_vectors_to_tags) {
    Random random(3);
    for (int i = 0; i < 100; ++i) {
        std::array<float, 16> plain{};
        for (float& each : plain)
            each = static_cast<float>(random.between(-2, 2));
        const Eigen::Matrix4f by_column = Eigen::Map<const Eigen::Matrix4f>(plain.data());
        const Eigen::Matrix<double, 4, 4, Eigen::RowMajor> by_row = by_column.cast<double>();
        EXPECT_EQ(camera_of(by_column), Camera(plain));
        EXPECT_EQ(camera_of(by_row), Camera(plain));
        EXPECT_EQ(camera_of(Eigen::Matrix4f::Identity() * by_column), Camera(plain)) << "an expression";
    }
    const Eigen::Vector3d fire(1, 2, 3);
    const Eigen::Vector2f village(4, 5);
    EXPECT_EQ(watch_position(fire).read(), (WorldPoint{1, 2, 3}));
    EXPECT_EQ(watch_position(village).read(), (WorldPoint{4, 5, 0}));
}

}  // namespace eigen_test
}  // namespace rapido::test
