// From the description of an element to what runs of it, step by step: read, check, bind, make.
#pragma once

#include "hud/data_fields.hpp"
#include "hud/state.hpp"

namespace rapido {

/// An element that is being made. What goes wrong is reported, and then `release` takes back what was bound.
class NewElement {
 public:
    /// With `replaces`, the one that takes the place of a running element of the same path.
    NewElement(Parts& hud, const Element& element, const Locations* locations, ElementIndex replaces = no_element);
    /// The same element, of which fields that come from the game have other values: those that these sources of it give.
    NewElement(Parts& hud, const Element& element, ElementIndex replaces, std::span<const DataSource> known);

    void check();
    void bind();
    void make();
    bool failed() const { return context_.failed() || body == nullptr; }
    void release();

    Parts& hud_;
    /// Where a field gets its value from.
    struct Followed {
        DataSource data;
        Problem problem{};  ///< what is wrong with that source
    };
    std::vector<Followed> followed;
    std::span<const DataSource> known;
    Problem unknown_style{};
    bool is_themed = false;  ///< the description has names of the theme
    WrittenElement written;  ///< the description, with the values of the theme
    const CommonFields common;
    /// Null for the usual one.
    std::unique_ptr<Rest> rest() const;
    /// The sources of its fields.
    std::vector<DataSource> data() const;
    const Kind& kind;
    const std::string path;
    std::unique_ptr<Body> body;
    SourceIndex value = no_source;
    Readout readout;
    Visibility::Conditions conditions;
    std::vector<TriggerSource> triggers;
    std::unique_ptr<ElementEffects> effects;
    std::unique_ptr<RunningNotice> notice;

 private:
    NewElement(Parts& hud, const Element& element, const Locations* locations, ElementIndex replaces,
               std::span<const DataSource> from);
    WrittenElement with_data(const Element& element);
    void follow_style(std::string_view id);
    void take_style(WrittenElement& made);
    void apply_data(const std::vector<DataField>& fields, const ThemeReport& report) const;
    void check_data();
    void check_pace();
    void check_motion();
    void check_length(Seconds length, const std::string& field);
    void check_bands();
    void check_band(const Band& band, const std::string& field);
    void check_edges(const Band& band, const std::string& field);
    void make_effects();
    void make_trigger(std::size_t index);
    void make_notice(NoticeBody& notice_body);
    void make_post(RunningNotice::Post& post, const Message& message, const std::string& field);

    const Element& given_;
    ElementIndex replaces_;
    ElementContext context_;
};

}  // namespace rapido
