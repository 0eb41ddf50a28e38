#include "tool/files.hpp"

#include <ostream>

#include "tool/report.hpp"
#include "tool/whole_file.hpp"

namespace rapido::tool {
namespace {

constexpr std::size_t largest_hud = 4'000'000;

/// A path in a rule of make: spaces and dollars have a meaning there.
std::string escaped(const std::string& path) {
    std::string made;
    for (const char c : path) {
        if (c == ' ' || c == '#') made += '\\';
        if (c == '$') made += '$';
        made += c;
    }
    return made;
}

/// Whether most lines end with a carriage return and a line feed.
bool has_carriage_returns(const std::string& text) {
    std::size_t with = 0, all = 0;
    for (std::size_t i = 0; i < text.size(); ++i)
        if (text[i] == '\n') {
            ++all;
            with += i > 0 && text[i - 1] == '\r' ? 1 : 0;
        }
    return 2 * with > all;
}
std::string with_carriage_returns(const std::string& text) {
    std::string made;
    for (const char c : text) {
        if (c == '\n' && (made.empty() || made.back() != '\r')) made += '\r';
        made += c;
    }
    return made;
}

}  // namespace

Exit header(const HeaderCommand& command, std::ostream& out, std::ostream& err) {
    const Result<HudDefinition> definition = read_hud_file(command.hud);
    if (!definition) {
        print_problems(definition.problems(), err);
        return Exit::problems;
    }
    const Result<std::string> made = hud_header(*definition, command.options);
    if (!made) {
        print_problems(made.problems(), err);
        return Exit::problems;
    }
    if (command.out.empty()) {
        out << *made;
        return Exit::fine;
    }
    Status written = write_whole(command.out, *made);
    if (written && !command.depfile.empty()) {
        std::string rule = escaped(command.out) + ":";
        for (const std::string& file : definition->files)
            rule += " " + escaped(file);
        written = write_whole(command.depfile, rule + "\n");
    }
    if (written) return Exit::fine;
    print_problems({written.problem()}, err);
    return Exit::problems;
}

Exit format(const FormatCommand& command, std::ostream& out, std::ostream& err) {
    Exit exit = Exit::fine;
    const auto refuse = [&](const Problems& problems) {
        print_problems(problems, err);
        exit = Exit::problems;
    };
    for (const std::string& hud : command.huds) {
        const Result<std::string> text = read_text_file(hud, largest_hud);
        if (!text) {
            refuse(text.problems());
            continue;
        }
        Result<std::string> made = command.from.empty() ? format_hud(*text, hud) : upgrade_hud(*text, hud);
        // What is written ends its lines as what was read.
        if (made && has_carriage_returns(*text)) made = with_carriage_returns(*made);
        std::string note;
        if (!made) {
            refuse(made.problems());
        } else if (command.print) {
            out << *made;
        } else if (*made == *text) {
            continue;
        } else if (command.check) {
            err << hud << ": is not in canonical order; 'rapido format' writes it so\n";
            exit = Exit::problems;
        } else if (const Status written = write_whole(hud, *made, &note); !written) {
            refuse({written.problem()});
        } else {
            if (!note.empty()) err << note << '\n';
            err << "formatted " << hud << '\n';
        }
    }
    return exit;
}

Exit schema(std::ostream& out) {
    out << hud_schema();
    return Exit::fine;
}

}  // namespace rapido::tool
