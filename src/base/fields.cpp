#include "base/fields.hpp"

#include <array>
#include <charconv>
#include <cmath>

namespace rapido {
std::string plain_number(double number) {
    std::array<char, 64> text;
    char* const end = text.data() + text.size();
    const double size = std::abs(number);
    const bool is_short = size == 0 || (size >= 1e-9 && size < 1e15);
    const auto made = is_short ? std::to_chars(text.data(), end, number == 0 ? 0.0 : number, std::chars_format::fixed)
                               : std::to_chars(text.data(), end, number);
    return {text.data(), made.ptr};
}

std::string range_of(const Field& field) {
    if (field.type == FieldType::list) return "a list of at most " + std::to_string(field.most);
    if (field.max == std::numeric_limits<double>::max()) return "a finite number";
    return plain_number(field.min) + " to " + plain_number(field.max) + (field.unit.empty() ? "" : " ") +
           std::string(field.unit);
}

bool are_alike(const Table& table, const void* a, const void* b) {
    for (const Field& field : table.fields) {
        const void* const one = field.at(a);
        const void* const other = field.at(b);
        if ((one == nullptr) != (other == nullptr)) return false;
        if (one != nullptr && !field.value->equal(one, other)) return false;
    }
    return true;
}

void check_ranges(const Table& table, const void* aggregate,
                  const std::function<void(std::string_view field, const Field& range)>& report,
                  const std::string& prefix) {
    for (const Field& field : table.fields) {
        const void* const value = field.at(aggregate);
        if (value == nullptr) continue;
        const std::string name = prefix + std::string(field.name);
        if (field.type == FieldType::table) {
            check_ranges(*field.table, value, report, name + ".");
        } else if (field.type == FieldType::list) {
            if (field.item(value, field.most) != nullptr) report(name, field);
            for (std::size_t i = 0; const void* item = field.item(value, i); ++i)
                check_ranges(*field.table, item, report, name + "." + std::to_string(i) + ".");
        } else if (!field.is_within(value, field.min, field.max)) {
            report(name, field);
        }
    }
}

}  // namespace rapido
