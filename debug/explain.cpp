// Why does it show that? A value's way to the screen, told by the parts that it went through.
#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "base/instants.hpp"
#include "element/pattern.hpp"
#include "hud/definition_tables.hpp"
#include "hud/state.hpp"
#include "rapido/debug.hpp"
#include "value/computation.hpp"

namespace rapido {

bool operator==(const ExplanationLine&, const ExplanationLine&) = default;
namespace {

std::string quoted(std::string_view text) {
    return "\"" + std::string(text) + "\"";
}

/// With so many digits after the point at most.
std::string fixed(double number, int places) {
    std::array<char, 64> room;
    const auto [end, fault] =
        std::to_chars(room.data(), room.data() + room.size(), number, std::chars_format::fixed, places);
    std::string text(room.data(), fault == std::errc() ? end : room.data());
    if (text.find('.') == std::string::npos) return text;
    while (text.ends_with('0'))
        text.pop_back();
    if (text.ends_with('.')) text.pop_back();
    return text;
}
std::string fixed(float number, int places) {
    return fixed(static_cast<double>(number), places);
}

std::string said(const Value& value) {
    switch (value.type()) {
        case Value::Type::none:
            return "no value";
        case Value::Type::text:
            return quoted(value.text());
        case Value::Type::flag:
            return value.flag() ? "true" : "false";
        case Value::Type::int64:
            return std::to_string(value.int64());
        case Value::Type::uint64:
            return std::to_string(value.uint64());
        case Value::Type::duration:
            // A length of a frame, as players know it.
            if (value.duration().count() > 0 && value.duration() < std::chrono::milliseconds(100))
                return fixed(to_seconds(value.duration()).count() * 1000, 1) + " ms";
            return seconds_text(value.duration()) + " s";
        default:
            return plain_number(value.number());
    }
}

std::string at(Nanoseconds time) {
    return fixed(to_seconds(time).count(), 3) + " s";
}

/// What has no name is told by its number among what is read: `#1`.
std::string leaf_name(const detail::Binding& computed, const detail::Binding& leaf) {
    const std::vector<detail::Binding>& leaves = computed.computation()->leaves;
    const auto number = std::find(leaves.begin(), leaves.end(), leaf) - leaves.begin() + 1;
    const bool has_name = leaf.access() == detail::Binding::Access::name;
    return (leaf.is_negated() ? "!" : "") + (has_name ? leaf.name() : "#" + std::to_string(number));
}

/// How it is computed.
std::string notation(const detail::Binding& computed) {
    return computed.computation()->notation([&](const detail::Binding& leaf) { return leaf_name(computed, leaf); });
}

/// What is read for a source, in words.
std::string said(const Source& source, const detail::Binding& bound) {
    using Access = detail::Binding::Access;
    const detail::Binding& asked = source.binding();
    std::string words;
    if (!source.name().empty()) {
        words = "'" + source.name() + "'";
        if (bound.access() == Access::none) words += ", a name that nobody has set,";
    } else {
        switch (bound.access()) {
            case Access::constant:
                words = "a constant";
                break;
            case Access::variable:
                words = "a variable of the game";
                break;
            case Access::computed:
                words = "what is computed as `" + notation(asked) + "`";
                break;
            case Access::shared:
                words = "a shared state of the game";
                break;
            default:
                words = "a callable or live value of the game";
                break;
        }
    }
    if (asked.is_negated()) words = "the opposite of " + words;
    if (asked.counts_down()) words += ", as time left";
    return words;
}

std::string said(Rounding rounding) {
    constexpr std::array<std::string_view, 5> words{"automatically", "to nearest", "down", "up",
                                                    "honestly: a little is never nothing, nearly all never all"};
    return std::string(words[static_cast<std::size_t>(rounding)]);
}

/// Gathers what is to say of one element.
class Explainer {
 public:
    Explainer(const Parts& hud, ElementIndex index)
        : hud_(hud), index_(index), element_(hud.elements[index]), travel_(hud.readouts[index].travel.get()) {}

    Explanation explain() {
        made_.kind = element_.kind->name();
        made_.id = element_.path;
        made_.is_visible = hud_.visibility.is_drawn(index_);
        say_shown();
        const CommonFields common = WrittenElement(element_.description).common();
        say_source(ExplainedPart::source, "reads", common.value, hud_.readouts.value_source(index_), true);
        say_source(ExplainedPart::maximum, "has the maximum", common.max, hud_.readouts.max_source(index_), false);
        say_data();
        say_pace_and_motion();
        if (const std::optional<Text> text = element_.description.as<Text>()) say_text(*text);
        say_bands();
        say_effects();
        say(ExplainedPart::visibility, hud_.visibility.reason(index_));
        say_layout();
        return std::move(made_);
    }

 private:
    void say(ExplainedPart part, std::string text) {
        if (!text.empty()) made_.lines.push_back({part, std::move(text)});
    }
    Nanoseconds now() const { return hud_.time.now(travel_ != nullptr ? travel_->clock() : ClockKind::real); }

