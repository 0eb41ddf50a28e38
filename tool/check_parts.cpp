#include "tool/check_parts.hpp"

#include <algorithm>
#include <set>

#include "base/fields.hpp"
#include "base/nearest.hpp"
#include "element/kinds.hpp"
#include "element/sources_of.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/element/text.hpp"
#include "rapido/look/flash_limit.hpp"
#include "tool/report.hpp"

namespace rapido::tool {

std::string word_of(SourceType type) {
    return std::string(choices_of<SourceType>[static_cast<std::size_t>(type)]);
}

bool fits(Value::Type given, SourceType declared) {
    switch (given) {
        case Value::Type::none:
            return true;
        case Value::Type::text:
            return is_text(declared);
        case Value::Type::flag:
            return declared == SourceType::flag;
        case Value::Type::int64:
            return declared == SourceType::integer || declared == SourceType::number || declared == SourceType::time;
        default:
            return declared == SourceType::number || declared == SourceType::time;
    }
}

namespace {

const DeclaredSource* find(const std::vector<DeclaredSource>& sources, const std::string& name) {
    const auto found =
        std::find_if(sources.begin(), sources.end(), [&](const DeclaredSource& source) { return source.name == name; });
    return found != sources.end() ? &*found : nullptr;
}

Location place_of(const HudDefinition& definition, std::size_t source, std::string_view field = {}) {
    return source < definition.source_locations.size() ? definition.source_locations[source].of(field) : Location{};
}

void report_missing(const Checked& checked, std::size_t index, const std::string& name, std::string_view field,
                    const Trace& trace, Findings& findings) {
    std::vector<std::string_view> names;
    for (const Trace::Column& other : trace.columns())
        names.push_back(other.name);
    findings.add("trace " + name,
                 {{place_of(checked.definition, index, field), "the trace has no source '" + name + "'",
                   did_you_mean(name, names), ProblemCode::unknown_source}});
}

void compare_with(const Checked& checked, std::size_t index, const DeclaredSource& source, const std::string& name,
                  const std::string& prefix, const Trace::Column& column, Findings& findings) {
    if (!fits(column.type, source.type)) {
        findings.add("type " + name,
                     {{place_of(checked.definition, index, prefix + "type"),
                       "source '" + name + "' is declared as " + (source.type == SourceType::integer ? "an " : "a ") +
                           word_of(source.type) + ", and the trace gives " + said(column.changes.front().value),
                       "", ProblemCode::wrong_type}});
        return;
    }
    if (!(source.range.low < source.range.high)) return;
    for (const Trace::Change& change : column.changes) {
        if (!change.value.has_value()) continue;
        const double number = change.value.number();
        const double beyond = std::max(source.range.low - number, number - source.range.high);
        if (beyond <= 0) continue;
        findings.add("range " + name,
                     {{place_of(checked.definition, index, prefix + "range"),
                       "source '" + name + "' is declared as " + plain_number(source.range.low) + " to " +
                           plain_number(source.range.high) + ", and the trace gives " + said(change.value),
                       "", ProblemCode::out_of_range}},
                     beyond);
    }
}

/// A container and its entries, `fires.1.heat`.
void compare_entries(const Checked& checked, std::size_t index, const Trace& trace, Findings& findings) {
    const DeclaredSource& source = checked.definition.sources[index];
    for (const DeclaredSource& field : source.fields) {
        bool any = false;
        for (const Trace::Column& column : trace.columns()) {
            if (field_of(column.name, source) != field.name) continue;
            any = true;
            compare_with(checked, index, field, source.name + "." + field.name, "fields." + field.name + ".", column,
                         findings);
        }
        if (!any)
            report_missing(checked, index, source.name + ".1." + field.name, "fields." + field.name, trace, findings);
    }
}

void compare(const Checked& checked, const Trace& trace, Findings& findings) {
    for (std::size_t i = 0; i < checked.definition.sources.size(); ++i) {
        const DeclaredSource& source = checked.definition.sources[i];
        if (source.type == SourceType::entries) {
            compare_entries(checked, i, trace, findings);
            continue;
        }
        const auto column = std::find_if(trace.columns().begin(), trace.columns().end(),
                                         [&](const Trace::Column& one) { return one.name == source.name; });
        if (column == trace.columns().end()) {
            report_missing(checked, i, source.name, "", trace, findings);
            continue;
        }
        compare_with(checked, i, source, source.name, "", *column, findings);
    }
}

/// What the value of an element can be, where that is known.
std::optional<Limits> range_of(const Checked& checked, const Source& source) {
    const detail::Binding& binding = source.binding();
    if (source.name().empty() || binding.is_negated() || binding.counts_down()) return std::nullopt;
    const DeclaredSource* const known = find(checked.definition.sources, source.name());
    if (known == nullptr || !(known->range.low < known->range.high)) return std::nullopt;
    return known->range;
}

/// The value of a source that is none of the game's.
std::optional<KeptValue> constant_of(const Source& source) {
    if (source.binding().access() != detail::Binding::Access::constant) return std::nullopt;
    std::string storage;
    return KeptValue(source.binding().read(storage));
}

class PartsChecker {
 public:
    PartsChecker(const Checked& checked, const Hud& hud, const Places& places, Findings& findings)
        : checked_(checked), hud_(hud), places_(places), findings_(findings) {}

