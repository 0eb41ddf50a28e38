// Reads every source once a frame and tells which ones changed.
#pragma once

#include <cstddef>
#include <cstdint>
#include <deque>
#include <memory>
#include <string>
#include <unordered_map>
#include <vector>

#include "rapido/value/detail/binding.hpp"

namespace rapido {

/// One source of one HUD, shared by all elements that show it.
using SourceIndex = std::uint32_t;
inline constexpr SourceIndex no_source = UINT32_MAX;

/// Variables that can be compared by their bits stand in one contiguous array per width: an unchanged one
/// costs one load and one compare, and no other memory of it is touched. A `Live` value stands there with the
/// counter of its changes. A shared state costs one load while nothing was written. Callables, strings and
/// watched `Value`s are read and compared one by one.
class Scan {
 public:
    /// A bound or constant source; the same variable or getter gives the same index. Each `add` wants a
    /// `release`.
    SourceIndex add(const detail::Binding& source);
    /// A source of its own, whatever else reads the same: `rebind` may let it read something else.
    SourceIndex add_own(const detail::Binding& source);
    /// Lets a source read this from now on; without a value until it is read.
    void rebind(SourceIndex index, const detail::Binding& source);
    /// A source whose value is told by `tell`; `release` does nothing to it.
    SourceIndex add_told();
    /// Whether a source is read, and not told.
    bool reads(SourceIndex index) const { return details_[index].source.access() != detail::Binding::Access::none; }
    /// A source is told its value from now on, whatever it has read.
    void let_tell(SourceIndex index);
    /// Nobody asks for it any more; its index may be given again.
    void remove_told(SourceIndex index);
    /// One user less; without any it is no longer read, and its index may be given again.
    void release(SourceIndex index);

    /// Appends the sources that changed since the last read, new ones always; and those whose value came with
    /// a snap.
    void read(std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped);
    /// Gives a told source its value, and appends it if that is a change.
    void tell(SourceIndex index, Value value, std::vector<SourceIndex>& changed);

    /// What the last read gave; a text in it stays valid until this source changes.
    const Value& value(SourceIndex index) const { return records_[index].value; }

    /// Every index given so far is below this.
    std::size_t size() const { return records_.size(); }

 private:
    /// What a changed variable touches.
    struct Record {
        Value value;
        bool plain = false;  ///< its bits are its value: nothing to call, to keep or to adjust
    };
    template <class Bits>
    static Value decode(Bits bits, Value::Type type);
    /// What only others, and new ones, touch.
    struct Details {
        detail::Binding source;
        std::unique_ptr<std::string> text;  ///< what a text value views; null where there never was one
        std::uint32_t snaps = 0;
        std::uint32_t users = 0;
        std::uint32_t slot = UINT32_MAX;  ///< its place in the column, list or snapshot that reads it
        std::uint32_t snapshot = 0;
    };
    template <class Bits>
    struct Column {
        std::vector<const void*> addresses;
        std::vector<Bits> last;
        std::vector<SourceIndex> records;

        void add(Scan& scan, SourceIndex index, const void* address);
        void remove(Scan& scan, std::uint32_t slot);
        void read(Scan& scan, std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped);
    };
    struct Snapshot {
        std::shared_ptr<const detail::SharedState> state;
        std::vector<std::max_align_t> bytes;
        std::uint64_t version = 0;
        std::uint32_t snaps = 0;
        std::vector<SourceIndex> parts;
    };

    SourceIndex take_index();
    void bind(SourceIndex index, const detail::Binding& source);
    bool take(SourceIndex index, Value value);
    bool read_details(SourceIndex index, std::vector<SourceIndex>& snapped);
    void read_one(SourceIndex index, std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped);
    void read_snapshots(std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped);
    Value value_now(Details& details);
    void start_reading(SourceIndex index);
    void stop_reading(SourceIndex index);
    static const void* identity(const detail::Binding& source);

    std::vector<Record> records_;
    /// A record views the text in its details: those never move.
    std::deque<Details> details_;
    std::string storage_;  ///< where a getter puts a text that it returns, until it is taken
    std::vector<SourceIndex> free_;
    Column<std::uint8_t> bytes_;
    Column<std::uint16_t> halves_;
    Column<std::uint32_t> words_;
    Column<std::uint64_t> doubles_;
    std::vector<SourceIndex> others_;
    std::vector<Snapshot> snapshots_;
    std::vector<SourceIndex> fresh_;
    std::unordered_multimap<const void*, SourceIndex> known_;
};

}  // namespace rapido
