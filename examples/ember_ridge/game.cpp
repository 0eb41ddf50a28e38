// Ember Ridge, playable: fly a water-bomber over a burning valley.
//
//     ember_ridge [--folder DIR]                                       a window, keyboard and gamepads
//     ember_ridge --script F --shot SECONDS F.png [--players 2] ...    without one: what is pressed, and pictures
//
// A line of a script says what a player holds down from a time on: `2.5 1 right up drop`; `pause`, `slow`, `overlay` and `probes` switch.
#include <rapido/picture.hpp>

#include <cstdio>
#include <cstring>
#include <deque>
#include <fstream>
#include <optional>
#include <sstream>

#include "cockpit.hpp"
#include "rapido/look.hpp"

namespace {

using namespace ember_ridge;

struct Options {
    std::string folder = EMBER_RIDGE_FOLDER, script;
    std::vector<std::pair<double, std::string>> shots;
    int players = 1, width = 1280, height = 800;
};

class Game {
 public:
    Game(SDL_Renderer* renderer, const Options& options)
        : renderer_(renderer),
          images_(options.folder),
          drawer_(renderer, fonts_, &images_),
          instruments_file_(options.folder + "/hud.toml"),
          over_file_(options.folder + "/game.toml") {
        settings_.players = options.players;
        is_fine_ = read(instruments_file_, instruments_) && read(over_file_, over_);
        begin();
    }

    Settings settings_;
    std::vector<Controls> controls_ = std::vector<Controls>(2);

    bool is_fine() const { return is_fine_; }

    /// HUD files that were saved while the game runs: what is still there goes on, and of a faulty file nothing is taken.
    void follow_files() {
        const bool any = instruments_file_.has_changed() || over_file_.has_changed();
        if (!any || !read(instruments_file_, instruments_) || !read(over_file_, over_)) return;
        for (Cockpit& cockpit : cockpits_)
            for (const rapido::Problem& problem : cockpit.reload(instruments_, over_))
                std::fprintf(stderr, "%s\n", to_string(problem).c_str());
    }

    /// One frame of `real` seconds.
    void frame(double real, rapido::Point mouse) {
        follow_files();
        if (settings_.players != static_cast<int>(cockpits_.size())) begin();
        const double game = settings_.paused ? 0 : settings_.slow ? real * 0.3 : real;
        time_ += game;
        if (ridge_->played > 9) settings_.is_new = false;
        ridge_->step(game, controls_);
        int width = 0, height = 0;
        SDL_GetRendererOutputSize(renderer_, &width, &height);
        for (std::size_t i = 0; i < cockpits_.size(); ++i) {
            const int count = static_cast<int>(cockpits_.size()), number = static_cast<int>(i);
            View& view = cockpits_[i].view;
            view.area = {width * number / count, 0, width / count - (number + 1 < count ? 2 : 0), height};
            view.zoom = 1.9 * std::min(view.area.w / 1280.0 * count, height / 800.0);
            cockpits_[i].update(real, game);
        }
        SDL_SetRenderDrawColor(renderer_, 0, 0, 0, 255);
        SDL_RenderClear(renderer_);
        for (Cockpit& cockpit : cockpits_) {
            cockpit.view.draw(renderer_, *ridge_, time_);
            if (const rapido::Status drawn = cockpit.draw(drawer_, mouse); !drawn) complain(drawn.problem());
        }
    }

    /// A key of the menu.
    void choose(int rows, int steps) {
        settings_.chosen = (settings_.chosen + rows + 4) % 4;
        if (steps == 0) return;
        if (settings_.chosen == 0) settings_.reduced = !settings_.reduced;
        if (settings_.chosen == 1) settings_.scale = std::clamp(settings_.scale + 10 * steps, 60.0, 160.0);
        if (settings_.chosen == 2) settings_.texts = std::clamp(settings_.texts + 10 * steps, 80.0, 150.0);
        if (settings_.chosen == 3) settings_.players = 3 - settings_.players;
    }

    void report() const {
        for (const Cockpit& cockpit : cockpits_)
            for (const rapido::Hud* const hud : {&cockpit.instruments(), &cockpit.over()})
                for (const rapido::Problem& problem : hud->problems())
                    std::fprintf(stderr, "%s\n", to_string(problem).c_str());
        const Bomber& first = ridge_->bombers.front();
        std::printf("%.1f s: %d acres saved, %d points, %zu fires\n", ridge_->played, first.acres_saved, first.score,
                    ridge_->blazes.size());
    }

    rapido::SdlDrawer& drawer() { return drawer_; }
    const rapido::Fonts& fonts() const { return fonts_; }

