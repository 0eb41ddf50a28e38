// What is visible, and how opaque it is: sources, groups, panels, bands.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <unordered_map>
#include <vector>

#include "hud/bindings.hpp"
#include "hud/layouter.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/look/effect.hpp"

namespace rapido RAPIDO_EXPORTED {

struct RunningGroup {
    std::string id;
    const Effect* enter = nullptr;  ///< of its elements that have none of their own
    const Effect* leave = nullptr;
    SourceIndex visible = no_source;
    SourceIndex dimmed = no_source;
    float dim = 1;
    bool game_shows = true;
    float game_opacity = 1;

    bool has_effects() const { return enter != nullptr || leave != nullptr; }
};

/// An element became visible or hidden by itself, not by the panels around it.
struct VisibilityChange {
    ElementIndex index = no_element;
    bool enters = false;
    bool by_group = false;
    Nanoseconds at{0};  ///< on the real clock
};

/// Decides once in each frame which elements are shown, from the panels inwards, if anything that it depends on differs.
class Visibility {
 public:
    Visibility(Elements& elements, const Bindings& bindings, Layouter& layouter)
        : elements_(elements), bindings_(bindings), layouter_(layouter) {}

    /// What shows an element besides the panels around it.
    struct Conditions {
        SourceIndex visible = no_source;
        GroupIndex group = no_group;
        float opacity = 1;
        bool hides_without_value = false;
        bool has_effects = false;  ///< it enters or leaves by an effect of its own
        bool speaks = false;       ///< it is shown only while it has something to say, which `set_speaking` decides
    };

    void add(ElementIndex index, const Conditions& conditions);
    void remove(ElementIndex index);
    /// Other conditions count from now on.
    void change(ElementIndex index, const Conditions& conditions) {
        seen_[index].conditions = conditions;
        dirty_ = true;
    }
    /// Its own opacity, of the description.
    void set_opacity(ElementIndex index, float opacity) {
        if (seen_[index].conditions.opacity != opacity) dirty_ = true;
        seen_[index].conditions.opacity = opacity;
    }
    /// The game shows or hides an element, and makes it less opaque, besides all else.
    void set_by_game(ElementIndex index, std::optional<bool> visible, std::optional<float> opacity);
    /// The same for all of them.
    void set_all_by_game(std::optional<bool> visible, std::optional<float> opacity);
    const Conditions& conditions(ElementIndex index) const { return seen_[index].conditions; }

    void add(RunningGroup group);
    /// Returns the group of an id, or no group.
    GroupIndex find(const std::string& id) const;
    RunningGroup& group(GroupIndex index) { return groups_[index]; }
    /// Elements of it are shown whatever it says, and nothing has this id any more.
    void retire(GroupIndex index);
    std::span<RunningGroup> groups() { return groups_; }
    std::vector<std::string_view> group_names() const;

    /// Something that visibility depends on differs.
    void touch() { dirty_ = true; }
    /// A band says whether an element is visible, instead of its source; nothing where none does. The colors and the opacity of it and
    /// of what stands inside are multiplied by a filter.
    void set_by_band(ElementIndex index, std::optional<bool> visible, Color filter);

    /// A panel of a list shows an entry, or nothing.
    void set_by_list(ElementIndex index, bool is_taken);

    /// Whether some elements ride on fills, and are shown with them: each is decided after its panel and its fill. To be said again when
    /// that differs.
    void set_riders(bool any);

    /// Decides. Of one that speaks it decides only whether it may be shown. One that has an effect goes on being drawn when it is
    /// hidden, until `end_leave`.
    void decide();
    /// Those that became visible or hidden since the last call of `forget_changes`.
    std::span<const VisibilityChange> changes() const { return changes_; }
    void forget_changes() { changes_.clear(); }
    /// The effect with which it leaves has ended, or there is none.
    void end_leave(ElementIndex index);
    bool may_speak(ElementIndex index) const { return seen_[index].may_speak; }
    void set_speaking(ElementIndex index, bool speaks);

    /// It and all panels around it are visible.
    bool is_shown(ElementIndex index) const { return seen_[index].shown; }
    /// It is shown, or on its way out.
    bool is_drawn(ElementIndex index) const { return seen_[index].drawn; }
    float opacity(ElementIndex index) const { return seen_[index].opacity; }
    /// What the colors of an element are multiplied by; opaque.
    Color filter(ElementIndex index) const { return seen_[index].filter; }
    /// Why an element is hidden, or dimmed, as a sentence without a subject.
    std::string reason(ElementIndex index) const;

 private:
    struct Seen {
        Conditions conditions;
        std::optional<bool> by_band;
        Color filter_of_band = rgb(0xffffff);
        Color filter = rgb(0xffffff);  ///< of all around it, too
        float game_opacity = 1;
        bool game_shows = true;
        bool has_entry = true;  ///< false for a panel of a list that shows nothing
        bool shown = false;
        bool drawn = false;
        bool wanted = false;  ///< by its own conditions, whatever the panels around it are
        bool group_shown = false;
        bool known = false;  ///< it was decided before
        bool leaves = false;
        bool may_speak = false;
        float opacity = 1;
    };
    bool is_true(SourceIndex source) const { return source == no_source || bindings_.is_true(source); }
    void decide(ElementIndex index);
    void decide_change(ElementIndex index, bool wanted, bool group_shown);
    void set_shown(ElementIndex index, bool shown, bool drawn);

    Elements& elements_;
    const Bindings& bindings_;
    Layouter& layouter_;
    Pages<Seen> seen_;  ///< by element
    std::vector<RunningGroup> groups_;
    std::unordered_map<std::string, GroupIndex> group_indices_;  ///< by id
    std::vector<VisibilityChange> changes_;
    bool game_shows_ = true;
    float game_opacity_ = 1;
    bool dirty_ = true;
    std::vector<ElementIndex> order_;  ///< empty for that of parents
    bool begun_ = false;               ///< a frame was decided before
};

}  // namespace rapido
