// From a definition to a running HUD: names are resolved, formats checked, and every fault is reported at
// once.
#include <tuple>

#include "assembly/declared_sources.hpp"
#include "hud/definition_tables.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

/// A family of the whole HUD is asked for once, so that a missing one is one problem and not one for each text.
void check_font(const std::string& family, TextMeasurer* measurer, ElementContext& context) {
    if (measurer != nullptr && !measurer->find(family, 400))
        context.warn("font", "no font family '" + family + "' is installed; another one stands for it", {},
                     ProblemCode::missing_font);
}

/// Whether no timer or meter has this id; reports it if one has.
bool is_free(const std::string& id, const Bindings& bindings, ElementContext& context) {
    if (!bindings.is_told(id + ".left") && !bindings.is_told(id + ".rate")) return true;
    context.report("id", "is that of a timer or meter before it", {}, ProblemCode::duplicate);
    return false;
}

}  // namespace

bool check_id(const std::string& id, const Bindings& bindings, ElementContext& context) {
    context.check_id(id);
    return is_free(id, bindings, context);
}

const Location& Locations::of(std::string_view field) const {
    while (!field.empty()) {
        for (const auto& [name, place] : fields)
            if (name == field) return place;
        field = field.substr(0, field.find('.') == std::string_view::npos ? 0 : field.rfind('.'));
    }
    return location;
}

namespace {

/// All that a definition says; where it was written does not count.
constexpr std::tuple said{
    &HudDefinition::design,        &HudDefinition::fit,         &HudDefinition::whole_scale,  &HudDefinition::margin,
    &HudDefinition::mirror,        &HudDefinition::flash_limit, &HudDefinition::font,         &HudDefinition::languages,
    &HudDefinition::compact_names, &HudDefinition::font_files,  &HudDefinition::styles,       &HudDefinition::themes,
    &HudDefinition::sources,       &HudDefinition::timers,      &HudDefinition::frame_meters, &HudDefinition::effects,
    &HudDefinition::groups,        &HudDefinition::accept,      &HudDefinition::elements};
constexpr std::size_t where_written = 12;  ///< so many members
static_assert(std::tuple_size_v<decltype(said)> + where_written == member_count<HudDefinition>);

}  // namespace

bool operator==(const HudDefinition& a, const HudDefinition& b) {
    return std::apply([&](auto... member) { return ((a.*member == b.*member) && ...); }, said);
}

void Hud::State::keep(const HudDefinition& definition) {
    made_of = std::make_unique<HudDefinition>();
    const auto copy = [&](auto member) {
        if constexpr (!std::is_same_v<decltype(member), decltype(&HudDefinition::elements)>)
            (*made_of).*member = definition.*member;
    };
    std::apply([&](auto... member) { (copy(member), ...); }, said);
}

Hud::State::State() {
    bindings.offer = [this](const std::string& name, Problem& problem) {
        if (offer_cost(name) || lists.offer(name, problem)) return true;
        return problem.message.empty() && pending.offer(name, problem);
    };
    effects.draw_alone = [this](ElementIndex index, DisplayGroup& into) { draw_body(index, into); };
}

Hud::Hud() : state_(std::make_unique<State>()) {}

Hud::Hud(const HudDefinition& definition, const Sources& sources, TextMeasurer* measurer, ImageFinder* images) : Hud() {
    state_->layouter.set_measurer(measurer);
    state_->images = images;
    state_->bindings.set_sources(sources);
    state_->make(definition);
}

Hud::~Hud() = default;
Hud::Hud(Hud&& other) noexcept : Hud() {
    state_.swap(other.state_);
}
Hud& Hud::operator=(Hud&& other) noexcept {
    Hud taken(std::move(other));
    state_.swap(taken.state_);
    return *this;
}

Result<Hud> Hud::make(const HudDefinition& definition, const Sources& sources, TextMeasurer* measurer,
                      ImageFinder* images) {
    Hud hud(definition, sources, measurer, images);
    for (const Problem& problem : hud.problems())
        if (problem.severity == Severity::error) return hud.problems();
    return hud;
}