    void check() {
        for (const Element& element : checked_.definition.elements)
            if (const std::optional<Notice> notice = element.as<Notice>())
                for (const Message& message : notice->messages)
                    heard_.insert(message.band);
        for (const ElementRef ref : hud_.elements()) {
            const Shown shown = hud_[ref];
            path_ = shown.id;
            name_ = Places::name(shown);
            if (const Element* const element = places_.element(path_))
                check_element(WrittenElement(*element).common(), *element);
        }
        check_timers();
        for (std::size_t i = 0; i < checked_.definition.effects.size(); ++i)
            check_flashes(checked_.definition.effects[i], i);
    }

 private:
    void report(ProblemCode code, std::string_view field, const std::string& message, const std::string& hint,
                const std::string& same = {}) {
        findings_.add(std::string(to_string(code)) + " " + places_.first_of(path_) + " " + std::string(field) + same,
                      {{places_.of(path_, field), name_ + " " + message, hint, code, Severity::warning}, path_});
    }

    void check_element(const CommonFields& element, const Element& described) {
        if (const auto shown = constant_of(element.visible);
            shown && !shown->get().truth() && !is_shown_by_band(element))
            report(ProblemCode::unreachable, "visible", "is never shown: 'visible' is false",
                   "take it out, or name a source");
        WrittenElement written(described);
        const auto is_zero = [&](std::string_view field) {
            const Amount* const amount = written.field<Amount>(field);
            return amount != nullptr && amount->source() == nullptr && amount->number() == 0;
        };
        if (is_zero("opacity"))
            report(ProblemCode::unreachable, "opacity", "is never seen: its 'opacity' is 0",
                   "take it out, or let a group dim it");
        if (is_zero("scale")) report(ProblemCode::unreachable, "scale", "is never seen: its 'scale' is 0", "");
        check_bands(element, described);
    }

    static bool is_shown_by_band(const CommonFields& element) {
        const std::vector<Band>& bands = element.plan.bands;
        return std::any_of(bands.begin(), bands.end(),
                           [](const Band& band) { return band.visible == std::optional(true); });
    }

