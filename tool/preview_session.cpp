#include "tool/preview_session.hpp"
#include "tool/languages.hpp"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <ostream>

#include "rapido/debug.hpp"
#include "rapido/picture.hpp"
#include "tool/game_states.hpp"
#include "tool/palette.hpp"
#include "tool/ranges.hpp"
#include "tool/report.hpp"
#include "tool/sample_entries.hpp"
#include "tool/whole_file.hpp"

namespace rapido::tool {
namespace {

constexpr std::array<double, 6> speeds{0.1, 0.25, 0.5, 1, 2, 4};
constexpr std::array<float, 6> scales{0.75F, 1, 1.25F, 1.5F, 2, 3};

std::string size_text(Size size) {
    return std::to_string(std::lround(size.width)) + "x" + std::to_string(std::lround(size.height));
}

}  // namespace

Problems PreviewSession::open() {
    languages_.emplace_back();
    for (std::size_t i = 0; i < options_.languages.size(); ++i) {
        Result<Language> known =
            language_of(options_.languages[i], i < options_.translations.size() ? options_.translations[i] : "");
        if (!known) return known.problems();
        languages_.emplace_back(*std::move(known));
    }
    // What is asked for comes first.
    language_ = options_.languages.empty() ? 0 : 1;
    running_.read();
    if (!options_.trace.empty()) {
        Result<Trace> trace = Trace::read_file(options_.trace);
        if (!trace) return trace.problems();
        play_.play(*std::move(trace));
    }
    offer_sweep();
    for (const std::string& set : options_.set) {
        const std::size_t equals = set.find('=');
        const std::string name = set.substr(0, equals);
        const DeclaredSource* const declared = play_.declared(name);
        const std::string typed = equals == std::string::npos ? "" : set.substr(equals + 1);
        const auto value = value_of(typed, declared != nullptr ? declared->type : guessed(name, typed));
        if (equals == std::string::npos || !value)
            return {{{},
                     "--set '" + set + "' gives no value",
                     "write NAME=VALUE, such as plane.water=300",
                     ProblemCode::wrong_type}};
        play_.set_by_hand(name, *value);
    }
    sizes_ = options_.sizes;
    if (sizes_.empty()) sizes_ = {running_.definition().design, {1920, 1080}, {800, 600}, {2560, 1080}};
    scale_ = static_cast<float>(options_.scale);
    theme_ = options_.theme;
    if (!theme_.empty()) {
        const std::vector<Theme>& themes = running_.definition().themes;
        const auto is_it = [&](const Theme& theme) { return theme.id == theme_; };
        if (!running_.is_broken() && std::none_of(themes.begin(), themes.end(), is_it))
            return {{{options_.hud}, "has no theme '" + theme_ + "'", "", ProblemCode::unknown_name}};
    }
    view(sizes_.front());
    go_to(play_.first() + to_nanoseconds(Seconds{options_.at}));
    is_playing_ = !options_.paused;
    return {};
}

bool PreviewSession::follow() {
    if (!running_.follow()) return false;
    take_up();
    running_.hud().update(0.0);
    return true;
}

SourceType PreviewSession::guessed(const std::string& name, const std::string& typed) const {
    const Value now = play_.value(name);
    if (now.type() == Value::Type::text) return SourceType::text;
    if (now.type() == Value::Type::flag) return SourceType::flag;
    if (now.is_integer() && value_of(typed, SourceType::integer)) return SourceType::integer;
    if (typed == "true" || typed == "false") return SourceType::flag;
    if (value_of(typed, SourceType::number)) return SourceType::number;
    return SourceType::text;
}

/// Without a trace, what the HUD declares goes through its ranges.
void PreviewSession::offer_sweep() {
    const std::vector<DeclaredSource> declared = sources_with_places(running_.definition());
    play_.declare(declared);
    if (!options_.trace.empty() || declared.empty() || declared == swept_) return;
    swept_ = declared;
    if (Result<Trace> trace = sweep_of(running_.definition(), options_.hud); trace) {
        play_.play(*std::move(trace));
        play_.seek(now_);
    }
}

/// What another definition asks for.
void PreviewSession::take_up() {
    offer_sweep();
    view(viewing_.size);
}

/// The one that was chosen, while the file has it; else its first one.
std::string PreviewSession::theme() const {
    const std::vector<Theme>& themes = running_.definition().themes;
    for (const Theme& theme : themes)
        if (theme.id == theme_) return theme_;
    return themes.empty() ? std::string() : themes.front().id;
}

void PreviewSession::view(Size size) {
    viewing_ = {.size = size,
                .scale = scale_,
                .reduced_motion = reduced_motion_,
                .theme = theme(),
                .language = languages_[language_] ? languages_[language_] : Language{}};
    running_.view(viewing_);
}

// --- Time

/// Begins anew and comes to a moment, so that timers and motions are as they would be.
void PreviewSession::go_to(Nanoseconds moment) {
    constexpr Nanoseconds longest = std::chrono::minutes(10);
    moment = std::clamp(moment, play_.first(), std::max(play_.last(), play_.first()));
    now_ = std::max(play_.first(), moment - longest);
    game_now_ = play_.seek(now_);
    running_.restart();
    running_.hud().update(0.0);
    while (now_ < moment) {
        const bool is_near = moment - now_ < std::chrono::seconds(2);
        step(std::min<Nanoseconds>(moment - now_, to_nanoseconds(Seconds{is_near ? 1.0 / 60 : 1.0 / 30})));
    }
}

void PreviewSession::step(Nanoseconds length) {
    const Nanoseconds game = play_.seek(now_ + length);
    running_.hud().update({.real = to_seconds(length), .game = to_seconds(game - game_now_)});
    now_ += length;
    game_now_ = game;
}

void PreviewSession::advance(Seconds elapsed) {
    if (!is_playing_ || (play_.last() <= play_.first())) {
        running_.hud().update(is_playing_ ? elapsed : Seconds{0});
        return;
    }
    const Nanoseconds length = to_nanoseconds(elapsed * speeds[speed_]);
    if (now_ + length < play_.last()) return step(length);
    if (options_.trace.empty()) {
        // A sweep ends as it began.
        now_ = play_.first();
        game_now_ = play_.seek(now_);
        running_.hud().update(elapsed);
    } else {
        step(play_.last() - now_);
        is_playing_ = false;
    }
}

void PreviewSession::step_frame() {
    is_playing_ = false;
    if (now_ < play_.last()) step(to_nanoseconds(Seconds{1.0 / 60}));
}

void PreviewSession::change_speed(int steps) {
    const auto at = static_cast<int>(speed_) + steps;
    speed_ = static_cast<std::size_t>(std::clamp(at, 0, static_cast<int>(speeds.size()) - 1));
}

// --- How it is seen

void PreviewSession::change_scale(int steps) {
    auto at = static_cast<int>(
        std::min_element(scales.begin(), scales.end(),
                         [&](float a, float b) { return std::abs(a - scale_) < std::abs(b - scale_); }) -
        scales.begin());
    at = std::clamp(at + steps, 0, static_cast<int>(scales.size()) - 1);
    scale_ = scales[static_cast<std::size_t>(at)];
    view(viewing_.size);
}

void PreviewSession::next_theme() {
    const std::vector<Theme>& themes = running_.definition().themes;
    if (themes.size() < 2) return;
    const auto now =
        std::find_if(themes.begin(), themes.end(), [&](const Theme& theme) { return theme.id == viewing_.theme; });
    theme_ = now == themes.end() || now + 1 == themes.end() ? themes.front().id : (now + 1)->id;
    view(viewing_.size);
}

void PreviewSession::next_language() {
    language_ = (language_ + 1) % languages_.size();
    view(viewing_.size);
}

void PreviewSession::toggle_reduced_motion() {
    reduced_motion_ = !reduced_motion_;
    view(viewing_.size);
}

// --- What is told of it

PreviewFrame::Says PreviewSession::says() const {
    PreviewFrame::Says says;
    says.file = options_.hud;
    says.state = std::string(is_playing_ ? "playing" : "paused") +
                 (speeds[speed_] == 1 ? "" : " at " + said(Value(speeds[speed_])) + " x");
    const Nanoseconds whole = play_.last() - play_.first();
    const auto seconds = [](Nanoseconds time) {
        const auto tenths = std::chrono::duration_cast<std::chrono::milliseconds>(time).count() / 100;
        return std::to_string(tenths / 10) + "." + std::to_string(tenths % 10);
    };
    says.time = seconds(now_) + " of " + seconds(play_.last()) + " s";
    says.part = whole.count() > 0 ? to_seconds(now_ - play_.first()) / to_seconds(whole) : 0;
    says.view = size_text(viewing_.size);
    if (scale_ != 1) says.view += "  scale " + said(Value(std::round(static_cast<double>(scale_) * 100) / 100));
    if (!viewing_.language->tag.empty()) says.view += "  " + viewing_.language->tag;
    if (!viewing_.theme.empty()) says.view += "  " + viewing_.theme;
    if (reduced_motion_) says.view += "  without movement";
    says.is_broken = running_.is_broken();
    says.is_nothing = running_.is_broken() && running_.definition().files.empty();
    for (const Problem& problem : running_.problems())
        says.problems.push_back(to_string(problem));
    return says;
}

Exit PreviewSession::explain() {
    const ElementRef ref = running_.hud().element_at(*options_.point);
    if (!running_.hud().alive(ref)) {
        print_problems(running_.problems(), err_);
        err_ << "error: no element at " << said(Value(options_.point->x)) << "," << said(Value(options_.point->y))
             << '\n';
        return Exit::problems;
    }
    out_ << rapido::explain(running_.hud(), ref).text();
    return Exit::fine;
}

Exit PreviewSession::write_picture(const std::string& path) {
    const int width = static_cast<int>(viewing_.size.width), height = static_cast<int>(viewing_.size.height);
    Picture picture(width, height, running_.fonts(), &running_.images());
    picture.fill(backdrop);
    if (!options_.background.empty())
        if (const Status drawn = picture.draw_image(options_.background); !drawn) return refuse(drawn.problem());
    DisplayList list;
    running_.hud().draw(list);
    picture.draw(list);
    if (!running_.problems().empty()) {
        // What is wrong stands over it, as in the window.
        PreviewFrame frame(running_.fonts(), &running_.images());
        PreviewFrame::Says problems = says();
        problems.has_bar = false;
        frame.show(problems, {.size = viewing_.size}, 1, Seconds{0});
        DisplayList around;
        frame.draw(around);
        picture.draw(around);
    }
    const Status written = write_whole(path, [&](const std::string& to) { return picture.write_png(to); });
    if (!written) return refuse(written.problem());
    err_ << "wrote " << path << '\n';
    return Exit::fine;
}

void PreviewSession::report(const Problems& problems) const {
    print_problems(problems, err_);
}

Exit PreviewSession::refuse(const Problem& problem) const {
    print_problems({problem}, err_);
    return Exit::problems;
}

}  // namespace rapido::tool
