#include "rapido/window.hpp"

#define SDL_MAIN_HANDLED  // main is the program's own
#include "rapido/sdl.hpp"

namespace rapido {
namespace {

/// A frame takes at least so long where the screen is waited for, and where it is not.
constexpr double shortest_frame = 1 / 500.0;
constexpr double shortest_free_frame = 1 / 60.0;

std::string lower(std::string name) {
    for (char& c : name)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return name;
}

/// SDL counts its users, so that windows may come and go in a program that uses it, too.
struct Video {
    Video() : works((SDL_SetMainReady(), SDL_InitSubSystem(SDL_INIT_VIDEO) == 0)) {}
    ~Video() {
        if (works) SDL_QuitSubSystem(SDL_INIT_VIDEO);
    }
    Video(const Video&) = delete;
    Video& operator=(const Video&) = delete;
    const bool works;
};

Problem problem(const char* what) {
    return {{}, std::string(what) + ": " + SDL_GetError(), "", ProblemCode::unwritable};
}

}  // namespace

struct HudWindow::State {
    Video video;
    SDL_Window* window = nullptr;
    SDL_Renderer* renderer = nullptr;
    std::unique_ptr<SdlDrawer> drawer;
    Status status;
    std::vector<WindowEvent> events;
    std::uint64_t last = 0;  ///< in ticks of the counter
    double elapsed = 0;
    bool is_open = false, waits_for_screen = false;

    State() = default;
    ~State() {
        drawer.reset();
        if (renderer != nullptr) SDL_DestroyRenderer(renderer);
        if (window != nullptr) SDL_DestroyWindow(window);
    }
    State(const State&) = delete;
    State& operator=(const State&) = delete;

    void open(const Fonts& fonts, const ImageFinder* images, const WindowOptions& options) {
        status = problem("cannot open a window");
        if (!video.works) return;
        window = SDL_CreateWindow(options.title.c_str(), SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, options.width,
                                  options.height, SDL_WINDOW_RESIZABLE | SDL_WINDOW_ALLOW_HIGHDPI);
        if (window != nullptr) renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_PRESENTVSYNC);
        if (window != nullptr && renderer == nullptr) renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_SOFTWARE);
        if (renderer == nullptr) {
            status = problem("cannot open a window");
            return;
        }
        SDL_RendererInfo info{};
        SDL_GetRendererInfo(renderer, &info);
        waits_for_screen = (info.flags & SDL_RENDERER_PRESENTVSYNC) != 0;
        drawer = std::make_unique<SdlDrawer>(renderer, fonts, images);
        status = {};
        is_open = true;
        SDL_StartTextInput();
    }

    float ratio() const {
        int width = 1, pixels = 1;
        SDL_GetWindowSize(window, &width, nullptr);
        SDL_GetRendererOutputSize(renderer, &pixels, nullptr);
        return width > 0 ? static_cast<float>(pixels) / static_cast<float>(width) : 1;
    }
    Point in_pixels(int x, int y) const { return {static_cast<float>(x) * ratio(), static_cast<float>(y) * ratio()}; }
    Point mouse() const {
        int x = 0, y = 0;
        SDL_GetMouseState(&x, &y);
        return in_pixels(x, y);
    }

    void show() {
        SDL_RenderPresent(renderer);
        const double ticks = static_cast<double>(SDL_GetPerformanceFrequency());
        double passed = static_cast<double>(SDL_GetPerformanceCounter() - last) / ticks;
        const bool is_seen = (SDL_GetWindowFlags(window) & SDL_WINDOW_MINIMIZED) == 0;
        const double shortest = waits_for_screen && is_seen ? shortest_frame : shortest_free_frame;
        if (last != 0 && passed < shortest) {
            SDL_Delay(static_cast<std::uint32_t>((shortest - passed) * 1000));
            passed = static_cast<double>(SDL_GetPerformanceCounter() - last) / ticks;
        }
        elapsed = last != 0 ? passed : 0;
        last = SDL_GetPerformanceCounter();
    }

    void gather() {
        events.clear();
        const std::uint32_t id = SDL_GetWindowID(window);
        SDL_Event event;
        while (SDL_PollEvent(&event) != 0) {
            WindowEvent own;
            const auto modifiers = SDL_GetModState();
            own.shift = (modifiers & KMOD_SHIFT) != 0;
            own.control = (modifiers & KMOD_CTRL) != 0;
            own.at = mouse();
            switch (event.type) {
                case SDL_QUIT:
                    is_open = false;
                    continue;
                case SDL_WINDOWEVENT:
                    if (event.window.windowID == id && event.window.event == SDL_WINDOWEVENT_CLOSE) is_open = false;
                    continue;
                case SDL_RENDER_DEVICE_RESET:
                case SDL_RENDER_TARGETS_RESET:
                    drawer->reset();
                    continue;
                case SDL_KEYDOWN:
                    own.shift = (event.key.keysym.mod & KMOD_SHIFT) != 0;
                    own.control = (event.key.keysym.mod & KMOD_CTRL) != 0;
                    own.key = lower(SDL_GetKeyName(event.key.keysym.sym));
                    own.repeats = event.key.repeat != 0;
                    break;
                case SDL_TEXTINPUT:
                    own.kind = WindowEvent::Kind::text;
                    own.text = static_cast<const char*>(event.text.text);
                    break;
                case SDL_MOUSEBUTTONDOWN:
                    if (event.button.button != SDL_BUTTON_LEFT) continue;
                    own.kind = WindowEvent::Kind::press;
                    own.at = in_pixels(event.button.x, event.button.y);
                    break;
                case SDL_MOUSEWHEEL:
                    own.kind = WindowEvent::Kind::wheel;
                    own.steps = static_cast<float>(event.wheel.y);
                    break;
                default:
                    continue;
            }
            events.push_back(std::move(own));
        }
    }
};

