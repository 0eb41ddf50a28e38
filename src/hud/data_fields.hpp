// Fields of an element that come from the game: its color, its image, how far it is turned.
#pragma once

#include <string>
#include <vector>

#include "element/kinds.hpp"
#include "hud/themes.hpp"
#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What is drawn otherwise without making the element anew.
enum class PoseField : std::uint8_t { none, opacity, rotation, scale, shift_x, shift_y };

/// One of them, in an aggregate.
struct DataField {
    std::string name;
    const Field* field = nullptr;
    void* at = nullptr;           ///< the value, in the aggregate
    const void* usual = nullptr;  ///< the same in one with all defaults; null where it is absent there
    Source source{};
    PoseField pose = PoseField::none;

    /// The number of an amount in an aggregate with all defaults.
    double usual_number() const { return usual != nullptr ? static_cast<const Amount*>(usual)->number() : 0; }
    /// Puts what the source gives into the aggregate: the default where that is nothing of the kind. A word that no theme has is reported.
    void apply(const Value& value, const Themes& themes, const ThemeReport& report) const;
};

/// All of an aggregate, also those in its lists; they point into it, and into `defaults`, one with all defaults.
std::vector<DataField> data_fields(const Table& table, void* aggregate, const void* defaults);

/// What a source gives for a number: within the range of the field, or the default where it gives none.
double number_for(const Field& field, double usual, const Value& value);

}  // namespace rapido
