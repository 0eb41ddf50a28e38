#include "file/hud_order.hpp"

#include <array>

#include "element/kinds.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

using toml_text::bare;
using toml_text::find;
using toml_text::Item;
using toml_text::Section;
using toml_text::TextValue;

constexpr std::array listed_tables{&timer_table, &frame_meter_table, &effect_table,
                                   &group_table, &language_table,    &accepted_table};

}  // namespace

Order order_of_element(const std::vector<Item>& items) {
    Order order{{"kind", "id", "style", "component", "with"}, nullptr, {"element"}};
    const TextValue* const kind = find(items, "kind");
    const std::string_view name = kind != nullptr ? bare(kind->text) : std::string_view();
    const Kind* const known = find_kind(name);
    order.table = (known != nullptr ? *known : kind_of<Panel>()).table;
    return order;
}

Order order_inside(const Order& around, std::string_view key, const std::vector<Item>& items) {
    if (key == "element") return order_of_element(items);
    if (around.table == &top_table)
        for (const Table* const table : listed_tables)
            if (table->name == key) return {{"id"}, table, {}};
    const Field* const field = around.table != nullptr ? around.table->find(key) : nullptr;
    if (field == nullptr || (field->type != FieldType::table && field->type != FieldType::list)) return {};
    return {{"id"}, field->table, {}};
}

Order order_of(const Section& section) {
    std::string_view name = section.header;
    if (name.empty()) return {{"include"}, &top_table, {"theme", "source", "style", "component", "element"}};
    const bool is_list = name.starts_with("[[");
    name.remove_prefix(is_list ? 2 : 1);
    name.remove_suffix(is_list ? 2 : 1);
    const std::string_view first = name.substr(0, name.find('.'));
    const std::string_view last = name.substr(name.rfind('.') == std::string_view::npos ? 0 : name.rfind('.') + 1);
    if (is_list && last == "element") return order_of_element(section.items);
    if (first == "component" && !is_list) return {{"parameters", "style"}, kind_of<Panel>().table, {"element"}};
    if (first == "style") return {{}, kind_of<Text>().table, {}};
    if (first == "source" && name != "source") return {{}, &source_table, {"fields"}};
    if (!is_list || first != name) return {};
    for (const Table* const table : listed_tables)
        if (name == table->name) return {{"id"}, table, {}};
    return {};
}

bool holds_elements(const Order& order) {
    return !order.last.empty() && order.last.front() == "element" && !order.first.empty() &&
           order.first.front() == "kind";
}

}  // namespace rapido
