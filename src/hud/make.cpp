// From a definition to a running HUD: names are resolved, formats checked, and every fault is reported at
// once.
#include <algorithm>

#include "base/nearest.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

using namespace std::chrono_literals;

/// Reports faults of one element with its name and its place.
class ElementContext final : public BodyContext {
 public:
    using Formats = std::unordered_map<std::string, Format>;

    ElementContext(Problems& problems, std::string name, const Origin* origin, Formats& formats)
        : problems_(problems), name_(std::move(name)), origin_(origin), formats_(formats) {}

    Result<Format> format(const std::string& pattern, const Location& where) override {
        if (const auto known = formats_.find(pattern); known != formats_.end()) return known->second;
        Result<Format> parsed = Format::parse(pattern, where);
        if (parsed) formats_.emplace(pattern, *parsed);
        return parsed;
    }

    void report(std::string_view field, std::string message, std::string hint) override {
        failed_ = true;
        const bool verb = message.starts_with("is ") || message.starts_with("shows ") ||
                          message.starts_with("must ") || message.starts_with("needs ");
        problems_.push_back({place_of(field),
                             "'" + std::string(field) + "' of " + name_ + (verb ? " " : ": ") + message,
                             std::move(hint)});
    }
    void report(Problem problem) override {
        failed_ = true;
        problem.message = name_ + ": " + problem.message;
        problems_.push_back(std::move(problem));
    }
    Location place_of(std::string_view field) const override {
        return origin_ != nullptr ? origin_->of(field) : Location{};
    }
    bool failed() const { return failed_; }

 private:
    Problems& problems_;
    std::string name_;
    const Origin* origin_;
    Formats& formats_;
    bool failed_ = false;
};

/// The fields that the frame loop works on; what a kind lacks stays at its default.
struct CommonFields {
    std::string id;
    std::string inside;
    Source value;
    Source max;
    Source visible;
    TravelPlan plan;
    std::vector<Trigger> effects;
    WhenNoValue when_no_value = WhenNoValue::placeholder;
    Place place;
    std::string group;
    int layer = 0;
};

CommonFields common_fields(const Element& element) {
    return std::visit(
        [](const auto& description) {
            CommonFields common{.id = description.id,
                                .inside = description.inside,
                                .value = {},
                                .max = {},
                                .visible = description.visible,
                                .plan = {},
                                .effects = description.effects,
                                .place = description.place,
                                .group = description.group,
                                .layer = description.layer};
            if constexpr (requires { description.value; }) common.value = description.value;
            if constexpr (requires { description.max; }) common.max = description.max;
            if constexpr (requires { description.motion; }) {
                common.plan.pace = description.pace;
                common.plan.motions = {description.motion, description.rise, description.fall};
                common.plan.max_motion = description.max_motion;
                common.plan.bands = description.bands;
                common.plan.has_max = static_cast<bool>(description.max);
                common.plan.color = description.color;
                common.plan.clock = description.clock;
            }
            if constexpr (requires { description.trail; }) common.plan.trail = description.trail;
            if constexpr (requires { description.text_interval; })
                common.plan.text_interval = to_nanoseconds(description.text_interval);
            if constexpr (requires { description.when_no_value; })
                common.when_no_value = description.when_no_value;
            return common;
        },
        element);
}

std::string path_of(const CommonFields& common) {
    return common.inside.empty() ? common.id : common.inside + "." + common.id;
}

const Origin* origin_at(const std::vector<Origin>& origins, std::size_t index) {
    return index < origins.size() ? &origins[index] : nullptr;
}

bool is_id(std::string_view id) {
    const auto allowed = [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' ||
               c == '-';
    };
    return !id.empty() && std::all_of(id.begin(), id.end(), allowed);
}

constexpr std::string_view needs_fixed_digits = "must show one number with a fixed count of digits";

/// What needs a number cannot work on a text.
void check_pace(const Pace& pace, BodyContext& context) {
    if (context.value_type != Value::Type::text) return;
    if (pace.quantise > 0) context.report("pace.quantise", "needs a number, and this source is a text");
    if (pace.smallest_change > 0)
        context.report("pace.smallest_change", "needs a number, and this source is a text");
    if (pace.window != WindowKind::last) context.report("pace.window", "of a text can only be 'last'");
}

