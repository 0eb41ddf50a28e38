// One image of an element, or what stands for it where it is missing.
#pragma once

#include <optional>
#include <string>

#include "element/body.hpp"
#include "rapido/element/image.hpp"

namespace rapido {

class ImageLook {
 public:
    ImageLook() = default;
    /// An empty name is no image at all. One that cannot be read is warned of.
    static ImageLook find(const std::string& name, std::string_view field, const Frames& frames, BodyContext& context);

    explicit operator bool() const { return named_; }
    std::optional<ImageId> image() const { return image_; }
    int frame_count() const { return frames_.count; }
    /// Of one frame, in pixels of the image; of what stands for one that is missing.
    Size size() const { return size_; }
    /// Where a frame is in the image.
    Rect frame(int number) const;
    /// The number of the frame at a time.
    int frame_at(Nanoseconds time) const;

    /// A frame, or the crossed box, over `rect`. True if it is the last command, for what else is to be done to it.
    bool draw(const Rect& rect, int frame, Color color, bool smooth, const DrawPlace& at, DisplayGroup& into) const;
    /// Where an image of a size is in a box.
    static Rect fitted(const Rect& box, Size own, ImageFit fit, float scale);
    /// A frame over `rect`, cut off where that is beyond the box. True if it is the last command.
    bool draw_cut(const Rect& rect, const Rect& box, int frame, Color color, bool smooth, const DrawPlace& at,
                  DisplayGroup& into) const;
    /// A frame in a box, cut off where it is larger.
    void draw_fitted(const Rect& box, ImageFit fit, int frame, Color color, bool smooth, const DrawPlace& at,
                     DisplayGroup& into) const;
    /// A frame as nine slices over `rect`: three columns and three rows, of which `slice` gives the outer ones in pixels of
    /// the image; in a box that is too small for its corners they shrink together. With a polygon, only what lies inside it.
    void draw_slices(const Rect& rect, int frame, const Insets& slice, Color color, bool smooth, const DrawPlace& at,
                     DisplayGroup& into, std::span<const Point> cut = {}) const;
    /// The crossed box.
    static void draw_missing(const Rect& rect, const DrawPlace& at, DisplayGroup& into);

 private:
    bool named_ = false;
    std::optional<ImageId> image_;
    Frames frames_;
    Size size_;
};

}  // namespace rapido