    void say_shown() {
        const Body& body = *element_.body;
        if (!body.text().empty())
            made_.shows = quoted(body.text());
        else if (const std::optional<double> fill = body.fill())
            made_.shows = fixed(*fill * 100, 1) + " % full";
    }

    void say_source(ExplainedPart part, const std::string& verb, const Source& source, SourceIndex index,
                    bool is_value) {
        if (!source.is_given()) return;
        const Value& value = hud_.bindings.value(index);
        std::string text = verb + " " + said(source, hud_.bindings.bound(source)) + ": " + said(value);
        const std::optional<Nanoseconds> changed = hud_.bindings.changed_at(index);
        if (changed) text += ", since " + at(*changed) + ", " + at(hud_.time.now() - *changed) + " ago";
        if (is_value) made_.changed = changed;
        const detail::Computation* const made = source.binding().computation();
        const std::span<const SourceIndex> inputs = hud_.bindings.inputs(index);
        for (std::size_t i = 0; made != nullptr && i < std::min(inputs.size(), made->leaves.size()); ++i)
            text += (i == 0 ? "; " : ", ") + std::string(i == 0 ? "of " : "") +
                    leaf_name(source.binding(), source.binding().computation()->leaves[i]) + " " +
                    said(hud_.bindings.value(inputs[i]));
        say(part, std::move(text));
    }

    /// Fields that come from the game.
    void say_data() {
        const std::span<const DataSource> sources = hud_.readouts.data(index_);
        if (sources.empty()) return;
        WrittenElement written(element_.description);
        const auto say = [&](const std::vector<DataField>& fields, const std::string& prefix) {
            for (const DataField& field : fields)
                for (const DataSource& known : sources)
                    if (known.name == prefix + field.name)
                        say_source(ExplainedPart::source, "takes '" + known.name + "' from", field.source, known.source,
                                   false);
        };
        say(data_fields(*written.kind().table, written.data(), written.kind().defaults()), "");
        for (TextStyle style : hud_.text_styles.with_data())
            say(data_fields(text_style_table, &style, &style), "style." + style.id + ".");
    }

    void say_pace_and_motion() {
        if (travel_ == nullptr) {
            if (hud_.readouts.value_source(index_) != no_source) say(ExplainedPart::motion, "shows it at once");
            return;
        }
        const Value& truth = hud_.readouts.value(index_);
        if (travel_->is_paced()) {
            made_.held_until = travel_->due();
            if (truth == travel_->target())
                say(ExplainedPart::pace, "holds nothing back");
            else if (made_.held_until)
                say(ExplainedPart::pace, "holds " + said(truth) + " back until " + at(*made_.held_until) +
                                             ", and has let " + said(travel_->target()) + " through");
            else
                say(ExplainedPart::pace,
                    "holds " + said(truth) + " back, as it differs too little from " + said(travel_->target()));
        }
        const Value shown = travel_->shown(now());
        if (const Nanoseconds lands = travel_->lands_at(); lands > now()) {
            made_.moves_until = lands;
            say(ExplainedPart::motion, "is at " + said(shown) + " on its way from " + said(travel_->start()) + " to " +
                                           said(travel_->target()) + ", where it lands at " + at(lands));
        } else if (shown.has_value()) {
            say(ExplainedPart::motion, "is at rest at " + said(shown));
        }
    }

    void say_text(const Text& text) {
        const detail::ValueUse use = hud_.bindings.bound(text.value).use();
        const Rounding rounding = rounding_for(text.rounding, use, text.max.is_given());
        std::string says = "is written by " + quoted(text.format);
        if (element_.layer_of_game != nullptr && element_.layer_of_game->format)
            says = "is written by " + quoted(*element_.layer_of_game->format) + ", which the game has set";
        if (hud_.settings.language != nullptr && hud_.settings.language->translation(text.format))
            says += ", translated into '" + hud_.settings.language->tag + "'";
        if (text.value.is_given()) {
            says += ", rounded " + said(rounding);
            if (text.rounding == Rounding::automatic) {
                if (use == detail::ValueUse::time_left) says += ", as it is time that is left";
                if (use == detail::ValueUse::time_passed) says += ", as it is time that has passed";
                if (use == detail::ValueUse::amount && text.max.is_given()) says += ", as it has a maximum";
            }
        }
        say(ExplainedPart::text, std::move(says));
    }

    std::string edge_said(const Amount& edge) const {
        const Source* const source = edge.source();
        return source != nullptr ? said(*source, hud_.bindings.bound(*source)) : plain_number(edge.number());
    }

