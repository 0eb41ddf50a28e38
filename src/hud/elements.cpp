// Elements come and go, between two frames.
#include "hud/element_context.hpp"

namespace rapido {
namespace {

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
    std::vector<FurtherSource> further;
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
            if constexpr (requires { further_sources(description); })
                common.further = further_sources(description);
            return common;
        },
        element);
}

std::string path_of(const CommonFields& common) {
    return common.inside.empty() ? common.id : common.inside + "." + common.id;
}

/// What needs a number cannot work on a text.
void check_pace(const Pace& pace, BodyContext& context) {
    if (context.value_type != Value::Type::text) return;
    if (pace.quantise > 0) context.report("pace.quantise", "needs a number, and this source is a text");
    if (pace.smallest_change > 0)
        context.report("pace.smallest_change", "needs a number, and this source is a text");
    if (pace.window != WindowKind::last) context.report("pace.window", "of a text can only be 'last'");
}

void check_bands(const std::vector<Band>& bands, const Table& kind, BodyContext& context) {
    for (std::size_t i = 0; i < bands.size(); ++i) {
        const std::string name = "bands." + std::to_string(i);
        const Band& band = bands[i];
        if (!band.format.empty() && &kind != &Description<Text>::table)
            context.report(name + ".format", "is of texts only");
        const bool has_fill = &kind == &Description<Bar>::table || &kind == &Description<Ring>::table ||
                              &kind == &Description<Level>::table;
        if (band.pattern != FillPattern::plain && !has_fill)
            context.report(name + ".pattern", "is of bars, rings and levels only");
        if (!band.image.empty() && &kind != &Description<Image>::table)
            context.report(name + ".image", "is of images only");
        if (context.value_type == Value::Type::text)
            return context.report("bands", "needs a number, and this source is a text");
        if (!band.below && !band.above) context.report(name, "needs 'below' or 'above'");
        if (band.below && band.above && *band.below < *band.above)
            context.report(name, "is empty: 'below' is less than 'above'");
    }
}

}  // namespace

