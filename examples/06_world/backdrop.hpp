// What the HUD of this example is shown over: ground, ridges, fires and houses. A game would draw its own world.
#pragma once

#include <array>
#include <string>
#include <vector>

namespace example {

/// Something that stands on the ground.
struct Spot {
    std::array<float, 3> at{};
    float heat = 0;
    bool is_village = false;
};

/// The product of a perspective and a view from one point to another, 16 floats column by column; y is up.
std::array<float, 16> looking(const std::array<float, 3>& from, const std::array<float, 3>& to, float degrees,
                              float aspect);

void draw_backdrop(const std::string& file, const std::array<float, 16>& matrix, const std::vector<Spot>& spots,
                   int width, int height);

}  // namespace example
