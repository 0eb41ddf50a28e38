#include "rapido/value/watch_time.hpp"

namespace rapido {

Source watch(const Countdown& countdown) {
    return watch([&countdown] { return countdown.left(); }).used_as(Source::Use::time_left);
}
Source watch(Countdown& countdown) {
    return watch(std::as_const(countdown));
}

Source watch(const Stopwatch& stopwatch) {
    return watch([&stopwatch] { return stopwatch.elapsed(); }).used_as(Source::Use::time_passed);
}
Source watch(Stopwatch& stopwatch) {
    return watch(std::as_const(stopwatch));
}

}  // namespace rapido
