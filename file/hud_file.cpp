// HUD files: TOML, read field by field out of the descriptions.
#include <algorithm>
#include <array>
#include <deque>
#include <map>
#include <numeric>
#include <set>
#include <utility>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "file/components.hpp"
#include "file/fields_reader.hpp"
#include "file/first_problems.hpp"
#include "file/hud_part.hpp"
#include "file/prescan.hpp"
#include "file/syntax_problem.hpp"
#include "file/toml.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/file.hpp"
#include "rapido/hud/hud.hpp"

namespace rapido {
namespace {

constexpr std::size_t largest_hud = 4'000'000;
constexpr std::size_t most_elements = 4'000;  ///< what a short file asks for must not take gigabytes
constexpr int deepest_stamp = 16;
constexpr std::size_t most_others = 1'000;  ///< timers, meters, effects, groups, locales

class HudReader {
 public:
    HudReader(std::string_view text, std::string name) : text_(text), name_(std::move(name)) {}
    /// It may name what is elsewhere.
    void set_part() { is_part_ = true; }

    HudDefinition definition;
    FirstProblems problems;
    std::vector<Location> damaged;  ///< tables with faults of their own

    void read() {
        const Location whole{name_};
        if (text_.size() > largest_hud)
            return reader_.fail(ProblemCode::too_large, whole, "is larger than 4 MB");
        if (const int line = utf8::line_of_fault(text_); line > 0)
            return reader_.fail(ProblemCode::syntax, {name_, line, 0}, "is not valid UTF-8",
                                "save it in this encoding");
        if (auto problem = prescan_toml(text_, name_)) return problems.add(*std::move(problem));
        const toml::parse_result parsed = toml::parse(text_, name_);
        if (!parsed) return problems.add(syntax_problem(parsed.error(), text_, name_));
        read_top(parsed.table());
    }

 private:
    /// The elements that stand inside one, or on the screen.
    struct Around {
        std::string path{};  ///< of the panel; empty is the screen
        bool is_stamp = false;
        int depth = 0;  ///< how many stamps stand around
    };

    void read_top(const toml::table& top) {
        definition.origin.location = {name_, 1, 1};
        for (std::size_t i = 0; i < kind_names_.size(); ++i)
            kind_names_[i] = all_kinds()[i]->name();
        // What elements refer to comes first.
        if (is_part_) reader_.allow_themes();
        if (const toml::node* const themes = top.get("theme")) read_themes(*themes);
        if (const toml::node* const styles = top.get("style")) read_styles(*styles);
        if (const toml::node* const components = top.get("component"))
            components_.read(*components, kind_names_);
        for (const auto& [key, node] : top) {
            if (key.str() == "style" || key.str() == "component" || key.str() == "theme") continue;
            if (key.str() == "source") {
                read_sources(node);
                continue;
            }
            if (key.str() == "element")
                read_list(key, node, [&](const toml::table& table) { read_element(table, {}); });
            else if (key.str() == "timer")
                read_list_of(key, node, timer_table, definition.timers, definition.timer_origins);
            else if (key.str() == "meter")
                read_list_of(key, node, meter_table, definition.meters, definition.meter_origins);
            else if (key.str() == "effect")
                read_list_of(key, node, effect_table, definition.effects, definition.effect_origins);
            else if (key.str() == "locale")
                read_list_of(key, node, locale_table, definition.locales, definition.locale_origins);
            else if (key.str() == "group")
                read_list_of(key, node, group_table, definition.groups, definition.group_origins);
            else
                read_option(key, node);
        }
        for (const auto& [name, style] : styles_)
            if (!style.is_used) check_style(name, *style.table);
        if (!is_part_) check_panels();
    }

    /// A list without a component has panels that are written one by one.
    void check_panels() {
        std::set<std::string> paths;
        for (const Element& element : definition.elements)
            std::visit([&](const auto& any) { paths.insert(any.inside + "." + any.id); }, element);
        for (const auto& [first_panel, list, place] : without_component_)
            if (!paths.contains(first_panel))
                reader_.fail(ProblemCode::missing_key, place, list + " has no 'component'",
                             "name the one that shows an entry");
    }

