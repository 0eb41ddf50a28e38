// A window that shows HUDs, for tools, samples and small games. It is made with SDL 2, which programs that use it need not know.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/base/problem.hpp"
#include "rapido/base/units.hpp"
#include "rapido/draw/display_list.hpp"
#include "rapido/draw/image_finder.hpp"
#include "rapido/fonts.hpp"
#include "rapido/layout/place.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What a window is at first.
struct WindowOptions {
    std::string title = "Rapido";
    int width = 1280, height = 800;  ///< in the units of the desktop, which may be several pixels
};

/// Something that the user did.
struct WindowEvent {
    enum class Kind : std::uint8_t {
        key,    ///< a key went down, or repeats while it is held
        text,   ///< characters were typed
        press,  ///< the first button of the mouse, or a finger, went down
        wheel,  ///< the wheel was turned
    };
    Kind kind = Kind::key;
    std::string key;   ///< of `key`: what stands on it in lower case, such as `a`, `7`, `space`, `left`, `escape`, `f5`
    std::string text;  ///< of `text`: UTF-8
    Point at{};        ///< where the mouse was, in pixels
    float steps = 0;   ///< of `wheel`: away from the user is positive
    bool shift = false, control = false;
    bool repeats = false;  ///< of `key`
};

/// A window and its loop:
///
///     HudWindow window(fonts, &images, {.title = "Ember Ridge"});
///     while (window.next_frame()) {
///         hud.resize(window.viewport());
///         hud.update(window.elapsed());
///         hud.draw(list);
///         window.clear(rgb(0x10161c));
///         window.draw(list);
///     }
///
/// Belongs to the thread that made it, and one is open at a time.
class HudWindow {
 public:
    /// Opens a window. The fonts and the images must outlive it. Where none can be opened, `status` says why, `next_frame` is false, and all
    /// else does nothing.
    explicit HudWindow(const Fonts& fonts, const ImageFinder* images = nullptr, const WindowOptions& options = {});
    ~HudWindow();
    HudWindow(const HudWindow&) = delete;
    HudWindow& operator=(const HudWindow&) = delete;

    /// Why the window could not be opened, or why what was drawn last could not be.
    const Status& status() const;

    /// Shows what was drawn, waits for the screen, and gathers what the user did. False from when the window was closed. What is between two
    /// calls is a frame.
    bool next_frame();
    /// The time from the call before to this one; zero in the first frame.
    Seconds elapsed() const;
    /// What the user did since the frame before, in order; valid until the next one.
    std::span<const WindowEvent> events() const;
    /// Whether a key is down, by the names that events give.
    bool is_held(std::string_view key) const;
    /// Where the mouse is, in pixels.
    Point pointer() const;

    /// The size in pixels, for `Hud::resize`.
    Viewport viewport() const;
    /// Pixels for one unit of the desktop: 2 on a screen of twice the usual density.
    float pixel_ratio() const;
    void resize(int width, int height);
    void set_title(const std::string& title);
    /// Ends the loop: `next_frame` is false from now on.
    void close();

    /// Paints all over.
    void clear(Color color);
    /// Draws a list over what is there. A list that is drawn in each frame keeps its triangles.
    void draw(const DisplayList& list);
    /// Forgets a list that is destroyed before the window.
    void forget(const DisplayList& list);
    /// What was drawn in this frame, before it is shown: row by row from the top, four bytes a pixel, red, green, blue and alpha. Slow.
    std::vector<std::uint8_t> read_pixels() const;

 private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
