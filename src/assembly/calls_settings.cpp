// What a player chooses, and what the window is.
#include <algorithm>
#include <cmath>

#include "base/nearest.hpp"
#include "hud/call.hpp"
#include "hud/definition_tables.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

struct SetReducedMotion {
    bool reduced = false;
};
constexpr std::array set_reduced_motion_fields{
    required_field<&SetReducedMotion::reduced>("reduced", "Whether motion is a plain change."),
};
void apply(const SetReducedMotion& call, CallStage& at) {
    at.hud.set_reduced_motion(call.reduced);
}
constexpr auto set_reduced_motion_call = call_kind<SetReducedMotion>(
    "set_reduced_motion", "Lets nothing travel, or everything again.", set_reduced_motion_fields);

struct SetInterval {
    std::string meter{};
    Seconds interval{0};
};
constexpr std::array set_interval_fields{
    field<&SetInterval::meter>("meter", "The id of the meter."),
    required_field<&SetInterval::interval>("interval", "The time over which it counts.", {"s", 0, 3600}),
};
void apply(const SetInterval& call, CallStage& at) {
    at.hud.set_interval(call.meter, call.interval);
}
constexpr auto set_interval_call =
    call_kind<SetInterval>("set_interval", "Lets a meter count over another time.", set_interval_fields);

struct SetFlashLimit {};
void apply(const SetFlashLimit&, CallStage& at) {
    at.hud.set_flash_limit(at.flash_limit());
}
constexpr auto set_flash_limit_call =
    call_kind<SetFlashLimit>("set_flash_limit", "Shares the limit of flashes with other HUDs.");

struct SetFlashSettings {
    std::optional<FlashRule> rule{};
    bool on = FlashSettings{}.on;
    std::optional<Themed<Color>> ground{};
    float field_of_view = FlashSettings{}.field_of_view;
};
constexpr std::array set_flash_settings_fields{
    field<&SetFlashSettings::rule>("rule", "Which flashes count; without it as the HUD says."),
    field<&SetFlashSettings::on>("on", "Whether flashes are limited."),
    field<&SetFlashSettings::ground>("ground", "What is behind the HUD."),
    field<&SetFlashSettings::field_of_view>("field_of_view", "The width of the HUD in the eyes of the player.",
                                            {"degrees", 1, 180}),
};
void apply(const SetFlashSettings& call, CallStage& at) {
    const std::optional<Color> ground = call.ground ? std::optional(call.ground->value()) : std::nullopt;
    at.hud.set_flash_settings(
        {.rule = call.rule, .on = call.on, .ground = ground, .field_of_view = call.field_of_view});
}
constexpr auto set_flash_settings_call =
    call_kind<SetFlashSettings>("set_flash_settings", "Sets which flashes count.", set_flash_settings_fields);

struct SetLanguage {
    std::string language{};
};
constexpr std::array set_language_fields{
    field<&SetLanguage::language>("language", "The tag of the language."),
};
void apply(const SetLanguage& call, CallStage& at) {
    at.hud.set_language(at.language(call.language));
}
constexpr auto set_language_call =
    call_kind<SetLanguage>("set_language", "Shows every text in another language.", set_language_fields);

struct Resize {
    Viewport viewport;
};
constexpr std::array resize_fields{
    required_field<&Resize::viewport, &Viewport::origin>("origin", "The upper left corner in the window."),
    required_field<&Resize::viewport, &Viewport::size>("size", "The part of the window to fill."),
    required_field<&Resize::viewport, &Viewport::safe_area>("safe_area", "What is kept free at its edges."),
};
void apply(const Resize& call, CallStage& at) {
    at.hud.resize(call.viewport);
}
constexpr auto resize_call = call_kind<Resize>("resize", "Fills another part of the window.", resize_fields);

struct SetUiScale {
    float scale = 1;
};
constexpr std::array set_scale_fields{
    required_field<&SetUiScale::scale>("scale", "The player's size of everything.", {"", 0.25, 4}),
};
void apply(const SetUiScale& call, CallStage& at) {
    at.hud.set_ui_scale(call.scale);
}
constexpr auto set_ui_scale_call = call_kind<SetUiScale>("set_ui_scale", "Shows all larger.", set_scale_fields);

struct SetTextScale {
    float scale = 1;
};
constexpr std::array set_text_scale_fields{
    required_field<&SetTextScale::scale>("scale", "The player's size of texts.", {"", 0.5, 3}),
};
void apply(const SetTextScale& call, CallStage& at) {
    at.hud.set_text_scale(call.scale);
}
constexpr auto set_text_scale_call =
    call_kind<SetTextScale>("set_text_scale", "Shows texts larger.", set_text_scale_fields);

struct SetCost {
    std::array<double, 3> cost{};
};
constexpr std::array set_cost_fields{
    required_field<&SetCost::cost>("cost", "Of update, draw and renderer.", {"s"}),
};
void apply(const SetCost& call, CallStage& at) {
    at.hud.set_cost({Seconds{call.cost[0]}, Seconds{call.cost[1]}, Seconds{call.cost[2]}});
}
constexpr auto set_cost_call = call_kind<SetCost>("set_cost", "Tells what the last frame has cost.", set_cost_fields);

