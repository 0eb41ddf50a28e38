// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/value/detail/guarded.hpp"
#include "rapido/value/source.hpp"

namespace rapido {

namespace detail {
bool operator==(const ReadFailure&, const ReadFailure&) = default;
}
bool operator==(const NamedSource& a, const NamedSource& b) {
    return a.name == b.name && a.value.is_same(b.value);
}

}  // namespace rapido
