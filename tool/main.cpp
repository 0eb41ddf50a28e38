// The command line: declared here, done elsewhere.
#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <iostream>

#include "base/nearest.hpp"
#include "tool/commands.hpp"
#include "tool/manual.hpp"
#include "tool/plain_output.hpp"
#include "tool/play.hpp"
#include "tool/plot.hpp"
#include "tool/report.hpp"
#include "tool/sources.hpp"
#include "tool/system.hpp"

namespace {

using rapido::tool::add_replay;
using rapido::tool::check_finite;
using rapido::tool::Exit;
using rapido::tool::PlayOptions;
using rapido::tool::PlotOptions;
using rapido::tool::program_path;
using rapido::tool::ReplayOptions;

/// Nothing for a file that cannot be read, which is told later.
std::optional<bool> is_recording(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    if (!file) return std::nullopt;
    std::string begin(64, '\0');
    file.read(begin.data(), static_cast<std::streamsize>(begin.size()));
    begin.resize(static_cast<std::size_t>(std::max<std::streamsize>(file.gcount(), 0)));
    return rapido::Recording::is_recording(begin);
}

/// What goes together: a recording says itself what all else is asked for.
void check_replay(const CLI::App& command, const ReplayOptions& options) {
    const std::optional<bool> known = is_recording(options.hud);
    if (options.ranges && !options.trace.empty())
        throw CLI::ValidationError("--ranges", "stands for a trace; leave one of both away");
    if (options.ranges) return;
    const bool is_whole = known.value_or(options.trace.empty());
    if (is_whole && !options.trace.empty())
        throw CLI::ValidationError("--trace", "a recording holds its values; leave --trace away");
    if (!is_whole && options.trace.empty())
        throw CLI::ValidationError("--trace", "or --ranges is required, unless HUD is a recording");
    if (!is_whole && !is_recording(options.trace).value_or(false)) return;
    for (const char* const name : {"--rate", "--size", "--ui-scale", "--language", "--theme", "--reduced-motion"})
        if (command.count(name) > 0 && (command.get_name() == "play" || std::string_view(name) != "--size"))
            throw CLI::ValidationError(name, "is part of the recording, and cannot be chosen");
}

/// An empty text for a first word that is a command or an option, or what is wrong with it.
std::string fault_of_command(const CLI::App& app, int count, char** arguments) {
    if (count < 2 || arguments[1][0] == '-') return {};
    const std::string word = arguments[1];
    std::vector<std::string> names;
    for (const CLI::App* const command : app.get_subcommands({}))
        names.push_back(command->get_name());
    const std::vector<std::string_view> views(names.begin(), names.end());
    if (std::find(names.begin(), names.end(), word) != names.end()) return {};
    const std::string hint = rapido::did_you_mean(word, views);
    return "unknown command '" + word + "'; " +
           (hint.empty() ? "expected " + rapido::one_of(views) + "; see 'rapido --help'" : hint);
}

/// Where the sample data are: in the sources that it was built from, or beside an installed tool.
std::string sample_folder() {
    namespace fs = std::filesystem;
    std::error_code error;
    if (fs::exists(RAPIDO_DEMO_DIR, error)) return RAPIDO_DEMO_DIR;
    return (fs::path(program_path()).parent_path().parent_path() / "share" / "rapido" / "ember_ridge").string();
}

/// The whole thing on the sample data.
Exit demo(const std::string& out, const std::string& from) {
    namespace fs = std::filesystem;
    const fs::path sample(from);
    std::error_code error;
    fs::create_directories(out, error);
    if (error) {
        std::cerr << out << ": error: cannot be made a folder: " << error.message() << '\n';
        return Exit::problems;
    }
    PlayOptions options{.replay = {.hud = (sample / "hud.toml").string(), .trace = (sample / "flight.csv").string()},
                        .table = true,
                        .events = true};
    std::cout << "What each element showed at ten moments of the flight, and what happened:\n\n";
    if (const Exit exit = rapido::tool::play(options, std::cout, std::cerr); exit != Exit::fine) return exit;
    std::cout << '\n';

    options.table = options.events = false;
    options.background = (sample / "scene.png").string();
    const auto picture = [&](int width, int height, std::initializer_list<double> at) {
        options.replay.width = width;
        options.replay.height = height;
        options.at = at;
        options.png.clear();
        for (const double moment : at)
            options.png.push_back((fs::path(out) / ("flight_" + std::to_string(static_cast<int>(moment)) + "s_" +
                                                    std::to_string(width) + "x" + std::to_string(height) + ".png"))
                                      .string());
        return rapido::tool::play(options, std::cout, std::cerr);
    };
    if (const Exit exit = picture(1280, 800, {8, 62, 104}); exit != Exit::fine) return exit;
    if (const Exit exit = picture(800, 600, {104}); exit != Exit::fine) return exit;
    return picture(2560, 1080, {104});
}

}  // namespace

