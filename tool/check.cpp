#include "tool/check.hpp"
#include "tool/languages.hpp"

#include <algorithm>
#include <deque>
#include <filesystem>
#include <map>
#include <ostream>
#include <set>

#include "base/fields.hpp"
#include "tool/check_contrast.hpp"
#include "tool/check_look.hpp"
#include "tool/check_messages.hpp"
#include "tool/check_parts.hpp"
#include "tool/check_words.hpp"
#include "tool/progress.hpp"
#include "tool/ranges.hpp"
#include "tool/report.hpp"

namespace rapido::tool {
namespace {

constexpr std::size_t looked_at = 60;      ///< moments of a trace
constexpr std::size_t drawn_moments = 12;  ///< moments that are drawn, as that takes its time
constexpr Seconds longest_played{600};     ///< of a trace that is played for what flickers

/// A language that a HUD is looked at in.
struct Spoken {
    std::string tag;
    std::string file;  ///< of its translations; empty for none
    std::unique_ptr<AskedWords> words;
    std::optional<Language> language;  ///< nothing for the HUD as it is written
};

class Checker {
 public:
    Checker(const CheckOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err) {}

    Exit run() {
        const Result<HudDefinition> definition = read_hud_file(options_.hud);
        if (!definition) return refuse(definition.problems());
        if (!options_.trace.empty()) {
            Result<Trace> trace = Trace::read_file(options_.trace);
            if (!trace) return refuse(trace.problems());
            trace_ = *std::move(trace);
        }
        findings_.accept(definition->accept);
        read_languages();
        const std::string folder = std::filesystem::absolute(options_.hud).parent_path().string();
        Images images(folder);
        Fonts fonts;
        if (const Status added = fonts.add_files(folder, definition->font_files); !added)
            findings_.add("fonts", {added.problem()});
        const GameStates game(*definition, trace());
        const HudDefinition named = with_named_messages(*definition);
        const Checked checked{named, game, fonts, images, options_.safe_area};
        const bool is_whole = check_statically(checked);
        if (is_whole && !game.sources().empty()) {
            const Result<Trace> played = trace_ ? Result<Trace>(*trace_) : sweep_of(*definition, options_.hud);
            if (!played) return refuse(played.problems());
            if (const Status looked = check_looks(checked, *played); !looked) return refuse({looked.problem()});
            check_flicker(checked, *played);
        }
        for (const Spoken& spoken : languages_)
            if (spoken.words != nullptr) spoken.words->report(*definition, spoken.tag, spoken.file, findings_);
        findings_.find_unused_acceptances(definition->accept_locations);
        findings_.print(options_.json, out_);
        if (!options_.json) print_summary(game);
        return findings_.empty() ? Exit::fine : Exit::problems;
    }

 private:
    Exit refuse(const Problems& problems) {
        print_problems(problems, err_);
        return Exit::problems;
    }
    const Trace* trace() const { return trace_ ? &*trace_ : nullptr; }

    /// A language with a fault is left out, and the others are looked at.
    void read_languages() {
        languages_.emplace_back();
        const auto report = [this](const std::string& language, const Problems& problems) {
            for (const Problem& problem : problems)
                findings_.add("language " + language + to_string(problem), {problem});
        };
        for (std::size_t i = 0; i < options_.languages.size(); ++i) {
            Spoken spoken;
            spoken.tag = options_.languages[i];
            if (i < options_.translations.size()) spoken.file = options_.translations[i];
            Result<Language> known = language_of(spoken.tag, spoken.file);
            if (!known) {
                report(spoken.tag, known.problems());
                continue;
            }
            spoken.language = *std::move(known);
            if (!spoken.file.empty()) {
                spoken.words = std::make_unique<AskedWords>(std::move(spoken.language->translations));
                spoken.language->catalogue = spoken.words.get();
            }
            languages_.push_back(std::move(spoken));
        }
    }

    std::vector<Size> sizes(const HudDefinition& definition) const {
        if (!options_.sizes.empty()) return options_.sizes;
        std::vector<Size> sizes{definition.design};
        for (const Size usual : {Size{1920, 1080}, Size{800, 600}, Size{2560, 1080}})
            if (!(usual == definition.design)) sizes.push_back(usual);
        return sizes;
    }

