// What the frame loop works on of an element, whatever its kind.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rapido/draw/display_list.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/trigger.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/value/source.hpp"
#include "travel/travel.hpp"

namespace rapido {

/// How an element is drawn besides what its body says.
struct Rest {
    float rotation = 0;  ///< degrees clockwise around its middle
    float scale = 1;
    Blend blend = Blend::normal;
    std::optional<Glow> glow;
    Point shift{};  ///< how far it is drawn from its place, design pixels
    friend bool operator==(const Rest&, const Rest&) = default;
};

/// The fields that most kinds have; what a kind lacks stays at its default.
struct CommonFields {
    std::string id;
    std::string inside;
    Source value{};
    Source max{};
    Source visible;
    TravelPlan plan{};
    std::vector<Trigger> triggers;
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    double min = 0;
    Place place;
    std::string group{};
    std::string enter{}, leave{};
    int layer = 0;
    float opacity = 1;
    Rest rest{};
};

template <class Described>
CommonFields common_of(const Described& description) {
    CommonFields common{.id = description.id,
                        .inside = description.inside,
                        .visible = description.visible,
                        .triggers = description.triggers,
                        .place = description.place,
                        .group = description.group,
                        .layer = description.layer,
                        .opacity = static_cast<float>(description.opacity.number()),
                        .rest = {.rotation = static_cast<float>(description.rotation.number()),
                                 .scale = static_cast<float>(description.scale.number()),
                                 .blend = description.blend,
                                 .glow = description.glow,
                                 .shift = {static_cast<float>(description.shift.x.number()),
                                           static_cast<float>(description.shift.y.number())}}};
    if constexpr (requires { description.value; }) common.value = description.value;
    common.plan.has_value = common.value.is_given();
    if constexpr (requires { description.max; }) common.max = description.max;
    if constexpr (requires { description.min; }) common.min = static_cast<double>(description.min);
    if constexpr (requires { description.motion; }) {
        common.plan.pace = description.pace;
        common.plan.motions = description.motion;
        common.plan.has_max = description.max.is_given();
    }
    // Those of pop-ups are of each number.
    if constexpr (requires { common.plan.bands = description.bands; }) common.plan.bands = description.bands;
    if constexpr (requires { description.color; }) common.plan.color = description.color;
    if constexpr (requires { description.clock; }) common.plan.clock = description.clock;
    if constexpr (requires { description.trail; }) common.plan.trail = description.trail;
    if constexpr (requires { description.text_interval; })
        common.plan.text_interval = to_nanoseconds(description.text_interval);
    // Those of a notice are played with each of its messages.
    if constexpr (!requires { description.messages; }) {
        common.enter = description.enter;
        common.leave = description.leave;
    }
    if constexpr (requires { description.when_no_value; }) common.when_no_value = description.when_no_value;
    return common;
}

}  // namespace rapido
