// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/pace/pace.hpp"

namespace rapido {

bool operator==(const Pace&, const Pace&) = default;

}  // namespace rapido