ElementRef Hud::State::add(const Element& element, const Origin* origin) {
    const CommonFields common = common_fields(element);
    const std::string name = std::string(table_of(element).name) + " '" + common.id + "'";
    ElementContext context(problems, name, origin, formats);

    RunningElement made;
    made.path = path_of(common);
    made.inside = common.inside;
    made.kind = &table_of(element);
    made.when_no_value = common.when_no_value;
    made.place = common.place;
    made.layer = common.layer;
    made.clock = common.plan.clock;
    check_ranges(table_of(element), address_of(element), [&](std::string_view field, const Field& range) {
        context.report(field, "must be " + range_of(range), "");
    });
    if (!is_id(common.id)) context.report("id", std::string(id_rule), "");
    if (paths.contains(made.path))
        context.report("id", "is that of an element before it, '" + made.path + "'", "");
    if (!common.inside.empty() && !panels.contains(common.inside)) {
        context.report("inside", missing_panel(common.inside, common.id), hint(common.inside, [this] {
                           return std::vector<std::string_view>(panels.begin(), panels.end());
                       }));
    }

    if (!common.group.empty()) {
        if (const auto group = group_indices.find(common.group); group != group_indices.end())
            made.group = group->second;
        else
            context.report("group", "no group '" + common.group + "'",
                           hint(common.group, [this] { return group_names(); }));
    }
    const SourceIndex value_index = connect(common.value, "value", context);
    made.max = connect(common.max, "max", context);
    made.visible = connect(common.visible, "visible", context);
    for (const FurtherSource& further : common.further)
        made.further.push_back(connect(further.source, further.field, context));

    context.bound = [&](const Source& source) -> Source {
        if (source.access() != Source::Access::name) return source;
        if (const auto told = told_kinds.find(source.name()); told != told_kinds.end())
            return source.applied_to(told->second);
        const Source* named = sources.find(source.name());
        return named != nullptr ? source.applied_to(*named) : Source();
    };
    context.measurer = measurer;
    context.images = images;
    context.find_effect = [this](std::string_view effect, Problem& problem) {
        return find_effect(effect, problem);
    };
    context.font = font_of_language();
    const Source value = context.bound(common.value);
    context.value_type = value.type();
    context.value_use = value.use();
    context.max_type = context.bound(common.max).type();
    check_pace(common.plan.pace, context);
    check_bands(common.plan.bands, *made.kind, context);
    made.body = std::visit([&](const auto& description) { return make_body(description, context); }, element);
    made.effects = make_element_effects(common.effects, common.plan.bands,
                                        made.body != nullptr ? made.body->color() : Color{}, context);
    if (const Notice* const notice = std::get_if<Notice>(&element);
        notice != nullptr && made.body != nullptr) {
        made.notice = make_notice(*notice, context);
        made.notice->body = made.body->notice();
    }
    const auto known_pending = pending_indices.find(made.path);
    PendingAmount* const counted =
        known_pending != pending_indices.end() ? &pending[known_pending->second] : nullptr;
    if (counted != nullptr && made.body != nullptr && !made.body->places())
        context.report("format",
                       std::string(needs_fixed_digits) + ", as '" + made.path + ".pending' is shown", "");
    if (context.failed() || made.body == nullptr) {
        made.further.insert(made.further.end(), {value_index, made.max, made.visible});
        for (const SourceIndex source : made.further)
            release(source);
        return {};
    }

    const ElementIndex index = take_place();
    made.generation = elements[index].generation;
    for (const SourceIndex source : {value_index, made.max})
        depend(source, {index, Dependent::Role::value});
    for (const SourceIndex source : made.further)
        depend(source, {index, Dependent::Role::value});
    depend(made.visible, {index, Dependent::Role::look});
    if (!common.plan.is_direct()) {
        made.travel = std::make_unique<Travel>(shared_plan(common.plan));
        made.travel->set_flash_limit(flash_limit);
    }
    made.shows_pending = value_index != no_source && is_pending_source.contains(value_index);
    made.is_silent = made.shows_pending || value.use() == Source::Use::time_left ||
                     value.use() == Source::Use::time_passed;
    if (counted != nullptr) counted->total = index;
    if (made.kind == &Description<Text>::table) counters.insert(made.path);
    paths.emplace(made.path, index);
    ids.emplace(common.id, index);
    if (made.kind == &Description<Panel>::table) panels.insert(made.path);
    elements[index] = std::move(made);
    hot[index] = HotElement{.value = value_index};
    if (RunningNotice* const notice = elements[index].notice.get()) {
        notice->element = index;
        for (std::size_t i = 0; i < notice->posts.size(); ++i)
            notice->posts[i].when = elements[index].further[2 * i + 1];
        notices.push_back(index);
        if (!making) find_speakers(std::get<Notice>(element), origin);
    }
    if (elements[index].body->lives_in_time()) living_bodies.push_back(index);
    if (const ElementEffects* const own = elements[index].effects.get())
        for (const RunningTrigger& waiting : own->triggers) {
            if (waiting.trigger.timer.empty()) continue;
            std::vector<ElementIndex>& all = wait_for_timer[waiting.trigger.timer];
            if (all.empty() || all.back() != index) all.push_back(index);
        }
    watch_bands(index);
    find_plain(index);
    must_measure(index);
    // Its first frame shows it, whether or not a source has news.
    queue_element(index);
    visibility_dirty = structure_dirty = true;
    if (language != nullptr) speak(index);
    return ref_of(index);
}

/// Why there is no such panel for an element with this id.
std::string Hud::State::missing_panel(const std::string& panel, const std::string& own) const {
    std::string at = panel.substr(panel.rfind('.') + 1);
    if (at == own) return "'" + own + "' stands inside itself";
    // As deep as keys of a file may be.
    for (int depth = 0; depth < 64; ++depth) {
        const auto around = panel_parents.find(at);
        if (around == panel_parents.end() || around->second.empty()) break;
        at = around->second.substr(around->second.rfind('.') + 1);
        if (at == own) return "'" + panel + "' stands inside '" + own + "' in turn: a circle of panels";
    }
    return "no panel '" + panel + "'";
}

/// Tells them when the source changes; whoever was alone with it is not any more.
void Hud::State::depend(SourceIndex source, Dependent dependent) {
    if (source == no_source) return;
    dependents[source].push_back(dependent);
    only_dependent[source] = no_element;
}

