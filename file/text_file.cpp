#include <cerrno>
#include <cstring>
#include <fstream>
#include <memory>

#include "file/paths.hpp"
#include "rapido/file.hpp"

namespace rapido {

Result<std::string> read_text_file(const std::string& path, std::size_t limit) {
    std::ifstream file(path_of(path), std::ios::binary);
    if (!file)
        return Problem{{path}, std::string("cannot be opened: ") + std::strerror(errno), "", ProblemCode::unreadable};
    std::string text;
    std::string block(1 << 16, '\0');
    while (file.read(block.data(), static_cast<std::streamsize>(block.size())) || file.gcount() > 0) {
        text.append(block, 0, static_cast<std::size_t>(file.gcount()));
        if (text.size() > limit)
            return Problem{
                {path}, "is larger than " + std::to_string(limit / 1'000'000) + " MB", "", ProblemCode::too_large};
    }
    if (file.bad())
        return Problem{{path}, std::string("cannot be read: ") + std::strerror(errno), "", ProblemCode::unreadable};
    return text;
}

}  // namespace rapido
