// Comparisons of what is described, which need not be compiled wherever it is.
#include <tuple>

#include "element/fields.hpp"
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

bool operator==(const BarPart& a, const BarPart& b) {
    return a.value.is_same(b.value) && a.where == b.where && a.color == b.color;
}
bool operator==(const Outline&, const Outline&) = default;
bool operator==(const Shadow&, const Shadow&) = default;
bool operator==(const DigitMotion&, const DigitMotion&) = default;
bool operator==(const Glow&, const Glow&) = default;
bool operator==(const Lid&, const Lid&) = default;
bool operator==(const Message& a, const Message& b) {
    const auto rest = [](const Message& of) {
        return std::tie(of.id, of.text, of.on, of.element, of.band, of.timer, of.at, of.priority, of.lasting,
                        of.show_for, of.expires, of.color);
    };
    return a.value.is_same(b.value) && a.when.is_same(b.when) && rest(a) == rest(b);
}
bool operator==(const ExtraPips& a, const ExtraPips& b) {
    return a.value.is_same(b.value) && a.shape == b.shape && a.image == b.image && a.color == b.color;
}
bool operator==(const PipsInTurn&, const PipsInTurn&) = default;
bool operator==(const PopUpBand&, const PopUpBand&) = default;
bool operator==(const PopUp&, const PopUp&) = default;
bool operator==(const RulerPointer& a, const RulerPointer& b) {
    return a.value.is_same(b.value) && a.color == b.color && a.length == b.length;
}
bool operator==(const PluralForms&, const PluralForms&) = default;
bool operator==(const InlineImage& a, const InlineImage& b) {
    return a.name == b.name && a.value.is_same(b.value) && a.images == b.images;
}
bool operator==(const TextStyle&, const TextStyle&) = default;
bool operator==(const Tick&, const Tick&) = default;
bool operator==(const TickLabel&, const TickLabel&) = default;
bool operator==(const Ticks&, const Ticks&) = default;
bool operator==(const Zone&, const Zone&) = default;
bool operator==(const ColorStop&, const ColorStop&) = default;
bool operator==(const Trigger& a, const Trigger& b) {
    return are_alike(table_of<Trigger>, &a, &b);
}
bool operator==(const Band& a, const Band& b) {
    return are_alike(table_of<Band>, &a, &b);
}

}  // namespace rapido
