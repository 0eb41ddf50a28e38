// Reads every source once a frame and tells which ones changed.
#pragma once

#include <cstdint>
#include <string>
#include <unordered_map>
#include <vector>

#include "rapido/value/source.hpp"

namespace rapido {

/// One source of one HUD, shared by all elements that show it.
using SourceIndex = std::uint32_t;
inline constexpr SourceIndex no_source = UINT32_MAX;

/// Variables that can be compared by their bits stand in one contiguous array per width: an unchanged one
/// costs one load and one compare. Getters, strings and watched `Value`s are read and compared one by one.
class Scan {
 public:
    /// A bound or constant source; the same variable or getter gives the same index.
    SourceIndex add(const Source& source);
    /// A source whose value is told by `tell`.
    SourceIndex add_told();

    /// Appends the sources that changed since the last read, new ones always.
    void read(std::vector<SourceIndex>& changed);
    /// Gives a told source its value, and appends it if that is a change.
    void tell(SourceIndex index, Value value, std::vector<SourceIndex>& changed);

    /// What the last read gave; a text in it stays valid until this source changes.
    const Value& value(SourceIndex index) const { return records_[index].value; }

 private:
    struct Record {
        Source source;
        Value value;
        std::string text;     ///< what a text value views
        std::string storage;  ///< where a getter puts a text that it returns
    };
    template <class Bits>
    struct Column {
        std::vector<const void*> addresses;
        std::vector<Bits> last;
        std::vector<SourceIndex> records;

        void add(SourceIndex index, const void* address);
        void read(Scan& scan, std::vector<SourceIndex>& changed);
    };

    bool take(Record& record, Value value);

    std::vector<Record> records_;
    Column<std::uint8_t> bytes_;
    Column<std::uint16_t> halves_;
    Column<std::uint32_t> words_;
    Column<std::uint64_t> doubles_;
    std::vector<SourceIndex> others_;
    std::vector<SourceIndex> fresh_;
    std::unordered_multimap<const void*, SourceIndex> known_;
};

}  // namespace rapido
