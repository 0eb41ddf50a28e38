// Lists in the frame: which panel shows which entry, and what is told of it.
#pragma once

#include <memory>
#include <set>
#include <string>
#include <unordered_map>
#include <vector>

#include "hud/bindings.hpp"
#include "hud/moving_order.hpp"
#include "hud/readouts.hpp"
#include "hud/visibility.hpp"
#include "rapido/value/entries.hpp"

namespace rapido {

/// Owns the lists of a HUD, and the sources that it tells of their entries.
class Lists {
 public:
    Lists(Elements& elements, Bindings& bindings, Visibility& visibility, Readouts& readouts,
          MovingOrder& order)
        : elements_(elements),
          bindings_(bindings),
          visibility_(visibility),
          readouts_(readouts),
          order_(order) {}

    /// Makes lists known that will be added, so that earlier elements may name their sources.
    void announce(const std::vector<Element>& elements);
    void add(ElementIndex index, const List& list);
    void change(ElementIndex index, const List& list);
    void remove(ElementIndex index);
    /// Makes the source of a name, if it is one of a list. False, with a problem or without, where it is not.
    bool offer(const std::string& name, Problem& problem);
    /// Elements were added or removed.
    void relink();
    /// The next entries of a list are taken as given.
    void snap(ElementIndex index);

    /// Reads the entries and tells what is shown of them.
    void tell();

 private:
    static constexpr std::size_t no_slot = static_cast<std::size_t>(-1), of_list = no_slot,
                                 not_ranked = no_slot;

    /// One panel of a list.
    struct Slot {
        ElementIndex panel = no_element;
        std::uint64_t key = 0;          ///< of the entry that it shows, or has shown last
        std::size_t rank = not_ranked;  ///< of this entry in this frame
        bool is_taken = false;
    };
    struct Told {
        SourceIndex source;
        std::size_t slot;  ///< or of the list itself
        std::string name;
        std::size_t field;  ///< of the entries, if it is one
        std::string path;   ///< the name of the source
    };
    struct RunningList {
        ElementIndex element = no_element;
        std::string path;
        detail::Binding binding;                      ///< keeps the reader
        const detail::EntryReader* reader = nullptr;  ///< null while nobody has the name
        std::size_t key = 0, sort = 0;                ///< fields
        bool descends = false;
        std::size_t most = 0;
        bool snaps = true;
        std::vector<Slot> slots;
        std::vector<Told> told;  ///< by name
        // Of this frame, by entry.
        std::vector<KeptValue> keys, sorted_by, values;
        std::vector<std::uint8_t> wanted;
        // By rank.
        std::vector<std::uint32_t> ranking;  ///< entries
        std::vector<std::uint64_t> ranked_keys;
        std::vector<std::size_t> by_rank;          ///< slots
        std::vector<ElementIndex> standing, next;  ///< panels in their order
        std::vector<ElementIndex> others;          ///< what stands in it besides, before the panels
    };

    void set(RunningList& list, const List& description);
    static void put(std::vector<Told>& all, Told told);
    static std::optional<Value::Type> type_of(const RunningList& list, const Told& told);
    RunningList* find(ElementIndex index);
    void tell(RunningList& list);
    void rank(RunningList& list, std::size_t count, std::size_t shown);
    void give_panels(RunningList& list, std::size_t shown);
    void tell_fields(RunningList& list, std::size_t count, std::size_t shown);
    void arrange(RunningList& list);
    void snap_inside(ElementIndex panel);

    Elements& elements_;
    Bindings& bindings_;
    Visibility& visibility_;
    Readouts& readouts_;
    MovingOrder& order_;
    std::vector<std::unique_ptr<RunningList>> all_;
    std::set<std::string> announced_;  ///< paths
    /// By path, what lists have told that are gone, or are to come: one at this path tells it.
    std::unordered_map<std::string, std::vector<Told>> without_list_;
    std::vector<std::string> gone_;  ///< the paths of those that went since the last frame
};

}  // namespace rapido
