#include "tool/plot.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <ostream>

#include "rapido/picture.hpp"
#include "tool/report.hpp"

namespace rapido::tool {
namespace {

constexpr Color paper = rgb(0x10161c);
constexpr Color ink = rgb(0xf2efe6);
constexpr Color faint_ink = rgb(0xf2efe6, 0.62);
constexpr Color grid = rgb(0xf2efe6, 0.12);
constexpr Color truth_color = rgb(0xf2efe6, 0.4);
constexpr Color target_color = rgb(0xffc24a);
constexpr Color shown_color = rgb(0x38b6c9);
constexpr Color trail_color = rgb(0xff7a3c);

/// What was seen of the element in one frame.
struct Sample {
    double time = 0;
    double truth = NAN;
    double target = NAN;
    double shown = NAN;
    double trail = NAN;  ///< in units of the value
    std::string text;
};

/// The distance of even ticks, at most so many: 1, 2 or 5 times a power of ten.
double tick_distance(double span, int most) {
    const double least = span / most;
    const double power = std::pow(10.0, std::floor(std::log10(least)));
    for (const double factor : {1.0, 2.0, 5.0})
        if (factor * power >= least * (1 - 1e-9)) return factor * power;
    return 10 * power;
}

std::string plain_number(double number, double distance) {
    const int places = std::max(0, static_cast<int>(-std::floor(std::log10(distance) + 1e-9)));
    std::array<char, 64> buffer;
    std::snprintf(buffer.data(), buffer.size(), "%.*f", std::min(places, 9), number == 0 ? 0.0 : number);
    return buffer.data();
}

class Plotter {
 public:
    Plotter(const PlotOptions& options, std::ostream& err)
        : options_(options), err_(err), replay_(options.replay) {}

    Exit run() {
        if (!options_.png.ends_with(".png")) {
            err_ << "error: -o " << options_.png << ": a plot is written as .png\n";
            return Exit::usage;
        }
        if (const Problems problems = replay_.open(); !problems.empty()) return report(problems);
        const double first = to_seconds(replay_.first()).count();
        const double last = to_seconds(replay_.last()).count();
        from_ = options_.from.value_or(first);
        to_ = options_.to.value_or(last);
        if (!(from_ >= first && from_ < to_ && to_ <= last)) {
            err_ << "error: --from and --to must lie in order inside the trace, which goes from "
                 << seconds_text(replay_.first()) << " to " << seconds_text(replay_.last()) << '\n';
            return Exit::usage;
        }
        element_ = replay_.hud().find(options_.of);
        if (!element_) return report(replay_.hud().problems());
        replay_.run({to_nanoseconds(Seconds{from_}), to_nanoseconds(Seconds{to_})},
                    [this](const Frame& frame) {
                        sample(frame);
                        return Exit::fine;
                    });
        const bool has_numbers = std::any_of(samples_.begin(), samples_.end(), [](const Sample& sample) {
            return std::isfinite(sample.truth) || std::isfinite(sample.shown);
        });
        if (!has_numbers)
            return report(
                {{{options_.replay.hud}, "'" + options_.of + "' shows no number in this time", ""}});
        return draw();
    }

 private:
    Exit report(const Problems& problems) {
        print_problems(problems, err_);
        return Exit::problems;
    }

    void sample(const Frame& frame) {
        const double time = to_seconds(frame.time).count();
        if (time < from_ || time > to_) return;
        const Shown shown = replay_.hud()[element_];
        name_ = shown.id;
        kind_ = shown.kind;
        Sample made{.time = time,
                    .truth = shown.truth.number(),
                    .target = shown.target.number(),
                    .shown = shown.shown.number(),
                    .text = std::string(shown.text)};
        if (shown.fill && shown.trail && *shown.trail > *shown.fill && *shown.fill > 0)
            made.trail = made.shown * *shown.trail / *shown.fill;
        if (shown.fill) made.text = plain_number(*shown.fill * 100, 1) + "%";
        samples_.push_back(std::move(made));
    }

    Exit draw() {
        const auto width = static_cast<float>(options_.replay.width);
        const auto height = static_cast<float>(options_.replay.height);
        area_ = {96, 104, std::max(1.0F, width - 96 - 40), std::max(1.0F, height - 104 - 132)};
        find_range();
        group_.begin();
        draw_grid();
        draw_lines();
        draw_texts();
        draw_titles();
        Picture picture(options_.replay.width, options_.replay.height, replay_.fonts());
        if (!picture.status()) return report({picture.status().problem()});
        picture.fill(paper);
        picture.draw(group_);
        if (const Status written = picture.write_png(options_.png); !written)
            return report({written.problem()});
        err_ << "wrote " << options_.png << '\n';
        return Exit::fine;
    }

    /// From the smallest to the largest of all that is drawn, with some air.
    void find_range() {
        low_ = std::numeric_limits<double>::infinity();
        high_ = -low_;
        for (const Sample& sample : samples_) {
            for (const double number : {sample.truth, sample.target, sample.shown, sample.trail}) {
                if (!std::isfinite(number)) continue;
                low_ = std::min(low_, number);
                high_ = std::max(high_, number);
            }
        }
        const double air = high_ > low_ ? (high_ - low_) * 0.06 : std::max(1.0, std::abs(high_) * 0.1);
        low_ -= air;
        high_ += air;
    }

