#include "tool/plot.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <ostream>

#include "rapido/debug.hpp"
#include "rapido/picture.hpp"
#include "tool/palette.hpp"
#include "tool/report.hpp"
#include "tool/whole_file.hpp"

namespace rapido::tool {
namespace {

constexpr Color paper = rgb(0x10161c);
constexpr Color grid = rgb(0xf2efe6, 0.12);
constexpr Color truth_color = rgb(0xf2efe6, 0.4);
constexpr Color target_color = amber, shown_color = teal, trail_color = ember;

constexpr std::array effect_colors{rgb(0x8fce5a), rgb(0xffc24a), rgb(0xff7a3c), rgb(0x38b6c9)};

/// What was seen of an element in one frame.
struct Sample {
    double time = 0;
    double truth = NAN;
    double target = NAN;
    double shown = NAN;
    double trail = NAN;  ///< in units of the value
    std::string text;
};

/// An effect from when it was first seen to when it was last.
struct EffectRun {
    std::string name;
    double from = 0, to = 0;
    bool goes_on = true;
    std::size_t lane = 0;
};

/// One element, and where it is drawn.
struct Plotted {
    ElementRef element;
    std::string name, kind;
    std::vector<Sample> samples;
    std::vector<EffectRun> effects;
    std::size_t lanes = 0;  ///< of effects that run at once
    double low = 0, high = 1;
    Rect area;
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
    Plotter(const PlotOptions& options, std::ostream& err) : options_(options), err_(err), replay_(options.replay) {}