    void check_bands(const CommonFields& element, const Element& described) {
        const std::vector<Band>& bands = element.plan.bands;
        const std::optional<Limits> range = range_of(checked_, element.value);
        const bool has_max = element.max.is_given();
        std::optional<Limits> most = range_of(checked_, element.max);
        if (const auto constant = constant_of(element.max))
            most = Limits{constant->get().number(), constant->get().number()};
        for (std::size_t i = 0; i < bands.size(); ++i) {
            const Band& band = bands[i];
            const std::string field = "bands." + std::to_string(i);
            const std::string which = band.id.empty() ? std::to_string(i) : "'" + band.id + "'";
            const bool is_ratio =
                band.edge_unit == EdgeUnit::ratio || (band.edge_unit == EdgeUnit::automatic && has_max);
            std::optional<Limits> reached = range;
            if (is_ratio && range && most && most->low > 0)
                reached = Limits{std::min(range->low / most->low, range->low / most->high),
                                 std::max(range->high / most->low, range->high / most->high)};
            else if (is_ratio)
                reached.reset();
            const std::optional<Limits> begins = range_of_edge(band.above), ends = range_of_edge(band.below);
            const std::string limits = reached ? said(*reached) : "";
            const bool begins_above = reached && begins && begins->low > reached->high;
            if (begins_above || (reached && ends && ends->high < reached->low))
                report(ProblemCode::unreachable, field,
                       "never comes into band " + which + ": " +
                           (begins_above ? "it begins at " + said(*begins) : "it ends at " + said(*ends)) + ", and " +
                           (is_ratio ? "the ratio" : "the value") + " is " + limits,
                       is_ratio ? "edges are parts of the maximum; 'edge_unit = \"value\"' takes them as values"
                                : "move its edge, or declare the range that the game has");
            if (begins && ends && begins->low > ends->high)
                report(ProblemCode::unreachable, field,
                       "never comes into band " + which + ": it begins at " + said(*begins) + " and ends at " +
                           said(*ends),
                       "exchange its edges");
            // A band below others may be their ground; above all others it is all that is seen.
            const bool is_open = band.when.is_given() || band.is.get().has_value();
            const bool has_edge = (band.above || band.below) && !is_open;
            const bool is_always = reached && has_edge && (!band.above || (begins && begins->high <= reached->low)) &&
                                   (!band.below || (ends && ends->low >= reached->high));
            if (is_always && i + 1 == bands.size())
                report(ProblemCode::unreachable, field,
                       "never leaves band " + which + ": " + (is_ratio ? "the ratio" : "the value") + " is " + limits +
                           (i > 0 ? ", and the bands before it are not seen" : ""),
                       is_ratio ? "edges are parts of the maximum; 'edge_unit = \"value\"' takes them as values"
                                : "move its edge, or give its look to the element itself");
            check_color(described, band, i, which);
        }
    }

    /// Between which numbers an edge may lie; nothing where it is absent, or nothing is declared.
    std::optional<Limits> range_of_edge(const std::optional<Amount>& edge) const {
        if (!edge) return std::nullopt;
        if (const Source* const source = edge->source()) return range_of(checked_, *source);
        return Limits{edge->number(), edge->number()};
    }
    static std::string said(const Limits& range) {
        return plain_number(range.low) + (range.high > range.low ? " to " + plain_number(range.high) : "");
    }

    /// A band that changes a color, and nothing else, of what does not show the value in another way (WCAG 1.4.1).
    void check_color(const Element& element, const Band& band, std::size_t index, const std::string& which) {
        if (!band.color || band.visible || !band.format.empty() || !band.image.empty() ||
            band.pattern != FillPattern::plain || !band.effect.empty())
            return;
        if (!band.id.empty() && (heard_.contains(band.id) || heard_.contains(""))) return;
        const std::optional<Text> text = element.as<Text>();
        if (text ? text->format.find('{') != std::string::npos : !element.as<Image>()) return;
        report(ProblemCode::color_only, "bands." + std::to_string(index), "tells band " + which + " by its color alone",
               "let the band change the format, the image or the pattern, too, or start an effect");
    }

    void check_timers() {
        for (std::size_t i = 0; i < checked_.definition.timers.size(); ++i) {
            const Timer& timer = checked_.definition.timers[i];
            if (timer.kind != TimerKind::countdown && !timer.duration) continue;
            const Seconds length = timer.duration.value_or(Seconds{60});
            for (std::size_t mark = 0; mark < timer.marks.size(); ++mark) {
                if (timer.marks[mark].at <= length) continue;
                const std::string field = "marks." + std::to_string(mark);
                const Location place = i < checked_.definition.timer_locations.size()
                                           ? checked_.definition.timer_locations[i].of(field)
                                           : Location{};
                findings_.add("mark " + timer.id + field, {{place,
                                                            "timer '" + timer.id + "' never comes to its mark at " +
                                                                plain_number(timer.marks[mark].at.count()) +
                                                                " s: it takes " + plain_number(length.count()) + " s",
                                                            "", ProblemCode::unreachable, Severity::warning}});
            }
        }
    }