int main(int count, char** arguments) {
    const rapido::tool::PlainStreams plain;
    CLI::App app{"rapido: values on a screen, kept right"};
    app.allow_windows_style_options(false);  // a path may begin with a slash everywhere
    app.require_subcommand(1);
    app.set_version_flag("--version", "rapido " RAPIDO_VERSION, "the version");
    app.failure_message([](const CLI::App* command, const CLI::Error& error) {
        std::string name = "rapido";
        for (const CLI::App* const used : command->get_subcommands())
            name += " " + used->get_name();
        return "error: " + std::string(error.what()) + "; see '" + name + " --help'\n";
    });

    std::string out = "out";
    std::string sample = sample_folder();
    CLI::App* const demo_command =
        app.add_subcommand("demo", "the whole thing on the sample data: pictures, table, events");
    demo_command->add_option("--out", out, "the folder for pictures")->type_name("DIR")->capture_default_str();
    demo_command->add_option("--data", sample, "the folder of the sample data")
        ->type_name("DIR")
        ->check(CLI::ExistingDirectory);

    PlayOptions options;
    CLI::App* const play_command = app.add_subcommand("play", "replay a trace through a HUD");
    add_replay(*play_command, options.replay);
    play_command->add_option("--at", options.at, "a moment in seconds; may be given again")
        ->type_name("SECONDS")
        ->take_all()
        ->check(check_finite);
    play_command
        ->add_option("--png", options.png, "a picture for each --at, or for the end; a name in .svg gives a drawing")
        ->type_name("FILE")
        ->take_all();
    play_command->add_option("--sheet", options.sheet, "one picture of the HUD at each --at, or at ten even moments")
        ->type_name("FILE");
    play_command
        ->add_option("--crop", options.crop, "an element that fills the pictures of the sheet, by its path or id")
        ->type_name("ID");
    play_command->add_flag("--table", options.table, "what each element showed at each --at, or at ten even moments");
    play_command
        ->add_option("--columns", options.columns,
                     "the columns of the table, with commas between: time, id, kind, text, fill, trail, truth, "
                     "target, shown, color, opacity, scale, rotation, offset, box, visible")
        ->type_name("NAMES")
        ->delimiter(',')
        ->check([](const std::string& name) {
            const std::vector<std::string_view> known = rapido::tool::all_columns();
            if (std::find(known.begin(), known.end(), name) != known.end()) return std::string();
            const std::string hint = rapido::did_you_mean(name, known);
            return "no column '" + name + "'; " + (hint.empty() ? "expected " + rapido::one_of(known) : hint);
        });
    play_command
        ->add_option("--explain", options.explain,
                     "why an element shows what it shows, at each --at moment; its path or id, may be given again")
        ->type_name("ID")
        ->allow_extra_args(false);
    play_command->add_flag("--events", options.events, "what happened, and when");
    play_command->add_option("--background", options.background, "a PNG image behind the pictures")->type_name("FILE");
    play_command
        ->add_option_function<std::string>(
            "--point",
            [&options](const std::string& text) {
                rapido::Point point;
                if (std::sscanf(text.c_str(), "%f,%f", &point.x, &point.y) != 2)
                    throw CLI::ValidationError("--point", "'" + text + "' is no point; write X,Y in pixels");
                options.overlay = point;
            },
            "boxes and ids over the pictures, and why the element at X,Y shows what it shows")
        ->type_name("X,Y");
    play_command->add_flag("--json", options.json, "JSON Lines instead of columns");
    play_command->add_option("--from", options.replay.from, "seconds; the HUD begins here, as if it were new")
        ->type_name("SECONDS")
        ->check(check_finite);
    play_command->add_option("--to", options.replay.to, "seconds; the last frame is not behind this")
        ->type_name("SECONDS")
        ->check(check_finite);
    play_command
        ->add_option("--record", options.replay.record,
                     "the recording to write: all that the HUD is given, as JSON Lines")
        ->type_name("FILE");

    PlotOptions plot;
    CLI::App* const plot_command =
        app.add_subcommand("plot", "truth, target and shown value of elements over time, and their effects");
    add_replay(*plot_command, plot.replay);
    plot_command->add_option("--of", plot.of, "the id or path of an element; may be given again")
        ->type_name("ID")
        ->required()
        ->take_all();
    plot_command->add_option("--png", plot.png, "the picture to write")->type_name("FILE")->required();
    plot_command->add_option("--from", plot.from, "seconds; without it, the first row")
        ->type_name("SECONDS")
        ->check(check_finite);
    plot_command->add_option("--to", plot.to, "seconds; without it, the last row")
        ->type_name("SECONDS")
        ->check(check_finite);

    rapido::tool::SourcesOptions names;
    CLI::App* const sources_command =
        app.add_subcommand("sources", "the names that a HUD asks the game for, and those that it offers");
    sources_command->add_option("hud", names.hud, "HUD file (TOML)")->required();
    sources_command->add_flag("--json", names.json, "JSON Lines instead of columns");

    rapido::tool::CheckOptions checked;
    CLI::App* const check_command = rapido::tool::add_check(app, checked);

    rapido::tool::PreviewOptions previewed;
    CLI::App* const preview_command = rapido::tool::add_preview(app, previewed);
    rapido::tool::DriveOptions lived;
    CLI::App* const live_command = rapido::tool::add_drive(app, lived);
    rapido::tool::HeaderCommand header;
    CLI::App* const header_command = rapido::tool::add_header(app, header);
    rapido::tool::FormatCommand format;
    CLI::App* const format_command = rapido::tool::add_format(app, format);
    CLI::App* const schema_command = rapido::tool::add_schema(app);
    rapido::tool::WhyOptions asked;
    CLI::App* const why_command = rapido::tool::add_why(app, asked);

    CLI::App* const manual_command = app.add_subcommand("manual", "this manual, as a page for man");
    std::string shell = "bash";
    CLI::App* const completion_command =
        app.add_subcommand("completion", "a script that completes commands and options in a shell");
    completion_command->add_option("shell", shell, "bash")->check(CLI::IsMember({"bash"}));

    if (const std::string fault = fault_of_command(app, count, arguments); !fault.empty()) {
        std::cerr << "error: " << fault << '\n';
        return static_cast<int>(Exit::usage);
    }
    try {
        app.parse(count, arguments);
        if (*play_command) check_replay(*play_command, options.replay);
        if (*plot_command) check_replay(*plot_command, plot.replay);
    } catch (const CLI::ParseError& error) {
        return app.exit(error) == 0 ? 0 : static_cast<int>(Exit::usage);
    }
    Exit exit = Exit::fine;
    if (*demo_command) {
        exit = demo(out, sample);
    } else if (*sources_command) {
        exit = rapido::tool::names(names, std::cout, std::cerr);
    } else if (*check_command) {
        exit = rapido::tool::check(checked, std::cout, std::cerr);
    } else if (*preview_command) {
        exit = rapido::tool::preview(previewed, std::cout, std::cerr);
    } else if (*live_command) {
        exit = rapido::tool::live(lived, std::cout, std::cerr);
    } else if (*header_command) {
        exit = rapido::tool::header(header, std::cout, std::cerr);
    } else if (*format_command) {
        exit = rapido::tool::format(format, std::cout, std::cerr);
    } else if (*schema_command) {
        exit = rapido::tool::schema(std::cout);
    } else if (*why_command) {
        exit = rapido::tool::why(asked, std::cout, std::cerr);
    } else if (*manual_command) {
        rapido::tool::write_manual(app, std::cout);
    } else if (*completion_command) {
        rapido::tool::write_completion(app, std::cout);
    } else if (*plot_command) {
        exit = rapido::tool::plot(plot, std::cerr);
    } else {
        if (!options.columns.empty()) options.table = true;
        if (!options.table && !options.events && options.png.empty() && options.sheet.empty() &&
            options.background.empty() && options.explain.empty() && options.replay.record.empty())
            options.table = options.events = true;
        exit = rapido::tool::play(options, std::cout, std::cerr);
    }
    errno = 0;
    if (!std::cout.flush()) {
        std::cerr << "error: standard output cannot be written"
                  << (errno != 0 ? std::string(": ") + std::strerror(errno) : "") << '\n';
        exit = Exit::problems;
    }
    return static_cast<int>(exit);
}
