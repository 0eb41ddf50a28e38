#include "rapido/value/source.hpp"

#include <algorithm>
#include <functional>

namespace rapido {

Source::Source(std::string_view name) : access_(Access::name), negated_(name.starts_with('!')) {
    name_ = name.substr(negated_ ? 1 : 0);
}

Source Source::variable(const void* address, ReadVariable read, std::size_t width,
                        std::optional<Value::Type> type) {
    Source source;
    source.access_ = Access::variable;
    source.address_ = address;
    source.read_variable_ = read;
    source.scan_width_ = static_cast<std::uint8_t>(width);
    source.type_ = type;
    return source;
}

Source Source::getter(std::shared_ptr<const Getter> getter, std::optional<Value::Type> type,
                      const std::uint32_t* version) {
    Source source;
    source.access_ = Access::getter;
    source.getter_ = std::move(getter);
    source.type_ = type;
    source.address_ = version;
    source.scan_width_ = version != nullptr ? sizeof *version : 0;
    return source;
}

Source Source::shared(std::shared_ptr<const SharedState> state, std::shared_ptr<const SnapshotGetter> part,
                      std::optional<Value::Type> type) {
    Source source;
    source.access_ = Access::shared;
    source.state_ = std::move(state);
    source.part_ = std::move(part);
    source.type_ = type;
    return source;
}

Source Source::scaled(double scale, double offset) const {
    Source changed = *this;
    changed.scale_ = scale_ * scale;
    changed.offset_ = offset_ * scale + offset;
    changed.scaled_ = true;
    return changed;
}

Source Source::negated() const {
    Source turned = *this;
    turned.negated_ = !negated_;
    return turned;
}

Source Source::expecting(Value::Type type) const {
    Source typed = *this;
    typed.type_ = type;
    return typed;
}

Source Source::applied_to(const Source& other) const {
    Source source = scaled_ ? other.scaled(scale_, offset_) : other;
    return negated_ ? source.negated() : source;
}

Source Source::used_as(Use use) const {
    Source used = *this;
    used.use_ = use;
    return used;
}

std::optional<Value::Type> Source::type() const {
    if (negated_) return Value::Type::boolean;
    if (scaled_ && type_ && *type_ != Value::Type::text) return Value::Type::float64;
    return type_;
}

Value Source::adjusted(Value value) const {
    if (negated_) return Value(!value.truth());
    if (scaled_) return value.is_number() ? Value(value.number() * scale_ + offset_) : Value();
    return value;
}

Value Source::read(std::string& storage) const {
    if (access_ == Access::constant) return adjusted(constant_);
    if (access_ == Access::variable) return adjusted(read_variable_(address_));
    if (access_ == Access::getter) return adjusted(getter_->read(storage));
    return {};
}

Value Source::read_snapshot(const void* snapshot, std::string& storage) const {
    return adjusted(part_->read(snapshot, storage));
}

std::size_t Source::hash() const {
    const std::hash<double> of_number;
    std::size_t hash = std::hash<std::string>{}(name_);
    const auto add = [&](std::size_t part) { hash = hash * 31 + part; };
    add(static_cast<std::size_t>(access_) * 2 + (negated_ ? 1 : 0));
    add(std::hash<const void*>{}(address_));
    add(std::hash<const void*>{}(getter_.get()));
    add(of_number(scale_));
    add(of_number(offset_));
    if (access_ == Access::constant) add(of_number(constant_.number()));
    return hash;
}

namespace {
constexpr auto by_name = [](const std::pair<std::string, Source>& entry, std::string_view name) {
    return std::string_view(entry.first) < name;
};
}  // namespace

Sources::Sources() : table_(std::make_shared<Table>()) {}

void Sources::set(std::string_view name, Source source) {
    auto& entries = table_->entries;
    const auto at = std::lower_bound(entries.begin(), entries.end(), name, by_name);
    if (at != entries.end() && at->first == name)
        at->second = std::move(source);
    else
        entries.emplace(at, name, std::move(source));
}

void Sources::set(std::string_view name, const Sources& nested) {
    const Table inner = *nested.table_;  // a copy: it may be this table itself
    for (const auto& [inner_name, source] : inner.entries)
        set(std::string(name) + "." + inner_name, source);
    for (const NamedTimer& timer : inner.timers)
        set(std::string(name) + "." + timer.name, *timer.timer, timer.clock);
}

void Sources::set(std::string_view name, const GameTimer& timer, ClockKind clock) {
    std::erase_if(table_->timers, [&](const NamedTimer& known) { return known.name == name; });
    table_->timers.push_back({std::string(name), &timer, clock});
}

const Source* Sources::find(std::string_view name) const {
    const auto& entries = table_->entries;
    const auto at = std::lower_bound(entries.begin(), entries.end(), name, by_name);
    return at != entries.end() && at->first == name ? &at->second : nullptr;
}

std::vector<std::string_view> Sources::names() const {
    std::vector<std::string_view> names;
    for (const auto& [name, source] : table_->entries)
        names.push_back(name);
    return names;
}

}  // namespace rapido