    void read_option(const toml::key& key, const toml::node& node) {
        const FieldsReader::Owner owner{std::string(top_table.name)};
        if (const Field* known = top_table.find(key.str()))
            return reader_.read_field(*known, node, &definition, owner, std::string(key.str()),
                                      definition.origin);
        std::vector<std::string_view> names{"element", "timer", "meter",     "effect", "locale",
                                            "group",   "style", "component", "theme",  "source"};
        for (const Field& field : top_table.fields)
            names.push_back(field.name);
        reader_.unknown_key(key, std::move(names), "the HUD");
    }

    template <class Read>
    void read_list(const toml::key& key, const toml::node& node, Read read) {
        const toml::array* list = node.as_array();
        if (list == nullptr)
            return reader_.fail(ProblemCode::wrong_type, key,
                                "'" + std::string(key.str()) + "' is " + std::string(type_name(node)) +
                                    "; expected a list of tables",
                                "write '[[" + std::string(key.str()) + "]]'");
        const std::size_t most = key.str() == "element" ? most_elements : most_others;
        if (list->size() > most)
            return reader_.fail(ProblemCode::too_large, key,
                                std::to_string(list->size()) + " of '" + std::string(key.str()) +
                                    "'; at most " + std::to_string(most));
        read_items(key.str(), *list, read);
    }

    template <class Read>
    void read_items(std::string_view name, const toml::array& list, Read read) {
        for (const toml::node& item : list) {
            if (const toml::table* table = item.as_table())
                read(*table);
            else
                reader_.fail(ProblemCode::wrong_type, item,
                             "'" + std::string(name) + "' holds " + std::string(type_name(item)) +
                                 "; expected a table");
        }
    }

    template <class Aggregate>
    void read_list_of(const toml::key& key, const toml::node& node, const Table& description,
                      std::vector<Aggregate>& list, std::vector<Origin>& origins) {
        read_list(key, node, [&](const toml::table& table) {
            const FieldsReader::Owner owner{name_of(description.name, table)};
            Origin& origin = origins.emplace_back();
            origin.location = reader_.place(table);
            const std::size_t before = problems.count();
            reader_.read(table, description, &list.emplace_back(), owner, origin);
            reader_.require(std::array{&table}, description, owner);
            if (problems.count() > before) damaged.push_back(origin.location);
        });
    }

    static std::string name_of(std::string_view kind, const toml::table& table) {
        const std::string id = id_of(table);
        return std::string(kind) + (id.empty() ? "" : " '" + utf8::shortened(id) + "'");
    }
    static std::string id_of(const toml::table& table) {
        const toml::node* const id = table.get("id");
        return id != nullptr ? id->value_exact<std::string>().value_or("") : "";
    }

    /// In the order in which they are written: the first one is used first.
    void read_themes(const toml::node& node) {
        const toml::table* const all = node.as_table();
        if (all == nullptr) return reader_.expected(node, "'theme'", "tables, [theme.NAME.color]");
        reader_.allow_themes();
        for (const auto& [key, theme] : *all) {
            const toml::table* const table = theme.as_table();
            if (table == nullptr) {
                reader_.expected(theme, "theme '" + utf8::shortened(key.str()) + "'", "a table");
                continue;
            }
            Theme& made = definition.themes.emplace_back();
            made.id = key.str();
            Origin& origin = definition.theme_origins.emplace_back();
            origin.location = reader_.place(key);
            reader_.read_theme(*table, made, origin);
        }
        std::vector<std::size_t> order(definition.themes.size());
        std::iota(order.begin(), order.end(), std::size_t{0});
        std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            const Location& first = definition.theme_origins[a].location;
            const Location& second = definition.theme_origins[b].location;
            return std::pair(first.line, first.column) < std::pair(second.line, second.column);
        });
        std::vector<Theme> themes;
        std::vector<Origin> origins;
        for (const std::size_t i : order) {
            themes.push_back(std::move(definition.themes[i]));
            origins.push_back(std::move(definition.theme_origins[i]));
        }
        definition.themes = std::move(themes);
        definition.theme_origins = std::move(origins);
    }

