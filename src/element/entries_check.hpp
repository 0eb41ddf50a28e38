// What lists and markers check of the entries that they are given.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "base/nearest.hpp"
#include "element/body.hpp"
#include "rapido/value/entries.hpp"

namespace rapido {

/// How many panels there are for so many entries: enough for those that usually leave at once, too, and for those that have an end, which
/// stay longer.
inline int panels_for(int most, bool has_ends) {
    constexpr int few = 4, many = 32;
    const int limited = std::clamp(most, 1, 200);
    return limited + std::min(limited, has_ends ? std::clamp(limited / 2, few, many) : few);
}

/// The entries, and then what their fields are when their thing is gone.
inline std::vector<FurtherSource> sources_of_entries(const Source& entries, const std::vector<NamedSource>& when_gone) {
    std::vector<FurtherSource> sources{{"entries", entries}};
    for (const NamedSource& field : when_gone)
        sources.push_back({"when_gone." + field.name, field.value});
    return sources;
}

class EntriesCheck {
 public:
    /// Reports a source that is no container; it may be left out where it is `optional`.
    static EntriesCheck of(const Source& source, bool optional, BodyContext& context) {
        EntriesCheck check(context);
        const detail::Binding bound = context.bound(source);
        if (bound.getter() != nullptr) check.reader_ = bound.getter()->entries();
        // A name may come later.
        const bool is_waiting = bound.access() == detail::Binding::Access::none && !source.name().empty();
        if (check.reader_ == nullptr && !is_waiting && (!optional || source.is_given()))
            context.report("entries", "needs entries, and this source is one value",
                           "offer it by rapido::watch_entries");
        return check;
    }

    /// Reports a name that is none of a field; an empty one is no name.
    void check_field(const std::string& name, std::string_view field) const {
        if (name.empty() || reader_ == nullptr) return;
        std::vector<std::string_view> names;
        for (const detail::EntryReader::Field& known : reader_->fields())
            names.push_back(known.name);
        if (std::find(names.begin(), names.end(), name) == names.end())
            context_.report(field, "the entries have no field '" + name + "'", did_you_mean(name, names),
                            ProblemCode::unknown_name);
    }

    /// Reports fields that are none, and entries that nothing tells apart when one is gone.
    void check_when_gone(const std::vector<NamedSource>& fields, bool has_key) const {
        for (const NamedSource& field : fields)
            check_field(field.name, "when_gone." + field.name);
        if (!fields.empty() && !has_key)
            context_.report("when_gone", "needs 'key'", "name the field by which entries are told apart",
                            ProblemCode::missing_key);
    }

    const detail::EntryReader* reader() const { return reader_; }

 private:
    explicit EntriesCheck(BodyContext& context) : context_(context) {}
    BodyContext& context_;
    const detail::EntryReader* reader_ = nullptr;
};

}  // namespace rapido
