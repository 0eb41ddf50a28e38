#include "rapido/element/notice.hpp"

#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/notice_body.hpp"
#include "element/pattern.hpp"
#include "element/picture_fields.hpp"
#include "element/text_block.hpp"

namespace rapido {

template <>
struct Choices<Newest> {
    static constexpr std::array<std::string_view, 2> names{"last", "first"};
};

namespace {

constexpr std::array message_fields{
    field<&Message::id>("id", "The name by which others refer to it."),
    required_field<&Message::text>("text", "The pattern of the message: literal text and fields."),
    field<&Message::value>("value", "What {} shows."),
    field<&Message::when>("when", "The message is posted each time this becomes true."),
    field<&Message::on>("on", "The event that posts the message; all but gain and loss."),
    field_of_element<&Message::element>("element",
                                        "The element, for empty, full, band_enter and band_leave."),
    field<&Message::band>("band",
                          "The id of the band, for band_enter and band_leave; without it any band counts."),
    field<&Message::timer>("timer", "The timer, for start, mark and end."),
    field<&Message::at>("at", "The mark; without it any mark counts.", {"s", 0, 1e9}),
    field<&Message::priority>("priority", "A message of higher priority goes first.", {"", -1000, 1000}),
    field<&Message::lasting>("lasting", "The message stays until it is taken away."),
    field<&Message::time>("time", "The time on screen, which replaces the time that it takes to read.",
                          {"s", 0, 3600}),
    field<&Message::expires>("expires", "A message that has waited for so long is skipped; zero means never.",
                             {"s", 0, 3600}),
    field<&Message::color>("color", "Replaces the color of the notice."),
};
static_assert(message_fields.size() == member_count<Message>);

constexpr std::array reading_fields{
    field<&ReadingTime::speed>("speed", "How many characters are read in a second.", {"", 1, 1000}),
    field<&ReadingTime::attention>("attention", "The time until the player has noticed the message.",
                                   {"s", 0, 3600}),
    field<&ReadingTime::shortest>("shortest", "The shortest time on screen.", {"s", 0, 3600}),
    field<&ReadingTime::longest>("longest", "The longest time on screen, if that is more than the shortest.",
                                 {"s", 0, 3600}),
};
static_assert(reading_fields.size() == member_count<ReadingTime>);

}  // namespace

template <>
struct Description<Message> {
    static constexpr Table table{"message", message_fields};
};
template <>
struct Description<ReadingTime> {
    static constexpr Table table{"reading", reading_fields};
};

namespace {

constexpr std::array own_fields{
    required_field<&Notice::id>("id", "The name of the element, unique among its siblings."),
    field<&Notice::messages>("messages", "The messages that the notice can say without being told to.",
                             {.most = 2000}),
    field<&Notice::pictures>("pictures", "Pictures of the messages that are chosen by a value.",
                             {.most = 16}),
    field<&Notice::enter>("enter", "The effect with which a message appears."),
    field<&Notice::leave>("leave", "The effect with which a message leaves, played backwards."),
    field<&Notice::gap>("gap", "The pause between two messages.", {"s", 0, 3600}),
    field<&Notice::reading>("reading", "How long a message stays on screen."),
    field<&Notice::show_count>("show_count",
                               "Whether ×3 stands behind a message that stands for three equal ones."),
    field<&Notice::at_once>("at_once", "How many messages are shown at once, in a column.", {"", 1, 50}),
    field<&Notice::newest>("newest", "On which side of the others a new message appears."),
    field<&Notice::spacing>("spacing", "The room between two messages.", {"px", 0, largest_length}),
    field<&Notice::place_motion>("place_motion", "How messages make room for each other."),
    field<&Notice::padding>("padding", "The room between the edges and the text.", {"px", 0, largest_length}),
    field<&Notice::color>("color", "The color of the text."),
    field<&Notice::background>("background", "The color of the plate."),
    field<&Notice::radius>("radius", "The radius of the corners.", {"px", 0, largest_length}),
    field<&Notice::border>("border", "The width of the line along the edge; zero draws none.",
                           {"px", 0, largest_length}),
};
constexpr auto fields = joined(own_fields, lettering_fields<Notice>, placed_fields<Notice>);
static_assert(fields.size() == member_count<Notice>);

}  // namespace

const Table& message_table() {
    return Description<Message>::table;
}

bool operator==(const Notice&, const Notice&) = default;

std::vector<FurtherSource> further_sources(const Notice& notice) {
    std::vector<FurtherSource> sources;
    for (std::size_t i = 0; i < notice.messages.size(); ++i) {
        const std::string name = "messages." + std::to_string(i) + ".";
        sources.push_back({name + "value", notice.messages[i].value});
        sources.push_back({name + "when", notice.messages[i].when});
    }
    for (std::size_t i = 0; i < notice.pictures.size(); ++i)
        sources.push_back({"pictures." + std::to_string(i) + ".value", notice.pictures[i].value});
    return sources;
}

NoticeBody::NoticeBody(const Notice& notice, TextBlock block)
    : course_{notice.enter, notice.leave, notice.gap, notice.reading},
      block_(std::move(block)),
      own_color_(notice.color),
      color_(notice.color),
      background_(notice.background),
      padding_(notice.padding),
      radius_(notice.radius),
      border_(notice.border),
      show_count_(notice.show_count),
      weight_(notice.weight),
      italic_(notice.italic),
      around_{notice.font.value(), notice.weight, notice.italic, notice.size},
      column_{.layout = Layout::column, .gap = notice.spacing},
      is_log_(notice.at_once > 1),
      uses_hud_font_(notice.font.value().empty()) {
    const float most = notice.place.max_size.width;
    if (most > 0) block_.set_max_width(std::max(most - padding_.left - padding_.right, 1.0F));
}

bool NoticeBody::make(Said& said, const Message& message, const Language* language, const std::string& field,
                      BodyContext& context) {
    context.value_type = said.type;
    const TextOptions options{.rounding = rounding_for(Rounding::automatic, said.use, false)};
    const std::string name = field + "text";
    std::optional<FormattedText> made = make_formatted_text({.format = message.text,
                                                             .has_value = bool(message.value),
                                                             .field = name,
                                                             .looks = &looks_,
                                                             .around = around_},
                                                            options, language, context);
    if (!made) return false;
    block_.set_pieces(looks_);
    said.text = std::move(made);
    said.message = message;
    said.text->update({.value = said.value.get(), .max = {}, .delta = {}});
    return true;
}

std::size_t NoticeBody::add(const Message& message, const Value& value, const Language* language,
                            BodyContext& context) {
    Said said;
    said.value = value;
    said.use = message.value.binding().use();
    said.type = message.value.binding().type();
    if (!make(said, message, language, "", context)) return no_message;
    for (std::size_t i = declared_; i < said_.size(); ++i)
        if (said_[i].text && said_[i].message.id == message.id &&
            said_[i].text->text() == said.text->text()) {
            said_[i].message = message;
            return i;
        }
    for (std::size_t i = declared_; i < said_.size(); ++i)
        if (!said_[i].text) {
            said_[i] = std::move(said);
            return i;
        }
    said_.push_back(std::move(said));
    return said_.size() - 1;
}

void NoticeBody::forget(std::size_t message) {
    if (message < declared_) return;
    said_[message] = {};
}

void NoticeBody::forget_posted() {
    for (std::size_t i = declared_; i < said_.size(); ++i)
        forget(i);
}

std::string NoticeBody::text_of(const Message& message, const Value& value, const Language* language,
                                BodyContext& context) {
    Said said;
    said.value = value;
    said.use = message.value.binding().use();
    said.type = message.value.binding().type();
    return make(said, message, language, "", context) ? std::string(said.text->text()) : std::string();
}

std::string NoticeBody::spoken(std::size_t index) const {
    std::string text(text_of(index));
    const std::span<const TextPiece> pieces = said_[index].text->pieces();
    for (std::size_t i = pieces.size(); i-- > 0;)
        if (pieces[i].is_picture)
            text.replace(pieces[i].begin, pieces[i].end - pieces[i].begin, pieces[i].name);
    return text;
}

bool NoticeBody::says(std::string_view id, std::string_view text) const {
    return std::any_of(
        said_.begin() + static_cast<std::ptrdiff_t>(declared_), said_.end(),
        [&](const Said& said) { return said.text && said.message.id == id && said.text->text() == text; });
}

std::size_t NoticeBody::find(std::string_view id) const {
    for (std::size_t i = 0; i < said_.size(); ++i)
        if (said_[i].text && said_[i].message.id == id) return i;
    return no_message;
}

void NoticeBody::set_language(const Language* language, BodyContext& context) {
    for (std::size_t i = 0; i < said_.size(); ++i) {
        if (!said_[i].text) continue;
        const std::string field = i < declared_ ? "messages." + std::to_string(i) + "." : "";
        make(said_[i], Message(said_[i].message), language, field, context);
    }
    if (uses_hud_font_) block_.set_font(TextBlock::find_font("", weight_, italic_, context));
    block_.set_language(language);
    other_ = true;
}

void NoticeBody::show_further(std::span<const Value> values) {
    for (std::size_t i = 0; i < declared_; ++i)
        if (said_[i].message.value && said_[i].text)
            other_ = said_[i].text->update({.value = values[2 * i], .max = {}, .delta = {}}) || other_;
    bool differs = false;
    for (std::size_t i = 0; i < pictures_.size(); ++i)
        differs = looks_.choose(pictures_[i], values[2 * declared_ + i].number()) || differs;
    if (!differs) return;
    block_.set_pieces(looks_);
    other_ = true;
}

Change NoticeBody::show(const FieldValues&, double) {
    if (!std::exchange(other_, false)) return Change::none;
    std::string next;
    pieces_.clear();
    // One that was forgotten by a snap is gone before the frame selects another.
    const bool speaks = shown_ != no_message && said_[shown_].text.has_value();
    if (speaks) {
        next = said_[shown_].text->text();
        const std::span<const TextPiece> pieces = said_[shown_].text->pieces();
        pieces_.assign(pieces.begin(), pieces.end());
        if (show_count_ && count_ > 1) next += " ×" + std::to_string(count_);
    }
    const bool has_color = speaks && said_[shown_].message.color;
    color_ = has_color ? said_[shown_].message.color->value() : own_color_;
    ++times_made_;
    text_ = std::move(next);
    return Change::text;
}

bool NoticeBody::select(std::size_t message, int count) {
    if (message == shown_ && count == count_) return false;
    shown_ = message;
    count_ = count;
    other_ = true;
    return true;
}

void NoticeBody::take_over(Body& other) {
    auto& before = static_cast<NoticeBody&>(other);
    if (before.declared_ != declared_) return;
    for (std::size_t i = declared_; i < before.said_.size(); ++i)
        said_.push_back(std::move(before.said_[i]));
    shown_ = before.shown_;
    count_ = before.count_;
    other_ = true;
}

Size NoticeBody::measure(TextMeasurer* measurer, Size content) {
    if (is_log_) return content;
    const Size own = block_.measure(measurer, text_, pieces_);
    return {own.width + padding_.left + padding_.right, own.height + padding_.top + padding_.bottom};
}

bool NoticeBody::set_width(TextMeasurer* measurer, float width) {
    return !is_log_ && block_.fit(measurer, text_, width - padding_.left - padding_.right);
}

void NoticeBody::draw(const DrawPlace& at, DrawGroup& into) const {
    if (is_log_) return;
    const Rect edges = on_pixels(at.box);
    into.add_rect(edges, radius_ * at.scale, background_);
    if (border_ > 0)
        into.add_border(edges, radius_ * at.scale, std::max(1.0F, std::round(border_ * at.scale)), color_);
    const Insets padding{padding_.top * at.scale, padding_.right * at.scale, padding_.bottom * at.scale,
                         padding_.left * at.scale};
    DrawPlace inner = at;
    inner.box = at.box.inset(padding);
    block_.draw(inner, 0.5F, color_, text_, into);
}

std::unique_ptr<Body> make_body(const Notice& notice, BodyContext& context) {
    auto body = std::make_unique<NoticeBody>(
        notice, TextBlock(TextBlock::lettering_of(notice, Overflow::ellipsis, context)));
    for (const TextPicture& picture : notice.pictures) {
        body->looks_.add_choice(picture, body->around_, context);
        body->pictures_.push_back(picture.name);
    }
    for (std::size_t i = 0; i < notice.messages.size(); ++i) {
        const std::string field = "messages." + std::to_string(i) + ".";
        NoticeBody::Said& said = body->said_.emplace_back();
        const detail::Binding value = context.bound(notice.messages[i].value);
        said.use = value.use();
        said.type = value.type();
        body->make(said, notice.messages[i], nullptr, field, context);
    }
    body->declared_ = notice.messages.size();
    return body;
}

const Kind& describe(const Notice&) {
    static constexpr Table table{"notice", fields};
    static constexpr Kind kind = kind_of<Notice>(table, {.holds_children = true, .stays_on_screen = true},
                                                 {.anchor = Anchor::top, .offset = {0, 96}});
    return kind;
}

}  // namespace rapido
