// HUD files and traces.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/draw/image_finder.hpp"
#include "rapido/hud/definition.hpp"
#include "rapido/layout/measurer.hpp"
#include "rapido/text/language.hpp"
#include "rapido/value.hpp"

namespace rapido RAPIDO_EXPORTED {

class Hud;

/// Returns the text of a file that a HUD file includes, by the path that stands there.
using IncludeReader = std::function<Result<std::string>(const std::string& path)>;

/// Reads a HUD file (TOML). `name` is what its problems call it. The first syntax error, or else every other
/// fault in one pass, by line. At most 4 MB, 64 levels of nesting or parts of a key, and 4000 elements. Without `includes` a file that
/// includes others is refused.
Result<HudDefinition> read_hud(std::string_view text, const std::string& name, const IncludeReader& includes = nullptr);
/// The same from a file, with those of its folder that it includes.
Result<HudDefinition> read_hud_file(const std::string& path);
/// Reads what is included out of a folder: a path is relative to it, and neither `..` nor a link leads out of it.
IncludeReader includes_of(const std::string& folder);

/// A HUD file that is read again when it, or a file that it includes, was saved, so that a HUD follows what a designer does:
///
///     rapido::HudFile file("hud.toml");
///     rapido::Hud hud(*file.read(), sources, &fonts, &images);
///     while (running) {
///         if (file.has_changed()) show(file.reload(hud));  // of a faulty file nothing is taken, and the HUD stays as it was
///         hud.update(dt);
///     }
///
/// It looks when it is asked, at the time of the last change and at the size: there is no thread.
class HudFile {
 public:
    explicit HudFile(std::string path);

    const std::string& path() const { return path_; }
    /// Reads it now.
    Result<HudDefinition> read();
    /// Whether any of the files differs from what was read last, and is as it was when it was looked at before: what is being written is waited
    /// for, and so is one that could not be read, as another program held it: it has changed when it can be. True before it was read. To be called in each frame. The files are looked at twenty times a second, which takes some
    /// microseconds for each; in between, the answer is false.
    bool has_changed();
    /// Reads it now, and gives it to a HUD that runs: see `Hud::reload`. Returns what is wrong with it; with an error among it, nothing has
    /// changed.
    Problems reload(Hud& hud);

 private:
    struct Stamp {
        std::int64_t time = 0;
        std::uintmax_t size = 0;
        friend bool operator==(const Stamp&, const Stamp&) = default;
    };
    static Stamp stamp_of(const std::string& path);
    std::string path_;
    std::vector<std::pair<std::string, Stamp>> files_;
    std::vector<Stamp> seen_;  ///< when they were looked at last
    bool is_unread_ = false;           ///< it could not be read
    std::vector<std::string> unread_;  ///< the included ones that could not be read, as they are named
    std::optional<Nanoseconds> looked_at_;
    bool was_read_ = false;
};

/// Writes a definition as a HUD file: `read_hud` makes an equal one of it. Styles and components are written out in each element that uses
/// them. What is bound to something of the game cannot be written, and is a problem each.
Result<std::string> write_hud(const HudDefinition& definition);

/// Returns the JSON Schema (draft 7) of HUD files, for editors that complete and check TOML by one. It comes from the same descriptions as the
/// reader. What a schema cannot know (names that refer to each other, formats) the reader alone checks.
std::string hud_schema();

/// How a typed header is written.
struct HeaderOptions {
    std::string type = "HudValues";  ///< the name of the struct
    std::string name_space{};        ///< `game::ui`; empty for none
};

/// Writes a C++ header with a struct that has a typed field for each source that a HUD declares, and binds all of them: a wrong name, or a value of
/// a wrong type, is then an error of the compiler. Dotted names nest. A number is a `double`, an integer an `std::int64_t`, a flag a `bool`,
/// a text a `std::string`, a time `rapido::Seconds`; each is optional, and without a value at first. Entries are a `std::vector` of a
/// struct, whose fields have a value from the first. A problem for each name that cannot be a field, and where nothing is declared.
Result<std::string> hud_header(const HudDefinition& definition, const HeaderOptions& options = {});

/// Writes a HUD file in canonical order, with its comments: keys in the order of the reference, one space around what is set and inside braces,
/// four in front of what stands in a list over several lines. Tables stay where they are, as their order is that of drawing. A problem for a
/// text that is no TOML; formatting twice is the same as once.
Result<std::string> format_hud(std::string_view text, const std::string& name);
/// Writes a HUD file of version 0.1 in the words of today, in canonical order, with its comments: see docs/upgrading.md. A problem for a
/// text that is no TOML. A file that is of today must not be given, as some words have changed places.
Result<std::string> upgrade_hud(std::string_view text, const std::string& name);

/// Reads a file of translations (TOML): a key is a text of a HUD, its value the translated pattern, or a
/// table of patterns by plural category of which `other` must be there. Patterns are checked; every fault in
/// one pass.
///
///     "ACRES SAVED" = "GERETTETE ACRES"
///     "{} acres" = { one = "{} Acre", other = "{} Acres" }
Result<std::map<std::string, Translation, std::less<>>> read_translations(std::string_view text,
                                                                          const std::string& name);
Result<std::map<std::string, Translation, std::less<>>> read_translations_file(const std::string& path);

/// Everything that is wrong with a HUD file, given what it will be shown with: faults of the file, of its
/// formats and of its names, in one list by line. Without a measurer fonts are not checked, and images not without a
/// finder.
Problems check_hud(std::string_view text, const std::string& name, const Sources& sources, TextMeasurer* measurer,
                   ImageFinder* images = nullptr, const IncludeReader& includes = nullptr);

/// What a game did: a row of values for each moment.
class Trace {
 public:
    /// From this row on it has this value; an empty cell is no value.
    struct Change {
        std::size_t row = 0;
        Value value;
    };
    struct Column {
        std::string name;
        Value::Type type = Value::Type::none;  ///< what its values are; none if no row has a value
        std::vector<Change> changes{};         ///< the changes by row; before the first there is no value

