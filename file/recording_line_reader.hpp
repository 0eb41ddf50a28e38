// One line of a recording, read. It comes from anyone: every word is checked.
#pragma once

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "base/utf8.hpp"
#include "file/recording_lines.hpp"

namespace rapido {

/// What is wrong with a line, and where in it.
struct LineFault {
    std::string message, hint;
};

class RecordingLineReader {
 public:
    /// Of these calls, which must outlive it.
    RecordingLineReader(std::string name, CallKinds calls) : name_(std::move(name)), calls_(calls) {}

    std::optional<LineFault> fault;
    Problems of_hud;  ///< faults of a HUD inside the line

    void read_first(const Json& line, HudDefinition& definition, std::vector<RecordedName>& names);

    CallLine read_call(const Json& line);

    FrameLine read_frame(const Json& line);

 private:
    void fail(std::string message, std::string hint = {}) {
        if (!fault) fault = {std::move(message), std::move(hint)};
    }
    void expected(std::string_view name, std::string_view what) {
        fail("'" + utf8::shortened(name) + "' is not " + std::string(what));
    }

    static const Json* find(const Json& object, std::string_view key) {
        const auto found = object.find(key);
        return found != object.end() ? &*found : nullptr;
    }
    const Json* list(const Json& object, std::string_view key);
    template <class Read>
    void for_each(const Json& object, std::string_view key, Read read) {
        const Json* const found = find(object, key);
        if (found == nullptr) return;
        if (!found->is_object()) return expected(key, "an object");
        for (auto item = found->begin(); item != found->end() && !fault; ++item)
            read(item.key(), item.value());
    }

    std::string text_of(const Json& json, std::string_view name);
    bool flag_of(const Json& json, std::string_view name);
    double number_of(const Json& json, std::string_view name);
    std::int64_t integer_of(const Json& json, std::string_view name);
    std::uint64_t natural_of(const Json& json, std::string_view name);
    Nanoseconds time_of(const Json& json, std::string_view name);
    /// As many numbers as wanted.
    std::vector<double> numbers_of(const Json& json, std::size_t count, std::string_view name);
    Point point_of(const Json& json, std::string_view name);
    WorldPoint place_of(const Json& json, std::string_view name);
    std::size_t word_of(const Json& json, std::span<const std::string_view> words, std::string_view name) {
        const std::string word = text_of(json, name);
        const auto found = std::find(words.begin(), words.end(), word);
        if (found != words.end()) return static_cast<std::size_t>(found - words.begin());
        if (!fault) fail("'" + utf8::shortened(name) + "' is '" + utf8::shortened(word) + "', no known word");
        return 0;
    }

    KeptValue value_of(const Json& json, std::optional<Value::Type> fixed, std::string_view name);
    KeptValue typed_value(const Json& json, Value::Type type, std::string_view name);

    HudDefinition read_part(const Json& hud);

    std::optional<Value::Type> type_of(const Json& json, std::string_view name);

    std::vector<RecordedName> read_names(const Json& line);

    /// What a description says that there is, out of an object.
    void read_fields(const Json& object, const Table& table, void* aggregate, std::string_view owner);
    void read_field(const Json& json, const Field& field, void* into);

    FrameLine::TimerChange timer_of(const std::string& name, const Json& json);

    FrameLine::Entries entries_of(const std::string& name, const Json& rows);

    FrameLine::Thing thing_of(const std::string& number, const Json& json);

    std::string name_;
    CallKinds calls_;
    bool has_old_names_ = false;                              ///< it is of version 0.1
    std::size_t copied_ = 0, elements_ = 0, name_count_ = 0;  ///< so far
    std::map<std::string, std::optional<Value::Type>, std::less<>> types_;
    std::map<std::string, RecordedName, std::less<>> containers_;
};

}  // namespace rapido
