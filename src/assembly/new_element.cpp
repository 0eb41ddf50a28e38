#include "assembly/new_element.hpp"

#include <algorithm>

#include "hud/definition_tables.hpp"

namespace rapido {

namespace {

/// Names that no theme has are reported later, when the element has a name.
void apply_theme(const Themes& themes, WrittenElement& written, bool& is_themed) {
    const Table& table = *written.kind().table;
    is_themed = Themes::has_names(table, written.data());
    if (!is_themed) return;
    themes.apply(table, written.data(), nullptr);
    Themes::forget_names(table, written.data());
}

CommonFields common_of(const Elements& elements, const WrittenElement& element) {
    CommonFields common = element.common();
    common.inside = elements.panel(common.inside);
    return common;
}

}  // namespace

NewElement::NewElement(Parts& hud, const Element& element, ElementIndex replaces, std::span<const DataSource> from)
    : NewElement(hud, element, nullptr, replaces, from) {}
NewElement::NewElement(Parts& hud, const Element& element, const Locations* locations, ElementIndex replaces)
    : NewElement(hud, element, locations, replaces, {}) {}

NewElement::NewElement(Parts& hud, const Element& element, const Locations* locations, ElementIndex replaces,
                       std::span<const DataSource> from)
    : hud_(hud),
      known(from),
      written(with_data(element)),
      common(common_of(hud.elements, written)),
      kind(kind_of(element)),
      path(path_of(common.inside, common.id)),
      given_(element),
      replaces_(replaces),
      context_(hud.problems, std::string(kind.name()) + " '" + path + "'", locations, hud.formats) {
    context_.bound = [this](const Source& source) { return hud_.bindings.bound(source); };
    hud.equip(context_);
    context_.find_style = [this](std::string_view name, Problem& problem) {
        follow_style(name);
        return hud_.style_now(name, problem);
    };
}

/// The element is made anew when what the game gives for a style of its pieces changes.
void NewElement::follow_style(std::string_view id) {
    Problem unknown;
    const TextStyle* const style = hud_.text_styles.find(id, unknown);
    if (style == nullptr || !TextStyles::has_data(*style)) return;
    TextStyle fields = *style;
    for (const DataField& field : data_fields(text_style_table, &fields, nullptr)) {
        const std::string name = "style." + style->id + "." + field.name;
        const auto has_name = [&](const DataSource& each) { return each.name == name; };
        if (std::any_of(known.begin(), known.end(), has_name) ||
            std::any_of(followed.begin(), followed.end(), [&](const Followed& one) { return has_name(one.data); }))
            continue;
        Followed& follows = followed.emplace_back();
        follows.data = {.source = hud_.bindings.find(field.source, follows.problem).value_or(no_source), .name = name};
        if (!follows.problem.message.empty()) context_.tell_of(name, follows.problem);
    }
}

/// What the named style says, in place of the element's own.
void NewElement::take_style(WrittenElement& made) {
    Text* const text = made.as<Text>();
    if (text == nullptr || text->style.value().empty()) return;
    Problem problem;
    const TextStyle* const style = hud_.style_now(text->style.value(), problem);
    if (style == nullptr) {
        unknown_style = std::move(problem);
        return;
    }
    if (style->color) text->color = style->color->value();
    if (style->font) text->font = style->font->value();
    text->weight = style->weight.value_or(text->weight);
    text->italic = style->italic.value_or(text->italic);
    text->size = style->size.value_or(text->size);
}

/// Written out, with what its theme and its sources give now.
WrittenElement NewElement::with_data(const Element& element) {
    WrittenElement made(element);
    const std::vector<DataField> fields = data_fields(*made.kind().table, made.data(), made.kind().defaults());
    for (std::size_t i = 0; i < fields.size() && known.empty(); ++i) {
        const DataField& field = fields[i];
        Followed& follows = followed.emplace_back();
        follows.data = {.source = hud_.bindings.find(field.source, follows.problem).value_or(no_source),
                        .pose = field.pose,
                        .name = field.name,
                        .field = field.field,
                        .usual = field.pose != PoseField::none ? field.usual_number() : 0};
    }
    apply_theme(hud_.themes, made, is_themed);
    apply_data(fields, nullptr);
    take_style(made);
    return made;
}

/// What the sources give now.
void NewElement::apply_data(const std::vector<DataField>& fields, const ThemeReport& report) const {
    for (std::size_t i = 0; i < fields.size(); ++i) {
        SourceIndex source = known.empty() ? followed[i].data.source : no_source;
        for (const DataSource& each : known)
            if (each.name == fields[i].name) source = each.source;
        fields[i].apply(hud_.bindings.value(source), hud_.themes, report);
    }
}

/// What is wrong with the sources of fields, and with what they give now.
void NewElement::check_data() {
    for (const Followed& follows : followed)
        if (!follows.problem.message.empty()) context_.tell_of(follows.data.name, follows.problem);
    if (const Text* const text = written.as<Text>()) follow_style(text->style.value());
    if (!unknown_style.message.empty()) context_.tell_of("style", unknown_style);
    if (followed.empty() && known.empty()) return;
    WrittenElement made(given_);
    apply_data(data_fields(*kind.table, made.data(), kind.defaults()), context_.report_theme());
}

std::unique_ptr<Rest> NewElement::rest() const {
    return common.rest == Rest{} ? nullptr : std::make_unique<Rest>(common.rest);
}

void NewElement::check() {
    context_.check_numbers(*kind.table, written.data());
    if (is_themed) {
        WrittenElement named(given_);
        hud_.themes.apply(*kind.table, named.data(), context_.report_theme());
    }
    check_data();
    context_.check_id(common.id);
    if (hud_.elements.at(path) != replaces_)
        context_.report("id", "is that of an element before it, '" + path + "'", {}, ProblemCode::duplicate);
    if (!common.inside.empty() && !hud_.elements.is_panel(common.inside)) {
        const Problem problem = hud_.elements.missing_panel(common.inside, common.id);
        context_.report("inside", problem.message, problem.hint, problem.code);
    }
    if (common.group.empty()) return;
    conditions.group = hud_.visibility.find(common.group);
    if (conditions.group == no_group)
        context_.report_unknown("group", "group", common.group, [&] { return hud_.visibility.group_names(); });
}

void NewElement::bind() {
    value = context_.connect(common.value, "value", hud_.bindings);
    readout.max = context_.connect(common.max, "max", hud_.bindings);
    conditions.visible = context_.connect(common.visible, "visible", hud_.bindings);
    for (const FurtherSource& further : kind.further(written.data()))
        readout.further.push_back(context_.connect(further.source, further.field, hud_.bindings));
    for (const BandSet::BandSource& read : BandSet::sources(common.plan.bands)) {
        const std::string field = "bands." + std::to_string(read.band) + "." + read.field;
        readout.further.push_back(context_.connect(*read.source, field, hud_.bindings));
        ++readout.of_bands;
    }

    const detail::Binding bound = context_.bound(common.value);
    context_.value_type = bound.type();
    context_.value_use = bound.use();
    context_.max_type = context_.bound(common.max).type();
    readout.when_no_value = common.when_no_value;
    readout.min = common.min;
    readout.shows_pending = value != no_source && hud_.pending.is_one(value);
    if (readout.shows_pending || conditions.visible == value) readout.seen_while = conditions.visible;
    // Of a timer the HUD tells the end; of a number that the game counts down it tells that it is empty.
    const bool is_timer = bound.use() != detail::ValueUse::amount && !bound.counts_down();
    readout.is_silent = readout.shows_pending || is_timer;
    conditions.opacity = std::clamp(common.opacity, 0.0F, 1.0F);
    conditions.hides_without_value = common.when_no_value == WhenNoValue::hide && value != no_source;
}

void NewElement::make() {
    check_pace();
    check_motion();
    check_bands();
    body = kind.make(written.data(), context_);
    make_effects();
    if (body == nullptr) return;
    if (NoticeBody* const notice_body = body->notice()) make_notice(*notice_body);
    if (!body->places() && hud_.pending.is_asked_for(path))
        context_.report("format",
                        std::string(PendingAmounts::needs_fixed_digits) + ", as '" + path + ".pending' is shown");
    if (common.plan.is_direct()) return;
    readout.travel = std::make_unique<Travel>(hud_.plans.share(common.plan));
}

/// What needs a number cannot work on a text.
void NewElement::check_pace() {
    if (context_.value_type != Value::Type::text) return;
    const Pace& pace = common.plan.pace;
    if (pace.quantize > 0) context_.report("pace.quantize", "needs a number, and this source is a text");
    if (pace.smallest_change > 0) context_.report("pace.smallest_change", "needs a number, and this source is a text");
    if (pace.pick != Pick::last) context_.report("pace.pick", "of a text can only be 'last'");
}

/// Milliseconds that are taken for seconds.
void NewElement::check_length(Seconds length, const std::string& field) {
    constexpr Seconds longest{60};
    if (length > longest)
        context_.warn(field, "is " + plain_number(length.count()) + " s", "durations are in seconds: 350 ms is 0.35",
                      ProblemCode::out_of_range);
}

/// What says how it moves, and does not move, was meant to.
void NewElement::check_motion() {
    const Motions& motions = common.plan.motions;
    const auto check = [&](const std::optional<Motion>& motion, const char* field) {
        if (motion) check_length(motion->length(), std::string(field) + ".duration");
        if (!motion || motion->kind != MotionKind::instant || *motion == Motion{} || !(motion->length() > Seconds{0}))
            return;
        context_.warn(field, "it is instant, and has a duration or an easing",
                      "give its kind, such as tween(300ms), in a file kind = \"tween\"", ProblemCode::contradiction);
    };
    check(motions.both, "motion");
    check(motions.up, "motion_up");
    check(motions.down, "motion_down");
    check(motions.max, "max_motion");
    const Trail& trail = common.plan.trail;
    check_length(trail.delay, "trail.delay");
    check_length(trail.duration, "trail.duration");
    if (!(trail == Trail{}) && !(trail.delay.count() > 0))
        context_.warn("trail", "without a 'delay' there is none", "give the time before it drains, such as 0.4",
                      ProblemCode::missing_key);
}

void NewElement::check_bands() {
    for (std::size_t i = 0; i < common.plan.bands.size(); ++i) {
        const std::string field = "bands." + std::to_string(i);
        const Band& band = common.plan.bands[i];
        if ((band.below || band.above || band.is.get().has_value()) && !common.value.is_given())
            return context_.report(field, "reads a value, and the element has none",
                                   "give it a 'value', or the band a condition: when = \"player.hull < 25\"",
                                   ProblemCode::contradiction);
        check_band(band, field);
        check_edges(band, field);
    }
}

/// What a band cannot change, or cannot read.
void NewElement::check_band(const Band& band, const std::string& field) {
    check_length(band.fade, field + ".fade");
    if (!band.format.empty() && !kind.can.takes_format) context_.report(field + ".format", "is of texts only");
    if (band.pattern != FillPattern::plain && !kind.can.has_fill)
        context_.report(field + ".pattern", "is of bars, rings and levels only");
    if (!band.image.empty() && !kind.can.takes_image) context_.report(field + ".image", "is of images only");
    if (band.motion && !kind.follows) context_.report(field + ".motion", "is of elements that show a value only");
    if (band.color && !band.all && kind.table->find("color") == nullptr)
        context_.report(field + ".color", "a " + std::string(kind.name()) + " has no color of its own",
                        "add all = true: then all that stands inside has it");
    if (band.all && !band.color)
        context_.warn(field + ".all", "says that a color is for all, and there is no color", {},
                      ProblemCode::missing_key);
    const bool reads_value = band.below || band.above || band.is.get().has_value();
    if (!reads_value && !band.when.is_given())
        context_.report(field, "needs 'below', 'above', 'is' or 'when'", {}, ProblemCode::missing_key);
    if (!reads_value && band.when.is_given() && band.reads != BandReads::target)
        context_.report(field + ".reads", "is of bands that read the value; 'when' reads what is true", {},
                        ProblemCode::contradiction);
}

void NewElement::check_edges(const Band& band, const std::string& field) {
    if (!band.below && !band.above) return;
    if (context_.value_type == Value::Type::text)
        return context_.report(field, "needs a number, and this source is a text",
                               "a band of a text says which one: is = \"a text\"");
    const auto check_edge = [&](const std::optional<Amount>& edge, const std::string& name) {
        const bool is_part = common.plan.has_max && band.edge_unit == EdgeUnit::automatic;
        if (!edge || edge->source() != nullptr || !is_part || (edge->number() >= 0 && edge->number() <= 1)) return;
        context_.report(
            field + name,
            "is " + plain_number(edge->number()) + ", and with a maximum an edge is a part of it, from 0 to 1",
            "write 0.25 for a quarter of it, or edge_unit = \"value\" for an amount, or \"ratio\" for "
            "more than all of it",
            ProblemCode::out_of_range);
    };
    check_edge(band.below, ".below");
    check_edge(band.above, ".above");
    const bool are_numbers =
        band.below && band.above && band.below->source() == nullptr && band.above->source() == nullptr;
    if (are_numbers && band.below->number() < band.above->number())
        context_.report(field, "is empty: 'below' is less than 'above'", {}, ProblemCode::contradiction);
}

/// What an element plays and when; nothing where there is nothing to play.
void NewElement::make_effects() {
    const std::vector<Band>& bands = common.plan.bands;
    const bool of_bands =
        std::any_of(bands.begin(), bands.end(), [](const Band& band) { return !band.effect.empty(); });
    const Effect* const enter = context_.ending_effect(common.enter, "enter");
    const Effect* const leave = context_.ending_effect(common.leave, "leave");
    conditions.has_effects = enter != nullptr || leave != nullptr;
    if (common.triggers.empty() && !of_bands && !conditions.has_effects) return;
    effects = std::make_unique<ElementEffects>();
    effects->enter = enter;
    effects->leave = leave;
    for (std::size_t i = 0; i < common.triggers.size(); ++i)
        make_trigger(i);
    for (std::size_t i = 0; i < bands.size(); ++i)
        effects->of_bands.push_back(context_.effect(bands[i].effect, "bands." + std::to_string(i) + ".effect"));
}

void NewElement::make_trigger(std::size_t index) {
    const Trigger& trigger = common.triggers[index];
    const std::vector<Band>& bands = common.plan.bands;
    const std::string field = "triggers." + std::to_string(index);
    ElementEffects::Trigger& made = effects->triggers.emplace_back();
    Problem problem;
    made.effect = hud_.effects.find(trigger.effect, problem);
    if (made.effect == nullptr) context_.report(field + ".effect", problem.message, problem.hint, problem.code);
    made.full_strength_at = trigger.full_strength_at;
    made.on.on = trigger.on;
    if (trigger.at) made.on.mark = to_nanoseconds(*trigger.at).count();
    made.on.bands = bands_named(bands, trigger.band);
    if (made.on.bands == 0)
        context_.report_unknown(field + ".band", "band", trigger.band, [&] {
            std::vector<std::string_view> names;
            for (const Band& band : bands)
                names.push_back(band.id);
            return names;
        });
    const TimerIndex timer = trigger.timer.empty() ? no_timer : hud_.timers.find(trigger.timer);
    if (!trigger.timer.empty() && timer == no_timer)
        context_.report_unknown(field + ".timer", "timer", trigger.timer, [&] { return hud_.timers.names(); });
    if (trigger.source.is_given()) {
        if (trigger.on != TriggerOn::gain && trigger.on != TriggerOn::loss && trigger.on != TriggerOn::empty)
            context_.report(field + ".source", "is for gain, loss and empty only", {}, ProblemCode::contradiction);
        triggers.push_back({context_.connect(trigger.source, field + ".source", hud_.bindings)});
        made.on.of_source = static_cast<std::int64_t>(triggers.size());
        return;
    }
    const bool is_of_value = trigger.on == TriggerOn::gain || trigger.on == TriggerOn::loss ||
                             trigger.on == TriggerOn::empty || trigger.on == TriggerOn::full;
    if (is_of_value && !common.value.is_given())
        context_.report(field, "waits for a change of the value, and the element has none",
                        "give it a 'value', or the trigger a 'source'", ProblemCode::contradiction);
    const bool is_of_band = trigger.on == TriggerOn::band_enter || trigger.on == TriggerOn::band_leave;
    if (is_of_band && bands.empty())
        context_.report(field, "waits for a band, and the element has none", {}, ProblemCode::contradiction);
    if (is_of_timer(trigger.on)) {
        made.on.subject = timer;
        if (trigger.timer.empty()) context_.report(field, "needs 'timer'", {}, ProblemCode::missing_key);
    }
    readout.starts_effects = readout.starts_effects || trigger.on == TriggerOn::gain || trigger.on == TriggerOn::loss;
}

void NewElement::make_notice(NoticeBody& notice_body) {
    notice = std::make_unique<RunningNotice>();
    notice->body = &notice_body;
    const Notice& described = *written.as<Notice>();
    conditions.speaks = !is_log(described);
    const NoticeBody::Course& course = notice_body.course();
    const Effect* const enter = context_.ending_effect(course.enter, "enter");
    const Effect* const leave = context_.ending_effect(course.leave, "leave");
    if (effects == nullptr && (enter != nullptr || leave != nullptr)) effects = std::make_unique<ElementEffects>();
    if (effects != nullptr) {
        effects->enter = enter;
        effects->leave = leave;
    }
    const auto length_of = [](const Effect* played) {
        return played != nullptr ? played->duration * std::max(played->repeat, 1) : Seconds{0};
    };
    const int at_most = std::clamp(described.at_most, 1, 50);
    notice->queue =
        NoticeQueue(length_of(enter), length_of(leave), is_log(described) ? Seconds{0} : course.time_between,
                    static_cast<std::size_t>(at_most));
    const Messages& messages = notice_body.messages();
    for (std::size_t i = 0; i < messages.declared(); ++i) {
        RunningNotice::Post& post = notice->posts.emplace_back();
        post.when = readout.further[2 * i + 1];
        make_post(post, messages.message(i), "messages." + std::to_string(i));
    }
}

void NewElement::make_post(RunningNotice::Post& post, const Message& message, const std::string& field) {
    if (!message.on) return;
    post.by_event = true;
    post.on.on = *message.on;
    post.band = message.band;
    if (message.at) post.on.mark = to_nanoseconds(*message.at).count();
    if (message.on == TriggerOn::gain || message.on == TriggerOn::loss)
        return context_.report(field + ".on", "a message cannot be posted by a gain or a loss");
    if (!is_of_timer(*message.on)) {
        if (message.element.empty()) context_.report(field, "needs 'element'", {}, ProblemCode::missing_key);
        post.speaker = message.element;
        return;
    }
    post.on.subject = hud_.timers.find(message.timer);
    if (message.timer.empty())
        context_.report(field, "needs 'timer'", {}, ProblemCode::missing_key);
    else if (post.on.subject == no_timer)
        context_.report_unknown(field + ".timer", "timer", message.timer, [&] { return hud_.timers.names(); });
}

std::vector<DataSource> NewElement::data() const {
    std::vector<DataSource> sources;
    for (const Followed& follows : followed)
        sources.push_back(follows.data);
    return sources;
}

void NewElement::release() {
    for (const SourceIndex source : readout.further)
        hud_.bindings.release(source);
    for (const SourceIndex source : {value, readout.max, conditions.visible})
        hud_.bindings.release(source);
    for (const TriggerSource& trigger : triggers)
        hud_.bindings.release(trigger.source);
    for (const Followed& follows : followed)
        hud_.bindings.release(follows.data.source);
}

}  // namespace rapido