    /// False where a part of the HUD could not be made, so that the rest is not worth looking at.
    bool check_statically(const Checked& checked) {
        Sources sources;
        std::optional<TracePlayer> player;
        if (trace_) {
            player.emplace(*trace_);
            sources = player->sources();
        }
        Hud hud(checked.definition, sources, &checked.fonts, &checked.images);
        hud.update(0.0);
        check_names(checked, hud, trace(), findings_);
        const bool is_whole = std::none_of(hud.problems().begin(), hud.problems().end(), [](const Problem& problem) {
            return problem.severity == Severity::error && problem.code != ProblemCode::unknown_source;
        });
        if (is_whole) check_parts(checked, hud, Places(checked.definition, hud), findings_);
        return is_whole;
    }

    Status check_looks(const Checked& checked, const Trace& played) {
        contrast_.emplace(checked, Backdrop{options_.background, options_.gray.value_or(std::array<double, 2>{0, 1})});
        windows_ = sizes(checked.definition);
        scales_ = options_.scales.empty() ? std::vector<double>{1} : options_.scales;
        std::vector<GameState> base{checked.game.usual()};
        for (GameState& moment : checked.game.moments(played, looked_at))
            base.push_back(std::move(moment));
        for (const Spoken& spoken : languages_) {
            const Language* const language = spoken.language ? &*spoken.language : nullptr;
            std::vector<GameState> states = base;
            for (GameState& widest : widest_states(checked, base, language))
                states.push_back(std::move(widest));
            const std::size_t looked_through = states.size();
            MessageStates of_messages;
            for (GameState& widest : widest_messages(checked, language, of_messages, looked_through))
                states.push_back(std::move(widest));
            Stage stage(checked, states, language);
            const Places places(checked.definition, stage.hud());
            const std::size_t drawn_each = (base.size() + drawn_moments - 1) / drawn_moments;
            const auto number = static_cast<double>(&spoken - languages_.data());
            for (std::size_t state = 0; state < looked_through; ++state) {
                progress_.at((number + static_cast<double>(state) / static_cast<double>(looked_through)) /
                             static_cast<double>(languages_.size()));
                stage.show(state);
                const bool is_drawn = language == nullptr && state % drawn_each == 0;
                const Status shown = check_state(stage, checked, places, spoken, states[state].when, is_drawn);
                if (!shown) return shown;
            }
            if (const Status timed = check_timers(stage, checked, places, spoken); !timed) return timed;
            stage.show(0);
            for (const Size window : windows_) {
                const Circumstances seen{window, scales_.front(), spoken.tag};
                stage.resize(window, scales_.front());
                Status compared;
                const auto compare = [&] {
                    if (compared && language == nullptr && window == windows_.front())
                        compared = compare_with_backdrop(stage, checked, places, seen);
                };
                look_at_messages(stage, checked, places, seen, of_messages, compare, findings_);
                if (!compared) return compared;
                if (language == nullptr) look_at_effects(stage, checked, places, seen, findings_);
            }
        }
        return {};
    }

    /// A state of the game in all sizes.
    Status check_state(Stage& stage, const Checked& checked, const Places& places, const Spoken& spoken,
                       const std::string& when, bool is_drawn) {
        for (const Size window : windows_)
            for (const double scale : scales_) {
                const Circumstances seen{.window = window, .scale = scale, .language = spoken.tag, .when = when};
                stage.resize(window, scale);
                look(stage, checked, places, seen, options_.smallest_text, findings_);
                ++looks_;
                // Over grays only the texts count, which are the same at every size.
                const bool is_compared = is_drawn && scale == scales_.front() &&
                                         (!options_.background.empty() || window == windows_.front());
                if (!is_compared) continue;
                if (Status compared = compare_with_backdrop(stage, checked, places, seen); !compared) return compared;
            }
        return {};
    }

