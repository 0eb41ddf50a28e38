// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/motion/motion.hpp"
#include "rapido/motion/trail.hpp"

namespace rapido {

bool operator==(const Motion&, const Motion&) = default;
bool operator==(const Motions&, const Motions&) = default;
bool operator==(const Trail&, const Trail&) = default;

}  // namespace rapido
