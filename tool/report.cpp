#include "tool/report.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <ostream>

#include "base/fields.hpp"
#include "base/instants.hpp"
#include "base/utf8.hpp"

namespace rapido::tool {
namespace {

using Cells = std::vector<std::string>;

using Json = nlohmann::ordered_json;

/// With four digits after the point.
std::string fraction_text(double number) {
    std::array<char, 32> buffer;
    std::snprintf(buffer.data(), buffer.size(), "%.4f", number);
    return buffer.data();
}
std::string fraction_text(const std::optional<double>& number) {
    return number ? fraction_text(*number) : "-";
}

double tenth(float length) {
    return std::round(static_cast<double>(length) * 10) / 10;
}

std::string value_text(const Value& value) {
    if (!value.has_value()) return "-";
    if (value.type() == Value::Type::text) return std::string(value.text());
    if (value.type() == Value::Type::flag) return value.flag() ? "true" : "false";
    return value.is_integer() ? std::to_string(value.int64()) : plain_number(value.number());
}

Json value_json(const Value& value) {
    if (!value.has_value()) return nullptr;
    if (value.type() == Value::Type::text) return std::string(value.text());
    if (value.type() == Value::Type::flag) return value.flag();
    if (value.type() == Value::Type::int64) return value.int64();
    return value.number();
}

Json optional_json(const std::optional<double>& number) {
    return number ? Json(*number) : Json(nullptr);
}

/// A column: its name, and what it has of a row, as a text and as JSON.
struct Column {
    std::string_view name;
    std::string (*text)(const TableRow&);
    Json (*json)(const TableRow&);
};

constexpr std::array table_columns{
    Column{"time", [](const TableRow& row) { return seconds_text(row.time); },
           [](const TableRow& row) { return Json(to_seconds(row.time).count()); }},
    Column{"id", [](const TableRow& row) { return row.id; }, [](const TableRow& row) { return Json(row.id); }},
    Column{"kind", [](const TableRow& row) { return row.kind; }, [](const TableRow& row) { return Json(row.kind); }},
    Column{"text", [](const TableRow& row) { return row.text.empty() ? "-" : row.text; },
           [](const TableRow& row) { return Json(row.text); }},
    Column{"fill", [](const TableRow& row) { return fraction_text(row.fill); },
           [](const TableRow& row) { return optional_json(row.fill); }},
    Column{"trail", [](const TableRow& row) { return fraction_text(row.trail); },
           [](const TableRow& row) { return optional_json(row.trail); }},
    Column{"truth", [](const TableRow& row) { return value_text(row.truth.get()); },
           [](const TableRow& row) { return value_json(row.truth.get()); }},
    Column{"target", [](const TableRow& row) { return value_text(row.target.get()); },
           [](const TableRow& row) { return value_json(row.target.get()); }},
    Column{"shown", [](const TableRow& row) { return value_text(row.shown.get()); },
           [](const TableRow& row) { return value_json(row.shown.get()); }},
    Column{"color", [](const TableRow& row) { return to_string(row.color); },
           [](const TableRow& row) { return Json(to_string(row.color)); }},
    Column{"opacity", [](const TableRow& row) { return fraction_text(static_cast<double>(row.opacity)); },
           [](const TableRow& row) { return Json(row.opacity); }},
    Column{"scale", [](const TableRow& row) { return fraction_text(static_cast<double>(row.scale)); },
           [](const TableRow& row) { return Json(row.scale); }},
    Column{"rotation", [](const TableRow& row) { return plain_number(tenth(row.rotation)); },
           [](const TableRow& row) { return Json(row.rotation); }},
    Column{
        "offset",
        [](const TableRow& row) { return plain_number(tenth(row.offset.x)) + "," + plain_number(tenth(row.offset.y)); },
        [](const TableRow& row) {
            return Json{row.offset.x, row.offset.y};
        }},
    Column{"box",
           [](const TableRow& row) {
               return plain_number(tenth(row.box.x)) + "," + plain_number(tenth(row.box.y)) + "," +
                      plain_number(tenth(row.box.width)) + "x" + plain_number(tenth(row.box.height));
           },
           [](const TableRow& row) {
               return Json{row.box.x, row.box.y, row.box.width, row.box.height};
           }},
    Column{"visible", [](const TableRow& row) { return std::string(row.visible ? "yes" : "no"); },
           [](const TableRow& row) { return Json(row.visible); }},
};

std::vector<const Column*> columns_of(const std::vector<std::string>& names) {
    std::vector<const Column*> found;
    for (const std::string& name : names)
        for (const Column& column : table_columns)
            if (column.name == name) found.push_back(&column);
    return found;
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
        rows.push_back({.time = time,
                        .id = std::string(shown.id),
                        .kind = std::string(shown.kind),
                        .text = std::string(shown.text),
                        .fill = shown.fill,
                        .trail = shown.trail,
                        .truth = shown.truth,
                        .target = shown.target,
                        .shown = shown.shown,
                        .color = shown.color,
                        .opacity = shown.opacity,
                        .scale = shown.scale,
                        .rotation = shown.rotation,
                        .offset = shown.offset,
                        .box = shown.drawn_box,
                        .visible = shown.visible});
    }
    return rows;
}

std::vector<std::string_view> all_columns() {
    std::vector<std::string_view> names;
    for (const Column& column : table_columns)
        names.push_back(column.name);
    return names;
}

std::vector<std::string> usual_columns() {
    return {"time", "id", "text", "fill", "color", "visible"};
}

void print_table(const std::vector<TableRow>& rows, const std::vector<std::string>& names, bool json,
                 std::ostream& out) {
    const std::vector<const Column*> columns = columns_of(names);
    if (json) {
        for (const TableRow& row : rows) {
            Json line;
            for (const Column* const column : columns)
                line[std::string(column->name)] = column->json(row);
            out << line.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) << '\n';
        }
        return;
    }
    std::vector<Cells> cells(1);
    for (const Column* const column : columns)
        cells.front().emplace_back(column->name);
    for (const TableRow& row : rows) {
        Cells& line = cells.emplace_back();
        for (const Column* const column : columns)
            line.push_back(column->text(row));
    }
    print_columns(cells, !names.empty() && names.front() == "time", out);
}

