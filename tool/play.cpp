#include "tool/play.hpp"

#include <algorithm>
#include <cmath>
#include <ostream>

#include "rapido/debug.hpp"
#include "rapido/picture.hpp"
#include "tool/progress.hpp"
#include "tool/report.hpp"
#include "tool/whole_file.hpp"

namespace rapido::tool {
namespace {

/// The moments of --at; without it, ten even ones from the first row to the last, on whole milliseconds.
std::vector<Nanoseconds> wanted(const Replay& replay, const PlayOptions& options) {
    std::vector<Nanoseconds> at;
    for (const double seconds : options.at)
        at.push_back(to_nanoseconds(Seconds{seconds}));
    if (!at.empty() || (!options.table && options.sheet.empty() && options.explain.empty())) return at;
    for (int i = 0; i < 10; ++i)
        at.push_back(
            std::chrono::floor<std::chrono::milliseconds>(replay.first() + (replay.last() - replay.first()) * i / 9));
    at.front() = replay.first();
    return at;
}

bool is_picture(const std::string& name) {
    return name.ends_with(".png");
}
bool is_drawing(const std::string& name) {
    return name.ends_with(".svg");
}

class Player {
 public:
    Player(const PlayOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err), replay_(options.replay) {}

    Exit run() {
        if (const auto usage = check_names()) return *usage;
        if (const Problems problems = replay_.open(); !problems.empty()) return report(problems);
        at_ = wanted(replay_, options_);
        if (const auto usage = check_moments()) return *usage;
        for (Nanoseconds& moment : at_)
            moment = replay_.frame_at(moment);
        if (!options_.sheet.empty()) plan_sheet();
        const Exit exit = replay_.run(at_, [this](const Frame& frame) { return see(frame); });
        if (exit != Exit::fine) return exit;
        if (const Status recorded = replay_.close_record(); !recorded) return report({recorded.problem()});
        if (!options_.replay.record.empty()) err_ << "wrote " << options_.replay.record << '\n';
        if (!options_.sheet.empty())
            if (const Exit written = write_sheet(); written != Exit::fine) return written;
        if (options_.table)
            print_table(table_, options_.columns.empty() ? usual_columns() : options_.columns, options_.json, out_);
        if (options_.table && options_.events && !options_.json) out_ << '\n';
        if (options_.events) print_events(events_, options_.json, out_);
        print_problems(replay_.warnings(), err_);
        Problems problems = replay_.hud().problems();
        if (!too_much_) problems.push_back(too_much_.problem());
        if (!problems.empty()) return report(problems);
        return Exit::fine;
    }

 private:
    Exit report(const Problems& problems) {
        print_problems(problems, err_);
        return Exit::problems;
    }

    std::optional<Exit> usage(const std::string& message) {
        err_ << "error: " << message << '\n';
        return Exit::usage;
    }

    /// What is written goes by the end of its name.
    std::optional<Exit> check_names() {
        const bool any_drawing = std::any_of(options_.png.begin(), options_.png.end(), is_drawing);
        for (const std::string& name : options_.png)
            if (!is_picture(name) && !is_drawing(name))
                return usage("--png " + name + ": a picture is written as .png, a drawing as .svg");
        if (!options_.sheet.empty() && !is_picture(options_.sheet))
            return usage("--sheet " + options_.sheet + ": a sheet is written as .png");
        if (!options_.crop.empty() && options_.sheet.empty())
            return usage("--crop needs --sheet: it is its pictures that the element fills");
        if (options_.background.empty()) return std::nullopt;
        if (options_.png.empty() && options_.sheet.empty())
            return usage("--background needs --png or --sheet: there is nothing to stand behind");
        if (any_drawing) return usage("--background is for pictures; a drawing in .svg has none");
        return std::nullopt;
    }

    std::optional<Exit> check_moments() {
        for (const Nanoseconds time : at_) {
            if (time >= replay_.first() && time <= replay_.last()) continue;
            return usage("--at " + seconds_text(time) + " lies outside the trace, which goes from " +
                         seconds_text(replay_.first()) + " to " + seconds_text(replay_.last()));
        }
        const std::size_t pictures = std::max<std::size_t>(options_.at.size(), 1);
        if (options_.png.size() <= pictures) return std::nullopt;
        return usage(std::to_string(options_.png.size()) + " --png for " + std::to_string(pictures) +
                     " moments; give one --at for each");
    }

