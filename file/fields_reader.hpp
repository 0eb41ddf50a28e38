// Tables of TOML, read field by field into plain aggregates by their descriptions.
#pragma once

#include <deque>
#include <map>
#include <memory>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <unordered_map>
#include <unordered_set>
#include <utility>
#include <vector>

#include "base/fields.hpp"
#include "file/first_problems.hpp"
#include "file/toml.hpp"
#include "rapido/hud/definition.hpp"
#include "rapido/value/expression.hpp"

namespace rapido {

/// The words that a message needs for what was found.
std::string_view type_name(const toml::node& node);

/// Where the names that a stamp of a component refers to are looked up first.
struct StampNames {
    std::string path;                          ///< of the stamp
    std::set<std::string, std::less<>> paths;  ///< of what stands inside, from there
    const StampNames* around = nullptr;        ///< of the stamp in which the stamp stands
};

/// Reads tables. Every fault is a problem with its place, and what is faulty keeps its default.
/// What a stamp gives a parameter of its component; null for one that may be left out and was.
struct GivenParameter {
    const toml::node* value = nullptr;
    bool is_text = false;  ///< and no name of a source
};
using GivenParameters = std::map<std::string, GivenParameter, std::less<>>;

class FieldsReader {
 public:
    FieldsReader(std::string file, FirstProblems& problems) : problems_(problems), file_(std::move(file)) {}

    /// Of the tables that are read, and whose parts are named in problems.
    struct Owner {
        std::string name;                            ///< `text 'acres'`
        std::vector<std::string_view> other_keys{};  ///< that are read elsewhere
        bool has_earlier = false;                    ///< fields that were read before may be replaced
        /// The place that names the style which is read; a key that the owner does not have is a fault there.
        const toml::node* style = nullptr;
    };

    void read(const toml::table& table, const Table& description, void* aggregate, const Owner& owner,
              Locations& locations) {
        read_fields(table, description, aggregate, owner, "", locations);
    }
    /// Reports the fields that must be there, and are in none of these tables: the last is the owner's own.
    void require(std::span<const toml::table* const> tables, const Table& description, const Owner& owner);
    void read_field(const Field& field, const toml::node& node, void* aggregate, const Owner& owner,
                    const std::string& path, Locations& locations);

    void fail(ProblemCode code, const Location& at, std::string message, std::string hint = {}) {
        problems_.add({at, std::move(message), std::move(hint), code});
    }
    void fail(ProblemCode code, const toml::node& at, std::string message, std::string hint = {}) {
        fail(code, place(at), std::move(message), std::move(hint));
    }
    void fail(ProblemCode code, const toml::key& at, std::string message, std::string hint = {}) {
        fail(code, place(at), std::move(message), std::move(hint));
    }
    void unknown_key(const toml::key& key, std::vector<std::string_view> names, const std::string& owner,
                     const std::string& hint = {});
    void expected(const toml::node& node, const std::string& name, std::string_view what);

    Location place(const toml::node& node) const;
    Location place(const toml::key& key) const { return place(key.source()); }
    /// A copy has no place of its own.
    void set_place(const toml::node& copy, Location at) { copies_[&copy] = std::move(at); }
    /// In an expression, a copied text has these in place of `$name`.
    void set_parameters(const toml::node& copy, std::shared_ptr<const GivenParameters> given) {
        parameters_[&copy] = std::move(given);
    }
    /// A copied text is one also where the name of a source may stand.
    void set_is_text(const toml::node& copy) { texts_.insert(&copy); }
    void copy_parameters(const toml::node& from, const toml::node& copy) {
        if (const auto known = parameters_.find(&from); known != parameters_.end()) parameters_[&copy] = known->second;
        if (texts_.contains(&from)) texts_.insert(&copy);
    }

    /// Colors, fonts and radii may be names of a theme.
    void allow_themes() { has_themes_ = true; }
    /// Reads into a theme.
    void read_theme(const toml::table& table, Theme& theme, Locations& locations);