void print_events(const std::vector<Event>& events, bool json, std::ostream& out) {
    if (json) {
        for (const Event& event : events) {
            nlohmann::ordered_json line{{"time", to_seconds(event.time).count()},
                                        {"id", event.id},
                                        {"event", to_string(event.kind)},
                                        {"detail", event.detail}};
            if (event.key.get().has_value()) line["key"] = value_json(event.key.get());
            out << line.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) << '\n';
        }
        return;
    }
    const bool has_keys =
        std::any_of(events.begin(), events.end(), [](const Event& event) { return event.key.get().has_value(); });
    std::vector<Cells> cells{{"time", "id", "event", "detail"}};
    if (has_keys) cells.front().push_back("key");
    for (const Event& event : events) {
        cells.push_back({seconds_text(event.time), event.id, std::string(to_string(event.kind)),
                         event.detail.empty() ? "-" : event.detail});
        if (has_keys) cells.back().push_back(event.key.get().has_value() ? value_text(event.key.get()) : "-");
    }
    print_columns(cells, true, out);
}

std::string same_in_stamps(const Problem& problem) {
    if (problem.location.line == 0) return to_string(problem);
    std::string same = problem.location.file + ":" + std::to_string(problem.location.line) + ":" +
                       std::to_string(problem.location.column) + " " + std::string(to_string(problem.code)) + " ";
    // Of a name in quotes, its last part.
    const std::string& words = problem.message;
    for (std::size_t begin = 0; begin < words.size();) {
        const std::size_t open = std::min(words.find('\'', begin), words.size());
        const std::size_t close = std::min(words.find('\'', open + 1), words.size());
        same += words.substr(begin, open - begin);
        const std::string name = words.substr(open, close - open);
        const std::size_t dot = name.rfind('.');
        same += dot == std::string::npos ? name : name.substr(dot + 1);
        begin = close + 1;
    }
    return same;
}

void print_problems(const Problems& problems, std::ostream& out) {
    std::map<std::string, int> times;
    for (const Problem& problem : problems)
        ++times[same_in_stamps(problem)];
    for (const Problem& problem : problems) {
        int& count = times[same_in_stamps(problem)];
        if (count == 0) continue;
        out << to_string(problem);
        if (count > 1) out << " (and " << count - 1 << " more like it)";
        count = 0;
        if (problem.code != ProblemCode::other) out << " [" << to_string(problem.code) << "]";
        out << '\n';
    }
}

}  // namespace rapido::tool
