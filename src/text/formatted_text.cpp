#include "rapido/text/formatted_text.hpp"

#include <algorithm>
#include <array>
#include <limits>

#include "text/field_writer.hpp"
#include "text/number_text.hpp"

namespace rapido {
namespace {

const NumberStyle& english() {
    static const NumberStyle style;
    return style;
}

/// Options are most often those of the text that was made before.
std::shared_ptr<const TextOptions> shared(TextOptions options) {
    static thread_local std::shared_ptr<const TextOptions> last;
    if (last == nullptr || !(*last == options)) last = std::make_shared<const TextOptions>(std::move(options));
    return last;
}

/// Room for what is made on the way, of all texts of a thread.
struct Draft {
    std::string before;
    std::vector<std::size_t> open_pieces;

    static Draft& of_thread() {
        static thread_local Draft draft;
        return draft;
    }
};

}  // namespace

FormattedText::FormattedText(Format format, TextOptions options) : format_(std::move(format)), numbers_(&english()) {
    if (options.rounding == Rounding::automatic)
        options.rounding = format_.uses_max() ? Rounding::honest : Rounding::nearest;
    options_ = shared(std::move(options));
    keys_.resize(format_.parsed_->pieces.size());
}

std::string_view FormattedText::text() const {
    return number_ != nullptr && number_->is_shown() ? number_->text() : std::string_view(text_);
}

std::uint32_t FormattedText::times_made() const {
    return times_made_ + (number_ != nullptr ? number_->times_made() : 0);
}

bool FormattedText::shows(FieldName field) const {
    const auto shows = [field](const Format& format) {
        const auto& pieces = format.parsed_->pieces;
        return std::any_of(pieces.begin(), pieces.end(), [field](const auto& piece) { return piece.field == field; });
    };
    if (shows(format_)) return true;
    return forms_ != nullptr &&
           std::any_of(forms_->begin(), forms_->end(), [&](const auto& form) { return form && shows(*form); });
}

void FormattedText::write_into(NumberText* number) {
    take_back();
    number_ = number;
}

/// The characters stand in this text again; they must be made anew for the next values.
void FormattedText::take_back() {
    made_ = false;
    if (number_ == nullptr || !number_->is_shown()) return;
    text_ = number_->text();
    number_->forget();
}

/// Hands over the characters that were just made, if one number in them is all that may change.
void FormattedText::hand_over(const FieldValues& values) {
    const auto& pieces = format_.parsed_->pieces;
    if (number_ == nullptr || forms_ != nullptr || options_->compact_digits > 0 || !format_.parsed_->markup.empty())
        return;
    std::size_t shown = pieces.size();
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const bool is_value = pieces[i].field == FieldName::value;
        if (is_value ? shown != pieces.size() : pieces[i].field != FieldName::max) return;
        if (is_value) shown = i;
    }
    if (shown == pieces.size() || keys_[shown].kind != Key::Kind::digits || values.max.type() == Value::Type::text)
        return;
    const Spec& spec = pieces[shown].spec;
    const bool is_default = spec.type == 0 && spec.precision < 0;
    const bool is_fixed = (spec.type == 'f' || spec.type == 'F') && spec.precision >= 0 && spec.precision <= 3;
    if (spec.is_time() || spec.alternate || spec.width > NumberText::widest || (spec.align != 0 && spec.align != '>'))
        return;
    if (is_fixed ? options_->rounding != Rounding::nearest || values.value.type() != Value::Type::float64
                 : !(is_default || spec.type == 'd') || !values.value.is_integer())
        return;
    NumberLook look{.places = is_fixed ? spec.precision : -1, .width = spec.width};
    look.zeros = spec.zero && spec.align == 0;
    if (spec.fill.size() != 1) return;
    look.fill = spec.fill[0];
    if (spec.sign != '-') look.plus = spec.sign;
    if (spec.localized) {
        const bool is_like_english = numbers_->digits == english().digits && numbers_->decimal == "." &&
                                     numbers_->minus == "-" && numbers_->plus == "+" && numbers_->primary_group == 3 &&
                                     numbers_->secondary_group == 3 && numbers_->minimum_grouping == 1 &&
                                     numbers_->group.size() <= 3;
        const bool is_plain_group =
            std::none_of(numbers_->group.begin(), numbers_->group.end(), [](char c) { return c >= '0' && c <= '9'; });
        if (!is_like_english || !is_plain_group || numbers_->group.empty()) return;
        look.grouped = true;
        look.group = numbers_->group;
    }
    const std::string_view text = text_;
    if (text.size() > NumberText::longest) return;
    const auto [begin, end] = number_in_text_;
    number_->begin(text.substr(0, begin), text.substr(end), look, keys_[shown].bits, keys_[shown].negative);
    handed_max_ = values.max;
}

std::optional<int> FormattedText::places(std::optional<Value::Type> type) const {
    const auto& pieces = format_.parsed_->pieces;
    if (pieces.size() != 1 || pieces[0].field != FieldName::value || options_->compact_digits > 0) return std::nullopt;
    const Spec& spec = pieces[0].spec;
    const bool integer = spec.type == 'd' || (spec.type == 0 && spec.precision < 0);
    const bool fixed = (spec.type == 'f' || spec.type == 'F') && spec.precision <= 15;
    const bool is_real = type == Value::Type::float32 || type == Value::Type::float64;
    if (spec.is_time() || (!integer && !fixed) || (integer && is_real)) return std::nullopt;
    return integer ? 0 : spec.precision < 0 ? 6 : spec.precision;
}