    Exit run() {
        if (!options_.png.ends_with(".png")) {
            err_ << "error: --png " << options_.png << ": a plot is written as .png\n";
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
        for (const std::string& of : options_.of) {
            const ElementRef element = replay_.hud().find(of);
            if (!element) return report(replay_.hud().problems());
            Plotted& one = plotted_.emplace_back();
            one.element = element;
            one.name = of;
        }
        replay_.run({to_nanoseconds(Seconds{from_}), to_nanoseconds(Seconds{to_})}, [this](const Frame& frame) {
            sample(frame);
            return Exit::fine;
        });
        for (const Plotted& one : plotted_) {
            const bool has_numbers = std::any_of(one.samples.begin(), one.samples.end(), [](const Sample& sample) {
                return std::isfinite(sample.truth) || std::isfinite(sample.shown);
            });
            if (!has_numbers)
                return report({{{options_.replay.hud}, "'" + one.name + "' shows no number in this time", ""}});
        }
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
        for (Plotted& one : plotted_)
            sample(one, time);
    }

    void sample(Plotted& one, double time) {
        const Shown shown = replay_.hud()[one.element];
        one.name = shown.id;
        one.kind = shown.kind;
        Sample made{.time = time,
                    .truth = shown.truth.number(),
                    .target = shown.target.number(),
                    .shown = shown.shown.number(),
                    .text = std::string(shown.text)};
        if (shown.fill && shown.trail && *shown.trail > *shown.fill && *shown.fill > 0)
            made.trail = made.shown * *shown.trail / *shown.fill;
        if (shown.fill) made.text = plain_number(*shown.fill * 100, 1) + "%";
        one.samples.push_back(std::move(made));

        const std::vector<std::string> running = rapido::explain(replay_.hud(), one.element).effects;
        for (EffectRun& run : one.effects)
            run.goes_on = run.goes_on && std::find(running.begin(), running.end(), run.name) != running.end();
        for (const std::string& name : running) {
            const auto known = std::find_if(one.effects.begin(), one.effects.end(),
                                            [&](const EffectRun& run) { return run.goes_on && run.name == name; });
            if (known != one.effects.end()) {
                known->to = time;
                continue;
            }
            std::size_t lane = 0;
            while (std::any_of(one.effects.begin(), one.effects.end(),
                               [&](const EffectRun& run) { return run.goes_on && run.lane == lane; }))
                ++lane;
            one.lanes = std::max(one.lanes, lane + 1);
            one.effects.push_back({.name = name, .from = time, .to = time, .lane = lane});
        }
    }

    Exit draw() {
        const auto width = static_cast<float>(options_.replay.width);
        const auto height = static_cast<float>(options_.replay.height);
        // Below the lines of each element stand the effects on it and what could be read; the time stands below the last.
        const auto count = static_cast<float>(plotted_.size());
        const float titles = 104, below_all = 40, below_each = text_height + 8, gap = count > 2 ? 46 : 64;
        float rows = height - titles - below_all - below_each * count - gap * (count - 1);
        for (const Plotted& one : plotted_)
            rows -= lane_height * static_cast<float>(one.lanes);
        float y = titles;
        group_.begin();
        for (Plotted& one : plotted_) {
            one.area = {96, y, std::max(1.0F, width - 96 - 40), std::max(1.0F, rows / count)};
            y = one.area.bottom() + lane_height * static_cast<float>(one.lanes) + below_each + gap;
            find_range(one);
            draw_grid(one, &one == &plotted_.back());
            draw_lines(one);
            draw_effects(one);
            draw_texts(one);
            draw_title(one, &one == &plotted_.front());
        }
        draw_legend();
        Picture picture(options_.replay.width, options_.replay.height, replay_.fonts());
        if (!picture.status()) return report({picture.status().problem()});
        picture.fill(paper);
        picture.draw(group_);
        const Status written = write_whole(options_.png, [&](const std::string& to) { return picture.write_png(to); });
        if (!written) return report({written.problem()});
        err_ << "wrote " << options_.png << '\n';
        return Exit::fine;
    }

    /// From the smallest to the largest of all that is drawn, with some air.
    static void find_range(Plotted& one) {
        one.low = std::numeric_limits<double>::infinity();
        one.high = -one.low;
        for (const Sample& sample : one.samples) {
            for (const double number : {sample.truth, sample.target, sample.shown, sample.trail}) {
                if (!std::isfinite(number)) continue;
                one.low = std::min(one.low, number);
                one.high = std::max(one.high, number);
            }
        }
        const double air = one.high > one.low ? (one.high - one.low) * 0.06 : std::max(1.0, std::abs(one.high) * 0.1);
        one.low -= air;
        one.high += air;
    }

    float x_of(double time) const {
        const Rect& area = plotted_.front().area;
        return area.x + area.width * static_cast<float>((time - from_) / (to_ - from_));
    }
    static float y_of(const Plotted& one, double number) {
        return one.area.bottom() - one.area.height * static_cast<float>((number - one.low) / (one.high - one.low));
    }
    static float effects_end(const Plotted& one) {
        return one.area.bottom() + lane_height * static_cast<float>(one.lanes);
    }

    void draw_grid(const Plotted& one, bool is_last) {
        const Rect& area = one.area;
        const double step = tick_distance(one.high - one.low, std::clamp(static_cast<int>(area.height / 60), 2, 8));
        for (double tick = std::ceil(one.low / step) * step; tick <= one.high; tick += step) {
            const float y = std::round(y_of(one, tick));
            line({{area.x, y}, {area.right(), y}}, 1, grid);
            write(plain_number(tick, step), {area.x - 12, y + 5}, 1, 15, 400, dim);
        }
        const double seconds = tick_distance(to_ - from_, 12);
        for (double tick = std::ceil(from_ / seconds) * seconds; tick <= to_ + 1e-9; tick += seconds) {
            const float x = std::round(x_of(tick));
            line({{x, area.y}, {x, area.bottom()}}, 1, grid);
            if (is_last)
                write(plain_number(tick, seconds) + " s", {x, effects_end(one) + text_height + 32}, 0.5F, 15, 400, dim);
        }
    }

    /// True and target hold until the next frame. So do shown and trail where another target has come: what moves is still where it was, and what
    /// does not move has been there until then. On the way to one target they are drawn as they go.
    void draw_lines(const Plotted& one) {
        draw_line(one, &Sample::trail, false, 2.5F, trail_color);
        // Wide and pale, so that it is seen under the others where they are the same.
        draw_line(one, &Sample::truth, true, 7, truth_color);
        draw_line(one, &Sample::target, true, 2, target_color);
        draw_line(one, &Sample::shown, false, 3.5F, shown_color);
    }

    void draw_line(const Plotted& one, double Sample::*member, bool holds, float thickness, Color color) {
        std::vector<Point> points;
        const auto flush = [&] {
            if (points.size() > 1) line(points, thickness, color);
            points.clear();
        };
        double target = NAN, last = NAN;
        for (const Sample& sample : one.samples) {
            const double number = sample.*member;
            // What goes to a new target at once does so in a step, and what is on its way does not.
            const bool steps = sample.target != target && number == sample.target && last == target;
            target = sample.target;
            last = number;
            if (!std::isfinite(number)) {
                flush();
                continue;
            }
            const Point at{x_of(sample.time), y_of(one, number)};
            if ((holds || steps) && !points.empty() && points.back().y != at.y)
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

    /// A band for each effect, as long as it runs.
    void draw_effects(const Plotted& one) {
        if (one.lanes == 0) return;
        write("EFFECTS", {one.area.x - 12, one.area.bottom() + 16}, 1, 13, 600, dim);
        std::vector<std::string> names;
        for (const EffectRun& run : one.effects) {
            const auto known = std::find(names.begin(), names.end(), run.name);
            const auto number = static_cast<std::size_t>(known - names.begin());
            const bool is_first = known == names.end();
            if (is_first) names.push_back(run.name);
            const Color color = effect_colors[number % effect_colors.size()];
            const float y = one.area.bottom() + 4 + lane_height * static_cast<float>(run.lane);
            const float x = x_of(run.from), wide = std::max(x_of(run.to) - x, 3.0F);
            group_.rect({x, y, wide, lane_height - 6}, 3, mix(color, paper, 0.35));
            if (measure(run.name, 12, 600) + 10 < wide)
                write(run.name, {x + 5, y + 12}, 0, 12, 600, paper);
            else if (is_first)
                write(run.name, {x + wide + 4, y + 12}, 0, 12, 600, color);
        }
    }

    /// What could be read, at even moments; as many as fit.
    void draw_texts(const Plotted& one) {
        const float begin = effects_end(one);
        const float y = begin + text_height;
        write(one.kind == "bar" ? "FILL" : "TEXT", {one.area.x - 12, y}, 1, 13, 600, dim);
        float widest = 0;
        for (const Sample& sample : one.samples)
            widest = std::max(widest, measure(sample.text, 17, 500));
        const int count = std::clamp(static_cast<int>(one.area.width / (widest + 28)), 1, 16);
        std::size_t next = 0;
        for (int i = 0; i < count; ++i) {
            const double time = from_ + (to_ - from_) * (i + 0.5) / count;
            while (next + 1 < one.samples.size() && one.samples[next + 1].time <= time)
                ++next;
            const float x = x_of(time);
            line({{x, begin + 12}, {x, begin + 20}}, 1.5F, dim);
            write(one.samples[next].text, {x, y}, 0.5F, 17, 500, ink);
        }
        line({{one.area.x, begin + 12}, {one.area.right(), begin + 12}}, 1.5F, grid);
    }

    void draw_title(const Plotted& one, bool is_first) {
        if (is_first) {
            write(one.name, {one.area.x, 48}, 0, 28, 700, ink);
            write(one.kind + " of " + options_.replay.hud, {one.area.x, 76}, 0, 15, 400, dim);
            return;
        }
        write(one.name, {one.area.x, one.area.y - 14}, 0, 18, 700, ink);
        write(one.kind, {one.area.x + measure(one.name, 18, 700) + 12, one.area.y - 14}, 0, 15, 400, dim);
    }

    void draw_legend() {
        const bool has_trail = std::any_of(plotted_.begin(), plotted_.end(), [](const Plotted& one) {
            return std::any_of(one.samples.begin(), one.samples.end(),
                               [](const Sample& sample) { return std::isfinite(sample.trail); });
        });
        float x = plotted_.front().area.right();
        const auto legend = [&](const char* word, Color color) {
            x -= measure(word, 15, 500);
            write(word, {x, 48}, 0, 15, 500, ink);
            line({{x - 34, 43}, {x - 10, 43}}, 4, color);
            x -= 62;
        };
        if (has_trail) legend("trail", trail_color);
        legend("shown", shown_color);
        legend("target", target_color);
        legend("truth", truth_color);
    }

    void line(const std::vector<Point>& points, float thickness, Color color) { group_.line(points, thickness, color); }

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
        group_.text(font_of(weight), size, {at.x - width * part, at.y}, width, color, text, glyphs_, 1);
    }

    const PlotOptions& options_;
    std::ostream& err_;
    Replay replay_;
    double from_ = 0, to_ = 0;
    static constexpr float lane_height = 22;  ///< of effects
    static constexpr float text_height = 40;  ///< from the lines to the baseline of what could be read
    std::vector<Plotted> plotted_;
    DisplayGroup group_;
    std::vector<Glyph> glyphs_;
};

}  // namespace

Exit plot(const PlotOptions& options, std::ostream& err) {
    return Plotter(options, err).run();
}

}  // namespace rapido::tool