    /// What the HUD expects of the game, in the order in which it is written.
    void read_sources(const toml::node& node) {
        const toml::table* const all = node.as_table();
        if (all == nullptr) return reader_.expected(node, "'source'", "tables, [source.\"NAME\"]");
        if (all->size() > most_others)
            return reader_.fail(
                ProblemCode::too_large, node,
                std::to_string(all->size()) + " of 'source'; at most " + std::to_string(most_others));
        std::map<std::pair<int, int>, std::pair<DeclaredSource, Origin>> in_order;
        for (const auto& [key, value] : *all) {
            const std::string owner = "source '" + utf8::shortened(key.str()) + "'";
            const toml::table* const table = value.as_table();
            if (table == nullptr) {
                reader_.expected(value, owner, "a table");
                continue;
            }
            const Location place = reader_.place(key);
            auto& [source, origin] = in_order[{place.line, place.column}];
            source.name = key.str();
            origin.location = place;
            const std::size_t before = problems.count();
            reader_.read(*table, source_table, &source, {owner}, origin);
            if (problems.count() == before) check_source(source, *table, owner);
        }
        for (auto& [place, declared] : in_order) {
            definition.sources.push_back(std::move(declared.first));
            definition.source_origins.push_back(std::move(declared.second));
        }
    }

    /// That its range and its samples are those of its type.
    void check_source(DeclaredSource& source, const toml::table& table, const std::string& owner) {
        const bool is_amount = source.type != SourceType::flag && source.type != SourceType::text;
        const bool has_range = source.range.low != source.range.high;
        const std::string type(Choices<SourceType>::names[static_cast<std::size_t>(source.type)]);
        if (table.contains("range") && !is_amount)
            reader_.fail(ProblemCode::contradiction, *table.get("range"),
                         "'range' of " + owner + ", which is a " + type, "give its values as 'sample'");
        else if (table.contains("range") && !(source.range.low < source.range.high))
            reader_.fail(ProblemCode::out_of_range, *table.get("range"),
                         "'range' of " + owner + " is empty; expected [low, high]");
        for (KeptValue& kept : source.sample) {
            const Value value = kept.get();
            const bool fits = source.type == SourceType::text      ? value.type() == Value::Type::text
                              : source.type == SourceType::flag    ? value.type() == Value::Type::boolean
                              : source.type == SourceType::integer ? value.is_integer()
                                                                   : value.is_integer() || value.is_real();
            if (!fits) {
                const char* const article = source.type == SourceType::integer ? "an " : "a ";
                return reader_.fail(
                    ProblemCode::wrong_type, *table.get("sample"),
                    "'sample' of " + owner + " does not hold " + article + type + ", which it is");
            }
            if (is_amount && has_range &&
                !(value.number() >= source.range.low && value.number() <= source.range.high))
                return reader_.fail(ProblemCode::out_of_range, *table.get("sample"),
                                    "'sample' of " + owner + " is " + plain_number(value.number()) +
                                        ", which is outside of its range, " + plain_number(source.range.low) +
                                        " to " + plain_number(source.range.high));
            if (source.type == SourceType::number) kept = KeptValue(Value(value.number()));
        }
    }

    // --- Styles

    struct Style {
        const toml::table* table = nullptr;
        bool is_used = false;
    };

    void read_styles(const toml::node& node) {
        const toml::table* const all = node.as_table();
        if (all == nullptr) return reader_.expected(node, "'style'", "tables, [style.NAME]");
        for (const auto& [key, style] : *all) {
            if (const toml::table* const table = style.as_table()) {
                styles_[std::string(key.str())].table = table;
                read_text_style(key, *table);
            } else {
                reader_.expected(style, "style '" + utf8::shortened(key.str()) + "'", "a table");
            }
        }
    }

    /// What of a style pieces of texts take. Its faults are told where an element takes them.
    void read_text_style(const toml::key& key, const toml::table& table) {
        FirstProblems told_elsewhere;
        FieldsReader reader(name_, told_elsewhere);
        if (is_part_ || !definition.themes.empty()) reader.allow_themes();
        TextStyle style;
        Origin origin;
        origin.location = reader.place(key);
        FieldsReader::Owner owner{.name = "style '" + std::string(key.str()) + "'"};
        for (const auto& [field, node] : table)
            if (field.str() == "id" || text_style_table.find(field.str()) == nullptr)
                owner.other_keys.push_back(field.str());
        reader.read(table, text_style_table, &style, owner, origin);
        style.id = key.str();
        definition.styles.push_back(std::move(style));
        definition.style_origins.push_back(std::move(origin));
    }

