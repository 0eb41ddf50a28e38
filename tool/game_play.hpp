// What stands for a game: a trace, or a sweep of what a HUD declares, and values that are set by hand.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "rapido/file.hpp"

namespace rapido::tool {

class GamePlay {
 public:
    /// The sources of the HUDs that it plays to; those of what is loaded later are added.
    Sources sources() const { return sources_; }

    void play(Trace trace);
    Nanoseconds first() const;
    Nanoseconds last() const;
    /// Goes to a moment. Returns the game time there.
    Nanoseconds seek(Nanoseconds time);

    /// All that can be set, in alphabetical order: what is played, and what a HUD declares.
    std::vector<std::string> names() const;
    /// What a source is now, whoever says so.
    Value value(const std::string& name) const;
    bool is_by_hand(const std::string& name) const { return by_hand_.contains(name); }
    void set_by_hand(const std::string& name, const KeptValue& value);
    /// The trace says it again.
    void give_back(const std::string& name);
    /// Names that a HUD declares, with which kinds of values.
    void declare(const std::vector<DeclaredSource>& declared) { declared_ = declared; }
    /// Null for a name that is not declared.
    const DeclaredSource* declared(const std::string& name) const;

 private:
    bool is_of_entries(std::string_view name) const;

    Sources sources_;
    std::unique_ptr<Trace> trace_;
    std::unique_ptr<TracePlayer> player_;
    std::vector<std::unique_ptr<TracePlayer>> before_;  ///< HUDs may read them until their next update
    std::vector<std::unique_ptr<Trace>> traces_before_;
    Sources played_;
    std::map<std::string, std::shared_ptr<KeptValue>> by_hand_;
    std::vector<DeclaredSource> declared_;
};

/// A value out of what somebody typed, of the type of a source; nothing for what is none.
std::optional<KeptValue> value_of(const std::string& typed, SourceType type);
/// The value before or behind another one: a twentieth of the range, the other flag, the next sample.
KeptValue stepped(const DeclaredSource& source, const Value& from, int steps);

}  // namespace rapido::tool