void check_bands(const std::vector<Band>& bands, BodyContext& context) {
    for (std::size_t i = 0; i < bands.size(); ++i) {
        const std::string name = "bands." + std::to_string(i);
        const Band& band = bands[i];
        if (context.value_type == Value::Type::text)
            return context.report("bands", "needs a number, and this source is a text");
        if (!band.below && !band.above) context.report(name, "needs 'below' or 'above'");
        if (band.below && band.above && *band.below < *band.above)
            context.report(name, "is empty: 'below' is less than 'above'");
    }
}

constexpr std::string_view id_rule = "an id is made of letters, digits, '_' and '-'";

}  // namespace

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
    design = definition.design;
    if (!(design.width >= 1) || !(design.height >= 1) || !(design.width <= 1e5F) ||
        !(design.height <= 1e5F)) {
        report({definition.origin.of("design"),
                "the design size must be between 1 and 100000 pixels each way", ""});
        design = {1280, 720};
    }
    font = definition.font;

    make_timers(definition, sources);
    make_meters(definition);
    make_effects(definition);
    for (std::size_t i = 0; i < definition.groups.size(); ++i)
        add(definition.groups[i], origin_at(definition.group_origins, i), sources);
    for (const Element& element : definition.elements) {
        if (std::holds_alternative<Panel>(element)) panels.insert(path_of(common_fields(element)));
        if (std::holds_alternative<Text>(element)) counters.insert(path_of(common_fields(element)));
    }
    for (std::size_t i = 0; i < definition.elements.size(); ++i)
        add(definition.elements[i], origin_at(definition.element_origins, i), sources);
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

/// An element with bands on a timer of this HUD, that nothing paces: its edges are solved like marks.
void Hud::State::watch_bands(ElementIndex index) {
    const Travel* const travel = elements[index].travel.get();
    if (travel == nullptr || travel->bands() == nullptr || travel->is_paced()) return;
    for (RunningTimer& timer : timers) {
        if (timer.owned == nullptr) continue;
        if (hot[index].value != timer.left && hot[index].value != timer.elapsed) continue;
        timer.shown_by.push_back(index);
        mark_band_edges(timer);
    }
}

void Hud::State::mark_band_edges(RunningTimer& timer) {
    std::vector<Mark> all = timer.marks;
    const Seconds duration = to_seconds(timer.timer->duration());
    for (const ElementIndex index : timer.shown_by) {
        const bool by_duration = elements[index].max == timer.duration;
        const double max = by_duration ? duration.count() : 0;
        for (const BandOn on : {BandOn::target, BandOn::truth})
            for (const double edge : elements[index].travel->bands()->edges(on, max)) {
                const bool shows_left = hot[index].value == timer.left;
                const bool same_way = shows_left == timer.timer->counts_down();
                all.push_back({.at = same_way ? Seconds{edge} : duration - Seconds{edge}});
            }
    }
    timer.owned->set_marks(all);
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
        if (source != no_source) dependents[source].push_back({no_element, Dependent::Role::look});
    groups.push_back(std::move(made));
    return true;
}

