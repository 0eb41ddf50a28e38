// What the tool writes out of HUD files: a typed header, the schema, a file in canonical order.
#pragma once

#include <iosfwd>
#include <string>

#include "rapido/file.hpp"
#include "tool/replay.hpp"

namespace rapido::tool {

struct HeaderCommand {
    std::string hud;
    std::string out{};      ///< empty is standard output
    std::string depfile{};  ///< what it was made from, for a build; empty for none
    HeaderOptions options{};
};
Exit header(const HeaderCommand& command, std::ostream& out, std::ostream& err);

struct FormatCommand {
    std::vector<std::string> huds;
    std::string from{};  ///< the version whose names they have; empty is that of today
    bool check = false;  ///< only says which are not in order
    bool print = false;  ///< on standard output, and the file stays as it is
};
Exit format(const FormatCommand& command, std::ostream& out, std::ostream& err);

Exit schema(std::ostream& out);

}  // namespace rapido::tool
