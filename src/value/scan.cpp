#include "value/scan.hpp"

#include <algorithm>
#include <cstring>

namespace rapido {

template <class Bits>
void Scan::Column<Bits>::add(Scan& scan, SourceIndex index, const void* address) {
    Bits bits;
    std::memcpy(&bits, address, sizeof bits);
    scan.records_[index].slot = static_cast<std::uint32_t>(addresses.size());
    addresses.push_back(address);
    last.push_back(bits);
    records.push_back(index);
}

template <class Bits>
void Scan::Column<Bits>::remove(Scan& scan, std::uint32_t slot) {
    addresses[slot] = addresses.back();
    last[slot] = last.back();
    records[slot] = records.back();
    scan.records_[records[slot]].slot = slot;
    addresses.pop_back();
    last.pop_back();
    records.pop_back();
}

template <class Bits>
void Scan::Column<Bits>::read(Scan& scan, std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped) {
    const std::size_t count = addresses.size();
    const void* const* const address = addresses.data();
    Bits* const known = last.data();
    for (std::size_t i = 0; i < count; ++i) {
        Bits bits;
        std::memcpy(&bits, address[i], sizeof bits);
        if (bits == known[i]) [[likely]]
            continue;
        known[i] = bits;
        scan.read_one(records[i], changed, snapped);
    }
}

const void* Scan::identity(const Source& source) {
    if (source.access() == Source::Access::variable) return source.scan_address();
    if (source.access() == Source::Access::shared) return source.shared_state().get();
    return source.getter();
}

SourceIndex Scan::add(const Source& source) {
    const void* const same = identity(source);
    if (same != nullptr) {
        const auto [begin, end] = known_.equal_range(same);
        for (auto at = begin; at != end; ++at) {
            if (!(records_[at->second].source == source)) continue;
            ++records_[at->second].users;
            return at->second;
        }
    }
    SourceIndex index = static_cast<SourceIndex>(records_.size());
    if (free_.empty()) {
        records_.emplace_back();
    } else {
        index = free_.back();
        free_.pop_back();
        records_[index] = Record{};
    }
    records_[index].source = source;
    records_[index].users = 1;
    fresh_.push_back(index);
    if (same != nullptr) known_.emplace(same, index);
    start_reading(index);
    return index;
}

SourceIndex Scan::add_told() {
    records_.emplace_back().users = 1;
    return static_cast<SourceIndex>(records_.size() - 1);
}

void Scan::start_reading(SourceIndex index) {
    Record& record = records_[index];
    const Source& source = record.source;
    switch (source.scan_width()) {
        case 1:
            return bytes_.add(*this, index, source.scan_address());
        case 2:
            return halves_.add(*this, index, source.scan_address());
        case 4:
            return words_.add(*this, index, source.scan_address());
        case 8:
            return doubles_.add(*this, index, source.scan_address());
        default:
            break;
    }
    if (source.access() != Source::Access::shared) return;  // the others begin with their first read
    auto found = std::find_if(snapshots_.begin(), snapshots_.end(),
                              [&](const Snapshot& snapshot) { return snapshot.state == source.shared_state(); });
    if (found == snapshots_.end()) {
        Snapshot& made = snapshots_.emplace_back();
        made.state = source.shared_state();
        made.bytes.resize(made.state->size() / sizeof(std::max_align_t) + 1);
        found = snapshots_.end() - 1;
    }
    record.snapshot = static_cast<std::uint32_t>(found - snapshots_.begin());
    found->parts.push_back(index);
}

void Scan::stop_reading(SourceIndex index) {
    Record& record = records_[index];
    switch (record.source.scan_width()) {
        case 1:
            return bytes_.remove(*this, record.slot);
        case 2:
            return halves_.remove(*this, record.slot);
        case 4:
            return words_.remove(*this, record.slot);
        case 8:
            return doubles_.remove(*this, record.slot);
        default:
            break;
    }
    if (record.source.access() == Source::Access::shared)
        std::erase(snapshots_[record.snapshot].parts, index);
    else
        std::erase(others_, index);
}

void Scan::release(SourceIndex index) {
    Record& record = records_[index];
    if (!record.source || --record.users > 0) return;
    stop_reading(index);
    std::erase(fresh_, index);
    const auto [begin, end] = known_.equal_range(identity(record.source));
    for (auto at = begin; at != end; ++at) {
        if (at->second != index) continue;
        known_.erase(at);
        break;
    }
    record = Record{};
    free_.push_back(index);
}

bool Scan::take(Record& record, Value value) {
    if (value == record.value) return false;
    if (value.type() == Value::Type::text) {
        record.text = value.text();
        value = Value(std::string_view(record.text));
    }
    record.value = value;
    return true;
}

Value Scan::value_now(Record& record) {
    if (record.source.access() != Source::Access::shared) return record.source.read(record.storage);
    const Snapshot& snapshot = snapshots_[record.snapshot];
    return snapshot.version == 0 ? Value() : record.source.read_snapshot(snapshot.bytes.data(), record.storage);
}

void Scan::read_one(SourceIndex index, std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped) {
    Record& record = records_[index];
    if (record.source.getter() != nullptr && record.source.getter()->snaps() != record.snaps) {
        record.snaps = record.source.getter()->snaps();
        snapped.push_back(index);
    }
    // The bits may differ where the value does not: an inverted condition on 1 and 2, a live value set to itself.
    if (take(record, value_now(record))) changed.push_back(index);
}

void Scan::read_snapshots(std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped) {
    for (Snapshot& snapshot : snapshots_) {
        const std::uint32_t snaps = snapshot.snaps;
        if (!snapshot.state->take(snapshot.bytes.data(), snapshot.version, snapshot.snaps)) continue;
        for (const SourceIndex part : snapshot.parts)
            read_one(part, changed, snapped);
        if (snapshot.snaps != snaps) snapped.insert(snapped.end(), snapshot.parts.begin(), snapshot.parts.end());
    }
}

void Scan::read(std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped) {
    bytes_.read(*this, changed, snapped);
    halves_.read(*this, changed, snapped);
    words_.read(*this, changed, snapped);
    doubles_.read(*this, changed, snapped);
    read_snapshots(changed, snapped);
    for (const SourceIndex index : others_)
        read_one(index, changed, snapped);
    for (const SourceIndex index : fresh_) {
        Record& record = records_[index];
        const bool read_already = record.value.has_value();
        if (!read_already) take(record, value_now(record));
        if (record.source.getter() != nullptr) record.snaps = record.source.getter()->snaps();
        changed.push_back(index);
        const bool one_by_one = record.source.scan_width() == 0 && record.source.access() != Source::Access::constant &&
                                record.source.access() != Source::Access::shared;
        if (one_by_one) others_.push_back(index);
    }
    fresh_.clear();
}

void Scan::tell(SourceIndex index, Value value, std::vector<SourceIndex>& changed) {
    if (take(records_[index], value)) changed.push_back(index);
}

}  // namespace rapido
