#include "tool/replay.hpp"
#include "tool/languages.hpp"

#include <algorithm>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <filesystem>

#include "rapido/debug.hpp"
#include "tool/ranges.hpp"
#include "tool/report.hpp"

namespace rapido::tool {
namespace {

constexpr std::size_t largest_file = 256'000'000;

bool is_error(const Problem& problem) {
    return problem.severity == Severity::error;
}

}  // namespace

Problems Replay::open() {
    Result<std::string> text = read_text_file(options_.hud, largest_file);
    if (!text) return text.problems();
    const IncludeReader includes = includes_of(std::filesystem::path(options_.hud).parent_path().string());
    const bool is_whole = Recording::is_recording(*text);
    if (options_.ranges && is_whole)
        return {{{options_.hud}, "is a recording, which has its own values", "leave --ranges away"}};
    Result<std::string> data = is_whole          ? std::move(text)
                               : options_.ranges ? Result<std::string>(std::string())
                                                 : read_text_file(options_.trace, largest_file);
    const auto with_those_of_hud = [&](Problems problems) {
        if (!is_whole)
            for (const Problem& problem : read_hud(*text, options_.hud, includes).problems())
                problems.push_back(problem);
        return problems;
    };
    if (!data) return with_those_of_hud(data.problems());
    const std::string& name = is_whole ? options_.hud : options_.trace;
    if (options_.ranges) {
        const Result<HudDefinition> declared = read_hud(*text, options_.hud, includes);
        if (!declared) return declared.problems();
        Result<Trace> swept = sweep_of(*declared, options_.hud);
        if (!swept) return swept.problems();
        trace_ = *std::move(swept);
        origin_ = first_ = trace_->rows().front().time;
        last_ = trace_->rows().back().time;
    } else if (Recording::is_recording(*data)) {
        Result<Recording> recording = Recording::read(*data, name);
        if (!recording) return with_those_of_hud(recording.problems());
        recording_ = *std::move(recording);
        warnings_ = recording_->warnings();
        if (recording_->frame_count() == 0) return {{{name}, "has no frame", "", ProblemCode::missing_key}};
        first_ = recording_->time(0);
        last_ = recording_->time(recording_->frame_count() - 1);
    } else {
        Result<Trace> trace = Trace::read(*data, name);
        if (!trace) return with_those_of_hud(trace.problems());
        trace_ = *std::move(trace);
        origin_ = first_ = trace_->rows().front().time;
        last_ = trace_->rows().back().time;
    }
    // Two minutes of work or so: a trace whose last row is an age later would go on for hours without a word.
    constexpr double most_frames = 5'000'000;
    const Nanoseconds until = options_.to ? std::min(last_, to_nanoseconds(Seconds{*options_.to})) : last_;
    const double length = to_seconds(until).count() - to_seconds(first_).count();
    if (options_.rate && length * *options_.rate > most_frames)
        return {{{name},
                 "lasts " + seconds_text(until - first_) + " s: at " + std::to_string(std::lround(*options_.rate)) +
                     " frames a second that is more than 5000000 frames",
                 "end it earlier with --to, or give a lower --rate",
                 ProblemCode::too_large}};
    Result<HudDefinition> definition = is_whole ? recording_->definition() : read_hud(*text, options_.hud, includes);
    if (trace_) {
        // Fonts and images that are missing are told at the end: the rest is worth being seen.
        const TracePlayer player(*trace_);
        const Problems found = check_hud(*text, options_.hud, player.sources(), nullptr, nullptr, includes);
        if (std::any_of(found.begin(), found.end(), is_error)) return found;
    }
    if (!definition) return definition.problems();
    screen_of_ = {.design = definition->design, .fit = definition->fit, .whole_scale = definition->whole_scale};
    const std::string folder = std::filesystem::absolute(options_.hud).parent_path().string();
    images_.emplace(folder);
    if (const Status added = fonts_.add_files(folder, definition->font_files); !added) return {added.problem()};
    if (!options_.record.empty()) {
        record_file_ = std::make_unique<std::ofstream>(options_.record, std::ios::binary);
        if (!*record_file_)
            return {{{options_.record},
                     std::string("cannot be written: ") + std::strerror(errno),
                     "",
                     ProblemCode::unreadable}};
        writer_.emplace(*record_file_);
    }
    played_ = made(*definition, writer_ ? &*writer_ : nullptr);
    if (options_.to) last_ = std::min(last_, to_nanoseconds(Seconds{*options_.to}));
    if (options_.from) return begin_at(to_nanoseconds(Seconds{*options_.from}), *definition);
    return set_up(*played_.hud);
}

Replay::Played Replay::made(const HudDefinition& definition, Recorder* recorder) {
    Played made;
    Sources sources;
    if (trace_) {
        made.trace = std::make_unique<TracePlayer>(*trace_);
        sources = made.trace->sources();
    } else {
        made.recording.emplace(*recording_);
        sources = made.recording->sources();
        made.recording->set_languages([this](std::string_view tag) {
            Result<Language> known = language(tag);
            return known ? *std::move(known) : Language{.tag = std::string(tag)};
        });
    }
    made.hud = std::make_unique<Hud>(definition, sources, &fonts_, &*images_);
    if (recorder != nullptr) rapido::record(*made.hud, recorder);
    return made;
}

/// What the options say; a recording says all of it itself.
Problems Replay::set_up(Hud& hud) {
    if (recording_) return {};
    hud.set_reduced_motion(options_.reduced_motion);
    hud.set_ui_scale(static_cast<float>(options_.scale));
    hud.resize({.size = {static_cast<float>(options_.width), static_cast<float>(options_.height)}});
    if (!options_.theme.empty() && !hud.set_theme(options_.theme)) return {hud.problems().back()};
    return speak(hud);
}

/// Begins with the values of a later moment. Its timers stand where they would have come to by then.
Problems Replay::begin_at(Nanoseconds from, const HudDefinition& definition) {
    Played before = made(definition, nullptr);
    if (recording_) {
        RecordingPlayer& player = *before.recording;
        while (player.next() < recording_->frame_count() && recording_->time(player.next()) <= from)
            player.update(*before.hud);
        played_.recording->skip_to(*played_.hud, from);
        const std::size_t next = played_.recording->next();
        origin_ = next > 0 ? recording_->time(next - 1) : Nanoseconds{0};
        first_ = next < recording_->frame_count() ? recording_->time(next) : last_;
    } else {
        Nanoseconds now = first_, game_now = trace_->rows().front().game_time;
        for (const Trace::Row& row : trace_->rows()) {
            if (row.time > from) break;
            before.trace->seek(row.time);
            before.hud->update({.real = to_seconds(row.time - now), .game = to_seconds(row.game_time - game_now)});
            now = row.time;
            game_now = row.game_time;
        }
        origin_ = first_ = std::max(first_, from);
    }
    if (Problems problems = set_up(*played_.hud); !problems.empty()) return problems;
    if (const std::vector<TimerState> timers = before.hud->save_timers(); !timers.empty())
        played_.hud->restore_timers(timers);
    return {};
}

Result<Language> Replay::language(std::string_view tag) const {
    return language_of(std::string(tag), options_.translations);
}

/// Sets the language that was asked for, if one was.
Problems Replay::speak(Hud& hud) {
    if (options_.language.empty() && options_.translations.empty()) return {};
    const Result<Language> known = language(options_.language);
    if (!known) return known.problems();
    const auto before = static_cast<std::ptrdiff_t>(hud.problems().size());
    hud.set_language(*known);
    return {hud.problems().begin() + before, hud.problems().end()};
}

Nanoseconds Replay::frame_at(Nanoseconds moment) const {
    if (!recording_) return moment;
    for (std::size_t i = 0; i < recording_->frame_count(); ++i)
        if (recording_->time(i) >= moment && recording_->time(i) >= first_) return recording_->time(i);
    return last_;
}

Fitted Replay::screen() const {
    return fit_screen({.design = screen_of_.design,
                       .fit = screen_of_.fit,
                       .whole_scale = screen_of_.whole_scale,
                       .ui_scale = static_cast<float>(options_.scale)},
                      {.size = {static_cast<float>(options_.width), static_cast<float>(options_.height)}});
}

/// The next frame of the rate or of the rows, behind the one at `behind`.
std::optional<Nanoseconds> Replay::next_frame(std::optional<Nanoseconds> behind) {
    std::optional<Nanoseconds> time;
    if (options_.rate) {
        time = first() + to_nanoseconds(Seconds{static_cast<double>(frame_++) / *options_.rate});
    } else if (!behind) {
        time = first();
    } else {
        const std::vector<Trace::Row>& rows = trace_->rows();
        while (frame_ < rows.size() && rows[frame_].time <= *behind)
            ++frame_;
        if (frame_ < rows.size()) time = rows[frame_].time;
    }
    return time && *time > last() ? std::nullopt : time;
}

Exit Replay::run(std::vector<Nanoseconds> at, const std::function<Exit(const Frame&)>& seen) {
    std::sort(at.begin(), at.end());
    if (recording_) return run_recording(at, seen);
    auto asked = at.begin();
    frame_ = 0;
    Nanoseconds now = first();
    Nanoseconds game_now = played_.trace->seek(first());
    // Made one by one: a long trace at a high rate has more frames than there is memory.
    std::optional<Nanoseconds> own = next_frame(std::nullopt);
    while (own || asked != at.end()) {
        Frame frame{.time = !own ? *asked : asked == at.end() ? *own : std::min(*own, *asked)};
        for (; asked != at.end() && *asked == frame.time; ++asked)
            frame.asked_for = true;
        if (own && *own == frame.time) own = next_frame(own);
        frame.is_last = !own && asked == at.end();
        const Nanoseconds game_time = played_.trace->seek(frame.time);
        hud().update({.real = to_seconds(frame.time - now), .game = to_seconds(game_time - game_now)});
        now = frame.time;
        game_now = game_time;
        if (const Exit exit = seen(frame); exit != Exit::fine) return exit;
    }
    return Exit::fine;
}

/// The frames are those that were recorded.
Exit Replay::run_recording(const std::vector<Nanoseconds>& at, const std::function<Exit(const Frame&)>& seen) {
    RecordingPlayer& player = *played_.recording;
    while (player.next() < recording_->frame_count() && recording_->time(player.next()) <= last()) {
        Frame frame{.time = recording_->time(player.next())};
        if (!player.update(hud())) break;
        const bool is_last_of_its_time =
            player.next() == recording_->frame_count() || recording_->time(player.next()) > frame.time;
        frame.asked_for = is_last_of_its_time && std::binary_search(at.begin(), at.end(), frame.time);
        frame.is_last = player.next() == recording_->frame_count() || recording_->time(player.next()) > last();
        if (const Exit exit = seen(frame); exit != Exit::fine) return exit;
    }
    return Exit::fine;
}

Status Replay::close_record() {
    if (!writer_) return {};
    rapido::record(hud(), nullptr);
    if (!writer_->problems().empty()) return writer_->problems().front();
    record_file_->flush();
    if (*record_file_) return {};
    return Problem{{options_.record}, "cannot be written", "", ProblemCode::unreadable};
}

}  // namespace rapido::tool
