#include "rapido/text/format.hpp"

#include <algorithm>
#include <array>

#include "base/nearest.hpp"
#include "base/utf8.hpp"
#include "text/format_parsed.hpp"

namespace rapido {
namespace {

constexpr std::size_t longest_pattern = 4096;
constexpr std::size_t deepest_piece = 8;
constexpr std::size_t most_markup = 64;
/// The object replacement character, U+FFFC.
constexpr std::string_view image_character = "\xef\xbf\xbc";
constexpr std::array<std::string_view, 9> field_names{"value", "max",  "percent", "ratio", "left",
                                                      "delta", "sign", "ordinal", "named"};
/// Those that a pattern may use.
constexpr std::span<const std::string_view> own_names = std::span(field_names).first<8>();

std::string_view trimmed(std::string_view text) {
    text.remove_prefix(std::min(text.find_first_not_of(' '), text.size()));
    return text.substr(0, text.find_last_not_of(' ') + 1);
}

/// Cuts a pattern into literals and fields.
class PatternParser {
 public:
    PatternParser(std::string_view pattern, Location where, std::span<const std::string_view> names)
        : pattern_(pattern), where_(std::move(where)), names_(names) {}

    Result<Format::Parsed> parse() {
        if (pattern_.size() > longest_pattern) return fault(0, "a format is limited to 4096 bytes");
        if (!utf8::is_valid(pattern_)) return fault(0, "a format must be valid UTF-8");
        while (at_ < pattern_.size()) {
            const char c = pattern_[at_];
            if (c != '{' && c != '}') {
                literal_ += c;
                ++at_;
            } else if (at_ + 1 < pattern_.size() && pattern_[at_ + 1] == c) {
                literal_ += c;
                at_ += 2;
            } else if (c == '}') {
                return fault(at_, "'}' without a '{' before it", "write '}}' for the brace itself");
            } else if (!parse_field()) {
                return *problem_;
            }
        }
        if (!open_.empty()) {
            const Format::Parsed::Markup& last = parsed_.markup[open_.back()];
            return fault(last.offset, "a styled piece without its end", "write '{/" + last.name + "}' behind it");
        }
        parsed_.tail = std::move(literal_);
        return std::move(parsed_);
    }

 private:
    Problem fault(std::size_t offset, std::string message, std::string hint = {}) const {
        Location location = where_;
        if (location.column > 0) location.column += static_cast<int>(utf8::length(pattern_.substr(0, offset)));
        return {std::move(location), "format \"" + utf8::shortened(pattern_) + "\": " + std::move(message),
                std::move(hint), ProblemCode::bad_format};
    }

    bool fail(std::size_t offset, std::string message, std::string hint = {}) {
        problem_ = fault(offset, std::move(message), std::move(hint));
        return false;
    }

    /// `{#style}`, `{/style}` and `{#image/}`, the markup of MessageFormat 2 (UTS #35, part 9), without options and attributes.
    bool parse_markup(std::size_t begin, std::size_t close) {
        using Markup = Format::Parsed::Markup;
        std::string_view inside = trimmed(pattern_.substr(begin + 1, close - begin - 1));
        const bool is_end = inside.front() == '/', is_image = !is_end && inside.size() > 1 && inside.back() == '/';
        inside = trimmed(inside.substr(1, inside.size() - (is_image ? 2 : 1)));
        const auto allowed = [](char c) {
            return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-' ||
                   c == '.';
        };
        if (inside.empty() || !std::all_of(inside.begin(), inside.end(), allowed))
            return fail(begin, "'" + utf8::shortened(pattern_.substr(begin, close + 1 - begin)) + "' is no piece",
                        "write {#style}, {/style} or {#image/}, or '{{' for the brace itself");
        Markup markup{.before = parsed_.pieces.size(), .at = literal_.size(), .offset = begin, .name = {}};
        if (is_end) {
            const std::string end = "'{/" + std::string(inside) + "}'";
            if (open_.empty()) return fail(begin, end + " without a piece that it ends");
            if (const std::string& last = parsed_.markup[open_.back()].name; last != inside)
                return fail(begin, end + " where the last piece is '" + last + "'", "write '{/" + last + "}' first");
            markup.kind = Markup::Kind::end;
            open_.pop_back();
        } else {
            markup.name = inside;
            if (is_image) {
                markup.kind = Markup::Kind::image;
                literal_ += image_character;
            } else {
                open_.push_back(parsed_.markup.size());
                if (open_.size() > deepest_piece) return fail(begin, "pieces are nested more than 8 deep");
            }
        }
        parsed_.markup.push_back(std::move(markup));
        if (parsed_.markup.size() > most_markup) return fail(begin, "a format has at most 64 pieces");
        at_ = close + 1;
        return true;
    }