    /// Nobody uses it, but its words should be right all the same: for the first kind that has them all.
    void check_style(const std::string& name, const toml::table& table) {
        const std::string owner = "style '" + utf8::shortened(name) + "'";
        const auto& kinds = all_kinds();
        for (const auto& entry : table) {
            const toml::key& key = entry.first;
            if (std::any_of(kinds.begin(), kinds.end(),
                            [&](const Kind* kind) { return kind->table->find(key.str()) != nullptr; }))
                continue;
            std::vector<std::string_view> names;
            for (const Kind* const kind : kinds)
                for (const Field& field : kind->table->fields)
                    names.push_back(field.name);
            return reader_.unknown_key(key, std::move(names), owner);
        }
        for (const Kind* const kind : kinds) {
            if (std::any_of(table.begin(), table.end(),
                            [&](const auto& entry) { return !kind->table->find(entry.first.str()); }))
                continue;
            Element element = kind->create();
            Origin origin;
            return reader_.read(table, *kind->table, address_of(element), {owner}, origin);
        }
    }

    /// The fields of the styles that a table names, in their order. Returns the tables.
    std::vector<const toml::table*> read_styles_of(const toml::table& table, const Table& description,
                                                   void* aggregate, const std::string& name, Origin& origin) {
        std::vector<const toml::table*> read;
        const toml::node* const names = table.get("style");
        if (names == nullptr) return read;
        const std::string field = "'style' of " + name;
        const auto read_one = [&](const toml::node& node) {
            const auto word = node.value_exact<std::string>();
            if (!word) return reader_.expected(node, field, "the name of a style, or a list of names");
            const auto style = styles_.find(*word);
            if (style == styles_.end()) {
                std::vector<std::string_view> known;
                for (const auto& [id, other] : styles_)
                    known.push_back(id);
                return reader_.fail(ProblemCode::unknown_name, node,
                                    field + ": no style '" + utf8::shortened(*word) + "'",
                                    did_you_mean(*word, known));
            }
            style->second.is_used = true;
            read.push_back(style->second.table);
            reader_.read(*style->second.table, description, aggregate,
                         {.name = name, .other_keys = {}, .has_earlier = true, .style = &node}, origin);
        };
        if (const toml::array* const list = names->as_array()) {
            for (const toml::node& item : *list)
                read_one(item);
        } else {
            read_one(*names);
        }
        return read;
    }

    // --- Elements

    void read_element(const toml::table& table, const Around& around) {
        if (definition.elements.size() >= most_elements) {
            if (!std::exchange(is_full_, true))
                reader_.fail(ProblemCode::too_large, table,
                             "more than " + std::to_string(most_elements) + " elements");
            return;
        }
        const auto known_kinds = [&] {
            std::vector<std::string_view> names(kind_names_.begin(), kind_names_.end());
            for (const std::string_view name : components_.names())
                names.push_back(name);
            return names;
        };
        const toml::node* const node = table.get("kind");
        if (node == nullptr)
            return reader_.fail(ProblemCode::missing_key, table,
                                "an element without a 'kind'; expected " + one_of(known_kinds()));
        if (!node->is_string()) return reader_.expected(*node, "'kind' of an element", one_of(known_kinds()));
        const std::string name = node->value_or(std::string());
        if (const Component* const component = components_.find(name))
            return read_stamp(*component, table, around);
        const auto kind = std::find(kind_names_.begin(), kind_names_.end(), name);
        if (kind == kind_names_.end())
            return reader_.fail(
                ProblemCode::unknown_word, *node,
                "unknown kind '" + utf8::shortened(name) + "'; expected " + one_of(known_kinds()),
                did_you_mean(name, known_kinds()));
        const Kind& found = *all_kinds()[static_cast<std::size_t>(kind - kind_names_.begin())];
        std::vector<std::string_view> others{"kind", "style"};
        if (found.can.holds_children) others.push_back("element");
        if (found.can.tells) others.insert(others.end(), {"component", "with"});
        const FieldsReader::Owner owner{.name = name_of(found.name(), table),
                                        .other_keys = std::move(others),
                                        .has_earlier = table.contains("style")};
        Element element = found.create();
        Origin origin;
        origin.location = reader_.place(table);
        const std::size_t before = problems.count();
        std::vector<const toml::table*> tables =
            read_styles_of(table, *found.table, address_of(element), owner.name, origin);
        tables.push_back(&table);
        reader_.read(table, *found.table, address_of(element), owner, origin);
        reader_.require(tables, *found.table, owner);
        const std::string path = put_inside(element, table, around, owner.name);
        if (problems.count() > before) damaged.push_back(origin.location);
        const int panels = panel_count(element);
        definition.elements.push_back(std::move(element));
        definition.element_origins.push_back(std::move(origin));
        if (found.can.holds_children) read_inner(table, {path, false, around.depth});
        if (found.can.tells) read_panels(table, panels, owner.name, {path, false, around.depth + 1});
    }

