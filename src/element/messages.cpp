#include "element/messages.hpp"

#include <algorithm>

#include "element/pattern.hpp"

namespace rapido {

Messages::Messages(const Notice& notice, BodyContext& context)
    : around_{notice.font.value(), notice.weight, notice.italic, notice.size} {
    for (const InlineImage& picture : notice.inline_images) {
        looks_.add_choice(picture, around_, context);
        pictures_.push_back(picture.name);
    }
    for (std::size_t i = 0; i < notice.messages.size(); ++i) {
        Said& said = all_.emplace_back();
        const detail::Binding value = context.bound(notice.messages[i].value);
        said.use = value.use();
        said.type = value.type();
        make(said, notice.messages[i], nullptr, "messages." + std::to_string(i) + ".", context);
    }
    declared_ = notice.messages.size();
}

bool Messages::make(Said& said, const Message& message, const Language* language, const std::string& field,
                    BodyContext& context) {
    context.value_type = said.type;
    const TextOptions options{.rounding = rounding_for(Rounding::automatic, said.use, false)};
    const std::string name = field + "text";
    const bool had_looks = !looks_.empty();
    std::optional<FormattedText> made = make_formatted_text({.format = message.text,
                                                             .has_value = message.value.is_given(),
                                                             .field = name,
                                                             .looks = &looks_,
                                                             .around = around_},
                                                            options, language, context);
    if (!made) return false;
    if (had_looks || !looks_.empty()) ++version_of_looks_;
    said.text = std::move(made);
    said.message = message;
    said.text->update({.value = said.value.get(), .max = {}, .delta = {}});
    ++said.version;
    return true;
}

std::size_t Messages::add(const Message& message, const Value& value, const Language* language, BodyContext& context) {
    Said said;
    said.value = value;
    said.use = message.value.binding().use();
    said.type = message.value.binding().type();
    if (!make(said, message, language, "", context)) return none;
    std::size_t free = all_.size();
    for (std::size_t i = declared_; i < all_.size(); ++i) {
        if (all_[i].text && all_[i].message.id == message.id && all_[i].text->text() == said.text->text()) {
            all_[i].message = message;
            ++all_[i].version;
            return i;
        }
        if (!all_[i].text) free = std::min(free, i);
    }
    if (free == all_.size()) all_.emplace_back();
    said.version += all_[free].version;
    all_[free] = std::move(said);
    return free;
}

void Messages::forget(std::size_t message) {
    if (message < declared_) return;
    const std::uint32_t version = all_[message].version;
    all_[message] = {};
    all_[message].version = version + 1;
}

void Messages::forget_posted() {
    for (std::size_t i = declared_; i < all_.size(); ++i)
        forget(i);
}

bool Messages::take_over(Messages& before) {
    if (before.declared_ != declared_) return false;
    for (std::size_t i = declared_; i < before.all_.size(); ++i)
        all_.push_back(std::move(before.all_[i]));
    return true;
}

std::size_t Messages::find(std::string_view id) const {
    const auto found =
        std::find_if(all_.begin(), all_.end(), [id](const Said& said) { return said.text && said.message.id == id; });
    return found != all_.end() ? static_cast<std::size_t>(found - all_.begin()) : none;
}

const Messages::Said* Messages::said(std::size_t index) const {
    return index < all_.size() && all_[index].text ? &all_[index] : nullptr;
}

std::string Messages::spoken(std::size_t index) const {
    std::string text(text_of(index));
    const std::span<const TextPiece> pieces = all_[index].text->pieces();
    for (std::size_t i = pieces.size(); i-- > 0;)
        if (pieces[i].is_image) text.replace(pieces[i].begin, pieces[i].end - pieces[i].begin, pieces[i].name);
    return text;
}

void Messages::set_language(const Language* language, BodyContext& context) {
    for (std::size_t i = 0; i < all_.size(); ++i) {
        if (!all_[i].text) continue;
        const std::string field = i < declared_ ? "messages." + std::to_string(i) + "." : "";
        make(all_[i], Message(all_[i].message), language, field, context);
    }
}

void Messages::update(std::span<const Value> values) {
    for (std::size_t i = 0; i < declared_; ++i)
        if (all_[i].message.value.is_given() && all_[i].text &&
            all_[i].text->update({.value = values[2 * i], .max = {}, .delta = {}}))
            ++all_[i].version;
    for (std::size_t i = 0; i < pictures_.size(); ++i)
        if (looks_.choose(pictures_[i], values[2 * declared_ + i].number())) ++version_of_looks_;
}

}  // namespace rapido
