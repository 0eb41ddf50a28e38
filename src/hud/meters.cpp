#include "hud/timers.hpp"

namespace rapido {

void FrameMeters::add(const FrameMeter& meter) {
    Running& made = meters_.emplace_back();
    made.id = meter.id;
    made.meter = FrameCounter(meter.interval);
    made.rate = bindings_.add_told(meter.id + ".rate", Value::Type::float64);
    made.frame_time = bindings_.add_told(meter.id + ".frame_time", Value::Type::duration);
    made.average = bindings_.add_told(meter.id + ".average", Value::Type::duration);
    made.worst = bindings_.add_told(meter.id + ".worst", Value::Type::duration);
    made.low = bindings_.add_told(meter.id + ".low", Value::Type::float64);
}

bool FrameMeters::set_interval(std::string_view id, Seconds interval) {
    for (Running& running : meters_) {
        if (running.id != id) continue;
        running.meter.set_interval(interval);
        return true;
    }
    return false;
}

std::vector<std::string_view> FrameMeters::names() const {
    std::vector<std::string_view> names;
    for (const Running& running : meters_)
        names.push_back(running.id);
    return names;
}

void FrameMeters::advance(const FrameTime& time) {
    const Seconds step = to_seconds(time.step());
    for (Running& running : meters_)
        if (step.count() > 0) running.meter.advance(step);
}

void FrameMeters::tell(const FrameTime& time) {
    for (const Running& running : meters_) {
        const std::optional<double> rate = running.meter.rate();
        bindings_.tell(running.rate, rate ? Value(*rate) : Value());
        const auto tell = [this](SourceIndex source, const auto& number) {
            if (bindings_.is_used(source)) bindings_.tell(source, number ? Value(*number) : Value());
        };
        tell(running.average, running.meter.average());
        tell(running.worst, running.meter.worst());
        tell(running.low, running.meter.low());
        if (bindings_.is_used(running.frame_time) && time.step() > Nanoseconds{0})
            bindings_.tell(running.frame_time, Value(time.step()));
    }
}

}  // namespace rapido
