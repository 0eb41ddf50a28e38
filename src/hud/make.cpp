// From a definition to a running HUD: names are resolved, formats checked, and every fault is reported at
// once.
#include "hud/definition_tables.hpp"
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

const Location& Origin::of(std::string_view field) const {
    while (!field.empty()) {
        for (const auto& [name, place] : fields)
            if (name == field) return place;
        field = field.substr(0, field.find('.') == std::string_view::npos ? 0 : field.rfind('.'));
    }
    return location;
}

bool operator==(const HudDefinition& a, const HudDefinition& b) {
    return a.design == b.design && a.fit == b.fit && a.whole_scale == b.whole_scale && a.margin == b.margin &&
           a.mirror == b.mirror && a.font == b.font && a.locales == b.locales && a.timers == b.timers &&
           a.meters == b.meters && a.effects == b.effects && a.groups == b.groups && a.elements == b.elements;
}

/// Whether the numbers of an aggregate are in their ranges, in definitions written in C++, too.
bool Hud::State::check(const Table& table, const void* aggregate, const std::string& name,
                       const Origin* origin) {
    bool fine = true;
    check_ranges(table, aggregate, [&](std::string_view field, const Field& range) {
        fine = false;
        report({origin != nullptr ? origin->of(field) : Location{},
                "'" + std::string(field) + "' of " + name + " must be " + range_of(range), ""});
    });
    return fine;
}

/// What a family of the whole HUD is asked for once, so that a missing one is one problem and not one for each text.
void Hud::State::check_font(const std::string& family, const Origin& origin) {
    if (measurer != nullptr && !measurer->find(family, 400))
        report({origin.of("font"), "no font family '" + family + "' is installed; another one stands for it",
                ""});
}

void Hud::State::report(Problem problem) {
    problems.report(std::move(problem));
}

void Hud::State::add_told(const std::string& name, SourceIndex& index, Value::Type type, Source::Use use) {
    index = scan.add_told();
    dependents.resize(scan.size());
    only_dependent.resize(scan.size(), no_element);
    told_used.resize(scan.size());
    told_names.emplace(name, index);
    told_kinds.emplace(name, Source(name).expecting(type).used_as(use));
}

std::optional<SourceIndex> Hud::State::resolve(const Source& source, Problem& problem) {
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
        return source.is_negated() || source.is_scaled() ? adjusted(told->second, source) : told->second;
    }
    if (const Source* named = sources.find(source.name())) return added(source.applied_to(*named));
    if (pending_of(source.name(), problem) != nullptr) return resolve(source, problem);
    if (!problem.message.empty()) return std::nullopt;

    problem.message = "unknown source '" + source.name() + "'";
    problem.hint = hint(source.name(), [&] {
        std::vector<std::string_view> names = sources.names();
        for (const auto& [name, index] : told_names)
            names.push_back(name);
        std::sort(names.begin(), names.end());
        return names;
    });
    return std::nullopt;
}

/// A told source, negated or scaled: the same for all who ask for the same.
SourceIndex Hud::State::adjusted(SourceIndex from, const Source& how) {
    const std::size_t hash = how.hash() * 31 + from;
    const auto [first, last] = known_adjusted.equal_range(hash);
    for (auto known = first; known != last; ++known) {
        Adjusted& same = told_adjusted[adjusted_places[known->second]];
        if (same.from != from || !(same.how == how)) continue;
        ++same.users;
        return same.to;
    }
    const SourceIndex to = scan.add_told();
    dependents.resize(scan.size());
    only_dependent.resize(scan.size(), no_element);
    told_used.resize(scan.size());
    known_adjusted.emplace(hash, to);
    adjusted_places.emplace(to, told_adjusted.size());
    told_adjusted.push_back({from, to, how, 1, hash});
    return to;
}

/// One user of a source less.
void Hud::State::release(SourceIndex index) {
    if (index == no_source) return;
    const auto own = adjusted_places.find(index);
    if (own == adjusted_places.end()) return scan.release(index);
    const std::size_t place = own->second;
    if (--told_adjusted[place].users > 0) return;
    const auto [first, last] = known_adjusted.equal_range(told_adjusted[place].hash);
    known_adjusted.erase(std::find_if(first, last, [&](const auto& known) { return known.second == index; }));
    adjusted_places.erase(own);
    scan.remove_told(index);
    // The last one takes its place.
    if (place + 1 != told_adjusted.size()) {
        told_adjusted[place] = std::move(told_adjusted.back());
        adjusted_places[told_adjusted[place].to] = place;
    }
    told_adjusted.pop_back();
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
    is_pending_source.insert({made.net, made.gain, made.loss});
    pending_indices.emplace(path, pending.size());
    return &pending.emplace_back(std::move(made));
}

/// Elements that travel alike share their plan.
std::shared_ptr<const TravelPlan> Hud::State::shared_plan(const TravelPlan& plan) {
    const std::size_t hash = plan.hash();
    const auto [first, last] = plans.equal_range(hash);
    for (auto known = first; known != last; ++known)
        if (const auto same = known->second.lock(); same != nullptr && *same == plan) return same;
    if (plans.size() >= most_plans) {
        std::erase_if(plans, [](const auto& known) { return known.second.expired(); });
        most_plans = std::max(most_plans, 2 * plans.size());
    }
    auto made = std::make_shared<const TravelPlan>(plan);
    plans.emplace(hash, made);
    return made;
}

