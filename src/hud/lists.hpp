// Lists in the frame: which panel shows which entry, and what is told of it.
#pragma once

#include <functional>
#include <memory>
#include <set>
#include <string>
#include <unordered_map>
#include <vector>

#include "element/markers_body.hpp"
#include "hud/bindings.hpp"
#include "hud/game_things.hpp"
#include "hud/marker_ranking.hpp"
#include "hud/moving_order.hpp"
#include "hud/readouts.hpp"
#include "hud/visibility.hpp"
#include "rapido/value/entries.hpp"

namespace rapido {

/// Owns the lists of a HUD, and the sources that it tells of their entries.
class Lists {
 public:
    Lists(Elements& elements, Bindings& bindings, Visibility& visibility, Readouts& readouts, Layouter& layouter,
          MovingOrder& order)
        : elements_(elements),
          bindings_(bindings),
          visibility_(visibility),
          readouts_(readouts),
          layouter_(layouter),
          order_(order) {}

    /// Makes lists known that will be added, so that earlier elements may name their sources.
    void announce(const std::vector<Element>& elements);
    /// Does nothing for an element that is neither a list nor markers.
    void add(ElementIndex index, const Element& description);
    void change(ElementIndex index, const Element& description);
    void remove(ElementIndex index);
    /// Makes the source of a name, if it is one of a list. False, with a problem or without, where it is not.
    bool offer(const std::string& name, Problem& problem);
    /// Elements were added or removed.
    void relink();
    /// The next entries of a list are taken as given.
    void snap(ElementIndex index);

    /// Reads the entries and tells what is shown of them.
    void tell(const View& view, Nanoseconds now);
    /// After layout: carries the panels of markers to where their things are seen.
    void place_markers(const View& view, const std::function<float(ElementIndex)>& opacity_of);
    /// The key of the entry that an element stands for, or stood for last; null where there is none.
    const KeptValue* key(ElementIndex index) const;
    /// Things whose value has come to zero or below in this frame, by the markers that say which value it is.
    struct Emptied {
        ElementIndex markers;
        KeptValue key;
    };
    std::span<const Emptied> emptied() const { return emptied_; }
    /// The things that the game gives to markers; null for what has a container, and for other elements.
    GameThings* things(ElementIndex index);

 private:
    static constexpr std::size_t no_slot = static_cast<std::size_t>(-1), of_list = no_slot, not_ranked = no_slot;

    /// One panel of a list.
    struct Slot {
        ElementIndex panel = no_element;
        std::uint64_t key = 0;          ///< of the entry that it shows, or has shown last
        std::size_t rank = not_ranked;  ///< of this entry in this frame
        bool is_taken = false;
        std::size_t entry = 0;     ///< where its entry was in the container
        bool is_followed = false;  ///< it leaves, and its entry is still there
        bool ends = false;         ///< its entry is gone, and it stays until what that has changed has been seen
        Nanoseconds ends_since{0};
        KeptValue key_value{};  ///< the key as the game says it
        bool is_gone = false;   ///< its entry was in the container no more when it began to leave
        bool is_fresh = false;  ///< it was given in this frame
        // Of markers.
        WorldPoint place{};  ///< of its thing, also when that is gone
        bool is_at_edge = false;
        bool is_covered = false;  ///< by a nearer one
        double distance = 0;      ///< of its thing
        bool is_new = false;      ///< it is not known yet how large it is
        bool waits = false;       ///< in its first frame something is in its place
    };
    struct Told {
        SourceIndex source;
        std::size_t slot;  ///< or of the list itself
        std::string name;
        std::size_t field;  ///< of the entries, if it is one
        std::string path;   ///< the name of the source
    };
    /// What things were in the frame before, where one may come to be seen only when it is gone.
    struct Memory {
        std::vector<WorldPoint> places;
        std::vector<std::vector<KeptValue>> values;  ///< by field, and by thing; empty for a field that nobody showed
        Value value(std::size_t field, std::size_t thing) const {
            const bool is_known = field < values.size() && thing < values[field].size();
            return is_known ? values[field][thing].get() : Value();
        }
    };
    struct RunningList {
        ElementIndex element = no_element;
        std::string path;
        detail::Binding binding;                      ///< keeps the reader
        const detail::EntryReader* reader = nullptr;  ///< null while nobody has the name
        std::size_t key = 0, sort = 0;                ///< fields
        bool descends = false;
        std::vector<std::string> when_gone;  ///< the names of fields
        std::size_t most = 0;
        bool snaps = true;
        std::vector<Slot> slots;
        std::vector<Told> told;  ///< by name
        // Of markers.
        std::unique_ptr<MarkerRanking> markers;        ///< null for a list
        std::unique_ptr<GameThings> things;            ///< null where there is a container
        std::size_t in_sight = 0, value = 0, max = 0;  ///< fields
        Size usual_size;                               ///< of a panel
        std::vector<MarkersBody::Arrow> arrows;
        // Of this frame, by entry.
        std::vector<KeptValue> keys, sorted_by, values;
        std::vector<KeptValue> keys_before;  ///< of the frame before, where values are compared
        std::unique_ptr<Memory> memory;      ///< null where it is not needed
        std::vector<std::uint8_t> wanted;
        // By rank.
        std::vector<std::uint32_t> ranking;  ///< entries
        std::vector<std::uint64_t> ranked_keys;
        std::vector<std::size_t> by_rank;          ///< slots
        std::vector<ElementIndex> standing, next;  ///< panels in their order
        std::vector<ElementIndex> others;          ///< what stands in it besides, before the panels
    };

