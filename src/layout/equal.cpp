// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/layout/camera.hpp"
#include "rapido/layout/place.hpp"

namespace rapido {

bool operator==(const Camera&, const Camera&) = default;
bool operator==(const Place&, const Place&) = default;
bool operator==(const Viewport&, const Viewport&) = default;

}  // namespace rapido