ElementRef Hud::State::add(const Element& element, const Origin* origin, const Sources& sources) {
    const CommonFields common = common_fields(element);
    const std::string name = std::string(table_of(element).name) + " '" + common.id + "'";
    Problems found;
    ElementContext context(found, name, origin, formats);

    RunningElement made;
    made.path = path_of(common);
    made.inside = common.inside;
    made.kind = &table_of(element);
    made.when_no_value = common.when_no_value;
    made.place = common.place;
    made.layer = common.layer;
    if (!is_id(common.id)) context.report("id", std::string(id_rule), "");
    if (paths.contains(made.path))
        context.report("id", "is that of an element before it, '" + made.path + "'", "");
    if (!common.inside.empty() && !panels.contains(common.inside)) {
        const std::vector<std::string_view> names(panels.begin(), panels.end());
        context.report("inside", "no panel '" + common.inside + "'", did_you_mean(common.inside, names));
    }

    if (!common.group.empty()) {
        const auto group = std::find_if(groups.begin(), groups.end(),
                                        [&](const RunningGroup& known) { return known.id == common.group; });
        if (group != groups.end()) {
            made.group = static_cast<GroupIndex>(group - groups.begin());
        } else {
            std::vector<std::string_view> names;
            for (const RunningGroup& known : groups)
                names.push_back(known.id);
            context.report("group", "no group '" + common.group + "'", did_you_mean(common.group, names));
        }
    }
    const SourceIndex value_index = connect(common.value, "value", sources, context);
    made.max = connect(common.max, "max", sources, context);
    made.visible = connect(common.visible, "visible", sources, context);

    const auto bound = [&](const Source& source) -> Source {
        if (source.access() != Source::Access::name) return source;
        if (const auto told = told_kinds.find(source.name()); told != told_kinds.end())
            return source.applied_to(told->second);
        const Source* named = sources.find(source.name());
        return named != nullptr ? source.applied_to(*named) : Source();
    };
    context.measurer = measurer;
    context.font = font;
    const Source value = bound(common.value);
    context.value_type = value.type();
    context.value_use = value.use();
    context.max_type = bound(common.max).type();
    check_pace(common.plan.pace, context);
    check_bands(common.plan.bands, context);
    made.body = std::visit([&](const auto& description) { return make_body(description, context); }, element);
    made.effects = make_element_effects(common.effects, common.plan.bands,
                                        made.body != nullptr ? made.body->color() : Color{}, context);
    const auto counted = std::find_if(pending.begin(), pending.end(),
                                      [&](const PendingAmount& amount) { return amount.path == made.path; });
    if (counted != pending.end() && made.body != nullptr && !made.body->places())
        context.report("format",
                       std::string(needs_fixed_digits) + ", as '" + made.path + ".pending' is shown", "");
    if (context.failed() || made.body == nullptr) {
        for (Problem& problem : found)
            report(std::move(problem));
        for (const SourceIndex source : {value_index, made.max, made.visible})
            if (source != no_source) scan.release(source);
        return {};
    }

    const ElementIndex index = take_place();
    made.generation = elements[index].generation;
    for (const SourceIndex source : {value_index, made.max})
        if (source != no_source) dependents[source].push_back({index, Dependent::Role::value});
    if (made.visible != no_source) dependents[made.visible].push_back({index, Dependent::Role::look});
    if (!common.plan.is_direct()) made.travel = std::make_unique<Travel>(shared_plan(common.plan));
    made.shows_pending = std::any_of(pending.begin(), pending.end(), [&](const PendingAmount& amount) {
        return value_index != no_source &&
               (value_index == amount.net || value_index == amount.gain || value_index == amount.loss);
    });
    made.is_silent = made.shows_pending || value.use() == Source::Use::time_left ||
                     value.use() == Source::Use::time_passed;
    if (counted != pending.end()) counted->total = index;
    if (made.kind == &Description<Text>::table) counters.insert(made.path);
    paths.emplace(made.path, index);
    if (made.kind == &Description<Panel>::table) panels.insert(made.path);
    elements[index] = std::move(made);
    hot[index] = HotElement{.value = value_index};
    if (elements[index].effects != nullptr) with_triggers.push_back(index);
    watch_bands(index);
    find_plain(index);
    // Its first frame shows it, whether or not a source has news.
    queue_element(index);
    visibility_dirty = layout_dirty = structure_dirty = true;
    if (language != nullptr) speak(index);
    return ref_of(index);
}

/// A text that shows one number, does not move, and is the only one who shows it, is refreshed without the
/// detours.
void Hud::State::find_plain(ElementIndex index) {
    const RunningElement& element = elements[index];
    const SourceIndex source = hot[index].value;
    if (source == no_source) return;
    // Whoever was alone with this source is not any more.
    only_dependent[source] = no_element;
    if (element.effects != nullptr) return;
    if (element.travel != nullptr && element.travel->bands() != nullptr) return;
    if (element.max != no_source || element.when_no_value != WhenNoValue::placeholder) return;
    if (element.travel == nullptr && dependents[source].size() != 1) return;
    const std::optional<PlainText> plain = element.body->plain_text();
    hot[index].is_plain = plain.has_value();
    if (!plain) return;
    hot[index].plain = *plain;
    if (element.travel == nullptr) only_dependent[source] = index;
}

