#include "tool/preview.hpp"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <ostream>
#include <thread>

#include "rapido/locale.hpp"
#include "rapido/picture.hpp"
#include "tool/game_play.hpp"
#include "tool/game_states.hpp"
#include "tool/preview_frame.hpp"
#include "tool/report.hpp"
#include "tool/running_hud.hpp"
#include "tool/sweep.hpp"
#ifdef RAPIDO_WITH_WINDOW
#include "rapido/window.hpp"
#endif

namespace rapido::tool {
namespace {

constexpr Color dusk = rgb(0x39485a);
constexpr std::array<double, 6> speeds{0.1, 0.25, 0.5, 1, 2, 4};
constexpr std::array<float, 6> scales{0.75F, 1, 1.25F, 1.5F, 2, 3};
constexpr Seconds note_time{3};

std::string size_text(Size size) {
    return std::to_string(std::lround(size.width)) + "x" + std::to_string(std::lround(size.height));
}

/// The preview, whatever shows it.
class Preview {
 public:
    Preview(const PreviewOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err), running_(options.hud, play_.sources()) {}

    Problems open() {
        languages_.emplace_back();
        for (std::size_t i = 0; i < options_.locales.size(); ++i) {
            Result<Language> known = language(options_.locales[i]);
            if (!known) return known.problems();
            if (i < options_.translations.size()) {
                auto translations = read_translations_file(options_.translations[i]);
                if (!translations) return translations.problems();
                known->translations = *std::move(translations);
            }
            languages_.emplace_back(*std::move(known));
        }
        // What is asked for comes first.
        language_ = options_.locales.empty() ? 0 : 1;
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
        view({sizes_.front()});
        go_to(play_.first() + to_nanoseconds(Seconds{options_.at}));
        is_playing_ = !options_.paused;
        return {};
    }

    /// A picture in place of a window.
    Exit run_without_window() {
        if (options_.point) return explain();
        Exit exit = write_picture(options_.png);
        if (!options_.watch) {
            print_problems(running_.problems(), err_);
            return running_.problems().empty() ? exit : Exit::problems;
        }
        while (true) {
            std::this_thread::sleep_for(std::chrono::milliseconds(30));
            if (!running_.follow()) continue;
            take_up();
            running_.hud().update(0.0);
            exit = write_picture(options_.png);
            if (exit != Exit::fine) return exit;
        }
    }

#ifdef RAPIDO_WITH_WINDOW
    Exit run_in_window() {
        const float bar = PreviewFrame::bar_height;
        HudWindow window(running_.fonts(), &running_.images(),
                         {.title = "rapido preview: " + options_.hud,
                          .width = static_cast<int>(sizes_.front().width),
                          .height = static_cast<int>(sizes_.front().height + bar)});
        PreviewFrame frame(running_.fonts(), &running_.images());
        Hud behind({.design = {100, 100}, .fit = Fit::fill}, {}, &running_.fonts(), &running_.images());
        put_background(behind);
        DrawList background, list, overlay, around;
        while (window.next_frame()) {
            const float ratio = window.pixel_ratio();
            Size whole = window.viewport().size;
            whole.height = std::max(whole.height - bar * ratio, 1.0F);
            if (!(whole == viewing_.size)) view({whole});
            for (const WindowEvent& event : window.events())
                obey(event, window);
            if (running_.follow()) {
                take_up();
                note(running_.is_broken() ? "the file has faults" : "read again");
            }
            advance(window.elapsed());
            running_.hud().draw(list);
            behind.resize({.size = whole});
            behind.update(window.elapsed());
            behind.draw(background);
            frame.show(says(), window.viewport(), ratio, window.elapsed());
            frame.draw(around);
            window.clear(dusk);
            window.draw(background);
            window.draw(list);
            if (shows_boxes_ || pinned_) {
                running_.hud().draw_overlay(overlay, pinned_ ? *pinned_ : window.pointer());
                window.draw(overlay);
            }
            window.draw(around);
            if (!window.status()) break;
        }
        if (window.status()) return Exit::fine;
        print_problems({window.status().problem()}, err_);
        return Exit::problems;
    }
#endif

 private:
    SourceType guessed(const std::string& name, const std::string& typed) const {
        const Value now = play_.value(name);
        if (now.type() == Value::Type::text) return SourceType::text;
        if (now.type() == Value::Type::boolean) return SourceType::flag;
        if (now.is_integer() && value_of(typed, SourceType::integer)) return SourceType::integer;
        if (typed == "true" || typed == "false") return SourceType::flag;
        if (value_of(typed, SourceType::number)) return SourceType::number;
        return SourceType::text;
    }

