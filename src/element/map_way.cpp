#include "element/map_way.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace rapido {

MapWay::MapWay(ImageId map, const ImageFinder& images) {
    for (int step = 0; step <= steps; ++step)
        points_[static_cast<std::size_t>(step)] = {static_cast<float>(step) / steps, 0.5F};
    const std::vector<std::uint8_t> pixels = images.pixels(map);
    const Size size = images.size(map);
    const auto width = static_cast<std::size_t>(size.width), height = static_cast<std::size_t>(size.height);
    if (width == 0 || pixels.size() < width * height * 4) return;
    struct Sum {
        double x = 0, y = 0, weight = 0;
    };
    std::array<Sum, steps + 1> sums{};
    for (std::size_t i = 0; i < width * height; ++i) {
        const std::uint8_t* const pixel = &pixels[i * 4];
        const double alpha = pixel[3];
        if (alpha <= 0) continue;
        // Between two steps it counts for both, the more the nearer.
        const double gray = std::min((pixel[0] + pixel[1] + pixel[2]) / (3 * alpha), 1.0) * steps;
        const auto below = std::min(static_cast<std::size_t>(gray), std::size_t{steps - 1});
        const double part = gray - static_cast<double>(below);
        const double x = (static_cast<double>(i % width) + 0.5) / static_cast<double>(width);
        const double y = (static_cast<double>(i / width) + 0.5) / static_cast<double>(height);
        for (const auto& [step, weight] : {std::pair(below, (1 - part) * alpha), std::pair(below + 1, part * alpha)}) {
            sums[step].x += weight * x;
            sums[step].y += weight * y;
            sums[step].weight += weight;
        }
    }
    const auto has_any = [](const Sum& sum) { return sum.weight > 0; };
    if (std::none_of(sums.begin(), sums.end(), has_any)) return;
    // Where no pixel is reached, the way goes on straight to the next one that is.
    for (std::size_t step = 0; step <= steps; ++step) {
        auto after = std::find_if(sums.begin() + static_cast<std::ptrdiff_t>(step), sums.end(), has_any);
        auto before = std::find_if(sums.rend() - static_cast<std::ptrdiff_t>(step) - 1, sums.rend(), has_any);
        const Sum& last = before != sums.rend() ? *before : *after;
        const Sum& next = after != sums.end() ? *after : *before;
        const auto from = static_cast<double>(&last - sums.data()), to = static_cast<double>(&next - sums.data());
        const double part = to > from ? (static_cast<double>(step) - from) / (to - from) : 0;
        const auto between = [part](double a, double b) { return static_cast<float>(a + part * (b - a)); };
        points_[step] = {between(last.x / last.weight, next.x / next.weight),
                         between(last.y / last.weight, next.y / next.weight)};
    }
}

MapWay::Place MapWay::at(double fill, Size size) const {
    const double at = std::clamp(fill, 0.0, 1.0) * steps;
    const auto below = std::min(static_cast<std::size_t>(at), std::size_t{steps - 1});
    const auto part = static_cast<float>(at - static_cast<double>(below));
    const Point a = points_[below], b = points_[below + 1];
    // Over some steps, as the middles of pixels lie on a grid.
    const Point first = points_[below < 2 ? 0 : below - 2], last = points_[std::min(below + 3, std::size_t{steps})];
    const float across = (last.x - first.x) * size.width, down = (last.y - first.y) * size.height;
    return {{a.x + part * (b.x - a.x), a.y + part * (b.y - a.y)},
            std::atan2(down, across) * 180 / std::numbers::pi_v<float>};
}

}  // namespace rapido