ElementIndex Hud::State::take_place() {
    if (free_places.empty()) {
        elements.emplace_back();
        hot.emplace_back();
        return static_cast<ElementIndex>(elements.size() - 1);
    }
    const ElementIndex index = free_places.back();
    free_places.pop_back();
    return index;
}

void Hud::State::kill(ElementIndex index) {
    RunningElement& element = elements[index];
    if (element.dead || element.body == nullptr) return;
    element.dead = true;
    element.shown = false;
    ++hot[index].revision;
    removed.push_back(index);
    paths.erase(element.path);
    panels.erase(element.path);
    counters.erase(element.path);
    for (PendingAmount& amount : pending)
        if (amount.total == index) amount.total = no_element;
    for (RunningTimer& timer : timers)
        std::erase(timer.shown_by, index);
    std::erase(with_triggers, index);
    layout_dirty = true;
    if (element.kind != &Description<Panel>::table) return;
    for (ElementIndex child = 0; child < elements.size(); ++child)
        if (!elements[child].inside.empty() && elements[child].inside == element.path) kill(child);
}

void Hud::State::free_removed() {
    if (removed.empty()) return;
    for (const ElementIndex index : removed) {
        RunningElement& element = elements[index];
        for (const SourceIndex source : {hot[index].value, element.max, element.visible}) {
            if (source == no_source) continue;
            std::erase_if(dependents[source],
                          [&](const Dependent& dependent) { return dependent.element == index; });
            if (only_dependent[source] == index) only_dependent[source] = no_element;
            scan.release(source);
        }
        const std::uint32_t generation = element.generation + 1;
        element = RunningElement{};
        element.generation = generation;
        hot[index] = HotElement{};
        free_places.push_back(index);
    }
    const auto gone = [this](ElementIndex index) { return elements[index].body == nullptr; };
    std::erase_if(queue, gone);
    std::erase_if(playing, gone);
    std::erase_if(active, [&](const Active& moving) { return gone(moving.index); });
    removed.clear();
    structure_dirty = true;
}

void Hud::set_language(const Language& language) {
    state_->language = std::make_shared<const Language>(language);
    for (ElementIndex index = 0; index < state_->elements.size(); ++index)
        if (state_->elements[index].body != nullptr) state_->speak(index);
}

void Hud::State::speak(ElementIndex index) {
    RunningElement& element = elements[index];
    update_body_text(index);
    Problems found;
    ElementContext context(found, std::string(element.kind->name) + " '" + element.path + "'", nullptr,
                           formats);
    context.value_type =
        hot[index].value == no_source ? std::nullopt : std::optional(scan.value(hot[index].value).type());
    context.max_type =
        element.max == no_source ? std::nullopt : std::optional(scan.value(element.max).type());
    element.body->set_language(language.get(), context);
    if (context.failed()) {
        element.body->set_language(nullptr, context);
        for (Problem& problem : found)
            report(std::move(problem));
    }
    find_plain(index);
    queue_element(index);
}

void Hud::State::link_parents() {
    ++structure;
    structure_dirty = false;
    // Room for more events than a frame usually has, so that the first busy one does not allocate.
    constexpr std::size_t usual_events = 64;
    events.reserve(usual_events);
    value_events.reserve(usual_events);
    // A path begins with the path of its panel, so that panels cannot stand inside one another in a circle.
    std::vector<std::vector<ElementIndex>> inside(elements.size());
    std::vector<ElementIndex> outermost;
    for (ElementIndex index = 0; index < elements.size(); ++index) {
        RunningElement& element = elements[index];
        if (element.body == nullptr) continue;
        const auto panel = paths.find(element.inside);
        element.parent = element.inside.empty() || panel == paths.end() ? no_element : panel->second;
        (element.parent == no_element ? outermost : inside[element.parent]).push_back(index);
    }

    parents_first.clear();
    std::vector<ElementIndex> waiting(outermost.rbegin(), outermost.rend());
    while (!waiting.empty()) {
        const ElementIndex index = waiting.back();
        waiting.pop_back();
        parents_first.push_back(index);
        waiting.insert(waiting.end(), inside[index].rbegin(), inside[index].rend());
    }
    draw_order = parents_first;
    std::stable_sort(draw_order.begin(), draw_order.end(), [this](ElementIndex a, ElementIndex b) {
        return elements[a].layer < elements[b].layer;
    });
}

}  // namespace rapido
