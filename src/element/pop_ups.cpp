#include "rapido/element/pop_ups.hpp"

#include <algorithm>
#include <cmath>

#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/pop_ups_body.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 3> choices_of<Sign>{"any", "positive", "negative"};

namespace {

constexpr std::array band_fields_of_pop_ups{
    field<&PopUpBand::sign>("sign", "Whether amounts above zero are meant, or those below."),
    field<&PopUpBand::above>("above", "Amounts of this and more, without their sign.", {"", 0, 1e300}),
    field<&PopUpBand::below>("below", "Amounts of this and less, without their sign.", {"", 0, 1e300}),
    field<&PopUpBand::color>("color", "The color of these amounts."),
    field<&PopUpBand::format>("format", "The pattern of these amounts."),
    field<&PopUpBand::scale>("scale", "How much larger they are.", {"", 0.1, 10}),
};
static_assert(band_fields_of_pop_ups.size() == member_count<PopUpBand>);

}  // namespace

template <>
inline constexpr Table table_of<PopUpBand>{"pop_up_band", band_fields_of_pop_ups};

namespace {

constexpr std::array own_pop_ups_fields{
    required_field<&PopUps::id>("id", "The name of the element, unique among its siblings."),
    field<&PopUps::format>("format", "The pattern: literal text and fields with ISO C++ format specs."),
    field<&PopUps::at_most>("at_most", "How many numbers are seen at most.", {"", 1, 500}),
    field<&PopUps::show_for>("show_for", "How long a number is seen.", {"s", 0.05, 60}),
    field<&PopUps::rise>("rise", "How far a number rises.", {"px", -1000, 1000}),
    field<&PopUps::spread>("spread", "How far to the sides numbers start.", {"px", 0, 1000}),
    field<&PopUps::start_scale>("start_scale", "How much larger a number is when it appears.", {"", 0.1, 10}),
    field<&PopUps::merge_time>("merge_time", "Amounts that come within this time may become one.", {"s", 0, 60}),
    field<&PopUps::merge_distance>("merge_distance", "Amounts this near to each other may become one.",
                                   {"px", 0, largest_length}),
    field<&PopUps::bands>("bands", "How amounts in a range look.", {.most = 32}),
    field<&PopUps::clock>("clock", "The clock on which they rise."),
    field<&PopUps::color>("color", "The color of the characters."),
};
constexpr auto pop_ups_fields =
    joined(own_pop_ups_fields, lettering_fields<PopUps>, placed_fields<PopUps>, entering_fields<PopUps>);
static_assert(pop_ups_fields.size() == member_count<PopUps>);

/// What two amounts are together; as the type of both where they have one.
Value sum(const Value& a, const Value& b) {
    if (a.type() == Value::Type::int64 && b.type() == Value::Type::int64) {
        std::int64_t total = 0;
        if (!__builtin_add_overflow(a.int64(), b.int64(), &total)) return Value(total);
    }
    return Value(a.number() + b.number());
}

}  // namespace

PopUpsBody::PopUpsBody(const PopUps& pop_ups, Lettering lettering)
    : pop_ups_(pop_ups), lettering_(std::move(lettering)) {
    pool_.reserve(static_cast<std::size_t>(std::clamp(pop_ups.at_most, 1, 500)));
}

bool PopUpsBody::make_texts(const Language* language, BodyContext& context) {
    forms_.clear();
    const PieceLooks::Around around{pop_ups_.font.value(), pop_ups_.weight, pop_ups_.italic, pop_ups_.size};
    const auto make = [&](const std::string& format, std::string_view field) {
        return make_formatted_text(
            {.format = format, .has_value = true, .field = field, .looks = &looks_, .around = around}, {}, language,
            context);
    };
    forms_.push_back(make(pop_ups_.format, "format"));
    for (std::size_t i = 0; i < pop_ups_.bands.size(); ++i) {
        const std::string& format = pop_ups_.bands[i].format;
        forms_.push_back(format.empty() ? std::nullopt : make(format, "bands." + std::to_string(i) + ".format"));
    }
    return forms_.front().has_value();
}

void PopUpsBody::take_over(Body& other) {
    auto& before = static_cast<PopUpsBody&>(other);
    count_ = std::min(before.count_, static_cast<std::size_t>(std::clamp(pop_ups_.at_most, 1, 500)));
    // The newest stay.
    for (std::size_t i = before.count_ - count_; i < before.count_; ++i) {
        pool_.push_back(std::move(before.pool_[i]));
        pool_.back()->block = TextBlock(lettering_);
        write(*pool_.back());
    }
    number_ = before.number_;
    screen_ = before.screen_;
}

