// The table of probes: what lines of code of one thread have written.
#include "debug/probes.hpp"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

#include "hud/state.hpp"

namespace rapido::debug {
namespace {

constexpr Seconds longest_idle{2};
constexpr int most_probes = 100;
constexpr float text_size = 13;  ///< of its texts

/// A text by a pattern; what is wrong with it is told, and stands in the table, too.
FormattedText text_of(std::string_view format, std::string_view name, std::optional<Problem>& found) {
    const Result<Format> parsed = Format::parse(format);
    if (parsed) return FormattedText(*parsed);
    Problem fault = parsed.problems().front();
    fault.message = "probe '" + std::string(name) + "': " + fault.message;
    found = std::move(fault);
    // What is wrong with a pattern stands where its value would.
    std::string says;
    for (const char c : parsed.problems().front().message) {
        if (c == '{' || c == '}') says += c;
        says += c;
    }
    return FormattedText(*Format::parse(says));
}

/// The unit in which a length of time is read best, and a pattern for it.
std::string_view unit_of(Seconds time) {
    const double length = std::abs(time.count());
    return length < 1 ? "ms" : length < 120 ? "s" : "min";
}
const Format& format_in(std::string_view unit) {
    static const Format milliseconds = *Format::parse("{:.1f} ms"), seconds = *Format::parse("{:.2f} s"),
                        minutes = *Format::parse("{:%H:%M:%S}");
    return unit == "ms" ? milliseconds : unit == "s" ? seconds : minutes;
}

}  // namespace

std::shared_ptr<ProbeList> ProbeList::of_thread() {
    static thread_local const auto list = std::make_shared<ProbeList>();
    return list;
}

std::size_t ProbeList::add(std::string_view group, std::string_view name, std::string_view format) {
    const std::size_t index = all_.size();
    std::optional<Problem> fault;
    FormattedText text = text_of(format, name, fault);
    all_.push_back({group, name, std::move(text), {}, Seconds{0}, format != "{}", std::move(fault)});
    const auto place = std::upper_bound(ordered_.begin(), ordered_.end(), group,
                                        [this](std::string_view a, std::size_t b) { return a < all_[b].group; });
    ordered_.insert(place, index);
    return index;
}

void ProbeList::write(std::size_t index, const Value& value) {
    Watch& watch = all_[index];
    watch.value = value;
    watch.idle = Seconds{0};
    if (watch.has_own_format || value.type() != Value::Type::duration) {
        watch.text.update({.value = watch.value.get(), .max = {}, .delta = {}});
        return;
    }
    // Whole seconds, as a countdown shows them, say nothing of 1500 ms.
    const Seconds time = to_seconds(value.duration());
    const std::string_view unit = unit_of(time);
    if (std::exchange(watch.unit, unit) != unit) watch.text = FormattedText(format_in(unit));
    const Value shown = unit == "ms" ? Value(time.count() * 1000) : unit == "s" ? Value(time.count()) : value;
    watch.text.update({.value = shown, .max = {}, .delta = {}});
}

void ProbeList::begin_frame(Seconds step) {
    shown_.clear();
    for (const std::size_t index : ordered_) {
        if (all_[index].idle < longest_idle) shown_.push_back(index);
        if (step.count() > 0) all_[index].idle += step;
    }
}

void ProbeList::read_field(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into) const {
    for (std::size_t i = 0; i < into.size(); ++i) {
        if (!wanted.empty() && wanted[i] == 0) continue;
        const Watch& watch = all_[shown_[i]];
        switch (field) {
            case 0:
                into[i] = Value(std::uint64_t{shown_[i]});
                break;
            case 1:
                // A heading over the first of its group.
                into[i] = i > 0 && all_[shown_[i - 1]].group == watch.group ? Value("") : Value(watch.group);
                break;
            case 2:
                into[i] = Value(watch.name);
                break;
            default:
                into[i] = Value(watch.text.text());
                break;
        }
    }
}

Anchor freest_corner(std::span<const Rect> others, Size size, const Rect& area, Anchor present) {
    const auto covered = [&](Anchor corner) {
        const Rect box = place_in(area, size, {.anchor = corner, .offset = {4, 4}});
        float sum = 0;
        for (const Rect& other : others) {
            const float wide = std::min(box.right(), other.right()) - std::max(box.x, other.x);
            const float high = std::min(box.bottom(), other.bottom()) - std::max(box.y, other.y);
            if (wide > 0 && high > 0) sum += wide * high;
        }
        return sum;
    };
    Anchor best = present;
    for (const Anchor corner : {Anchor::top_right, Anchor::top_left, Anchor::bottom_right, Anchor::bottom_left})
        if (covered(corner) < covered(best)) best = corner;
    return best;
}

WatchSite::WatchSite(std::string_view group, std::string_view name, std::string_view format)
    : list_(ProbeList::of_thread()), index_(list_->add(group, name, format)) {}

void WatchSite::write(const Value& value) {
    list_->write(index_, value);
}

std::vector<Element> probe_table(const std::shared_ptr<ProbeList>& list, const Source& visible) {
    std::vector<Element> table{Panel{.id = "probes",
                                     .place = {.anchor = Anchor::top_right, .offset = {4, 4}},
                                     .padding = {6, 10, 6, 10},
                                     .color = rgb(0x10161c, 0.88),
                                     .radius = 4,
                                     .layer = 1000,
                                     .visible = visible}};
    const std::vector<Element> rows = list_of(
        {.id = "rows",
         .entries = Source(detail::Binding::getter(list, Value::Type::int64)),
         .key = "key",
         .at_most = most_probes,
         .place_motion = instant(),
         .gap = 1,
         .align = Align::stretch,
         .inside = "probes"},
        [](const auto& watch) {
            return nest(
                Panel{.layout = Layout::column, .align = Align::stretch, .plate = false},
                Text{.id = "group",
                     .value = watch("group"),
                     .color = rgb(0xffc24a),
                     .weight = 700,
                     .size = text_size,
                     .visible = watch("group")},
                Panel{.id = "row", .layout = Layout::row, .gap = 16, .justify = Justify::space_between, .plate = false},
                Text{.id = "name",
                     .value = watch("name"),
                     .inside = "row",
                     .color = rgb(0xf2efe6, 0.7),
                     .size = text_size},
                Text{.id = "text",
                     .value = watch("text"),
                     .inside = "row",
                     .weight = 600,
                     .size = text_size,
                     .align = TextAlign::end});
        });
    table.insert(table.end(), rows.begin(), rows.end());
    return table;
}

namespace {

/// The table of one HUD.
class RunningTable final : public ProbeTable {
 public:
    explicit RunningTable(std::shared_ptr<ProbeList> list) : list_(std::move(list)) {}
    void begin_frame(Seconds step, ProblemLog& problems) override {
        list_->begin_frame(step);
        list_->tell_faults([&](std::size_t line, const Problem& fault) {
            if (told_.insert(line).second) problems.report(fault);
        });
    }

