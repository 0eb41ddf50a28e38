#include "tool/replay.hpp"

#include <algorithm>
#include <filesystem>

#include "rapido/locale.hpp"

namespace rapido::tool {

Problems Replay::open() {
    Result<std::string> text = read_text_file(options_.hud, 4'000'000);
    if (!text) return text.problems();
    Result<Trace> trace = Trace::read_file(options_.trace);
    if (!trace) {
        Problems problems = trace.problems();
        for (const Problem& problem : read_hud(*text, options_.hud).problems())
            problems.push_back(problem);
        return problems;
    }
    trace_ = *std::move(trace);
    player_.emplace(*trace_);
    if (Problems found = check_hud(*text, options_.hud, player_->sources(), &fonts_); !found.empty())
        return found;
    images_.emplace(std::filesystem::absolute(options_.hud).parent_path().string());
    hud_.emplace(*read_hud(*text, options_.hud), player_->sources(), &fonts_, &*images_);
    hud_->set_reduced_motion(options_.reduced_motion);
    hud_->set_scale(static_cast<float>(options_.scale));
    hud_->resize({.size = {static_cast<float>(options_.width), static_cast<float>(options_.height)}});
    return speak();
}

/// Sets the language that was asked for, if one was.
Problems Replay::speak() {
    if (options_.locale.empty() && options_.translations.empty()) return {};
    Language language;
    if (!options_.locale.empty()) {
        Result<Language> known = rapido::language(options_.locale);
        if (!known) return known.problems();
        language = *std::move(known);
    }
    if (!options_.translations.empty()) {
        auto translations = read_translations_file(options_.translations);
        if (!translations) return translations.problems();
        language.translations = *std::move(translations);
    }
    // A missing image is told at the end: the rest is worth to be seen.
    const auto known = static_cast<std::ptrdiff_t>(hud_->problems().size());
    hud_->set_language(language);
    return {hud_->problems().begin() + known, hud_->problems().end()};
}

/// The moments of all frames, in order: of the rate or the rows, and those asked for.
std::vector<Frame> Replay::frames(const std::vector<Nanoseconds>& at) const {
    std::vector<Frame> frames;
    if (options_.rate) {
        for (std::int64_t k = 0;; ++k) {
            const Nanoseconds time =
                first() + to_nanoseconds(Seconds{static_cast<double>(k) / *options_.rate});
            if (time > last()) break;
            frames.push_back({time});
        }
    } else {
        for (const Trace::Row& row : trace_->rows())
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
    merged.back().is_last = true;
    return merged;
}

Exit Replay::run(const std::vector<Nanoseconds>& at, const std::function<Exit(const Frame&)>& seen) {
    Nanoseconds now = first();
    Nanoseconds game_now = trace_->rows().front().game_time;
    for (const Frame& frame : frames(at)) {
        const Nanoseconds game_time = player_->seek(frame.time);
        hud_->update({.real = to_seconds(frame.time - now), .game = to_seconds(game_time - game_now)});
        now = frame.time;
        game_now = game_time;
        if (const Exit exit = seen(frame); exit != Exit::fine) return exit;
    }
    return Exit::fine;
}

}  // namespace rapido::tool
