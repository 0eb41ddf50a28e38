#include "render/fonts/patterns.hpp"

#include <algorithm>
#include <utility>

namespace rapido {
namespace {

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}

/// All sequences of three digits, one after the other, each of them once (de Bruijn 1946, by the greedy rule: the largest digit that makes a
/// new one).
std::string all_triples() {
    std::string text = "000";
    std::array<bool, 1000> was{};
    was[0] = true;
    for (std::size_t last = 0;;) {
        std::size_t next = 10;
        while (next-- > 0)
            if (!was[last % 100 * 10 + next]) break;
        if (next >= 10) return text;
        last = last % 100 * 10 + next;
        was[last] = true;
        text.push_back(static_cast<char>('0' + next));
    }
}

}  // namespace

/// Whether each digit is the same glyph at the same place, whatever digits are beside it.
bool Patterns::has_even_digits(FontId font, const Face& face) {
    if (font >= even_digits_.size()) even_digits_.resize(font + std::size_t{1}, -1);
    if (even_digits_[font] >= 0) return even_digits_[font] != 0;
    static const std::string text = all_triples();
    faces_.shape(face, text);
    unsigned count = 0;
    const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(faces_.shaped(), &count);
    const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(faces_.shaped(), &count);
    std::array<std::optional<std::array<std::int64_t, 4>>, 10> seen;
    bool is_even = count == text.size();
    for (unsigned i = 0; i < count && is_even; ++i) {
        const std::array<std::int64_t, 4> one{infos[i].codepoint, positions[i].x_advance, positions[i].x_offset,
                                              positions[i].y_offset};
        auto& first = seen[static_cast<std::size_t>(text[infos[i].cluster] - '0')];
        if (!first) first = one;
        is_even = infos[i].cluster == i && *first == one;
    }
    even_digits_[font] = is_even ? 1 : 0;
    return is_even;
}

bool Patterns::append(const Face& face, std::string_view text, Pattern& into, std::vector<std::uint32_t>& clusters) {
    faces_.shape(face, text);
    unsigned count = 0;
    const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(faces_.shaped(), &count);
    const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(faces_.shaped(), &count);
    clusters.clear();
    std::int64_t pen = 0;
    for (unsigned i = 0; i < count; ++i) {
        if (infos[i].codepoint == 0) return false;
        clusters.push_back(infos[i].cluster);
        pen = faces_.place(face, text, infos[i], positions[i], pen, [&](std::int64_t x, std::int32_t y) {
            into.glyphs.push_back({infos[i].codepoint, static_cast<std::int32_t>(x), y});
        });
    }
    into.width = pen;
    return true;
}

/// With each digit in all places: nothing else may look or stand differently.
std::optional<Patterns::Pattern> Patterns::with_digits(const Face& face, std::string_view text) {
    Pattern pattern;
    variant_ = text;
    for (char digit = '0'; digit <= '9'; ++digit) {
        for (char& c : variant_)
            if (is_digit(c)) c = digit;
        const std::int64_t width = pattern.width;
        if (!append(face, variant_, pattern, digit == '0' ? clusters_ : other_clusters_)) return std::nullopt;
        if (digit != '0' && (other_clusters_ != clusters_ || pattern.width != width)) return std::nullopt;
    }
    const std::size_t count = clusters_.size();
    for (std::size_t i = 0; i < count; ++i) {
        const bool is_of_digit = is_digit(text[clusters_[i]]);
        pattern.at.push_back(is_of_digit ? static_cast<std::uint16_t>(clusters_[i]) : no_digit);
        for (std::size_t digit = 1; digit < 10 && !is_of_digit; ++digit) {
            const Placed &first = pattern.glyphs[i], &other = pattern.glyphs[digit * count + i];
            if (first.id != other.id || first.x != other.x || first.y != other.y) return std::nullopt;
        }
    }
    // A digit that became part of another glyph would have no place of its own.
    const auto digits = static_cast<std::size_t>(std::count_if(text.begin(), text.end(), is_digit));
    const auto places = static_cast<std::size_t>(
        std::count_if(pattern.at.begin(), pattern.at.end(), [](std::uint16_t at) { return at != no_digit; }));
    return digits == places ? std::optional(std::move(pattern)) : std::nullopt;
}

std::optional<Patterns::Pattern> Patterns::made(FontId font, const Face& face, std::string_view text) {
    if (std::any_of(text.begin(), text.end(), is_digit))
        return has_even_digits(font, face) ? with_digits(face, text) : std::nullopt;
    Pattern pattern;
    if (!append(face, text, pattern, clusters_)) return std::nullopt;
    pattern.at.assign(pattern.glyphs.size(), no_digit);
    return pattern;
}

const Patterns::Pattern* Patterns::find(FontId font, const Face& face, std::string_view text) {
    if (text.size() > longest) return nullptr;
    key_.assign(reinterpret_cast<const char*>(&font), sizeof font);
    for (const char c : text)
        key_.push_back(is_digit(c) ? '0' : c);
    if (const auto known = known_.find(key_); known != known_.end()) return known->second ? &*known->second : nullptr;
    // Most texts that come once never come again.
    constexpr std::size_t rows = 512;
    if (asked_.empty()) asked_.resize(rows);
    const std::size_t hash = Hash{}(key_);
    if (std::exchange(asked_[hash % rows], hash) != hash) return nullptr;
    if (known_.size() >= most) known_.clear();
    const auto added = known_.emplace(key_, made(font, face, text)).first;
    return added->second ? &*added->second : nullptr;
}

}  // namespace rapido
