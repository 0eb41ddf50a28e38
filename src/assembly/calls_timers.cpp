// Calls on timers.
#include "base/nearest.hpp"
#include "hud/call.hpp"
#include "hud/definition_tables.hpp"
#include "hud/state.hpp"

namespace rapido {

namespace {

constexpr std::array timer_state_fields{
    field<&TimerState::id>("id", "The id of the timer."),
    field<&TimerState::position>("position", "What has passed, or is left.", {"ns"}),
    field<&TimerState::duration>("duration", "The duration.", {"ns"}),
    field<&TimerState::speed>("speed", "The speed."),
    field<&TimerState::run>("run", "Whether it runs."),
    field<&TimerState::loop>("loop", "Whether it begins again at its end."),
    field<&TimerState::held>("held", "Whether what starts it was true."),
};
static_assert(timer_state_fields.size() == member_count<TimerState>);

}  // namespace

template <>
inline constexpr Table table_of<TimerState>{"timer state", timer_state_fields};

namespace {

struct AddTimer {};
void apply(const AddTimer&, CallStage& at) {
    at.add_timers();
}
constexpr auto add_timer_call =
    call_kind<AddTimer>("add_timer", "Gives a timer of the game, which is among the new names, the sources of a timer.",
                        {}, {.adds_timers = true});

struct RestoreTimers {
    TimerState timer;
};
constexpr std::array restore_timers_fields{
    required_field<&RestoreTimers::timer>("timer", "Where it is put."),
};
void apply(const RestoreTimers& call, CallStage& at) {
    at.hud.restore_timers(std::span(&call.timer, 1));
}
constexpr auto restore_timers_call =
    call_kind<RestoreTimers>("restore_timers", "Puts a timer where it was.", restore_timers_fields, {.lasts = false});

constexpr std::array<const CallKind*, 2> timers_kinds{&add_timer_call, &restore_timers_call};

}  // namespace

CallKinds timer_calls() {
    return timers_kinds;
}

GameTimer* Hud::timer(std::string_view id) {
    const TimerIndex index = state_->timers.find(std::string(id));
    if (index != no_timer && state_->timers[index].owned != nullptr) return state_->timers[index].owned.get();
    state_->problems.report({{},
                             "no timer '" + std::string(id) + "' of this HUD",
                             did_you_mean(id, state_->timers.names()),
                             ProblemCode::unknown_name});
    return nullptr;
}

std::vector<TimerState> Hud::save_timers() const {
    return state_->timers.save();
}

bool Hud::restore_timers(std::span<const TimerState> timers) {
    if (!state_->may(restore_timers_call)) return false;
    bool all = true;
    for (const TimerState& saved : timers) {
        const TimerIndex index = state_->timers.find(saved.id);
        const bool is_own = index != no_timer && state_->timers[index].owned != nullptr;
        if (is_own && state_->timers[index].owned->can_be(saved)) {
            state_->timers.restore(index, saved);
            state_->note(restore_timers_call, [&] { return RestoreTimers{saved}; });
            continue;
        }
        all = false;
        if (is_own)
            state_->problems.report({{},
                                     "timer '" + saved.id + "' can never be where it was saved: that save is damaged",
                                     "the timer goes on as it is",
                                     ProblemCode::out_of_range});
        else
            state_->problems.report({{},
                                     "no timer '" + saved.id + "' of this HUD",
                                     did_you_mean(saved.id, state_->timers.names()),
                                     ProblemCode::unknown_name});
    }
    return all;
}

bool Hud::add_timer(const std::string& id, const GameTimer& timer, ClockKind clock) {
    if (!state_->may(add_timer_call)) return false;
    ElementContext context(state_->problems, "timer '" + id + "'", nullptr, state_->formats);
    if (!check_id(id, state_->bindings, context) || context.failed()) return false;
    state_->timers.add(id, timer, clock);
    state_->note(add_timer_call, [] { return AddTimer{}; });
    return true;
}

}  // namespace rapido