    /// Twice a second, the corner in which it covers least; it stays where it is, if that is as good as any other.
    std::optional<Anchor> better_corner(const Parts& hud) override {
        constexpr int every = 30;
        if (frames_++ % every != 1) return std::nullopt;
        const ElementIndex table = hud.elements.at("probes");
        if (table == no_element || !hud.visibility.is_drawn(table)) return std::nullopt;
        const std::optional<Panel> panel = hud.elements[table].description.as<Panel>();
        if (!panel) return std::nullopt;
        const Rect box = hud.layouter.box(table);
        std::vector<Rect> others;
        for (ElementIndex index = 0; index < hud.elements.count(); ++index) {
            const RunningElement& element = hud.elements[index];
            const bool is_own = index == table || element.stands_in("probes");
            if (element.is_living() && !is_own && hud.visibility.is_drawn(index) &&
                hud.elements.children(index).empty())
                others.push_back(hud.seen_box(index));
        }
        const Anchor present = panel->place.hangs_on();
        const Anchor best = freest_corner(others, {box.width, box.height}, hud.layouter.screen().area, present);
        return best != present ? std::optional(best) : std::nullopt;
    }

 private:
    std::shared_ptr<ProbeList> list_;
    int frames_ = 0;              ///< since it was put into a corner
    std::set<std::size_t> told_;  ///< lines with a fault
};

}  // namespace

}  // namespace rapido::debug

namespace rapido {

void show_probes(Hud& hud, const Source& visible) {
    detail::HudAccess::State& state = detail::HudAccess::of(hud);
    if (!state.may("show_probes")) return;
    const ElementIndex shown = state.elements.at("probes");
    if (shown == no_element) {
        const std::shared_ptr<debug::ProbeList> list = debug::ProbeList::of_thread();
        state.probes = std::make_unique<debug::RunningTable>(list);
        hud.add(debug::probe_table(list, visible));
        return;
    }
    std::optional<Panel> table = state.elements[shown].description.as<Panel>();
    if (state.probes == nullptr || !table) {
        state.problems.report({{},
                               "the HUD has an element 'probes' of its own: the table of probes cannot be shown",
                               "give that element another id",
                               ProblemCode::duplicate});
        return;
    }
    table->visible = visible;
    state.change(shown, *table);
}

}  // namespace rapido
