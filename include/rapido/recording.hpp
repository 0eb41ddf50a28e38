// Recordings: all that a HUD was given, written down, and played again.
#pragma once

#include <cstdint>
#include <functional>
#include <iosfwd>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/hud.hpp"
#include "rapido/hud/recorder.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Writes all that enters a HUD as JSON Lines, a line for each call and each frame:
///
///     std::ofstream file("flight.jsonl");
///     rapido::RecordingWriter writer(file);
///     rapido::Hud hud(definition, sources, &fonts);
///     rapido::record(hud, &writer);
///
/// The first line holds the HUD itself. Played again, it shows the same: equal display lists, to the bit, with the same fonts, pictures and
/// languages.
class RecordingWriter final : public Recorder {
 public:
    /// Writes into a stream that must outlive it.
    explicit RecordingWriter(std::ostream& into);
    ~RecordingWriter() override;

    void begin(const HudDefinition& definition, std::span<const RecordedName> names) override;
    void call(const RecordedCall& call) override;
    void frame(const RecordedFrame& frame) override;

    /// What could not be written.
    const Problems& problems() const;

 private:
    struct State;
    std::unique_ptr<State> state_;
};

/// A recording that was read.
class Recording {
 public:
    /// Reads what a `RecordingWriter` has written; `name` is what problems call it. At most 256 MB.
    static Result<Recording> read(std::string_view text, const std::string& name);
    static Result<Recording> read_file(const std::string& path);
    /// What is wrong with it and does not keep it from being played: its last line may be cut off, where a game has ended in it.
    const Problems& warnings() const;
    /// Whether a file is a recording, by its first bytes.
    static bool is_recording(std::string_view text);

    /// The HUD at its beginning, with names in place of what was bound.
    const HudDefinition& definition() const;
    /// How many frames there are, and when each of them ended, on the real clock.
    std::size_t frame_count() const;
    Nanoseconds time(std::size_t frame) const;

 private:
    friend class RecordingPlayer;
    friend Result<Recording> read_recording(std::string_view, const std::string&, std::span<const CallKind* const>);
    struct State;
    std::shared_ptr<const State> state_;
};

/// Plays a recording: it stands for the game.
///
///     rapido::RecordingPlayer player(*recording);
///     rapido::Hud hud(recording->definition(), player.sources(), &fonts);
///     while (player.update(hud))
///         hud.draw(list);
class RecordingPlayer {
 public:
    explicit RecordingPlayer(const Recording& recording);
    ~RecordingPlayer();
    RecordingPlayer(RecordingPlayer&&) noexcept;
    RecordingPlayer& operator=(RecordingPlayer&&) noexcept;

    /// What the recorded game offered, for the one HUD that is played. The player must outlive it. An edited HUD may take the place of the
    /// recorded one: values come by their names, and calls by the paths of elements.
    Sources sources() const;
    /// Gives the languages that are asked for by their tags. Without it, a language is its tag alone.
    void set_languages(std::function<Language(std::string_view tag)> languages);

    /// Repeats what the game did before the next frame, and then that frame. False where there are no more.
    bool update(Hud& hud);
    /// Repeats what lasts of all that the game did up to a time, without a frame: values, elements, and what was set. Effects, messages
    /// and numbers that popped up are left out. The next frame is the first one behind this time, as long as it was then.
    void skip_to(Hud& hud, Nanoseconds time);

    /// The number of the next frame.
    std::size_t next() const;

 private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