    void say_bands() {
        const BandSet* const bands = hud_.readouts.bands(index_);
        if (bands == nullptr) return;
        for (std::size_t i = 0; i < bands->bands().size(); ++i) {
            if (!bands->inside(i)) continue;
            const Band& band = bands->bands()[i];
            made_.bands.push_back(band.id.empty() ? std::to_string(i) : band.id);
            std::string text = "is in band " + (band.id.empty() ? std::to_string(i) : "'" + band.id + "'");
            if (band.when.is_given()) text += ", while " + said(band.when, hud_.bindings.bound(band.when));
            if (band.is.get().has_value()) text += ", as it is " + said(band.is.get());
            if (band.above) text += ", at least " + edge_said(*band.above);
            if (band.below) text += ", at most " + edge_said(*band.below);
            say(ExplainedPart::band, text + ", since " + at(bands->since(i)));
        }
        if (made_.bands.empty()) say(ExplainedPart::band, "is in none of its bands");
        if (const Travel* const travel = hud_.readouts[index_].travel.get();
            travel != nullptr && travel->is_limited()) {
            made_.flash_limited = true;
            say(ExplainedPart::band,
                "keeps its color for now: the flash limit has three flashes in this second already");
        }
    }

    void say_effects() {
        constexpr std::array<std::pair<EffectCause, std::string_view>, 4> causes{
            {{EffectCause::visibility, "as it enters or leaves"},
             {EffectCause::call, "as the game asked for it"},
             {EffectCause::trigger, "by one of its triggers"},
             {EffectCause::band, "by a band"}}};
        const EffectPlayer* const player = hud_.effects.player(index_);
        if (player == nullptr) return;
        for (const auto& [cause, why] : causes) {
            const Effect* const effect = player->running(cause);
            if (effect == nullptr) continue;
            made_.effects.push_back(effect->id);
            say(ExplainedPart::effect, "plays '" + effect->id + "' " + std::string(why));
        }
        made_.flash_limited = made_.flash_limited || player->is_limited(hud_.time.now());
        if (player->is_limited(hud_.time.now()))
            say(ExplainedPart::effect, "is held by the flash limit: it would be more than three flashes in a second");
    }

    void say_layout() {
        if (hud_.layouter.measurer() == nullptr)
            return say(ExplainedPart::layout, "has no place, as the HUD has no text measurer");
        if (!made_.is_visible) return;
        const Rect box = hud_.layouter.box(index_);
        const Moved moved = hud_.effects.moved_in_design(index_, hud_.time.now());
        std::string text = "stands at " + fixed(box.x, 1) + ", " + fixed(box.y, 1) + ", " + fixed(box.width, 1) +
                           " wide and " + fixed(box.height, 1) + " high";
        if (!element_.inside().empty()) text += ", in '" + std::string(element_.inside()) + "'";
        say(ExplainedPart::layout, std::move(text));
        if (!(moved.transform == Transform{})) {
            const Point middle = moved.transform.apply({box.x + box.width / 2, box.y + box.height / 2});
            say(ExplainedPart::layout, "is drawn with its middle at " + fixed(middle.x, 1) + ", " + fixed(middle.y, 1) +
                                           ", " + fixed(moved.scale, 2) + " times as large");
        }
        const Size screen = hud_.layouter.screen().size;
        const Point first = moved.transform.apply({box.x, box.y});
        const Point last = moved.transform.apply({box.right(), box.bottom()});
        const auto outside = [](float a, float b, float room) { return std::max(a, b) <= 0 || std::min(a, b) >= room; };
        const auto beyond = [](float a, float b, float room) {
            return std::min(a, b) < -0.5F || std::max(a, b) > room + 0.5F;
        };
        const std::string room = "the screen, which is " + fixed(screen.width, 1) + " by " + fixed(screen.height, 1);
        if (outside(first.x, last.x, screen.width) || outside(first.y, last.y, screen.height))
            say(ExplainedPart::layout, "is outside of " + room);
        else if (beyond(first.x, last.x, screen.width) || beyond(first.y, last.y, screen.height))
            say(ExplainedPart::layout, "reaches beyond " + room);
        made_.lacks = element_.body->fault_of_room();
        say(ExplainedPart::layout, made_.lacks);
    }

    const Parts& hud_;
    ElementIndex index_;
    const RunningElement& element_;
    const Travel* travel_;
    Explanation made_;
};

}  // namespace

std::string_view to_string(ExplainedPart part) {
    constexpr std::array<std::string_view, 9> words{"source", "maximum", "pace",       "motion", "text",
                                                    "band",   "effect",  "visibility", "layout"};
    return words[static_cast<std::size_t>(part)];
}

std::string Explanation::text() const {
    if (kind.empty()) return "no such element\n";
    std::string all = kind + " '" + id + "'" + (shows.empty() ? "" : " shows " + shows) + "\n";
    for (const ExplanationLine& line : lines)
        all += "  " + (std::string(to_string(line.part)) + std::string(11, ' ')).substr(0, 11) + line.says + "\n";
    return all;
}

Explanation explain(const Hud& hud, ElementRef ref) {
    const Parts& parts = detail::HudAccess::of(hud);
    const ElementIndex index = parts.elements.living(ref);
    return index != no_element ? Explainer(parts, index).explain() : Explanation();
}

}  // namespace rapido
