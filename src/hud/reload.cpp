// Another definition for a HUD that runs: what is still there goes on.
#include <algorithm>
#include <unordered_map>

#include "hud/definition_tables.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

/// Returns the item of an id, or null.
template <class T>
const T* find_id(const std::vector<T>& all, const std::string& id) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const T& one) { return one.id == id; });
    return found != all.end() ? &*found : nullptr;
}

/// A timer without what it is started, paused and sped up by.
Timer without_sources(Timer timer) {
    timer.start = timer.pause = timer.speed = {};
    return timer;
}

bool have_same_sources(const Timer& a, const Timer& b) {
    return a.start == b.start && a.pause == b.pause && a.speed == b.speed;
}

/// How many messages a log shows at once is fixed while it runs; other elements show none.
int at_once(const Element& element) {
    const Notice* const notice = std::get_if<Notice>(&element);
    return notice != nullptr ? notice->at_once : 0;
}

}  // namespace

/// Sources that the HUD tells of what the game has added to it, and which its definition does not know.
std::vector<std::string> Hud::State::names_of_game() const {
    std::vector<std::string> owners;
    if (made_of != nullptr) {
        for (const Timer& timer : made_of->timers)
            owners.push_back(timer.id);
        for (const Meter& meter : made_of->meters)
            owners.push_back(meter.id);
    }
    for (const ElementIndex index : elements.by_rank())
        if (elements[index].is_of_definition) owners.push_back(elements[index].path);
    std::vector<std::string> names = bindings.told();
    std::erase_if(names, [&](const std::string& name) {
        return std::any_of(owners.begin(), owners.end(), [&](const std::string& owner) {
            return name.size() > owner.size() && name[owner.size()] == '.' && name.starts_with(owner);
        });
    });
    return names;
}

std::vector<ElementIndex> Hud::State::defined() const {
    std::vector<ElementIndex> all = elements.by_rank();
    std::erase_if(all, [this](ElementIndex index) { return notices.known_as(index) != index; });
    return all;
}

/// An element that the game has added may stand where the definition has another one.
Problems Hud::State::clashes(const Hud& made) const {
    Problems found;
    for (const ElementIndex index : made.state_->defined()) {
        const RunningElement& wanted = made.state_->elements[index];
        const ElementIndex there = elements.at(wanted.path);
        if (there == no_element || elements[there].is_of_definition || elements[there].kind == wanted.kind) continue;
        found.push_back({{},
                         wanted.name() + " stands where the game has added " + elements[there].name(),
                         "give it another id",
                         ProblemCode::duplicate});
    }
    return found;
}

void Hud::State::reload(const HudDefinition& definition, const Hud& made) {
    keep_all_finished();
    const HudDefinition before = made_of != nullptr ? *made_of : HudDefinition{};
    for (const DeclaredSource& source : definition.sources)
        bindings.declare(source.name);
    set_screen(definition, true);
    const bool all = reload_looks(definition, before);
    reload_timers(definition, before);
    reload_elements(definition, made, all);
    HudDefinition kept = definition;
    kept.elements.clear();
    made_of = std::make_unique<HudDefinition>(std::move(kept));
}

/// Themes, styles, effects, groups and languages. True if elements that are described as before may look otherwise.
bool Hud::State::reload_looks(const HudDefinition& definition, const HudDefinition& before) {
    for (const Theme& old : before.themes)
        if (find_id(definition.themes, old.id) == nullptr) themes.remove(old.id);
    std::vector<std::string> order;
    for (std::size_t i = 0; i < definition.themes.size(); ++i) {
        add(definition.themes[i], origin_at(definition.theme_origins, i));
        order.push_back(definition.themes[i].id);
    }
    themes.order(order);
    for (const TextStyle& old : before.styles)
        if (find_id(definition.styles, old.id) == nullptr) text_styles.remove(old.id);
    for (std::size_t i = 0; i < definition.styles.size(); ++i)
        add(definition.styles[i], origin_at(definition.style_origins, i));
    for (const Effect& old : before.effects)
        if (const Effect* const now = find_id(definition.effects, old.id); now == nullptr || !(*now == old))
            effects.undefine(old.id);
    for (std::size_t i = 0; i < definition.effects.size(); ++i) {
        const Effect* const old = find_id(before.effects, definition.effects[i].id);
        if (old == nullptr || !(*old == definition.effects[i]))
            add(definition.effects[i], origin_at(definition.effect_origins, i));
    }
    effects.follow_theme(themes);

    font = definition.font;
    themes.apply(font, nullptr, "font");
    locales = {{.font = font.value(), .compact_names = definition.compact_names}, definition.locales};
    if (settings.language_of_game != nullptr)
        set_language(*settings.language_of_game);
    else
        settings.language = definition.compact_names.empty()
                                ? nullptr
                                : std::make_shared<const Language>(locales.with_names(Language{}));

    // Groups name effects: with others they are other groups.
    if (!(definition.groups == before.groups && definition.effects == before.effects))
        reload_groups(definition, before);
    return !(definition.themes == before.themes && definition.styles == before.styles &&
             definition.effects == before.effects && definition.groups == before.groups &&
             definition.font == before.font && definition.font_files == before.font_files &&
             definition.locales == before.locales && definition.compact_names == before.compact_names);
}

