// What a game could say to a HUD: its sources, what they may be, and whole states of the game.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/file.hpp"

namespace rapido::tool {

/// A value for each source, in the order of `GameStates::sources`; no value where there is none.
struct GameState {
    std::vector<KeptValue> values;
    std::string when;  ///< in words: `at 12.500 s`
};

/// The sources that a HUD declares, and those of a trace, with what they can be. A field of the entries of a container counts as a source:
/// `pilots.name`.
class GameStates {
 public:
    GameStates(const HudDefinition& definition, const Trace* trace);

    const std::vector<DeclaredSource>& sources() const { return sources_; }
    /// As usual: the first samples.
    const GameState& usual() const { return usual_; }
    /// Moments of the trace, or of a sweep through all ranges: `count` at most, evenly.
    std::vector<GameState> moments(const Trace& trace, std::size_t count) const;
    /// What a source can be, such that one of it makes its text widest: bounds, samples, and numbers of every length.
    std::vector<KeptValue> candidates(std::size_t source) const;
    /// A trace with a row for each state, at whole seconds.
    Result<Trace> trace_of(const std::vector<GameState>& states) const;
    /// The same state with another value.
    GameState with(const GameState& state, std::size_t source, const KeptValue& value) const;

 private:
    void take_texts(const Trace& trace);

    std::vector<DeclaredSource> sources_;  ///< those that are declared, the fields of their entries, those of the trace
    std::size_t declared_ = 0, fields_ = 0;
    GameState usual_;
};

/// The field of a column of entries: of `fires.12.heat`, where `fires` is declared, `heat`. Nothing for any other column.
std::string_view field_of(std::string_view column, const DeclaredSource& source);

/// A value as a text: `3000`, `true`, `'Pine Hollow'`.
std::string said(const Value& value);

}  // namespace rapido::tool