void PopUpsBody::set_language(const Language* language, BodyContext& context) {
    if (pop_ups_.font.value().empty()) lettering_.font = find_font("", pop_ups_.weight, pop_ups_.italic, context);
    if (!make_texts(language, context)) make_texts(nullptr, context);
    for (std::size_t i = 0; i < count_; ++i) {
        pool_[i]->block = TextBlock(lettering_);
        pool_[i]->block.set_language(language);
        write(*pool_[i]);
    }
}

PopUpsBody::Look PopUpsBody::look_of(const Value& value) const {
    Look look{pop_ups_.color, 0, 1};
    const double signed_amount = value.number(), amount = std::abs(signed_amount);
    for (std::size_t i = 0; i < pop_ups_.bands.size(); ++i) {
        const PopUpBand& band = pop_ups_.bands[i];
        if (band.sign == Sign::positive && !(signed_amount > 0)) continue;
        if (band.sign == Sign::negative && !(signed_amount < 0)) continue;
        if ((band.above && !(amount >= *band.above)) || (band.below && !(amount <= *band.below))) continue;
        if (band.color) look.color = *band.color;
        if (forms_[i + 1]) look.form = i + 1;
        if (band.scale != 1) look.scale = band.scale;
    }
    return look;
}

/// The characters of its value.
void PopUpsBody::write(Shown& shown) {
    const Look look = look_of(shown.value.get());
    shown.color = look.color;
    shown.band_scale = look.scale;
    FormattedText& form = *forms_[look.form];
    form.update({.value = shown.value.get(), .max = {}, .delta = {}});
    shown.block.say(form.text(), form.pieces(), looks_);
    shown.must_shape = true;
}

std::optional<Point> PopUpsBody::seen_of(const Shown& shown, const Camera& camera, Size screen) const {
    if (shown.on_screen) return shown.on_screen;
    const Projected projected = camera.project(shown.at, screen);
    return projected.in_front ? std::optional(projected.at) : std::nullopt;
}

PopUpsBody::Shown* PopUpsBody::mergeable(const Value& value, Point seen, Nanoseconds now, const Camera& camera,
                                         Size screen) {
    if (!value.is_number()) return nullptr;
    const Nanoseconds within = to_nanoseconds(pop_ups_.merge_time);
    // The newest first.
    for (std::size_t i = count_; i-- > 0;) {
        Shown& other = *pool_[i];
        const Value before = other.value.get();
        if (now - other.touched > within || !before.is_number()) continue;
        if (std::signbit(before.number()) != std::signbit(value.number())) continue;
        const std::optional<Point> there = seen_of(other, camera, screen);
        if (there && std::hypot(there->x - seen.x, there->y - seen.y) <= pop_ups_.merge_distance) return &other;
    }
    return nullptr;
}

bool PopUpsBody::add(const PopUp& pop, Nanoseconds now, const Camera& camera, Size screen) {
    const bool is_place = pop.on_screen ? std::isfinite(pop.on_screen->x + pop.on_screen->y)
                                        : std::isfinite(pop.at.x + pop.at.y + pop.at.z);
    if (!is_place) return false;
    const Projected projected = camera.project(pop.at, screen);
    const bool is_seen = pop.on_screen || projected.in_front;
    const Point seen = pop.on_screen.value_or(projected.at);
    if (Shown* const other = is_seen ? mergeable(pop.value, seen, now, camera, screen) : nullptr) {
        other->value = sum(other->value.get(), pop.value);
        other->touched = now;
        write(*other);
        return true;
    }
    const auto most = static_cast<std::size_t>(std::clamp(pop_ups_.at_most, 1, 500));
    if (count_ == most) {
        std::rotate(pool_.begin(), pool_.begin() + 1, pool_.begin() + static_cast<std::ptrdiff_t>(count_));
        --count_;
    }
    if (count_ == pool_.size()) pool_.push_back(std::make_unique<Shown>(TextBlock(lettering_)));
    Shown& shown = *pool_[count_++];
    shown.at = pop.at;
    shown.on_screen = pop.on_screen;
    shown.value = pop.value;
    shown.born = shown.touched = now;
    // Spread evenly, however many there are: by the golden ratio.
    const double turn = std::fmod(0.5 + ++number_ * 0.6180339887498949, 1.0);
    shown.aside = static_cast<float>(turn * 2 - 1) * pop_ups_.spread;
    shown.seen.reset();
    write(shown);
    return true;
}