void Hud::State::make(const HudDefinition& definition) {
    keep(definition);
    const auto context_of = [this](std::string name, const Locations* locations) {
        return ElementContext(problems, std::move(name), locations, formats);
    };
    ElementContext top = context_of("the HUD", &definition.locations);
    top.check_numbers(top_table, &definition);
    const bool fine = !top.failed();
    for (Problem& fault : bindings.take_faults())
        problems.report(std::move(fault));
    for (std::size_t i = 0; i < definition.sources.size(); ++i) {
        bindings.declare(definition.sources[i].name);
        if (auto fault = fault_of(definition.sources[i], locations_at(definition.source_locations, i)))
            problems.report(*std::move(fault));
    }
    set_screen(definition, fine);
    for (const Sources::NamedTimer& named : bindings.sources().timers()) {
        ElementContext context = context_of("timer '" + named.name + "'", nullptr);
        if (is_free(named.name, bindings, context)) timers.add(named.name, *named.timer, named.clock);
        ++timers_of_game;
    }
    become(definition, {}, true);
    Themed<std::string> checked = definition.font;
    themes.apply(checked, top.report_theme(), "font");
    check_font(font, layouter.measurer(), top);
    for (std::size_t i = 0; i < definition.languages.size(); ++i) {
        const LanguageOptions& options = definition.languages[i];
        ElementContext context =
            context_of("language '" + options.language + "'", locations_at(definition.language_locations, i));
        if (options.language.empty())
            problems.report({context.place_of("language"), "a language without a tag", "", ProblemCode::missing_key});
        if (!options.font.empty()) check_font(options.font, layouter.measurer(), context);
    }
    elements.announce(definition.elements);
    lists.announce(definition.elements);
    std::vector<ElementRef> added;
    for (std::size_t i = 0; i < definition.elements.size(); ++i)
        added.push_back(add(definition.elements[i], locations_at(definition.element_locations, i)));
    for (const ElementRef ref : added)
        if (ref) elements[ref.index].is_of_definition = true;
    // The events of an element may post messages of a notice that stands before it.
    for (std::size_t i = 0; i < added.size(); ++i)
        if (const ElementIndex index = elements.living(added[i]); index != no_element)
            find_speakers(index, locations_at(definition.element_locations, i));
    link_riders(&definition);
}

void Hud::State::set_screen(const HudDefinition& definition, bool fine) {
    layouter.set_options({.design = fine ? definition.design : HudDefinition{}.design,
                          .fit = definition.fit,
                          .whole_scale = definition.whole_scale,
                          .margin = fine ? definition.margin : Insets{}},
                         definition.mirror);
    set_flashes(settings.flashes_of_game, definition.flash_limit);
}

TimerIndex Hud::State::add(const Timer& timer, const Locations* locations) {
    ElementContext context(problems, "timer '" + timer.id + "'", locations, formats);
    context.check_numbers(timer_table, &timer);
    for (std::size_t i = 0; i < timer.marks.size(); ++i) {
        const Mark& mark = timer.marks[i];
        if (timer.kind == TimerKind::countdown && mark.every > Seconds{0} && mark.at <= mark.every)
            context.warn("marks." + std::to_string(i), "it comes once, as 'every' goes on from 'at' towards zero",
                         "at = 10, every = 1 is each of the last ten seconds", ProblemCode::contradiction);
    }
    if (const TimerIndex again = context.failed() ? no_timer : timers.begin_again(timer); again != no_timer)
        return again;
    return check_id(timer.id, bindings, context) ? timers.add(timer) : no_timer;
}

void Hud::State::connect(TimerIndex index, const Timer& timer, const Locations* locations) {
    if (index == no_timer) return;
    ElementContext context(problems, "timer '" + timer.id + "'", locations, formats);
    const SourceIndex start = context.connect(timer.start_when, "start_when", bindings);
    const SourceIndex pause = context.connect(timer.pause_when, "pause_when", bindings);
    const SourceIndex speed = context.connect(timer.speed, "speed", bindings);
    timers.obey(index, start, pause, speed);
}