std::vector<std::string_view> Hud::State::timer_names() const {
    std::vector<std::string_view> names;
    for (const RunningTimer& timer : timers)
        names.push_back(timer.id);
    return names;
}

std::vector<std::string_view> Hud::State::group_names() const {
    std::vector<std::string_view> names;
    for (const RunningGroup& group : groups)
        names.push_back(group.id);
    return names;
}

bool Hud::State::make(const HudDefinition& definition) {
    fit = {.design = definition.design,
           .fit = definition.fit,
           .whole_scale = definition.whole_scale,
           .ui_scale = fit.ui_scale,
           .margin = definition.margin};
    definition_mirrors = definition.mirror;
    if (!check(top_table, &definition, "the HUD", &definition.origin)) {
        fit.design = HudDefinition{}.design;
        fit.margin = {};
    }
    font = definition.font;
    check_font(font, definition.origin);
    locale_fonts = definition.locales;
    for (std::size_t i = 0; i < locale_fonts.size(); ++i) {
        const Origin* const origin = origin_at(definition.locale_origins, i);
        if (locale_fonts[i].locale.empty())
            report({origin != nullptr ? origin->of("locale") : Location{}, "a locale without a tag", ""});
        check_font(locale_fonts[i].font, origin != nullptr ? *origin : Origin{});
    }

    make_timers(definition);
    make_meters(definition);
    make_effects(definition);
    for (std::size_t i = 0; i < definition.groups.size(); ++i)
        add(definition.groups[i], origin_at(definition.group_origins, i));
    for (const Element& element : definition.elements) {
        if (const Panel* const panel = std::get_if<Panel>(&element)) {
            panels.insert(path_of(element));
            panel_parents.emplace(panel->id, panel->inside);
        }
        if (std::holds_alternative<Text>(element)) counters.insert(path_of(element));
    }
    making = true;
    for (std::size_t i = 0; i < definition.elements.size(); ++i)
        add(definition.elements[i], origin_at(definition.element_origins, i));
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
    timer_indices.emplace(name, timers.size());
    RunningTimer& made = timers.emplace_back();
    made.id = name;
    add_told(name + ".left", made.left, Value::Type::duration, Source::Use::time_left);
    add_told(name + ".elapsed", made.elapsed, Value::Type::duration, Source::Use::time_passed);
    add_told(name + ".duration", made.duration, Value::Type::duration);
    add_told(name + ".running", made.running, Value::Type::boolean);
    return &made;
}

bool Hud::add_timer(const std::string& id, const GameTimer& timer, ClockKind clock) {
    if (!state_->may("add_timer")) return false;
    if (!is_id(id)) state_->report({{}, "timer '" + id + "': " + std::string(id_rule), ""});
    RunningTimer* const made = is_id(id) ? state_->add_timer(id, {}) : nullptr;
    if (made == nullptr) return false;
    made->timer = &timer;
    made->clock = clock;
    made->seen = timer.event_count();
    return true;
}

void Hud::State::make_timers(const HudDefinition& definition) {
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
        check(timer_table, &timer, "timer '" + timer.id + "'", origin);
        RunningTimer* const made = add_timer(timer.id, where);
        made_of.push_back(timers.size());
        if (made == nullptr) continue;
        made_of.back() = timers.size() - 1;
        made->owned = std::make_unique<OwnedTimer>(timer);
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
            return connect(source, field, context);
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
        check(meter_table, &meter, "meter '" + meter.id + "'", origin);
        if (told_names.contains(meter.id + ".rate") || told_names.contains(meter.id + ".left"))
            report({place, "a second timer or meter with the id '" + meter.id + "'", ""});
        RunningMeter& made = meters.emplace_back();
        made.meter = FrameMeter(meter.interval);
        add_told(meter.id + ".rate", made.rate, Value::Type::float64);
        add_told(meter.id + ".frame_time", made.frame_time, Value::Type::duration);
    }
}

SourceIndex Hud::State::connect(const Source& source, std::string_view field, BodyContext& context) {
    Problem problem;
    if (const auto index = resolve(source, problem)) return *index;
    context.report(field, std::move(problem.message), std::move(problem.hint));
    return no_source;
}

bool Hud::State::add(const Group& group, const Origin* origin) {
    ElementContext context(problems, "group '" + group.id + "'", origin, formats);
    check(group_table, &group, "group '" + group.id + "'", origin);
    if (!is_id(group.id)) context.report("id", std::string(id_rule), "");
    if (group_indices.contains(group.id)) context.report("id", "is that of a group before it", "");
    RunningGroup made{.id = group.id, .dim = std::clamp(group.dim, 0.0F, 1.0F)};
    made.visible = connect(group.visible, "visible", context);
    made.dimmed = connect(group.dimmed, "dimmed", context);
    if (context.failed()) {
        release(made.visible);
        release(made.dimmed);
        return false;
    }
    for (const SourceIndex source : {made.visible, made.dimmed})
        depend(source, {no_element, Dependent::Role::look});
    group_indices.emplace(group.id, static_cast<GroupIndex>(groups.size()));
    groups.push_back(std::move(made));
    return true;
}

}  // namespace rapido
