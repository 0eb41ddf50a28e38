#include "rapido/value/source.hpp"

#include <algorithm>

namespace rapido {

namespace {
constexpr auto by_name = [](const std::pair<std::string, Source>& entry, std::string_view name) {
    return std::string_view(entry.first) < name;
};
/// A text of its own.
class KeptText final : public detail::Getter {
 public:
    explicit KeptText(std::string_view text) : text_(text) {}
    Value read(std::string&) const override { return Value(std::string_view(text_)); }

 private:
    std::string text_;
};
}  // namespace

Source constant(std::string_view text) {
    return Source(detail::Binding::getter(std::make_shared<const KeptText>(text), Value::Type::text));
}

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
