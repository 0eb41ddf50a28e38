// HUD files as a whole: from text or a file to a definition, and again when the file is saved.
#include <algorithm>
#include <filesystem>

#include "base/inside_path.hpp"
#include "file/hud_part.hpp"
#include "file/hud_reader.hpp"
#include "file/paths.hpp"
#include "rapido/file.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {
namespace {

namespace fs = std::filesystem;

constexpr std::size_t largest_hud = 4'000'000;

/// Makes what could be read, only to see what else is wrong with it.
void add_what_else(HudReader& reader, const Hud& trial, bool knows_names) {
    if (reader.problems.count() >= FirstProblems::most) return;
    for (const Problem& problem : trial.problems())
        if (!reader.follows_from_fault(problem) && (knows_names || problem.code != ProblemCode::unknown_source))
            reader.problems.add(problem);
}

Result<HudDefinition> definition_of(HudReader& reader, bool is_part = false) {
    reader.read();
    if (reader.problems.count() == 0) return std::move(reader.definition);
    if (is_part) return reader.problems.take();
    // All faults are told at once. Which names the game has is known only of a HUD that declares them.
    add_what_else(reader, Hud(reader.definition), !reader.definition.sources.empty());
    return reader.problems.take();
}

std::string folder_of(const std::string& path) {
    return text_of(path_of(path).parent_path());
}

}  // namespace

Result<HudDefinition> read_hud(std::string_view text, const std::string& name, const IncludeReader& includes) {
    HudReader reader(text, name, includes);
    return definition_of(reader);
}

Result<HudDefinition> read_hud_part(std::string_view text, const std::string& name, std::size_t& copied) {
    HudReader reader(text, name);
    reader.set_part();
    reader.share_limit(copied);
    return definition_of(reader, true);
}

Result<HudDefinition> read_hud_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_hud);
    if (!text) return text.problems();
    return read_hud(*text, path, includes_of(folder_of(path)));
}

IncludeReader includes_of(const std::string& folder) {
    return [folder = path_of(folder.empty() ? "." : folder)](const std::string& path) -> Result<std::string> {
        if (!stays_inside(path))
            return Problem{{},
                           "lies outside of the folder of the HUD",
                           "a path is relative to that folder, and has no '..'",
                           ProblemCode::unreadable};
        std::error_code error;
        const fs::path root = fs::canonical(folder, error), file = fs::weakly_canonical(folder / path_of(path), error);
        if (!is_within(file, root))
            return Problem{{},
                           "lies outside of the folder of the HUD, through a link",
                           "put the file itself there",
                           ProblemCode::unreadable};
        // A pipe would be waited for, perhaps for ever.
        if (fs::exists(file, error) && !fs::is_regular_file(file, error))
            return Problem{{}, "is not a file", "", ProblemCode::unreadable};
        return read_text_file(text_of(file), largest_hud);
    };
}

Problems check_hud(std::string_view text, const std::string& name, const Sources& sources, TextMeasurer* measurer,
                   ImageFinder* images, const IncludeReader& includes) {
    HudReader reader(text, name, includes);
    reader.read();
    add_what_else(reader, Hud(reader.definition, sources, measurer, images), true);
    return reader.problems.take();
}

// --- A file that is looked at again and again

namespace {

bool is_unreadable(const Result<std::string>& text) {
    return !text && text.problems().front().code == ProblemCode::unreadable;
}

}  // namespace

HudFile::Stamp HudFile::stamp_of(const std::string& path) {
    std::error_code error;
    const fs::file_time_type time = fs::last_write_time(path_of(path), error);
    if (error) return {};
    const std::uintmax_t size = fs::file_size(path_of(path), error);
    const Nanoseconds since = std::chrono::duration_cast<Nanoseconds>(time.time_since_epoch());
    return {since.count(), error ? 0 : size};
}

HudFile::HudFile(std::string path) : path_(std::move(path)) {
    files_.emplace_back(path_, Stamp{});
}

Result<HudDefinition> HudFile::read() {
    was_read_ = true;
    // As they were before: what is saved while it is read is read again.
    std::vector<std::pair<std::string, Stamp>> files{{path_, stamp_of(path_)}};
    const Result<std::string> text = read_text_file(path_, largest_hud);
    unread_.clear();
    is_unread_ = is_unreadable(text);
    if (!text) {
        files_ = std::move(files);
        return text.problems();
    }
    const IncludeReader from_folder = includes_of(folder_of(path_));
    const std::string before = path_.substr(0, path_.find_last_of(path_dividers) + 1);
    HudReader reader(*text, path_, [&](const std::string& path) {
        files.emplace_back(before + path, stamp_of(before + path));
        Result<std::string> included = from_folder(path);
        if (is_unreadable(included)) unread_.push_back(path);
        return included;
    });
    Result<HudDefinition> read = definition_of(reader);
    files_ = std::move(files);
    return read;
}

bool HudFile::has_changed() {
    if (!was_read_) return true;
    constexpr std::chrono::milliseconds between{50};
    const Nanoseconds moment = std::chrono::steady_clock::now().time_since_epoch();
    if (looked_at_ && moment - *looked_at_ < between) return false;
    looked_at_ = moment;
    std::vector<Stamp> now;
    bool is_other = false;
    for (const auto& [path, stamp] : files_) {
        now.push_back(stamp_of(path));
        is_other = is_other || now.back() != stamp;
    }
    // What was refused, as it leads out of the folder or is no file, is refused here, too.
    const auto can_be_read = [this](const std::string& path) {
        return static_cast<bool>(includes_of(folder_of(path_))(path));
    };
    is_other = is_other || (is_unread_ && read_text_file(path_, largest_hud)) ||
               std::any_of(unread_.begin(), unread_.end(), can_be_read);
    // An editor may empty a file first, and write it then.
    const bool is_settled = now == seen_;
    seen_ = std::move(now);
    return is_other && is_settled;
}

Problems HudFile::reload(Hud& hud) {
    const Result<HudDefinition> definition = read();
    return definition ? hud.reload(*definition) : definition.problems();
}

}  // namespace rapido
