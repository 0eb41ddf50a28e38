#include "tool/whole_file.hpp"

#include <cerrno>
#include <cstring>
#include <fstream>

#include "file/paths.hpp"

namespace rapido::tool {

Problem unwritable(const std::string& path, const std::string& why) {
    return {{path}, "cannot be written: " + why, "", ProblemCode::unwritable};
}

Status write_whole(const std::string& path, const std::string& text, std::string* note) {
    return write_whole(
        path,
        [&](const std::string& to) -> Status {
            std::ofstream file(path_of(to), std::ios::binary | std::ios::trunc);
            file << text;
            file.close();
            return file ? Status{} : Status{unwritable(to, std::strerror(errno))};
        },
        note);
}

}  // namespace rapido::tool
