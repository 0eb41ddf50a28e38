// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/text/formatted_text.hpp"
#include "rapido/text/language.hpp"

namespace rapido {

bool operator==(const TextPiece&, const TextPiece&) = default;
bool operator==(const CompactForm&, const CompactForm&) = default;
bool operator==(const NumberStyle&, const NumberStyle&) = default;
bool operator==(const Translation&, const Translation&) = default;

}  // namespace rapido
