#include "tool/report.hpp"

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/instants.hpp"
#include "base/utf8.hpp"

namespace rapido::tool {
namespace {

using Cells = std::vector<std::string>;

std::string fill_text(const std::optional<double>& fill) {
    if (!fill) return "-";
    std::array<char, 32> buffer;
    std::snprintf(buffer.data(), buffer.size(), "%.4f", *fill);
    return buffer.data();
}

}  // namespace

void print_columns(const std::vector<Cells>& rows, bool numbers_first, std::ostream& out) {
    std::vector<std::size_t> widths(rows.front().size());
    for (const Cells& row : rows)
        for (std::size_t i = 0; i < row.size(); ++i)
            widths[i] = std::max(widths[i], utf8::length(row[i]));
    for (const Cells& row : rows) {
        std::string line;
        for (std::size_t i = 0; i < row.size(); ++i) {
            const std::string padding(widths[i] - utf8::length(row[i]), ' ');
            line += (i > 0 ? "  " : "") + (i == 0 && numbers_first ? padding + row[i] : row[i] + padding);
        }
        line.erase(line.find_last_not_of(' ') + 1);
        out << line << '\n';
    }
}

std::string seconds_text(Nanoseconds time) {
    return rapido::seconds_text(time, 3);
}

std::vector<TableRow> rows_of(const Hud& hud, Nanoseconds time) {
    std::vector<TableRow> rows;
    for (const ElementRef element : hud.elements()) {
        const Shown shown = hud[element];
        if (shown.kind == "panel") continue;
        rows.push_back(
            {time, std::string(shown.id), std::string(shown.text), shown.fill, shown.color, shown.visible});
    }
    return rows;
}

void print_table(const std::vector<TableRow>& rows, bool json, std::ostream& out) {
    if (json) {
        for (const TableRow& row : rows) {
            nlohmann::ordered_json line{{"time", to_seconds(row.time).count()},
                                        {"id", row.id},
                                        {"text", row.text},
                                        {"fill", nullptr},
                                        {"color", to_string(row.color)},
                                        {"visible", row.visible}};
            if (row.fill) line["fill"] = *row.fill;
            out << line.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) << '\n';
        }
        return;
    }
    std::vector<Cells> cells{{"time", "id", "text", "fill", "color", "visible"}};
    for (const TableRow& row : rows)
        cells.push_back({seconds_text(row.time), row.id, row.text.empty() ? "-" : row.text,
                         fill_text(row.fill), to_string(row.color), row.visible ? "yes" : "no"});
    print_columns(cells, true, out);
}

void print_events(const std::vector<Event>& events, bool json, std::ostream& out) {
    if (json) {
        for (const Event& event : events)
            out << nlohmann::ordered_json{{"time", to_seconds(event.time).count()},
                                          {"id", event.id},
                                          {"event", to_string(event.kind)},
                                          {"detail", event.detail}}
                       .dump(-1, ' ', false, nlohmann::json::error_handler_t::replace)
                << '\n';
        return;
    }
    std::vector<Cells> cells{{"time", "id", "event", "detail"}};
    for (const Event& event : events)
        cells.push_back({seconds_text(event.time), event.id, std::string(to_string(event.kind)),
                         event.detail.empty() ? "-" : event.detail});
    print_columns(cells, true, out);
}

void print_problems(const Problems& problems, std::ostream& out) {
    for (const Problem& problem : problems)
        out << to_string(problem) << '\n';
}

}  // namespace rapido::tool