std::optional<std::int64_t> FormattedText::count(const FieldValues& values) const {
    const FieldWriter writer(*options_, *numbers_);
    const Key key = writer.key_of(format_.parsed_->pieces.front(), values);
    constexpr auto most = static_cast<std::uint64_t>(std::numeric_limits<std::int64_t>::max());
    if (key.kind != Key::Kind::digits || key.bits > most) return std::nullopt;
    const auto count = static_cast<std::int64_t>(key.bits);
    return key.negative ? -count : count;
}

void FormattedText::set_form(PluralCategory category, Format format) {
    if (forms_ == nullptr) forms_ = std::make_unique<Forms>();
    (*forms_)[static_cast<std::size_t>(category)] = std::move(format);
    take_back();
}

void FormattedText::set_numbers(const NumberStyle* numbers) {
    numbers_ = numbers != nullptr ? numbers : &english();
    take_back();
}

FormattedText FormattedText::copy() const {
    FormattedText other(format_, *options_);
    if (forms_ != nullptr) other.forms_ = std::make_unique<Forms>(*forms_);
    other.numbers_ = numbers_;
    return other;
}

bool FormattedText::update(const FieldValues& values) {
    if (number_ != nullptr && number_->is_shown()) {
        const NumberText::Update update =
            handed_max_ == values.max ? number_->update(values.value) : NumberText::Update::unfit;
        if (update != NumberText::Update::unfit) return update == NumberText::Update::changed;
        take_back();
        return make(values, false);
    }
    return make(values, !made_);
}

/// The general way; `first` if it counts as a change in any case.
bool FormattedText::make(const FieldValues& values, bool first) {
    const FieldWriter writer(*options_, *numbers_);
    const auto& pieces = format_.parsed_->pieces;
    bool differs = !made_;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Key key = writer.key_in(format_, i, values);
        differs = differs || key.kind == Key::Kind::text || key != keys_[i];
        keys_[i] = key;
    }
    if (!differs) return false;

    ++times_made_;
    std::string& before = Draft::of_thread().before;
    before.assign(text_);
    text_.clear();
    write(pieces.empty() || forms_ == nullptr ? format_ : form_for(first_number()), values);
    const bool changed = first || before != text_ || !pieces_.empty();
    made_ = true;
    hand_over(values);
    return changed;
}

/// The field of the first number that is shown.
std::size_t FormattedText::first_number() const {
    for (std::size_t i = 0; i < keys_.size(); ++i)
        if (keys_[i].kind != Key::Kind::sign) return i;
    return 0;
}

/// An ordinal number chooses by the rules of ordinals.
const Format& FormattedText::form_for(std::size_t first) const {
    const FieldWriter writer(*options_, *numbers_);
    const bool is_ordinal = format_.parsed().pieces[first].field == FieldName::ordinal;
    const PluralRules& rules = is_ordinal ? numbers_->ordinals : numbers_->plurals;
    const auto& form = (*forms_)[static_cast<std::size_t>(rules.select(writer.operands(keys_[first])))];
    return form ? *form : format_;
}

void FormattedText::write(const Format& form, const FieldValues& values) {
    const FieldWriter writer(*options_, *numbers_);
    const bool own = &form == &format_;
    pieces_.clear();
    Draft::of_thread().open_pieces.clear();
    for (std::size_t i = 0; i < form.parsed_->pieces.size(); ++i) {
        const auto& piece = form.parsed_->pieces[i];
        mark(form, i, text_.size());
        text_ += piece.literal;
        const std::size_t begin = text_.size();
        writer.write(piece, own ? keys_[i] : writer.key_in(form, i, values), values, text_);
        if (piece.field == FieldName::value)
            number_in_text_ = {static_cast<std::uint32_t>(begin), static_cast<std::uint32_t>(text_.size())};
    }
    mark(form, form.parsed_->pieces.size(), text_.size());
    text_ += form.parsed_->tail;
}

/// The pieces that begin and end in the literal text before a field, which stands at `from`.
void FormattedText::mark(const Format& form, std::size_t before, std::size_t from) {
    using MarkupKind = Format::Parsed::Markup::Kind;
    if (form.parsed_->markup.empty()) return;
    std::vector<std::size_t>& open_pieces = Draft::of_thread().open_pieces;
    for (const Format::Parsed::Markup& markup : form.parsed_->markup) {
        if (markup.before != before) continue;
        const std::size_t at = from + markup.at;
        if (markup.kind == MarkupKind::end) {
            pieces_[open_pieces.back()].end = at;
            open_pieces.pop_back();
            continue;
        }
        const bool is_image = markup.kind == MarkupKind::image;
        constexpr std::size_t image_bytes = 3;
        pieces_.push_back({at, is_image ? at + image_bytes : at, markup.name, is_image});
        if (!is_image) open_pieces.push_back(pieces_.size() - 1);
    }
}

}  // namespace rapido