    /// A marker that may cover others, as it would be seen.
    struct SeenMarker {
        RunningList* list;
        std::size_t slot;
        int layer;
        double distance;
        Rect box;
    };

    void set(RunningList& list, const Element& description);
    void set_entries(RunningList& list, const Source& entries, int most, int panels);
    static void set_when_gone(RunningList& list, const std::vector<NamedSource>& fields);
    void set(RunningList& list, const List& description);
    void set(RunningList& list, const Markers& description);
    static void put(std::vector<Told>& all, Told told);
    static std::optional<Value::Type> type_of(const RunningList& list, const Told& told);
    RunningList* find(ElementIndex index);
    void tell(RunningList& list, const View& view, Nanoseconds now);
    void bring_up_gone(RunningList& list, const View& view, Nanoseconds now);
    void tell_remembered(const RunningList& list, const Told& told, std::size_t thing, const View& view);
    void begin_from(SourceIndex source, const Value& value);
    void remember(RunningList& list, std::size_t count);
    void rank_things(RunningList& list, std::size_t count, std::size_t shown, const View& view, Nanoseconds now);
    void place_markers(RunningList& list, const View& view, const std::function<float(ElementIndex)>& opacity_of);
    void find_places(RunningList& list, const View& view);
    void declutter();
    void declutter_new(const View& view);
    template <class Cover>
    void cover_farther(Cover cover);
    void rank(RunningList& list, std::size_t count, std::size_t shown);
    void read_keys(RunningList& list, std::size_t count);
    void give_panels(RunningList& list, std::size_t shown);
    void follow_left(RunningList& list, std::size_t count, Nanoseconds now);
    void begin_from_before(RunningList& list);
    bool rests(ElementIndex panel) const;
    void tell_fields(RunningList& list, std::size_t count, std::size_t shown);
    void tell_when_gone(const RunningList& list, const Told& told);
    const Value& gone_value(const RunningList& list, std::size_t number) const;
    void arrange(RunningList& list);
    void snap_inside(ElementIndex panel);

    Elements& elements_;
    Bindings& bindings_;
    Visibility& visibility_;
    Readouts& readouts_;
    Layouter& layouter_;
    MovingOrder& order_;
    std::vector<std::unique_ptr<RunningList>> all_;
    std::set<std::string> announced_;  ///< paths
    std::vector<SeenMarker> seen_;     ///< of all markers, in this frame
    bool has_new_markers_ = false;     ///< one is there for the first time
    std::vector<Rect> covered_;        ///< by those that are shown
    /// By path, what lists have told that are gone, or are to come: one at this path tells it.
    std::unordered_map<std::string, std::vector<Told>> without_list_;
    std::vector<Emptied> emptied_;
    std::vector<std::string> gone_;  ///< the paths of those that went since the last frame
};

}  // namespace rapido
