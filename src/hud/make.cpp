// From a definition to a running HUD: names are resolved, formats checked, and every fault is reported at
// once.
#include "hud/element_context.hpp"

namespace rapido {
namespace {

using namespace std::chrono_literals;

/// Where an element will stand among the others.
std::string path_of(const Element& element) {
    return std::visit(
        [](const auto& description) {
            return description.inside.empty() ? description.id : description.inside + "." + description.id;
        },
        element);
}

}  // namespace

bool operator==(const HudDefinition& a, const HudDefinition& b) {
    return a.design == b.design && a.fit == b.fit && a.whole_scale == b.whole_scale && a.margin == b.margin &&
           a.mirror == b.mirror && a.font == b.font && a.locales == b.locales && a.timers == b.timers &&
           a.meters == b.meters && a.effects == b.effects && a.groups == b.groups && a.elements == b.elements;
}

void Hud::State::report(Problem problem) {
    if (std::find(problems.begin(), problems.end(), problem) == problems.end())
        problems.push_back(std::move(problem));
}

void Hud::State::add_told(const std::string& name, SourceIndex& index, Value::Type type, Source::Use use) {
    index = scan.add_told();
    dependents.resize(scan.size());
    only_dependent.resize(scan.size(), no_element);
    told_used.resize(scan.size());
    told_names.emplace(name, index);
    told_kinds.emplace(name, Source(name).expecting(type).used_as(use));
}

std::optional<SourceIndex> Hud::State::resolve(const Source& source, const Sources& sources,
                                               Problem& problem) {
    const auto added = [this](const Source& bound) {
        const SourceIndex index = scan.add(bound);
        dependents.resize(scan.size());
        only_dependent.resize(scan.size(), no_element);
        return index;
    };
    if (!source) return no_source;
    if (source.access() != Source::Access::name) return added(source);
    if (const auto told = told_names.find(source.name()); told != told_names.end()) {
        told_used[told->second] = 1;
        if (!source.is_negated() && !source.is_scaled()) return told->second;
        const SourceIndex adjusted = scan.add_told();
        dependents.resize(scan.size());
        only_dependent.resize(scan.size(), no_element);
        told_adjusted.push_back({told->second, adjusted, source});
        return adjusted;
    }
    if (const Source* named = sources.find(source.name())) return added(source.applied_to(*named));
    if (pending_of(source.name(), problem) != nullptr) return resolve(source, sources, problem);
    if (!problem.message.empty()) return std::nullopt;

    std::vector<std::string_view> names = sources.names();
    for (const auto& [name, index] : told_names)
        names.push_back(name);
    std::sort(names.begin(), names.end());
    problem.message = "unknown source '" + source.name() + "'";
    problem.hint = did_you_mean(source.name(), names);
    return std::nullopt;
}

/// The readout that `PATH.pending`, `PATH.gain` or `PATH.loss` names, made on its first use; null, with a problem
/// or without, where there is no such text.
PendingAmount* Hud::State::pending_of(std::string_view name, Problem& problem) {
    const std::size_t dot = name.rfind('.');
    if (dot == std::string_view::npos) return nullptr;
    const std::string path(name.substr(0, dot));
    const std::string_view part = name.substr(dot + 1);
    if ((part != "pending" && part != "gain" && part != "loss") || !counters.contains(path)) return nullptr;
    PendingAmount made{.path = path};
    Value::Type type = Value::Type::int64;
    if (const auto at = paths.find(path); at != paths.end()) {
        made.total = at->second;
        const std::optional<int> places = elements[at->second].body->places();
        if (!places || elements[at->second].shows_pending) {
            problem.message = "'" + path + "' " +
                              (places ? "shows what is pending of another one"
                                      : std::string(needs_fixed_digits) + " for '" + std::string(name) + "'");
            return nullptr;
        }
        if (*places > 0) type = Value::Type::float64;
    }
    add_told(path + ".pending", made.net, type);
    add_told(path + ".gain", made.gain, type);
    add_told(path + ".loss", made.loss, type);
    if (made.total == no_element)
        for (const char* const source : {".pending", ".gain", ".loss"})
            told_kinds[path + source] = Source(path + source);
    return &pending.emplace_back(std::move(made));
}

/// Elements that travel alike share their plan.
std::shared_ptr<const TravelPlan> Hud::State::shared_plan(const TravelPlan& plan) {
    for (const auto& known : plans)
        if (*known == plan) return known;
    return plans.emplace_back(std::make_shared<const TravelPlan>(plan));
}

bool Hud::State::make(const HudDefinition& definition, const Sources& sources) {
    fit = {.design = definition.design,
           .fit = definition.fit,
           .whole_scale = definition.whole_scale,
           .ui_scale = fit.ui_scale,
           .margin = definition.margin};
    definition_mirrors = definition.mirror;
    const auto is_usable = [](float length) { return length >= 1 && length <= 1e5F; };
    if (!is_usable(fit.design.width) || !is_usable(fit.design.height)) {
        report({definition.origin.of("design"),
                "the design size must be between 1 and 100000 pixels each way", ""});
        fit.design = {1280, 720};
    }
    font = definition.font;
    locale_fonts = definition.locales;

    make_timers(definition, sources);
    make_meters(definition);
    make_effects(definition);
    for (std::size_t i = 0; i < definition.groups.size(); ++i)
        add(definition.groups[i], origin_at(definition.group_origins, i), sources);
    for (const Element& element : definition.elements) {
        if (std::holds_alternative<Panel>(element)) panels.insert(path_of(element));
        if (std::holds_alternative<Text>(element)) counters.insert(path_of(element));
    }
    making = true;
    for (std::size_t i = 0; i < definition.elements.size(); ++i)
        add(definition.elements[i], origin_at(definition.element_origins, i), sources);
    making = false;
    for (std::size_t i = 0; i < definition.elements.size(); ++i)
        if (const Notice* const notice = std::get_if<Notice>(&definition.elements[i]))
            find_speakers(*notice, origin_at(definition.element_origins, i));
    return problems.empty();
}

/// A timer with its sources; null where one has this id already.
RunningTimer* Hud::State::add_timer(const std::string& name, const Location& where) {
    if (told_names.contains(name + ".left") || told_names.contains(name + ".rate")) {
        report({where, "a second timer or meter with the id '" + name + "'", ""});
        return nullptr;
    }
    RunningTimer& made = timers.emplace_back();
    made.id = name;
    add_told(name + ".left", made.left, Value::Type::duration, Source::Use::time_left);
    add_told(name + ".elapsed", made.elapsed, Value::Type::duration, Source::Use::time_passed);
    add_told(name + ".duration", made.duration, Value::Type::duration);
    add_told(name + ".running", made.running, Value::Type::boolean);
    return &made;
}

bool Hud::add_timer(const std::string& id, const GameTimer& timer, ClockKind clock) {
    if (!is_id(id)) state_->report({{}, "timer '" + id + "': " + std::string(id_rule), ""});
    RunningTimer* const made = is_id(id) ? state_->add_timer(id, {}) : nullptr;
    if (made == nullptr) return false;
    made->timer = &timer;
    made->clock = clock;
    made->seen = timer.event_count();
    return true;
}

void Hud::State::make_timers(const HudDefinition& definition, const Sources& sources) {
    for (const Sources::NamedTimer& named : sources.timers())
        if (RunningTimer* const made = add_timer(named.name, {})) {
            made->timer = named.timer;
            made->clock = named.clock;
            made->seen = named.timer->event_count();
        }
    // Names first, so that a timer may be started by another one.
    std::vector<std::size_t> made_of;
    for (std::size_t i = 0; i < definition.timers.size(); ++i) {
        const Timer& timer = definition.timers[i];
        const Origin* origin = origin_at(definition.timer_origins, i);
        const Location where = origin != nullptr ? origin->of("id") : Location{};
        if (!is_id(timer.id)) report({where, "timer '" + timer.id + "': " + std::string(id_rule), ""});
        RunningTimer* const made = add_timer(timer.id, where);
        made_of.push_back(timers.size());
        if (made == nullptr) continue;
        made_of.back() = timers.size() - 1;
        made->owned =
            timer.kind == TimerKind::countdown
                ? std::unique_ptr<GameTimer>(new Countdown(timer.duration.value_or(60s)))
                : std::unique_ptr<GameTimer>(new Stopwatch(timer.begin, timer.duration.value_or(0s)));
        made->owned->set_loop(timer.loop);
        made->owned->set_marks(timer.marks);
        made->timer = made->owned.get();
        made->clock = timer.clock;
        made->marks = timer.marks;
    }
    for (std::size_t i = 0; i < definition.timers.size(); ++i) {
        const Timer& timer = definition.timers[i];
        if (made_of[i] >= timers.size()) continue;
        RunningTimer& made = timers[made_of[i]];
        const std::string name = "timer '" + timer.id + "'";
        ElementContext context(problems, name, origin_at(definition.timer_origins, i), formats);
        const auto joined = [&](const Source& source, std::string_view field) {
            return connect(source, field, sources, context);
        };
        made.start = joined(timer.start, "start");
        made.pause = joined(timer.pause, "pause");
        made.speed = joined(timer.speed, "speed");
    }
}

void Hud::State::make_meters(const HudDefinition& definition) {
    for (std::size_t i = 0; i < definition.meters.size(); ++i) {
        const Meter& meter = definition.meters[i];
        const Origin* origin = origin_at(definition.meter_origins, i);
        const Location place = origin != nullptr ? origin->of("id") : Location{};
        if (!is_id(meter.id)) report({place, "meter '" + meter.id + "': " + std::string(id_rule), ""});
        if (told_names.contains(meter.id + ".rate") || told_names.contains(meter.id + ".left"))
            report({place, "a second timer or meter with the id '" + meter.id + "'", ""});
        RunningMeter& made = meters.emplace_back();
        made.meter = FrameMeter(meter.interval);
        add_told(meter.id + ".rate", made.rate, Value::Type::float64);
        add_told(meter.id + ".frame_time", made.frame_time, Value::Type::duration);
    }
}

SourceIndex Hud::State::connect(const Source& source, std::string_view field, const Sources& sources,
                                BodyContext& context) {
    Problem problem;
    if (const auto index = resolve(source, sources, problem)) return *index;
    context.report(field, std::move(problem.message), std::move(problem.hint));
    return no_source;
}

bool Hud::State::add(const Group& group, const Origin* origin, const Sources& sources) {
    Problems found;
    ElementContext context(found, "group '" + group.id + "'", origin, formats);
    if (!is_id(group.id)) context.report("id", std::string(id_rule), "");
    const bool known =
        std::any_of(groups.begin(), groups.end(), [&](const RunningGroup& g) { return g.id == group.id; });
    if (known) context.report("id", "is that of a group before it", "");
    RunningGroup made{.id = group.id, .dim = std::clamp(group.dim, 0.0F, 1.0F)};
    made.visible = connect(group.visible, "visible", sources, context);
    made.dimmed = connect(group.dimmed, "dimmed", sources, context);
    for (Problem& problem : found)
        report(std::move(problem));
    if (context.failed()) return false;
    for (const SourceIndex source : {made.visible, made.dimmed})
        depend(source, {no_element, Dependent::Role::look});
    groups.push_back(std::move(made));
    return true;
}

}  // namespace rapido