        /// The value in a row.
        Value at(std::size_t row) const;
        /// Gives it a value from a row on; rows must not go back.
        void set(std::size_t row, const Value& value);
    };
    struct Row {
        Nanoseconds time;       ///< real time
        Nanoseconds game_time;  ///< the same unless the trace says otherwise
    };

    /// Reads CSV as of RFC 4180. The first row names the columns: `time` in seconds, perhaps `game_time`, and
    /// sources. Times never go back. A column holds integers, numbers, flags (`true`, `false`) or texts:
    /// what its cells have in common; one that begins with a number holds numbers.
    static Result<Trace> read_csv(std::string_view text, const std::string& name);
    /// Reads JSON Lines: an object a line, with the same names. `null` is no value; a name that a line leaves out keeps the
    /// value of the line before. Values are numbers, texts, `true`, `false` and `null`, of one kind for each name; and lists of objects
    /// of such: `"board": [{"name": "Ana"}]` is `"board.1.name": "Ana"`, and what the list lacks has no value.
    static Result<Trace> read_json_lines(std::string_view text, const std::string& name);
    /// Reads what begins with `{` as JSON Lines and everything else as CSV. At most 256 MB and 1024 columns.
    static Result<Trace> read(std::string_view text, const std::string& name);
    static Result<Trace> read_file(const std::string& path);

    const std::vector<Row>& rows() const { return rows_; }
    const std::vector<Column>& columns() const { return columns_; }

 private:
    friend class TraceBuilder;
    std::vector<Row> rows_;
    std::vector<Column> columns_;
    // What text values view: the file, and the cells that had quotes inside.
    std::shared_ptr<const std::string> text_;
    std::vector<std::shared_ptr<const std::string>> unquoted_;
};

/// Plays a trace: its columns as sources that stand at one moment.
class TracePlayer {
 public:
    /// Stands at the first row. The trace must outlive the player, and the player the HUDs that watch it.
    explicit TracePlayer(const Trace& trace);
    TracePlayer(const TracePlayer&) = delete;
    TracePlayer& operator=(const TracePlayer&) = delete;

    /// The columns by name; those like `board.1.name` and `board.2.name` are the entries of the list `board`, too, up to the last of
    /// which anything has a value.
    Sources sources() const;

    /// Goes to `time`: the values are those of the latest row not after it (of the first row, before that).
    /// Gives the game time there, in proportion between two rows.
    Nanoseconds seek(Nanoseconds time);

 private:
    const Trace& trace_;
    std::size_t row_ = 0;
    std::vector<Value> current_;
};

/// A whole file. A problem if it is larger than `limit` bytes or cannot be read.
Result<std::string> read_text_file(const std::string& path, std::size_t limit);

}  // namespace rapido
