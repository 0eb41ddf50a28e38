// A plate that grows with what stands on it.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/flow.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/look/band.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The box behind other elements. The panel is as large as its content plus its padding. Elements name it in `inside`; in a
/// row, a column or a grid they stand in the order in which they were added.
struct Panel {
    std::string id{};
    Place place{};
    Layout layout = Layout::free;
    float gap = 0;                   ///< between neighbors in a row, a column or a grid, design pixels
    std::optional<float> row_gap{};  ///< between the rows of a grid, instead
    int columns = 2;                 ///< how many columns a grid has
    Align align = Align::anchor;
    Justify justify = Justify::start;
    bool plate = true;               ///< false: nothing is drawn, and there is no padding
    Insets padding{12, 16, 12, 16};  ///< between the edges and what stands inside
    Themed<Color> color = rgb(0x10161c, 0.8);
    std::optional<Themed<Color>> end_color{};  ///< a gradient from `color` to it, along `gradient`
    Direction gradient = Direction::down;
    ImageName image{};                          ///< replaces the plate: an image, stretched over it
    ImageFit image_fit = ImageFit::fill;        ///< how the image fills the plate, where it is not sliced
    Insets slice{};                             ///< how many pixels of the image along each edge keep their size
    Themed<Color> image_color = rgb(0xffffff);  ///< the color that those of the image are multiplied by
    bool smooth = true;                         ///< whether pixels of the image are blended
    std::optional<Shadow> shadow{};             ///< below the plate
    Themed<float> radius = 6;                   ///< the radius of the corners, at most half the smaller side
    float border = 0;                           ///< the width of the line along the edge; zero draws none
    Themed<Color> border_color = rgb(0xf2efe6, 0.16);
    std::vector<Band> bands{};        ///< conditions in which it looks different
    std::vector<Trigger> triggers{};  ///< what starts effects, which move what stands inside, too
    std::string inside{};             ///< the panel that the element stands in; empty is the screen
    std::string group{};              ///< the group that it is shown, hidden and dimmed with
    Amount opacity = 1;               ///< 0 to 1, of it and of what stands inside
    Amount rotation = 0;              ///< degrees clockwise around its middle, of it and of what stands inside
    Amount scale = 1;  ///< of it and of what stands inside, around the point by which it is held in its place
    Shift shift{};     ///< how far it is drawn from its place, to the right and down, design pixels
    Blend blend = Blend::normal;  ///< how its colors are put over those below
    std::optional<Glow> glow{};   ///< a soft light around it
    int layer = 0;                ///< among siblings, a higher layer is drawn later
    Source visible{};             ///< it and what stands inside are shown while true; without a source, always
    std::string enter{};          ///< the effect with which it becomes visible; empty means at once
    std::string leave{};          ///< the effect with which it becomes hidden; empty is `enter`, backwards
    friend RAPIDO_EXPORTED bool operator==(const Panel&, const Panel&);
};

}  // namespace rapido
