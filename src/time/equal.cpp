// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/time/game_timer.hpp"

namespace rapido {

bool operator==(const Mark&, const Mark&) = default;
bool operator==(const TimerState&, const TimerState&) = default;

}  // namespace rapido