Change PopUpsBody::advance(const Moment& at) {
    screen_ = *at.screen;
    const double time = std::max(pop_ups_.show_for.count(), 0.05);
    const auto since = [&](Nanoseconds from) { return to_seconds(at.now - from).count() / time; };
    // Those whose time is over make room; their memory is used again.
    std::size_t kept = 0;
    for (std::size_t i = 0; i < count_; ++i)
        if (since(pool_[i]->touched) < 1) std::swap(pool_[kept++], pool_[i]);
    count_ = kept;
    bool must_shape = false;
    for (std::size_t i = 0; i < count_; ++i) {
        Shown& shown = *pool_[i];
        must_shape = must_shape || shown.must_shape;
        shown.seen = seen_of(shown, *at.camera, screen_.size);
        shown.scale = shown.band_scale;
        shown.opacity = 1;
        if (at.reduced_motion) continue;
        const double part = std::clamp(since(shown.touched), 0.0, 1.0);
        const double risen = std::clamp(since(shown.born), 0.0, 1.0);
        if (shown.seen) {
            shown.seen->x += shown.aside;
            shown.seen->y -= pop_ups_.rise * static_cast<float>(1 - (1 - risen) * (1 - risen));
        }
        constexpr double appearing = 0.1, fading = 0.6;
        if (part < appearing)
            shown.scale *= pop_ups_.start_scale + (1 - pop_ups_.start_scale) * static_cast<float>(part / appearing);
        if (part > fading) shown.opacity = static_cast<float>((1 - part) / (1 - fading));
    }
    const bool differs = count_ > 0 || was_seen_;
    was_seen_ = count_ > 0;
    return must_shape ? Change::size : look_if(differs);
}

Size PopUpsBody::measure(TextMeasurer* measurer, Size) {
    for (std::size_t i = 0; i < count_; ++i) {
        Shown& shown = *pool_[i];
        if (!shown.must_shape || !shown.block.can_measure(measurer)) continue;
        shown.size = shown.block.measure(measurer);
        shown.block.fit(measurer, shown.size.width);
        shown.must_shape = false;
    }
    return {};
}

void PopUpsBody::draw(const DrawPlace& at, DisplayGroup& into) const {
    for (std::size_t i = 0; i < count_; ++i) {
        const Shown& shown = *pool_[i];
        if (!shown.seen) continue;
        DrawPlace own = at;
        own.scale = screen_.scale * shown.scale;
        const Point middle{screen_.origin.x + shown.seen->x * screen_.scale,
                           screen_.origin.y + shown.seen->y * screen_.scale};
        const Size size{shown.size.width * own.scale, shown.size.height * own.scale};
        own.box = {middle.x - size.width / 2, middle.y - size.height / 2, size.width, size.height};
        own.column_side.reset();
        into.dim(shown.opacity);
        shown.block.draw(own, 0.5F, shown.color, into);
    }
    into.dim(1);
}

std::unique_ptr<Body> make_body(const PopUps& pop_ups, BodyContext& context) {
    for (std::size_t i = 0; i < pop_ups.bands.size(); ++i) {
        const PopUpBand& band = pop_ups.bands[i];
        if (band.above && band.below && *band.below < *band.above)
            context.report("bands." + std::to_string(i), "is empty: 'below' is less than 'above'", {},
                           ProblemCode::contradiction);
    }
    auto body = std::make_unique<PopUpsBody>(pop_ups, TextBlock::lettering_of(pop_ups, Overflow::visible, context));
    return body->make_texts(nullptr, context) ? std::move(body) : nullptr;
}

const Kind& detail::describe(const PopUps*) {
    static constexpr Table table{"pop_ups", pop_ups_fields};
    static constexpr Kind kind = make_kind<PopUps>(table);
    return kind;
}

bool operator==(const PopUps& a, const PopUps& b) {
    return Element(a) == Element(b);
}
Element::Element(const PopUps& description) : Element(kind_of<PopUps>(), &description) {}
template std::optional<PopUps> Element::as() const;

}  // namespace rapido
