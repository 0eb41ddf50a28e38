#include "tool/files.hpp"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fstream>
#include <ostream>

#include "tool/report.hpp"

namespace rapido::tool {
namespace {

constexpr std::size_t largest_hud = 4'000'000;

/// Written aside and then put in its place: whoever reads it sees the old one or the new one.
Status write_file(const std::string& path, const std::string& text) {
    const auto fault = [&] {
        return Problem{
            {path}, std::string("cannot be written: ") + std::strerror(errno), "", ProblemCode::unwritable};
    };
    const std::string aside = path + ".part";
    std::ofstream file(aside, std::ios::binary);
    if (!file) return fault();
    file << text;
    file.close();
    if (!file || std::rename(aside.c_str(), path.c_str()) != 0) return fault();
    return {};
}

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
    Status written = write_file(command.out, *made);
    if (written && !command.depfile.empty()) {
        std::string rule = escaped(command.out) + ":";
        for (const std::string& file : definition->files)
            rule += " " + escaped(file);
        written = write_file(command.depfile, rule + "\n");
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
        const Result<std::string> made = format_hud(*text, hud);
        if (!made) {
            refuse(made.problems());
        } else if (command.print) {
            out << *made;
        } else if (*made == *text) {
            continue;
        } else if (command.check) {
            err << hud << ": is not in canonical order; 'rapido format' writes it so\n";
            exit = Exit::problems;
        } else if (const Status written = write_file(hud, *made); !written) {
            refuse({written.problem()});
        } else {
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
