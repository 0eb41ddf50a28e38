// What the tool prints: tables and events, as aligned columns or as JSON Lines.
#pragma once

#include <iosfwd>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/hud.hpp"
#include "rapido/value.hpp"

namespace rapido::tool {

/// One element at one moment.
struct TableRow {
    Nanoseconds time{0};
    std::string id, kind, text;
    std::optional<double> fill, trail;
    KeptValue truth, target, shown;
    Color color;
    float opacity = 1, scale = 1, rotation = 0;
    Point offset;
    Rect box;
    bool visible = false;
};

/// What every element of a HUD shows now, in the order of its file; panels are left out.
std::vector<TableRow> rows_of(const Hud& hud, Nanoseconds time);

/// The columns that a table may have, and those that it has unless others are asked for.
std::vector<std::string_view> all_columns();
std::vector<std::string> usual_columns();

/// As aligned columns or as JSON Lines. Columns are those of `all_columns`.
void print_table(const std::vector<TableRow>& rows, const std::vector<std::string>& columns, bool json,
                 std::ostream& out);
void print_events(const std::vector<Event>& events, bool json, std::ostream& out);
/// Columns two spaces apart; the first one may be right-aligned, where it holds numbers.
void print_columns(const std::vector<std::vector<std::string>>& rows, bool numbers_first, std::ostream& out);
/// What is the same for problems that differ in the stamp of a component alone: place, code, and the words without the paths around names.
std::string same_in_stamps(const Problem& problem);
/// One problem a line, with its code in brackets: see `rapido why`. What is wrong in a component is told once, for its first stamp.
void print_problems(const Problems& problems, std::ostream& out);

/// Seconds with as many digits as they need, three at least: `12.500`.
std::string seconds_text(Nanoseconds time);

}  // namespace rapido::tool
