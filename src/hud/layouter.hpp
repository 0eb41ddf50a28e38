// Where elements stand: sizes from the inside out, places from the outside in.
#pragma once

#include <span>
#include <string>
#include <vector>

#include "hud/elements.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/layout/flow.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Measures and places only what changed, and what depends on it. Without a measurer it does nothing.
class Layouter {
 public:
    Layouter(Elements& elements, ProblemLog& problems) : elements_(elements), problems_(problems) {}

    void set_measurer(TextMeasurer* measurer) { measurer_ = measurer; }
    TextMeasurer* measurer() const { return measurer_; }
    /// The screen is fitted like this from the next update on; the player's scale stays.
    void set_options(const FitOptions& options, bool mirrors);
    void set_viewport(const Viewport& viewport);
    void set_ui_scale(float scale);
    /// Whether the language is written from right to left.
    void set_right_to_left(bool right_to_left);

    /// Where it stands as its description says; the rest is as its kind is by itself.
    void set_place(ElementIndex index, const Place& place);
    void add(ElementIndex index, const Place& place);
    void remove(ElementIndex index);
    /// Elements were added or removed, and ordered anew.
    void relink();

    /// The size of an element may differ. It is measured at the end of the frame.
    void must_measure(ElementIndex index) {
        if (measurer_ == nullptr || index == no_element || placed_[index].must_measure) return;
        placed_[index].must_measure = true;
        resized_.push_back(index);
    }
    /// Fits the screen, if that is to be done.
    void fit();
    /// Measures and places.
    void lay_out();

    const Fitted& screen() const { return screen_; }
    /// The one for which the last frame was laid out.
    const std::optional<Viewport>& viewport() const { return viewport_; }
    bool mirrored() const { return mirrored_; }
    /// It takes room, and has its box.
    bool is_placed(ElementIndex index) const { return placed_[index].shown && placed_[index].has_box; }
    /// In design pixels, as it is seen.
    Rect box(ElementIndex index) const;
    Rect device_box(ElementIndex index) const;
    /// The point of its box by which it is held in its place, as it is seen, in parts of the box.
    Point pivot(ElementIndex index) const;
    /// The side to which a column aligns an element, as a part of its width before mirroring; nothing where its own anchor
    /// counts.
    std::optional<float> column_side(ElementIndex index) const;
    /// An element is shown, or hidden: who is hidden takes no room.
    void set_shown(ElementIndex index, bool shown);

 private:
    /// What layout knows of one element.
    struct Placed {
        Place place;
        Size natural;
        Hold hold;
        Rect box;  ///< in design pixels, before mirroring
        bool shown = false;
        bool has_box = false;
        bool must_measure = false;
        bool must_place = false;    ///< it stands on the screen itself, and may stand elsewhere
        bool must_arrange = false;  ///< what stands inside may
    };
    void fit_to_screen();
    void measure_resized();
    void measure(ElementIndex index);
    void arrange_placed();
    bool place_on_screen(ElementIndex index);
    void arrange(ElementIndex panel);
    void set_box(ElementIndex index, const Rect& box);
    void queue_place(ElementIndex index, bool inside);
    std::span<const FlowItem> items_of(ElementIndex panel);
    void report_missing(const RunningElement& element);

    Elements& elements_;
    ProblemLog& problems_;
    TextMeasurer* measurer_ = nullptr;
    FitOptions options_;
    std::optional<Viewport> next_viewport_, viewport_;  ///< nothing before the first `resize`
    Fitted screen_;
    bool may_mirror_ = true;
    bool right_to_left_ = false;
    bool mirrored_ = false;
    bool screen_dirty_ = true;
    Pages<Placed> placed_;                ///< by element
    std::vector<ElementIndex> resized_;   ///< a heap of those that are to be measured
    std::vector<ElementIndex> to_place_;  ///< a heap of those that are to be placed, or arranged
    std::vector<ElementIndex> flow_elements_;
    std::vector<FlowItem> flow_items_;
    std::vector<Rect> flow_boxes_;
    Flow flow_;
};

}  // namespace rapido