    /// Without a trace, what the HUD declares goes through its ranges.
    void offer_sweep() {
        const std::vector<DeclaredSource>& declared = running_.definition().sources;
        play_.declare(declared);
        if (!options_.trace.empty() || declared.empty() || declared == swept_) return;
        swept_ = declared;
        if (Result<Trace> trace = sweep_of(running_.definition(), options_.hud); trace) {
            play_.play(*std::move(trace));
            play_.seek(now_);
        }
    }

    /// What another definition asks for.
    void take_up() {
        offer_sweep();
        view({viewing_.size});
    }

    struct ViewSize {
        Size size;
    };
    /// The one that was chosen, while the file has it; else its first one.
    std::string theme() const {
        const std::vector<Theme>& themes = running_.definition().themes;
        for (const Theme& theme : themes)
            if (theme.id == theme_) return theme_;
        return themes.empty() ? std::string() : themes.front().id;
    }

    void view(const ViewSize& size) {
        viewing_ = {.size = size.size,
                    .scale = scale_,
                    .reduced_motion = reduced_motion_,
                    .theme = theme(),
                    .language = languages_[language_] ? languages_[language_] : Language{}};
        running_.view(viewing_);
    }

    // --- Time

    /// Begins anew and comes to a moment, so that timers and motions are as they would be.
    void go_to(Nanoseconds moment) {
        constexpr Nanoseconds longest = std::chrono::minutes(10);
        moment = std::clamp(moment, play_.first(), std::max(play_.last(), play_.first()));
        now_ = std::max(play_.first(), moment - longest);
        game_now_ = play_.seek(now_);
        running_.restart();
        running_.hud().update(0.0);
        while (now_ < moment) {
            const bool is_near = moment - now_ < std::chrono::seconds(2);
            step(
                std::min<Nanoseconds>(moment - now_, to_nanoseconds(Seconds{is_near ? 1.0 / 60 : 1.0 / 30})));
        }
    }

    void step(Nanoseconds length) {
        const Nanoseconds game = play_.seek(now_ + length);
        running_.hud().update({.real = to_seconds(length), .game = to_seconds(game - game_now_)});
        now_ += length;
        game_now_ = game;
    }

