// What a check has found.
#pragma once

#include <iosfwd>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "rapido/base/problem.hpp"
#include "rapido/base/units.hpp"

namespace rapido::tool {

/// With what the HUD was looked at.
struct Circumstances {
    Size window{};
    double scale = 1;
    std::string locale{};  ///< empty for the HUD as it is written
    std::string theme{};   ///< empty for the first one
    std::string when{};    ///< `at 12.500 s`, `with plane.water = 3000`; empty where it does not matter
};

struct Finding {
    Problem problem;
    std::string element{};  ///< the path; empty for what is none
    std::optional<Circumstances> seen{};
    std::optional<double> measured{}, wanted{};  ///< the numbers of the message, for programs
};

/// Keeps the worst of findings that are the same in other circumstances.
class Findings {
 public:
    /// `worse` is larger for what is worse; of equal ones the first is kept.
    void add(const std::string& same, Finding finding, double worse = 0);
    bool empty() const { return kept_.empty(); }
    std::size_t count() const { return kept_.size(); }
    /// By place. The text is a line each, with the code; JSON Lines otherwise.
    void print(bool json, std::ostream& out) const;

 private:
    struct Kept {
        Finding finding;
        double worse;
        std::size_t others = 0;  ///< how often it was found besides
    };
    std::map<std::string, Kept> kept_;
};

}  // namespace rapido::tool
