#include "rapido/value/detail/binding.hpp"

#include <algorithm>
#include <array>
#include <functional>

#include "value/computation.hpp"

namespace rapido::detail {

struct Binding::More {
    std::shared_ptr<const Getter> getter{};
    std::shared_ptr<const SharedState> state{};
    std::shared_ptr<const SnapshotGetter> part{};
    std::string name{};
    Value constant{};
    std::shared_ptr<const Computation> computation{};
    friend bool operator==(const More& a, const More& b) {
        const bool same =
            a.computation == b.computation || (a.computation && b.computation && *a.computation == *b.computation);
        return same && a.getter == b.getter && a.state == b.state && a.part == b.part && a.name == b.name &&
               a.constant == b.constant;
    }
};

Binding::Binding() noexcept = default;
Binding::Binding(const Binding&) noexcept = default;
Binding::Binding(Binding&&) noexcept = default;
Binding& Binding::operator=(const Binding&) noexcept = default;
Binding& Binding::operator=(Binding&&) noexcept = default;
Binding::~Binding() = default;

bool operator==(const Binding& a, const Binding& b) {
    return a.access_ == b.access_ && a.use_ == b.use_ && a.negated_ == b.negated_ && a.counts_down_ == b.counts_down_ &&
           a.scan_width_ == b.scan_width_ && a.type_ == b.type_ && a.address_ == b.address_ &&
           a.read_variable_ == b.read_variable_ && (a.more_ == b.more_ || a.more() == b.more());
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

const Computation* Binding::computation() const {
    return more().computation.get();
}

namespace {

/// Puts the program of an operand behind those before it.
void append(Computation& made, const Binding& operand, std::size_t below) {
    using Access = Binding::Access;
    const auto push = [&](Operation operation, std::size_t index) {
        made.steps.push_back({operation, static_cast<std::uint8_t>(index)});
    };
    const auto push_constant = [&](const Value& value) {
        push(Operation::constant, made.values.size());
        made.values.emplace_back(value);
    };
    const Computation* const inner = operand.computation();
    const bool is_whole = inner == nullptr || !inner->is_too_large;
    const std::size_t more = inner != nullptr ? inner->terms() : 1;
    made.is_too_large = made.is_too_large || !is_whole || made.terms() + more > Computation::most_terms;
    if (made.is_too_large) return;
    if (inner == nullptr) {
        std::string storage;
        made.depth = std::max(made.depth, below + 1);
        if (operand.access() == Access::constant || operand.access() == Access::none)
            return push_constant(operand.read(storage));
        const auto known = std::find(made.leaves.begin(), made.leaves.end(), operand);
        push(Operation::leaf, static_cast<std::size_t>(known - made.leaves.begin()));
        if (known == made.leaves.end()) made.leaves.push_back(operand);
        return;
    }
    made.depth = std::max(made.depth, below + inner->depth);
    std::vector<std::size_t> leaves;
    for (const Binding& leaf : inner->leaves) {
        const auto known = std::find(made.leaves.begin(), made.leaves.end(), leaf);
        leaves.push_back(static_cast<std::size_t>(known - made.leaves.begin()));
        if (known == made.leaves.end()) made.leaves.push_back(leaf);
    }
    const std::size_t values = made.values.size();
    made.values.insert(made.values.end(), inner->values.begin(), inner->values.end());
    for (const Computation::Step& step : inner->steps) {
        const bool reads = step.operation == Operation::leaf || step.operation == Operation::since;
        push(step.operation, reads                                   ? leaves[step.index]
                             : step.operation == Operation::constant ? values + step.index
                                                                     : 0);
    }
    // What is done to its result is done by steps of their own.
    if (operand.counts_down()) {
        made.depth = std::max(made.depth, below + 2);
        push_constant(Value(0.0));
        push(Operation::greatest, 0);
    }
    if (operand.is_negated()) push(Operation::opposite, 0);
}

}  // namespace

Binding Binding::computed(Operation operation, std::initializer_list<Binding> operands) {
    auto made = std::make_shared<Computation>();
    std::size_t below = 0;
    for (const Binding& operand : operands)
        append(*made, operand, below++);
    if (operation == Operation::since) {
        // Of what is read, and of nothing else.
        made->is_too_large = made->is_too_large || made->steps.size() != 1;
        if (!made->steps.empty()) made->steps.back().operation = operation;
    } else {
        made->steps.push_back({operation});
    }
    made->is_too_large =
        made->is_too_large || made->depth > Computation::most_depth || made->terms() > Computation::most_terms;
    Binding source;
    source.access_ = Access::computed;
    source.type_ = made->type();
    return source.with([&](More& more) { more.computation = std::move(made); });
}

Binding Binding::kept(const Value& value) {
    auto made = std::make_shared<Computation>();
    made->values.emplace_back(value);
    made->steps.push_back({Operation::constant});
    Binding source;
    source.access_ = Access::computed;
    source.type_ = value.type();
    return source.with([&](More& more) { more.computation = std::move(made); });
}

Binding Binding::with_leaves(const std::function<Binding(const Binding&)>& other) const {
    const Computation* const made = computation();
    if (made == nullptr || made->is_too_large) return *this;
    std::vector<Binding> stack;
    for (const Computation::Step& step : made->steps) {
        const std::size_t taken = operands_of(step.operation);
        if (step.operation == Operation::constant) {
            stack.push_back(kept(made->values[step.index].get()));
        } else if (taken == 0) {
            const Binding& leaf = made->leaves[step.index];
            const Binding read = other(leaf);
            // Of what is computed nobody asks since when.
            const bool is_since = step.operation == Operation::since;
            const bool is_read = read.computation() == nullptr && read.access() != Access::none;
            stack.push_back(!is_since ? read : computed(step.operation, {is_read ? read : leaf}));
        } else {
            const Binding last = std::move(stack.back());
            stack.pop_back();
            if (taken == 1) {
                stack.push_back(computed(step.operation, {last}));
            } else {
                stack.back() = computed(step.operation, {stack.back(), last});
            }
        }
    }
    return applied_to(stack.back());
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
    const Binding source = counts_down_ ? other.counting_down() : other;
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
    return type_;
}

Value Binding::adjusted(Value value) const {
    if (negated_) return Value(!value.truth());
    if (counts_down_ && value.number() < 0) return amount_like(value, 0);
    return value;
}

Value Binding::read(std::string& storage) const {
    if (access_ == Access::constant) return adjusted(more().constant);
    if (access_ == Access::variable) return adjusted(read_variable_(address_));
    if (access_ == Access::getter) return adjusted(more().getter->read(storage));
    if (access_ != Access::computed) return {};
    // Each leaf has a storage of its own, as texts of two may be compared.
    thread_local std::array<std::string, Computation::most_terms> rooms;
    const Computation& made = *computation();
    std::array<Value, Computation::most_terms> read;
    for (std::size_t i = 0; i < made.leaves.size(); ++i)
        read[i] = made.leaves[i].read(rooms[i]);
    const Value result = adjusted(made.result(read, std::array<Value, Computation::most_terms>{}));
    if (result.type() != Value::Type::text) return result;
    storage = result.text();
    return Value(storage);
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
    if (access_ == Access::constant) add(of_number(more().constant.number()));
    if (const Computation* const made = computation()) {
        for (const Binding& leaf : made->leaves)
            add(leaf.hash());
        for (const Computation::Step& step : made->steps)
            add(static_cast<std::size_t>(step.operation) * 256 + step.index);
    }
    return hash;
}

}  // namespace rapido::detail
