// What the last frame has shown of elements that calls have changed since.
#pragma once

#include <memory>
#include <string>
#include <vector>

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
        DisplayGroup group;  ///< as it was drawn
    };

    /// Null for an element that no call has changed, and inside a frame.
    const Kept* find(ElementIndex index) const {
        if (count_ == 0 || index >= places_.size() || places_[index] == 0) return nullptr;
        return kept_[places_[index] - 1].get();
    }
    /// Whether calls come now, and this one is not kept yet.
    bool lacks(ElementIndex index) const { return is_open_ && find(index) == nullptr; }
    /// Room for one; what was in it before stays, for its memory.
    Kept& keep(ElementIndex index) {
        if (index >= places_.size()) places_.resize(index + std::size_t{1});
        if (count_ == kept_.size()) kept_.push_back(std::make_unique<Kept>());
        of_.resize(kept_.size());
        of_[count_] = index;
        places_[index] = static_cast<std::uint32_t>(++count_);
        return *kept_[count_ - 1];
    }

    /// What is exchanged inside a frame is finished when the frame is.
    void begin_frame() {
        for (std::size_t i = 0; i < count_; ++i)
            places_[of_[i]] = 0;
        count_ = 0;
        is_open_ = false;
    }
    void end_frame() { is_open_ = true; }

 private:
    std::vector<std::unique_ptr<Kept>> kept_;
    std::vector<ElementIndex> of_;       ///< whose they are
    std::vector<std::uint32_t> places_;  ///< in `kept_`, counted from 1, by element; 0 for one that is not there
    std::size_t count_ = 0;              ///< of those; the others are kept for their memory
    bool is_open_ = false;               ///< nothing was shown before the first frame
};

}  // namespace rapido
