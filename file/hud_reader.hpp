// Reads a HUD file and those that it includes: TOML, field by field out of the descriptions.
#pragma once

#include <array>
#include <deque>
#include <map>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "element/kinds.hpp"
#include "file/components.hpp"
#include "file/fields_reader.hpp"
#include "file/first_problems.hpp"
#include "rapido/file.hpp"

namespace rapido {

class HudReader {
 public:
    HudReader(std::string_view text, std::string name, IncludeReader includes = nullptr)
        : text_(text), name_(std::move(name)), includes_(std::move(includes)) {}
    /// It may name what is elsewhere.
    void set_part() { is_part_ = true; }
    /// Counts what components and styles make together with others.
    void share_limit(std::size_t& copied) { components_.share_limit(copied); }

    HudDefinition definition;
    FirstProblems problems;
    /// Whether a problem of what was read may come from a fault of the reading: of a table with a fault nothing more is said but what
    /// stands in a format, and nothing of names of what was left out.
    bool follows_from_fault(const Problem& problem) const;

    void read();

 private:
    static constexpr std::size_t most_elements = 4'000;  ///< what a short file asks for must not take gigabytes
    static constexpr std::size_t most_others = 1'000;    ///< timers, meters, effects, groups, locales

    // --- Files (hud_reader.cpp)

    /// A file that was parsed; nodes point into it.
    struct Document {
        std::string name;
        toml::table table;
    };
    /// Parses a file and, before it, those that it includes.
    void parse(std::string_view text, const std::string& name, int depth);
    void parse_includes(const toml::node& list, int depth);
    void parse_include(const toml::node& named, const std::string& path, int depth);

    // --- The whole (hud_reader.cpp)

    void read_lists(const toml::table& top);
    void read_option(const toml::key& key, const toml::node& node);
    void read_themes(const toml::node& node);
    void read_sources(const toml::node& node);
    void read_declared(const toml::key& key, const toml::node& node, const std::string& owner,
                       const std::string& prefix, DeclaredSource& source, Locations& locations);
    void check_panels();
    template <class Read>
    void read_list(const toml::key& key, const toml::node& node, Read read);
    template <class Read>
    void read_items(std::string_view name, const toml::array& list, Read read) {
        for (const toml::node& item : list) {
            if (const toml::table* table = item.as_table())
                read(*table);
            else
                reader_.fail(
                    ProblemCode::wrong_type, item,
                    "'" + std::string(name) + "' holds " + std::string(type_name(item)) + "; expected a table");
        }
    }
    template <class Aggregate>
    void read_list_of(const toml::key& key, const toml::node& node, const Table& description,
                      std::vector<Aggregate>& list, std::vector<Locations>& origins);

    // --- Styles (hud_styles.cpp)

    struct Style {
        const toml::table* table = nullptr;
        bool is_used = false;
    };
    void read_styles(const toml::node& node);
    /// Whether the style comes from a source, and is a field of its own.
    static bool is_style_followed(const toml::table& table, const Table& description);
    void read_text_style(const toml::key& key, const toml::table& table);
    void check_style(const std::string& name, const toml::table& table);
    std::vector<const toml::table*> read_styles_of(const toml::table& table, const Table& description, void* aggregate,
                                                   const std::string& name, Locations& locations);

    // --- Elements (hud_elements.cpp)

    /// The elements that stand inside one, or on the screen.
    struct Around {
        std::string path{};  ///< of the panel; empty is the screen
        bool is_stamp = false;
        int depth = 0;            ///< how many stamps stand around
        bool is_damaged = false;  ///< the stamp around lacks something
    };
    static std::string name_of(std::string_view kind, const toml::table& table);
    void read_element(const toml::table& table, const Around& around);
    void read_panels(const toml::table& table, int count, const std::string& list, const Around& around);
    std::string put_inside(WrittenElement& element, const toml::table& table, const Around& around,
                           const std::string& name);
    void read_inner(const toml::table& table, const Around& around);
    void read_stamp(const Component& component, const toml::table& table, const Around& around);

    std::string_view text_;
    std::string name_;
    IncludeReader includes_;
    std::deque<Document> documents_;       ///< those that are included before those that include them
    std::set<std::string> seen_, inside_;  ///< paths that were asked for, and those that are being parsed
    std::size_t size_ = 0;                 ///< of all of them, in bytes
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
    std::vector<Locations> damaged_;    ///< of tables with faults of their own
    std::vector<std::string> dropped_;  ///< ids of elements that are left out
    bool is_full_ = false;              ///< what comes then is left out
    bool is_part_ = false;
};

}  // namespace rapido
