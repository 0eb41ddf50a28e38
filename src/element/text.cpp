#include "rapido/element/text.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/pattern.hpp"
#include "element/picture_fields.hpp"
#include "element/text_block.hpp"

namespace rapido {
namespace {

constexpr std::array own_text_fields{
    required_field<&Text::id>("id", "The name of the element, unique among its siblings."),
    field<&Text::value>("value", "What {} shows."),
    field<&Text::max>("max", "What {max} shows."),
    field<&Text::values>("values", "Sources for fields of the format with names of their own, {hp}.", {.most = 8}),
    field<&Text::inline_images>("inline_images", "Images of the format that are chosen by a value.", {.most = 16}),
    field<&Text::format>("format", "The pattern: literal text and fields with ISO C++ format specs."),
    field<&Text::plural>("plural", "Other patterns for other plural categories."),
    field<&Text::placeholder>("placeholder", "What stands in place of a field that has no value."),
    field<&Text::rounding>("rounding", "How the digits that are not shown are rounded."),
    field<&Text::compact_digits>("compact_digits", "The significant digits of 12.3K; zero writes numbers in full.",
                                 {"", 0, 15}),
    field<&Text::drop_zero_parts>("drop_zero_parts",
                                  "A duration is written without its leading zero parts: 42, 1:07, 1:02:03."),
    field<&Text::time_of_day>("time_of_day", "Hours begin again after 24."),
    field<&Text::range>("range", "What the value can be; the width of the widest text in that range is reserved.",
                        {"", -1e18, 1e18}),
    field<&Text::text_interval>(
        "text_interval", "While the value moves, the characters change at multiples of this time.", {"s", 0, 3600}),
    field<&Text::color>("color", "The color of the characters."),
    field<&Text::align>("align", "Where the text stands in a box that is wider."),
    field<&Text::overflow>("overflow", "What happens to a text that is wider than its room."),
};
constexpr auto text_fields =
    joined(own_text_fields, lettering_fields<Text>, following_fields<Text>, placed_fields<Text>, entering_fields<Text>);
static_assert(text_fields.size() == member_count<Text> + flat_motions);

/// The values whose texts may be the widest in a range: its ends, and the ends of the largest counts of digits; of all
/// counts where a number may take other words (`of_all`).
std::vector<Value> widest_candidates(const Limits& range, bool whole, bool of_all) {
    std::vector<double> numbers{range.low, range.high, 0};
    for (const double sign : {1.0, -1.0}) {
        const double end = std::min(sign > 0 ? range.high : -range.low, 1e18);
        int counts = of_all ? 18 : 2;
        for (double power = std::pow(10.0, std::floor(std::log10(std::max(end, 1.0)))); counts > 0 && power >= 10;
             power /= 10, --counts)
            for (const double number : {power, power - 1, power - 0.01})
                numbers.push_back(sign * number);
    }
    std::sort(numbers.begin(), numbers.end());
    numbers.erase(std::unique(numbers.begin(), numbers.end()), numbers.end());
    std::vector<Value> candidates;
    for (const double number : numbers) {
        if (number < range.low || number > range.high) continue;
        if (whole)
            candidates.emplace_back(static_cast<std::int64_t>(std::clamp(number, -9e18, 9e18)));
        else
            candidates.emplace_back(number);
    }
    return candidates;
}

/// Whether one text is another with characters left out: it is then not wider.
bool is_part_of(std::string_view part, std::string_view whole) {
    for (const char c : whole)
        if (!part.empty() && part.front() == c) part.remove_prefix(1);
    return part.empty();
}

/// What a text may say, in the language of its description.
struct Patterns {
    std::string format;
    std::unique_ptr<const PluralForms> plural;  ///< null where one pattern counts for all
    std::vector<std::string> of_bands;          ///< empty where a band has none
    std::vector<std::string> names;             ///< of its further values
    std::vector<InlineImage> pictures;          ///< chosen by values
    bool has_value;
    bool has_max;
    bool asks_for_rounding;
    PieceLooks::Around around;

