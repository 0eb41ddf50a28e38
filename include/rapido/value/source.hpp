// Where a value comes from: something of the game that is watched, a name to be looked up, or a constant.
#pragma once

#include <cstddef>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "rapido/time/game_timer.hpp"
#include "rapido/value/value.hpp"

namespace rapido {

/// Something that is called to be read. `storage` keeps a text alive that it makes.
class Getter {
 public:
    virtual ~Getter() = default;
    virtual Value read(std::string& storage) const = 0;
    /// How many times a value was set with a snap so far.
    virtual std::uint32_t snaps() const { return 0; }
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

/// One source. Written as a string it is a name, looked up in the `Sources` that the HUD is made with; a
/// leading `!` negates it. Written as a number it is a constant. `watch` binds it to the game's own state.
class Source {
 public:
    enum class Access : std::uint8_t { none, name, constant, variable, getter, shared };
    /// What a value is for, so that its text is rounded as it should be by default.
    enum class Use : std::uint8_t { amount, time_left, time_passed };

    using ReadVariable = Value (*)(const void* address);

    Source() = default;
    Source(std::string_view name);
    Source(const char* name) : Source(std::string_view(name)) {}
    Source(const std::string& name) : Source(std::string_view(name)) {}
    template <class T>
    requires std::is_arithmetic_v<T> Source(T constant)
        : access_(Access::constant), type_(Value(constant).type()), constant_(constant) {}

    /// A variable, read through a function. Of `width` 1, 2, 4 or 8 its bits tell whether it changed; zero if
    /// they do not. Use `watch`.
    static Source variable(const void* address, ReadVariable read, std::size_t width,
                           std::optional<Value::Type> type);
    /// A getter; with an address, it has changed only when the four bytes there have. Use `watch`.
    static Source getter(std::shared_ptr<const Getter> getter, std::optional<Value::Type> type,
                         const std::uint32_t* version = nullptr);
    /// A part of a shared state. Use `watch`.
    static Source shared(std::shared_ptr<const SharedState> state, std::shared_ptr<const SnapshotGetter> part,
                         std::optional<Value::Type> type);

    /// The amount times `scale` plus `offset`, as a double: `watch(speed).scaled(3.6)` shows m/s as km/h. A
    /// duration counts in seconds; a text has no amount and gives no value.
    Source scaled(double scale, double offset = 0) const;
    /// The opposite of its truth: `.visible = watch(paused).negated()`.
    Source negated() const;
    /// The same source, with a promise for checks that a watched `Value` is of this type, or no value.
    Source expecting(Value::Type type) const;

    /// `other`, negated and scaled as this name asks for.
    Source applied_to(const Source& other) const;
    /// The same source for another use.
    Source used_as(Use use) const;

    Access access() const { return access_; }
    Use use() const { return use_; }
    explicit operator bool() const { return access_ != Access::none; }
    const std::string& name() const { return name_; }
    bool is_negated() const { return negated_; }
    bool is_scaled() const { return scaled_; }

    /// The type of what it gives, where that is fixed; nothing for a name and for a watched `Value`.
    std::optional<Value::Type> type() const;

    /// Reads it now; no value for a name and for a part of a shared state. A text may live in `storage`.
    Value read(std::string& storage) const;
    /// Reads a part of a shared state out of a snapshot.
    Value read_snapshot(const void* snapshot, std::string& storage) const;
    /// Negated and scaled as this source asks for.
    Value adjusted(Value value) const;

    /// The address of the bits that tell of a change, and how many there are; zero where it must be read to
    /// know.
    const void* scan_address() const { return address_; }
    std::size_t scan_width() const { return scan_width_; }
    ReadVariable read_variable() const { return read_variable_; }
    const Getter* getter() const { return getter_.get(); }
    const std::shared_ptr<const SharedState>& shared_state() const { return state_; }

    /// Equal for equal sources.
    std::size_t hash() const;
    /// Same name or constant, or bound to the same thing.
    friend bool operator==(const Source&, const Source&) = default;

 private:
    Access access_ = Access::none;
    Use use_ = Use::amount;
    bool negated_ = false;
    bool scaled_ = false;
    std::uint8_t scan_width_ = 0;
    std::optional<Value::Type> type_;
    const void* address_ = nullptr;
    ReadVariable read_variable_ = nullptr;
    std::shared_ptr<const Getter> getter_;
    std::shared_ptr<const SharedState> state_;
    std::shared_ptr<const SnapshotGetter> part_;
    std::string name_;
    Value constant_;
    double scale_ = 1;
    double offset_ = 0;
};

/// The names under which a game offers its state to HUD files. It is a handle: copies share one table, and a HUD keeps one,
/// so that the object that a HUD was made with may go. What is watched must live as `watch` says.
class Sources {
 public:
    Sources();

    /// Offers `source` as `name`; a name given before now means this one. HUDs that are made, and elements that are added,
    /// from here on see it.
    void set(std::string_view name, Source source);
    /// Offers everything that `nested` holds now, with `name.` before it.
    void set(std::string_view name, const Sources& nested);

    /// Offers a timer that the game advances, by this clock, as `name.left`, `name.elapsed`, `name.duration` and
    /// `name.running`, with its events. The timer must outlive every HUD that is made with this.
    void set(std::string_view name, const GameTimer& timer, ClockKind clock = ClockKind::game);

    struct NamedTimer {
        std::string name;
        const GameTimer* timer = nullptr;
        ClockKind clock = ClockKind::game;
    };
    const std::vector<NamedTimer>& timers() const { return table_->timers; }

    /// Null for a name that is not there. Valid until the next `set`.
    const Source* find(std::string_view name) const;
    /// All names, in alphabetical order; valid until the next `set`.
    std::vector<std::string_view> names() const;

 private:
    struct Table {
        std::vector<std::pair<std::string, Source>> entries;  ///< ordered by name
        std::vector<NamedTimer> timers;
    };
    std::shared_ptr<Table> table_;
};

}  // namespace rapido
