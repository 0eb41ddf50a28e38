#include "tool/game_play.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>

#include "tool/sample_entries.hpp"

namespace rapido::tool {

void GamePlay::play(Trace trace) {
    if (trace_ != nullptr) {
        before_.push_back(std::move(player_));
        traces_before_.push_back(std::move(trace_));
    }
    trace_ = std::make_unique<Trace>(std::move(trace));
    player_ = std::make_unique<TracePlayer>(*trace_);
    played_ = player_->sources();
    for (const std::string_view name : played_.names())
        if (!is_by_hand(std::string(name))) sources_.set(std::string(name), *played_.find(name));
}

Nanoseconds GamePlay::first() const {
    return trace_ != nullptr ? trace_->rows().front().time : Nanoseconds{0};
}
Nanoseconds GamePlay::last() const {
    return trace_ != nullptr ? trace_->rows().back().time : Nanoseconds{0};
}

Nanoseconds GamePlay::seek(Nanoseconds time) {
    return player_ != nullptr ? player_->seek(time) : time;
}

/// Whether it is a field of an entry of a container that is declared as a whole.
bool GamePlay::is_of_entries(std::string_view name) const {
    return std::any_of(declared_.begin(), declared_.end(), [name](const DeclaredSource& source) {
        return source.type == SourceType::entries && name.starts_with(source.name + ".");
    });
}

std::vector<std::string> GamePlay::names() const {
    std::vector<std::string> all;
    if (trace_ != nullptr)
        for (const Trace::Column& column : trace_->columns())
            if (!is_of_entries(column.name)) all.push_back(column.name);
    for (const DeclaredSource& source : declared_)
        all.push_back(source.name);
    std::sort(all.begin(), all.end());
    all.erase(std::unique(all.begin(), all.end()), all.end());
    return all;
}

Value GamePlay::value(const std::string& name) const {
    if (const auto known = by_hand_.find(name); known != by_hand_.end()) return known->second->get();
    const Source* const source = played_.find(name);
    if (source == nullptr) return {};
    std::string storage;
    const Value value = source->binding().read(storage);
    return value.type() == Value::Type::text && !storage.empty() ? Value() : value;
}

void GamePlay::set_by_hand(const std::string& name, const KeptValue& value) {
    std::shared_ptr<KeptValue>& kept = by_hand_[name];
    if (kept != nullptr) {
        *kept = value;
        return;
    }
    kept = std::make_shared<KeptValue>(value);
    const DeclaredSource* const source = declared(name);
    const bool is_container = source != nullptr && source->type == SourceType::entries;
    sources_.set(name, is_container ? sample_entries(*source, kept) : watch([kept] { return kept->get(); }));
}

void GamePlay::give_back(const std::string& name) {
    if (by_hand_.erase(name) == 0) return;
    const Source* const source = played_.find(name);
    sources_.set(name, source != nullptr ? *source : Source(detail::Binding::constant(Value())));
}

const DeclaredSource* GamePlay::declared(const std::string& name) const {
    const auto found = std::find_if(declared_.begin(), declared_.end(),
                                    [&](const DeclaredSource& source) { return source.name == name; });
    return found != declared_.end() ? &*found : nullptr;
}

std::optional<KeptValue> value_of(const std::string& typed, SourceType type) {
    if (is_text(type)) return KeptValue(Value(typed));
    if (type == SourceType::flag) {
        if (typed == "true" || typed == "1") return KeptValue(Value(true));
        if (typed == "false" || typed == "0") return KeptValue(Value(false));
        return std::nullopt;
    }
    const char* const end = typed.data() + typed.size();
    if (type == SourceType::integer || type == SourceType::entries) {
        std::int64_t number = 0;
        const auto read = std::from_chars(typed.data(), end, number);
        return read.ec == std::errc() && read.ptr == end ? std::optional(KeptValue(Value(number))) : std::nullopt;
    }
    double number = 0;
    const auto read = std::from_chars(typed.data(), end, number);
    return read.ec == std::errc() && read.ptr == end ? std::optional(KeptValue(Value(number))) : std::nullopt;
}

KeptValue stepped(const DeclaredSource& source, const Value& from, int steps) {
    if (source.type == SourceType::flag) return Value(!from.truth());
    if (is_text(source.type)) {
        if (source.sample.empty()) return from;
        const auto count = static_cast<int>(source.sample.size());
        int at = 0;
        while (at < count && !(source.sample[static_cast<std::size_t>(at)].get() == from))
            ++at;
        at = at == count ? 0 : ((at + steps) % count + count) % count;
        return source.sample[static_cast<std::size_t>(at)];
    }
    const double span = source.range.high - source.range.low;
    const double now = from.is_number() ? from.number() : source.range.low;
    double next = now + steps * (span > 0 ? span / 20 : 1);
    if (span > 0) next = std::clamp(next, source.range.low, source.range.high);
    if (source.type == SourceType::entries) next = std::max(next, 0.0);
    if (source.type != SourceType::integer && source.type != SourceType::entries) return Value(next);
    const auto whole = static_cast<std::int64_t>(std::llround(next));
    const auto before = static_cast<std::int64_t>(std::llround(now));
    // A step that is less than one is one.
    const std::int64_t least = before + (steps > 0 ? 1 : -1);
    const bool has_room = span <= 0 || (static_cast<double>(least) >= source.range.low &&
                                        static_cast<double>(least) <= source.range.high);
    return Value(whole == before && has_room ? least : whole);
}

}  // namespace rapido::tool
