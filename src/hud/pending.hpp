// The gain beside the counter: what a text has not shown yet, in units of its last digit.
#pragma once

#include <string>
#include <unordered_set>
#include <vector>

#include "hud/readouts.hpp"

namespace rapido {

/// Tells the sources `PATH.pending`, `PATH.gain` and `PATH.loss` of texts that count. They are made when somebody asks for
/// one of them, perhaps before the text is there.
class PendingAmounts {
 public:
    PendingAmounts(const Elements& elements, Bindings& bindings, Readouts& readouts)
        : elements_(elements), bindings_(bindings), readouts_(readouts) {}

    bool empty() const { return all_.empty(); }
    /// Makes the sources of a name, if it is one of the three of a text. False, with a problem or without, where it is not.
    bool offer(const std::string& name, Problem& problem);
    bool is_one(SourceIndex source) const { return sources_.contains(source); }
    /// Whether somebody asks for what is pending of the text with this path.
    bool is_asked_for(const std::string& path) const;
    /// The text is there from now on, or is gone.
    void set_total(const std::string& path, ElementIndex total);
    void remove(ElementIndex total);

    /// Tells what is pending, when all totals have moved.
    void tell(const FrameTime& time);

    static constexpr std::string_view needs_fixed_digits = "must show one number with a fixed count of digits";

 private:
    struct Amount {
        std::string asked{};  ///< a path, or the end of one
        ElementIndex total = no_element;
        SourceIndex net = no_source, gain = no_source, loss = no_source;
        Value truth, target, shown;  ///< of the total, when it was told last
        std::int64_t counted = 0;    ///< units of the truth
        std::int64_t waiting_gain = 0, waiting_loss = 0;
        bool may_mean(const std::string& path) const;
    };
    void tell(Amount& amount, const FrameTime& time);

    const Elements& elements_;
    Bindings& bindings_;
    Readouts& readouts_;
    std::vector<Amount> all_;
    std::unordered_set<SourceIndex> sources_;
};

}  // namespace rapido
