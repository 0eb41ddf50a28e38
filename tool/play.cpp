#include "tool/play.hpp"

#include <algorithm>
#include <cmath>
#include <ostream>

#include "rapido/file.hpp"
#include "rapido/locale.hpp"
#include "rapido/picture.hpp"
#include "rapido/rapido.hpp"
#include "tool/report.hpp"

namespace rapido::tool {
namespace {

struct Frame {
    Nanoseconds time{0};
    bool asked_for = false;  ///< by --at
};

/// The moments of all frames, in order: of the rate or the rows, and those asked for.
std::vector<Frame> frames_of(const Trace& trace, std::optional<double> rate,
                             const std::vector<Nanoseconds>& at) {
    std::vector<Frame> frames;
    const Nanoseconds first = trace.rows().front().time;
    const Nanoseconds last = trace.rows().back().time;
    if (rate) {
        for (std::int64_t k = 0;; ++k) {
            const Nanoseconds time = first + to_nanoseconds(Seconds{static_cast<double>(k) / *rate});
            if (time > last) break;
            frames.push_back({time});
        }
    } else {
        for (const Trace::Row& row : trace.rows())
            if (frames.empty() || frames.back().time != row.time) frames.push_back({row.time});
    }
    for (const Nanoseconds time : at)
        frames.push_back({time, true});
    std::stable_sort(frames.begin(), frames.end(),
                     [](const Frame& a, const Frame& b) { return a.time < b.time; });
    // A frame asked for at the moment of another one is that frame.
    std::vector<Frame> merged;
    for (const Frame& frame : frames) {
        if (!merged.empty() && merged.back().time == frame.time)
            merged.back().asked_for |= frame.asked_for;
        else
            merged.push_back(frame);
    }
    return merged;
}

/// The moments of --at; without it, ten even ones from the first row to the last, on whole milliseconds.
std::vector<Nanoseconds> moments(const Trace& trace, const PlayOptions& options) {
    std::vector<Nanoseconds> at;
    for (const double seconds : options.at)
        at.push_back(to_nanoseconds(Seconds{seconds}));
    if (!at.empty() || !options.table) return at;
    const Nanoseconds first = trace.rows().front().time;
    const Nanoseconds last = trace.rows().back().time;
    for (int i = 0; i < 10; ++i)
        at.push_back(std::chrono::floor<std::chrono::milliseconds>(first + (last - first) * i / 9));
    at.front() = first;
    return at;
}

class Player {
 public:
    Player(const PlayOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err) {}

    Exit run() {
        const Result<std::string> text = read_text_file(options_.hud, 4'000'000);
        if (!text) return report(text.problems());
        const Result<Trace> trace = Trace::read_file(options_.trace);
        Problems problems = trace.problems();
        if (!trace) {
            for (const Problem& problem : read_hud(*text, options_.hud).problems())
                problems.push_back(problem);
            return report(problems);
        }
        TracePlayer player(*trace);
        if (const Problems found = check_hud(*text, options_.hud, player.sources(), &fonts_); !found.empty())
            return report(found);
        const std::vector<Nanoseconds> at = moments(*trace, options_);
        if (const auto usage = check_moments(*trace, at)) return *usage;

        Hud hud(*read_hud(*text, options_.hud), player.sources(), &fonts_);
        if (const auto problems_of_language = speak(hud); !problems_of_language.empty())
            return report(problems_of_language);
        hud.resize({.size = {static_cast<float>(options_.width), static_cast<float>(options_.height)}});
        return play(hud, player, *trace, frames_of(*trace, options_.rate, at), at);
    }

 private:
    /// Sets the language that was asked for, if one was.
    Problems speak(Hud& hud) {
        if (options_.locale.empty() && options_.translations.empty()) return {};
        Language language;
        if (!options_.locale.empty()) {
            Result<NumberStyle> style = number_style(options_.locale);
            if (!style) return style.problems();
            language.numbers = *std::move(style);
        }
        if (!options_.translations.empty()) {
            auto translations = read_translations_file(options_.translations);
            if (!translations) return translations.problems();
            language.translations = *std::move(translations);
        }
        hud.set_language(language);
        return hud.problems();
    }

    Exit report(const Problems& problems) {
        print_problems(problems, err_);
        return Exit::problems;
    }

    std::optional<Exit> check_moments(const Trace& trace, const std::vector<Nanoseconds>& at) {
        const Nanoseconds first = trace.rows().front().time;
        const Nanoseconds last = trace.rows().back().time;
        for (const Nanoseconds time : at) {
            if (time >= first && time <= last) continue;
            err_ << "error: --at " << seconds_text(time) << " lies outside the trace, which goes from "
                 << seconds_text(first) << " to " << seconds_text(last) << '\n';
            return Exit::usage;
        }
        const std::size_t pictures = std::max<std::size_t>(options_.at.size(), 1);
        if (options_.png.size() <= pictures) return std::nullopt;
        err_ << "error: " << options_.png.size() << " --png for " << pictures
             << " moments; give one --at for each\n";
        return Exit::usage;
    }

    Exit play(Hud& hud, TracePlayer& player, const Trace& trace, const std::vector<Frame>& frames,
              const std::vector<Nanoseconds>& at) {
        const Nanoseconds start = frames.front().time;
        Nanoseconds now = start;
        Nanoseconds game_now = trace.rows().front().game_time;
        std::vector<TableRow> table;
        std::vector<Event> events;
        for (const Frame& frame : frames) {
            const Nanoseconds game_time = player.seek(frame.time);
            hud.update({.real = to_seconds(frame.time - now), .game = to_seconds(game_time - game_now)});
            now = frame.time;
            game_now = game_time;
            for (Event event : hud.events()) {
                event.time += start;
                events.push_back(std::move(event));
            }
            if (!frame.asked_for && &frame != &frames.back()) continue;
            if (options_.table && frame.asked_for) {
                const std::vector<TableRow> rows = rows_of(hud, frame.time);
                table.insert(table.end(), rows.begin(), rows.end());
            }
            if (const Exit exit = draw(hud, frame, at, &frame == &frames.back()); exit != Exit::fine)
                return exit;
        }
        if (options_.table) print_table(table, options_.json, out_);
        if (options_.table && options_.events && !options_.json) out_ << '\n';
        if (options_.events) print_events(events, options_.json, out_);
        if (!hud.problems().empty()) return report(hud.problems());
        return Exit::fine;
    }

    /// Draws the pictures that belong to this frame.
    Exit draw(const Hud& hud, const Frame& frame, const std::vector<Nanoseconds>& at, bool is_last) {
        for (std::size_t i = 0; i < options_.png.size(); ++i) {
            if (options_.at.empty() ? !is_last : i >= at.size() || at[i] != frame.time) continue;
            Picture picture(options_.width, options_.height, fonts_);
            picture.fill(rgb(0x2a3440));
            if (!options_.background.empty())
                if (const auto problem = picture.draw_image(options_.background)) return report({*problem});
            hud.draw(list_);
            picture.draw(list_);
            if (const auto problem = picture.write_png(options_.png[i])) return report({*problem});
            err_ << "wrote " << options_.png[i] << '\n';
        }
        return Exit::fine;
    }

    const PlayOptions& options_;
    std::ostream& out_;
    std::ostream& err_;
    Fonts fonts_;
    DrawList list_;
};

}  // namespace

Exit play(const PlayOptions& options, std::ostream& out, std::ostream& err) {
    return Player(options, out, err).run();
}

}  // namespace rapido::tool
