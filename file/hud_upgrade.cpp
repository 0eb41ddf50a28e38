#include "file/hud_upgrade.hpp"

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <utility>
#include <vector>

#include "element/kinds.hpp"
#include "file/hud_order.hpp"
#include "hud/definition_tables.hpp"

namespace rapido {
namespace {

using toml_text::bare;
using toml_text::Item;
using toml_text::Section;
using toml_text::TextValue;

struct Renamed {
    std::string_view owner, before, now;
};

/// What all kinds of element have, or all that follow a value.
constexpr std::string_view any_kind = "element";

constexpr std::array old_keys{
    Renamed{"the HUD", "meter", "frame_meter"},
    Renamed{"the HUD", "locale", "language"},
    Renamed{"language", "locale", "language"},
    Renamed{"timer", "begin", "elapsed"},
    Renamed{"timer", "start", "start_when"},
    Renamed{"timer", "pause", "pause_when"},
    Renamed{any_kind, "effects", "triggers"},
    Renamed{any_kind, "rise", "motion_up"},
    Renamed{any_kind, "fall", "motion_down"},
    Renamed{"text", "compact", "compact_digits"},
    Renamed{"text", "pictures", "inline_images"},
    Renamed{"notice", "pictures", "inline_images"},
    Renamed{"notice", "gap", "time_between"},
    Renamed{"notice", "spacing", "gap"},
    Renamed{"notice", "at_once", "at_most"},
    Renamed{"message", "time", "show_for"},
    Renamed{"list", "most", "at_most"},
    Renamed{"markers", "most", "at_most"},
    Renamed{"pop_ups", "most", "at_most"},
    Renamed{"pop_ups", "time", "show_for"},
    Renamed{"level", "map", "fill_map"},
    Renamed{"level", "map_softness", "fill_map_softness"},
    Renamed{"level", "outline", "corners"},
    Renamed{"dial", "marks", "ticks"},
    Renamed{"ruler", "marks", "ticks"},
    Renamed{"ruler", "window", "visible_span"},
    Renamed{"graph", "samples", "resolution"},
    Renamed{"image", "cover", "lid"},
    Renamed{"pips", "shine", "in_turn"},
    Renamed{"part", "of", "where"},
    Renamed{"band", "of", "edge_unit"},
    Renamed{"band", "on", "reads"},
    Renamed{"band", "margin", "hysteresis"},
    Renamed{"pace", "window", "pick"},
    Renamed{"motion", "full_jump", "full_duration_at"},
    Renamed{"trigger", "full_change", "full_strength_at"},
};

/// The owner is the key that the word is the value of.
constexpr std::array old_words{
    Renamed{"kind", "scale", "ruler"},          Renamed{"kind", "tags", "markers"},
    Renamed{"kind", "popups", "pop_ups"},       Renamed{"layout", "stack", "free"},
    Renamed{"fill_by", "level", "extent"},      Renamed{"justify", "space_between", "space-between"},
    Renamed{"fit", "scale_down", "scale-down"}, Renamed{"image_fit", "scale_down", "scale-down"},
};

constexpr std::array old_calls{
    Renamed{"", "pop", "pop_up"},
    Renamed{"", "tag", "add_marker"},
    Renamed{"", "set_scale", "set_ui_scale"},
};

template <std::size_t count>
std::string_view find(const std::array<Renamed, count>& all, std::string_view owner, std::string_view before) {
    const auto found = std::find_if(all.begin(), all.end(),
                                    [&](const Renamed& one) { return one.owner == owner && one.before == before; });
    return found != all.end() ? found->now : std::string_view();
}

bool is_kind(std::string_view name) {
    return find_kind(name) != nullptr;
}

/// A style serves elements of any kind: what only one of them could mean. Its outline is that of a text, unless it is a list of corners.
std::string_view renamed_in_style(std::string_view key, const TextValue& value) {
    if (const std::string_view now = find(old_keys, any_kind, key); !now.empty()) return now;
    if (key == "gap" || key == "time" || (key == "outline" && value.kind != TextValue::Kind::list)) return {};
    for (const Kind* const kind : all_kinds())
        if (const std::string_view now = find(old_keys, kind->name(), key); !now.empty()) return now;
    return {};
}

void set_bare(std::string& text, std::string_view now) {
    const bool is_quoted = text.size() >= 2 && (text.front() == '"' || text.front() == '\'');
    text = is_quoted ? text.front() + std::string(now) + text.back() : std::string(now);
}

/// Upgrades the sections of a file, in their order.
class Upgrade {
 public:
    void upgrade_section(Section& section) {
        upgrade_kind(section.items);
        upgrade_scaled(section.items);
        if (section.header.empty()) return upgrade_items(section.items, order_of(section));
        const std::string brackets = section.header.starts_with("[[") ? "[[" : "[";
        const std::string_view name =
            std::string_view(section.header).substr(brackets.size(), section.header.size() - 2 * brackets.size());
        std::string path;
        Inside inside{order_of({}), false};
        const std::vector<std::string_view> parts = toml_text::parts_of(name);
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const std::string part = renamed(parts[i], inside);
            path += (path.empty() ? "" : ".") + part;
            const auto open = open_.find(path);
            const bool is_last = i + 1 == parts.size();
            if (!is_last && open != open_.end())
                inside = open->second;
            else
                inside = i < 2 ? named(bare(parts.front()), i).value_or(next(inside, part, section.items))
                               : next(inside, part, section.items);
        }
        open_.insert_or_assign(path, inside);
        section.header = brackets + path + (brackets.size() == 2 ? "]]" : "]");
        upgrade_items(section.items, inside.order, inside.is_style);
    }

