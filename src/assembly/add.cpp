// Elements come and go, between two frames.
#include "assembly/new_element.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

const std::vector<Band> no_bands;

const std::vector<Band>& bands_of(const Readouts& readouts, ElementIndex index) {
    const BandSet* const bands = readouts.bands(index);
    return bands != nullptr ? bands->bands() : no_bands;
}

}  // namespace

const TextStyle* Parts::style_now(std::string_view name, Problem& problem) {
    const TextStyle* const style = text_styles.find(name, problem);
    if (style == nullptr || !TextStyles::has_data(*style)) return style;
    TextStyle& now = text_styles.present(*style);
    for (const DataField& field : data_fields(text_style_table, &now, nullptr)) {
        Problem unknown;
        const std::optional<SourceIndex> source = bindings.find(field.source, unknown);
        Value value = bindings.value(source.value_or(no_source));
        // Of a source that nobody has asked for before nothing has been read yet.
        std::string storage;
        if (!value.has_value()) value = bindings.read_once(bindings.bound(field.source), storage);
        field.apply(value, themes, nullptr);
        if (!value.has_value() && field.name == "color") now.color.reset();
        if (!value.has_value() && field.name == "font") now.font.reset();
        if (source) bindings.release(*source);
    }
    return &now;
}

void Parts::equip(ElementContext& context) {
    context.measurer = layouter.measurer();
    context.images = images;
    context.font = languages.font(settings.language.get());
    context.text_scale = settings.text_scale;
    context.find_effect = [this](std::string_view name, Problem& problem) { return effects.find(name, problem); };
    context.find_style = [this](std::string_view name, Problem& problem) { return style_now(name, problem); };
}

Element Hud::State::kept(const Element& element) {
    Element alike = element;
    known_fields.share(alike);
    return alike;
}

ElementRef Hud::State::add(const Element& element, const Locations* locations) {
    NewElement made(*this, element, locations);
    made.check();
    made.bind();
    made.make();
    if (made.failed()) {
        made.release();
        return {};
    }

    RunningElement running;
    running.path = made.path;
    running.kind = &made.kind;
    running.body = std::move(made.body);
    running.layer = made.common.layer;
    running.description = kept(element);
    running.clock = made.common.plan.clock;
    running.rest = made.rest();
    const ElementIndex index = elements.add(std::move(running));

    bindings.depend(made.conditions.visible, {index, Dependent::Role::look});
    layouter.add(index, made.common.place);
    visibility.add(index, made.conditions);
    readouts.add(index, made.value, std::move(made.readout));
    readouts.set_triggers(index, std::move(made.triggers));
    readouts.set_data(index, made.data());
    effects.add(index, std::move(made.effects));
    pending.set_total(made.path, index);
    lists.add(index, element);
    follow_bands(index);
    if (made.notice != nullptr) {
        made.notice->element = index;
        notices.add(std::move(made.notice));
        add_plates(index, *element.as<Notice>());
    }
    if (settings.language != nullptr) speak(index);
    if (made.kind.can.counts || made.kind.can.tells) bindings.offer_again();
    return elements.ref(index);
}

/// Whoever asks about the bands of an element asks about those that it has now.
void Hud::State::follow_bands(ElementIndex index) {
    if (Travel* const travel = readouts[index].travel.get()) {
        const FlashAsker flashes = effects.flashes();
        travel->set_flash_limit({flashes.limit, flashes.looks, index});
        const BandSet* const bands = travel->bands();
        if (bands != nullptr && !travel->is_paced()) timers.watch_bands(index);
        visibility.set_by_band(index, bands != nullptr ? bands->visible() : std::nullopt,
                               travel->filter(time.now(travel->clock())));
    }
    notices.add_speaker(index, bands_of(readouts, index));
}

Notice plate_of(const Notice& log, std::string_view id, const std::string& path) {
    Notice plate = log;
    plate.id = id;
    plate.inside = path;
    plate.at_most = 1;
    plate.time_between = Seconds{0};
    plate.messages.clear();
    plate.inline_images.clear();
    plate.place = {.anchor = log.place.anchor.value_or(Anchor::top), .max_size = log.place.max_size};
    // The log does all of this for its plates.
    for (Band& band : plate.bands) {
        const std::optional<Themed<Color>> color = band.all ? std::nullopt : band.color;
        band = {.when = band.when, .color = color, .fade = band.fade};
    }
    plate.triggers.clear();
    plate.group.clear();
    plate.visible = {};
    plate.opacity = plate.scale = 1;
    plate.rotation = 0;
    plate.blend = Blend::normal;
    plate.glow.reset();
    plate.layer = 0;
    return plate;
}

void Hud::State::add_plates(ElementIndex log, const Notice& notice) {
    if (!is_log(notice)) return;
    std::vector<ElementIndex> plates;
    for (int number = 1; number <= std::min(notice.at_most, 50); ++number)
        plates.push_back(add(plate_of(notice, std::to_string(number), elements[log].path), nullptr).index);
    notices.set_plates(log, notice, plates);
}

/// The elements whose events post messages of a notice.
void Hud::State::find_speakers(ElementIndex index, const Locations* locations) {
    RunningNotice* const notice = notices.find(index);
    if (notice == nullptr) return;
    ElementContext context(problems, elements[index].name(), locations, formats);
    for (std::size_t i = 0; i < notice->posts.size(); ++i) {
        RunningNotice::Post& post = notice->posts[i];
        if (post.speaker.empty()) continue;
        Problem problem;
        const ElementIndex speaker = elements.find(post.speaker, problem);
        if (speaker == no_element)
            context.report("messages." + std::to_string(i) + ".element", problem.message, problem.hint, problem.code);
        else
            notices.listen(post, elements[speaker].path, bands_of(readouts, speaker));
    }
}

void Hud::State::link_riders(const HudDefinition* definition) {
    riders.relink([&](ElementIndex fill, const Problem& problem) {
        const Locations* locations = nullptr;
        for (std::size_t i = 0; definition != nullptr && i < definition->elements.size(); ++i)
            if (path_of(elements.panel(definition->elements[i].inside()), definition->elements[i].id()) ==
                elements[fill].path)
                locations = locations_at(definition->element_locations, i);
        ElementContext context(problems, elements[fill].name(), locations, formats);
        context.report("at_end", problem.message, problem.hint, problem.code);
    });
}

void Hud::State::kill(ElementIndex index) {
    keep_finished(index);
    for (const ElementIndex gone : elements.kill(index)) {
        if (recording != nullptr) recording->forget(gone);
        visibility.remove(gone);
        pending.remove(gone);
        lists.remove(gone);
        moving_order.remove(gone);
        timers.remove(gone);
        effects.remove(gone);
        notices.remove(gone);
        notices.remove_speaker(gone);
    }
}

void Hud::State::know_types(ElementIndex index, ElementContext& context) const {
    const auto type_of = [this](SourceIndex source) {
        return source == no_source ? std::nullopt : std::optional(bindings.value(source).type());
    };
    context.value_type = type_of(readouts.value_source(index));
    context.max_type = type_of(readouts.max_source(index));
}

void Hud::State::speak(ElementIndex index) {
    const RunningElement& element = elements[index];
    ProblemLog found;
    ElementContext context(found, element.name(), nullptr, formats);
    know_types(index, context);
    equip(context);
    keep_finished(index);
    element.body->set_language(settings.language.get(), context);
    for (const Problem& problem : found.all())
        problems.report(problem);
    if (context.failed()) element.body->set_language(nullptr, context);
    if (element.body->shows_delta()) readouts.must_know(index);
    readouts.refresh_next(index);
}

}  // namespace rapido
