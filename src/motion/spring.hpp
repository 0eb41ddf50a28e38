// The constants of a damped spring.
#pragma once

namespace rapido {

/// Of x'' + 2 r w x' + w^2 x = 0 from x = 1 at rest: w times the time after which |x| stays within 2 %. The
/// ratio is limited to 0.05 to 20.
double settling_product(double damping_ratio);

}  // namespace rapido