    /// While a stamp is read.
    void set_names(const StampNames* names) { names_ = names; }
    const StampNames* names() const { return names_; }

 private:
    /// Says which field is being read, for as long as it is.
    struct ReadsField {
        ReadsField(FieldsReader& reader, const Field& field)
            : at(reader.field_), before(std::exchange(reader.field_, &field)) {}
        ~ReadsField() { at = before; }
        ReadsField(const ReadsField&) = delete;
        ReadsField& operator=(const ReadsField&) = delete;
        const Field*& at;
        const Field* before;
    };
    Location place(const toml::source_region& region) const {
        return {region.path != nullptr ? *region.path : file_, static_cast<int>(region.begin.line),
                static_cast<int>(region.begin.column)};
    }
    void read_fields(const toml::table& table, const Table& description, void* aggregate, const Owner& owner,
                     const std::string& prefix, Locations& locations);
    void unknown_field(const toml::key& key, const toml::node& node, const Table& description, const Owner& owner,
                       const std::string& prefix);
    template <class T>
    void read_as(const toml::node& node, void* into, const std::string& name, std::string_view what);
    template <class T, class Parse>
    void read_parsed(const toml::node& node, void* into, const std::string& name, Parse parse, std::string_view what);
    void read_color(const toml::node& node, void* into, const std::string& name);
    void read_themed_text(const toml::node& node, void* into, const std::string& name);
    void read_themed_number(const Field& field, const toml::node& node, void* into, const std::string& name);
    void read_number_into(const Field& field, const toml::node& node, void* into, const std::string& name);
    void read_list(const toml::node& node, void* list, const Field& field, const Owner& owner, const std::string& path,
                   const std::string& name, Locations& locations);
    void read_easing(const toml::node& node, void* into, const std::string& name, const Location& where);
    void read_choice(const toml::node& node, void* into, const Field& field, const std::string& name);
    void read_sources(const toml::node& node, void* into, const std::string& name, Locations& locations,
                      const std::string& path, std::size_t most);
    void read_source(const toml::node& node, void* into, const std::string& name);
    Result<Source> named_source(std::string_view name, const toml::node& node, const std::string& owner);
    void read_source_table(const toml::table& table, Source& source, const std::string& name);
    bool in_range(double number, const Field& field, const toml::node& node, const std::string& name);
    std::optional<double> read_number(const toml::node& node, const Field& field, const std::string& name);
    std::vector<double> read_numbers(const toml::node& node, const Field& field, const std::string& name,
                                     std::initializer_list<std::size_t> counts, std::string_view what);
    void read_points(const toml::node& node, void* into, const Field& field, const std::string& name);
    void read_texts(const toml::node& node, void* into, const Field& field, const std::string& name);
    template <class T>
    bool read_followed(const toml::node& node, T& into, const std::string& name);
    void read_image(const toml::node& node, void* into, const std::string& name);
    void read_amounts(const toml::node& node, const Field& field, void* into, const std::string& name);
    void read_value(const toml::node& node, void* into, const std::string& name, std::string_view what);
    void read_amount(const toml::node& node, const Field& field, void* into, const std::string& name);
    void read_values(const toml::node& node, void* into, const Field& field, const std::string& name);
    void read_insets(const toml::node& node, void* into, const Field& field, const std::string& name);
    /// A name as it is meant inside a stamp: that of an element inside begins with the path of the stamp.
    std::string resolved(std::string name) const;

    FirstProblems& problems_;
    std::string file_;
    std::unordered_map<const toml::node*, Location> copies_;
    std::unordered_map<const toml::node*, std::shared_ptr<const GivenParameters>> parameters_;
    const Field* field_ = nullptr;                 ///< that is being read; null between fields
    std::unordered_set<const toml::node*> texts_;  ///< what parameters gave that are texts, and no names of sources
    const StampNames* names_ = nullptr;
    bool has_themes_ = false;
};

}  // namespace rapido
