// Counts flashes in rendered frames as WCAG 2.3.1 defines them, without a line of the library.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <map>
#include <vector>

namespace rapido::test {

/// What one pixel has, in linear light.
struct Seen {
    float red = 0, green = 0, blue = 0;
    float light() const { return 0.2126F * red + 0.7152F * green + 0.0722F * blue; }
    bool is_saturated_red() const { return red > 0 && red >= 0.8F * (red + green + blue); }
};

/// Follows every pixel of a screen that is a part of 1024 by 768 each way, at a fixed number of frames a second. A pair of opposing changes
/// of a pixel is a flash of that pixel; those that overlap in time in a field of ten degrees, and cover more than a quarter of it, are
/// one flash of the field.
class FlashCounter {
 public:
    /// With a positive margin only what is a flash by that much counts, with a negative one also what nearly is one: in light and in part
    /// of the area.
    FlashCounter(int width, int height, int rate, float margin = 0)
        : width_(width), height_(height), rate_(rate), margin_(margin) {}

    /// 0xAARRGGBB, row by row, `stride` of them from one row to the next.
    void see(const std::uint32_t* pixels, std::size_t stride) {
        const bool is_first = pixels_.empty();
        if (is_first) pixels_.resize(static_cast<std::size_t>(width_) * static_cast<std::size_t>(height_));
        const auto width = static_cast<std::size_t>(width_);
        last_.resize(pixels_.size());
        for (int y = 0; y < height_; ++y) {
            std::size_t at = static_cast<std::size_t>(y) * width;
            const std::uint32_t* const row = pixels + static_cast<std::size_t>(y) * stride;
            if (!is_first && std::equal(row, row + width, &last_[at])) continue;
            std::copy(row, row + width, &last_[at]);
            for (int x = 0; x < width_; ++x, ++at) {
                const auto channel = [&](int shift) { return static_cast<std::uint8_t>(row[x] >> shift & 0xff); };
                const std::array<std::uint8_t, 3> channels{channel(16), channel(8), channel(0)};
                Pixel& own = pixels_[at];
                if (!is_first && channels == own.channels) continue;
                own.channels = channels;
                const Seen now{linear(channels[0]), linear(channels[1]), linear(channels[2])};
                if (is_first) {
                    own.low = own.high = now.light();
                    own.red_from = now;
                    continue;
                }
                if (const int begin = own.see_light(now.light(), frame_, margin_); begin >= 0)
                    note(general_, x, y, begin);
                if (const int begin = own.see_red(now, frame_, margin_); begin >= 0) note(red_, x, y, begin);
            }
        }
        ++frame_;
    }

    /// The most flashes in any second of any field.
    int most() const {
        const double unit = static_cast<double>(width_) * height_ / (1024.0 * 768);
        const double least = 21'824 * unit * (1 + 10 * static_cast<double>(margin_));
        const int wide = 341 * width_ / 1024 / cell, high = 256 * height_ / 768 / cell;
        int most = 0;
        for (const Pairs* const kind : {&general_, &red_}) {
            const Sums sums = sums_of(*kind);
            for (int y = 0; y + high <= rows(); ++y)
                for (int x = 0; x + wide <= columns(); ++x)
                    most = std::max(most, most_in(sums, x, y, wide, high, least));
        }
        return most;
    }

 private:
    using Pairs = std::map<std::pair<int, int>, std::vector<int>>;  ///< pixels by cell, by first and last frame
    static constexpr int cell = 8;                                  ///< pixels: fields begin at multiples of it
    struct Pixel {
        std::array<std::uint8_t, 3> channels{};
        float low = 0, high = 0;
        int way = 0, last = 0, first = 0;
        Seen red_from;
        int red_first = -1;

        static bool is_change(float from, float to, float margin) {
            return std::abs(from - to) >= 0.1F + margin && std::min(from, to) < 0.8F - margin;
        }
        /// The frame of the first change of a pair that is complete now, or -1.
        int see_light(float light, int frame, float margin) {
            const float from_low = low, from_high = high;
            low = std::min(low, light);
            high = std::max(high, light);
            const bool rises = light > from_low && is_change(from_low, light, margin);
            const bool falls = light < from_high && is_change(from_high, light, margin);
            if (way == 0) {
                // A fall that goes on after a flash is still its fall.
                if (rises && last != 1)
                    way = 1, first = frame, high = light;
                else if (falls && last != -1)
                    way = -1, first = frame, low = light;
                return -1;
            }
            if (way == 1 ? !falls : !rises) return -1;
            last = -way;
            way = 0;
            low = high = light;
            return first;
        }
        int see_red(const Seen& now, int frame, float margin) {
            const bool is_red = now.is_saturated_red() || red_from.is_saturated_red();
            if (!is_red || distance(now, red_from) <= 0.2F + margin) return -1;
            red_from = now;
            if (red_first < 0) {
                red_first = frame;
                return -1;
            }
            const int begin = red_first;
            red_first = -1;
            return begin;
        }
    };
    static float linear(std::uint8_t channel) {
        static const std::array<float, 256> table = [] {
            std::array<float, 256> made{};
            for (std::size_t i = 0; i < 256; ++i) {
                const double c = static_cast<double>(i) / 255;
                made[i] = static_cast<float>(c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4));
            }
            return made;
        }();
        return table[channel];
    }
    /// In the CIE 1976 u'v' diagram; black has no place in it.
    static float distance(const Seen& a, const Seen& b) {
        const auto place = [](const Seen& c) {
            const float x = 0.4124F * c.red + 0.3576F * c.green + 0.1805F * c.blue;
            const float y = c.light(), z = 0.0193F * c.red + 0.1192F * c.green + 0.9505F * c.blue;
            const float sum = x + 15 * y + 3 * z;
            return std::array<float, 3>{sum > 0 ? 4 * x / sum : 0, sum > 0 ? 9 * y / sum : 0, sum};
        };
        const auto from = place(a), to = place(b);
        return from[2] > 0 && to[2] > 0 ? std::hypot(from[0] - to[0], from[1] - to[1]) : 0;
    }

