#define NOMINMAX
#define WIN32_LEAN_AND_MEAN
#include <windows.h>

#include <array>

#include "file/paths.hpp"
#include "tool/system.hpp"

namespace rapido::tool {

bool is_error_terminal() {
    DWORD mode = 0;
    return ::GetConsoleMode(::GetStdHandle(STD_ERROR_HANDLE), &mode) != 0 &&
           (mode & ENABLE_VIRTUAL_TERMINAL_PROCESSING) != 0;
}

void write_to_error(std::string_view text) {
    DWORD written = 0;
    ::WriteFile(::GetStdHandle(STD_ERROR_HANDLE), text.data(), static_cast<DWORD>(text.size()), &written, nullptr);
}

std::string program_path() {
    std::array<wchar_t, 4096> path{};
    const DWORD length = ::GetModuleFileNameW(nullptr, path.data(), static_cast<DWORD>(path.size()));
    return text_of(std::filesystem::path(std::wstring_view(path.data(), length)));
}

std::optional<std::size_t> read_input(std::span<char> into, std::chrono::milliseconds longest) {
    const HANDLE input = ::GetStdHandle(STD_INPUT_HANDLE);
    const auto read = [&]() -> std::size_t {
        DWORD count = 0;
        return ::ReadFile(input, into.data(), static_cast<DWORD>(into.size()), &count, nullptr) != 0 ? count : 0;
    };
    switch (::GetFileType(input)) {
        case FILE_TYPE_PIPE: {
            // A pipe cannot be waited for: it is asked each millisecond. At its end it may still hold something.
            const ULONGLONG end = ::GetTickCount64() + static_cast<ULONGLONG>(longest.count());
            for (;;) {
                DWORD waiting = 0;
                if (::PeekNamedPipe(input, nullptr, 0, nullptr, &waiting, nullptr) == 0 || waiting > 0) return read();
                if (::GetTickCount64() >= end) return std::nullopt;
                ::Sleep(1);
            }
        }
        case FILE_TYPE_CHAR:
            if (::WaitForSingleObject(input, static_cast<DWORD>(longest.count())) != WAIT_OBJECT_0) return std::nullopt;
            return read();
        default:
            return read();
    }
}

}  // namespace rapido::tool
