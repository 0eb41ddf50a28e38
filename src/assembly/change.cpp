// A running element is changed by giving it another description: from C++, by a name that comes late, by what the game sets.
#include <cmath>

#include "assembly/new_element.hpp"
#include "base/nearest.hpp"
#include "element/fields.hpp"

namespace rapido {
namespace {

/// A description with what the game has set on top.
Element layered(const Element& description, const GameLayer* layer) {
    if (layer == nullptr) return description;
    WrittenElement element(description);
    if (auto* const color = element.field<Themed<Color>>("color"); color != nullptr && layer->color)
        *color = *layer->color;
    if (auto* const format = element.field<std::string>("format"); format != nullptr && layer->format)
        *format = *layer->format;
    if (layer->place) *element.field<Place>("place") = *layer->place;
    return element.element();
}

}  // namespace

bool Hud::State::change(ElementIndex index, const Element& description) {
    RunningElement& running = elements[index];
    const auto refuse = [&](const std::string& what) {
        problems.report({{}, running.name() + ": " + what, "remove it, and add another one", ProblemCode::fixed});
        return false;
    };
    if (&kind_of(description) != running.kind)
        return refuse("a running element cannot become a " + std::string(kind_of(description).name()));
    if (description.id() != running.id()) return refuse("its id cannot change while it runs");
    if (elements.panel(description.inside()) != running.inside())
        return refuse("its panel cannot change while it runs");
    const std::optional<Notice> log = description.as<Notice>();
    if (log && log->at_most != running.description.as<Notice>()->at_most)
        return refuse("its 'at_most' cannot change while it runs");

    const Element wanted = layered(description, running.layer_of_game.get());
    NewElement made(*this, wanted, nullptr, index);
    made.check();
    made.bind();
    made.make();
    if (made.failed()) {
        made.release();
        return false;
    }

    riders.must_relink();
    keep_finished(index);
    const std::optional<int> places = running.body->places();
    running.description = kept(description);
    running.clock = made.common.plan.clock;
    const Rest before = running.rest != nullptr ? *running.rest : Rest{};
    if (!(made.common.rest == before)) {
        running.rest = made.rest();
        elements.mark_inside_moved(index);
    }
    elements.replace_body(index, std::move(made.body), made.common.layer);
    const SourceIndex visible = visibility.conditions(index).visible;
    bindings.forget(visible, index);
    bindings.release(visible);
    timers.remove(index);
    readouts.change(index, made.value, std::move(made.readout), plans.share(made.common.plan), time);
    readouts.set_triggers(index, std::move(made.triggers));
    readouts.set_data(index, made.data());
    bindings.depend(made.conditions.visible, {index, Dependent::Role::look});
    visibility.change(index, made.conditions);
    layouter.set_place(index, made.common.place);
    effects.change(index, std::move(made.effects), time.now());
    if (places != running.body->places()) pending.set_total(running.path, index);
    lists.change(index, wanted);
    follow_bands(index);
    if (made.notice != nullptr) {
        made.notice->element = index;
        notices.replace(index, std::move(made.notice));
        if (const std::vector<ElementIndex> plates = notices.find(index)->plates; !plates.empty()) {
            for (const ElementIndex plate : plates)
                if (plate != no_element) change(plate, plate_of(*log, elements[plate].id(), running.path));
            notices.set_plates(index, *log, plates);
        }
        find_speakers(index, nullptr);
    }
    // What the game has posted is made again, too: its pieces may look otherwise.
    if (settings.language != nullptr || notices.find(index) != nullptr) speak(index);
    return true;
}

/// The short way, for an element that does without the rest of `change`; false where it cannot, or the format cannot be read.
bool Hud::State::set_format(ElementIndex index, const std::string& format) {
    RunningElement& running = elements[index];
    // Its digits are to be checked, or a style of its pieces may come from the game.
    if (pending.is_asked_for(running.path) || text_styles.any_has_data()) return false;
    ProblemLog found;
    ElementContext context(found, running.name(), nullptr, formats);
    know_types(index, context);
    equip(context);
    keep_finished(index);
    if (!running.body->set_format(format, settings.language.get(), context)) return false;
    for (const Problem& problem : found.all())
        problems.report(problem);
    if (running.body->shows_delta()) readouts.must_know(index);
    readouts.refresh_next(index);
    return true;
}

/// A name that was unknown and has come is no problem any more.
void Hud::State::mend_names() {
    problems.mend([this](const Problem& problem) {
        constexpr std::string_view asked = "unknown source '";
        const std::size_t at = problem.message.rfind(asked);
        if (problem.code != ProblemCode::unknown_source || at == std::string::npos) return false;
        const std::string name = problem.message.substr(at + asked.size());
        return bindings.is_known(name.substr(0, name.find('\'')));
    });
}

void Hud::State::follow_names() {
    const std::vector<Sources::NamedTimer>& named = bindings.sources().timers();
    for (; timers_of_game < named.size(); ++timers_of_game) {
        const Sources::NamedTimer& timer = named[timers_of_game];
        if (timers.find(timer.name) == no_timer && !bindings.is_told(timer.name + ".rate"))
            timers.add(timer.name, *timer.timer, timer.clock);
    }
    std::vector<ElementIndex> affected;
    const std::span<const SourceIndex> rebound = bindings.follow_names();
    if (!rebound.empty()) mend_names();
    for (Problem& fault : bindings.take_faults())
        problems.report(std::move(fault));
    for (const SourceIndex source : rebound)
        for (const Dependent& dependent : bindings.dependents(source))
            if (dependent.element != no_element) affected.push_back(dependent.element);
    std::sort(affected.begin(), affected.end());
    affected.erase(std::unique(affected.begin(), affected.end()), affected.end());
    for (const ElementIndex index : affected) {
        // What is known of the type and the use of a value may have become another thing.
        if (!elements[index].is_living()) continue;
        change(index, Element(elements[index].description));
        readouts.take_as_given(index);
    }
}

/// Fields that come from the game: what moves or dims an element is set, and for all else it is made anew, and goes on.
void Hud::State::follow_data() {
    const std::vector<Readouts::DataChange> changes = readouts.take_data_changes();
    std::vector<ElementIndex> anew;
    for (const auto& [index, data] : changes) {
        RunningElement& running = elements[index];
        if (!running.is_living()) continue;
        if (data.pose == PoseField::none) {
            anew.push_back(index);
            continue;
        }
        const auto number = static_cast<float>(number_for(*data.field, data.usual, bindings.value(data.source)));
        if (data.pose == PoseField::opacity) {
            visibility.set_opacity(index, number);
            continue;
        }
        if (running.rest == nullptr) running.rest = std::make_unique<Rest>();
        Rest& rest = *running.rest;
        (data.pose == PoseField::rotation  ? rest.rotation
         : data.pose == PoseField::scale   ? rest.scale
         : data.pose == PoseField::shift_x ? rest.shift.x
                                           : rest.shift.y) = number;
        elements.mark_inside_moved(index);
    }
    std::sort(anew.begin(), anew.end());
    anew.erase(std::unique(anew.begin(), anew.end()), anew.end());
    for (const ElementIndex index : anew)
        look_anew(index);
}

/// Another body of the same element, which goes on to show what the one before has shown.
void Hud::State::look_anew(ElementIndex index) {
    RunningElement& running = elements[index];
    RunningNotice* const notice = notices.find(index);
    // A log shows nothing itself, and its plates follow of themselves.
    if (notice != nullptr && !notice->plates.empty()) return;
    const Element wanted = layered(running.description, running.layer_of_game.get());
    NewElement made(*this, wanted, index, readouts.data(index));
    made.check();
    made.bind();
    made.make();
    if (!made.failed()) {
        elements.replace_body(index, std::move(made.body), made.common.layer);
        readouts.look_anew(index, plans.share(made.common.plan), time);
        if (notice != nullptr) notice->body = running.body->notice();
        if (settings.language != nullptr) speak(index);
        readouts.refresh(index, time);
        // What it follows since it looks so.
        readouts.add_data(index, made.data());
        made.followed.clear();
    }
    made.release();
}

void Hud::State::follow_theme() {
    keep_all_finished();
    effects.follow_theme(themes);
    themes.apply(font, nullptr, "font");
    const bool other_styles = text_styles.follow_theme(themes);
    const bool other_font = font.value() != languages.of_all.font;
    languages.of_all.font = font;
    for (ElementIndex index = 0; index < elements.count(); ++index) {
        if (!elements[index].is_living()) continue;
        const Element& description = elements[index].description;
        const GameLayer* const layer = elements[index].layer_of_game.get();
        const WrittenElement written(description);
        const bool is_themed = readouts.has_data(index) || Themes::has_names(*written.kind().table, written.data()) ||
                               (layer != nullptr && layer->color && !layer->color->name().empty());
        if (is_themed || other_font || other_styles) change(index, Element(description));
    }
}

}  // namespace rapido