constexpr std::array<const CallKind*, 9> settings_kinds{
    &set_reduced_motion_call, &set_interval_call,   &set_flash_limit_call,
    &set_flash_settings_call, &set_language_call,   &resize_call,
    &set_ui_scale_call,       &set_text_scale_call, &set_cost_call};

}  // namespace

CallKinds setting_calls() {
    return settings_kinds;
}

void Hud::set_reduced_motion(bool reduced) {
    if (!state_->may(set_reduced_motion_call)) return;
    state_->note(set_reduced_motion_call, [&] { return SetReducedMotion{reduced}; });
    if (reduced == state_->settings.reduced_motion) return;
    state_->keep_all_finished();
    state_->settings.reduced_motion = reduced;
    state_->effects.follow_reduced_motion();
    if (reduced) state_->readouts.land(state_->time);
}

bool Hud::set_interval(std::string_view meter, Seconds interval) {
    if (!state_->may(set_interval_call)) return false;
    state_->note(set_interval_call, [&] { return SetInterval{std::string(meter), interval}; });
    if (state_->frame_meters.set_interval(meter, interval)) return true;
    state_->problems.report({{},
                             "no frame meter '" + std::string(meter) + "'",
                             did_you_mean(meter, state_->frame_meters.names()),
                             ProblemCode::unknown_name});
    return false;
}

void Hud::set_flash_limit(FlashLimit& limit) {
    if (!state_->may(set_flash_limit_call)) return;
    state_->note(set_flash_limit_call, [] { return SetFlashLimit{}; });
    state_->effects.set_limit(limit);
    state_->readouts.set_limit(state_->effects.flashes());
}

void Hud::set_flash_settings(const FlashSettings& settings) {
    if (!state_->may(set_flash_settings_call)) return;
    state_->note(set_flash_settings_call, [&] {
        return SetFlashSettings{
            .rule = settings.rule,
            .on = settings.on,
            .ground = settings.ground ? std::optional<Themed<Color>>(*settings.ground) : std::nullopt,
            .field_of_view = settings.field_of_view};
    });
    FlashSettings limited = settings;
    const float angle = settings.field_of_view;
    limited.field_of_view = angle >= 1 ? std::min(angle, 180.0F) : FlashSettings{}.field_of_view;
    state_->set_flashes(limited, state_->settings.flashes_of_file);
}

bool Hud::flash_limited() const {
    return state_->effects.is_limited();
}

void Hud::State::set_flashes(const FlashSettings& of_game, FlashRule of_file) {
    const FlashSettings before = settings.flashes();
    settings.flashes_of_game = of_game;
    settings.flashes_of_file = of_file;
    if (settings.flashes() == before) return;
    effects.follow_flashes();
    readouts.set_limit(effects.flashes());
}

void Hud::set_language(const Language& language) {
    if (!state_->may(set_language_call)) return;
    state_->note(set_language_call, [&] { return SetLanguage{language.tag}; });
    state_->set_language(language);
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].body != nullptr) state_->speak(index);
}

void Hud::State::set_language(const Language& given) {
    settings.take_language(languages.with_names(given));
    layouter.set_right_to_left(given.right_to_left);
    // Last, as it may be the one that was given.
    settings.language_of_game = std::make_shared<const Language>(given);
}

void Hud::resize(const Viewport& viewport) {
    if (!state_->may(resize_call)) return;
    state_->note(resize_call, [&] { return Resize{viewport}; });
    const auto length = [](float given) { return given > 0 && std::isfinite(given) ? given : 0.0F; };
    const auto place = [](float given) { return std::isfinite(given) ? given : 0.0F; };
    const Insets& safe = viewport.safe_area;
    state_->layouter.set_viewport({{length(viewport.size.width), length(viewport.size.height)},
                                   {place(viewport.origin.x), place(viewport.origin.y)},
                                   {length(safe.top), length(safe.right), length(safe.bottom), length(safe.left)}});
}

void Hud::set_ui_scale(float scale) {
    if (!state_->may(set_ui_scale_call)) return;
    state_->note(set_ui_scale_call, [&] { return SetUiScale{scale}; });
    state_->layouter.set_ui_scale(scale >= 0.25F ? std::min(scale, 4.0F) : scale > 0 ? 0.25F : 1.0F);
}

void Hud::set_text_scale(float scale) {
    if (!state_->may(set_text_scale_call)) return;
    state_->note(set_text_scale_call, [&] { return SetTextScale{scale}; });
    const float limited = scale > 0 ? std::clamp(scale, 0.5F, 3.0F) : 1.0F;
    if (std::exchange(state_->settings.text_scale, limited) == limited) return;
    for (ElementIndex index = 0; index < state_->elements.count(); ++index)
        if (state_->elements[index].is_living()) state_->change(index, Element(state_->elements[index].description));
}

void Hud::set_cost(const FrameCost& cost) {
    if (!state_->may(set_cost_call)) return;
    state_->note(set_cost_call, [&] { return SetCost{{cost.update.count(), cost.draw.count(), cost.render.count()}}; });
    state_->cost = cost;
}

}  // namespace rapido