/// A timer that runs is started, paused and sped up by other sources from now on.
void Hud::State::reconnect(TimerIndex index, const Timer& timer, const Locations* locations) {
    ElementContext context(problems, "timer '" + timer.id + "'", locations, formats);
    const SourceIndex start = context.connect(timer.start_when, "start_when", bindings);
    const SourceIndex pause = context.connect(timer.pause_when, "pause_when", bindings);
    const SourceIndex speed = context.connect(timer.speed, "speed", bindings);
    timers.rebind(index, start, pause, speed);
}

bool Hud::State::add(const FrameMeter& meter, const Locations* locations) {
    ElementContext context(problems, "frame meter '" + meter.id + "'", locations, formats);
    context.check_numbers(frame_meter_table, &meter);
    if (!check_id(meter.id, bindings, context)) return false;
    frame_meters.add(meter);
    return true;
}

bool Hud::State::add(const Theme& theme, const Locations* locations) {
    ElementContext context(problems, "theme '" + theme.id + "'", locations, formats);
    context.check_id(theme.id);
    for (const auto& [name, radius] : theme.radius)
        if (!(radius >= 0 && static_cast<double>(radius) <= largest_length))
            context.report("radius." + name, "must be 0 to 10000 px", {}, ProblemCode::out_of_range);
    if (context.failed()) return false;
    for (const std::string& lacking : themes.lacking(theme))
        problems.report({context.place_of(""), "theme '" + theme.id + "' has no " + lacking,
                         "that of the first theme stands for it", ProblemCode::missing_key, Severity::warning});
    themes.add(theme);
    return true;
}

bool Hud::State::add(const TextStyle& style, const Locations* locations) {
    ElementContext context(problems, "style '" + style.id + "'", locations, formats);
    context.check_numbers(text_style_table, &style);
    if (style.id.empty()) context.report("id", "is empty", {}, ProblemCode::bad_id);
    if (context.failed()) return false;
    TextStyle themed = style;
    themes.apply(text_style_table, &themed, context.report_theme());
    text_styles.add(themed);
    return true;
}

bool Hud::State::add(const Effect& effect, const Locations* locations) {
    ElementContext context(problems, "effect '" + effect.id + "'", locations, formats);
    context.check_numbers(effect_table, &effect);
    Effect themed = effect;
    themes.apply(effect_table, &themed, context.report_theme());
    if (!effects.define(themed, !context.failed(), locations)) return false;
    if (themed.particles.image.empty()) return true;
    equip(context);
    effects.set_picture(themed.id, ImageLook::find(themed.particles.image, "particles.image", {}, context));
    return true;
}

std::optional<RunningGroup> Hud::State::running(const Group& group, const Locations* locations, bool is_new) {
    ElementContext context(problems, "group '" + group.id + "'", locations, formats);
    context.check_numbers(group_table, &group);
    context.check_id(group.id);
    if (is_new && visibility.find(group.id) != no_group)
        context.report("id", "is that of a group before it", {}, ProblemCode::duplicate);
    RunningGroup made{.id = group.id, .dim = std::clamp(group.dim, 0.0F, 1.0F)};
    equip(context);
    made.enter = context.ending_effect(group.enter, "enter");
    made.leave = context.ending_effect(group.leave, "leave");
    made.visible = context.connect(group.visible, "visible", bindings);
    made.dimmed = context.connect(group.dimmed, "dimmed", bindings);
    if (!context.failed()) return made;
    bindings.release(made.visible);
    bindings.release(made.dimmed);
    return std::nullopt;
}

bool Hud::State::add(const Group& group, const Locations* locations) {
    std::optional<RunningGroup> made = running(group, locations, true);
    if (!made) return false;
    for (const SourceIndex source : {made->visible, made->dimmed})
        bindings.depend(source, {no_element, Dependent::Role::look});
    visibility.add(*std::move(made));
    return true;
}

}  // namespace rapido
