#include "tool/drive.hpp"

#include <algorithm>
#include <array>
#include <chrono>
#include <csignal>
#include <ostream>
#include <set>
#include <string>

#include "base/nearest.hpp"
#include "file/recording_lines.hpp"
#include "rapido/look/flash_limit.hpp"
#include "rapido/picture.hpp"
#include "tool/check_parts.hpp"
#include "tool/drive_values.hpp"
#include "tool/languages.hpp"
#include "tool/report.hpp"
#include "tool/running_hud.hpp"
#include "tool/system.hpp"
#include "tool/whole_file.hpp"
#ifdef RAPIDO_WITH_WINDOW
#include "rapido/window.hpp"
#endif

namespace rapido::tool {
namespace {

constexpr std::size_t most_told = 100;  ///< bad lines that are told one by one

/// Lines of standard input, as they come; what is not there yet is not waited for.
class Lines {
 public:
    bool has_ended() const { return ended_; }
    std::size_t number() const { return number_; }

    /// Waits until there is something, or for so long; then calls back for each whole line.
    template <class Take>
    void read(std::chrono::milliseconds longest, Take take) {
        // No more at once than can come in a frame: the HUD goes on, whatever pours in.
        for (int block = 0; block < 64 && !ended_; ++block) {
            const auto count = read_input(block_, block == 0 ? longest : std::chrono::milliseconds(0));
            if (!count) return;
            append(std::string_view(block_.data(), *count), take);
            if (*count > 0) continue;
            ended_ = true;
            if (!rest_.empty()) take(rest_, ++number_);
            rest_.clear();
        }
    }

 private:
    template <class Take>
    void append(std::string_view text, Take take) {
        while (!text.empty()) {
            const std::size_t end = text.find('\n');
            // A line without an end takes no more memory than one that is too long.
            if (rest_.size() <= DriveValues::longest_line) rest_ += text.substr(0, end);
            if (end == std::string_view::npos) return;
            text.remove_prefix(end + 1);
            ++number_;
            if (rest_.find_first_not_of(" \t\r") != std::string::npos) take(rest_, number_);
            rest_.clear();
        }
    }

    std::array<char, 65536> block_{};
    std::string rest_;
    std::size_t number_ = 0;
    bool ended_ = false;
};

/// Where calls are played that come by lines.
class Stage final : public CallStage {
 public:
    Stage(Hud& of, FlashLimit& limit) : CallStage(of), limit_(limit) {}
    Language language(const std::string& tag) override {
        const Result<Language> known = language_of(tag);
        if (!known) tell(known.problems());
        return known ? *known : Language{.tag = tag};
    }
    FlashLimit& flash_limit() override { return limit_; }
    void add_marker(std::uint64_t number, ElementRef) override { thing(number); }
    MarkerRef thing(std::uint64_t) override {
        tell(
            {{{}, "things cannot be marked one by one by lines", "give the markers 'entries'", ProblemCode::bad_call}});
        return {};
    }
    void add_timers() override {}
    void tell(const Problems& problems) override { told.insert(told.end(), problems.begin(), problems.end()); }

    Problems told;

 private:
    FlashLimit& limit_;
};

class Live {
 public:
    Live(const DriveOptions& options, std::ostream& out, std::ostream& err)
        : options_(options), out_(out), err_(err), running_(options.hud, values_.sources()) {}

    Exit run() {
        Viewing viewing{.size = options_.size, .scale = static_cast<float>(options_.scale), .theme = options_.theme};
        if (!options_.language.empty()) {
            Result<Language> known = language_of(options_.language, options_.translations);
            if (!known) return refuse(known.problems());
            viewing.language = *std::move(known);
        }
        running_.read();
        // Names that come with the first lines are no problem yet.
        if (running_.is_broken()) return refuse(running_.problems());
        running_.view(viewing);
        viewing_ = viewing;
        last_ = Clock::now();
#ifdef RAPIDO_WITH_WINDOW
        if (options_.window) return run_in_window();
#else
        if (options_.window) {
            err_ << "error: this build has no window; write pictures with --png\n";
            return Exit::usage;
        }
#endif
        while (!lines_.has_ended()) {
            lines_.read(std::chrono::milliseconds(16),
                        [this](std::string_view line, std::size_t number) { take(line, number); });
            if (const Exit exit = frame(); exit != Exit::fine) return exit;
            if (options_.png.empty() || Clock::now() - written_ < to_nanoseconds(Seconds{1 / options_.rate})) continue;
            if (const Exit exit = write_picture(); exit != Exit::fine) return exit;
        }
        return finish();
    }

 private:
    using Clock = std::chrono::steady_clock;

    Exit refuse(const Problems& problems) {
        print_problems(problems, err_);
        return Exit::problems;
    }

    void take(std::string_view line, std::size_t number) {
        ++lines_taken_;
        if (const auto call = read_call(line)) return play(*call, number);
        if (const Status taken = values_.take(line, number); !taken) return tell({taken.problem()});
        for (const DriveValues::News& news : values_.take_news())
            check(news, {"standard input", static_cast<int>(std::min<std::size_t>(number, INT32_MAX)), 0});
    }

