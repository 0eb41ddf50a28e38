#include "draw/blur.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace rapido {
namespace {

/// The width of the boxes for a standard deviation (SVG 1.1, 15.17).
int box_width(float radius) {
    const double deviation = static_cast<double>(radius) / 2;
    return std::max(1, static_cast<int>(std::floor(deviation * 3 * std::sqrt(2 * std::numbers::pi) / 4 + 0.5)));
}

/// Each value becomes the mean of those from `before` steps before it to `after` steps behind it; outside there is nothing.
void box_blur(const std::uint8_t* from, std::uint8_t* to, int count, int before, int after) {
    const int width = before + after + 1;
    // A multiplication in place of a division for every pixel; exact for sums of up to 255 times the width.
    const auto part = static_cast<std::uint64_t>((std::uint64_t{1} << 32U) / static_cast<unsigned>(width) + 1);
    int sum = 0;
    for (int i = 0; i < std::min(after, count); ++i)
        sum += from[i];
    for (int i = 0; i < count; ++i) {
        if (i + after < count) sum += from[i + after];
        if (i - before - 1 >= 0) sum -= from[i - before - 1];
        to[i] = static_cast<std::uint8_t>((static_cast<std::uint64_t>(sum + width / 2) * part) >> 32U);
    }
}

/// Three boxes, which for an even width are half a pixel to either side, and one wider.
void blur_line(std::vector<std::uint8_t>& line, std::vector<std::uint8_t>& other, int count, int width) {
    const int half = width / 2;
    if (width % 2 == 1) {
        box_blur(line.data(), other.data(), count, half, half);
        box_blur(other.data(), line.data(), count, half, half);
        box_blur(line.data(), other.data(), count, half, half);
    } else {
        box_blur(line.data(), other.data(), count, half, half - 1);
        box_blur(other.data(), line.data(), count, half - 1, half);
        box_blur(line.data(), other.data(), count, half, half);
    }
    line.swap(other);
}

}  // namespace

int blur_reach(float radius) {
    return 3 * box_width(radius) / 2 + 2;
}

void blur_opacity(std::uint8_t* pixels, int columns, int rows, std::ptrdiff_t stride, float radius) {
    const int width = box_width(radius);
    if (width <= 1) return;
    std::vector<std::uint8_t> line(static_cast<std::size_t>(std::max(columns, rows)));
    std::vector<std::uint8_t> other = line;
    for (int y = 0; y < rows; ++y) {
        std::uint8_t* const row = pixels + y * stride;
        std::copy_n(row, columns, line.begin());
        blur_line(line, other, columns, width);
        std::copy_n(line.begin(), columns, row);
    }
    for (int x = 0; x < columns; ++x) {
        for (int y = 0; y < rows; ++y)
            line[static_cast<std::size_t>(y)] = pixels[y * stride + x];
        blur_line(line, other, rows, width);
        for (int y = 0; y < rows; ++y)
            pixels[y * stride + x] = line[static_cast<std::size_t>(y)];
    }
}

}  // namespace rapido