    void advance(Seconds elapsed) {
        note_left_ -= elapsed;
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

    // --- What is said

    void note(const std::string& text) {
        note_ = text;
        note_left_ = note_time;
    }

    PreviewFrame::Says says() const {
        PreviewFrame::Says says;
        says.file = options_.hud;
        says.state = std::string(is_playing_ ? "playing" : "standing") +
                     (speeds[speed_] == 1 ? "" : " at " + said(Value(speeds[speed_])) + " x");
        const Nanoseconds whole = play_.last() - play_.first();
        const auto seconds = [](Nanoseconds time) {
            const auto tenths = std::chrono::duration_cast<std::chrono::milliseconds>(time).count() / 100;
            return std::to_string(tenths / 10) + "." + std::to_string(tenths % 10);
        };
        says.time = seconds(now_) + " of " + seconds(play_.last()) + " s";
        says.part = whole.count() > 0 ? to_seconds(now_ - play_.first()) / to_seconds(whole) : 0;
        says.view = size_text(viewing_.size);
        if (scale_ != 1)
            says.view += "  scale " + said(Value(std::round(static_cast<double>(scale_) * 100) / 100));
        if (!viewing_.language->tag.empty()) says.view += "  " + viewing_.language->tag;
        if (!viewing_.theme.empty()) says.view += "  " + viewing_.theme;
        if (reduced_motion_) says.view += "  without movement";
        says.is_broken = running_.is_broken();
        says.is_nothing = running_.is_broken() && running_.definition().files.empty();
        for (const Problem& problem : running_.problems())
            says.problems.push_back(to_string(problem));
        says.shows_keys = shows_keys_;
        if (note_left_ > Seconds{0}) says.note = note_;
        if (!shows_values_) return says;
        const std::vector<std::string> names = play_.names();
        for (std::size_t i = 0; i < names.size(); ++i) {
            const DeclaredSource* const declared = play_.declared(names[i]);
            const bool has_range = declared != nullptr && declared->range.low < declared->range.high;
            const Value value = play_.value(names[i]);
            says.values.push_back(
                {.name = names[i],
                 .value = value.is_real() ? said(Value(std::round(value.number() * 100) / 100)) : said(value),
                 .range = !has_range ? std::string()
                                     : said(Value(declared->range.low)) + " to " +
                                           said(Value(declared->range.high)) +
                                           (declared->unit.empty() ? "" : " " + declared->unit),
                 .is_chosen = i == chosen_,
                 .is_by_hand = play_.is_by_hand(names[i])});
        }
        if (!typed_.empty()) says.typed = names[chosen_] + " = " + typed_;
        return says;
    }

    Exit explain() {
        const ElementRef ref = running_.hud().element_at(*options_.point);
        if (!running_.hud().alive(ref)) {
            print_problems(running_.problems(), err_);
            err_ << "error: no element at " << said(Value(options_.point->x)) << ","
                 << said(Value(options_.point->y)) << '\n';
            return Exit::problems;
        }
        out_ << running_.hud().explain(ref).text();
        return Exit::fine;
    }

    // --- Pictures

    Exit write_picture(const std::string& path) {
        const int width = static_cast<int>(viewing_.size.width),
                  height = static_cast<int>(viewing_.size.height);
        Picture picture(width, height, running_.fonts(), &running_.images());
        picture.fill(dusk);
        if (!options_.background.empty())
            if (const Status drawn = picture.draw_image(options_.background); !drawn)
                return refuse(drawn.problem());
        DrawList list;
        running_.hud().draw(list);
        picture.draw(list);
        if (!running_.problems().empty()) {
            // What is wrong stands over it, as in the window.
            PreviewFrame frame(running_.fonts(), &running_.images());
            PreviewFrame::Says problems = says();
            problems.has_bar = false;
            frame.show(problems, {.size = viewing_.size}, 1, Seconds{0});
            DrawList around;
            frame.draw(around);
            picture.draw(around);
        }
        // Written aside and then put in its place, so that who looks at it never sees half of it.
        const std::string aside = path + ".part";
        if (const Status written = picture.write_png(aside); !written) return refuse(written.problem());
        if (std::rename(aside.c_str(), path.c_str()) != 0)
            return refuse({{path}, "cannot be written", "", ProblemCode::unwritable});
        err_ << "wrote " << path << '\n';
        return Exit::fine;
    }

    Exit refuse(const Problem& problem) {
        print_problems({problem}, err_);
        return Exit::problems;
    }

#ifdef RAPIDO_WITH_WINDOW
    void put_background(Hud& behind) {
        if (options_.background.empty()) {
            behind.add(Panel{.id = "dusk",
                             .place = {.stretch = Stretch::both},
                             .color = rgb(0x55677a),
                             .end_color = rgb(0x1d252e),
                             .radius = 0.0F});
            return;
        }
        Picture picture(1920, 1200, running_.fonts());
        if (const Status drawn = picture.draw_image(options_.background); !drawn)
            return note(drawn.problem().message);
        std::vector<Color> pixels;
        pixels.reserve(static_cast<std::size_t>(picture.width()) *
                       static_cast<std::size_t>(picture.height()));
        for (int y = 0; y < picture.height(); ++y)
            for (int x = 0; x < picture.width(); ++x)
                pixels.push_back(picture.pixel(x, y));
        // A name that no file can have.
        const std::string name =
            "\x01"
            "background";
        if (!running_.images().add(name, picture.width(), picture.height(), pixels)) return;
        behind.add(Image{
            .id = "picture", .image = name, .place = {.stretch = Stretch::both}, .fit = ImageFit::fill});
    }

    // --- Keys

    void obey(const WindowEvent& event, HudWindow& window) {
        if (event.kind == WindowEvent::Kind::press) {
            pinned_ = pinned_ ? std::nullopt : std::optional(event.at);
            return;
        }
        if (shows_values_ && set_value(event)) return;
        if (event.kind == WindowEvent::Kind::text) return obey_text(event.text);
        if (event.kind != WindowEvent::Kind::key) return;
        const Nanoseconds way = std::chrono::seconds(event.shift ? 10 : 1);
        if (event.key == "left") go_to(now_ - way);
        if (event.key == "right") go_to(now_ + way);
        if (event.key == "home") go_to(play_.first());
        if (event.key == "up") speed_ = std::min(speed_ + 1, speeds.size() - 1);
        if (event.key == "down" && speed_ > 0) --speed_;
        if (event.key == "escape") {
            if (shows_keys_ || pinned_) {
                shows_keys_ = false;
                pinned_.reset();
            } else {
                window.close();
            }
        }
        if (event.key == "s" && !event.repeats) {
            size_ = (size_ + 1) % sizes_.size();
            window.resize(static_cast<int>(sizes_[size_].width),
                          static_cast<int>(sizes_[size_].height + PreviewFrame::bar_height));
        }
        if (event.key == "q") window.close();
    }

    /// Keys that stand elsewhere on other keyboards are told by what they type.
    void obey_text(const std::string& text) {
        if (text == " ") is_playing_ = !is_playing_;
        if (text == ".") {
            is_playing_ = false;
            if (now_ < play_.last()) step(to_nanoseconds(Seconds{1.0 / 60}));
        }
        if (text == "+" || text == "=") change_scale(1);
        if (text == "-") change_scale(-1);
        if (text == "l" && languages_.size() > 1) {
            language_ = (language_ + 1) % languages_.size();
            view({viewing_.size});
        }
        if (text == "t") next_theme();
        if (text == "m") {
            reduced_motion_ = !reduced_motion_;
            view({viewing_.size});
        }
        if (text == "b") shows_boxes_ = !shows_boxes_;
        if (text == "h") shows_keys_ = !shows_keys_;
        if (text == "v" && !play_.names().empty()) shows_values_ = true;
        if (text == "p") {
            const std::string path = options_.png.empty() ? "preview.png" : options_.png;
            note(write_picture(path) == Exit::fine ? "wrote " + path : path + " cannot be written");
        }
    }

    /// While values are set by hand, keys belong to that. False for one that does not.
    bool set_value(const WindowEvent& event) {
        const std::vector<std::string> names = play_.names();
        chosen_ = std::min(chosen_, names.size() - 1);
        const std::string& name = names[chosen_];
        const DeclaredSource guess{.name = name, .type = guessed(name, typed_)};
        const DeclaredSource& source = play_.declared(name) != nullptr ? *play_.declared(name) : guess;
        if (event.kind == WindowEvent::Kind::text) {
            if (event.text == "v" && typed_.empty() && source.type != SourceType::text)
                shows_values_ = false;
            else
                typed_ += event.text;
            return true;
        }
        if (event.kind == WindowEvent::Kind::wheel) {
            play_.set_by_hand(name, stepped(source, play_.value(name), event.steps > 0 ? 1 : -1));
            return true;
        }
        if (event.kind != WindowEvent::Kind::key) return false;
        if (event.key == "up") chosen_ = (chosen_ + names.size() - 1) % names.size();
        if (event.key == "down") chosen_ = (chosen_ + 1) % names.size();
        if (event.key == "up" || event.key == "down") typed_.clear();
        if (event.key == "left") play_.set_by_hand(name, stepped(source, play_.value(name), -1));
        if (event.key == "right") play_.set_by_hand(name, stepped(source, play_.value(name), 1));
        if (event.key == "backspace" && !typed_.empty()) typed_.pop_back();
        if (event.key == "delete") play_.give_back(name);
        if (event.key == "return" && !typed_.empty()) {
            if (const auto value = value_of(typed_, source.type))
                play_.set_by_hand(name, *value);
            else
                note("'" + typed_ + "' is no value of " + name);
            typed_.clear();
        }
        if (event.key == "escape") {
            if (typed_.empty()) shows_values_ = false;
            typed_.clear();
        }
        return true;
    }

    void change_scale(int steps) {
        auto at = static_cast<int>(
            std::min_element(scales.begin(), scales.end(),
                             [&](float a, float b) { return std::abs(a - scale_) < std::abs(b - scale_); }) -
            scales.begin());
        at = std::clamp(at + steps, 0, static_cast<int>(scales.size()) - 1);
        scale_ = scales[static_cast<std::size_t>(at)];
        view({viewing_.size});
    }

    void next_theme() {
        const std::vector<Theme>& themes = running_.definition().themes;
        if (themes.size() < 2) return;
        const auto now = std::find_if(themes.begin(), themes.end(),
                                      [&](const Theme& theme) { return theme.id == viewing_.theme; });
        theme_ = now == themes.end() || now + 1 == themes.end() ? themes.front().id : (now + 1)->id;
        view({viewing_.size});
    }
#endif

    const PreviewOptions& options_;
    std::ostream& out_;
    std::ostream& err_;
    GamePlay play_;
    RunningHud running_;
    std::vector<DeclaredSource> swept_;
    Viewing viewing_;
    std::vector<std::optional<Language>> languages_;
    std::vector<Size> sizes_;
    std::string theme_;
    float scale_ = 1;
    bool reduced_motion_ = false;
    std::size_t language_ = 0, size_ = 0, speed_ = 3;
    Nanoseconds now_{0}, game_now_{0};
    bool is_playing_ = true;
    bool shows_boxes_ = false, shows_keys_ = false, shows_values_ = false;
    std::optional<Point> pinned_;
    std::size_t chosen_ = 0;
    std::string typed_, note_;
    Seconds note_left_{0};
};

}  // namespace

Exit preview(const PreviewOptions& options, std::ostream& out, std::ostream& err) {
    Preview preview(options, out, err);
    if (const Problems problems = preview.open(); !problems.empty()) {
        print_problems(problems, err);
        return Exit::problems;
    }
    if (options.point || !options.png.empty()) return preview.run_without_window();
#ifdef RAPIDO_WITH_WINDOW
    return preview.run_in_window();
#else
    err << "error: this build has no window; write pictures with --png F --watch\n";
    return Exit::usage;
#endif
}

}  // namespace rapido::tool