    static int panel_count(const Element& element) {
        return std::visit(
            [](const auto& any) {
                if constexpr (requires { panels_of(any); })
                    return panels_of(any);
                else
                    return 0;
            },
            element);
    }

    /// The panels of a list or of tags: stamps of its component, each with the sources of an entry as its parameters.
    void read_panels(const toml::table& table, int count, const std::string& list, const Around& around) {
        const toml::node* const named = table.get("component");
        if (named == nullptr) {
            without_component_.push_back({around.path + ".1", list, reader_.place(table)});
            return;
        }
        const auto word = named->value_exact<std::string>();
        if (!word) return reader_.expected(*named, "'component' of " + list, "the name of a component");
        const Component* const component = components_.find(*word);
        if (component == nullptr)
            return reader_.fail(ProblemCode::unknown_name, *named,
                                "'component' of " + list + ": no component '" + utf8::shortened(*word) + "'",
                                did_you_mean(*word, components_.names()));
        const toml::node* const node = table.get("with");
        const toml::table* const given = node != nullptr ? node->as_table() : nullptr;
        if (node != nullptr && given == nullptr)
            return reader_.expected(*node, "'with' of " + list, "a table of values by parameter");
        // What is wrong with the component is told once.
        const std::size_t before = problems.count();
        for (int number = 1; number <= count && problems.count() == before; ++number) {
            toml::table& stamp = stamps_of_lists_.emplace_back();
            reader_.set_place(stamp, reader_.place(table));
            const auto put = [&](const toml::key& key, auto&& value) {
                reader_.set_place(stamp.insert_or_assign(key, value).first->second, reader_.place(*named));
            };
            put(toml::key("id"), std::to_string(number));
            for (const Parameter& parameter : component->parameters)
                if (parameter.type == ParameterType::source || parameter.type == ParameterType::any)
                    if (parameter.fallback == nullptr && !parameter.is_optional)
                        put(toml::key(parameter.name),
                            around.path + "." + std::to_string(number) + "." + parameter.name);
            for (const auto& [key, value] : given != nullptr ? *given : toml::table{}) {
                if (component->find(key.str()) == nullptr)
                    return reader_.unknown_key(key, component->names(), "'with' of " + list);
                put(key, value);
            }
            read_stamp(*component, stamp, around);
        }
    }

    /// Sets the panel in which an element stands, and returns the path of the element.
    std::string put_inside(Element& element, const toml::table& table, const Around& around,
                           const std::string& name) {
        return std::visit(
            [&](auto& any) {
                if (!around.path.empty()) {
                    if (!any.inside.empty() && !around.is_stamp)
                        reader_.fail(ProblemCode::contradiction, *table.get("inside"),
                                     "'inside' of " + name + ": it stands in the list of '" + around.path +
                                         "' already",
                                     "leave 'inside' away, or take it out of the list");
                    any.inside = around.path + (any.inside.empty() ? "" : "." + any.inside);
                }
                return any.inside + (any.inside.empty() ? "" : ".") + any.id;
            },
            element);
    }

    /// The elements that a table holds itself.
    void read_inner(const toml::table& table, const Around& around) {
        const toml::node* const inner = table.get("element");
        if (inner == nullptr) return;
        if (const toml::array* const list = inner->as_array())
            return read_items("element", *list, [&](const toml::table& item) { read_element(item, around); });
        reader_.expected(*inner, "'element' of '" + around.path + "'", "a list of tables");
    }

