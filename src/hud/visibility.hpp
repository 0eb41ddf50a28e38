// What is visible, and how opaque it is: sources, groups, panels, bands.
#pragma once

#include <optional>
#include <string>
#include <unordered_map>
#include <vector>

#include "hud/bindings.hpp"
#include "hud/layouter.hpp"

namespace rapido {

struct RunningGroup {
    std::string id;
    SourceIndex visible = no_source;
    SourceIndex dimmed = no_source;
    float dim = 1;
    bool game_shows = true;
    float game_opacity = 1;
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
        bool hides_without_value = false;
        bool speaks =
            false;  ///< it is shown only while it has something to say, which `set_speaking` decides
    };

    void add(ElementIndex index, const Conditions& conditions);
    void remove(ElementIndex index);
    const Conditions& conditions(ElementIndex index) const { return seen_[index].conditions; }

    void add(RunningGroup group);
    /// Returns the group of an id, or no group.
    GroupIndex find(const std::string& id) const;
    RunningGroup& group(GroupIndex index) { return groups_[index]; }
    std::vector<std::string_view> group_names() const;

    /// Something that visibility depends on differs.
    void touch() { dirty_ = true; }
    /// A band says whether an element is visible, instead of its source; nothing where none does.
    void set_by_band(ElementIndex index, std::optional<bool> visible);

    /// Decides. Of one that speaks it decides only whether it may be shown.
    void decide();
    bool may_speak(ElementIndex index) const { return seen_[index].may_speak; }
    void set_speaking(ElementIndex index, bool speaks);

    /// It and all panels around it are visible.
    bool is_shown(ElementIndex index) const { return seen_[index].shown; }
    float opacity(ElementIndex index) const { return seen_[index].opacity; }

 private:
    struct Seen {
        Conditions conditions;
        std::optional<bool> by_band;
        bool shown = false;
        bool may_speak = false;
        float opacity = 1;
    };
    bool is_true(SourceIndex source) const { return source == no_source || bindings_.is_true(source); }
    void decide(ElementIndex index);
    void set_shown(ElementIndex index, bool shown);

    Elements& elements_;
    const Bindings& bindings_;
    Layouter& layouter_;
    std::vector<Seen> seen_;  ///< by element
    std::vector<RunningGroup> groups_;
    std::unordered_map<std::string, GroupIndex> group_indices_;  ///< by id
    bool dirty_ = true;
};

}  // namespace rapido