void Hud::State::reload_groups(const HudDefinition& definition, const HudDefinition& before) {
    // Several groups may depend on one source: all forget it, and then those that are left depend on it anew.
    for (const RunningGroup& group : visibility.groups())
        for (const SourceIndex source : {group.visible, group.dimmed})
            bindings.forget(source, no_element);
    for (const Group& old : before.groups)
        if (const GroupIndex index = visibility.find(old.id);
            index != no_group && find_id(definition.groups, old.id) == nullptr) {
            bindings.release(visibility.group(index).visible);
            bindings.release(visibility.group(index).dimmed);
            visibility.retire(index);
        }
    for (std::size_t i = 0; i < definition.groups.size(); ++i) {
        std::optional<RunningGroup> made = running(definition.groups[i], origin_at(definition.group_origins, i), false);
        if (!made) continue;
        const GroupIndex index = visibility.find(made->id);
        if (index == no_group) {
            visibility.add(*std::move(made));
            continue;
        }
        RunningGroup& group = visibility.group(index);
        bindings.release(group.visible);
        bindings.release(group.dimmed);
        made->game_shows = group.game_shows;
        made->game_opacity = group.game_opacity;
        group = *std::move(made);
    }
    for (const RunningGroup& group : visibility.groups())
        for (const SourceIndex source : {group.visible, group.dimmed})
            bindings.depend(source, {no_element, Dependent::Role::look});
    visibility.touch();
}

void Hud::State::reload_timers(const HudDefinition& definition, const HudDefinition& before) {
    for (const Timer& old : before.timers) {
        if (find_id(definition.timers, old.id) != nullptr) continue;
        timers.retire(timers.find(old.id));
    }
    std::vector<TimerIndex> added;
    for (std::size_t i = 0; i < definition.timers.size(); ++i) {
        const Timer& timer = definition.timers[i];
        const Timer* const old = find_id(before.timers, timer.id);
        added.push_back(no_timer);
        if (old != nullptr)
            timers.change(timers.find(timer.id), timer, !(without_sources(*old) == without_sources(timer)));
        else if (timers.find(timer.id) == no_timer)
            added.back() = add(timer, origin_at(definition.timer_origins, i));
    }
    for (std::size_t i = 0; i < definition.timers.size(); ++i) {
        const Timer& timer = definition.timers[i];
        const Timer* const old = find_id(before.timers, timer.id);
        if (added[i] != no_timer)
            connect(added[i], timer, origin_at(definition.timer_origins, i));
        else if (old == nullptr || !have_same_sources(*old, timer))
            reconnect(timers.find(timer.id), timer, origin_at(definition.timer_origins, i));
    }
    for (std::size_t i = 0; i < definition.meters.size(); ++i) {
        const Meter* const old = find_id(before.meters, definition.meters[i].id);
        if (old == nullptr && !bindings.is_told(definition.meters[i].id + ".rate"))
            add(definition.meters[i], origin_at(definition.meter_origins, i));
        else if (old == nullptr || !(*old == definition.meters[i]))
            meters.set_interval(definition.meters[i].id, definition.meters[i].interval);
    }
}

void Hud::State::reload_elements(const HudDefinition& definition, const Hud& made, bool all) {
    const std::vector<ElementIndex> wanted = made.state_->defined();
    std::unordered_map<std::string, const RunningElement*> by_path;
    for (const ElementIndex index : wanted)
        by_path.emplace(made.state_->elements[index].path, &made.state_->elements[index]);
    for (const ElementIndex index : elements.by_rank()) {
        const RunningElement& element = elements[index];
        if (!element.is_living() || !element.is_of_definition) continue;
        const auto now = by_path.find(element.path);
        const bool goes_on = now != by_path.end() && now->second->kind == element.kind &&
                             at_once(*now->second->description) == at_once(*element.description);
        if (!goes_on) kill(index);
    }
    elements.announce(definition.elements);
    lists.announce(definition.elements);
    // What cannot be changed is made anew, and with it what stands inside: those are found missing the second time.
    std::vector<std::size_t> added;
    for (int pass = 0; pass < 2; ++pass)
        for (std::size_t i = 0; i < wanted.size(); ++i) {
            const RunningElement& model = made.state_->elements[wanted[i]];
            const Origin* const origin = origin_at(definition.element_origins, i);
            const ElementIndex there = elements.at(model.path);
            if (there != no_element) {
                if (pass > 0 || (!all && *elements[there].description == *model.description) ||
                    change(there, *model.description))
                    continue;
                kill(there);
            }
            add(*model.description, origin);
            added.push_back(i);
        }
    std::vector<ElementIndex> order;
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        const ElementIndex index = elements.at(made.state_->elements[wanted[i]].path);
        if (index == no_element) continue;
        elements[index].is_of_definition = true;
        order.push_back(index);
    }
    elements.rank(order);
    for (const std::size_t i : added)
        if (const ElementIndex index = elements.at(made.state_->elements[wanted[i]].path); index != no_element)
            find_speakers(index, origin_at(definition.element_origins, i));
}

}  // namespace rapido
