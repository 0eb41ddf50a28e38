// How the core reads a source. Games use `Source` and `watch`; nothing here is a promise to them.
#pragma once

#include <cstddef>
#include <functional>
#include <initializer_list>
#include <memory>
#include <optional>
#include <string>
#include <string_view>

#include "rapido/base/exported.hpp"
#include "rapido/value/value.hpp"

namespace rapido RAPIDO_EXPORTED {
namespace detail {

/// Something that is called to be read. `storage` keeps a text alive that it makes.
class Getter {
 public:
    virtual ~Getter() = default;
    virtual Value read(std::string& storage) const = 0;
    /// How many times a value was set with a snap so far.
    virtual std::uint32_t snaps() const { return 0; }
    /// Itself, if it reads the entries of a container.
    virtual const class EntryReader* entries() const { return nullptr; }
};

/// A state that another thread writes, taken as a whole.
class SharedState {
 public:
    virtual ~SharedState() = default;
    /// The bytes of a snapshot.
    virtual std::size_t size() const = 0;
    /// Copies the newest state into `snapshot` and sets `version` to its number, unless `version` is that
    /// number already. False where there is nothing new, and, for this time, where the writer was faster. The
    /// number is zero as long as nothing was written, and again when the writer is gone.
    virtual bool take(void* snapshot, std::uint64_t& version, std::uint32_t& snaps) const = 0;
};

/// Reads one part of a snapshot of a shared state.
class SnapshotGetter {
 public:
    virtual ~SnapshotGetter() = default;
    virtual Value read(const void* snapshot, std::string& storage) const = 0;
};

/// What is done with values to compute another one.
enum class Operation : std::uint8_t {
    leaf,      ///< a source that is read
    constant,  ///< a value that stays
    since,     ///< how long ago a source has changed
    sum,
    difference,
    product,
    quotient,
    remainder,
    negative,
    magnitude,
    least,
    greatest,
    less,
    less_or_equal,
    greater,
    greater_or_equal,
    equal,
    unequal,
    absent,   ///< there is no value
    present,  ///< there is one
    both,
    either,
    opposite,
};
struct Computation;

/// What a value is for, so that its text is rounded as it should be by default.
enum class ValueUse : std::uint8_t { amount, time_left, time_passed };

/// What a `Source` is bound to, and how its value is adjusted.
class Binding {
 public:
    enum class Access : std::uint8_t { none, name, constant, variable, getter, shared, computed };
    using ReadVariable = Value (*)(const void* address);

    Binding() noexcept;
    Binding(const Binding&) noexcept;
    Binding(Binding&&) noexcept;
    Binding& operator=(const Binding&) noexcept;
    Binding& operator=(Binding&&) noexcept;
    ~Binding();
    static Binding named(std::string_view name) noexcept;
    static Binding constant(const Value& value) noexcept;
    /// A variable, read through a function. Of `width` 1, 2, 4 or 8 its bits tell whether it changed; zero if
    /// they do not.
    static Binding variable(const void* address, ReadVariable read, std::size_t width,
                            std::optional<Value::Type> type) noexcept;
    /// A getter; with an address, it has changed only when the four bytes there have.
    static Binding getter(std::shared_ptr<const Getter> getter, std::optional<Value::Type> type,
                          const std::uint32_t* version = nullptr);
    /// A part of a shared state.
    static Binding shared(std::shared_ptr<const SharedState> state, std::shared_ptr<const SnapshotGetter> part,
                          std::optional<Value::Type> type);

    /// What is computed from others, of as many operands as the operation has.
    static Binding computed(Operation operation, std::initializer_list<Binding> operands);
    /// A value that stays, as an operand; a text is copied.
    static Binding kept(const Value& value);

    Binding negated() const;
    Binding expecting(Value::Type type) const;
    Binding used_as(ValueUse use) const;
    /// A number of seconds that counts down: `time_left`, and never below zero.
    Binding counting_down() const;
    /// `other`, negated or counted down as this one asks for.
    Binding applied_to(const Binding& other) const;

    Access access() const { return access_; }
    ValueUse use() const { return use_; }
    const std::string& name() const;
    bool is_negated() const { return negated_; }
    bool counts_down() const { return counts_down_; }
    /// Whether what is read is not shown as it is.
    bool is_adjusted() const { return negated_ || counts_down_; }
    /// The type of what it gives, where that is fixed; nothing for a name and for a watched `Value`.
    std::optional<Value::Type> type() const;

    /// Reads it now; no value for a name and for a part of a shared state. A text may live in `storage`.
    Value read(std::string& storage) const;
    /// Reads a part of a shared state out of a snapshot.
    Value read_snapshot(const void* snapshot, std::string& storage) const;
    /// Negated, or not below zero, as this one asks for.
    Value adjusted(Value value) const;

    /// The address of the bits that tell of a change, and how many there are; zero where it must be read to
    /// know.
    const void* scan_address() const { return address_; }
    std::size_t scan_width() const { return scan_width_; }
    const Getter* getter() const;
    const std::shared_ptr<const SharedState>& shared_state() const;
    /// How it is computed; null for one that is read.
    const Computation* computation() const;
    /// What is computed in the same way, of other sources in place of those that it reads.
    Binding with_leaves(const std::function<Binding(const Binding&)>& other) const;

    /// Equal for equal bindings.
    std::size_t hash() const;
    friend RAPIDO_EXPORTED bool operator==(const Binding& a, const Binding& b);

 private:
    /// What a variable that is watched does without.
    struct More;
    const More& more() const;
    template <class Change>
    Binding with(Change change) const;

    Access access_ = Access::none;
    ValueUse use_ = ValueUse::amount;
    bool negated_ = false;
    bool counts_down_ = false;
    std::uint8_t scan_width_ = 0;
    std::optional<Value::Type> type_;
    const void* address_ = nullptr;
    ReadVariable read_variable_ = nullptr;
    std::shared_ptr<const More> more_;
};

}  // namespace detail
}  // namespace rapido
