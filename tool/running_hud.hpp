// A HUD that runs without a game, out of a file that is read again when it is saved.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "rapido/file.hpp"
#include "rapido/fonts.hpp"
#include "rapido/hud.hpp"
#include "rapido/images.hpp"

namespace rapido::tool {

/// What a viewer chooses.
struct Viewing {
    Size size{1280, 800};  ///< of the HUD, in pixels
    float scale = 1;       ///< the player's
    bool reduced_motion = false;
    std::string theme{};  ///< empty is the first one
    std::optional<Language> language{};
};

class RunningHud {
 public:
    RunningHud(const std::string& path, Sources sources);

    /// Reads the file, at first or again. What is wrong is in `problems`; with an error among it the last good HUD stays.
    void read();
    /// Reads it if it was saved since then. True if so.
    bool follow();
    /// Makes the HUD anew from the last good file, as if it had just begun.
    void restart();
    void view(const Viewing& viewing);

    Hud& hud() { return *hud_; }
    Fonts& fonts() { return fonts_; }
    Images& images() { return images_; }
    const HudDefinition& definition() const { return definition_; }
    const std::string& path() const { return file_.path(); }
    const Problems& problems() const { return problems_; }
    bool is_broken() const { return is_broken_; }

 private:
    void apply();

    HudFile file_;
    Sources sources_;
    Fonts fonts_;
    Images images_;
    std::vector<std::string> font_files_;  ///< that were added
    HudDefinition definition_;
    std::unique_ptr<Hud> hud_;
    Viewing viewing_;
    Problems problems_;
    bool is_broken_ = false;
};

}  // namespace rapido::tool