    /// A name that no element asks for, or a value of a type that the HUD does not expect, once each.
    void check(const DriveValues::News& news, const Location& where) {
        const std::vector<DeclaredSource>& declared = running_.definition().sources;
        const auto known = std::find_if(declared.begin(), declared.end(),
                                        [&](const DeclaredSource& source) { return source.name == news.name; });
        const std::vector<std::string> wanted = running_.hud().wanted_sources();
        std::vector<std::string_view> names(wanted.begin(), wanted.end());
        for (const DeclaredSource& source : declared)
            names.push_back(source.name);
        Problem problem{where, "", "", ProblemCode::unknown_source, Severity::warning};
        if (std::find(names.begin(), names.end(), news.name) == names.end()) {
            problem.message = "no element asks for '" + news.name + "'";
            problem.hint = did_you_mean(news.name, names);
        } else if (known != declared.end() &&
                   (news.is_list ? known->type != SourceType::entries : !fits(news.type, known->type))) {
            problem.code = ProblemCode::wrong_type;
            problem.message = "'" + news.name + "' is " +
                              (news.is_list ? "a list" : "a value of the type " + std::string(to_string(news.type))) +
                              ", and the HUD expects one of the type " + word_of(known->type);
        }
        if (!problem.message.empty() && told_.insert(problem.message).second && told_.size() <= most_told)
            print_problems({problem}, err_);
    }

    /// A call on the HUD, in the words of recordings.
    void play(const Result<CallLine>& call, std::size_t number) {
        const std::size_t known = running_.hud().problems().size();
        Problems problems;
        if (call) {
            Stage stage(running_.hud(), limit_);
            call->kind->play(call->given.get(), stage);
            problems = std::move(stage.told);
            const Problems& all = running_.hud().problems();
            if (problems.empty() && all.size() > known)
                problems.assign(all.begin() + static_cast<std::ptrdiff_t>(known), all.end());
        } else {
            problems = call.problems();
        }
        for (Problem& problem : problems)
            problem.location = {"standard input", static_cast<int>(std::min<std::size_t>(number, INT32_MAX)), 0};
        if (!problems.empty()) tell(problems);
    }

    void tell(const Problems& problems) {
        if (++bad_ <= most_told) print_problems(problems, err_);
        if (bad_ == most_told) err_ << "further lines that are skipped are only counted\n";
    }

    Exit frame() {
        const Clock::time_point now = Clock::now();
        if (running_.follow() && running_.is_broken()) print_problems(running_.problems(), err_);
        running_.hud().update(Seconds{now - last_});
        last_ = now;
        if (!options_.events) return Exit::fine;
        for (const Event& event : running_.hud().events())
            print_events({event}, true, out_);
        out_.flush();
        return Exit::fine;
    }

    Exit write_picture() {
        written_ = Clock::now();
        Picture picture(static_cast<int>(options_.size.width), static_cast<int>(options_.size.height), running_.fonts(),
                        &running_.images());
        picture.fill(rgb(0x39485a));
        if (!options_.background.empty())
            if (const Status drawn = picture.draw_image(options_.background); !drawn) return refuse({drawn.problem()});
        running_.hud().draw(list_);
        picture.draw(list_);
        const Status written = write_whole(options_.png, [&](const std::string& to) { return picture.write_png(to); });
        return written ? Exit::fine : refuse({written.problem()});
    }

    /// What was said last is shown, when all has landed.
    Exit finish() {
        for (int i = 0; i < 120; ++i)
            running_.hud().update(1.0 / 60);
        if (!options_.png.empty()) {
            if (const Exit exit = write_picture(); exit != Exit::fine) return exit;
            err_ << "wrote " << options_.png << '\n';
        }
        if (options_.table)
            print_table(rows_of(running_.hud(), running_.hud().now()), usual_columns(), options_.json, out_);
        err_ << lines_taken_ << " lines, " << bad_ << " of them skipped\n";
        // Names that have come in the meantime are no problem any more.
        const Hud known(running_.definition(), values_.sources(), &running_.fonts(), &running_.images());
        const Problems& problems = known.problems();
        print_problems(problems, err_);
        return bad_ == 0 && problems.empty() ? Exit::fine : Exit::problems;
    }

#ifdef RAPIDO_WITH_WINDOW
    Exit run_in_window() {
        HudWindow window(running_.fonts(), &running_.images(),
                         {.title = "rapido drive: " + options_.hud,
                          .width = static_cast<int>(options_.size.width),
                          .height = static_cast<int>(options_.size.height)});
        while (window.next_frame()) {
            for (const WindowEvent& event : window.events())
                if (event.key == "escape" || event.key == "q") window.close();
            lines_.read(std::chrono::milliseconds(0),
                        [this](std::string_view line, std::size_t number) { take(line, number); });
            if (const Size size = window.viewport().size; !(size == viewing_.size)) {
                viewing_.size = size;
                running_.view(viewing_);
            }
            if (const Exit exit = frame(); exit != Exit::fine) return exit;
            running_.hud().draw(list_);
            window.clear(rgb(0x39485a));
            window.draw(list_);
        }
        if (!window.status()) return refuse({window.status().problem()});
        return finish();
    }
#endif

    const DriveOptions& options_;
    std::ostream& out_;
    std::ostream& err_;
    std::set<std::string> told_;  ///< of names and types
    DriveValues values_;
    FlashLimit limit_;
    RunningHud running_;
    Viewing viewing_;
    Lines lines_;
    DisplayList list_;
    std::size_t lines_taken_ = 0, bad_ = 0;
    Clock::time_point last_{}, written_{};
};

}  // namespace

Exit live(const DriveOptions& options, std::ostream& out, std::ostream& err) {
    return Live(options, out, err).run();
}

}  // namespace rapido::tool