    void read_stamp(const Component& component, const toml::table& table, const Around& around) {
        const std::string name = name_of(component.name, table);
        if (around.depth >= deepest_stamp)
            return reader_.fail(
                ProblemCode::circle, table,
                name + " stands inside " + std::to_string(deepest_stamp) + " other components",
                "a component cannot hold itself");
        const std::size_t before = problems.count();
        const Stamp* const stamp = components_.stamp(component, table, name);
        Origin origin;
        origin.location = reader_.place(table);
        if (stamp == nullptr) return damaged.push_back(origin.location);
        Element element = Panel{.plate = false};
        const Table& panel = *describe(Panel{}).table;
        void* const into = address_of(element);
        const FieldsReader::Owner of_component{
            .name = "component '" + component.name + "'", .other_keys = {"style"}, .has_earlier = true};
        read_styles_of(stamp->panel, panel, into, of_component.name, origin);
        reader_.read(stamp->panel, panel, into, of_component, origin);
        FieldsReader::Owner own{.name = name, .other_keys = component.names(), .has_earlier = true};
        for (const std::string_view other : {"kind", "style", "element"})
            own.other_keys.push_back(other);
        read_styles_of(stamp->own, panel, into, name, origin);
        reader_.read(stamp->own, panel, into, own, origin);
        reader_.require(std::array{&table}, panel, own);
        const std::string path = put_inside(element, table, around, name);
        if (problems.count() > before) damaged.push_back(origin.location);
        definition.elements.push_back(std::move(element));
        definition.element_origins.push_back(std::move(origin));

        StampNames names{path, {}, reader_.names()};
        gather_paths(stamp->elements, "", names);
        reader_.set_names(&names);
        read_items("element", stamp->elements, [&](const toml::table& item) {
            read_element(item, {path, true, around.depth + 1});
        });
        reader_.set_names(names.around);
        read_inner(stamp->own, {path, false, around.depth});
    }

    /// The paths of what stands inside a stamp, from there.
    static void gather_paths(const toml::array& elements, const std::string& prefix, StampNames& names) {
        for (const toml::node& item : elements) {
            const toml::table* const table = item.as_table();
            if (table == nullptr) continue;
            const toml::node* const inside = table->get("inside");
            const std::string around =
                inside != nullptr ? inside->value_exact<std::string>().value_or("") + "." : prefix;
            const std::string path = around + id_of(*table);
            names.paths.insert(path);
            const toml::node* const inner = table->get("element");
            if (inner != nullptr && inner->is_array()) gather_paths(*inner->as_array(), path + ".", names);
        }
    }

    std::string_view text_;
    std::string name_;
    FieldsReader reader_{name_, problems};
    Components components_{reader_};
    std::map<std::string, Style, std::less<>> styles_;
    std::deque<toml::table> stamps_of_lists_;
    struct WithoutComponent {
        std::string first_panel;  ///< its path
        std::string list;
        Location place;
    };
    std::vector<WithoutComponent> without_component_;
    std::array<std::string_view, std::variant_size_v<Element>> kind_names_{};
    bool is_full_ = false;
    bool is_part_ = false;
};

}  // namespace

Result<HudDefinition> read_hud(std::string_view text, const std::string& name) {
    HudReader reader(text, name);
    reader.read();
    if (reader.problems.count() > 0) return reader.problems.take();
    return std::move(reader.definition);
}

Result<HudDefinition> read_hud_part(std::string_view text, const std::string& name) {
    HudReader reader(text, name);
    reader.set_part();
    reader.read();
    if (reader.problems.count() > 0) return reader.problems.take();
    return std::move(reader.definition);
}

Result<HudDefinition> read_hud_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_hud);
    if (!text) return text.problems();
    return read_hud(*text, path);
}

Problems check_hud(std::string_view text, const std::string& name, const Sources& sources,
                   TextMeasurer* measurer, ImageFinder* images) {
    HudReader reader(text, name);
    reader.read();
    // What could be read is made, only to see what else is wrong with it.
    const Hud trial(reader.definition, sources, measurer, images);
    for (const Problem& problem : trial.problems()) {
        // What a damaged table lacks as a whole, it may lack because of the damage.
        const bool follows =
            std::find(reader.damaged.begin(), reader.damaged.end(), problem.location) != reader.damaged.end();
        if (!follows) reader.problems.add(problem);
    }
    return reader.problems.take();
}

}  // namespace rapido