 private:
    static bool read(rapido::HudFile& file, rapido::HudDefinition& definition) {
        rapido::Result<rapido::HudDefinition> read = file.read();
        for (const rapido::Problem& problem : read.problems())
            std::fprintf(stderr, "%s\n", to_string(problem).c_str());
        if (read) definition = *std::move(read);
        return bool(read);
    }
    void complain(const rapido::Problem& problem) {
        std::fprintf(stderr, "%s\n", to_string(problem).c_str());
        is_fine_ = false;
    }
    /// A new flight.
    void begin() {
        for (const Cockpit& cockpit : cockpits_)
            cockpit.leave(drawer_);
        cockpits_.clear();
        ridge_.emplace(static_cast<std::size_t>(settings_.players));
        settings_.is_new = true;
        for (std::size_t i = 0; i < ridge_->bombers.size(); ++i)
            cockpits_.emplace_back(instruments_, over_, *ridge_, settings_, i, fonts_, images_, limit_);
    }

    SDL_Renderer* renderer_;
    rapido::Fonts fonts_;
    rapido::Images images_;
    rapido::SdlDrawer drawer_;
    rapido::FlashLimit limit_;
    rapido::HudFile instruments_file_, over_file_;
    rapido::HudDefinition instruments_, over_;
    std::optional<Ridge> ridge_;
    std::deque<Cockpit> cockpits_;
    double time_ = 0;
    bool is_fine_ = true;
};

// --- Without a window

struct Press {
    double time = 0;
    std::size_t player = 0;
    std::string what;
};

std::vector<Press> read_script(const std::string& path) {
    std::vector<Press> presses;
    std::ifstream file(path);
    for (std::string line; std::getline(file, line);) {
        std::istringstream words(line);
        Press press;
        if (line.empty() || line[0] == '#' || !(words >> press.time >> press.player)) continue;
        std::getline(words, press.what);
        presses.push_back(press);
    }
    return presses;
}

void apply(Game& game, const Press& press) {
    const auto says = [&](const char* word) {
        return (press.what + " ").find(" " + std::string(word) + " ") != std::string::npos;
    };
    for (const auto& [word, flag] : {std::pair("pause", &game.settings_.paused),
                                     {"slow", &game.settings_.slow},
                                     {"overlay", &game.settings_.overlay},
                                     {"probes", &game.settings_.probes}})
        if (says(word)) *flag = !*flag;
    if (press.player < 1 || press.player > game.controls_.size()) return;
    game.controls_[press.player - 1] = {says("left"), says("right"), says("up"), says("down"), says("drop")};
}

bool write_picture(SDL_Surface* surface, const rapido::Fonts& fonts, const std::string& path) {
    std::vector<rapido::Color> pixels;
    for (int y = 0; y < surface->h; ++y)
        for (int x = 0; x < surface->w; ++x) {
            const auto* const p = static_cast<const Uint8*>(surface->pixels) + y * surface->pitch + x * 4;
            pixels.push_back({p[0], p[1], p[2], 255});
        }
    rapido::Images images;
    const auto image = images.add("shot", surface->w, surface->h, pixels);
    rapido::Picture picture(surface->w, surface->h, fonts, &images);
    rapido::DisplayGroup group;
    group.begin();
    const rapido::Rect all{0, 0, static_cast<float>(surface->w), static_cast<float>(surface->h)};
    group.image(*image, all, all, rapido::rgb(0xffffff), false);
    picture.draw(group);
    const rapido::Status written = picture.write_png(path);
    std::fprintf(stderr, "%s\n", written ? ("wrote " + path).c_str() : to_string(written.problem()).c_str());
    return bool(written);
}

int play_script(const Options& options) {
    SDL_Surface* const surface =
        SDL_CreateRGBSurfaceWithFormat(0, options.width, options.height, 32, SDL_PIXELFORMAT_RGBA32);
    SDL_Renderer* const renderer = SDL_CreateSoftwareRenderer(surface);
    if (renderer == nullptr) return std::fprintf(stderr, "%s\n", SDL_GetError()), 1;
    bool is_fine = true;
    {
        Game game(renderer, options);
        const std::vector<Press> presses = read_script(options.script);
        std::size_t next = 0, shot = 0;
        for (int frame = 0; shot < options.shots.size() && is_fine; ++frame) {
            const double now = frame / 60.0;
            for (; next < presses.size() && presses[next].time <= now; ++next)
                apply(game, presses[next]);
            game.frame(1 / 60.0, {static_cast<float>(options.width) / 2, static_cast<float>(options.height) / 2});
            SDL_RenderFlush(renderer);
            for (; shot < options.shots.size() && options.shots[shot].first <= now; ++shot)
                is_fine = write_picture(surface, game.fonts(), options.shots[shot].second) && is_fine;
            is_fine = is_fine && game.is_fine();
        }
        game.report();
    }
    SDL_DestroyRenderer(renderer);
    SDL_FreeSurface(surface);
    return is_fine ? 0 : 1;
}

// --- In a window

/// What the keys of a player, and a gamepad, hold down.
Controls held(std::size_t player, SDL_GameController* pad) {
    const Uint8* const keys = SDL_GetKeyboardState(nullptr);
    Controls made =
        player == 0 ? Controls{keys[SDL_SCANCODE_LEFT] != 0, keys[SDL_SCANCODE_RIGHT] != 0, keys[SDL_SCANCODE_UP] != 0,
                               keys[SDL_SCANCODE_DOWN] != 0, keys[SDL_SCANCODE_SPACE] != 0}
                    : Controls{keys[SDL_SCANCODE_A] != 0, keys[SDL_SCANCODE_D] != 0, keys[SDL_SCANCODE_W] != 0,
                               keys[SDL_SCANCODE_S] != 0, keys[SDL_SCANCODE_F] != 0};
    if (pad == nullptr) return made;
    const int x = SDL_GameControllerGetAxis(pad, SDL_CONTROLLER_AXIS_LEFTX),
              y = SDL_GameControllerGetAxis(pad, SDL_CONTROLLER_AXIS_LEFTY);
    made.left = made.left || x < -12000;
    made.right = made.right || x > 12000;
    made.up = made.up || y < -12000;
    made.down = made.down || y > 12000;
    made.drop = made.drop || SDL_GameControllerGetButton(pad, SDL_CONTROLLER_BUTTON_A) != 0;
    return made;
}

void press(Game& game, SDL_Keycode key) {
    Settings& settings = game.settings_;
    if (key == SDLK_p || key == SDLK_ESCAPE) settings.paused = !settings.paused;
    if (key == SDLK_F1) settings.probes = !settings.probes;
    if (key == SDLK_F2) settings.overlay = !settings.overlay;
    if (!settings.paused) return;
    if (key == SDLK_UP) game.choose(-1, 0);
    if (key == SDLK_DOWN) game.choose(1, 0);
    if (key == SDLK_LEFT) game.choose(0, -1);
    if (key == SDLK_RIGHT || key == SDLK_RETURN) game.choose(0, 1);
}

int play(const Options& options) {
    if (SDL_Init(SDL_INIT_VIDEO | SDL_INIT_GAMECONTROLLER) != 0) return std::fprintf(stderr, "%s\n", SDL_GetError()), 1;
    SDL_Window* const window =
        SDL_CreateWindow("Ember Ridge", SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, options.width, options.height,
                         SDL_WINDOW_RESIZABLE | SDL_WINDOW_ALLOW_HIGHDPI);
    SDL_Renderer* const renderer =
        window != nullptr ? SDL_CreateRenderer(window, -1, SDL_RENDERER_PRESENTVSYNC) : nullptr;
    if (renderer == nullptr) return std::fprintf(stderr, "%s\n", SDL_GetError()), 1;
    std::vector<SDL_GameController*> pads;
    {
        Game game(renderer, options);
        Uint64 last = SDL_GetPerformanceCounter();
        rapido::Point mouse;
        for (bool quits = false; !quits && game.is_fine();) {
            for (SDL_Event event; SDL_PollEvent(&event) != 0;) {
                quits = quits || event.type == SDL_QUIT;
                if (event.type == SDL_KEYDOWN && event.key.repeat == 0) press(game, event.key.keysym.sym);
                if (event.type == SDL_MOUSEMOTION)
                    mouse = {static_cast<float>(event.motion.x), static_cast<float>(event.motion.y)};
                if (event.type == SDL_CONTROLLERDEVICEADDED && pads.size() < 2)
                    pads.push_back(SDL_GameControllerOpen(event.cdevice.which));
                if (event.type == SDL_CONTROLLERBUTTONDOWN && event.cbutton.button == SDL_CONTROLLER_BUTTON_START)
                    press(game, SDLK_p);
                if (event.type == SDL_RENDER_DEVICE_RESET) game.drawer().reset();
            }
            for (std::size_t i = 0; i < 2; ++i)
                game.controls_[i] = held(i, i < pads.size() ? pads[i] : nullptr);
            game.settings_.slow = SDL_GetKeyboardState(nullptr)[SDL_SCANCODE_T] != 0;
            const Uint64 now = SDL_GetPerformanceCounter();
            const double passed = static_cast<double>(now - last) / static_cast<double>(SDL_GetPerformanceFrequency());
            last = now;
            game.frame(std::min(passed, 0.25), mouse);
            SDL_RenderPresent(renderer);
        }
        game.report();
    }
    for (SDL_GameController* const pad : pads)
        SDL_GameControllerClose(pad);
    SDL_DestroyRenderer(renderer);
    SDL_DestroyWindow(window);
    SDL_Quit();
    return 0;
}

}  // namespace

int main(int count, char** arguments) {
    Options options;
    for (int i = 1; i < count; ++i) {
        const std::string word = arguments[i];
        const bool has_next = i + 1 < count;
        if (word == "--folder" && has_next)
            options.folder = arguments[++i];
        else if (word == "--script" && has_next)
            options.script = arguments[++i];
        else if (word == "--players" && has_next)
            options.players = std::strcmp(arguments[++i], "2") == 0 ? 2 : 1;
        else if (word == "--size" && has_next &&
                 std::sscanf(arguments[i + 1], "%dx%d", &options.width, &options.height) == 2)
            ++i;
        else if (word == "--shot" && i + 2 < count) {
            options.shots.emplace_back(std::atof(arguments[i + 1]), arguments[i + 2]);
            i += 2;
        } else
            return std::fprintf(stderr, "error: unknown option '%s'; see the top of game.cpp\n", word.c_str()), 2;
    }
    return options.script.empty() ? play(options) : play_script(options);
}
