#include "rapido/value/detail/binding.hpp"

#include <functional>

namespace rapido::detail {

struct Binding::More {
    std::shared_ptr<const Getter> getter{};
    std::shared_ptr<const SharedState> state{};
    std::shared_ptr<const SnapshotGetter> part{};
    std::string name{};
    Value constant{};
    double scale = 1;
    double offset = 0;
    friend bool operator==(const More&, const More&) = default;
};

Binding::Binding() noexcept = default;
Binding::Binding(const Binding&) noexcept = default;
Binding::Binding(Binding&&) noexcept = default;
Binding& Binding::operator=(const Binding&) noexcept = default;
Binding& Binding::operator=(Binding&&) noexcept = default;
Binding::~Binding() = default;

bool operator==(const Binding& a, const Binding& b) {
    return a.access_ == b.access_ && a.use_ == b.use_ && a.negated_ == b.negated_ && a.scaled_ == b.scaled_ &&
           a.counts_down_ == b.counts_down_ && a.scan_width_ == b.scan_width_ && a.type_ == b.type_ &&
           a.address_ == b.address_ && a.read_variable_ == b.read_variable_ &&
           (a.more_ == b.more_ || a.more() == b.more());
}

const Binding::More& Binding::more() const {
    static const More none;
    return more_ != nullptr ? *more_ : none;
}

/// Returns the same with another rest.
template <class Change>
Binding Binding::with(Change change) const {
    More changed = more();
    change(changed);
    Binding made = *this;
    made.more_ = std::make_shared<const More>(std::move(changed));
    return made;
}

const std::string& Binding::name() const {
    return more().name;
}
double Binding::scale() const {
    return more().scale;
}
double Binding::offset() const {
    return more().offset;
}
const Getter* Binding::getter() const {
    return more().getter.get();
}
const std::shared_ptr<const SharedState>& Binding::shared_state() const {
    return more().state;
}

Binding Binding::named(std::string_view name) noexcept {
    Binding made;
    made.access_ = Access::name;
    made.negated_ = name.starts_with('!');
    return made.with([&](More& more) { more.name = name.substr(made.negated_ ? 1 : 0); });
}

Binding Binding::constant(const Value& value) noexcept {
    Binding made;
    made.access_ = Access::constant;
    made.type_ = value.type();
    return made.with([&](More& more) { more.constant = value; });
}

Binding Binding::variable(const void* address, ReadVariable read, std::size_t width,
                          std::optional<Value::Type> type) noexcept {
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
    source.type_ = type;
    source.address_ = version;
    source.scan_width_ = version != nullptr ? sizeof *version : 0;
    return source.with([&](More& more) { more.getter = std::move(getter); });
}

Binding Binding::shared(std::shared_ptr<const SharedState> state, std::shared_ptr<const SnapshotGetter> part,
                        std::optional<Value::Type> type) {
    Binding source;
    source.access_ = Access::shared;
    source.type_ = type;
    return source.with([&](More& more) {
        more.state = std::move(state);
        more.part = std::move(part);
    });
}

Binding Binding::scaled(double scale, double offset) const {
    Binding changed = with([&](More& more) {
        more.scale *= scale;
        more.offset = more.offset * scale + offset;
    });
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
    Binding source = scaled_ ? other.scaled(scale(), offset()) : other;
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
    if (scaled_) value = value.is_number() ? Value(value.number() * scale() + offset()) : Value();
    if (counts_down_ && value.number() < 0) return amount_like(value, 0);
    return value;
}

Value Binding::read(std::string& storage) const {
    if (access_ == Access::constant) return adjusted(more().constant);
    if (access_ == Access::variable) return adjusted(read_variable_(address_));
    if (access_ == Access::getter) return adjusted(more().getter->read(storage));
    return {};
}

Value Binding::read_snapshot(const void* snapshot, std::string& storage) const {
    return adjusted(more().part->read(snapshot, storage));
}

std::size_t Binding::hash() const {
    const std::hash<double> of_number;
    std::size_t hash = std::hash<std::string>{}(name());
    const auto add = [&](std::size_t part) { hash = hash * 31 + part; };
    add(static_cast<std::size_t>(access_) * 4 + (negated_ ? 1U : 0U) + (counts_down_ ? 2U : 0U));
    add(std::hash<const void*>{}(address_));
    add(std::hash<const void*>{}(getter()));
    add(of_number(scale()));
    add(of_number(offset()));
    if (access_ == Access::constant) add(of_number(more().constant.number()));
    return hash;
}

}  // namespace rapido::detail