    std::vector<std::string_view> name_views() const { return {names.begin(), names.end()}; }
    explicit Patterns(const Text& text)
        : format(text.format),
          plural(text.plural == PluralForms{} ? nullptr : std::make_unique<const PluralForms>(text.plural)),
          has_value(text.value),
          has_max(text.max),
          asks_for_rounding(text.rounding != Rounding::automatic && text.rounding != Rounding::nearest),
          around{text.font.value(), text.weight, text.italic, text.size} {
        for (const Band& band : text.bands)
            of_bands.push_back(band.format);
        for (const NamedSource& named : text.values)
            names.push_back(named.name);
        for (const InlineImage& picture : text.inline_images)
            pictures.push_back({picture.name, {}, picture.images});
    }
};

class TextBody final : public Body {
 public:
    /// What the text shows, and what it shows instead inside a band.
    struct Forms {
        std::optional<FormattedText> own;
        std::vector<std::optional<FormattedText>> of_bands;  ///< by band; nothing where it has no format
        PieceLooks looks;                                    ///< of all of them
    };

    TextBody(const Text& text, Patterns patterns, Forms forms, TextOptions options, TextBlock block,
             std::optional<Value::Type> value_type)
        : patterns_(std::move(patterns)),
          range_(text.range),
          align_(align_of(text)),
          aligned_at_(text.align == TextAlign::automatic ? std::nullopt : std::optional(align_)),
          aligns_digits_(text.align == TextAlign::digits),
          forms_(std::move(forms)),
          color_(text.color),
          options_(std::move(options)),
          block_(std::move(block)),
          weight_(text.weight),
          italic_(text.italic),
          uses_hud_font_(text.font.value().empty()),
          value_type_(value_type) {}

    void show_further(std::span<const Value> values) override {
        const std::size_t named = patterns_.names.size();
        named_.assign(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(named));
        chosen_.clear();
        for (const Value& value : values.subspan(named))
            chosen_.push_back(value.number());
        if (choose_pictures()) other_form_ = true;
    }
    Change show(const FieldValues& given, double) override {
        FieldValues values = given;
        values.named = named_;
        max_ = values.max;
        const bool differs = shown().update(values);
        return std::exchange(other_form_, false) || differs ? Change::text : Change::none;
    }

    std::optional<int> places() const override { return forms_.own->places(value_type_); }
    std::optional<std::int64_t> count(const FieldValues& values) const override { return forms_.own->count(values); }

    Size measure(TextMeasurer* measurer, Size) override {
        if (!block_.can_measure(measurer)) return {};
        if (!is_reserved_) reserve(*measurer);
        is_reserved_ = true;
        const Size own = measure_line(*measurer, shown().text(), shown().pieces());
        if (!aligns_digits_) return {std::max(own.width, reserved_.width), own.height};
        before_digits_ = std::max(block_.digits_end(), reserved_.before);
        after_digits_ = std::max(block_.digits_after(), reserved_.after);
        return {before_digits_ + after_digits_, own.height};
    }

    Hold hold() const override { return {block_.ascent(), before_digits_, after_digits_, block_.shrinks()}; }
    std::optional<float> aligned_at() const override { return aligned_at_; }
    bool set_width(TextMeasurer* measurer, float width) override { return block_.fit(measurer, width); }

    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const float part = aligned_at_ ? align_ : at.column_side.value_or(align_);
        if (!aligns_digits_) return block_.draw(at, part, color_, into);
        DrawPlace in_line = at;
        const float spare = at.mirrored ? after_digits_ - block_.digits_after() : before_digits_ - block_.digits_end();
        in_line.box.width -= spare * at.scale;
        if (!at.mirrored) in_line.box.x += spare * at.scale;
        block_.draw(in_line, part, color_, into);
    }

    void set_language(const Language* language, BodyContext& context) override {
        is_reserved_ = false;
        if (uses_hud_font_) block_.set_font(find_font("", weight_, italic_, context));
        block_.set_language(language);
        decimal_ = language != nullptr ? language->numbers.decimal : ".";
        if (Forms made = make_forms(patterns_, options_, language, context); made.own) take(std::move(made));
        other_form_ = true;
    }

    bool set_format(const std::string& format, const Language* language, BodyContext& context) override {
        std::string before = std::exchange(patterns_.format, format);
        Forms made = make_forms(patterns_, options_, language, context);
        if (!made.own || context.failed()) {
            patterns_.format = std::move(before);
            return false;
        }
        take(std::move(made));
        return true;
    }

