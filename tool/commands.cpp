#include "tool/commands.hpp"

#include <cmath>
#include <regex>

namespace rapido::tool {

Size read_size(const std::string& text, const std::string& option) {
    std::smatch parts;
    static const std::regex pattern("([0-9]{1,5})x([0-9]{1,5})");
    if (!std::regex_match(text, parts, pattern))
        throw CLI::ValidationError(option, "a size is WIDTHxHEIGHT in pixels, such as 1280x800");
    const int width = std::stoi(parts[1]), height = std::stoi(parts[2]);
    if (width < 1 || height < 1 || width > 16384 || height > 16384)
        throw CLI::ValidationError(option, "a size is 1 to 16384 pixels each way");
    if (width * height > 64'000'000) throw CLI::ValidationError(option, "a size is at most 64 million pixels in all");
    return {static_cast<float>(width), static_cast<float>(height)};
}

std::array<double, 2> read_pair(const std::string& text, const std::string& between, const std::string& option,
                                const std::string& expected) {
    const std::size_t at = text.find(between);
    std::array<double, 2> pair{};
    if (at == std::string::npos || !CLI::detail::lexical_cast(text.substr(0, at), pair[0]) ||
        !CLI::detail::lexical_cast(text.substr(at + between.size()), pair[1]) || !std::isfinite(pair[0]) ||
        !std::isfinite(pair[1]))
        throw CLI::ValidationError(option, "'" + text + "' is none; write " + expected);
    return pair;
}

std::string check_finite(const std::string& text) {
    double number = 0;
    if (!CLI::detail::lexical_cast(text, number)) return {};  // the option itself says so
    return std::isfinite(number) ? std::string() : text + " is no finite number";
}

namespace {

// What several commands take is declared here, once.

void add_size(CLI::App& command, const std::string& help, std::function<void(Size)> take) {
    command
        .add_option_function<std::string>(
            "--size", [take](const std::string& text) { take(read_size(text, "--size")); }, help)
        ->type_name("WIDTHxHEIGHT");
}
void add_sizes(CLI::App& command, std::vector<Size>& sizes, const std::string& help) {
    command
        .add_option_function<std::vector<std::string>>(
            "--size",
            [&sizes](const std::vector<std::string>& given) {
                for (const std::string& size : given)
                    sizes.push_back(read_size(size, "--size"));
            },
            help)
        ->type_name("WIDTHxHEIGHT")
        ->take_all();
}
template <class Scale>
CLI::Option* add_scale(CLI::App& command, Scale& scale, const std::string& more = {}) {
    return command.add_option("--ui-scale", scale, "the player's size of everything, 0.25 to 4" + more)
        ->check(CLI::Range(0.25, 4.0))
        ->check(check_finite);
}
/// A tool that was built without ICU knows no language but English.
std::string check_language(const std::string& tag) {
#ifdef RAPIDO_WITH_LANGUAGES
    static_cast<void>(tag);
    return {};
#else
    return tag.empty()
               ? ""
               : "this build of the tool knows no language but English: RAPIDO_LOCALE, which needs ICU, was off";
#endif
}
CLI::Option* add_language(CLI::App& command, std::string& language, std::string& translations) {
    command.add_option("--language", language, "a language, a BCP 47 tag such as de")
        ->type_name("TAG")
        ->check(check_language);
    return command.add_option("--translations", translations, "texts in that language (TOML)")->type_name("FILE");
}
void add_languages(CLI::App& command, std::vector<std::string>& languages, std::vector<std::string>& translations,
                   const std::string& help) {
    command.add_option("--language", languages, help)->type_name("TAG")->take_all()->check(check_language);
    command
        .add_option("--translations", translations,
                    "texts in that language (TOML); one for each --language, in the same order")
        ->type_name("FILE")
        ->take_all();
}
void add_theme(CLI::App& command, std::string& theme) {
    command.add_option("--theme", theme, "theme of the HUD file; without it, its first one")->type_name("NAME");
}
void add_background(CLI::App& command, std::string& background, const std::string& help) {
    command.add_option("--background", background, help)->type_name("FILE");
}

}  // namespace

void add_replay(CLI::App& command, ReplayOptions& options) {
    command.add_option("hud", options.hud, "HUD file (TOML), or a recording")->required();
    command.add_option("--trace", options.trace, "trace (CSV or JSON Lines), or a recording")->type_name("FILE");
    command.add_flag("--ranges", options.ranges,
                     "without a trace: every source that the HUD declares goes through its range");
    command.add_option("--rate", options.rate, "frames a second; without it, one frame a row")
        ->check(CLI::Range(0.01, 10000.0))
        ->check(check_finite);
    add_size(command, "size of the pictures, WIDTHxHEIGHT", [&options](Size size) {
        options.width = static_cast<int>(size.width);
        options.height = static_cast<int>(size.height);
    });
    add_scale(command, options.scale);
    add_language(command, options.language, options.translations);
    add_theme(command, options.theme);
    command.add_flag("--reduced-motion", options.reduced_motion, "no movement, only plain changes");
}

CLI::App* add_check(CLI::App& app, CheckOptions& options) {
    CLI::App* const command = app.add_subcommand("check", "what is wrong with a HUD, before a player sees it");
    command->add_option("hud", options.hud, "HUD file (TOML)")->required();
    command
        ->add_option("--trace", options.trace,
                     "trace (CSV or JSON Lines): its names, types and moments; without it, a sweep")
        ->type_name("FILE");
    add_sizes(*command, options.sizes,
              "a size of the window; may be given again. Without it: the design's, 1920x1080, 800x600 and "
              "2560x1080");
    add_scale(*command, options.scales, "; may be given again")->take_all();
    add_languages(*command, options.languages, options.translations,
                  "a language besides the HUD as it is written, a BCP 47 tag; may be given again");
    add_background(*command, options.background, "a PNG image behind the HUD, over which its texts must be read");
    command
        ->add_option_function<std::string>(
            "--gray",
            [&options](const std::string& text) {
                const auto gray = read_pair(text, "..", "--gray", "LOW..HIGH, such as 0..0.6");
                if (gray[0] < 0 || gray[1] > 1 || gray[0] > gray[1])
                    throw CLI::ValidationError("--gray", "a gray is 0 (black) to 1 (white)");
                options.gray = gray;
            },
            "without a picture: the grays that may lie behind the HUD, 0 to 1; without it, all of them")
        ->type_name("LOW..HIGH");
    command
        ->add_option_function<std::string>(
            "--smallest-text",
            [&options](const std::string& text) {
                const auto size = read_pair(text, "@", "--smallest-text", "SIZE@HEIGHT, such as 18@1080");
                if (size[0] <= 0 || size[1] <= 0) throw CLI::ValidationError("--smallest-text", "both are above zero");
                options.smallest_text = size;
            },
            "texts must be written so large, in pixels, in a window of this height, and in proportion in "
            "others")
        ->type_name("SIZE@HEIGHT");
    command
        ->add_option("--safe-area", options.safe_area,
                     "what of the window a screen may hide along each edge, as a part: 0.05")
        ->check(CLI::Range(0.0, 0.25))
        ->check(check_finite);
    command->add_flag("--json", options.json, "JSON Lines instead of texts");
    command->callback([&options] {
        if (options.translations.size() > options.languages.size())
            throw CLI::ValidationError("--translations", "needs a --language for each");
    });
    return command;
}

CLI::App* add_preview(CLI::App& app, PreviewOptions& options) {
    CLI::App* const command =
        app.add_subcommand("preview", "a HUD without its game, in a window, read again when it is saved");
    command->add_option("hud", options.hud, "HUD file (TOML)")->required();
    command
        ->add_option("--trace", options.trace,
                     "trace (CSV or JSON Lines) that plays; without it, every source that the HUD declares goes "
                     "through its range")
        ->type_name("FILE");
    add_sizes(*command, options.sizes, "the size of the HUD; several, through which a key goes");
    add_scale(*command, options.scale);
    add_languages(*command, options.languages, options.translations,
                  "a language, a BCP 47 tag such as de; several, through which a key goes");
    add_theme(*command, options.theme);
    add_background(*command, options.background, "a PNG image behind the HUD");
    command->add_option("--at", options.at, "the moment at which it begins, in seconds from the first row")
        ->type_name("SECONDS")
        ->check(CLI::NonNegativeNumber)
        ->check(check_finite);
    command->add_flag("--paused", options.paused, "it is paused at first");
    command->add_option("--set", options.set, "a value by hand, such as plane.water=300; may be given again")
        ->type_name("NAME=VALUE")
        ->take_all();
    command->add_option("--png", options.png, "a picture in place of a window")->type_name("FILE");
    command->add_flag("--follow", options.follow, "writes the picture again at each save, until it is ended")
        ->needs("--png");
    command
        ->add_option_function<std::string>(
            "--point",
            [&options](const std::string& text) {
                const auto point = read_pair(text, ",", "--point", "X,Y in pixels");
                options.point = Point{static_cast<float>(point[0]), static_cast<float>(point[1])};
            },
            "why the element at X,Y shows what it shows, in place of a window")
        ->type_name("X,Y");
    return command;
}

CLI::App* add_drive(CLI::App& app, DriveOptions& options) {
    CLI::App* const command = app.add_subcommand(
        "drive", "a HUD driven by any program that prints: JSON Lines on standard input, newest wins");
    command->add_option("hud", options.hud, "HUD file (TOML)")->required();
    command->add_flag("--window", options.window, "in a window");
    command->add_option("--png", options.png, "a picture, written again while lines come, and at their end")
        ->type_name("FILE");
    command->add_option("--rate", options.rate, "pictures a second at most, 0.1 to 60")
        ->check(CLI::Range(0.1, 60.0))
        ->check(check_finite);
    command->add_flag("--events", options.events, "what happens, as JSON Lines on standard output");
    command->add_flag("--table", options.table, "what each element shows at the end");
    command->add_flag("--json", options.json, "the table as JSON Lines");
    add_size(*command, "size of the picture or of the window", [&options](Size size) { options.size = size; });
    add_scale(*command, options.scale);
    add_language(*command, options.language, options.translations)->needs("--language");
    add_theme(*command, options.theme);
    add_background(*command, options.background, "a PNG image behind the picture");
    return command;
}

CLI::App* add_header(CLI::App& app, HeaderCommand& header) {
    CLI::App* const command =
        app.add_subcommand("header", "a C++ header with a typed field for each source that a HUD declares");
    command->add_option("hud", header.hud, "HUD file (TOML)")->required();
    command->add_option("--out", header.out, "the header to write; without it, standard output")->type_name("FILE");
    command->add_option("--type", header.options.type, "the name of the struct")
        ->type_name("NAME")
        ->capture_default_str();
    command->add_option("--namespace", header.options.name_space, "the namespace around it, such as game::ui")
        ->type_name("NAME");
    command->add_option("--depfile", header.depfile, "a rule of make for the files that it was made from")
        ->type_name("FILE")
        ->needs("--out");
    return command;
}

CLI::App* add_format(CLI::App& app, FormatCommand& format) {
    CLI::App* const command = app.add_subcommand("format", "HUD files in canonical order, with their comments");
    command->add_option("hud", format.huds, "HUD files (TOML), which are written again")->required();
    CLI::Option* const print =
        command->add_flag("--print", format.print, "on standard output; the files stay as they are");
    CLI::Option* const check =
        command->add_flag("--check", format.check, "only says which are not in order")->excludes(print);
    command->add_option("--from", format.from, "the files are of this version: writes them in the names of today")
        ->type_name("VERSION")
        ->check(CLI::IsMember({"0.1"}))
        ->excludes(check);
    return command;
}

CLI::App* add_schema(CLI::App& app) {
    return app.add_subcommand("schema", "the JSON Schema of HUD files, for editors");
}

CLI::App* add_why(CLI::App& app, WhyOptions& options) {
    CLI::App* const command = app.add_subcommand("why", "what the code of a problem means, and how it is mended");
    command->add_option("code", options.code, "a word in brackets, such as low_contrast; without it, all of them");
    command->add_flag("--pages", options.pages, "all of them, as docs/problems.md");
    return command;
}

}  // namespace rapido::tool