    bool parse_field() {
        const std::size_t begin = at_;
        const std::size_t close = pattern_.find('}', begin);
        if (close == std::string_view::npos)
            return fail(begin, "'{' without a '}' after it", "write '{{' for the brace itself");
        const std::string_view inside = pattern_.substr(begin + 1, close - begin - 1);
        const char first = trimmed(inside).empty() ? '\0' : trimmed(inside).front();
        if (first == '#' || first == '/') return parse_markup(begin, close);
        if (first == '<')
            return fail(begin, "'" + utf8::shortened(pattern_.substr(begin, close + 1 - begin)) + "' is of version 0.1",
                        "write {#style}, {/style} and {#image/}, or let 'rapido format --from 0.1' do so");
        const std::size_t colon = std::min(inside.find(':'), inside.size());
        const std::string_view name = inside.substr(0, colon);

        Format::Parsed::Piece piece;
        piece.literal = std::move(literal_);
        literal_.clear();
        piece.offset = begin;
        if (!name.empty()) {
            const auto named = std::find(names_.begin(), names_.end(), name);
            const auto known = std::find(own_names.begin(), own_names.end(), name);
            if (named != names_.end()) {
                piece.field = FieldName::named;
                piece.named = static_cast<std::size_t>(named - names_.begin());
            } else if (known != own_names.end()) {
                piece.field = static_cast<FieldName>(known - own_names.begin());
            } else {
                std::vector<std::string_view> all(own_names.begin(), own_names.end());
                all.insert(all.end(), names_.begin(), names_.end());
                std::string hint = did_you_mean(name, all);
                if (hint.empty()) hint = "the value itself is {}, and what else is shown has its name in 'values'";
                return fail(begin + 1, "unknown field '" + std::string(name) + "'; expected " + one_of(all),
                            std::move(hint));
            }
        }
        if (colon < inside.size()) {
            piece.spec_text = inside.substr(colon + 1);
            SpecFault fault;
            if (!parse_spec(piece.spec_text, piece.spec, fault))
                return fail(begin + 1 + colon + 1 + fault.offset, std::move(fault.message), std::move(fault.hint));
        }
        if (piece.field == FieldName::sign) {
            if (parsed_.has_sign) return fail(begin, "a second {sign}");
            if (piece.spec.width != 0 || piece.spec.type != 0 || piece.spec.is_time())
                return fail(begin, "{sign} takes no spec but '+' and ' '");
            parsed_.has_sign = true;
        }
        if (piece.field == FieldName::ordinal &&
            (piece.spec.is_time() || (piece.spec.type != 0 && piece.spec.type != 'd')))
            return fail(begin, "{ordinal} is a whole number; its spec may have a width, 'd' and 'L'");
        add_defaults(piece);
        parsed_.pieces.push_back(std::move(piece));
        if (parsed_.pieces.size() > most_fields) return fail(begin, "a format has at most 8 fields");
        at_ = close + 1;
        return true;
    }

    /// What a field shows where its spec is silent.
    static void add_defaults(Format::Parsed::Piece& piece) {
        Spec& spec = piece.spec;
        const bool is_part = piece.field == FieldName::percent || piece.field == FieldName::ratio;
        if (is_part && spec.type == 0 && !spec.is_time()) {
            spec.type = 'f';
            if (spec.precision < 0) spec.precision = piece.field == FieldName::percent ? 0 : 2;
        }
        if (piece.field == FieldName::ordinal) spec.type = 'd';
        if (piece.field == FieldName::delta && piece.spec_text.empty()) spec.sign = '+';
    }

    std::string_view pattern_;
    Location where_;
    std::span<const std::string_view> names_;
    std::size_t at_ = 0;
    std::string literal_;
    std::vector<std::size_t> open_;  ///< pieces that have not ended, by their place in the markup
    Format::Parsed parsed_;
    std::optional<Problem> problem_;
};

}  // namespace

Result<Format> Format::parse(std::string_view pattern, const Location& where, std::span<const std::string_view> names) {
    Result<Parsed> parsed = PatternParser(pattern, where, names).parse();
    if (!parsed) return parsed.problems();
    Format format;
    format.parsed_ = std::make_shared<const Parsed>(*std::move(parsed));
    return format;
}

std::vector<Format::PieceUse> Format::piece_uses() const {
    std::vector<PieceUse> uses;
    for (const Parsed::Markup& markup : parsed_->markup)
        if (markup.kind != Parsed::Markup::Kind::end)
            uses.push_back({markup.name, markup.kind == Parsed::Markup::Kind::image, markup.offset});
    return uses;
}

std::vector<Format::Use> Format::uses() const {
    std::vector<Use> uses;
    for (const Parsed::Piece& piece : parsed_->pieces)
        uses.push_back({piece.field, piece.named, piece.spec_text, piece.offset});
    return uses;
}

bool Format::uses_max() const {
    return std::any_of(parsed_->pieces.begin(), parsed_->pieces.end(), [](const Parsed::Piece& piece) {
        return piece.field != FieldName::value && piece.field != FieldName::delta && piece.field != FieldName::named &&
               piece.field != FieldName::sign && piece.field != FieldName::ordinal;
    });
}

std::string Format::mismatch(std::size_t use, Value::Type type) const {
    const Parsed::Piece& piece = parsed_->pieces[use];
    if (piece.field == FieldName::sign) return "";
    const bool is_part = piece.field == FieldName::percent || piece.field == FieldName::ratio;
    const bool is_amount =
        piece.field != FieldName::value && piece.field != FieldName::max && piece.field != FieldName::named;
    if (is_amount && type == Value::Type::text) return "needs a number, and the source is a text";
    if (piece.field == FieldName::ordinal)  // any number is rounded
        return type == Value::Type::duration ? "needs a number, and the source is a time" : "";
    return spec_mismatch(piece.spec, is_part && type != Value::Type::none ? Value::Type::float64 : type);
}

std::string_view to_string(FieldName field) {
    return field_names[static_cast<std::size_t>(field)];
}

}  // namespace rapido
