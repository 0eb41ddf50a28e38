#include "rapido/value/watch_time.hpp"

namespace rapido {

Source watch(const Countdown& countdown) {
    return Source(watch([&countdown] { return countdown.left(); }).binding().used_as(detail::ValueUse::time_left));
}
Source watch(Countdown& countdown) {
    return watch(std::as_const(countdown));
}

Source watch(const Stopwatch& stopwatch) {
    return Source(watch([&stopwatch] { return stopwatch.elapsed(); }).binding().used_as(detail::ValueUse::time_passed));
}
Source watch(Stopwatch& stopwatch) {
    return watch(std::as_const(stopwatch));
}

}  // namespace rapido
