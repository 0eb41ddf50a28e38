#include "rapido/element/text.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/pattern.hpp"
#include "element/picture_fields.hpp"
#include "element/text_plan.hpp"

namespace rapido {
template <>
inline constexpr std::array<std::string_view, 3> choices_of<DigitMotionKind>{"wheel", "flip", "slide"};

namespace {

constexpr std::array digit_motion_fields{
    field<&DigitMotion::kind>("kind", "How a digit goes to its next figure."),
    field<&DigitMotion::duration>("duration", "The time from one figure to the next; zero is at once.", {"s", 0, 60}),
    field<&DigitMotion::easing>("easing", "The shape of that."),
    field<&DigitMotion::stagger>("stagger", "Each digit begins so much later than the one behind it.", {"s", 0, 10}),
};
static_assert(digit_motion_fields.size() == member_count<DigitMotion>);

}  // namespace

template <>
inline constexpr Table table_of<DigitMotion>{"digit_motion", digit_motion_fields};

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
    field<&Text::digit_motion>("digit_motion",
                               "How digits move to their next figure; without it, they change at once."),
    field<&Text::text_interval>(
        "text_interval", "While the value moves, the characters change at multiples of this time.", {"s", 0, 3600}),
    field<&Text::style>("style", "The style of all of it, by name or from a source; what it says counts."),
    field<&Text::color>("color", "The color of the characters."),
    field<&Text::align>("align", "Where the text stands in a box that is wider."),
    field<&Text::overflow>("overflow", "What happens to a text that is wider than its room."),
};
constexpr auto text_fields = joined(own_text_fields, lettering_fields<Text>, following_fields<Text>,
                                    banded_fields<Text>, placed_fields<Text>, entering_fields<Text>);
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

float align_of(const Text& text) {
    if (text.align == TextAlign::start || text.align == TextAlign::digits) return 0;
    if (text.align == TextAlign::center) return 0.5F;
    return text.align == TextAlign::end ? 1 : horizontal_part(text.place.pivot.value_or(text.place.hangs_on()));
}

class TextBody final : public Body {
 public:
    /// What the text shows, and what it shows instead inside a band.
    struct Forms {
        std::optional<FormattedText> own;
        std::vector<std::optional<FormattedText>> of_bands;  ///< by band; nothing where it has no format
        PieceLooks looks;                                    ///< of all of them
    };

    TextBody(std::shared_ptr<const TextPlan> plan, Forms forms, Color color)
        : plan_(std::move(plan)),
          color_(color),
          block_(std::shared_ptr<const Lettering>(plan_, &plan_->lettering)),
          form_(std::move(*forms.own)) {
        keep(std::move(forms));
        if (plan_->digit_motion) digits() = std::make_unique<TurningDigits>(*plan_->digit_motion);
    }

    void take_over(Body& before) override {
        auto& other = static_cast<TextBody&>(before);
        if (!turning() || !other.turning()) return;
        turning()->take_over(*other.turning());
    }
    void snap() override {
        if (turning()) turning()->snap();
    }
    bool lives_in_time() const override { return plan_->digit_motion.has_value(); }
    Change advance(const Moment& moment) override {
        return look_if(turning() && turning()->advance(moment.now, moment.shown && !moment.reduced_motion));
    }

    void show_further(std::span<const Value> values) override {
        const std::size_t named = plan_->patterns.names.size();
        further_->named.assign(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(named));
        further_->chosen.clear();
        for (const Value& value : values.subspan(named))
            further_->chosen.push_back(value.number());
        if (choose_pictures()) other_form_ = true;
    }
    Change show(const ShownValue& given) override {
        FieldValues values = given.values;
        values.named = named();
        max_ = values.max;
        const bool differs = shown().update(values);
        const bool runs = turning() && turn(given);
        return std::exchange(other_form_, false) || differs ? Change::text : look_if(runs);
    }

    Amounts looks_same(const ShownValue& now) const override {
        // These say more than the integer.
        const bool says_more = turning() || shown().shows(FieldName::percent) || shown().shows(FieldName::ratio) ||
                               shown().shows(FieldName::delta);
        return says_more ? Amounts{} : same_integer(now);
    }

    std::optional<int> places() const override { return form_.places(plan_->value_type); }
    std::optional<std::int64_t> count(const FieldValues& values) const override { return form_.count(values); }

