// A state that another thread writes.
#pragma once

#include <array>
#include <atomic>
#include <cstddef>
#include <cstring>

#include "rapido/base/exported.hpp"
#include "rapido/value/watch.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The state of a simulation thread, whole. One thread writes, any number of HUDs read, each at its own pace;
/// neither waits for the other. A HUD takes one snapshot in an update, so that a value and its maximum never
/// come from two writes. Until the first write, and after the `Shared` is gone, there is no value.
///
///     rapido::Shared<State> shared;                                        // on the simulation's side
///     shared.write(state);
///     Bar{.value = watch(shared, &State::water), .max = watch(shared, &State::tank)}  // on the HUD's
template <class T>
class Shared {
    static_assert(std::is_trivially_copyable_v<T>,
                  "rapido::Shared copies a state as bytes: it must be trivially copyable");
    static_assert(alignof(T) <= alignof(std::max_align_t),
                  "rapido::Shared keeps snapshots at the alignment of std::max_align_t: take the alignas "
                  "away from the state, or "
                  "share a plain copy of what a HUD shows");
    static_assert(sizeof(T) <= 65536,
                  "rapido::Shared copies the whole state in each update, on the stack: at most 64 KiB; share "
                  "what a HUD shows "
                  "in a state of its own");

 public:
    Shared() : cell_(std::make_shared<Cell>()) {}
    ~Shared() { cell_->published.store(0, std::memory_order_release); }
    Shared(const Shared&) = delete;
    Shared& operator=(const Shared&) = delete;

    /// Publishes a state. Never blocks; only the one writing thread may call it.
    void write(const T& state) { cell_->write(state, false); }
    /// Publishes a state that is taken as given: no motion, no gain or loss, no event.
    void snap(const T& state) { cell_->write(state, true); }

 private:
    template <class U, class Projection>
    friend Source watch(const Shared<U>& shared, Projection projection);

    using Word = std::uint64_t;
    static constexpr std::size_t word_count = (sizeof(T) + sizeof(Word) - 1) / sizeof(Word);
    static constexpr std::size_t slot_count = 4;

    /// A ring of slots. A write goes to the slot after the newest one, so that a reader is disturbed only by
    /// a writer who publishes three times while it copies. Each word is stored with release and loaded with
    /// acquire: whoever sees a word of a later write also sees, in `begun`, that this write had begun (the
    /// argument of a sequence lock: Boehm 2012, "Can seqlocks get along with programming language memory
    /// models?").
    struct Cell final : detail::SharedState {
        std::size_t size() const override { return sizeof(T); }

        void write(const T& state, bool snap) {
            if (snap) ++snap_count;
            const Word number = ++last;
            std::array<Word, word_count> copy{};
            std::memcpy(copy.data(), &state, sizeof(T));
            begun.store(number, std::memory_order_relaxed);
            Slot& slot = ring[number % slot_count];
            for (std::size_t i = 0; i < word_count; ++i)
                slot.words[i].store(copy[i], std::memory_order_release);
            slot.snaps.store(snap_count, std::memory_order_release);
            published.store(number, std::memory_order_release);
        }

        bool take(void* snapshot, std::uint64_t& version, std::uint32_t& snaps) const override {
            constexpr int tries = 8;
            for (int i = 0; i < tries; ++i) {
                const Word number = published.load(std::memory_order_acquire);
                if (number == version) return false;
                if (number == 0) {
                    version = 0;
                    return true;
                }
                const Slot& slot = ring[number % slot_count];
                std::array<Word, word_count> copy;
                for (std::size_t k = 0; k < word_count; ++k)
                    copy[k] = slot.words[k].load(std::memory_order_acquire);
                const auto slot_snaps = static_cast<std::uint32_t>(slot.snaps.load(std::memory_order_acquire));
                if (begun.load(std::memory_order_relaxed) >= number + slot_count) continue;  // it was written over
                std::memcpy(snapshot, copy.data(), sizeof(T));
                version = number;
                snaps = slot_snaps;
                return true;
            }
            return false;
        }

        struct Slot {
            std::array<std::atomic<Word>, word_count> words{};
            std::atomic<Word> snaps{0};
        };
        std::array<Slot, slot_count> ring{};
        std::atomic<Word> begun{0};
        std::atomic<Word> published{0};
        Word last = 0;                 ///< the writer's own
        std::uint32_t snap_count = 0;  ///< the writer's own
    };
    std::shared_ptr<Cell> cell_;
};

/// A member of a shared state, or a callable on it: `watch(shared, &State::water)`.
template <class T, class Projection>
Source watch(const Shared<T>& shared, Projection projection) {
    class Part final : public detail::SnapshotGetter {
     public:
        explicit Part(Projection held) : projection_(held) {}
        Value read(const void* snapshot, std::string& storage) const override {
            Value value;
            detail::guarded(this, [&] {
                value = detail::keep(detail::project(projection_, *static_cast<const T*>(snapshot)), storage);
            });
            return value;
        }

     private:
        Projection projection_;
    };
    using Result = detail::Projected<Projection, T>;
    static_assert(detail::Readable<Result>, "rapido::watch cannot show this part of the shared state");
    return Source(
        detail::Binding::shared(shared.cell_, std::make_shared<const Part>(projection), detail::type_of<Result>()));
}
template <class T, class Projection>
Source watch(Shared<T>& shared, Projection projection) {
    return watch(std::as_const(shared), projection);
}

}  // namespace rapido
