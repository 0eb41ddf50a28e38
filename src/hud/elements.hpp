// The elements of a HUD: what they are, where they stand among each other, and what changed of them.
#pragma once

#include <array>
#include <set>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include "base/pages.hpp"
#include "base/problem_log.hpp"
#include "element/kinds.hpp"
#include "hud/element_index.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/hud/hud.hpp"
#include "text/number_text.hpp"
#include "value/scan.hpp"

namespace rapido RAPIDO_EXPORTED {

/// What the game has set of an element on top of its description; it stays when the description changes.
struct GameLayer {
    std::optional<Themed<Color>> color;
    std::optional<std::string> format;
    std::optional<Place> place;
};

/// How an element and all inside are drawn elsewhere than at its place: scaled around the upper left corner of its box, then moved.
struct Carried {
    Point shift{};  ///< design pixels, as they are seen
    float scale = 1;
    float opacity = 1;
    float rotation = 0;  ///< degrees clockwise around the middle of its box
    friend bool operator==(const Carried&, const Carried&) = default;
};

/// One element; without a body its place is free.
struct RunningElement {
    std::string path;
    const Kind* kind = nullptr;
    std::unique_ptr<Body> body;
    Element description;                       ///< without the layer of the game
    std::unique_ptr<GameLayer> layer_of_game;  ///< null where the game has set nothing
    std::unique_ptr<Rest> rest;                ///< null for an element as it is by itself
    std::uint32_t generation = 0;
    ElementIndex parent = no_element;
    ElementIndex rides_on = no_element;              ///< it is at the end of the fill of this one, and moves with it
    std::uint32_t order = 0;                         ///< its place in the order of parents before children
    std::uint32_t first_child = 0, child_count = 0;  ///< among the children of all
    int layer = 0;
    std::uint32_t rank = 0;  ///< among siblings of one layer, those of a higher rank are drawn later
    ClockKind clock = ClockKind::real;
    Carried carried;                ///< to where it and all inside are drawn
    bool is_carried = false;        ///< whether that is elsewhere
    bool dead = false;              ///< removed, and freed at the next update
    bool is_of_definition = false;  ///< and not added by the game

    bool is_living() const { return body != nullptr && !dead; }
    /// What moves it besides what moves itself.
    ElementIndex carried_by() const { return rides_on != no_element ? rides_on : parent; }
    /// The last part of its path.
    std::string_view id() const { return std::string_view(path).substr(path.rfind('.') + 1); }
    /// The path of its panel; empty on the screen.
    std::string_view inside() const {
        const std::size_t end = path.rfind('.');
        return end != std::string::npos ? std::string_view(path).substr(0, end) : std::string_view();
    }
    /// Whether it stands in a panel of this path, or deeper.
    bool stands_in(const std::string& panel) const {
        return path.size() > panel.size() && path[panel.size()] == '.' && path.starts_with(panel);
    }
    /// For problems: `text 'acres'`.
    std::string name() const { return std::string(kind->name()) + " '" + path + "'"; }
};

/// What a frame touches of an element that shows one number and does not move: most of them, and most of the
/// time. It lies in one cache line.
struct alignas(64) HotElement {
    NumberText number;  ///< holds the characters of a text where only one number of it changes
    std::uint32_t revision = 1;
    std::uint32_t changed_in = 0;  ///< the number of the frame
    SourceIndex value = no_source;
    bool text_changed : 1 = false;  ///< in the frame of the last change
    bool queued : 1 = false;
    bool snaps : 1 = false;      ///< takes the next value as given
    bool must_show : 1 = false;  ///< something besides its value differs
    bool is_direct : 1 = false;  ///< while `number` holds its text, a new value may be written there alone
    bool is_still : 1 = false;   ///< the value does not travel
    bool is_simple : 1 = false;  ///< it does not travel, and nothing happens but that it is empty or full
    bool has_max : 1 = false;
    // Written in every frame: a byte of its own.
    bool was_positive = false;

    void mark_changed(std::uint32_t frame, bool text) {
        text_changed = text || (text_changed && changed_in == frame);
        changed_in = frame;
        ++revision;
    }
};
static_assert(sizeof(HotElement) == 64);

/// Owns the elements: names, panels, places that are used again, and marks of change.
class Elements {
 public:
    explicit Elements(const ProblemLog& problems);

    // Names

    /// Makes the names of elements known that will be added in this order, so that earlier ones may refer to them.
    void announce(const std::vector<Element>& elements);
    /// Returns the element with this path, or no element.
    ElementIndex at(std::string_view path) const;
    /// Returns the element with this path, or the only one with this id; no element, with a problem, for none.
    ElementIndex find(std::string_view name, Problem& problem) const;
    bool is_panel(const std::string& path) const { return panels_.contains(path); }
    /// Returns the path of the panel with this path, or of the only one whose path ends with it; otherwise what was given.
    std::string panel(const std::string& name) const { return whole(panels_, name); }
    /// Whether this is the path of an element that counts, perhaps of one that is only announced.
    bool counts(const std::string& path) const { return counters_.contains(path); }
    /// The path of the one that counts whose path ends so; the name itself for none, and for several.
    std::string counter(const std::string& name) const { return whole(counters_, name); }
    /// All of them, for a hint; none where problems are not told any more.
    std::vector<std::string_view> counters() const {
        return problems_.is_full() ? std::vector<std::string_view>()
                                   : std::vector<std::string_view>(counters_.begin(), counters_.end());
    }
    /// Returns why an element of this id cannot stand in a panel of this path.
    Problem missing_panel(const std::string& panel, const std::string& id) const;