    /// The timers of the HUD at their beginnings, marks and ends, however long they are.
    Status check_timers(Stage& stage, const Checked& checked, const Places& places, const Spoken& spoken) {
        constexpr std::size_t most_moments = 12;
        for (const Timer& timer : checked.definition.timers) {
            Seconds length = timer.duration.value_or(Seconds{60});
            // A stopwatch without an end is looked at for ten hours.
            const bool is_endless = timer.kind == TimerKind::stopwatch && !timer.duration;
            if (is_endless) length = Seconds{36'000};
            std::set<Seconds> moments{Seconds{0}, length / 2, length * 0.999, length};
            for (const Mark& mark : timer.marks)
                if (moments.size() < most_moments && mark.at <= length)
                    moments.insert(timer.kind == TimerKind::countdown ? length - mark.at : mark.at);
            stage.show(0);
            GameTimer* const running = stage.hud().timer(timer.id);
            if (running == nullptr) continue;
            running->start();
            Seconds now{0};
            for (const Seconds moment : moments) {
                stage.hud().update({.real = moment - now, .game = moment - now});
                now = moment;
                const std::string when =
                    "with timer '" + timer.id + "' after " + seconds_text(to_nanoseconds(moment)) + " s";
                if (const Status shown = check_state(stage, checked, places, spoken, when, false); !shown) return shown;
            }
        }
        return {};
    }

    /// In each theme.
    Status compare_with_backdrop(Stage& stage, const Checked& checked, const Places& places, Circumstances seen) {
        Hud& hud = stage.hud();
        const std::vector<Theme>& themes = checked.definition.themes;
        for (std::size_t i = 0; i < std::max<std::size_t>(themes.size(), 1); ++i) {
            if (i > 0) {
                hud.set_theme(themes[i].id);
                hud.update(0.0);
                seen.theme = themes[i].id;
            }
            if (Status compared = contrast_->look(hud, places, seen, findings_); !compared) return compared;
        }
        if (themes.size() > 1) {
            hud.set_theme(themes.front().id);
            hud.update(0.0);
        }
        return {};
    }

    /// Bands that are entered again and again within a second.
    void check_flicker(const Checked& checked, const Trace& played) {
        constexpr std::size_t most = 3;
        TracePlayer player(played);
        Hud hud(checked.definition, player.sources(), &checked.fonts, &checked.images);
        const Places places(checked.definition, hud);
        std::map<std::pair<std::string, std::string>, std::deque<Nanoseconds>> entered;
        const Nanoseconds first = played.rows().front().time;
        const Nanoseconds last = std::min(played.rows().back().time, first + to_nanoseconds(longest_played));
        Nanoseconds now = first, game_now = player.seek(first);
        hud.update(0.0);
        for (std::int64_t frame = 1; now < last; ++frame) {
            const Nanoseconds next = first + to_nanoseconds(Seconds{static_cast<double>(frame) / 60});
            const Nanoseconds game_next = player.seek(next);
            hud.update({.real = to_seconds(next - now), .game = to_seconds(game_next - game_now)});
            now = next;
            game_now = game_next;
            if (hud.flash_limited()) find_held_flashes(hud, places, seconds_text(now), findings_);
            for (const Event& event : hud.events()) {
                if (event.kind != EventKind::band_enter) continue;
                std::deque<Nanoseconds>& times = entered[{event.id, event.detail}];
                times.push_back(event.time);
                while (event.time - times.front() >= std::chrono::seconds(1))
                    times.pop_front();
                if (times.size() <= most) continue;
                const Nanoseconds began = times.front() + first;
                findings_.add(
                    "flicker " + event.id + " " + event.detail,
                    {{places.of(event.id, "bands"),
                      "'" + event.id + "' comes into band '" + event.detail + "' " + std::to_string(times.size()) +
                          " times within a second, from " + seconds_text(began) + " s on",
                      "give the band a 'margin', or let the value 'settle'", ProblemCode::flicker, Severity::warning},
                     event.id,
                     std::nullopt,
                     static_cast<double>(times.size()),
                     static_cast<double>(most)},
                    static_cast<double>(times.size()));
            }
        }
    }

    void print_summary(const GameStates& game) {
        err_ << options_.hud << ": "
             << (findings_.empty()
                     ? std::string("nothing found")
                     : std::to_string(findings_.count()) + (findings_.count() == 1 ? " thing found" : " things found"));
        if (looks_ > 0)
            err_ << ", in " << looks_ << " looks at it";
        else if (game.sources().empty())
            err_ << "; it declares no sources, so that it was not looked at" << (trace_ ? "" : ": give --trace");
        err_ << '\n';
        findings_.print_accepted(err_);
        if (!findings_.empty()) err_ << "'rapido why CODE' says what a word in brackets means\n";
    }

    const CheckOptions& options_;
    std::ostream& out_;
    std::ostream& err_;
    std::optional<Trace> trace_;
    std::vector<Spoken> languages_;
    Findings findings_;
    std::optional<ContrastCheck> contrast_;
    std::vector<Size> windows_;
    std::vector<double> scales_;
    std::size_t looks_ = 0;
    Progress progress_{"looking"};
};

}  // namespace

Exit check(const CheckOptions& options, std::ostream& out, std::ostream& err) {
    return Checker(options, out, err).run();
}

}  // namespace rapido::tool
