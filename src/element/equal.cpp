// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/element/bar.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/element/pips.hpp"
#include "rapido/element/pop_ups.hpp"
#include "rapido/element/ruler.hpp"
#include "rapido/element/text.hpp"
#include "rapido/element/text_style.hpp"
#include "rapido/element/ticks.hpp"
#include "rapido/element/trigger.hpp"

namespace rapido {

bool operator==(const BarPart&, const BarPart&) = default;
bool operator==(const Outline&, const Outline&) = default;
bool operator==(const Shadow&, const Shadow&) = default;
bool operator==(const Glow&, const Glow&) = default;
bool operator==(const Lid&, const Lid&) = default;
bool operator==(const Message&, const Message&) = default;
bool operator==(const ExtraPips&, const ExtraPips&) = default;
bool operator==(const PipsInTurn&, const PipsInTurn&) = default;
bool operator==(const PopUpBand&, const PopUpBand&) = default;
bool operator==(const PopUp&, const PopUp&) = default;
bool operator==(const RulerPointer&, const RulerPointer&) = default;
bool operator==(const PluralForms&, const PluralForms&) = default;
bool operator==(const InlineImage&, const InlineImage&) = default;
bool operator==(const TextStyle&, const TextStyle&) = default;
bool operator==(const Tick&, const Tick&) = default;
bool operator==(const TickLabel&, const TickLabel&) = default;
bool operator==(const Ticks&, const Ticks&) = default;
bool operator==(const Zone&, const Zone&) = default;
bool operator==(const ColorStop&, const ColorStop&) = default;
bool operator==(const Trigger&, const Trigger&) = default;

}  // namespace rapido