    /// An effect that flashes more than three times in a second, when it runs as it is described (WCAG 2.3.1). Where area counts, that is
    /// looked at where it runs.
    void check_flashes(const Effect& effect, std::size_t index) {
        if (checked_.definition.flash_limit == FlashRule::area) return;
        std::vector<Nanoseconds> flashes;
        const Nanoseconds run = to_nanoseconds(effect.duration);
        if (run.count() <= 0) return;
        const auto runs = static_cast<std::int64_t>(effect.repeat == 0 ? 1000 : effect.repeat);
        for (std::int64_t i = 0; i < runs && run * i < 2 * FlashLimit::window; ++i)
            for (const Nanoseconds flash : flashes_of(effect, rgb(0xf2efe6), i == 0))
                flashes.push_back(flash + run * i);
        std::size_t most = 0;
        for (std::size_t first = 0, last = 0; last < flashes.size(); ++last) {
            while (flashes[last] - flashes[first] >= FlashLimit::window)
                ++first;
            most = std::max(most, last - first + 1);
        }
        if (most <= FlashLimit::most) return;
        const Location place = index < checked_.definition.effect_locations.size()
                                   ? checked_.definition.effect_locations[index].location
                                   : Location{};
        findings_.add(
            "flash " + effect.id,
            {{place,
              "effect '" + effect.id + "' flashes " + std::to_string(most) +
                  " times in a second, which can start a seizure; the HUD shows three of them",
              "make 'duration' longer, or the change of brightness smaller", ProblemCode::flash, Severity::warning},
             "",
             std::nullopt,
             static_cast<double>(most),
             static_cast<double>(FlashLimit::most)});
    }

    const Checked& checked_;
    const Hud& hud_;
    const Places& places_;
    Findings& findings_;
    std::set<std::string, std::less<>> heard_;  ///< bands that messages name
    std::string path_, name_;
};

}  // namespace

namespace {

/// The names that elements ask for, also those that were left out for a fault.
std::vector<std::string> names_in(const HudDefinition& definition) {
    std::vector<std::string> names;
    const auto take = [&](const std::string&, const Source& source) {
        std::ranges::copy(source.names(), std::back_inserter(names));
    };
    for (const Element& element : definition.elements) {
        WrittenElement written(element);
        for_each_source(*written.kind().table, written.data(), take);
    }
    for (TextStyle style : definition.styles)
        for_each_source(text_style_table, &style, take);
    return names;
}

}  // namespace

void check_names(const Checked& checked, const Hud& hud, const Trace* trace, Findings& findings) {
    // Of a HUD that declares nothing, all names are unknown without a game.
    const bool knows_names = trace != nullptr || !checked.definition.sources.empty();
    for (const Problem& problem : hud.problems())
        if (knows_names || problem.code != ProblemCode::unknown_source)
            findings.add("hud " + same_in_stamps(problem), {problem});
    if (trace != nullptr) compare(checked, *trace, findings);
    std::vector<std::string> wanted = hud.wanted_sources();
    for (std::string& name : names_in(checked.definition))
        wanted.push_back(std::move(name));
    for (std::size_t i = 0; i < checked.definition.sources.size(); ++i) {
        const std::string& name = checked.definition.sources[i].name;
        // `board.1.name` and `board` are both names of a list.
        const bool is_asked =
            std::any_of(wanted.begin(), wanted.end(), [&](const std::string& asked) { return is_around(asked, name); });
        if (is_asked) continue;
        findings.add("unused " + name,
                     {{place_of(checked.definition, i), "source '" + name + "' is declared, and nothing shows it",
                       did_you_mean(name, std::vector<std::string_view>(wanted.begin(), wanted.end())),
                       ProblemCode::unused, Severity::warning}});
    }
}

void check_parts(const Checked& checked, const Hud& hud, const Places& places, Findings& findings) {
    PartsChecker(checked, hud, places, findings).check();
}

}  // namespace rapido::tool