    Exit see(const Frame& frame) {
        const Nanoseconds whole = replay_.last() - replay_.first();
        if (whole.count() > 0) progress_.at(to_seconds(frame.time - replay_.first()) / to_seconds(whole));
        for (Event event : replay_.hud().events()) {
            event.time += replay_.origin();
            events_.push_back(std::move(event));
        }
        if (!frame.asked_for && !frame.is_last) return Exit::fine;
        if (options_.table && frame.asked_for) {
            const std::vector<TableRow> rows = rows_of(replay_.hud(), frame.time);
            table_.insert(table_.end(), rows.begin(), rows.end());
        }
        if (frame.asked_for)
            for (const std::string& id : options_.explain) {
                const ElementRef element = replay_.hud().find(id);
                if (!element) return report({replay_.hud().problems().back()});
                out_ << seconds_text(frame.time) << " s: " << rapido::explain(replay_.hud(), element).text();
            }
        if (frame.asked_for && !options_.sheet.empty())
            if (const Exit kept = keep_for_sheet(frame.time); kept != Exit::fine) return kept;
        return draw(frame);
    }

    /// What is seen of this moment, in its size on the sheet: many large pictures would not fit into memory.
    Exit keep_for_sheet(Nanoseconds time) {
        Result<Picture> picture = take_picture();
        if (!picture) return report(picture.problems());
        const auto width = static_cast<float>(picture->width()), height = static_cast<float>(picture->height());
        Rect part{0, 0, width, height};
        bool is_seen = true;
        if (!options_.crop.empty()) {
            const ElementRef element = replay_.hud().find(options_.crop);
            if (!element) return report({replay_.hud().problems().back()});
            is_seen = replay_.hud()[element].visible;
            if (is_seen) part = around(element, width, height);
        }
        Picture small(static_cast<int>(std::ceil(cell_)), static_cast<int>(std::ceil(tall_)), replay_.fonts());
        small.fill(rgb(0x1b232b));
        const float zoom = cell_ / part.width;
        if (is_seen) small.draw(*picture, {-part.x * zoom, -part.y * zoom, width * zoom, height * zoom});
        cells_.emplace_back(time, std::move(small));
        return Exit::fine;
    }

    /// The part of a picture around an element, in the shape of the whole.
    Rect around(ElementRef element, float width, float height) {
        constexpr float air = 24;
        const Rect box = replay_.hud()[element].box;
        const Fitted screen = replay_.screen();
        const float down = screen.scale * screen.stretch;
        const float wide = box.width * screen.scale + 2 * air, high = box.height * down + 2 * air;
        const float part = std::min(std::max(wide / width, high / height), 1.0F);
        const Point middle{screen.origin.x + (box.x + box.width / 2) * screen.scale,
                           screen.origin.y + (box.y + box.height / 2) * down};
        const float x = std::clamp(middle.x - width * part / 2, 0.0F, width * (1 - part));
        const float y = std::clamp(middle.y - height * part / 2, 0.0F, height * (1 - part));
        return {x, y, width * part, height * part};
    }

    /// Draws the pictures that belong to this frame.
    Exit draw(const Frame& frame) {
        for (std::size_t i = 0; i < options_.png.size(); ++i) {
            if (options_.at.empty() ? !frame.is_last : i >= at_.size() || at_[i] != frame.time) continue;
            if (is_drawing(options_.png[i])) {
                if (const Exit written = write_drawing(options_.png[i]); written != Exit::fine) return written;
                continue;
            }
            const Result<Picture> picture = take_picture();
            if (!picture) return report(picture.problems());
            const Status written =
                write_whole(options_.png[i], [&](const std::string& to) { return picture->write_png(to); });
            if (!written) return report({written.problem()});
            err_ << "wrote " << options_.png[i] << '\n';
        }
        return Exit::fine;
    }

    /// The drawing of one moment, as lines and not as pixels.
    Exit write_drawing(const std::string& path) {
        replay_.hud().draw(list_);
        const auto [width, height] = picture_size();
        const Status written = write_svg(list_, width, height, replay_.fonts(), path, &replay_.images());
        if (!written) return report({written.problem()});
        err_ << "wrote " << path << '\n';
        return Exit::fine;
    }