    int columns() const { return width_ / cell; }
    int rows() const { return height_ / cell; }
    void note(Pairs& pairs, int x, int y, int begin) {
        std::vector<int>& cells = pairs[{begin, frame_}];
        if (cells.empty()) cells.resize(static_cast<std::size_t>(columns()) * static_cast<std::size_t>(rows()));
        if (x / cell < columns() && y / cell < rows())
            ++cells[static_cast<std::size_t>(y / cell) * static_cast<std::size_t>(columns()) +
                    static_cast<std::size_t>(x / cell)];
    }
    /// For each pair how many pixels are above and to the left of a corner of a cell.
    struct Sum {
        int begin, end;
        std::vector<int> until;
    };
    using Sums = std::vector<Sum>;
    std::size_t corner(int x, int y) const {
        return static_cast<std::size_t>(y) * static_cast<std::size_t>(columns() + 1) + static_cast<std::size_t>(x);
    }
    Sums sums_of(const Pairs& pairs) const {
        Sums all;
        for (const auto& [when, cells] : pairs) {
            Sum sum{when.first, when.second, std::vector<int>(corner(0, rows() + 1))};
            for (int y = 0; y < rows(); ++y)
                for (int x = 0; x < columns(); ++x)
                    sum.until[corner(x + 1, y + 1)] =
                        cells[static_cast<std::size_t>(y) * static_cast<std::size_t>(columns()) +
                              static_cast<std::size_t>(x)] +
                        sum.until[corner(x, y + 1)] + sum.until[corner(x + 1, y)] - sum.until[corner(x, y)];
            all.push_back(std::move(sum));
        }
        return all;
    }
    int most_in(const Sums& pairs, int left, int top, int wide, int high, double least) const {
        struct Part {
            int begin, end;
            double area;
        };
        std::vector<Part> parts;
        for (const Sum& sum : pairs) {
            const int area = sum.until[corner(left + wide, top + high)] - sum.until[corner(left, top + high)] -
                             sum.until[corner(left + wide, top)] + sum.until[corner(left, top)];
            if (area > 0) parts.push_back({sum.begin, sum.end, static_cast<double>(area)});
        }
        struct Flash {
            int begin, end;  ///< when the first change is complete, and when enough of the second one is
        };
        std::vector<Flash> flashes;
        int behind = -1000;
        for (const Part& one : parts) {
            double sum = 0;
            std::vector<Part> together;
            for (const Part& other : parts)
                // What ends in the frame in which another begins is hardly seen together with it.
                if (other.begin > behind && other.begin <= one.begin && one.begin < other.end + (margin_ > 0 ? 0 : 1)) {
                    sum += other.area;
                    together.push_back(other);
                }
            if (one.begin <= behind || sum <= least) continue;
            std::sort(together.begin(), together.end(), [](const Part& a, const Part& b) { return a.end < b.end; });
            double complete = 0;
            std::size_t last = 0;
            while ((complete += together[last].area) <= least)
                ++last;
            flashes.push_back({one.begin, together[last].end});
            behind = one.begin + rate_ / 30;
        }
        const int second = rate_ - 1 + (margin_ > 0 ? -rate_ / 15 : margin_ < 0 ? rate_ / 15 : 0);
        int most = 0;
        // A frame is the nearest to a moment, and a field that sees a part of a flash sees it a little later: a second is some frames
        // more or less. A pair is within a second if both of its changes are; what nearly is one, if the first is.
        for (const Flash& first : flashes)
            most = std::max(most, static_cast<int>(std::count_if(flashes.begin(), flashes.end(), [&](const Flash& one) {
                                const int at = margin_ < 0 ? one.begin : std::max(one.begin, one.end);
                                return one.begin >= first.begin && at - first.begin < second;
                            })));
        return most;
    }

    int width_, height_, rate_;
    float margin_;
    int frame_ = 0;
    std::vector<Pixel> pixels_;
    std::vector<std::uint32_t> last_;  ///< the frame before
    Pairs general_, red_;
};

}  // namespace rapido::test
