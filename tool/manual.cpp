#include "tool/manual.hpp"

#include <CLI/CLI.hpp>
#include <algorithm>
#include <ostream>
#include <string>
#include <vector>

namespace rapido::tool {
namespace {

/// A text in which troff sees nothing of its own.
std::string plain(const std::string& text) {
    std::string safe;
    for (const char c : text) {
        if (c == '\\')
            safe += "\\e";
        else if (c == '-')
            safe += "\\-";
        else
            safe += c;
    }
    return !safe.empty() && (safe[0] == '.' || safe[0] == '\'') ? "\\&" + safe : safe;
}

std::string upper(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(),
                   [](char c) { return c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c; });
    return text;
}

std::vector<std::string> names_of(const CLI::Option& option) {
    std::vector<std::string> names;
    for (const std::string& name : option.get_snames())
        names.push_back("-" + name);
    for (const std::string& name : option.get_lnames())
        names.push_back("--" + name);
    return names;
}

std::string argument_of(const CLI::Option& option) {
    if (option.get_expected_max() == 0) return {};  // a flag
    // The names of types in a help are written together with what they may be.
    const std::string type = option.get_type_name().substr(0, option.get_type_name().find_first_of(": "));
    return type.empty() ? "VALUE" : upper(type);
}

void write_option(const CLI::Option& option, std::ostream& to) {
    if (option.get_group().empty()) return;
    to << ".TP\n";
    if (option.get_positional()) {
        to << ".I " << plain(upper(option.get_name())) << '\n';
    } else {
        std::string line;
        for (const std::string& name : names_of(option))
            line += (line.empty() ? "" : ", ") + ("\\fB" + plain(name) + "\\fR");
        const std::string argument = argument_of(option);
        to << line << (argument.empty() ? "" : " \\fI" + plain(argument) + "\\fR") << '\n';
    }
    to << plain(option.get_description()) << (option.get_required() ? " (required)" : "") << '\n';
}

}  // namespace

void write_manual(const CLI::App& app, std::ostream& to) {
    to << ".TH RAPIDO 1\n.SH NAME\nrapido \\- values on a screen, kept right\n.SH SYNOPSIS\n";
    for (const CLI::App* const command : app.get_subcommands({})) {
        to << ".B rapido " << plain(command->get_name()) << "\n";
        for (const CLI::Option* const option : command->get_options())
            if (option->get_positional())
                to << (option->get_required() ? ".I " : ".RI [ ") << plain(upper(option->get_name()))
                   << (option->get_required() ? "" : " ]") << '\n';
        to << ".RI [ options ]\n.br\n";
    }
    to << ".SH DESCRIPTION\nRapido binds the readouts of a game's HUD to live values. This tool shows HUD "
          "files "
          "without the game: it replays\nrecorded values through them, and draws, lists and explains what "
          "players "
          "would have seen.\n";
    for (const CLI::App* const command : app.get_subcommands({})) {
        to << ".SH RAPIDO " << plain(upper(command->get_name())) << '\n' << plain(command->get_description()) << ".\n";
        for (const CLI::Option* const option : command->get_options())
            write_option(*option, to);
    }
    to << ".SH EXIT STATUS\n.TP\n0\nAll was fine.\n.TP\n1\nProblems were found; they are written to standard "
          "error "
          "as file:line:column: error: text.\n.TP\n2\nThe command line was wrong.\n";
}

void write_completion(const CLI::App& app, std::ostream& to) {
    std::string commands;
    for (const CLI::App* const command : app.get_subcommands({}))
        commands += (commands.empty() ? "" : " ") + command->get_name();
    to << "# Completion of the rapido tool for bash.\n_rapido() {\n"
          "    local word=${COMP_WORDS[COMP_CWORD]} options=\n"
          "    COMPREPLY=()\n"
          "    if ((COMP_CWORD == 1)); then\n"
          "        mapfile -t COMPREPLY < <(compgen -W '"
       << commands
       << " --help' -- \"$word\")\n        return\n    fi\n"
          "    case ${COMP_WORDS[1]} in\n";
    for (const CLI::App* const command : app.get_subcommands({})) {
        std::string words;
        for (const CLI::Option* const option : command->get_options())
            if (!option->get_positional())
                for (const std::string& name : names_of(*option))
                    words += (words.empty() ? "" : " ") + name;
        to << "        " << command->get_name() << ") options='" << words << "' ;;\n";
    }
    to << "    esac\n"
          "    if [[ $word == -* ]]; then\n"
          "        mapfile -t COMPREPLY < <(compgen -W \"$options\" -- \"$word\")\n"
          "    else\n"
          "        mapfile -t COMPREPLY < <(compgen -f -- \"$word\")\n"
          "    fi\n"
          "}\n"
          "complete -o filenames -F _rapido rapido\n";
}

}  // namespace rapido::tool
