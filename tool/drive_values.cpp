#include "tool/drive_values.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "file/json_value.hpp"
#include "hud/entry_fields.hpp"

namespace rapido::tool {
namespace {

using nlohmann::json;

}  // namespace

/// The newest entries of a list.
struct DriveValues::Entries final : detail::EntryReader {
    std::vector<Field> named;
    std::vector<std::vector<KeptValue>> rows;  ///< by entry, as many values as there are fields

    const std::vector<Field>& fields() const override { return named; }
    std::size_t count() const override { return rows.size(); }
    void read_field(std::size_t field, std::span<const std::uint8_t>, std::span<KeptValue> into) const override {
        for (std::size_t i = 0; i < into.size(); ++i)
            into[i] = at(i, field).get();
    }
    void read_numbers(std::size_t field, std::span<double> into) const override {
        for (std::size_t i = 0; i < into.size(); ++i)
            into[i] = at(i, field).get().number();
    }
    bool read_positions(std::span<WorldPoint> into) const override { return read_fields_as_positions(*this, into); }

 private:
    const KeptValue& at(std::size_t entry, std::size_t field) const {
        static const KeptValue none{};
        return entry < rows.size() && field < rows[entry].size() ? rows[entry][field] : none;
    }
};

void DriveValues::set(const std::string& name, const KeptValue& value) {
    if (const auto list = lists_.find(name); list != lists_.end()) {
        // A list that is null is an empty one; another value takes its name.
        if (!value.get().has_value()) return list->second.entries->rows.clear();
        lists_.erase(list);
    }
    std::shared_ptr<KeptValue>& kept = values_[name];
    const Value::Type type = value.get().type();
    if (type != Value::Type::none && (kept == nullptr || kept->get().type() != type)) news_.push_back({name, type});
    if (kept != nullptr) {
        *kept = value;
        return;
    }
    kept = std::make_shared<KeptValue>(value);
    sources_.set(name, watch([kept] { return kept->get(); }));
}

Status DriveValues::take(std::string_view line, std::size_t number) {
    const auto refuse = [&](std::string message, std::string hint = {}) {
        return Problem{{"standard input", static_cast<int>(std::min<std::size_t>(number, INT32_MAX)), 0},
                       std::move(message),
                       std::move(hint),
                       ProblemCode::syntax};
    };
    if (line.size() > longest_line) return refuse("the line is longer than 1 MB; it is skipped");
    // No exception crosses this: a line that is none gives a discarded value.
    const json given = json::parse(line.begin(), line.end(), nullptr, false);
    if (given.is_discarded()) return refuse("the line is no JSON; it is skipped");
    if (!given.is_object())
        return refuse("the line is no object; it is skipped", "write one, such as {\"plane.water\": 640}");
    std::size_t fresh = 0;
    for (const auto& [name, value] : given.items()) {
        if (name.empty()) return refuse("a value without a name; the line is skipped");
        if (value.is_object())
            return refuse("'" + name + "' is an object; the line is skipped",
                          "write its parts as names, \"" + name + ".part\"");
        if (!value.is_array()) {
            fresh += values_.contains(name) ? 0 : 1;
            continue;
        }
        if (value.size() > most_entries)
            return refuse("'" + name + "' has " + std::to_string(value.size()) + " entries; the line is skipped",
                          "at most " + std::to_string(most_entries));
        for (const json& entry : value) {
            if (!entry.is_object())
                return refuse("'" + name + "' is a list of values; the line is skipped", "expected objects in it");
            for (const auto& [field, inner] : entry.items())
                if (inner.is_structured())
                    return refuse("'" + field + "' of '" + name + "' holds others; the line is skipped");
        }
        fresh += lists_.contains(name) ? 0 : 1;
    }
    if (values_.size() + lists_.size() + fresh > most_names)
        return refuse("more than " + std::to_string(most_names) + " names in all; the line is skipped");

    for (const auto& [name, value] : given.items()) {
        if (const auto plain = plain_value(value)) {
            set(name, *plain);
            continue;
        }
        values_.erase(name);
        if (!lists_.contains(name)) news_.push_back({.name = name, .is_list = true});
        List& list = lists_[name];
        const std::size_t before = list.fields.size();
        for (const json& entry : value)
            for (const auto& [field, inner] : entry.items())
                if (std::find(list.fields.begin(), list.fields.end(), field) == list.fields.end() &&
                    list.fields.size() < 256)
                    list.fields.push_back(field);
        const bool is_new = list.entries == nullptr || list.fields.size() != before;
        // Fields of a reader are fixed: with more of them it is another one.
        if (is_new) {
            list.entries = std::make_shared<Entries>();
            for (const std::string& field : list.fields)
                list.entries->named.push_back({field, std::nullopt});
        }
        list.entries->rows.assign(value.size(), std::vector<KeptValue>(list.fields.size()));
        for (std::size_t i = 0; i < value.size(); ++i)
            for (std::size_t field = 0; field < list.fields.size(); ++field)
                if (const auto found = value[i].find(list.fields[field]); found != value[i].end())
                    list.entries->rows[i][field] = *plain_value(*found);
        if (is_new) sources_.set(name, Source(detail::Binding::getter(list.entries, Value::Type::int64)));
    }
    return {};
}

}  // namespace rapido::tool
