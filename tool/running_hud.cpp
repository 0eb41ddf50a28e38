#include "tool/running_hud.hpp"

#include <algorithm>
#include <filesystem>

namespace rapido::tool {
namespace {

std::string folder_of(const std::string& path) {
    return std::filesystem::absolute(path).parent_path().string();
}

}  // namespace

RunningHud::RunningHud(const std::string& path, Sources sources)
    : file_(path), sources_(std::move(sources)), images_(folder_of(path)) {
    restart();
}

void RunningHud::read() {
    Result<HudDefinition> read = file_.read();
    is_broken_ = !read;
    problems_ = read.problems();
    if (!read) return;
    std::vector<std::string> fonts;
    for (const std::string& font : read->font_files)
        if (std::find(font_files_.begin(), font_files_.end(), font) == font_files_.end()) fonts.push_back(font);
    font_files_.insert(font_files_.end(), fonts.begin(), fonts.end());
    const Status added = fonts_.add_files(folder_of(path()), fonts);
    problems_ = hud_->reload(*read);
    is_broken_ = std::any_of(problems_.begin(), problems_.end(), [](const Problem& problem) {
        return problem.severity == Severity::error && problem.code != ProblemCode::unknown_source;
    });
    if (!added) problems_.push_back(added.problem());
    if (!is_broken_) definition_ = *std::move(read);
}

bool RunningHud::follow() {
    if (!file_.has_changed()) return false;
    read();
    return true;
}

void RunningHud::restart() {
    hud_ = std::make_unique<Hud>(definition_, sources_, &fonts_, &images_);
    apply();
}

void RunningHud::view(const Viewing& viewing) {
    viewing_ = viewing;
    apply();
}

void RunningHud::apply() {
    hud_->resize({.size = viewing_.size});
    hud_->set_ui_scale(viewing_.scale);
    hud_->set_reduced_motion(viewing_.reduced_motion);
    if (!viewing_.theme.empty()) hud_->set_theme(viewing_.theme);
    if (viewing_.language) hud_->set_language(*viewing_.language);
}

}  // namespace rapido::tool
