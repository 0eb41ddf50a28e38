// The table of probes: what lines of code of one thread have written.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "rapido/debug.hpp"
#include "rapido/element.hpp"
#include "rapido/text/formatted_text.hpp"

namespace rapido::debug {

/// What the probes of one thread have written, in the order of their groups.
class ProbeList final : public detail::EntryReader {
 public:
    /// The list of this thread.
    static std::shared_ptr<ProbeList> of_thread();

    std::size_t add(std::string_view group, std::string_view name, std::string_view format);
    void write(std::size_t index, const Value& value);
    /// A HUD that shows the list begins a frame, so much after the one before.
    void begin_frame(Seconds step);
    /// Gives the number and the fault of each line that is shown and has a wrong pattern.
    template <class Tell>
    void tell_faults(Tell tell) const {
        for (const std::size_t index : shown_)
            if (all_[index].fault) tell(index, *all_[index].fault);
    }

    // As a container: those that were written lately.

    const std::vector<Field>& fields() const override { return fields_; }
    std::size_t count() const override { return shown_.size(); }
    void read_field(std::size_t field, std::span<const std::uint8_t> wanted, std::span<KeptValue> into) const override;
    void read_numbers(std::size_t, std::span<double>) const override {}
    bool read_positions(std::span<WorldPoint>) const override { return false; }

 private:
    struct Watch {
        std::string_view group, name;
        FormattedText text;
        KeptValue value;
        Seconds idle{0};
        bool has_own_format = true;  ///< another one than the usual one
        std::optional<Problem> fault{};
        std::string_view unit{};  ///< in which a time is shown where nothing else is said
    };
    std::vector<Field> fields_{{"key", Value::Type::uint64},
                               {"group", Value::Type::text},
                               {"name", Value::Type::text},
                               {"text", Value::Type::text}};
    std::vector<Watch> all_;
    std::vector<std::size_t> ordered_, shown_;  ///< in `all_`
};

/// The corner of an area in which a box covers least of others; `present`, if it is as good as any.
Anchor freest_corner(std::span<const Rect> others, Size box, const Rect& area, Anchor present);

/// The list that shows probes, with its panels. Its id is `probes`.
std::vector<Element> probe_table(const std::shared_ptr<ProbeList>& list, const Source& visible);

}  // namespace rapido::debug
