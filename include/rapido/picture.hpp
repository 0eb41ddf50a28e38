// Pictures without a monitor.
#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>

#include "rapido/base.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/draw.hpp"
#include "rapido/draw/pixel_rect.hpp"
#include "rapido/fonts.hpp"
#include "rapido/images.hpp"

namespace rapido RAPIDO_EXPORTED {

/// An image in memory that display lists are drawn on. It begins transparent.
class Picture {
 public:
    /// Between 1 and 16384 pixels each way; other sizes are limited to that. `fonts` must be the measurer of the HUDs that
    /// are drawn, and outlive the picture, and so with `images`; without them no image is drawn. Where there is no memory
    /// for so many pixels, the picture has a single one and `status` says so.
    Picture(int width, int height, const Fonts& fonts, const Images* images = nullptr);
    ~Picture();
    Picture(Picture&&) noexcept;
    Picture& operator=(Picture&&) noexcept;

    /// A problem where the picture could not be made in its size, where a display list was made for another size (its HUD was never
    /// resized, or to more than there is; it is drawn all the same, unscaled), or was too much to draw: about a second's work is
    /// drawn of each.
    const Status& status() const;

    /// Every pixel takes this color; a transparent one clears the picture.
    void fill(Color color);
    /// Draws a PNG file over the whole, as CSS `object-fit: cover` does. A problem if it cannot be read.
    Status draw_image(const std::string& path);
    void draw(const DisplayList& list);
    /// Another picture, scaled to fill `into`.
    void draw(const Picture& picture, const Rect& into);
    /// Commands of your own.
    void draw(const DisplayGroup& group);
    /// Some commands of a group, of which there may be fewer.
    void draw(const DisplayGroup& group, std::size_t first, std::size_t count);

    int width() const;
    int height() const;
    /// Straight alpha. A pixel outside is transparent.
    Color pixel(int x, int y) const;

    // As a layer over a game that draws with the processor: `clear`, `draw`, `blend_onto` in each frame, of one picture.

    /// Makes transparent what was drawn since the last `clear`.
    void clear();
    /// What was drawn since the last `clear`, at most.
    PixelRect drawn() const;
    /// The pixels, row by row from the top, `stride` of them from one row to the next: 0xAARRGGBB, red, green and blue multiplied by the
    /// alpha. Valid until something is drawn.
    std::span<const std::uint32_t> pixels() const;
    int stride() const;
    /// Puts what was drawn over the pixels of a game, 0xAARRGGBB or 0xXXRRGGBB, of which the first `width()` of `height()` rows are as large as the
    /// picture; `row_bytes` is the distance from one row to the next. Nothing else is touched.
    void blend_onto(void* game_pixels, std::ptrdiff_t row_bytes) const;

    /// Writes a PNG file. A problem, with the reason of the system, if it cannot be written.
    Status write_png(const std::string& path) const;

 private:
    friend Status write_svg(const DisplayList&, int, int, const Fonts&, const std::string&, const Images*);
    static Status write_svg(const DisplayList& list, int width, int height, const Fonts& fonts, const Images* images,
                            const std::string& path);
    struct State;
    std::unique_ptr<State> state_;
};

/// The same drawing as an SVG file, with texts as outlines: sharp at every size, on a transparent ground. Sizes are limited
/// as for pictures; a problem if it cannot be written.
Status write_svg(const DisplayList& list, int width, int height, const Fonts& fonts, const std::string& path,
                 const Images* images = nullptr);

}  // namespace rapido
