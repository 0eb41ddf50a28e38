// What the tool prints: tables and events, as aligned columns or as JSON Lines.
#pragma once

#include <iosfwd>
#include <string>
#include <vector>

#include "rapido/hud.hpp"

namespace rapido::tool {

/// One element at one moment.
struct TableRow {
    Nanoseconds time{0};
    std::string id;
    std::string text;
    std::optional<double> fill;
    Color color;
    bool visible = false;
};

/// What every element of a HUD shows now, in the order of its file; panels are left out.
std::vector<TableRow> rows_of(const Hud& hud, Nanoseconds time);

void print_table(const std::vector<TableRow>& rows, bool json, std::ostream& out);
void print_events(const std::vector<Event>& events, bool json, std::ostream& out);
/// Columns two spaces apart; the first one may be right-aligned, where it holds numbers.
void print_columns(const std::vector<std::vector<std::string>>& rows, bool numbers_first, std::ostream& out);
/// One problem a line.
void print_problems(const Problems& problems, std::ostream& out);

/// Seconds with as many digits as they need, three at least: `12.500`.
std::string seconds_text(Nanoseconds time);

}  // namespace rapido::tool