    /// As large as the window that the HUD was told of.
    std::pair<int, int> picture_size() const {
        const std::optional<Viewport>& viewport = list_.viewport();
        if (!viewport) return {options_.replay.width, options_.replay.height};
        return {static_cast<int>(std::ceil(viewport->origin.x + viewport->size.width)),
                static_cast<int>(std::ceil(viewport->origin.y + viewport->size.height))};
    }

    Result<Picture> take_picture() {
        replay_.hud().draw(list_);
        const auto [width, height] = picture_size();
        Picture picture(width, height, replay_.fonts(), &replay_.images());
        if (!picture.status()) return picture.status().problem();
        picture.fill(rgb(0x2a3440));
        if (!options_.background.empty())
            if (const Status drawn = picture.draw_image(options_.background); !drawn) return drawn.problem();
        picture.draw(list_);
        if (options_.overlay) {
            rapido::draw_overlay(replay_.hud(), overlay_, options_.overlay);
            picture.draw(overlay_);
        }
        if (!picture.status()) too_much_ = picture.status();
        return picture;
    }

    /// All moments side by side, on about 1280 by 800 pixels: in as many columns as make them largest.
    void plan_sheet() {
        const auto count = static_cast<int>(at_.size());
        const float aspect = static_cast<float>(options_.replay.width) / static_cast<float>(options_.replay.height);
        for (int tried = 1; tried <= count; ++tried) {
            const auto rows = static_cast<float>((count + tried - 1) / tried);
            const float across = (1280 - gap) / static_cast<float>(tried) - gap;
            const float down = ((800 - gap) / rows - gap - caption) * aspect;
            if (std::min(across, down) <= cell_) continue;
            cell_ = std::min(across, down);
            columns_ = tried;
        }
        cell_ = std::max(cell_, 1.0F);
        tall_ = cell_ / aspect;
    }

    Exit write_sheet() {
        const auto count = static_cast<int>(cells_.size());
        const int rows = (count + columns_ - 1) / columns_;
        Picture sheet(static_cast<int>(gap + static_cast<float>(columns_) * (cell_ + gap)),
                      static_cast<int>(gap + static_cast<float>(rows) * (tall_ + gap + caption)), replay_.fonts());
        sheet.fill(rgb(0x10161c));
        Fonts& fonts = replay_.fonts();
        const FontId font = fonts.find("Inter", 500).value_or(fonts.find("sans-serif", 500).value_or(0));
        for (int i = 0; i < count; ++i) {
            const auto& [time, picture] = cells_[static_cast<std::size_t>(i)];
            const float x = gap + static_cast<float>(i % columns_) * (cell_ + gap);
            const float y = gap + static_cast<float>(i / columns_) * (tall_ + gap + caption);
            sheet.draw(picture, {x, y, std::ceil(cell_), std::ceil(tall_)});
            std::vector<Glyph> glyphs;
            const std::string text = seconds_text(time) + " s";
            const float wide = fonts.shape(font, 14, text, glyphs);
            DisplayGroup group;
            group.begin();
            group.text(font, 14, {x, y + tall_ + 18}, wide, rgb(0xf2efe6, 0.7), text, glyphs, 1);
            sheet.draw(group);
        }
        const Status written = write_whole(options_.sheet, [&](const std::string& to) { return sheet.write_png(to); });
        if (!written) return report({written.problem()});
        err_ << "wrote " << options_.sheet << '\n';
        return Exit::fine;
    }

    const PlayOptions& options_;
    std::ostream& out_;
    std::ostream& err_;
    Replay replay_;
    std::vector<Nanoseconds> at_;
    std::vector<TableRow> table_;
    std::vector<Event> events_;
    DisplayList list_, overlay_;
    Status too_much_;                               ///< of a picture that could not be drawn as a whole
    static constexpr float gap = 12, caption = 26;  ///< of the sheet
    float cell_ = 0, tall_ = 0;
    int columns_ = 1;
    std::vector<std::pair<Nanoseconds, Picture>> cells_;
    Progress progress_{"playing"};
};

}  // namespace

Exit play(const PlayOptions& options, std::ostream& out, std::ostream& err) {
    return Player(options, out, err).run();
}

}  // namespace rapido::tool
