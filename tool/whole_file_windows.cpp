#define NOMINMAX
#define WIN32_LEAN_AND_MEAN
#include <windows.h>

#include <filesystem>
#include <string>

#include "file/paths.hpp"
#include "tool/whole_file.hpp"

namespace rapido::tool {

namespace fs = std::filesystem;

namespace {

constexpr int most_tries = 20;
constexpr DWORD between_tries = 50;  ///< milliseconds

/// Whether somebody else has the file open: an editor, an indexer, a scanner.
bool is_held(DWORD error) {
    return error == ERROR_SHARING_VIOLATION || error == ERROR_LOCK_VIOLATION || error == ERROR_ACCESS_DENIED;
}

}  // namespace

Status write_whole(const std::string& path, const std::function<Status(const std::string& path)>& write,
                   std::string* /*note*/) {
    const fs::path target = path_of(path);
    const DWORD before = ::GetFileAttributesW(target.c_str());
    const bool is_there = before != INVALID_FILE_ATTRIBUTES;
    if (is_there && (before & FILE_ATTRIBUTE_DIRECTORY) != 0) return unwritable(path, "Is a directory");
    if (is_there && (before & FILE_ATTRIBUTE_READONLY) != 0)
        return Problem{
            {path}, "cannot be written: it is read-only", "change its attributes first", ProblemCode::unwritable};
    fs::path aside = target;
    aside += "." + std::to_string(::GetCurrentProcessId()) + "." + std::to_string(::GetTickCount64());
    std::error_code ignored;
    if (Status written = write(text_of(aside)); !written) {
        fs::remove(aside, ignored);
        Problem problem = written.problem();
        problem.location.file = path;  // of the file that was meant
        return problem;
    }
    for (int i = 0; i < most_tries; ++i) {
        if (::MoveFileExW(aside.c_str(), target.c_str(), MOVEFILE_REPLACE_EXISTING | MOVEFILE_WRITE_THROUGH) != 0)
            return {};
        const DWORD error = ::GetLastError();
        if (!is_held(error)) {
            fs::remove(aside, ignored);
            return unwritable(path, std::error_code(static_cast<int>(error), std::system_category()).message());
        }
        ::Sleep(between_tries);
    }
    fs::remove(aside, ignored);
    return Problem{{path}, "cannot be written: another program has it open", "close it there", ProblemCode::unwritable};
}

}  // namespace rapido::tool
