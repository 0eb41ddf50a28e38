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
    // Fonts and images that are missing are told at the end: the rest is worth being seen.
    const Problems found = check_hud(*text, options_.hud, player_->sources(), nullptr);
    if (std::any_of(found.begin(), found.end(),
                    [](const Problem& problem) { return problem.severity == Severity::error; }))
        return found;
    const std::string folder = std::filesystem::absolute(options_.hud).parent_path().string();
    images_.emplace(folder);
    const Result<HudDefinition> definition = read_hud(*text, options_.hud);
    if (const Status added = fonts_.add_files(folder, definition->font_files); !added)
        return {added.problem()};
    hud_.emplace(*definition, player_->sources(), &fonts_, &*images_);
    hud_->set_reduced_motion(options_.reduced_motion);
    hud_->set_scale(static_cast<float>(options_.scale));
    hud_->resize({.size = {static_cast<float>(options_.width), static_cast<float>(options_.height)}});
    if (!options_.theme.empty() && !hud_->set_theme(options_.theme)) return {hud_->problems().back()};
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
    const auto known = static_cast<std::ptrdiff_t>(hud_->problems().size());
    hud_->set_language(language);
    return {hud_->problems().begin() + known, hud_->problems().end()};
}

/// The next frame of the rate or of the rows, behind the one at `behind`.
std::optional<Nanoseconds> Replay::next_frame(std::optional<Nanoseconds> behind) {
    if (options_.rate) {
        const Nanoseconds time =
            first() + to_nanoseconds(Seconds{static_cast<double>(frame_++) / *options_.rate});
        return time > last() ? std::nullopt : std::optional(time);
    }
    const std::vector<Trace::Row>& rows = trace_->rows();
    while (frame_ < rows.size() && behind && rows[frame_].time == *behind)
        ++frame_;
    return frame_ < rows.size() ? std::optional(rows[frame_].time) : std::nullopt;
}

Exit Replay::run(std::vector<Nanoseconds> at, const std::function<Exit(const Frame&)>& seen) {
    std::sort(at.begin(), at.end());
    auto asked = at.begin();
    frame_ = 0;
    Nanoseconds now = first();
    Nanoseconds game_now = trace_->rows().front().game_time;
    // Made one by one: a long trace at a high rate has more frames than there is memory.
    std::optional<Nanoseconds> own = next_frame(std::nullopt);
    while (own || asked != at.end()) {
        Frame frame{.time = !own ? *asked : asked == at.end() ? *own : std::min(*own, *asked)};
        for (; asked != at.end() && *asked == frame.time; ++asked)
            frame.asked_for = true;
        if (own && *own == frame.time) own = next_frame(own);
        frame.is_last = !own && asked == at.end();
        const Nanoseconds game_time = player_->seek(frame.time);
        hud_->update({.real = to_seconds(frame.time - now), .game = to_seconds(game_time - game_now)});
        now = frame.time;
        game_now = game_time;
        if (const Exit exit = seen(frame); exit != Exit::fine) return exit;
    }
    return Exit::fine;
}

}  // namespace rapido::tool
