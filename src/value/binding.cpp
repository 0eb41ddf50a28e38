#include "rapido/value/detail/binding.hpp"

#include <functional>

namespace rapido::detail {

Binding Binding::named(std::string_view name) {
    Binding made;
    made.access_ = Access::name;
    made.negated_ = name.starts_with('!');
    made.name_ = name.substr(made.negated_ ? 1 : 0);
    return made;
}

Binding Binding::constant(const Value& value) {
    Binding made;
    made.access_ = Access::constant;
    made.type_ = value.type();
    made.constant_ = value;
    return made;
}

Binding Binding::variable(const void* address, ReadVariable read, std::size_t width, std::optional<Value::Type> type) {
    Binding source;
    source.access_ = Access::variable;
    source.address_ = address;
    source.read_variable_ = read;
    source.scan_width_ = static_cast<std::uint8_t>(width);
    source.type_ = type;
    return source;
}

Binding Binding::getter(std::shared_ptr<const Getter> getter, std::optional<Value::Type> type,
                        const std::uint32_t* version) {
    Binding source;
    source.access_ = Access::getter;
    source.getter_ = std::move(getter);
    source.type_ = type;
    source.address_ = version;
    source.scan_width_ = version != nullptr ? sizeof *version : 0;
    return source;
}

Binding Binding::shared(std::shared_ptr<const SharedState> state, std::shared_ptr<const SnapshotGetter> part,
                        std::optional<Value::Type> type) {
    Binding source;
    source.access_ = Access::shared;
    source.state_ = std::move(state);
    source.part_ = std::move(part);
    source.type_ = type;
    return source;
}

Binding Binding::scaled(double scale, double offset) const {
    Binding changed = *this;
    changed.scale_ = scale_ * scale;
    changed.offset_ = offset_ * scale + offset;
    changed.scaled_ = true;
    return changed;
}

Binding Binding::negated() const {
    Binding turned = *this;
    turned.negated_ = !negated_;
    return turned;
}

Binding Binding::expecting(Value::Type type) const {
    Binding typed = *this;
    typed.type_ = type;
    return typed;
}

Binding Binding::applied_to(const Binding& other) const {
    Binding source = scaled_ ? other.scaled(scale_, offset_) : other;
    if (counts_down_) source = source.counting_down();
    return negated_ ? source.negated() : source;
}

Binding Binding::used_as(ValueUse use) const {
    Binding used = *this;
    used.use_ = use;
    return used;
}

Binding Binding::counting_down() const {
    Binding used = used_as(ValueUse::time_left);
    used.counts_down_ = true;
    return used;
}

std::optional<Value::Type> Binding::type() const {
    if (negated_) return Value::Type::flag;
    if (scaled_ && type_ && *type_ != Value::Type::text) return Value::Type::float64;
    return type_;
}

Value Binding::adjusted(Value value) const {
    if (negated_) return Value(!value.truth());
    if (scaled_) value = value.is_number() ? Value(value.number() * scale_ + offset_) : Value();
    if (counts_down_ && value.number() < 0) return amount_like(value, 0);
    return value;
}

Value Binding::read(std::string& storage) const {
    if (access_ == Access::constant) return adjusted(constant_);
    if (access_ == Access::variable) return adjusted(read_variable_(address_));
    if (access_ == Access::getter) return adjusted(getter_->read(storage));
    return {};
}

Value Binding::read_snapshot(const void* snapshot, std::string& storage) const {
    return adjusted(part_->read(snapshot, storage));
}

std::size_t Binding::hash() const {
    const std::hash<double> of_number;
    std::size_t hash = std::hash<std::string>{}(name_);
    const auto add = [&](std::size_t part) { hash = hash * 31 + part; };
    add(static_cast<std::size_t>(access_) * 4 + (negated_ ? 1U : 0U) + (counts_down_ ? 2U : 0U));
    add(std::hash<const void*>{}(address_));
    add(std::hash<const void*>{}(getter_.get()));
    add(of_number(scale_));
    add(of_number(offset_));
    if (access_ == Access::constant) add(of_number(constant_.number()));
    return hash;
}

}  // namespace rapido::detail
