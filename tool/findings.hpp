// What a check has found.
#pragma once

#include <iosfwd>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "rapido/base/problem.hpp"
#include "rapido/base/units.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido::tool {

/// With what the HUD was looked at.
struct Circumstances {
    Size window{};
    double scale = 1;
    std::string language{};  ///< empty for the HUD as it is written
    std::string theme{};     ///< empty for the first one
    std::string when{};      ///< `at 12.500 s`, `with plane.water = 3000`; empty where it does not matter
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
    /// What is found from here on and stands in this list does not count; the list must outlive the findings.
    void accept(const std::vector<Accepted>& accepted) { accepted_ = accepted; }
    /// What of the list nothing was found of is a finding itself.
    void find_unused_acceptances(const std::vector<Locations>& origins);
    /// `worse` is larger for what is worse; of equal ones the first is kept.
    void add(const std::string& same, Finding finding, double worse = 0);
    bool empty() const { return count() == 0; }
    /// Without what is accepted.
    std::size_t count() const;
    /// By place. The text is a line each, with the code; JSON Lines otherwise, in which what is accepted says so.
    void print(bool json, std::ostream& out) const;
    /// What is accepted, a line each.
    void print_accepted(std::ostream& out) const;

 private:
    struct Kept {
        Finding finding;
        double worse;
        std::size_t others = 0;  ///< how often it was found besides
        const Accepted* accepted = nullptr;
    };
    const Accepted* acceptance(const Finding& finding) const;

    std::span<const Accepted> accepted_;
    std::map<std::string, Kept> kept_;
};

}  // namespace rapido::tool
