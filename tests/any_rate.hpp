// A HUD beside itself at other frame rates.
#pragma once

#include <cmath>
#include <functional>
#include <memory>

#include "support.hpp"

namespace rapido::test {

/// Where the boxes of a HUD are at common moments, the same whatever the frames between them are.
inline void expect_the_same_at_any_rate(const std::function<std::unique_ptr<Hud>(BoxMeasurer&)>& make,
                                        const std::function<void(Hud&, int ms)>& change,
                                        const std::function<void(Hud&, int ms)>& call = nullptr) {
    std::vector<std::string> first;
    for (const int step : {5, 20, 50, 100}) {
        BoxMeasurer measurer;
        const auto hud = make(measurer);
        std::vector<std::string> seen;
        for (int ms = 0; ms <= 3000; ms += step) {
            if (ms % 100 == 0 && change) change(*hud, ms);
            update(*hud, ms == 0 ? Seconds{0} : Seconds{step / 1000.0});
            if (ms % 100 != 0) continue;
            if (call) call(*hud, ms);  // which happens at the time of the last update
            std::string all = std::to_string(ms) + ":";
            DisplayList list;
            hud->draw(list);
            for (const ElementRef ref : hud->elements()) {
                const Shown shown = (*hud)[ref];
                if (shown.visible && !shown.text.empty())
                    all += " " + std::string(shown.text) + "@" + std::to_string(std::lround(shown.drawn_box.y * 50)) +
                           "/" + std::to_string(std::lround(shown.opacity * 500));
            }
            seen.push_back(all);
        }
        if (first.empty()) first = seen;
        EXPECT_EQ(seen, first) << "in frames of " << step << " ms";
    }
}

}  // namespace rapido::test
