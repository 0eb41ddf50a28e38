#include "tool/play.hpp"

#include <algorithm>
#include <ostream>

#include "rapido/picture.hpp"
#include "tool/report.hpp"

namespace rapido::tool {
namespace {

/// The moments of --at; without it, ten even ones from the first row to the last, on whole milliseconds.
std::vector<Nanoseconds> moments(const Replay& replay, const PlayOptions& options) {
    std::vector<Nanoseconds> at;
    for (const double seconds : options.at)
        at.push_back(to_nanoseconds(Seconds{seconds}));
    if (!at.empty() || (!options.table && options.sheet.empty())) return at;
    for (int i = 0; i < 10; ++i)
        at.push_back(std::chrono::floor<std::chrono::milliseconds>(replay.first() +
                                                                   (replay.last() - replay.first()) * i / 9));
    at.front() = replay.first();
    return at;
}

class Player {
 public:
    Player(const PlayOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err), replay_(options.replay) {}

    Exit run() {
        if (const Problems problems = replay_.open(); !problems.empty()) return report(problems);
        at_ = moments(replay_, options_);
        if (const auto usage = check_moments()) return *usage;
        const Exit exit = replay_.run(at_, [this](const Frame& frame) { return see(frame); });
        if (exit != Exit::fine) return exit;
        if (!options_.sheet.empty())
            if (const Exit written = write_sheet(); written != Exit::fine) return written;
        if (options_.table) print_table(table_, options_.json, out_);
        if (options_.table && options_.events && !options_.json) out_ << '\n';
        if (options_.events) print_events(events_, options_.json, out_);
        if (!replay_.hud().problems().empty()) return report(replay_.hud().problems());
        return Exit::fine;
    }

 private:
    Exit report(const Problems& problems) {
        print_problems(problems, err_);
        return Exit::problems;
    }

    std::optional<Exit> check_moments() {
        for (const Nanoseconds time : at_) {
            if (time >= replay_.first() && time <= replay_.last()) continue;
            err_ << "error: --at " << seconds_text(time) << " lies outside the trace, which goes from "
                 << seconds_text(replay_.first()) << " to " << seconds_text(replay_.last()) << '\n';
            return Exit::usage;
        }
        const std::size_t pictures = std::max<std::size_t>(options_.at.size(), 1);
        if (options_.png.size() <= pictures) return std::nullopt;
        err_ << "error: " << options_.png.size() << " --png for " << pictures
             << " moments; give one --at for each\n";
        return Exit::usage;
    }

    Exit see(const Frame& frame) {
        for (Event event : replay_.hud().events()) {
            event.time += replay_.first();
            events_.push_back(std::move(event));
        }
        if (!frame.asked_for && !frame.is_last) return Exit::fine;
        if (options_.table && frame.asked_for) {
            const std::vector<TableRow> rows = rows_of(replay_.hud(), frame.time);
            table_.insert(table_.end(), rows.begin(), rows.end());
        }
        if (frame.asked_for && !options_.sheet.empty()) {
            Result<Picture> picture = take_picture();
            if (!picture) return report(picture.problems());
            cells_.emplace_back(frame.time, *std::move(picture));
        }
        return draw(frame);
    }

    /// Draws the pictures that belong to this frame.
    Exit draw(const Frame& frame) {
        for (std::size_t i = 0; i < options_.png.size(); ++i) {
            if (options_.at.empty() ? !frame.is_last : i >= at_.size() || at_[i] != frame.time) continue;
            if (options_.png[i].ends_with(".svg")) {
                if (const Exit written = write_drawing(options_.png[i]); written != Exit::fine)
                    return written;
                continue;
            }
            const Result<Picture> picture = take_picture();
            if (!picture) return report(picture.problems());
            if (const auto problem = picture->write_png(options_.png[i])) return report({*problem});
            err_ << "wrote " << options_.png[i] << '\n';
        }
        return Exit::fine;
    }

    /// The drawing of one moment, as lines and not as pixels.
    Exit write_drawing(const std::string& path) {
        replay_.hud().draw(list_);
        const auto problem = write_svg(list_, options_.replay.width, options_.replay.height, replay_.fonts(),
                                       path, &replay_.images());
        if (problem) return report({*problem});
        err_ << "wrote " << path << '\n';
        return Exit::fine;
    }

    Result<Picture> take_picture() {
        Picture picture(options_.replay.width, options_.replay.height, replay_.fonts(), &replay_.images());
        picture.fill(rgb(0x2a3440));
        if (!options_.background.empty())
            if (const auto problem = picture.draw_image(options_.background)) return *problem;
        replay_.hud().draw(list_);
        picture.draw(list_);
        return picture;
    }

    /// All moments side by side, each with its time, on about 1280 by 800 pixels.
    Exit write_sheet() {
        constexpr float gap = 12, caption = 26, width = 1280, height = 800;
        const auto count = static_cast<int>(cells_.size());
        const float aspect =
            static_cast<float>(options_.replay.width) / static_cast<float>(options_.replay.height);
        int columns = 1;
        float cell = 0;
        for (int tried = 1; tried <= count; ++tried) {
            const auto rows = static_cast<float>((count + tried - 1) / tried);
            const float across = (width - gap) / static_cast<float>(tried) - gap;
            const float down = ((height - gap) / rows - gap - caption) * aspect;
            if (std::min(across, down) <= cell) continue;
            cell = std::min(across, down);
            columns = tried;
        }
        const int rows = (count + columns - 1) / columns;
        const float tall = cell / aspect;
        Picture sheet(static_cast<int>(gap + static_cast<float>(columns) * (cell + gap)),
                      static_cast<int>(gap + static_cast<float>(rows) * (tall + gap + caption)),
                      replay_.fonts());
        sheet.fill(rgb(0x10161c));
        Fonts& fonts = replay_.fonts();
        const FontId font = fonts.find("Inter", 500).value_or(fonts.find("sans-serif", 500).value_or(0));
        for (int i = 0; i < count; ++i) {
            const auto& [time, picture] = cells_[static_cast<std::size_t>(i)];
            const float x = gap + static_cast<float>(i % columns) * (cell + gap);
            const float y = gap + static_cast<float>(i / columns) * (tall + gap + caption);
            sheet.draw(picture, {x, y, cell, tall});
            std::vector<Glyph> glyphs;
            const std::string text = seconds_text(time) + " s";
            const float wide = fonts.shape(font, 14, text, glyphs);
            DrawGroup group;
            group.begin();
            group.add_text(font, 14, {x, y + tall + 18}, wide, rgb(0xf2efe6, 0.7), text, glyphs, 1);
            sheet.draw(group);
        }
        if (const auto problem = sheet.write_png(options_.sheet)) return report({*problem});
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
    DrawList list_;
    std::vector<std::pair<Nanoseconds, Picture>> cells_;
};

}  // namespace

Exit play(const PlayOptions& options, std::ostream& out, std::ostream& err) {
    return Player(options, out, err).run();
}

}  // namespace rapido::tool
