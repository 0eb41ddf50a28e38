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
constexpr std::string_view picture_character = "\xef\xbf\xbc";
constexpr std::array<std::string_view, 8> field_names{"value", "max",   "percent", "ratio",
                                                      "left",  "delta", "sign",    "named"};
/// Those that a pattern may use.
constexpr std::span<const std::string_view> own_names = std::span(field_names).first<7>();

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
        if (!open_.empty()) return fault(open_.back(), "a styled piece without its end", "write '{</>}' behind it");
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

    /// `{<style>}`, `{</>}` and `{<picture/>}`.
    bool parse_markup(std::size_t begin, std::size_t close) {
        using Markup = Format::Parsed::Markup;
        std::string_view inside = pattern_.substr(begin + 1, close - begin - 1);
        const bool is_closed = inside.ends_with('>');
        inside = inside.substr(1, inside.size() - (is_closed ? 2 : 1));
        Markup markup{.before = parsed_.pieces.size(), .at = literal_.size(), .offset = begin, .name = {}};
        if (inside == "/") {
            markup.kind = Markup::Kind::end;
            if (open_.empty()) return fail(begin, "'{</>}' without a piece that it ends");
            open_.pop_back();
        } else if (inside.ends_with('/')) {
            markup.kind = Markup::Kind::picture;
            inside.remove_suffix(1);
            literal_ += picture_character;
        } else {
            open_.push_back(begin);
            if (open_.size() > deepest_piece) return fail(begin, "pieces are nested more than 8 deep");
        }
        const auto allowed = [](char c) {
            return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-' ||
                   c == '.';
        };
        if (!is_closed || (inside != "/" && (inside.empty() || !std::all_of(inside.begin(), inside.end(), allowed))))
            return fail(begin, "'" + utf8::shortened(pattern_.substr(begin, close + 1 - begin)) + "' is no piece",
                        "write {<style>}, {</>} or {<picture/>}, or '{{' for the brace itself");
        if (markup.kind != Markup::Kind::end) markup.name = inside;
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
        if (pattern_[begin + 1] == '<') return parse_markup(begin, close);
        const std::string_view inside = pattern_.substr(begin + 1, close - begin - 1);
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
                return fail(begin + 1, "unknown field '" + std::string(name) + "'; expected " + one_of(all),
                            did_you_mean(name, all));
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
        if (piece.field == FieldName::delta && piece.spec_text.empty()) spec.sign = '+';
    }

    std::string_view pattern_;
    Location where_;
    std::span<const std::string_view> names_;
    std::size_t at_ = 0;
    std::string literal_;
    std::vector<std::size_t> open_;  ///< where pieces begin that have not ended
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
            uses.push_back({markup.name, markup.kind == Parsed::Markup::Kind::picture, markup.offset});
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
               piece.field != FieldName::sign;
    });
}

std::string Format::mismatch(std::size_t use, Value::Type type) const {
    const Parsed::Piece& piece = parsed_->pieces[use];
    if (piece.field == FieldName::sign) return "";
    const bool is_part = piece.field == FieldName::percent || piece.field == FieldName::ratio;
    const bool is_amount =
        piece.field != FieldName::value && piece.field != FieldName::max && piece.field != FieldName::named;
    if (is_amount && type == Value::Type::text) return "needs a number, and the source is a text";
    return spec_mismatch(piece.spec, is_part && type != Value::Type::none ? Value::Type::float64 : type);
}

std::string_view to_string(FieldName field) {
    return field_names[static_cast<std::size_t>(field)];
}

}  // namespace rapido