    /// How many values stand in another one now.
    std::size_t joined() const { return joined_; }

 private:
    /// The table that a header, or the parts of a key before the last, lead into.
    struct Inside {
        Order order{};
        bool is_style = false;
    };

    /// What leads into styles and components, by names of one's own; nothing for another part.
    static std::optional<Inside> named(std::string_view first, std::size_t part) {
        if (first != "style" && first != "component") return std::nullopt;
        if (part == 0) return Inside{};
        return first == "style" ? Inside{{}, true} : Inside{{{}, kind_of<Panel>().table, {}}, false};
    }

    static Inside next(const Inside& around, std::string_view part, const std::vector<Item>& items) {
        // A style has the keys of any kind; which of them has tables inside is asked of the first that has this one.
        if (around.is_style) {
            for (const Kind* const kind : all_kinds())
                if (kind->table->find(bare(part)) != nullptr)
                    return {order_inside({{}, kind->table, {}}, bare(part), items), false};
        }
        return {order_inside(around.order, bare(part), items), false};
    }

    /// One part of a key, by its new name where it has one.
    static std::string renamed(std::string_view part, const Inside& around, const TextValue& value = {}) {
        const Table* const table = around.order.table;
        const std::string_view now = around.is_style    ? renamed_in_style(bare(part), value)
                                     : table == nullptr ? std::string_view()
                                                        : renamed_key(table->name, bare(part));
        return std::string(now.empty() ? part : now);
    }

    static void upgrade_kind(std::vector<Item>& items) {
        for (Item& item : items)
            if (bare(item.key) == "kind") upgrade_plain("kind", item.value.text);
    }

    static void upgrade_plain(std::string_view key, std::string& text) {
        if (text.empty() || (text.front() != '"' && text.front() != '\'')) return;
        if (const std::string_view now = renamed_word(key, bare(text)); !now.empty()) set_bare(text, now);
        text = upgraded_pattern(text);
    }

    /// What was scaled and moved is computed: `{ source = "a", scale = 2 }` is `"a * 2"`. What the HUD tells as a time became a number.
    bool upgrade_scaled(std::vector<Item>& items) {
        const TextValue* const source = find_value(items, "source");
        const TextValue* const scale = find_value(items, "scale");
        const TextValue* const offset = find_value(items, "offset");
        if (source == nullptr || source->text.empty() || (scale == nullptr && offset == nullptr)) return false;
        std::string written(bare(source->text));
        const std::string_view last = std::string_view(written).substr(written.rfind('.') + 1);
        constexpr std::array<std::string_view, 4> times{"left", "elapsed", "duration", "frame_time"};
        if (written.find('.') != std::string::npos && std::find(times.begin(), times.end(), last) != times.end())
            written = "seconds(" + written + ")";
        else if (written.find(' ') != std::string::npos)
            written = "(" + written + ")";
        if (scale != nullptr && scale->text != "1") written += " * " + scale->text;
        if (offset != nullptr && offset->text.starts_with('-'))
            written += " - " + offset->text.substr(1);
        else if (offset != nullptr && offset->text != "0")
            written += " + " + offset->text;
        const std::string quoted = '"' + written + '"';
        joined_ += std::erase_if(
            items, [](const Item& item) { return bare(item.key) == "scale" || bare(item.key) == "offset"; });
        find_value(items, "source")->text = quoted;
        return true;
    }

    static TextValue* find_value(std::vector<Item>& items, std::string_view key) {
        const auto found =
            std::find_if(items.begin(), items.end(), [key](const Item& item) { return bare(item.key) == key; });
        return found != items.end() ? &found->value : nullptr;
    }

