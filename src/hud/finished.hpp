// What the last frame has shown of elements that calls have changed since.
#pragma once

#include <string>
#include <unordered_map>

#include "hud/element_index.hpp"
#include "rapido/hud/hud.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido {

/// Between two frames the HUD draws and says what the last one has made. A call that exchanges a part of an element keeps here what was
/// drawn and said of it, before it does so; the next frame begins with nothing kept.
class Finished {
 public:
    struct Kept {
        Shown shown;  ///< without its views, which are into what stands below
        std::string text;
        KeptValue truth, target, value;
        DrawGroup group;   ///< as it was drawn
    };

    /// Null for an element that no call has changed, and inside a frame.
    const Kept* find(ElementIndex index) const {
        if (kept_.empty()) return nullptr;
        const auto found = kept_.find(index);
        return found != kept_.end() ? &found->second : nullptr;
    }
    /// Whether calls come now, and this one is not kept yet.
    bool lacks(ElementIndex index) const { return is_open_ && !kept_.contains(index); }
    Kept& keep(ElementIndex index) { return kept_[index]; }

    /// What is exchanged inside a frame is finished when the frame is.
    void begin_frame() {
        kept_.clear();
        is_open_ = false;
    }
    void end_frame() { is_open_ = true; }

 private:
    std::unordered_map<ElementIndex, Kept> kept_;
    bool is_open_ = false;  ///< nothing was shown before the first frame
};

}  // namespace rapido
