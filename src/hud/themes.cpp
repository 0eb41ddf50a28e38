#include "hud/themes.hpp"

#include <algorithm>

#include "base/nearest.hpp"

namespace rapido {
namespace {

template <class T>
using Named = std::map<std::string, T, std::less<>>;

const Named<Color>& values_of(const Theme& theme, const Color&) {
    return theme.color;
}
const Named<std::string>& values_of(const Theme& theme, const std::string&) {
    return theme.font;
}
const Named<float>& values_of(const Theme& theme, const float&) {
    return theme.radius;
}
constexpr std::string_view word_for(const Color&) {
    return "color";
}
constexpr std::string_view word_for(const std::string&) {
    return "font";
}
constexpr std::string_view word_for(const float&) {
    return "radius";
}

template <class T>
void gather_lacking(const Theme& first, const Theme& theme, std::vector<std::string>& lacking) {
    for (const auto& [name, value] : values_of(first, T{}))
        if (!values_of(theme, T{}).contains(name)) lacking.push_back(std::string(word_for(T{})) + " '" + name + "'");
}

/// Calls back for each themed value of an aggregate that is there.
template <class Visit>
void visit_themed(const Table& table, void* aggregate, const std::string& prefix, const Visit& visit) {
    for (const Field& field : table.fields) {
        if (field.at(aggregate) == nullptr) continue;
        void* const value = field.in(aggregate);
        const auto name = [&] { return prefix + std::string(field.name); };
        switch (field.type) {
            case FieldType::color:
                visit(*static_cast<Themed<Color>*>(value), name);
                break;
            case FieldType::themed_text:
                visit(*static_cast<Themed<std::string>*>(value), name);
                break;
            case FieldType::themed_number:
                visit(*static_cast<Themed<float>*>(value), name);
                break;
            case FieldType::table:
                visit_themed(*field.table, value, name() + ".", visit);
                break;
            case FieldType::list:
                for (std::size_t i = 0; void* const item = field.item_in(value, i); ++i)
                    visit_themed(*field.table, item, name() + "." + std::to_string(i) + ".", visit);
                break;
            default:
                break;
        }
    }
}

}  // namespace

void Themes::add(const Theme& theme) {
    const auto known = std::find_if(all_.begin(), all_.end(), [&](const Theme& other) { return other.id == theme.id; });
    if (known != all_.end())
        *known = theme;
    else
        all_.push_back(theme);
}

void Themes::remove(std::string_view id) {
    const std::string used_before = used();
    std::erase_if(all_, [&](const Theme& theme) { return theme.id == id; });
    if (!use(used_before)) used_ = 0;
}

void Themes::order(const std::vector<std::string>& ids) {
    const std::string used_before = used();
    const auto place = [&](const Theme& theme) { return std::find(ids.begin(), ids.end(), theme.id); };
    std::stable_sort(all_.begin(), all_.end(), [&](const Theme& a, const Theme& b) { return place(a) < place(b); });
    use(used_before);
}

bool Themes::use(std::string_view id) {
    const auto found = std::find_if(all_.begin(), all_.end(), [&](const Theme& theme) { return theme.id == id; });
    if (found == all_.end()) return false;
    used_ = static_cast<std::size_t>(found - all_.begin());
    return true;
}

const std::string& Themes::used() const {
    static const std::string none;
    return all_.empty() ? none : all_[used_].id;
}

std::vector<std::string_view> Themes::names() const {
    std::vector<std::string_view> names;
    for (const Theme& theme : all_)
        names.push_back(theme.id);
    return names;
}

std::vector<std::string> Themes::lacking(const Theme& theme) const {
    std::vector<std::string> lacking;
    if (all_.empty()) return lacking;
    gather_lacking<Color>(all_.front(), theme, lacking);
    gather_lacking<std::string>(all_.front(), theme, lacking);
    gather_lacking<float>(all_.front(), theme, lacking);
    return lacking;
}

bool Themes::has_names(const Table& table, const void* aggregate) {
    for (const Field& field : table.fields) {
        const void* const value = field.at(aggregate);
        if (value == nullptr) continue;
        switch (field.type) {
            case FieldType::color:
                if (!static_cast<const Themed<Color>*>(value)->name().empty()) return true;
                break;
            case FieldType::themed_text:
                if (!static_cast<const Themed<std::string>*>(value)->name().empty()) return true;
                break;
            case FieldType::themed_number:
                if (!static_cast<const Themed<float>*>(value)->name().empty()) return true;
                break;
            case FieldType::table:
                if (has_names(*field.table, value)) return true;
                break;
            case FieldType::list:
                for (std::size_t i = 0; const void* const item = field.item(value, i); ++i)
                    if (has_names(*field.table, item)) return true;
                break;
            default:
                break;
        }
    }
    return false;
}

template <class T>
void Themes::apply_one(Themed<T>& value, const std::string& field, const ThemeReport& report) const {
    for (const std::size_t which : {used_, std::size_t{0}}) {
        if (which >= all_.size()) continue;
        const Named<T>& values = values_of(all_[which], T{});
        if (const auto found = values.find(value.name()); found != values.end()) return value.apply(found->second);
    }
    std::vector<std::string_view> names;
    if (!all_.empty())
        for (const auto& [name, other] : values_of(all_.front(), T{}))
            names.push_back(name);
    if (report)
        report(field, "is '" + value.name() + "', and no theme has such a " + std::string(word_for(T{})),
               did_you_mean(value.name(), names));
}

void Themes::apply(const Table& table, void* aggregate, const ThemeReport& report, const std::string& prefix) const {
    visit_themed(table, aggregate, prefix, [&](auto& value, const auto& name) {
        if (!value.name().empty()) apply_one(value, name(), report);
    });
}

void Themes::forget_names(const Table& table, void* aggregate) {
    visit_themed(table, aggregate, "", [](auto& value, const auto&) { value.forget_name(); });
}

void Themes::apply(Themed<Color>& color, const ThemeReport& report) const {
    if (!color.name().empty()) apply_one(color, "", report);
}

void Themes::apply(Themed<std::string>& text, const ThemeReport& report, std::string_view field) const {
    if (!text.name().empty()) apply_one(text, std::string(field), report);
}

}  // namespace rapido
