// What becomes of the things of one kind between two definitions: there is one rule for all kinds.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "hud/element_context.hpp"
#include "rapido/hud/definition.hpp"

namespace rapido {

/// A thing that is there from now on.
template <class T>
struct Wanted {
    const T& now;
    const T* before = nullptr;  ///< with the same id; null for one that is added
    const Locations* locations = nullptr;

    bool is_added() const { return before == nullptr; }
    /// It is added or says something else.
    bool differs() const { return before == nullptr || !(*before == now); }
};

/// Two lists of things, told apart by their ids. What both have goes on, with what it has become; it views into both lists.
template <class T>
struct Difference {
    std::vector<const T*> gone;     ///< in their order before
    std::vector<Wanted<T>> wanted;  ///< in their order now

    Difference(const std::vector<T>& before, const std::vector<T>& now, const std::vector<Locations>& origins) {
        const auto find = [](const std::vector<T>& all, const std::string& id) {
            const auto found = std::find_if(all.begin(), all.end(), [&](const T& one) { return one.id == id; });
            return found != all.end() ? &*found : nullptr;
        };
        for (const T& old : before)
            if (find(now, old.id) == nullptr) gone.push_back(&old);
        for (std::size_t i = 0; i < now.size(); ++i)
            wanted.push_back({now[i], find(before, now[i].id), locations_at(origins, i)});
    }
};

}  // namespace rapido