/// A text that shows one number, does not move, and is the only one who shows it, is refreshed without the
/// detours.
void Hud::State::find_plain(ElementIndex index) {
    const RunningElement& element = elements[index];
    const SourceIndex source = hot[index].value;
    if (source == no_source) return;
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
    must_measure(element.parent);
    ++hot[index].revision;
    removed.push_back(index);
    paths.erase(element.path);
    panels.erase(element.path);
    counters.erase(element.path);
    for (PendingAmount& amount : pending)
        if (amount.total == index) amount.total = no_element;
    for (RunningTimer& timer : timers)
        timer.edges_dirty = std::erase(timer.shown_by, index) > 0 || timer.edges_dirty;
    const auto [first_id, last_id] = ids.equal_range(element.path.substr(element.path.rfind('.') + 1));
    ids.erase(std::find_if(first_id, last_id, [&](const auto& known) { return known.second == index; }));
    if (element.effects != nullptr)
        for (const RunningTrigger& waiting : element.effects->triggers)
            if (const auto all = wait_for_timer.find(waiting.trigger.timer); all != wait_for_timer.end())
                std::erase(all->second, index);
    std::erase(notices, index);
    if (element.kind != &Description<Panel>::table) return;
    for (ElementIndex child = 0; child < elements.size(); ++child)
        if (!elements[child].inside.empty() && elements[child].inside == element.path) kill(child);
}

void Hud::State::free_removed() {
    if (removed.empty()) return;
    for (const ElementIndex index : removed) {
        RunningElement& element = elements[index];
        std::vector<SourceIndex> all = element.further;
        all.insert(all.end(), {hot[index].value, element.max, element.visible});
        for (const SourceIndex source : all) {
            if (source == no_source) continue;
            std::erase_if(dependents[source],
                          [&](const Dependent& dependent) { return dependent.element == index; });
            if (only_dependent[source] == index) only_dependent[source] = no_element;
            release(source);
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
    std::erase_if(living_bodies, gone);
    std::erase_if(active, [&](const Active& moving) { return gone(moving.index); });
    removed.clear();
    structure_dirty = true;
}

std::string_view Hud::State::font_of_language() const {
    std::string_view found = font;
    if (language == nullptr) return found;
    for (const LocaleFont& known : locale_fonts) {
        const std::string& tag = language->tag;
        if (tag == known.locale || tag.starts_with(known.locale + "-")) found = known.font;
    }
    return found;
}

void Hud::set_language(const Language& language) {
    if (!state_->may("set_language")) return;
    state_->language = std::make_shared<const Language>(language);
    state_->screen_dirty = true;
    for (ElementIndex index = 0; index < state_->elements.size(); ++index)
        if (state_->elements[index].body != nullptr) state_->speak(index);
}

void Hud::State::speak(ElementIndex index) {
    RunningElement& element = elements[index];
    update_body_text(index);
    ProblemLog found;
    ElementContext context(found, std::string(element.kind->name) + " '" + element.path + "'", nullptr,
                           formats);
    context.value_type =
        hot[index].value == no_source ? std::nullopt : std::optional(scan.value(hot[index].value).type());
    context.max_type =
        element.max == no_source ? std::nullopt : std::optional(scan.value(element.max).type());
    context.measurer = measurer;
    context.font = font_of_language();
    element.body->set_language(language.get(), context);
    if (context.failed()) {
        element.body->set_language(nullptr, context);
        for (const Problem& problem : found.all())
            report(problem);
    }
    find_plain(index);
    queue_element(index);
}

void Hud::State::link_parents() {
    ++structure;
    structure_dirty = false;
    screen_dirty = true;
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
    children.clear();
    for (std::uint32_t i = 0; i < parents_first.size(); ++i) {
        RunningElement& element = elements[parents_first[i]];
        const auto& held = inside[parents_first[i]];
        element.order = i;
        element.first_child = static_cast<std::uint32_t>(children.size());
        element.child_count = static_cast<std::uint32_t>(held.size());
        children.insert(children.end(), held.begin(), held.end());
    }
    resized.reserve(elements.size());
    to_place.reserve(elements.size());
    draw_order = parents_first;
    std::stable_sort(draw_order.begin(), draw_order.end(), [this](ElementIndex a, ElementIndex b) {
        return elements[a].layer < elements[b].layer;
    });
}

}  // namespace rapido