    Size measure(TextMeasurer* measurer, Size) override {
        if (!block_.can_measure(measurer)) return {};
        if (!is_reserved_) reserve(*measurer);
        is_reserved_ = true;
        const Size own = measure_line(*measurer, shown().text(), shown().pieces());
        if (turning())
            turning()->take(block_.laid_line(plan_->aligns_digits ? std::nullopt : std::optional(plan_->align)),
                            *measurer, block_.language());
        if (!plan_->aligns_digits) return {std::max(own.width, reserved_.width), own.height};
        before_digits_ = std::max(block_.digits_end(), reserved_.before);
        after_digits_ = std::max(block_.digits_after(), reserved_.after);
        return {before_digits_ + after_digits_, own.height};
    }

    Hold hold() const override { return {block_.ascent(), before_digits_, after_digits_, block_.shrinks()}; }
    std::optional<float> aligned_at() const override { return plan_->aligned_at; }
    bool set_width(TextMeasurer* measurer, float width) override { return block_.fit(measurer, width); }

    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const float part = plan_->aligned_at ? plan_->align : at.column_side.value_or(plan_->align);
        if (!plan_->aligns_digits) return block_.draw(at, part, color_, into, turning());
        DrawPlace in_line = at;
        const float spare = at.mirrored ? after_digits_ - block_.digits_after() : before_digits_ - block_.digits_end();
        in_line.box.width -= spare * at.scale;
        if (!at.mirrored) in_line.box.x += spare * at.scale;
        block_.draw(in_line, part, color_, into, turning());
    }

    void set_language(const Language* language, BodyContext& context) override {
        is_reserved_ = false;
        if (plan_->uses_hud_font) block_.set_font(find_font("", plan_->weight, plan_->italic, context));
        block_.set_language(language);
        if (Forms made = make_forms(*plan_, language, context); made.own) take(std::move(made));
        other_form_ = true;
    }

    bool set_format(const std::string& format, const Language* language, BodyContext& context) override {
        auto other = std::make_shared<TextPlan>(*plan_);
        other->patterns.format = format;
        Forms made = make_forms(*other, language, context);
        if (!made.own || context.failed()) return false;
        plan_ = std::move(other);
        take(std::move(made));
        return true;
    }

    Change set_look(const Look& look) override {
        const auto& [color, format, image, pattern] = look;
        const bool recolored = !(color == color_);
        color_ = color;
        if (format != band_) {
            band_ = format;
            other_form_ = true;
            is_reserved_ = false;
        }
        return look_if(recolored);
    }

    bool shows_delta() const override {
        const auto shows = [](const std::optional<FormattedText>& form) {
            return form && form->shows(FieldName::delta);
        };
        return form_.shows(FieldName::delta) ||
               (further_ != nullptr && std::any_of(further_->of_bands.begin(), further_->of_bands.end(), shows));
    }
    void write_into(NumberText* number) override {
        if (turning()) return;  // all that is said is seen on its way
        number_ = number;
        form_.write_into(number);
    }
    std::string fault_of_room() const override { return block_.fault_of_room(); }
    std::string_view text() const override { return shown().text(); }
    Color color() const override { return color_; }
    std::uint32_t times_made() const override {
        std::uint32_t count = form_.times_made();
        if (further_ != nullptr)
            for (const auto& form : further_->of_bands)
                count += form ? form->times_made() : 0;
        return count;
    }

    /// In a language, null for the one of its description.
    static Forms make_forms(const TextPlan& plan, const Language* language, BodyContext& context) {
        const TextPatterns& patterns = plan.patterns;
        const std::vector<std::string_view> names = patterns.name_views();
        Forms forms;
        for (const InlineImage& picture : patterns.pictures)
            forms.looks.add_choice(picture, patterns.around, context);
        const auto made = [&](const std::string& pattern, const PluralForms* plural, std::string_view field) {
            return make_formatted_text({pattern, plural, patterns.has_value, patterns.has_max, field, names,
                                        patterns.asks_for_rounding, &forms.looks, patterns.around},
                                       plan.options, language, context);
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
    /// What a text has besides that may say more than one thing, or has pieces.
    struct Further {
        std::vector<std::optional<FormattedText>> of_bands;  ///< by band; nothing where it has no format
        PieceLooks looks;
        std::vector<Value> named;
        std::vector<double> chosen;  ///< the numbers of its images
        std::unique_ptr<TurningDigits> digits;
    };

    TurningDigits* turning() const { return further_ != nullptr ? further_->digits.get() : nullptr; }
    std::unique_ptr<TurningDigits>& digits() {
        if (further_ == nullptr) further_ = std::make_unique<Further>();
        return further_->digits;
    }
    /// Tells the digits which way the value goes, and where a wheel that follows it is; true where that differs.
    bool turn(const ShownValue& given) {
        const bool is_odometer = plan_->moves && plan_->digit_motion->kind == DigitMotionKind::wheel &&
                                 given.steps > 0 && !shown().shows(FieldName::percent) &&
                                 !shown().shows(FieldName::ratio);
        const std::optional<int> places = is_odometer ? form_.places(plan_->value_type) : std::nullopt;
        turning()->follow(given.amount, places ? std::optional(given.amount * std::pow(10.0, *places)) : std::nullopt);
        return places.has_value();
    }

    void take(Forms forms) {
        is_reserved_ = false;
        other_form_ = true;
        form_.write_into(nullptr);
        form_ = std::move(*forms.own);
        form_.write_into(number_);
        keep(std::move(forms));
        choose_pictures();
    }
    void keep(Forms forms) {
        const bool has_further = plan_->patterns.has_choice() || !forms.looks.empty();
        if (further_ == nullptr && !has_further) return;
        if (further_ == nullptr) further_ = std::make_unique<Further>();
        further_->of_bands = std::move(forms.of_bands);
        further_->looks = std::move(forms.looks);
    }
    std::span<const Value> named() const { return further_ != nullptr ? further_->named : std::span<const Value>(); }
    const PieceLooks& looks() const {
        static const PieceLooks none;
        return further_ != nullptr ? further_->looks : none;
    }
    /// Whether others are seen now.
    bool choose_pictures() {
        if (further_ == nullptr) return false;
        const std::vector<InlineImage>& pictures = plan_->patterns.pictures;
        bool differs = false;
        for (std::size_t i = 0; i < std::min(further_->chosen.size(), pictures.size()); ++i)
            differs = further_->looks.choose(pictures[i].name, further_->chosen[i]) || differs;
        return differs;
    }

    /// The one that is shown now.
    template <class Self>
    static auto& shown_of(Self& self) {
        const bool own = self.further_ == nullptr || self.band_ >= self.further_->of_bands.size() ||
                         !self.further_->of_bands[self.band_];
        return own ? self.form_ : *self.further_->of_bands[self.band_];
    }
    FormattedText& shown() { return shown_of(*this); }
    const FormattedText& shown() const { return shown_of(*this); }

    Size measure_line(TextMeasurer& measurer, std::string_view text, std::span<const TextPiece> pieces) {
        block_.say(text, pieces, looks());
        const Language* const language = block_.language();
        const std::string_view decimal = language != nullptr ? std::string_view(language->numbers.decimal) : ".";
        return block_.measure(&measurer, plan_->aligns_digits ? decimal : "");
    }

    /// Makes room for the widest text that the declared range can give.
    void reserve(TextMeasurer& measurer) {
        reserved_ = {};
        const Limits& range = plan_->range;
        if (!(range.low < range.high)) return;
        const bool is_whole = plan_->value_type == Value::Type::int64 || plan_->value_type == Value::Type::uint64;
        const bool of_all = plan_->options.compact_digits > 0 || plan_->patterns.plural != nullptr || max_.has_value();
        FormattedText probe = shown().copy();
        // All digits are as wide as each other, so that texts are told apart by all else.
        std::vector<std::pair<std::string, std::vector<TextPiece>>> texts;
        for (const Value value : widest_candidates(range, is_whole, of_all)) {
            probe.update({.value = value, .max = max_, .delta = value, .named = named()});
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

    std::shared_ptr<const TextPlan> plan_;
    std::unique_ptr<Further> further_;                 ///< null for most
    std::size_t band_ = static_cast<std::size_t>(-1);  ///< whose format is shown
    Color color_;
    bool other_form_ = false;   ///< since the last update
    bool is_reserved_ = false;  ///< for the present pattern and language
    TextBlock block_;
    FormattedText form_;
    NumberText* number_ = nullptr;  ///< what its own form writes into
    Value max_;
    /// What the widest texts of the declared range need: as a whole, and before and after the end of the whole digits.
    struct Reserved {
        float width = 0, before = 0, after = 0;
    };
    Reserved reserved_;
    float before_digits_ = -1, after_digits_ = -1;  ///< negative: not aligned by them
};

}  // namespace

TextPatterns::TextPatterns(const Text& text)
    : format(text.format),
      has_value(text.value.is_given()),
      has_max(text.max.is_given()),
      asks_for_rounding(text.rounding != Rounding::automatic && text.rounding != Rounding::nearest),
      around{text.font.value(), text.weight, text.italic, text.size},
      plural(text.plural == PluralForms{} ? nullptr : std::make_shared<const PluralForms>(text.plural)) {
    const bool has_band_format =
        std::any_of(text.bands.begin(), text.bands.end(), [](const Band& band) { return !band.format.empty(); });
    for (const Band& band : text.bands)
        if (has_band_format) of_bands.push_back(band.format);
    for (const NamedSource& named : text.values)
        names.push_back(named.name);
    for (const InlineImage& picture : text.inline_images)
        pictures.push_back({picture.name, {}, picture.images, picture.image});
}

TextPlan::TextPlan(const Text& text, TextOptions given, BodyContext& context)
    : patterns(text),
      options(std::move(given)),
      lettering(TextBlock::lettering_of(text, text.overflow, context)),
      range(text.range),
      align(align_of(text)),
      aligned_at(text.align == TextAlign::automatic ? std::nullopt : std::optional(align)),
      aligns_digits(text.align == TextAlign::digits),
      weight(text.weight),
      italic(text.italic),
      uses_hud_font(text.font.value().empty()),
      value_type(context.value_type),
      digit_motion(text.digit_motion),
      moves(!text.motion.is_instant()) {}

bool TextPlan::is_same(const TextPlan& other) const {
    const TextPatterns &a = patterns, &b = other.patterns;
    return a.format == b.format && !a.has_choice() && !b.has_choice() && a.has_value == b.has_value &&
           a.has_max == b.has_max && a.asks_for_rounding == b.asks_for_rounding && a.around == b.around &&
           options == other.options && lettering == other.lettering && range == other.range && align == other.align &&
           aligned_at == other.aligned_at && aligns_digits == other.aligns_digits && weight == other.weight &&
           italic == other.italic && uses_hud_font == other.uses_hud_font && value_type == other.value_type &&
           digit_motion == other.digit_motion && moves == other.moves;
}

std::size_t TextPlan::hash() const {
    return std::hash<std::string>{}(patterns.format) * 31 + std::hash<float>{}(lettering.size);
}

std::vector<FurtherSource> further_sources(const Text& text) {
    std::vector<FurtherSource> sources;
    for (const NamedSource& named : text.values)
        sources.push_back({"values." + named.name, named.value});
    for (std::size_t i = 0; i < text.inline_images.size(); ++i)
        sources.push_back({"inline_images." + std::to_string(i) + ".value", text.inline_images[i].value});
    return sources;
}

std::unique_ptr<Body> make_body(const Text& text, BodyContext& context) {
    const bool is_used = !text.bands.empty() || !text.triggers.empty() || !text.values.empty() ||
                         !text.inline_images.empty() || text.when_no_value != WhenNoValue::placeholder;
    if (text.value.is_given() && !is_used && text.format.find('{') == std::string::npos)
        context.warn("format", "shows nothing of the value", "write {} where it stands, as in \"Score: {}\"",
                     ProblemCode::contradiction);
    for (std::size_t i = 0; i < text.values.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (text.values[i].name == text.values[j].name)
                context.report("values." + text.values[i].name, "is the name of a value before it", {},
                               ProblemCode::duplicate);
    if (!utf8::is_valid(text.placeholder)) context.report("placeholder", "is not valid UTF-8", {}, ProblemCode::syntax);
    if (text.range.low > text.range.high)
        context.report("range", "goes from high to low", {}, ProblemCode::contradiction);
    const TextOptions options{.rounding = rounding_for(text.rounding, context.value_use, text.max.is_given()),
                              .placeholder = text.placeholder,
                              .compact_digits = std::clamp(text.compact_digits, 0, 15),
                              .drop_zero_parts = text.drop_zero_parts,
                              .time_of_day = text.time_of_day,
                              .seconds_left = context.value_use == detail::ValueUse::time_left};
    if (text.digit_motion && text.wrap != Wrap::nowrap)
        context.warn("digit_motion", "moves nothing in a text that may have several lines", "leave 'wrap' away",
                     ProblemCode::contradiction);
    TextPlan plan(text, options, context);
    TextBody::Forms forms = TextBody::make_forms(plan, nullptr, context);
    if (!forms.own) return nullptr;
    return std::make_unique<TextBody>(context.shared(std::move(plan)), std::move(forms), text.color);
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
