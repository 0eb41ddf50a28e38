#include "rapido/text/formatted_text.hpp"

#include <array>
#include <limits>

#include "text/field_writer.hpp"
#include "text/plain_text.hpp"

namespace rapido {
namespace {

const NumberStyle& english() {
    static const NumberStyle style;
    return style;
}

}  // namespace

FormattedText::FormattedText(Format format, TextOptions options)
    : format_(std::move(format)), options_(std::move(options)), numbers_(&english()) {
    if (options_.rounding == Rounding::automatic)
        options_.rounding = format_.uses_max() ? Rounding::honest : Rounding::nearest;
    keys_.resize(format_.parsed_->pieces.size());
    // Enough for most texts, so that a steady frame does not grow it.
    text_.reserve(31);
}

std::optional<PlainText> FormattedText::plain() const {
    const auto& pieces = format_.parsed_->pieces;
    if (pieces.size() != 1 || pieces[0].field != FieldName::value || options_.compact > 0 ||
        forms_ != nullptr)
        return std::nullopt;
    const Spec& spec = pieces[0].spec;
    const std::string& tail = format_.parsed_->tail;
    const bool short_text = pieces[0].literal.size() + tail.size() <= PlainText::longest_literals;
    if (spec.width > 0 || spec.sign != '-' || spec.alternate || spec.localized || spec.is_time() ||
        !short_text)
        return std::nullopt;
    if (spec.type == 0 && spec.precision < 0) return PlainText(pieces[0].literal, tail, -1);
    const bool few_places = spec.type == 'f' && spec.precision >= 0 && spec.precision <= 3;
    if (!few_places || options_.rounding != Rounding::nearest) return std::nullopt;
    return PlainText(pieces[0].literal, tail, spec.precision);
}

std::optional<int> FormattedText::places(std::optional<Value::Type> type) const {
    const auto& pieces = format_.parsed_->pieces;
    if (pieces.size() != 1 || pieces[0].field != FieldName::value || options_.compact > 0)
        return std::nullopt;
    const Spec& spec = pieces[0].spec;
    const bool integer = spec.type == 'd' || (spec.type == 0 && spec.precision < 0);
    const bool fixed = (spec.type == 'f' || spec.type == 'F') && spec.precision <= 15;
    const bool is_real = type == Value::Type::float32 || type == Value::Type::float64;
    if (spec.is_time() || (!integer && !fixed) || (integer && is_real)) return std::nullopt;
    return integer ? 0 : spec.precision < 0 ? 6 : spec.precision;
}

std::optional<std::int64_t> FormattedText::count(const FieldValues& values) const {
    const FieldWriter writer(options_, *numbers_);
    const Key key = writer.key_of(format_.parsed_->pieces.front(), values);
    constexpr auto most = static_cast<std::uint64_t>(std::numeric_limits<std::int64_t>::max());
    if (key.kind != Key::Kind::digits || key.bits > most) return std::nullopt;
    const auto count = static_cast<std::int64_t>(key.bits);
    return key.negative ? -count : count;
}

void FormattedText::set_text(std::string_view text) {
    text_ = text;
    made_ = false;  // its keys are not those of this text
}

void FormattedText::set_form(PluralCategory category, Format format) {
    if (forms_ == nullptr) forms_ = std::make_unique<Forms>();
    (*forms_)[static_cast<std::size_t>(category)] = std::move(format);
    made_ = false;
}

void FormattedText::set_numbers(const NumberStyle* numbers) {
    numbers_ = numbers != nullptr ? numbers : &english();
    made_ = false;
}

FormattedText FormattedText::copy() const {
    FormattedText other(format_, options_);
    if (forms_ != nullptr) other.forms_ = std::make_unique<Forms>(*forms_);
    other.numbers_ = numbers_;
    return other;
}

bool FormattedText::update(const FieldValues& values) {
    const FieldWriter writer(options_, *numbers_);
    const auto& pieces = format_.parsed_->pieces;
    bool differs = !made_;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Key key = writer.key_of(pieces[i], values);
        differs = differs || key.kind == Key::Kind::text || key != keys_[i];
        keys_[i] = key;
    }
    if (!differs) return false;

    ++times_made_;
    draft_.swap(text_);
    text_.clear();
    write(pieces.empty() || forms_ == nullptr ? format_ : form_for(keys_[0]), values);
    const bool changed = !made_ || draft_ != text_;
    made_ = true;
    return changed;
}

const Format& FormattedText::form_for(const Key& first) const {
    const FieldWriter writer(options_, *numbers_);
    const auto& form = (*forms_)[static_cast<std::size_t>(numbers_->plurals.select(writer.operands(first)))];
    return form ? *form : format_;
}

void FormattedText::write(const Format& form, const FieldValues& values) {
    const FieldWriter writer(options_, *numbers_);
    const bool own = &form == &format_;
    for (std::size_t i = 0; i < form.parsed_->pieces.size(); ++i) {
        const auto& piece = form.parsed_->pieces[i];
        text_ += piece.literal;
        writer.write(piece, own ? keys_[i] : writer.key_of(piece, values), values, text_);
    }
    text_ += form.parsed_->tail;
}

}  // namespace rapido