HudWindow::HudWindow(const Fonts& fonts, const ImageFinder* images, const WindowOptions& options)
    : state_(std::make_unique<State>()) {
    state_->open(fonts, images, options);
}

HudWindow::~HudWindow() = default;

const Status& HudWindow::status() const {
    return state_->status;
}

bool HudWindow::next_frame() {
    if (!state_->is_open) return false;
    state_->show();
    state_->gather();
    return state_->is_open;
}

Seconds HudWindow::elapsed() const {
    return Seconds{state_->elapsed};
}

std::span<const WindowEvent> HudWindow::events() const {
    return state_->events;
}

bool HudWindow::is_held(std::string_view key) const {
    if (state_->renderer == nullptr) return false;
    const SDL_Scancode code = SDL_GetScancodeFromKey(SDL_GetKeyFromName(std::string(key).c_str()));
    return code != SDL_SCANCODE_UNKNOWN && SDL_GetKeyboardState(nullptr)[code] != 0;
}

Point HudWindow::pointer() const {
    return state_->renderer != nullptr ? state_->mouse() : Point{};
}

Viewport HudWindow::viewport() const {
    int width = 0, height = 0;
    if (state_->renderer != nullptr) SDL_GetRendererOutputSize(state_->renderer, &width, &height);
    return {.size = {static_cast<float>(width), static_cast<float>(height)}};
}

float HudWindow::pixel_ratio() const {
    return state_->renderer != nullptr ? state_->ratio() : 1;
}

void HudWindow::resize(int width, int height) {
    if (state_->window != nullptr) SDL_SetWindowSize(state_->window, width, height);
}

void HudWindow::set_title(const std::string& title) {
    if (state_->window != nullptr) SDL_SetWindowTitle(state_->window, title.c_str());
}

void HudWindow::close() {
    state_->is_open = false;
}

void HudWindow::clear(Color color) {
    if (state_->renderer == nullptr) return;
    SDL_SetRenderDrawColor(state_->renderer, color.red, color.green, color.blue, color.alpha);
    SDL_RenderClear(state_->renderer);
}

void HudWindow::draw(const DisplayList& list) {
    if (state_->drawer != nullptr) state_->status = state_->drawer->draw(list);
}

void HudWindow::forget(const DisplayList& list) {
    if (state_->drawer != nullptr) state_->drawer->forget(list);
}

std::vector<std::uint8_t> HudWindow::read_pixels() const {
    if (state_->renderer == nullptr) return {};
    const Size size = viewport().size;
    const int width = static_cast<int>(size.width), height = static_cast<int>(size.height);
    std::vector<std::uint8_t> pixels(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4);
    SDL_RenderReadPixels(state_->renderer, nullptr, SDL_PIXELFORMAT_RGBA32, pixels.data(), width * 4);
    return pixels;
}

}  // namespace rapido
