#include "base/instants.hpp"

namespace rapido {

std::string seconds_text(Nanoseconds time, int least_places) {
    constexpr std::int64_t second = 1'000'000'000;
    std::string text = std::to_string(time.count() / second);
    // With a one before it, so that the zeros stay.
    std::string fraction = std::to_string(time.count() % second + second).substr(1);
    while (fraction.size() > static_cast<std::size_t>(least_places) && fraction.back() == '0')
        fraction.pop_back();
    return fraction.empty() ? text : text + "." + fraction;
}

}  // namespace rapido
