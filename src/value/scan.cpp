#include "value/scan.hpp"

#include <cstring>

namespace rapido {

template <class Bits>
void Scan::Column<Bits>::add(SourceIndex index, const void* address) {
    Bits bits;
    std::memcpy(&bits, address, sizeof bits);
    addresses.push_back(address);
    last.push_back(bits);
    records.push_back(index);
}

template <class Bits>
void Scan::Column<Bits>::read(Scan& scan, std::vector<SourceIndex>& changed) {
    const std::size_t count = addresses.size();
    for (std::size_t i = 0; i < count; ++i) {
        Bits bits;
        std::memcpy(&bits, addresses[i], sizeof bits);
        if (bits == last[i]) [[likely]]
            continue;
        last[i] = bits;
        Record& record = scan.records_[records[i]];
        // The bits may differ where the value does not: an inverted condition on 1 and 2, the padding of a
        // bool.
        if (scan.take(record, record.source.read(record.storage))) changed.push_back(records[i]);
    }
}

SourceIndex Scan::add(const Source& source) {
    const bool variable = source.access() == Source::Access::variable;
    const void* identity = variable ? source.address() : static_cast<const void*>(source.getter());
    if (identity != nullptr) {
        const auto [begin, end] = known_.equal_range(identity);
        for (auto at = begin; at != end; ++at)
            if (records_[at->second].source == source) return at->second;
    }
    const auto index = static_cast<SourceIndex>(records_.size());
    records_.push_back({.source = source, .value = {}, .text = {}, .storage = {}});
    fresh_.push_back(index);
    if (identity != nullptr) known_.emplace(identity, index);
    switch (source.scan_width()) {
        case 1:
            bytes_.add(index, identity);
            break;
        case 2:
            halves_.add(index, identity);
            break;
        case 4:
            words_.add(index, identity);
            break;
        case 8:
            doubles_.add(index, identity);
            break;
        default:
            break;
    }
    return index;
}

SourceIndex Scan::add_told() {
    records_.emplace_back();
    return static_cast<SourceIndex>(records_.size() - 1);
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

void Scan::read(std::vector<SourceIndex>& changed) {
    bytes_.read(*this, changed);
    halves_.read(*this, changed);
    words_.read(*this, changed);
    doubles_.read(*this, changed);
    for (const SourceIndex index : others_) {
        Record& record = records_[index];
        if (take(record, record.source.read(record.storage))) changed.push_back(index);
    }
    for (const SourceIndex index : fresh_) {
        Record& record = records_[index];
        take(record, record.source.read(record.storage));
        changed.push_back(index);
        const bool is_constant = record.source.access() == Source::Access::constant;
        if (record.source.scan_width() == 0 && !is_constant) others_.push_back(index);
    }
    fresh_.clear();
}

void Scan::tell(SourceIndex index, Value value, std::vector<SourceIndex>& changed) {
    if (take(records_[index], value)) changed.push_back(index);
}

}  // namespace rapido
