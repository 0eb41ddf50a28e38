#include <poll.h>
#include <unistd.h>

#include <cerrno>
#include <filesystem>

#include "tool/system.hpp"

namespace rapido::tool {

bool is_error_terminal() {
    return ::isatty(2) == 1;
}

void write_to_error(std::string_view text) {
    if (::write(2, text.data(), text.size()) < 0) return;  // then it is not seen
}

std::string program_path() {
    std::error_code error;
    return std::filesystem::read_symlink("/proc/self/exe", error).string();
}

std::optional<std::size_t> read_input(std::span<char> into, std::chrono::milliseconds longest) {
    constexpr int input = 0;
    pollfd ready{input, POLLIN, 0};
    if (::poll(&ready, 1, static_cast<int>(longest.count())) <= 0) return std::nullopt;
    const ssize_t count = ::read(input, into.data(), into.size());
    if (count < 0 && errno == EINTR) return std::nullopt;
    return count < 0 ? 0 : static_cast<std::size_t>(count);
}

}  // namespace rapido::tool
