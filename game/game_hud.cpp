#include "rapido/game_hud.hpp"

#include <chrono>
#include <cstdio>
#include <filesystem>
#include <map>
#include <unordered_set>
#include <utility>

namespace rapido {
namespace {

std::string folder_of(const std::string& path) {
    return std::filesystem::path(path).parent_path().string();
}

void write_to_error_output(const Problem& problem) {
    std::fprintf(stderr, "%s\n", to_string(problem).c_str());
}

}  // namespace

Seconds FrameClock::step() {
    const Nanoseconds now = std::chrono::steady_clock::now().time_since_epoch();
    return to_seconds(now - std::exchange(last_, now).value_or(now));
}

struct GameHud::State {
    State(const std::string& path, bool follows) : file(path), folder(folder_of(path)), follows_file(follows) {}

    HudFile file;
    std::string folder;
    bool follows_file;
    Fonts fonts;
    Images images{folder.empty() ? "." : folder};
    std::unique_ptr<Hud> hud;
    DisplayList list;
    std::map<int, DisplayList> lists_below, lists_above;
    FrameClock clock;
    std::function<void(const Problem&)> log = write_to_error_output;
    bool has_begun = false;
    Problems untold;                           ///< of the time before the first frame
    std::unordered_set<std::string> drawing_;  ///< what `tell` has told

    void tell(const Problem& problem) {
        if (!has_begun)
            untold.push_back(problem);
        else if (log)
            log(problem);
    }
    void tell(const Problems& problems) {
        for (const Problem& problem : problems)
            tell(problem);
    }
    void add_fonts(const HudDefinition& definition) {
        if (const Status added = fonts.add_files(folder, definition.font_files); !added) tell(added.problem());
    }
    /// What is wrong with a HUD, its log tells.
    void follow() {
        if (!follows_file || !file.has_changed()) return;
        const Result<HudDefinition> definition = file.read();
        if (!definition) return tell(definition.problems());
        add_fonts(*definition);
        const Problems found = hud->reload(*definition);
        bool is_taken = true;
        for (const Problem& problem : found)
            is_taken = is_taken && problem.severity != Severity::error;
        if (!is_taken) tell(found);
    }
    void begin() {
        if (std::exchange(has_begun, true)) return;
        tell(std::exchange(untold, {}));
        hud->set_log(log);
    }
};

GameHud::GameHud(const std::string& path, const Sources& sources, bool follows_file)
    : state_(std::make_unique<State>(path, follows_file)) {
    const Result<HudDefinition> definition = state_->file.read();
    if (definition)
        state_->add_fonts(*definition);
    else
        state_->tell(definition.problems());
    state_->hud =
        std::make_unique<Hud>(definition ? *definition : HudDefinition{}, sources, &state_->fonts, &state_->images);
}
GameHud::~GameHud() = default;

Hud* GameHud::operator->() {
    return state_->hud.get();
}
Hud& GameHud::hud() {
    return *state_->hud;
}
Fonts& GameHud::fonts() {
    return state_->fonts;
}
Images& GameHud::images() {
    return state_->images;
}

void GameHud::set_log(std::function<void(const Problem&)> log) {
    state_->log = std::move(log);
    if (state_->has_begun) state_->hud->set_log(state_->log);
}
void GameHud::tell(const Problem& problem) {
    if (state_->drawing_.size() < 100 && state_->drawing_.insert(to_string(problem)).second) state_->tell(problem);
}

const DisplayList& GameHud::frame(const Viewport& viewport, Step step) {
    state_->begin();
    state_->follow();
    state_->hud->resize(viewport);
    state_->hud->update(step);
    state_->hud->draw(state_->list);
    return state_->list;
}
const DisplayList& GameHud::frame(const Viewport& viewport) {
    const Seconds passed = state_->clock.step();
    return frame(viewport, {.real = passed, .game = passed});
}
const DisplayList& GameHud::list() const {
    return state_->list;
}

const DisplayList& GameHud::below(int layer) {
    DisplayList& list = state_->lists_below[layer];
    state_->hud->draw(list, {.to = layer});
    return list;
}
const DisplayList& GameHud::above(int layer) {
    DisplayList& list = state_->lists_above[layer];
    state_->hud->draw(list, {.from = layer});
    return list;
}

}  // namespace rapido
