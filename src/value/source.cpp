#include "rapido/value/source.hpp"

#include <algorithm>

#include "value/computation.hpp"

namespace rapido {

namespace {
constexpr auto name_is_less = [](const auto& entry, std::string_view name) { return entry.name < name; };
/// A text of its own.
class KeptText final : public detail::Getter {
 public:
    explicit KeptText(std::string_view text) : text_(text) {}
    Value read(std::string&) const override { return Value(std::string_view(text_)); }

 private:
    std::string text_;
};
}  // namespace

std::vector<std::string> Source::names() const {
    std::vector<std::string> names;
    const auto add = [&](const detail::Binding& read) {
        if (!read.name().empty()) names.push_back(read.name());
    };
    add(binding_);
    if (const detail::Computation* const made = binding_.computation()) std::ranges::for_each(made->leaves, add);
    return names;
}

Source constant(std::string_view text) {
    return Source(detail::Binding::getter(std::make_shared<const KeptText>(text), Value::Type::text));
}

Sources::Sources() : table_(std::make_shared<Table>()) {}

void Sources::set(std::string_view name, Source source) {
    auto& entries = table_->entries;
    const std::uint64_t revision = ++table_->revision;
    const auto at = std::lower_bound(entries.begin(), entries.end(), name, name_is_less);
    if (at != entries.end() && at->name == name) {
        at->source = std::move(source);
        at->revision = revision;
    } else {
        entries.insert(at, {std::string(name), std::move(source), revision});
    }
}

void Sources::set(std::string_view name, const Sources& nested) {
    const Table inner = *nested.table_;  // a copy: it may be this table itself
    const std::string prefix = std::string(name) + ".";
    for (const Entry& entry : inner.entries)
        set(prefix + entry.name, entry.source);
    for (const NamedTimer& timer : inner.timers)
        set(prefix + timer.name, *timer.timer, timer.clock);
}

void Sources::set(std::string_view name, const GameTimer& timer, ClockKind clock) {
    ++table_->revision;
    table_->timers.push_back({std::string(name), &timer, clock});
}

const Sources::Entry* Sources::entry(std::string_view name) const {
    const auto& entries = table_->entries;
    const auto at = std::lower_bound(entries.begin(), entries.end(), name, name_is_less);
    return at != entries.end() && at->name == name ? &*at : nullptr;
}

const Source* Sources::find(std::string_view name) const {
    const Entry* const found = entry(name);
    return found != nullptr ? &found->source : nullptr;
}

std::uint64_t Sources::revision_of(std::string_view name) const {
    const Entry* const found = entry(name);
    return found != nullptr ? found->revision : 0;
}

std::vector<std::string_view> Sources::names() const {
    std::vector<std::string_view> names;
    for (const Entry& entry : table_->entries)
        names.push_back(entry.name);
    return names;
}

}  // namespace rapido
