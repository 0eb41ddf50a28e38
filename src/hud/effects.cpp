#include "hud/effects.hpp"

#include <algorithm>
#include <cmath>

#include "base/fields.hpp"
#include "base/nearest.hpp"
#include "draw/flash_parts.hpp"
#include "element/effect_drawing.hpp"

namespace rapido {
namespace {

/// In one frame: a hostile file may want thousands of them for each of a thousand events.
constexpr std::size_t most_started = 5'000;

/// Each start of an effect on each element has a seed of its own, the same in every replay.
std::uint32_t seed_of(std::string_view path, std::uint32_t plays) {
    std::uint32_t seed = 2166136261U;  // FNV-1a
    for (const char c : path)
        seed = (seed ^ static_cast<unsigned char>(c)) * 16777619U;
    return seed + plays * 0x9e3779b9U;
}

bool is_built_in(const Effect* effect) {
    const std::span<const Effect> all = built_in_effects();
    return effect >= all.data() && effect < all.data() + all.size();
}

}  // namespace

Effects::Effects(const Settings& settings, Elements& elements, Visibility& visibility, const Readouts& readouts,
                 const Layouter& layouter, ProblemLog& problems)
    : settings_(settings),
      elements_(elements),
      visibility_(visibility),
      readouts_(readouts),
      layouter_(layouter),
      problems_(problems) {
    for (const Effect& effect : built_in_effects())
        by_name_.emplace(effect.id, &effect);
}

const Effect* Effects::find(std::string_view name, Problem& problem) const {
    if (const auto known = by_name_.find(name); known != by_name_.end()) return known->second;
    problem.code = ProblemCode::unknown_name;
    problem.message = "no effect '" + std::string(name) + "'";
    if (problems_.is_full()) return nullptr;
    std::vector<std::string_view> names;
    for (const auto& effect : effects_)
        names.push_back(effect->id);
    for (const Effect& effect : built_in_effects())
        names.push_back(effect.id);
    problem.hint = did_you_mean(name, names);
    return nullptr;
}

bool Effects::define(const Effect& effect, bool fine, const Locations* locations) {
    const auto place = [&](std::string_view field) { return locations != nullptr ? locations->of(field) : Location{}; };
    const auto refuse = [&](std::string_view field, std::string message) {
        problems_.report({place(field), std::move(message), ""});
        return false;
    };
    const auto by_time = [](const Keyframe& a, const Keyframe& b) { return a.at < b.at; };
    const auto known = by_name_.find(effect.id);
    const bool replaces = known != by_name_.end() && is_built_in(known->second);
    if (effect.id.empty()) return refuse("id", "an effect without an id");
    if (known != by_name_.end() && !replaces) return refuse("id", "a second effect with the id '" + effect.id + "'");
    if (!std::is_sorted(effect.keyframes.begin(), effect.keyframes.end(), by_time))
        return refuse("keyframes", "'keyframes' of effect '" + effect.id + "' must stand in order of 'at'");
    constexpr Seconds longest{60};
    if (fine && effect.duration > longest)
        problems_.report({place("duration"),
                          "'duration' of effect '" + effect.id + "' is " + plain_number(effect.duration.count()) + " s",
                          "durations are in seconds: 350 ms is 0.35", ProblemCode::out_of_range, Severity::warning});
    // A faulty one is there and does nothing, so that who names it is not at fault, too.
    effects_.push_back(std::make_unique<Effect>(fine ? effect : Effect{.id = effect.id}));
    if (replaces) by_name_.erase(known);
    by_name_.emplace(effects_.back()->id, effects_.back().get());
    return fine;
}

void Effects::undefine(std::string_view id) {
    const auto known = by_name_.find(id);
    if (known == by_name_.end() || is_built_in(known->second)) return;
    has_undefined_ = true;
    by_name_.erase(known);
    for (const Effect& effect : built_in_effects())
        if (effect.id == id) by_name_.emplace(effect.id, &effect);
}

bool ElementEffects::names(const Effect& effect) const {
    return enter == &effect || leave == &effect ||
           std::find(of_bands.begin(), of_bands.end(), &effect) != of_bands.end() ||
           std::any_of(triggers.begin(), triggers.end(),
                       [&](const Trigger& trigger) { return trigger.effect == &effect; });
}

bool Effects::let_go(const Effect& effect) {
    const auto waits = [&effect](const auto& waiting) { return waiting.effect == &effect; };
    const auto is_of_group = [&effect](const RunningGroup& group) {
        return group.enter == &effect || group.leave == &effect;
    };
    bool is_free = std::none_of(requests_.begin(), requests_.end(), waits) &&
                   std::none_of(leaving_.begin(), leaving_.end(), waits) &&
                   std::none_of(visibility_.groups().begin(), visibility_.groups().end(), is_of_group);
    for (ElementIndex index = 0; index < elements_.count() && is_free; ++index) {
        if (on_[index].own != nullptr) is_free = !on_[index].own->names(effect);
        if (on_[index].player != nullptr && is_free) is_free = on_[index].player->forget(effect);
        if (Body* const body = elements_[index].body.get(); body != nullptr && is_free) is_free = body->forget(effect);
    }
    return is_free;
}

void Effects::free_undefined() {
    if (!std::exchange(has_undefined_, false)) return;
    std::erase_if(effects_, [this](const std::unique_ptr<Effect>& effect) {
        const auto known = by_name_.find(effect->id);
        if ((known != by_name_.end() && known->second == effect.get()) || !let_go(*effect)) return false;
        pictures_.erase(effect.get());
        return true;
    });
}

void Effects::set_picture(std::string_view id, ImageLook picture) {
    if (const auto known = by_name_.find(id); known != by_name_.end()) pictures_[known->second] = std::move(picture);
}

void Effects::follow_theme(const Themes& themes) {
    for (const std::unique_ptr<Effect>& effect : effects_) {
        for (Keyframe& keyframe : effect->keyframes)
            if (keyframe.color) themes.apply(*keyframe.color);
        themes.apply(effect->dots.color);
        themes.apply(effect->particles.color);
        if (effect->particles.end_color) themes.apply(*effect->particles.end_color);
    }
}

void Effects::add(ElementIndex index, std::unique_ptr<ElementEffects> effects) {
    on_.grow_to(index + std::size_t{1});
    on_[index] = {};
    set_own(index, std::move(effects));
}

void Effects::set_own(ElementIndex index, std::unique_ptr<ElementEffects> effects) {
    on_[index].own = std::move(effects);
    if (on_[index].own == nullptr) return;
    ElementEffects& own = *on_[index].own;
    own.has_states = std::any_of(own.of_bands.begin(), own.of_bands.end(),
                                 [](const Effect* effect) { return effect != nullptr && effect->repeat == 0; });
    if (own.has_states) with_states_.push_back(index);
    for (ElementEffects::Trigger& trigger : own.triggers) {
        if (!is_of_timer(trigger.on.on)) {
            trigger.on.subject = index;
            continue;
        }
        if (trigger.on.subject >= by_timer_.size()) by_timer_.resize(trigger.on.subject + std::size_t{1});
        std::vector<ElementIndex>& all = by_timer_[trigger.on.subject];
        if (all.empty() || all.back() != index) all.push_back(index);
    }
}

void Effects::remove(ElementIndex index) {
    std::erase(with_states_, index);
    if (on_[index].own == nullptr) return;
    for (const ElementEffects::Trigger& trigger : on_[index].own->triggers)
        if (is_of_timer(trigger.on.on)) std::erase(by_timer_[trigger.on.subject], index);
}

void Effects::change(ElementIndex index, std::unique_ptr<ElementEffects> effects, Nanoseconds now) {
    remove(index);
    set_own(index, std::move(effects));
    EffectPlayer* const player = on_[index].player.get();
    if (player == nullptr) return;
    // A state that no band has any more ends.
    const Effect* const state = player->running(EffectCause::band);
    const ElementEffects* const own = on_[index].own.get();
    const bool known =
        own != nullptr && std::find(own->of_bands.begin(), own->of_bands.end(), state) != own->of_bands.end();
    if (state != nullptr && state->repeat == 0 && !known) player->stop(*state, now, EffectCause::band);
}

void Effects::free_removed() {
    const auto gone = [this](ElementIndex index) { return elements_[index].dead; };
    std::erase_if(playing_, gone);
    std::erase_if(hiding_, [&](const Hiding& hiding) { return gone(hiding.index); });
    std::erase_if(requests_, [&](const Request& request) { return gone(request.index); });
    std::erase_if(leaving_, [&](const Leaving& leaving) { return gone(leaving.index); });
    for (const ElementIndex index : elements_.removed()) {
        if (on_[index].player != nullptr) on_[index].player->clear();
        on_[index] = {};
        looks_.erase(index);
    }
    std::erase_if(wanted_looks_, gone);
}

/// What plays on an element, from now on.
EffectPlayer& Effects::player_for(ElementIndex index) {
    std::unique_ptr<EffectPlayer>& player = on_[index].player;
    if (player != nullptr) return *player;
    player = std::make_unique<EffectPlayer>(elements_[index].body->color(), flashes().limit);
    player->set_reduced_motion(settings_.reduced_motion);
    return *player;
}

bool Effects::play(ElementIndex index, const Effect& effect, Nanoseconds at, PlayOptions options) {
    const RunningElement& element = elements_[index];
    EffectPlayer& player = player_for(index);
    OnElement& on = on_[index];
    const bool asks = flashes().limit != nullptr;
    if (asks && player.resting()) {
        SeenLook& seen = looks_[index];
        if (is_fresh(seen, index, at))
            player.set_look(seen.look, at);
        else
            player.forget_look();
    }
    options.seed = seed_of(element.path, on.plays);
    if (!player.play(effect, at, options)) return false;
    ++on.plays;
    if (asks) want(index);
    if (!std::exchange(on.is_playing, true)) playing_.push_back(index);
    return true;
}

bool Effects::request(ElementIndex index, const Effect& effect, Nanoseconds at, float strength) {
    if (visibility_.is_shown(index)) return play(index, effect, at, {.strength = strength});
    if (requests_.size() < most_started) requests_.push_back({index, &effect, at, strength});
    return true;
}

void Effects::stop(ElementIndex index, const Effect& effect, Nanoseconds at, std::optional<EffectCause> cause) {
    if (on_[index].player != nullptr) on_[index].player->stop(effect, at, cause);
    std::erase_if(requests_, [&](const Request& request) {
        return request.index == index && request.effect == &effect && !cause;
    });
}

void Effects::follow_reduced_motion() {
    for (const OnElement& on : on_)
        if (on.player != nullptr) on.player->set_reduced_motion(settings_.reduced_motion);
}

void Effects::follow_flashes() {
    for (const OnElement& on : on_)
        if (on.player != nullptr) on.player->set_limit(flashes().limit);
    looks_.clear();
}

void Effects::set_limit(FlashLimit& limit) {
    limit_ = &limit;
    for (const OnElement& on : on_)
        if (on.player != nullptr) on.player->set_limit(flashes().limit);
}

void Effects::snap(ElementIndex index) {
    if (std::exchange(on_[index].snapped, true)) return;
    snapped_.push_back(index);
    if (on_[index].player != nullptr) on_[index].player->clear();
    std::erase_if(requests_, [index](const Request& request) { return request.index == index; });
}

/// What a band does without an end, it does whenever the value is inside: from the first frame, after a snap, after having been
/// hidden.
void Effects::keep_state(ElementIndex index, Nanoseconds now) {
    const BandSet* const bands = readouts_.bands(index);
    ElementEffects& own = *on_[index].own;
    const Effect* wanted = nullptr;
    for (std::size_t i = 0; i < own.of_bands.size() && bands != nullptr; ++i)
        if (own.of_bands[i] != nullptr && own.of_bands[i]->repeat == 0 && bands->inside(i)) wanted = own.of_bands[i];
    if (!visibility_.is_shown(index)) return;
    const EffectPlayer* const player = on_[index].player.get();
    const Effect* const running = player != nullptr ? player->running(EffectCause::band) : nullptr;
    if (running == nullptr && wanted != nullptr)
        play(index, *wanted, now, {.cause = EffectCause::band});
    else if (running != nullptr && running != wanted && running->repeat == 0)
        stop(index, *running, now, EffectCause::band);
}

void Effects::start(std::span<const Happening> happenings, Nanoseconds now) {
    started_ = 0;
    for (const Request& request : requests_)
        if (visibility_.is_shown(request.index))
            play(request.index, *request.effect, request.at, {.strength = request.strength});
    requests_.clear();
    for (const Happening& happening : happenings) {
        if (!happening.is_of_timer()) {
            start(happening.subject, happening);
        } else if (happening.subject < by_timer_.size()) {
            for (const ElementIndex index : by_timer_[happening.subject])
                start(index, happening);
        }
    }
    for (const ElementIndex index : with_states_)
        keep_state(index, now);
    for (const ElementIndex index : snapped_)
        on_[index].snapped = false;
    snapped_.clear();
}

void Effects::start(ElementIndex index, const Happening& happening) {
    if (on_[index].own == nullptr || started_ >= most_started) return;
    if (happening.kind >= HappeningKind::message_enter) return start_message(index, happening);
    if (on_[index].snapped || !visibility_.is_shown(index)) return;
    const auto begin = [&](const Effect* effect, float strength, EffectCause cause) {
        if (effect == nullptr || ++started_ > most_started) return;
        play(index, *effect, happening.time, {.strength = strength, .cause = cause});
    };
    const ElementEffects& own = *on_[index].own;
    for (const ElementEffects::Trigger& trigger : own.triggers) {
        if (!trigger.on.waits_for(happening)) continue;
        // Only a gain or a loss has an amount.
        const double part = trigger.full_strength_at > 0 && happening.amount != 0
                                ? std::abs(happening.amount) / trigger.full_strength_at
                                : 1;
        begin(trigger.effect, static_cast<float>(std::min(part, 1.0)), EffectCause::trigger);
    }
    const bool entered = happening.kind == HappeningKind::band_enter;
    if (!entered && happening.kind != HappeningKind::band_leave) return;
    const auto band = static_cast<std::size_t>(happening.detail);
    const Effect* const effect = band < own.of_bands.size() ? own.of_bands[band] : nullptr;
    if (entered)
        begin(effect, 1, EffectCause::band);
    else if (effect != nullptr && effect->repeat == 0)
        stop(index, *effect, happening.time, EffectCause::band);
}

void Effects::start_message(ElementIndex index, const Happening& happening) {
    const ElementEffects& own = *on_[index].own;
    if (happening.kind == HappeningKind::message_gone) {
        if (on_[index].player != nullptr) on_[index].player->clear();
        return;
    }
    if (settings_.reduced_motion) return;
    const bool enters = happening.kind == HappeningKind::message_enter;
    const Effect* const effect = enters ? own.enter : own.leave;
    if (effect != nullptr && happening.kind != HappeningKind::message_skipped && visibility_.is_shown(index))
        play(index, *effect, happening.time,
             {.as = enters ? PlayAs::enter : PlayAs::leave, .cause = EffectCause::visibility});
}

void Effects::advance(Nanoseconds now) {
    hidden_.clear();
    if (playing_.empty() && hiding_.empty()) return;
    bool has_panel = false;
    std::erase_if(playing_, [&](ElementIndex index) {
        OnElement& on = on_[index];
        on.player->advance(now);
        elements_.mark_changed(index);
        has_panel = has_panel || elements_[index].kind->can.holds_children;
        on.is_playing = !on.player->resting();
        if (on.player->is_limited(now)) note_limited();
        return !on.is_playing;
    });
    hide_left();
    if (!has_panel) return;
    for (const ElementIndex index : elements_.parents_first()) {
        const ElementIndex parent = elements_[index].parent;
        const bool parent_moves = parent != no_element && on_[parent].moves;
        on_[index].moves = parent_moves || (on_[index].player != nullptr && elements_.changed(index));
        if (parent_moves) elements_.mark_changed(index);
    }
}

bool Effects::is_leaving(ElementIndex index) const {
    return std::any_of(leaving_.begin(), leaving_.end(),
                       [index](const Leaving& leaving) { return leaving.index == index; });
}

void Effects::leave(ElementIndex index, const Effect* effect, Nanoseconds now) {
    const bool plays =
        effect != nullptr && effect->repeat > 0 && !settings_.reduced_motion && visibility_.is_shown(index);
    leaving_.push_back({index, plays ? effect : nullptr, now, false, readouts_[index].active});
}

void Effects::take_left(Nanoseconds now, const std::function<bool(ElementIndex)>& moves,
                        const std::function<void(ElementIndex)>& gone) {
    constexpr Nanoseconds longest{2'000'000'000};
    std::erase_if(leaving_, [&](Leaving& leaving) {
        const ElementIndex index = leaving.index;
        if (elements_[index].dead) return true;
        const bool is_late = now - leaving.since >= longest;
        if (moves(index) && !is_late) {
            leaving.moved = true;
            return false;
        }
        if (leaving.effect != nullptr && !leaving.plays && !is_late) {
            leaving.plays = play(index, *leaving.effect, leaving.moved ? now : leaving.since,
                                 {.as = PlayAs::leave, .cause = EffectCause::visibility});
            if (!leaving.plays) leaving.effect = nullptr;
        }
        EffectPlayer* const player = on_[index].player.get();
        if (player != nullptr) player->advance(now);
        const bool runs =
            leaving.plays && player != nullptr && player->running(EffectCause::visibility) == leaving.effect;
        if (runs && !is_late) return false;
        gone(index);
        return true;
    });
}

const Effect* Effects::effect_of(const VisibilityChange& change) const {
    const ElementEffects* const own = on_[change.index].own.get();
    const GroupIndex group = visibility_.conditions(change.index).group;
    const Effect* enter = own != nullptr ? own->enter : nullptr;
    const Effect* leave = own != nullptr ? own->leave : nullptr;
    if (enter == nullptr && leave == nullptr && change.by_group) {
        enter = visibility_.group(group).enter;
        leave = visibility_.group(group).leave;
    }
    if (!change.enters && leave == nullptr) leave = enter;
    const Effect* const effect = change.enters ? enter : leave;
    if (effect == nullptr || !settings_.reduced_motion) return effect;
    static const auto fade = std::find_if(built_in_effects().begin(), built_in_effects().end(),
                                          [](const Effect& known) { return known.id == "fade"; });
    return &*fade;
}

void Effects::show_changes() {
    for (const VisibilityChange& change : visibility_.changes()) {
        const Effect* const effect = effect_of(change);
        const PlayAs as = change.enters ? PlayAs::enter : PlayAs::leave;
        const bool plays = effect != nullptr && !on_[change.index].snapped &&
                           play(change.index, *effect, change.at, {.as = as, .cause = EffectCause::visibility});
        if (change.enters) continue;
        if (plays)
            hiding_.push_back({change.index, change.at});
        else
            visibility_.end_leave(change.index);
    }
    visibility_.forget_changes();
}

/// Those whose effect has ended are hidden at last.
void Effects::hide_left() {
    std::erase_if(hiding_, [&](Hiding& hiding) {
        const ElementIndex index = hiding.index;
        const bool is_left = !elements_[index].dead && !visibility_.is_shown(index);
        const std::optional<Nanoseconds> end = is_left ? on_[index].player->end(EffectCause::visibility) : std::nullopt;
        if (end) {
            hiding.end = *end;
            return false;
        }
        visibility_.end_leave(index);
        if (is_left) hidden_.push_back({index, hiding.end});
        return true;
    });
}

namespace {

/// Downwards from where the screen begins.
Transform stretched(const Fitted& screen) {
    return {.yy = screen.stretch, .dy = screen.origin.y * (1 - screen.stretch)};
}

}  // namespace

Pose Effects::pose(ElementIndex index, Nanoseconds now) const {
    return on_[index].player != nullptr ? on_[index].player->pose(now) : Pose{};
}

template <class BoxOf>
Moved Effects::moved(ElementIndex index, Nanoseconds now, float scale, BoxOf&& box_of) const {
    Moved all;
    for (ElementIndex at = index; at != no_element; at = elements_[at].carried_by()) {
        if (const Rest* const rest = elements_[at].rest.get(); rest != nullptr) {
            const Rect box = box_of(at);
            const Point middle{box.x + box.width / 2, box.y + box.height / 2};
            const Point pivot = layouter_.pivot(at);
            const Point held{box.x + box.width * pivot.x, box.y + box.height * pivot.y};
            all.transform =
                all.transform.then(Transform::around(held, rest->scale, 0, {}))
                    .then(Transform::around(middle, 1, rest->rotation, {rest->shift.x * scale, rest->shift.y * scale}));
            all.scale *= rest->scale;
            all.rotation += rest->rotation;
        }
        if (const Pose here = playing_.empty() ? Pose{} : pose(at, now); here != Pose{}) {
            all.transform = all.transform.then(transform_of(here, box_of(at), scale, layouter_.pivot(at)));
            all.opacity *= here.opacity;
            all.scale *= here.scale;
            all.rotation += here.rotation;
            if (all.tint.part == 0) all.tint = {here.color, here.color_part};
        }
        if (elements_[at].is_carried) {
            const Carried& carried = elements_[at].carried;
            const Rect box = box_of(at);
            const Point shift{carried.shift.x * scale, carried.shift.y * scale};
            const Point middle{box.x + box.width / 2, box.y + box.height / 2};
            if (carried.rotation != 0)
                all.transform = all.transform.then(Transform::around(middle, 1, carried.rotation, {}));
            all.transform = all.transform.then(Transform::around({box.x, box.y}, carried.scale, 0, shift));
            all.rotation += carried.rotation;
            all.scale *= carried.scale;
            all.opacity *= carried.opacity;
        }
    }
    return all;
}

Moved Effects::moved(ElementIndex index, Nanoseconds now) const {
    const Fitted& screen = layouter_.screen();
    Moved all = moved(index, now, screen.scale, [this](ElementIndex at) { return layouter_.device_box(at); });
    if (screen.stretch != 1) all.transform = all.transform.then(stretched(screen));
    return all;
}

Moved Effects::moved_in_design(ElementIndex index, Nanoseconds now) const {
    return moved(index, now, 1, [this](ElementIndex at) { return layouter_.box(at); });
}

void Effects::draw_over(ElementIndex index, Nanoseconds now, const Rect& box, DisplayGroup& into) const {
    const EffectPlayer* const player = on_[index].player.get();
    if (player == nullptr || player->resting()) return;
    const float scale = layouter_.screen().scale;
    if (const Pose here = player->pose(now); here.shine >= 0) {
        const Body::Face face = elements_[index].body->face(box, scale);
        for_each_stripe(face.rect, here.shine, [&](const ShineStripe& stripe) {
            into.rect(face.rect, face.radius, rgb(0xffffff, 0.07),
                      {stripe.left, face.rect.y, stripe.right - stripe.left, face.rect.height});
        });
    }
    draw_dots(*player, now, box, scale, into);
    if (settings_.reduced_motion) return;
    int left = most_particles;
    for (const EffectPlayer::Emission& emission : player->emissions()) {
        const auto picture = pictures_.find(emission.effect);
        draw_particles(emission, picture != pictures_.end() ? &picture->second : nullptr, now, box, scale, left, into);
    }
}

namespace {

/// The screen that areas are counted on, and the width in degrees that goes with it.
constexpr Size counted{1024, 768};
constexpr float counted_degrees = 30;

Rect scaled(const Rect& box, Size by) {
    return {box.x * by.width, box.y * by.height, box.width * by.width, box.height * by.height};
}

}  // namespace

/// What an element draws, in device pixels, without what later commands cover.
void Effects::gather(ElementIndex index, std::vector<FlashPart>& into) {
    scratch_.begin();
    draw_alone(index, scratch_);
    add_flash_parts(scratch_, into);
    for (const ElementIndex child : elements_.children(index))
        if (visibility_.is_drawn(child)) gather(child, into);
}

/// How large a device pixel is on the screen that areas are counted on.
Size Effects::counted_pixel() const {
    const Size viewport = layouter_.viewport() ? layouter_.viewport()->size : counted;
    const float part = settings_.flashes().field_of_view / counted_degrees;
    return {viewport.width > 0 ? counted.width / viewport.width * part : 0,
            viewport.height > 0 ? counted.height / viewport.height * part : 0};
}

/// Whether what was seen of an element still holds: it is where it was, and it was looked at not long ago.
bool Effects::is_fresh(const SeenLook& seen, ElementIndex index, Nanoseconds now) const {
    return seen.at != Nanoseconds::min() && now - FlashLimit::window < seen.at &&
           seen.box == layouter_.device_box(index) && seen.color == elements_[index].body->color();
}

void Effects::want(ElementIndex index) {
    if (!std::exchange(looks_[index].is_wanted, true)) wanted_looks_.push_back(index);
}

const FlashLook& Effects::look_of(ElementIndex index) {
    const SeenLook& seen = looks_[index];
    want(index);
    if (seen.at != Nanoseconds::min()) return seen.look;
    const Color color = elements_[index].body->color();
    const Size pixel = counted_pixel();
    const Rect box = scaled(layouter_.device_box(index), pixel);
    const bool is_counted = layouter_.measurer() != nullptr && settings_.flashes().rule != FlashRule::any_size;
    scratch_look_.parts.assign(
        1, {.color = color, .box = box, .area = is_counted ? box.width * box.height : Flash::any_size});
    scratch_look_.glow.reset();
    scratch_look_.box = box;
    scratch_look_.unit = std::sqrt(pixel.width * pixel.height) * layouter_.screen().scale;
    scratch_look_.settings = settings_.flashes();
    return scratch_look_;
}

void Effects::look_at(ElementIndex index, Nanoseconds now) {
    SeenLook& seen = looks_[index];
    FlashLook& look = seen.look;
    const Color color = elements_[index].body->color();
    seen.at = now;
    seen.box = layouter_.device_box(index);
    seen.color = color;
    look.settings = settings_.flashes();
    const Size pixel = counted_pixel();
    look.box = scaled(seen.box, pixel);
    look.unit = std::sqrt(pixel.width * pixel.height) * layouter_.screen().scale;
    const bool is_counted = layouter_.measurer() != nullptr && settings_.flashes().rule != FlashRule::any_size;
    if (is_counted) {
        scratch_parts_.clear();
        gather(index, scratch_parts_);
        join_flash_parts(scratch_parts_, look.parts);
        for (FlashPart& each : look.parts) {
            each.box = scaled(each.box, pixel);
            each.area *= pixel.width * pixel.height;
        }
    } else {
        look.parts.assign(1, {.color = color});
    }
    const Rest* const rest = elements_[index].rest.get();
    const Glow glow = rest != nullptr && rest->glow ? *rest->glow : Glow{.color = color};
    // What it reaches with more than a little of its light.
    const float reach = glow.radius / 2 * look.unit;
    const Rect box{look.box.x - reach, look.box.y - reach, look.box.width + 2 * reach, look.box.height + 2 * reach};
    look.glow =
        FlashPart{.color = glow.color.value(),
                  .box = box,
                  .area = is_counted ? box.width * box.height - look.box.width * look.box.height : Flash::any_size};
}

void Effects::look_at_flashes(Nanoseconds now) {
    if (flashes().limit == nullptr) return wanted_looks_.clear();
    // What goes on for long may have grown.
    for (const ElementIndex index : playing_)
        if (!is_fresh(looks_[index], index, now)) want(index);
    for (const ElementIndex index : wanted_looks_) {
        SeenLook& seen = looks_[index];
        seen.is_wanted = false;
        if (visibility_.is_drawn(index) && !is_fresh(seen, index, now)) look_at(index, now);
    }
    wanted_looks_.clear();
    for (const ElementIndex index : playing_) {
        if (!visibility_.is_drawn(index)) continue;
        EffectPlayer& player = *on_[index].player;
        player.set_look(looks_[index].look, now);
        player.watch(now);
        if (player.is_limited(now)) note_limited();
    }
}

}  // namespace rapido
