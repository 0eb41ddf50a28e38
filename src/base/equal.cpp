// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/base/problem.hpp"

namespace rapido {

bool operator==(const Location&, const Location&) = default;
bool operator==(const Problem&, const Problem&) = default;

}  // namespace rapido
