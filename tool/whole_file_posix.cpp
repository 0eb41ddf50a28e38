#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <vector>

#include "tool/whole_file.hpp"

namespace rapido::tool {
namespace {

namespace fs = std::filesystem;

Problem fault(const std::string& path, int error) {
    return unwritable(path, std::strerror(error));
}

/// A new file beside another one, under a name that nobody has; gone with this object unless it was put in its place.
class Aside {
 public:
    explicit Aside(const std::string& path) : path_(path + ".XXXXXX") {
        name_.assign(path_.begin(), path_.end());
        name_.push_back('\0');
        // Makes it with O_CREAT and O_EXCL: what is there already, a link too, is never written through.
        file_ = ::mkstemp(name_.data());
        error_ = errno;
        if (file_ >= 0) path_ = name_.data();
    }
    ~Aside() {
        if (file_ < 0) return;
        ::close(file_);
        if (!is_placed_) ::unlink(path_.c_str());
    }
    Aside(const Aside&) = delete;
    Aside& operator=(const Aside&) = delete;

    int error() const { return file_ >= 0 ? 0 : error_; }
    const std::string& path() const { return path_; }
    /// Lets it stay where it is.
    void keep() { is_placed_ = true; }
    /// Puts it in the place of another one, with its mode; and with its owner, where there was one and we may.
    bool replace(const std::string& other, mode_t mode, const struct stat* before) {
        if (before != nullptr && ::chown(path_.c_str(), before->st_uid, before->st_gid) != 0) errno = 0;
        is_placed_ = ::chmod(path_.c_str(), mode) == 0 && std::rename(path_.c_str(), other.c_str()) == 0;
        return is_placed_;
    }

 private:
    std::string path_;
    std::vector<char> name_;
    int file_ = -1, error_ = 0;
    bool is_placed_ = false;
};

/// The mode of a new file.
mode_t usual_mode() {
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return 0666 & ~mask;
}

/// Where a path leads: a link is followed, also one to a file that is not there yet.
std::string target_of(const std::string& path) {
    constexpr int most_links = 40;
    fs::path at(path);
    std::error_code error;
    for (int i = 0; i < most_links && fs::is_symlink(at, error); ++i) {
        const fs::path next = fs::read_symlink(at, error);
        if (error) break;
        at = next.is_absolute() ? next : at.parent_path() / next;
    }
    return at.string();
}

}  // namespace

Status write_whole(const std::string& path, const std::function<Status(const std::string& path)>& write,
                   std::string* note) {
    const std::string target = target_of(path);
    struct stat before {};
    const bool is_there = ::stat(target.c_str(), &before) == 0;
    if (is_there && S_ISDIR(before.st_mode)) return fault(path, EISDIR);
    if (is_there && !S_ISREG(before.st_mode)) return write(path);
    if (is_there && (before.st_mode & 0222) == 0)
        return Problem{{path}, "cannot be written: it is read-only", "change its mode first", ProblemCode::unwritable};
    Aside aside(target);
    if (aside.error() != 0) return fault(path, aside.error());
    if (Status written = write(aside.path()); !written) {
        Problem problem = written.problem();
        // Of the file that was meant.
        problem.location.file = path;
        return problem;
    }
    if (!is_there || before.st_nlink < 2) {
        const mode_t mode = is_there ? before.st_mode & 07777 : usual_mode();
        if (!aside.replace(target, mode, is_there ? &before : nullptr)) return fault(path, errno);
        return {};
    }
    std::ifstream from(aside.path(), std::ios::binary);
    std::ofstream to(target, std::ios::binary | std::ios::trunc);
    if (from.peek() != std::ifstream::traits_type::eof()) to << from.rdbuf();
    to.close();
    if (!from || !to) {
        // Half of it may be there: all of it is beside it.
        Problem problem = fault(path, errno);
        problem.hint = "what was to be written is in '" + aside.path() + "'";
        aside.keep();
        return problem;
    }
    if (note != nullptr)
        *note = path + ": has " + std::to_string(before.st_nlink) + " names (hard links), and was written in place";
    return {};
}

}  // namespace rapido::tool
