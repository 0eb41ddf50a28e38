#include "rapido/value/source.hpp"

#include <algorithm>

namespace rapido {

Source::Source(std::string_view name) : access_(Access::name), negated_(name.starts_with('!')) {
    name_ = name.substr(negated_ ? 1 : 0);
}

Source Source::negated() const {
    Source turned = *this;
    turned.negated_ = !negated_;
    return turned;
}

Source Source::expecting(Value::Type type) const {
    Source typed = *this;
    typed.type_ = type;
    return typed;
}

Value Source::read(std::string& storage) const {
    Value value;
    if (access_ == Access::constant) value = constant_;
    if (access_ == Access::variable) value = read_variable_(address_);
    if (access_ == Access::getter) value = getter_->read(storage);
    return negated_ ? Value(!value.truth()) : value;
}

namespace {
constexpr auto by_name = [](const std::pair<std::string, Source>& entry, std::string_view name) {
    return std::string_view(entry.first) < name;
};
}  // namespace

void Sources::set(std::string_view name, Source source) {
    const auto at = std::lower_bound(entries_.begin(), entries_.end(), name, by_name);
    if (at != entries_.end() && at->first == name)
        at->second = std::move(source);
    else
        entries_.emplace(at, name, std::move(source));
}

void Sources::set(std::string_view name, const Sources& nested) {
    for (const auto& [inner, source] : nested.entries_)
        set(std::string(name) + "." + inner, source);
}

const Source* Sources::find(std::string_view name) const {
    const auto at = std::lower_bound(entries_.begin(), entries_.end(), name, by_name);
    return at != entries_.end() && at->first == name ? &at->second : nullptr;
}

std::vector<std::string_view> Sources::names() const {
    std::vector<std::string_view> names;
    for (const auto& [name, source] : entries_)
        names.push_back(name);
    return names;
}

}  // namespace rapido