    Change set_look(const Look& look) override {
        const auto& [color, format, image, pattern] = look;
        const bool recolored = !(color == color_);
        color_ = color;
        if (format != form_) {
            form_ = format;
            other_form_ = true;
            is_reserved_ = false;
        }
        return look_if(recolored);
    }

    bool shows_delta() const override {
        const auto shows = [](const std::optional<FormattedText>& form) { return form && form->shows_delta(); };
        return shows(forms_.own) || std::any_of(forms_.of_bands.begin(), forms_.of_bands.end(), shows);
    }
    void write_into(NumberText* number) override {
        number_ = number;
        forms_.own->write_into(number);
    }
    std::string fault_of_room() const override { return block_.fault_of_room(); }
    std::string_view text() const override { return shown().text(); }
    Color color() const override { return color_; }
    std::uint32_t times_made() const override {
        std::uint32_t count = forms_.own->times_made();
        for (const auto& form : forms_.of_bands)
            count += form ? form->times_made() : 0;
        return count;
    }

    /// In a language, null for the one of its description.
    static Forms make_forms(const Patterns& patterns, const TextOptions& options, const Language* language,
                            BodyContext& context) {
        const std::vector<std::string_view> names = patterns.name_views();
        Forms forms;
        for (const InlineImage& picture : patterns.pictures)
            forms.looks.add_choice(picture, patterns.around, context);
        const auto made = [&](const std::string& pattern, const PluralForms* plural, std::string_view field) {
            return make_formatted_text({pattern, plural, patterns.has_value, patterns.has_max, field, names,
                                        patterns.asks_for_rounding, &forms.looks, patterns.around},
                                       options, language, context);
        };
        forms.own = made(patterns.format, patterns.plural.get(), "format");
        for (std::size_t i = 0; i < patterns.of_bands.size(); ++i) {
            forms.of_bands.emplace_back();
            if (patterns.of_bands[i].empty()) continue;
            const std::string field = "bands." + std::to_string(i) + ".format";
            forms.of_bands[i] = made(patterns.of_bands[i], nullptr, field);
        }
        return forms;
    }

 private:
    void take(Forms forms) {
        is_reserved_ = false;
        other_form_ = true;
        forms_.own->write_into(nullptr);
        forms_ = std::move(forms);
        forms_.own->write_into(number_);
        choose_pictures();
    }
    /// Whether others are seen now.
    bool choose_pictures() {
        bool differs = false;
        for (std::size_t i = 0; i < std::min(chosen_.size(), patterns_.pictures.size()); ++i)
            differs = forms_.looks.choose(patterns_.pictures[i].name, chosen_[i]) || differs;
        return differs;
    }
    static float align_of(const Text& text) {
        if (text.align == TextAlign::start || text.align == TextAlign::digits) return 0;
        if (text.align == TextAlign::center) return 0.5F;
        return text.align == TextAlign::end ? 1 : horizontal_part(text.place.pivot.value_or(text.place.hangs_on()));
    }

    /// The one that is shown now.
    template <class Self>
    static auto& shown_of(Self& self) {
        const bool own = self.form_ >= self.forms_.of_bands.size() || !self.forms_.of_bands[self.form_];
        return own ? *self.forms_.own : *self.forms_.of_bands[self.form_];
    }
    FormattedText& shown() { return shown_of(*this); }
    const FormattedText& shown() const { return shown_of(*this); }

    Size measure_line(TextMeasurer& measurer, std::string_view text, std::span<const TextPiece> pieces) {
        block_.say(text, pieces, forms_.looks);
        return block_.measure(&measurer, aligns_digits_ ? decimal_ : "");
    }