    /// It and all that stands inside are drawn elsewhere: they have changed in the next frame.
    void mark_inside_moved(ElementIndex index);

    // Elements come and go

    /// Returns the place that the next `add` gives.
    ElementIndex add(RunningElement element);
    ElementRef ref(ElementIndex index) const { return {index, all_[index].generation, hud_}; }
    /// Returns the index of an element that this reference means and that was not removed, or no element.
    ElementIndex living(ElementRef ref) const;
    /// Removes an element and all that stands inside. Returns them; valid until the next call.
    std::span<const ElementIndex> kill(ElementIndex index);
    /// Returns those removed since the last `free`.
    std::span<const ElementIndex> removed() const { return removed_; }
    void free_removed();
    /// An element has another body, and perhaps another layer.
    void replace_body(ElementIndex index, std::unique_ptr<Body> body, int layer);

    RunningElement& operator[](ElementIndex index) { return all_[index]; }
    const RunningElement& operator[](ElementIndex index) const { return all_[index]; }
    ElementIndex count() const { return static_cast<ElementIndex>(all_.size()); }

    // Order

    /// Returns those that live, in the order in which they were added, or in that of the last `rank`.
    std::vector<ElementIndex> by_rank() const;
    /// Lets elements stand in this order among their siblings, and all others behind them.
    void rank(std::span<const ElementIndex> order);
    /// Sets parents and orders anew, if elements have come or gone. Returns whether that was so.
    bool link();
    /// Lets what stands in a panel stand in this order, until the next `link`; those that are left out, behind.
    void order_children(ElementIndex panel, std::span<const ElementIndex> order);
    /// A number that differs for each HUD and each set of its elements.
    std::uint64_t structure() const { return (std::uint64_t{hud_} << 32) | structure_; }
    std::span<const ElementIndex> parents_first() const { return parents_first_; }
    std::span<const ElementIndex> draw_order() const { return draw_order_; }
    std::span<const ElementIndex> children(ElementIndex panel) const {
        return std::span(children_).subspan(all_[panel].first_child, all_[panel].child_count);
    }

    // Change

    HotElement& hot(ElementIndex index) { return hot_[index]; }
    const HotElement& hot(ElementIndex index) const { return hot_[index]; }
    void begin_frame() {
        ++frame_;
        for (const ElementIndex index : changed_next_)
            mark_changed(index);
        changed_next_.clear();
    }
    std::uint32_t frame() const { return frame_; }
    void mark_changed(ElementIndex index, bool text = false) { hot_[index].mark_changed(frame_, text); }
    /// It and all inside are drawn there from now on.
    void carry(ElementIndex index, const Carried& carried);
    /// One is at the end of the fill of another, or of none, and moves with it.
    void ride(ElementIndex index, ElementIndex fill);
    /// It and all that stands inside look otherwise.
    void mark_inside_changed(ElementIndex index);
    /// It must be drawn anew, though nothing of it is other than before.
    void mark_moved(ElementIndex index) { ++hot_[index].revision; }
    bool changed(ElementIndex index) const { return hot_[index].changed_in == frame_; }
    bool text_changed(ElementIndex index) const { return changed(index) && hot_[index].text_changed; }

 private:
    using Paths = std::set<std::string, std::less<>>;
    static std::string whole(const Paths& paths, const std::string& name);
    template <class Wanted>
    std::vector<ElementIndex> ranked(const Wanted& wanted) const;
    ElementIndex parent_of(const RunningElement& element) const;
    void gather(ElementIndex index);
    /// Whether an announced panel of this id stands around another, or is it, as far as ids tell.
    bool stands_around(const std::string& id, const std::string& panel) const;

    const ProblemLog& problems_;
    std::uint32_t hud_;
    Pages<RunningElement> all_;
    Pages<HotElement, 256> hot_;
    // By names that stand in `all_`, which does not move.
    std::unordered_map<std::string_view, ElementIndex> paths_;
    std::unordered_multimap<std::string_view, ElementIndex> ids_;
    Paths counters_;
    Paths panels_;                                                ///< paths
    std::unordered_map<std::string, std::string> panel_parents_;  ///< `inside` by id, to find circles
    std::vector<ElementIndex> free_, removed_;
    std::size_t first_killed_ = 0;  ///< by the last `kill`, in `removed_`
    std::vector<ElementIndex> parents_first_, draw_order_, children_;
    std::uint32_t structure_ = 0;
    std::uint32_t next_rank_ = 0;
    bool structure_dirty_ = true;
    std::uint32_t frame_ = 1;
    std::vector<ElementIndex> changed_next_;
};

/// Where an element stands among the others.
std::string path_of(std::string_view inside, std::string_view id);

}  // namespace rapido
