// Another definition for a HUD that runs: what is still there goes on.
#include <algorithm>
#include <unordered_map>

#include "assembly/difference.hpp"
#include "hud/state.hpp"

namespace rapido {
namespace {

/// A timer without what it is started, paused and sped up by.
Timer without_sources(Timer timer) {
    timer.start_when = timer.pause_when = timer.speed = {};
    return timer;
}

bool have_same_sources(const Timer& a, const Timer& b) {
    return a.start_when.is_same(b.start_when) && a.pause_when.is_same(b.pause_when) && a.speed.is_same(b.speed);
}

/// How many messages a log shows at once is fixed while it runs; other elements show none.
int at_most(const Element& element) {
    const std::optional<Notice> notice = element.as<Notice>();
    return notice ? notice->at_most : 0;
}

}  // namespace

/// Sources that the HUD tells of what the game has added to it, and which its definition does not know.
std::vector<std::string> Hud::State::names_of_game() const {
    std::vector<std::string> owners;
    if (made_of != nullptr) {
        for (const Timer& timer : made_of->timers)
            owners.push_back(timer.id);
        for (const FrameMeter& meter : made_of->frame_meters)
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

bool Hud::State::reload(const HudDefinition& definition, const Hud& made) {
    keep_all_finished();
    const HudDefinition before = made_of != nullptr ? *made_of : HudDefinition{};
    for (const DeclaredSource& source : definition.sources)
        bindings.declare(source.name);
    set_screen(definition, true);
    become(definition, before, false);
    const bool all = !(definition.themes == before.themes && definition.styles == before.styles &&
                       definition.effects == before.effects && definition.groups == before.groups &&
                       definition.font == before.font && definition.font_files == before.font_files &&
                       definition.languages == before.languages && definition.compact_names == before.compact_names);
    reload_elements(definition, made, all);
    keep(definition);
    return all;
}

void Hud::State::renew_those_of_game() {
    for (const ElementIndex index : defined())
        if (!elements[index].is_of_definition) change(index, Element(elements[index].description));
}

void Hud::State::become(const HudDefinition& now, const HudDefinition& before, bool is_made) {
    const Difference themes_of(before.themes, now.themes, now.theme_locations);
    for (const Theme* const old : themes_of.gone)
        themes.remove(old->id);
    std::vector<std::string> order;
    for (const Wanted<Theme>& theme : themes_of.wanted) {
        add(theme.now, theme.locations);
        order.push_back(theme.now.id);
    }
    themes.order(order);
    const Difference styles(before.styles, now.styles, now.style_locations);
    for (const TextStyle* const old : styles.gone)
        text_styles.remove(old->id);
    for (const Wanted<TextStyle>& style : styles.wanted)
        add(style.now, style.locations);
    font = now.font;
    themes.apply(font, nullptr, "font");
    languages = {{.font = font.value(), .compact_names = now.compact_names}, now.languages};
    if (settings.language_of_game != nullptr)
        set_language(*settings.language_of_game);
    else if (now.compact_names.empty())
        settings.language = nullptr;
    else
        settings.take_language(languages.with_names(Language{}));
    // Whatever is named comes before what names it: a timer by another one, a group by a timer and by effects.
    become_timed(now, before, is_made);
    const Difference all_effects(before.effects, now.effects, now.effect_locations);
    for (const Effect* const old : all_effects.gone)
        effects.undefine(old->id);
    for (const Wanted<Effect>& effect : all_effects.wanted) {
        if (!effect.differs()) continue;
        if (!effect.is_added()) effects.undefine(effect.now.id);
        add(effect.now, effect.locations);
    }
    effects.follow_theme(themes);
    // Groups name effects: with others they are other groups.
    if (!(now.groups == before.groups && now.effects == before.effects)) become_grouped(now, before, is_made);
}

void Hud::State::become_grouped(const HudDefinition& now, const HudDefinition& before, bool is_made) {
    // Several groups may depend on one source: all forget it, and then those that are left depend on it anew.
    for (const RunningGroup& group : visibility.groups())
        for (const SourceIndex source : {group.visible, group.dimmed})
            bindings.forget(source, no_element);
    const Difference groups(before.groups, now.groups, now.group_locations);
    for (const Group* const old : groups.gone)
        if (const GroupIndex index = visibility.find(old->id); index != no_group) {
            bindings.release(visibility.group(index).visible);
            bindings.release(visibility.group(index).dimmed);
            visibility.retire(index);
        }
    for (const Wanted<Group>& wanted : groups.wanted) {
        std::optional<RunningGroup> made = running(wanted.now, wanted.locations, is_made);
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

void Hud::State::become_timed(const HudDefinition& now, const HudDefinition& before, bool is_made) {
    const Difference all(before.timers, now.timers, now.timer_locations);
    for (const Timer* const old : all.gone)
        timers.retire(timers.find(old->id));
    std::vector<TimerIndex> added;
    for (const Wanted<Timer>& timer : all.wanted) {
        added.push_back(no_timer);
        const TimerIndex index = is_made ? no_timer : timers.find(timer.now.id);
        if (!timer.is_added())
            timers.change(index, timer.now, !(without_sources(*timer.before) == without_sources(timer.now)));
        else if (index == no_timer)
            added.back() = add(timer.now, timer.locations);
    }
    for (std::size_t i = 0; i < added.size(); ++i) {
        const Wanted<Timer>& timer = all.wanted[i];
        if (added[i] != no_timer)
            connect(added[i], timer.now, timer.locations);
        else if (!is_made && (timer.is_added() || !have_same_sources(*timer.before, timer.now)))
            reconnect(timers.find(timer.now.id), timer.now, timer.locations);
    }
    // A meter that is gone goes on: it costs nothing, and may come back.
    const Difference all_meters(before.frame_meters, now.frame_meters, now.frame_meter_locations);
    for (const Wanted<FrameMeter>& meter : all_meters.wanted) {
        if (meter.is_added() && (is_made || !bindings.is_told(meter.now.id + ".rate")))
            add(meter.now, meter.locations);
        else if (meter.differs())
            frame_meters.set_interval(meter.now.id, meter.now.interval);
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
                             at_most(now->second->description) == at_most(element.description);
        if (!goes_on) kill(index);
    }
    elements.announce(definition.elements);
    lists.announce(definition.elements);
    // What cannot be changed is made anew, and with it what stands inside: those are found missing the second time.
    std::vector<std::size_t> added;
    for (int pass = 0; pass < 2; ++pass)
        for (std::size_t i = 0; i < wanted.size(); ++i) {
            const RunningElement& model = made.state_->elements[wanted[i]];
            const Locations* const locations = locations_at(definition.element_locations, i);
            const ElementIndex there = elements.at(model.path);
            if (there != no_element) {
                if (pass > 0 || (!all && elements[there].description == model.description) ||
                    change(there, model.description))
                    continue;
                kill(there);
            }
            add(model.description, locations);
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
            find_speakers(index, locations_at(definition.element_locations, i));
    riders.must_relink();
    link_riders(&definition);
}

}  // namespace rapido