    /// Ticks across a bar and a graph were a list, and the numbers at them stood beside it.
    static void upgrade_ticks(std::vector<Item>& items, bool is_graph) {
        TextValue* ticks = find_value(items, "ticks");
        if (ticks != nullptr && ticks->kind == TextValue::Kind::list) {
            Item at{.key = "at", .value = std::move(*ticks)};
            *ticks = TextValue{.kind = TextValue::Kind::table, .items = {}};
            ticks->items.push_back(std::move(at));
        }
        if (!is_graph) return;
        for (const auto& [before, now] : {std::pair("tick_format", "format"), std::pair("size", "size")}) {
            const auto known = std::find_if(items.begin(), items.end(),
                                            [before = before](const Item& item) { return bare(item.key) == before; });
            if (known == items.end()) continue;
            Item moved{.key = now, .value = std::move(known->value)};
            items.erase(known);
            if (find_value(items, "ticks") == nullptr)
                items.push_back({.key = "ticks", .value = {.kind = TextValue::Kind::table, .items = {}}});
            find_value(items, "ticks")->items.push_back(std::move(moved));
        }
    }

    void upgrade_items(std::vector<Item>& items, const Order& order, bool is_style = false) {
        const std::string_view owner = order.table != nullptr ? order.table->name : std::string_view();
        if (is_style || owner == "bar" || owner == "graph") upgrade_ticks(items, owner == "graph");
        for (Item& item : items) {
            // The parts of a dotted key lead into tables.
            std::string key, last;
            Inside inside{order, is_style};
            for (const std::string_view part : toml_text::parts_of(item.key)) {
                last = renamed(part, inside, item.value);
                key += (key.empty() ? "" : ".") + last;
                inside = next(inside, last, item.value.items);
            }
            item.key = key;
            upgrade_value(item.value, inside.order, bare(last));
        }
    }

    void upgrade_value(TextValue& value, const Order& order, std::string_view key) {
        if (value.kind == TextValue::Kind::plain) return upgrade_plain(key, value.text);
        const bool is_element = key == "element" || holds_elements(order);
        if (value.kind == TextValue::Kind::list) {
            for (Item& item : value.items)
                upgrade_value(item.value, order, key);
            return;
        }
        if (upgrade_scaled(value.items) && value.items.size() == 1) {
            value = TextValue(std::move(value.items.front().value));
            return;
        }
        if (is_element) upgrade_kind(value.items);
        upgrade_items(value.items, is_element ? order_of_element(value.items) : order);
    }

    std::map<std::string, Inside, std::less<>> open_;  ///< by the header that was read last
    std::size_t joined_ = 0;
};

}  // namespace

std::string_view renamed_key(std::string_view owner, std::string_view key) {
    const std::string_view now = find(old_keys, owner, key);
    // How far a pop-up rises is still called so.
    const bool is_general = now.empty() && is_kind(owner) && !(owner == "pop_ups" && key == "rise");
    return is_general ? find(old_keys, any_kind, key) : now;
}

std::string_view renamed_word(std::string_view key, std::string_view word) {
    return find(old_words, key, word);
}

std::string_view renamed_call(std::string_view call) {
    return find(old_calls, "", call);
}

std::string renamed_hint(std::string_view now) {
    return "it is '" + std::string(now) + "' since version 0.2; 'rapido format --from 0.1' writes all new names";
}

std::string upgraded_pattern(std::string_view pattern) {
    std::string made;
    std::vector<std::string_view> open;
    while (!pattern.empty()) {
        const std::size_t close = pattern.starts_with("{<") ? pattern.find(">}") : std::string_view::npos;
        if (pattern.starts_with("{{") || close == std::string_view::npos) {
            const std::size_t taken = pattern.starts_with("{{") ? 2 : 1;
            made += pattern.substr(0, taken);
            pattern.remove_prefix(taken);
            continue;
        }
        const std::string_view name = pattern.substr(2, close - 2);
        pattern.remove_prefix(close + 2);
        if (name != "/") {
            made += "{#" + std::string(name) + "}";
            if (!name.ends_with('/')) open.push_back(name);
        } else if (open.empty()) {
            made += "{</>}";  // which ended nothing
        } else {
            made += "{/" + std::string(open.back()) + "}";
            open.pop_back();
        }
    }
    return made;
}

std::size_t upgrade(toml_text::Text& text) {
    Upgrade upgrade;
    for (Section& section : text.sections)
        upgrade.upgrade_section(section);
    return upgrade.joined();
}

}  // namespace rapido
