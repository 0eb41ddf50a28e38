// Calls that show and hide.
#include <algorithm>

#include "hud/call.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

struct SetVisible {
    std::optional<std::string> element{}, group{};
    std::optional<std::uint64_t> thing{};
    bool visible = true;
};
constexpr std::array set_visible_fields{
    field<&SetVisible::element>("element", "The path of the element; without any of these, the whole HUD."),
    field<&SetVisible::group>("group", "The id of a group, in place of an element."),
    field<&SetVisible::thing>("thing", "The number of a marked thing, in place of an element."),
    required_field<&SetVisible::visible>("visible", "Whether it is shown."),
};
void apply(const SetVisible& call, CallStage& at) {
    if (call.thing) return at.hud.set_visible(at.thing(*call.thing), call.visible);
    if (call.element) return at.hud.set_visible(at.element(*call.element), call.visible);
    if (call.group) return at.hud.set_visible(*call.group, call.visible);
    at.hud.set_visible(call.visible);
}
constexpr auto set_visible_call = call_kind<SetVisible>(
    "set_visible", "Shows or hides an element, a group, the marker of a thing, or all.", set_visible_fields);

struct SetOpacity {
    std::optional<std::string> element{}, group{};
    float opacity = 1;
};
constexpr std::array set_opacity_fields{
    field<&SetOpacity::element>("element", "The path of the element; without one, the whole HUD."),
    field<&SetOpacity::group>("group", "The id of a group, in place of an element."),
    required_field<&SetOpacity::opacity>("opacity", "The opacity.", {"", 0, 1}),
};
void apply(const SetOpacity& call, CallStage& at) {
    if (call.element) return at.hud.set_opacity(at.element(*call.element), call.opacity);
    if (call.group) return at.hud.set_opacity(*call.group, call.opacity);
    at.hud.set_opacity(call.opacity);
}
constexpr auto set_opacity_call =
    call_kind<SetOpacity>("set_opacity", "Multiplies the opacity of an element, a group, or all.", set_opacity_fields);

constexpr std::array<const CallKind*, 2> visibility_kinds{&set_visible_call, &set_opacity_call};

float part_of(float opacity) {
    return opacity > 0 ? std::min(opacity, 1.0F) : 0.0F;
}

}  // namespace

CallKinds visibility_calls() {
    return visibility_kinds;
}

void Hud::set_visible(ElementRef ref, bool visible) {
    const ElementIndex index = state_->target(set_visible_call, ref);
    if (index == no_element) return;
    state_->note(set_visible_call,
                 [&] { return SetVisible{.element = state_->elements[index].path, .visible = visible}; });
    state_->visibility.set_by_game(index, visible, {});
}

void Hud::set_visible(std::string_view group, bool visible) {
    if (!state_->may(set_visible_call)) return;
    state_->note(set_visible_call, [&] { return SetVisible{.group = std::string(group), .visible = visible}; });
    if (RunningGroup* const found = state_->find_group(group)) found->game_shows = visible;
    state_->visibility.touch();
}

void Hud::set_visible(bool visible) {
    if (!state_->may(set_visible_call)) return;
    state_->note(set_visible_call, [&] { return SetVisible{.visible = visible}; });
    state_->visibility.set_all_by_game(visible, {});
}

void Hud::set_visible(MarkerRef marker, bool visible) {
    if (!state_->may(set_visible_call)) return;
    GameThings* const things = state_->things_of(marker);
    if (things == nullptr) return;
    state_->note(set_visible_call,
                 [&] { return SetVisible{.thing = state_->recording->number_of(marker), .visible = visible}; });
    things->set_visible(marker.index, visible);
}

void Hud::set_opacity(ElementRef ref, float opacity) {
    const ElementIndex index = state_->target(set_opacity_call, ref);
    if (index == no_element) return;
    state_->note(set_opacity_call,
                 [&] { return SetOpacity{.element = state_->elements[index].path, .opacity = opacity}; });
    state_->visibility.set_by_game(index, {}, part_of(opacity));
}

void Hud::set_opacity(std::string_view group, float opacity) {
    if (!state_->may(set_opacity_call)) return;
    state_->note(set_opacity_call, [&] { return SetOpacity{.group = std::string(group), .opacity = opacity}; });
    if (RunningGroup* const found = state_->find_group(group)) found->game_opacity = part_of(opacity);
    state_->visibility.touch();
}

void Hud::set_opacity(float opacity) {
    if (!state_->may(set_opacity_call)) return;
    state_->note(set_opacity_call, [&] { return SetOpacity{.opacity = opacity}; });
    state_->visibility.set_all_by_game({}, part_of(opacity));
}

}  // namespace rapido
