#include "rapido/element/notice.hpp"

#include "element/fields.hpp"
#include "element/kinds.hpp"
#include "element/notice_body.hpp"
#include "element/picture_fields.hpp"
#include "element/text_block.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 2> choices_of<Newest>{"last", "first"};

namespace {

constexpr std::array message_fields{
    field<&Message::id>("id", "The name by which others refer to it."),
    required_field<&Message::text>("text", "The pattern of the message: literal text and fields."),
    field<&Message::value>("value", "What {} shows."),
    field<&Message::when>("when", "The message is posted each time this becomes true."),
    field<&Message::on>("on", "The event that posts the message; all but gain and loss."),
    field_of_element<&Message::element>("element", "The element, for empty, full, band_enter and band_leave."),
    field<&Message::band>("band", "The id of the band, for band_enter and band_leave; without it any band counts."),
    field<&Message::timer>("timer", "The timer, for start, mark and end."),
    field<&Message::at>("at", "The mark; without it any mark counts.", {"s", 0, 1e9}),
    field<&Message::priority>("priority", "A message of higher priority goes first.", {"", -1000, 1000}),
    field<&Message::lasting>("lasting", "The message stays until it is taken away."),
    field<&Message::show_for>("show_for", "The time on screen, which replaces the time that it takes to read.",
                              {"s", 0, 3600}),
    field<&Message::expires>("expires", "A message that has waited for so long is skipped; zero means never.",
                             {"s", 0, 3600}),
    field<&Message::color>("color", "Replaces the color of the notice."),
};
static_assert(message_fields.size() == member_count<Message>);

constexpr std::array reading_fields{
    field<&ReadingTime::speed>("speed", "How many characters are read in a second.", {"", 1, 1000}),
    field<&ReadingTime::attention>("attention", "The time until the player has noticed the message.", {"s", 0, 3600}),
    field<&ReadingTime::shortest>("shortest", "The shortest time on screen.", {"s", 0, 3600}),
    field<&ReadingTime::longest>("longest", "The longest time on screen, if that is more than the shortest.",
                                 {"s", 0, 3600}),
};
static_assert(reading_fields.size() == member_count<ReadingTime>);

}  // namespace

template <>
inline constexpr Table table_of<Message>{"message", message_fields};
template <>
inline constexpr Table table_of<ReadingTime>{"reading", reading_fields};

namespace {

constexpr std::array own_notice_fields{
    required_field<&Notice::id>("id", "The name of the element, unique among its siblings."),
    field<&Notice::messages>("messages", "The messages that the notice can say without being told to.", {.most = 2000}),
    field<&Notice::inline_images>("inline_images", "Images of the messages that are chosen by a value.", {.most = 16}),
    field<&Notice::enter>("enter", "The effect with which a message appears."),
    field<&Notice::leave>("leave", "The effect with which a message leaves, played backwards."),
    field<&Notice::time_between>("time_between", "The pause between two messages.", {"s", 0, 3600}),
    field<&Notice::reading>("reading", "How long a message stays on screen."),
    field<&Notice::show_count>("show_count", "Whether ×3 stands behind a message that stands for three equal ones."),
    field<&Notice::at_most>("at_most", "How many messages are shown at once, in a column.", {"", 1, 50}),
    field<&Notice::newest>("newest", "On which side of the others a new message appears."),
    field<&Notice::gap>("gap", "The room between two messages.", {"px", 0, largest_length}),
    field<&Notice::place_motion>("place_motion", "How messages make room for each other."),
    field<&Notice::padding>("padding", "The room between the edges and the text.", {"px", 0, largest_length}),
    field<&Notice::color>("color", "The color of the text."),
    field<&Notice::background>("background", "The color of the plate."),
    field<&Notice::radius>("radius", "The radius of the corners.", {"px", 0, largest_length}),
    field<&Notice::border>("border", "The width of the line along the edge; zero draws none.",
                           {"px", 0, largest_length}),
};
constexpr auto notice_fields =
    joined(own_notice_fields, lettering_fields<Notice>, banded_fields<Notice>, placed_fields<Notice>);
static_assert(notice_fields.size() == member_count<Notice>);

}  // namespace

const Table& message_table() {
    return table_of<Message>;
}

std::vector<FurtherSource> further_sources(const Notice& notice) {
    std::vector<FurtherSource> sources;
    for (std::size_t i = 0; i < notice.messages.size(); ++i) {
        const std::string name = "messages." + std::to_string(i) + ".";
        sources.push_back({name + "value", notice.messages[i].value});
        sources.push_back({name + "when", notice.messages[i].when});
    }
    for (std::size_t i = 0; i < notice.inline_images.size(); ++i)
        sources.push_back({"inline_images." + std::to_string(i) + ".value", notice.inline_images[i].value});
    return sources;
}

