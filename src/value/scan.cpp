#include "value/scan.hpp"

#include <algorithm>
#include <bit>
#include <cstring>
#include <type_traits>

namespace rapido {

/// The value that the bits of a number of this type are.
template <class Bits>
Value Scan::decode(Bits bits, Value::Type type) {
    if (type == Value::Type::int64) return Value(static_cast<std::make_signed_t<Bits>>(bits));
    if constexpr (sizeof(Bits) == sizeof(float))
        if (type == Value::Type::float32) return Value(std::bit_cast<float>(bits));
    if constexpr (sizeof(Bits) == sizeof(double))
        if (type == Value::Type::float64) return Value(std::bit_cast<double>(bits));
    return Value(bits);
}

template <class Bits>
void Scan::Column<Bits>::add(Scan& scan, SourceIndex index, const void* address) {
    Bits bits;
    std::memcpy(&bits, address, sizeof bits);
    scan.details_[index].slot = static_cast<std::uint32_t>(addresses.size());
    addresses.push_back(address);
    last.push_back(bits);
    records.push_back(index);
}

template <class Bits>
void Scan::Column<Bits>::remove(Scan& scan, std::uint32_t slot) {
    addresses[slot] = addresses.back();
    last[slot] = last.back();
    records[slot] = records.back();
    scan.details_[records[slot]].slot = slot;
    addresses.pop_back();
    last.pop_back();
    records.pop_back();
}

template <class Bits>
void Scan::Column<Bits>::read(Scan& scan, std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped) {
    const std::size_t count = addresses.size();
    // Room for all of them at once, so that the loop does not ask for each.
    const std::size_t before = changed.size();
    changed.resize(before + count);
    SourceIndex* next = changed.data() + before;
    const void* const* const address = addresses.data();
    Bits* const known = last.data();
    for (std::size_t i = 0; i < count; ++i) {
        Bits bits;
        std::memcpy(&bits, address[i], sizeof bits);
        if (bits == known[i]) [[likely]]
            continue;
        known[i] = bits;
        const SourceIndex index = records[i];
        Record& record = scan.records_[index];
        if (!record.plain || !record.value.has_value()) [[unlikely]] {
            if (scan.read_details(index, snapped)) *next++ = index;
            continue;
        }
        record.value = decode(bits, record.value.type());
        *next++ = index;
    }
    changed.resize(static_cast<std::size_t>(next - changed.data()));
}

const void* Scan::identity(const detail::Binding& source) {
    if (source.access() == detail::Binding::Access::variable) return source.scan_address();
    if (source.access() == detail::Binding::Access::shared) return source.shared_state().get();
    return source.getter();
}

SourceIndex Scan::add(const detail::Binding& source) {
    const void* const same = identity(source);
    if (same != nullptr) {
        const auto [begin, end] = known_.equal_range(same);
        for (auto at = begin; at != end; ++at) {
            if (!(details_[at->second].source == source)) continue;
            ++details_[at->second].users;
            return at->second;
        }
    }
    const SourceIndex index = add_own(source);
    if (same != nullptr) known_.emplace(same, index);
    return index;
}

SourceIndex Scan::add_own(const detail::Binding& source) {
    const SourceIndex index = take_index();
    details_[index].users = 1;
    bind(index, source);
    return index;
}

void Scan::rebind(SourceIndex index, const detail::Binding& source) {
    let_tell(index);
    bind(index, source);
}

void Scan::bind(SourceIndex index, const detail::Binding& source) {
    details_[index].source = source;
    // The first read gives the value its type; from then on new bits are enough for these.
    const std::optional<Value::Type> type = source.type();
    const bool plain = source.access() == detail::Binding::Access::variable && !source.is_adjusted() &&
                       (type == Value::Type::int64 || type == Value::Type::uint64 || type == Value::Type::float32 ||
                        (type == Value::Type::float64 && source.scan_width() == sizeof(double)));
    records_[index] = {.value = {}, .plain = plain};
    fresh_.push_back(index);
    start_reading(index);
}

SourceIndex Scan::take_index() {
    if (free_.empty()) {
        records_.emplace_back();
        details_.emplace_back();
        return static_cast<SourceIndex>(records_.size() - 1);
    }
    const SourceIndex index = free_.back();
    free_.pop_back();
    return index;
}

SourceIndex Scan::add_told() {
    const SourceIndex index = take_index();
    details_[index].users = 1;
    return index;
}

void Scan::let_tell(SourceIndex index) {
    if (!reads(index)) return;
    stop_reading(index);
    std::erase(fresh_, index);
    // Its value stays until it is told another one.
    details_[index].source = {};
    details_[index].snaps = 0;
    details_[index].slot = UINT32_MAX;
    records_[index].plain = false;
}

void Scan::remove_told(SourceIndex index) {
    details_[index] = Details{};
    records_[index] = Record{};
    free_.push_back(index);
}

void Scan::start_reading(SourceIndex index) {
    Details& details = details_[index];
    const detail::Binding& source = details.source;
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
    if (source.access() != detail::Binding::Access::shared) return;  // the others begin with their first read
    auto found = std::find_if(snapshots_.begin(), snapshots_.end(),
                              [&](const Snapshot& snapshot) { return snapshot.state == source.shared_state(); });
    if (found == snapshots_.end()) {
        Snapshot& made = snapshots_.emplace_back();
        made.state = source.shared_state();
        made.bytes.resize(made.state->size() / sizeof(std::max_align_t) + 1);
        found = snapshots_.end() - 1;
    }
    details.snapshot = static_cast<std::uint32_t>(found - snapshots_.begin());
    found->parts.push_back(index);
}

void Scan::stop_reading(SourceIndex index) {
    const Details& details = details_[index];
    switch (details.source.scan_width()) {
        case 1:
            return bytes_.remove(*this, details.slot);
        case 2:
            return halves_.remove(*this, details.slot);
        case 4:
            return words_.remove(*this, details.slot);
        case 8:
            return doubles_.remove(*this, details.slot);
        default:
            break;
    }
    if (details.source.access() == detail::Binding::Access::shared)
        std::erase(snapshots_[details.snapshot].parts, index);
    else
        std::erase(others_, index);
}

void Scan::release(SourceIndex index) {
    Details& details = details_[index];
    if (details.source.access() == detail::Binding::Access::none || --details.users > 0) return;
    stop_reading(index);
    std::erase(fresh_, index);
    const auto [begin, end] = known_.equal_range(identity(details.source));
    for (auto at = begin; at != end; ++at) {
        if (at->second != index) continue;
        known_.erase(at);
        break;
    }
    details = Details{};
    records_[index] = Record{};
    free_.push_back(index);
}

bool Scan::take(SourceIndex index, Value value) {
    Record& record = records_[index];
    if (value == record.value) return false;
    if (value.type() == Value::Type::text) {
        std::unique_ptr<std::string>& text = details_[index].text;
        if (text == nullptr) text = std::make_unique<std::string>();
        *text = value.text();
        value = Value(std::string_view(*text));
    }
    record.value = value;
    return true;
}

Value Scan::value_now(Details& details) {
    if (details.source.access() != detail::Binding::Access::shared) return details.source.read(storage_);
    const Snapshot& snapshot = snapshots_[details.snapshot];
    return snapshot.version == 0 ? Value() : details.source.read_snapshot(snapshot.bytes.data(), storage_);
}

void Scan::read_one(SourceIndex index, std::vector<SourceIndex>& changed, std::vector<SourceIndex>& snapped) {
    if (read_details(index, snapped)) changed.push_back(index);
}

bool Scan::read_details(SourceIndex index, std::vector<SourceIndex>& snapped) {
    Details& details = details_[index];
    if (details.source.getter() != nullptr && details.source.getter()->snaps() != details.snaps) {
        details.snaps = details.source.getter()->snaps();
        snapped.push_back(index);
    }
    // The bits may differ where the value does not: an inverted condition on 1 and 2, a live value set to
    // itself.
    return take(index, value_now(details));
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
        Details& details = details_[index];
        // What changed between its making and now was read above already.
        if (!records_[index].value.has_value()) take(index, value_now(details));
        if (details.source.getter() != nullptr) details.snaps = details.source.getter()->snaps();
        changed.push_back(index);
        const bool one_by_one = details.source.scan_width() == 0 &&
                                details.source.access() != detail::Binding::Access::constant &&
                                details.source.access() != detail::Binding::Access::shared;
        if (one_by_one) others_.push_back(index);
    }
    fresh_.clear();
}

void Scan::tell(SourceIndex index, Value value, std::vector<SourceIndex>& changed) {
    if (take(index, value)) changed.push_back(index);
}

}  // namespace rapido
