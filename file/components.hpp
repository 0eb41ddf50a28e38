// Components: elements with parameters, which a HUD file stamps any number of times.
#pragma once

#include <deque>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "file/fields_reader.hpp"

namespace rapido {

/// What a parameter may be.
enum class ParameterType : std::uint8_t { any, source, text, number, flag, color };

struct Parameter {
    std::string name;
    ParameterType type = ParameterType::any;
    const toml::node* fallback = nullptr;  ///< null where the stamp must give it, unless it is optional
    bool is_optional = false;              ///< without it, the keys whose value it is are left out
};

/// A component as the file says it.
struct Component {
    std::string name;
    const toml::table* table = nullptr;
    std::vector<Parameter> parameters{};

    const Parameter* find(std::string_view parameter) const;
    std::vector<std::string_view> names() const;
};

/// The tables of one stamp, with its values in place of `$name`.
struct Stamp {
    toml::table panel;     ///< what the component says of the panel that holds its elements
    toml::table own;       ///< what the stamp itself says of it
    toml::array elements;  ///< what stands inside
    bool is_whole = true;  ///< nothing was faulty
};

/// Reads components, and makes copies of their tables.
class Components {
 public:
    /// More nodes than all elements that a HUD may have can need: a short file could otherwise ask for gigabytes.
    static constexpr std::size_t most_copied = 400'000;

    explicit Components(FieldsReader& reader) : reader_(reader) {}
    /// Counts what is copied together with others: all that one recording makes.
    void share_limit(std::size_t& copied) { copied_ = &copied; }
    /// Counts a table that is copied elsewhere, such as a style into an element. False where that is too much.
    bool may_copy(const toml::table& table);

    /// Reads all of `[component]`; `kinds` are the names that no component may have.
    void read(const toml::node& node, std::span<const std::string_view> kinds);
    const Component* find(std::string_view name) const;
    std::vector<std::string_view> names() const;

    /// Returns the stamp that a table makes of a component. It lives as long as this object. Null where the file would
    /// stamp more than a HUD can hold.
    const Stamp* stamp(const Component& component, const toml::table& table, const std::string& owner);

 private:
    using Values = std::map<std::string, const toml::node*, std::less<>>;

    void read_component(const toml::key& key, const toml::node& node, std::span<const std::string_view> kinds);
    void read_parameters(const toml::node& node, Component& component);
    void read_parameter(const toml::key& key, const toml::node& node, Component& component);
    Values values_of(const Component& component, const toml::table& table, Stamp& stamp, const std::string& owner);
    bool fits(const toml::node& value, ParameterType type) const;

    /// What of a component is copied for a stamp.
    struct Copying {
        const Component& component;
        const Values& values;
        Stamp& stamp;
        std::shared_ptr<const GivenParameters> given;  ///< the same, for expressions
    };
    /// Null copies as it is.
    void copy(const toml::node& from, toml::table& into, const toml::key& key, const Copying* copying);
    void copy(const toml::node& from, toml::array& into, const Copying* copying);
    bool is_left_out(const toml::node& node, const Copying& copying);
    template <class Insert>
    void copy_node(const toml::node& from, const Copying* copying, Insert insert);
    template <class Insert>
    toml::node& copy_as_it_is(const toml::node& from, const Copying* copying, Insert insert);
    /// The node that stands where a text stands; null where it is left out.
    const toml::node* instead_of(const toml::node& text, const Copying& copying);
    const toml::node* made(std::string text, const toml::node& at);

    FieldsReader& reader_;
    std::map<std::string, Component, std::less<>> components_;
    std::deque<Stamp> stamps_;
    std::deque<toml::value<std::string>> made_;
    std::size_t own_copied_ = 0;
    std::size_t* copied_ = &own_copied_;
    std::map<const toml::table*, std::size_t> sizes_;  ///< of tables that are copied elsewhere
};

}  // namespace rapido