NoticeBody::NoticeBody(const Notice& notice, TextBlock block, std::shared_ptr<Messages> messages)
    : course_{notice.enter, notice.leave, notice.time_between, notice.reading},
      block_(std::move(block)),
      messages_(std::move(messages)),
      own_color_(notice.color),
      color_(notice.color),
      background_(notice.background),
      padding_(notice.padding),
      radius_(notice.radius),
      border_(notice.border),
      show_count_(notice.show_count),
      weight_(notice.weight),
      italic_(notice.italic),
      column_{.layout = Layout::column, .gap = notice.gap},
      is_log_(is_log(notice)),
      uses_hud_font_(notice.font.value().empty()) {
    const float most = notice.place.max_size.width;
    if (most > 0) block_.set_max_width(std::max(most - padding_.left - padding_.right, 1.0F));
}

void NoticeBody::say_for(const NoticeBody& log) {
    if (messages_->declared() != log.messages_->declared()) shown_ = Messages::none;
    messages_ = log.messages_;
    is_plate_ = true;
    other_ = true;
}

void NoticeBody::set_language(const Language* language, BodyContext& context) {
    if (!is_plate_) messages_->set_language(language, context);
    if (uses_hud_font_) block_.set_font(find_font("", weight_, italic_, context));
    block_.set_language(language);
    other_ = true;
}

void NoticeBody::show_further(std::span<const Value> values) {
    if (!is_plate_) messages_->update(values);
}

bool NoticeBody::is_out_of_date() const {
    const Messages::Said* const said = messages_->said(shown_);
    return said != nullptr && (said->version != version_ || messages_->version_of_looks() != version_of_looks_);
}

Change NoticeBody::show(const ShownValue&) {
    const bool is_other = std::exchange(other_, false);
    if (!is_other && !is_out_of_date()) return Change::none;
    std::string next;
    std::span<const TextPiece> pieces;
    // One that was forgotten by a snap is gone before the frame selects another.
    const Messages::Said* const said = messages_->said(shown_);
    color_of_message_.reset();
    if (said != nullptr) {
        next = said->text->text();
        pieces = said->text->pieces();
        if (show_count_ && count_ > 1) next += " ×" + std::to_string(count_);
        if (said->message.color) color_of_message_ = said->message.color->value();
        version_ = said->version;
    }
    color_ = color_of_message_.value_or(own_color_);
    version_of_looks_ = messages_->version_of_looks();
    ++times_made_;
    text_ = std::move(next);
    block_.say(text_, pieces, messages_->looks());
    return Change::text;
}

Change NoticeBody::set_look(const Look& look) {
    own_color_ = look.color;
    const Color before = color_;
    color_ = color_of_message_.value_or(own_color_);
    return look_if(color_ != before);
}

bool NoticeBody::select(std::size_t message, int count) {
    if (message != shown_ || count != count_) other_ = true;
    shown_ = message;
    count_ = count;
    return other_ || is_out_of_date();
}

void NoticeBody::take_over(Body& other) {
    auto& before = static_cast<NoticeBody&>(other);
    other_ = true;
    if (before.is_plate_)
        say_for(before);
    else if (!messages_->take_over(*before.messages_))
        return;
    shown_ = before.shown_;
    count_ = before.count_;
}

Size NoticeBody::measure(TextMeasurer* measurer, Size content) {
    if (is_log_) return content;
    const Size own = block_.measure(measurer);
    return {own.width + padding_.left + padding_.right, own.height + padding_.top + padding_.bottom};
}

bool NoticeBody::set_width(TextMeasurer* measurer, float width) {
    return !is_log_ && block_.fit(measurer, width - padding_.left - padding_.right);
}

void NoticeBody::draw(const DrawPlace& at, DisplayGroup& into) const {
    if (is_log_) return;
    const Rect edges = on_pixels(at.box);
    into.rect(edges, radius_ * at.scale, background_);
    if (border_ > 0) into.border(edges, radius_ * at.scale, std::max(1.0F, std::round(border_ * at.scale)), color_);
    const Insets padding{padding_.top * at.scale, padding_.right * at.scale, padding_.bottom * at.scale,
                         padding_.left * at.scale};
    DrawPlace inner = at;
    inner.box = at.box.inset(padding);
    block_.draw(inner, 0.5F, color_, into);
}

std::unique_ptr<Body> make_body(const Notice& notice, BodyContext& context) {
    auto messages = std::make_shared<Messages>(notice, context);
    return std::make_unique<NoticeBody>(notice, TextBlock(TextBlock::lettering_of(notice, Overflow::ellipsis, context)),
                                        std::move(messages));
}

const Kind& detail::describe(const Notice*) {
    static constexpr Table table{"notice", notice_fields};
    static constexpr Kind kind = make_kind<Notice>(table, {.holds_children = true, .stays_on_screen = true},
                                                   {.anchor = Anchor::top, .offset = {0, 96}});
    return kind;
}

bool operator==(const Notice& a, const Notice& b) {
    return Element(a) == Element(b);
}
Element::Element(const Notice& description) : Element(kind_of<Notice>(), &description) {}
template std::optional<Notice> Element::as() const;

}  // namespace rapido