    float x_of(double time) const {
        return area_.x + area_.width * static_cast<float>((time - from_) / (to_ - from_));
    }
    float y_of(double number) const {
        return area_.bottom() - area_.height * static_cast<float>((number - low_) / (high_ - low_));
    }

    void draw_grid() {
        const double step = tick_distance(high_ - low_, 8);
        for (double tick = std::ceil(low_ / step) * step; tick <= high_; tick += step) {
            const float y = std::round(y_of(tick));
            line({{area_.x, y}, {area_.right(), y}}, 1, grid);
            write(plain_number(tick, step), {area_.x - 12, y + 5}, 1, 15, 400, faint_ink);
        }
        const double seconds = tick_distance(to_ - from_, 12);
        for (double tick = std::ceil(from_ / seconds) * seconds; tick <= to_ + 1e-9; tick += seconds) {
            const float x = std::round(x_of(tick));
            line({{x, area_.y}, {x, area_.bottom()}}, 1, grid);
            write(plain_number(tick, seconds) + " s", {x, area_.bottom() + 26}, 0.5F, 15, 400, faint_ink);
        }
    }

    /// True and target hold until the next frame; shown and trail are where they are.
    void draw_lines() {
        draw_line(&Sample::trail, false, 2.5F, trail_color);
        // Wide and pale, so that it is seen under the others where they are the same.
        draw_line(&Sample::truth, true, 7, truth_color);
        draw_line(&Sample::target, true, 2, target_color);
        draw_line(&Sample::shown, false, 3.5F, shown_color);
    }

    void draw_line(double Sample::*member, bool holds, float thickness, Color color) {
        std::vector<Point> points;
        const auto flush = [&] {
            if (points.size() > 1) line(points, thickness, color);
            points.clear();
        };
        for (const Sample& sample : samples_) {
            const double number = sample.*member;
            if (!std::isfinite(number)) {
                flush();
                continue;
            }
            const Point at{x_of(sample.time), y_of(number)};
            if (holds && !points.empty() && points.back().y != at.y)
                points.push_back({at.x, points.back().y});
            // Along a level only its ends count.
            const std::size_t count = points.size();
            if (count > 1 && points[count - 1].y == at.y && points[count - 2].y == at.y)
                points.back() = at;
            else
                points.push_back(at);
        }
        flush();
    }

    /// What could be read, at even moments; as many as fit.
    void draw_texts() {
        const float y = area_.bottom() + 80;
        write(kind_ == "bar" ? "FILL" : "TEXT", {area_.x - 12, y}, 1, 13, 600, faint_ink);
        float widest = 0;
        for (const Sample& sample : samples_)
            widest = std::max(widest, measure(sample.text, 17, 500));
        const int count = std::clamp(static_cast<int>(area_.width / (widest + 28)), 1, 16);
        std::size_t next = 0;
        for (int i = 0; i < count; ++i) {
            const double time = from_ + (to_ - from_) * (i + 0.5) / count;
            while (next + 1 < samples_.size() && samples_[next + 1].time <= time)
                ++next;
            const float x = x_of(time);
            line({{x, area_.bottom() + 42}, {x, area_.bottom() + 52}}, 1.5F, faint_ink);
            write(samples_[next].text, {x, y}, 0.5F, 17, 500, ink);
        }
        line({{area_.x, area_.bottom() + 42}, {area_.right(), area_.bottom() + 42}}, 1.5F, grid);
    }

    void draw_titles() {
        write(name_, {area_.x, 48}, 0, 28, 700, ink);
        write(kind_ + " of " + options_.replay.hud, {area_.x, 76}, 0, 15, 400, faint_ink);
        const bool has_trail = std::any_of(samples_.begin(), samples_.end(),
                                           [](const Sample& sample) { return std::isfinite(sample.trail); });
        float x = area_.right();
        const auto legend = [&](const char* word, Color color) {
            x -= measure(word, 15, 500);
            write(word, {x, 48}, 0, 15, 500, ink);
            line({{x - 34, 43}, {x - 10, 43}}, 4, color);
            x -= 62;
        };
        if (has_trail) legend("trail", trail_color);
        legend("shown", shown_color);
        legend("target", target_color);
        legend("true", truth_color);
    }

    void line(const std::vector<Point>& points, float thickness, Color color) {
        group_.add_line(points, thickness, color);
    }

    FontId font_of(int weight) {
        Fonts& fonts = replay_.fonts();
        if (const auto font = fonts.find("Inter", weight)) return *font;
        return fonts.find("sans-serif", weight).value_or(0);
    }

    float measure(std::string_view text, float size, int weight) {
        return replay_.fonts().shape(font_of(weight), size, text, glyphs_);
    }

    /// `part` of its width stands left of the point.
    void write(std::string_view text, Point at, float part, float size, int weight, Color color) {
        const float width = measure(text, size, weight);
        group_.add_text(font_of(weight), size, {at.x - width * part, at.y}, width, color, text, glyphs_, 1);
    }

    const PlotOptions& options_;
    std::ostream& err_;
    Replay replay_;
    double from_ = 0, to_ = 0;
    double low_ = 0, high_ = 1;
    ElementRef element_;
    std::string name_, kind_;
    std::vector<Sample> samples_;
    Rect area_;
    DrawGroup group_;
    std::vector<Glyph> glyphs_;
};

}  // namespace

Exit plot(const PlotOptions& options, std::ostream& err) {
    return Plotter(options, err).run();
}

}  // namespace rapido::tool