    /// Makes room for the widest text that the declared range can give.
    void reserve(TextMeasurer& measurer) {
        reserved_ = {};
        if (!(range_.low < range_.high)) return;
        const bool is_whole = value_type_ == Value::Type::int64 || value_type_ == Value::Type::uint64;
        const bool of_all = options_.compact_digits > 0 || patterns_.plural != nullptr || max_.has_value();
        FormattedText probe = shown().copy();
        // All digits are as wide as each other, so that texts are told apart by all else.
        std::vector<std::pair<std::string, std::vector<TextPiece>>> texts;
        for (const Value value : widest_candidates(range_, is_whole, of_all)) {
            probe.update({.value = value, .max = max_, .delta = value, .named = named_});
            auto& [text, pieces] = texts.emplace_back();
            text = probe.text();
            pieces.assign(probe.pieces().begin(), probe.pieces().end());
            std::replace_if(
                text.begin(), text.end(), [](char c) { return c >= '1' && c <= '9'; }, '0');
        }
        std::sort(texts.begin(), texts.end(),
                  [](const auto& a, const auto& b) { return a.first.size() > b.first.size(); });
        std::vector<std::string_view> shaped;
        for (const auto& candidate : texts) {
            const std::string& text = candidate.first;
            if (std::any_of(shaped.begin(), shaped.end(),
                            [&](std::string_view longer) { return is_part_of(text, longer); }))
                continue;
            shaped.push_back(text);
            reserved_.width = std::max(reserved_.width, measure_line(measurer, text, candidate.second).width);
            reserved_.before = std::max(reserved_.before, block_.digits_end());
            reserved_.after = std::max(reserved_.after, block_.digits_after());
        }
    }

    Patterns patterns_;
    Limits range_;
    float align_;                      ///< the part of spare room before it
    std::optional<float> aligned_at_;  ///< the same, where the text says so itself
    bool aligns_digits_;
    std::string decimal_ = ".";
    Forms forms_;
    std::size_t form_ = static_cast<std::size_t>(-1);  ///< the band whose format is shown
    bool other_form_ = false;                          ///< since the last update
    Color color_;
    TextOptions options_;
    TextBlock block_;
    int weight_;
    bool italic_;
    bool uses_hud_font_;
    std::optional<Value::Type> value_type_;
    NumberText* number_ = nullptr;  ///< what its own form writes into
    Value max_;
    std::vector<Value> named_;
    std::vector<double> chosen_;  ///< the numbers of its images
    /// What the widest texts of the declared range need: as a whole, and before and after the end of the whole digits.
    struct Reserved {
        float width = 0, before = 0, after = 0;
    };
    Reserved reserved_;
    bool is_reserved_ = false;                      ///< for the present pattern and language
    float before_digits_ = -1, after_digits_ = -1;  ///< negative: not aligned by them
};

}  // namespace

std::vector<FurtherSource> further_sources(const Text& text) {
    std::vector<FurtherSource> sources;
    for (const NamedSource& named : text.values)
        sources.push_back({"values." + named.name, named.value});
    for (std::size_t i = 0; i < text.inline_images.size(); ++i)
        sources.push_back({"inline_images." + std::to_string(i) + ".value", text.inline_images[i].value});
    return sources;
}

std::unique_ptr<Body> make_body(const Text& text, BodyContext& context) {
    for (std::size_t i = 0; i < text.values.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (text.values[i].name == text.values[j].name)
                context.report("values." + text.values[i].name, "is the name of a value before it", {},
                               ProblemCode::duplicate);
    if (!utf8::is_valid(text.placeholder)) context.report("placeholder", "is not valid UTF-8", {}, ProblemCode::syntax);
    if (text.range.low > text.range.high)
        context.report("range", "goes from high to low", {}, ProblemCode::contradiction);
    const TextOptions options{.rounding = rounding_for(text.rounding, context.value_use, bool(text.max)),
                              .placeholder = text.placeholder,
                              .compact_digits = std::clamp(text.compact_digits, 0, 15),
                              .drop_zero_parts = text.drop_zero_parts,
                              .time_of_day = text.time_of_day,
                              .seconds_left = context.value_use == detail::ValueUse::time_left};
    Patterns patterns(text);
    TextBody::Forms forms = TextBody::make_forms(patterns, options, nullptr, context);
    if (!forms.own) return nullptr;
    TextBlock block(TextBlock::lettering_of(text, text.overflow, context));
    return std::make_unique<TextBody>(text, std::move(patterns), std::move(forms), options, std::move(block),
                                      context.value_type);
}

const Kind& detail::describe(const Text*) {
    static constexpr Table table{"text", text_fields};
    static constexpr Kind kind = make_kind<Text>(table, {.takes_format = true, .counts = true});
    return kind;
}

bool operator==(const Text& a, const Text& b) {
    return Element(a) == Element(b);
}
Element::Element(const Text& description) : Element(kind_of<Text>(), &description) {}
template std::optional<Text> Element::as() const;

}  // namespace rapido
