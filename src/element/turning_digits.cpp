#include "element/turning_digits.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "base/utf8.hpp"

namespace rapido {
namespace {

constexpr float middle_of_figures = 0.36F;  ///< above the baseline, in sizes of the font
constexpr float drum = 0.46F;               ///< the radius of a wheel, of which a quarter turn is a figure
constexpr float slide = 0.55F;              ///< how far a figure slides
constexpr float least = 0.02F;              ///< what is seen of less is nothing
constexpr double ten = 10;

double wrapped(double number) {
    return number - ten * std::floor(number / ten);
}

bool is_sign(std::string_view text) {
    return text == "-" || text == "+" || text == "−";
}

}  // namespace

double TurningDigits::part(Nanoseconds begin) const {
    if (now_ <= begin) return 0;
    if (is_over(begin)) return 1;
    return motion_.easing.at(to_seconds(now_ - begin).count() / motion_.duration.count());
}

float TurningDigits::x_of(const Place& place) const {
    return place.x_from + (place.x_to - place.x_from) * static_cast<float>(part(place.x_begin));
}

float TurningDigits::shift_of(const Shift& shift) const {
    return (shift.x_from - shift.x_to) * static_cast<float>(1 - part(shift.begin));
}

/// Whether a wheel turns through the figures between the two.
bool TurningDigits::turns(const Place& place) const {
    return motion_.kind == DigitMotionKind::wheel && place.from.digit >= 0 && place.to.digit >= 0;
}

float TurningDigits::turned(const Place& place) const {
    return place.turned_from + (place.turned_to - place.turned_from) * static_cast<float>(part(place.begin));
}

void TurningDigits::settle(Place& place) {
    if (place.has_next) place.to = place.next;
    place.from = place.to;
    place.has_next = place.moves = false;
    place.x_from = place.x_to;
}

/// What has come to its figure rests, or goes on to the next one from the moment at which it came there.
void TurningDigits::go_on(Place& place) {
    if (place.moves && place.has_next && is_over(place.begin)) {
        place.from = place.to;
        place.to = place.next;
        place.has_next = false;
        place.begin += to_nanoseconds(motion_.duration);
        turn(place, static_cast<float>(std::max(place.from.digit, 0)));
    }
    if (!place.moves || !is_over(place.begin)) return;
    place.from = place.to;
    place.moves = false;
}

/// A wheel turns from where it is to its figure, by way of those between them.
void TurningDigits::turn(Place& place, float at) {
    const float digit = static_cast<float>(std::max(place.to.digit, 0));
    const auto way = static_cast<float>(wrapped(static_cast<double>(rises_ ? digit - at : at - digit)));
    place.rises = rises_;
    place.turned_from = at;
    place.turned_to = rises_ ? at + way : at - way;
}

bool TurningDigits::advance(Nanoseconds now, bool may_move) {
    now_ = now;
    may_move_ = may_move;
    snaps_ = std::exchange(snaps_next_, false) || !may_move;
    const bool moved_before = std::exchange(moved_, running_.has_value());
    if (!may_move) {
        leaving_.clear();
        for (Place& place : places_)
            settle(place);
        before_.x_from = before_.x_to;
        behind_.x_from = behind_.x_to;
        return moved_before;
    }
    for (Place& place : places_) {
        go_on(place);
        moved_ = moved_ || place.moves || (place.x_from != place.x_to && !is_over(place.x_begin));
    }
    for (Place& place : leaving_)
        go_on(place);
    std::erase_if(leaving_, [](const Place& place) { return !place.moves; });
    const auto is_shifting = [this](const Shift& shift) { return shift.x_from != shift.x_to && !is_over(shift.begin); };
    moved_ = moved_ || !leaving_.empty() || is_shifting(before_) || is_shifting(behind_);
    return moved_ || moved_before;
}

void TurningDigits::run(std::optional<double> amount) {
    if (amount && (!may_move_ || !std::isfinite(*amount) || std::abs(*amount) > 1e15)) amount.reset();
    if (running_ && !amount) {
        // It rests: each wheel goes from where it is to its figure.
        for (std::size_t i = 0; i < places_.size(); ++i) {
            Place& place = places_[i];
            if (place.to.digit < 0 || i >= wheels_.size() || !std::isfinite(wheels_[i])) continue;
            double way = wrapped(place.to.digit - wheels_[i]);
            if (way > ten / 2) way -= ten;
            if (std::abs(way) < 1e-6) continue;
            place.from = place.to;
            place.turned_from = static_cast<float>(wheels_[i]);
            place.turned_to = static_cast<float>(wheels_[i] + way);
            place.begin = now_;
            place.moves = true;
        }
        moved_ = true;
    }
    running_ = amount;
    wheels_.clear();
    if (!running_) return;
    // The last wheel runs on; each other one turns while the one behind it goes from 9 to 0.
    double unit = 1, behind = 0;
    bool is_last = true;
    for (Place& place : places_) {
        wheels_.push_back(std::numeric_limits<double>::quiet_NaN());
        if (place.to.digit < 0) continue;
        const double amount_here = std::abs(*running_) / unit;
        const double turned =
            is_last ? wrapped(amount_here) : wrapped(std::floor(amount_here + 1e-9)) + std::max(0.0, behind - 9);
        behind = turned;
        unit *= ten;
        is_last = false;
        if (place.moves && !place.from.is_there()) continue;  // it has just come
        wheels_.back() = turned;
        place.moves = place.has_next = false;
    }
}

/// Digits are as wide as each other: where one stands in its place is asked of each.
void TurningDigits::shape_digits(const LaidLine& line, TextMeasurer& measurer, const Language* language) {
    static const NumberStyle plain;
    const auto& digits = language != nullptr ? language->numbers.digits : plain.digits;
    std::string script;
    for (const std::string& digit : digits)
        script += digit;
    if (script == script_ && line.font == font_ && line.size == size_) return;
    script_ = std::move(script);
    font_ = line.font;
    size_ = line.size;
    for (int i = 0; i < 10; ++i) {
        const std::string& digit = digits[static_cast<std::size_t>(i)];
        Figure& figure = digits_[static_cast<std::size_t>(i)];
        figure = {};
        shaped_.clear();
        measurer.shape(line.font, line.size, digit, shaped_);
        if (shaped_.size() != 1 || digit.size() > figure.characters.size()) continue;
        std::copy(digit.begin(), digit.end(), figure.characters.begin());
        figure.length = static_cast<std::uint8_t>(digit.size());
        figure.digit = i;
        figure.glyph = shaped_.front();
    }
}

/// The sign, or none; then its characters from the last to the first, each with its glyph. Nothing where they are not a glyph each. `first_` is the
/// glyph of the first one behind the sign.
std::vector<TurningDigits::Figure> TurningDigits::figures_of(const LaidLine& line, TextMeasurer& measurer,
                                                             const Language* language) {
    shape_digits(line, measurer, language);
    std::vector<Figure> all(1);
    std::size_t begin = std::string::npos, end = 0;
    std::string_view before;
    for (std::size_t at = 0; at < line.text.size();) {
        const std::string_view bytes = line.text.substr(at, utf8::front_length(line.text.substr(at)));
        Figure figure;
        for (const Figure& digit : digits_)
            if (digit.is_there() && digit.bytes() == bytes) figure = digit;
        if (begin == std::string::npos && figure.digit >= 0) {
            begin = at;
            if (is_sign(before)) all.front().say(before);
        }
        if (figure.digit < 0) figure.say(bytes);
        if (begin != std::string::npos) all.push_back(figure);
        before = bytes;
        at += bytes.size();
        if (figure.digit >= 0) end = at;
    }
    while (all.size() > 1 && all.back().digit < 0)
        all.pop_back();
    if (all.size() == 1) return {};
    // Its glyphs stand side by side among those of the line, whichever way the text around it runs.
    shaped_.clear();
    measurer.shape(line.font, line.size, line.text.substr(begin, end - begin), shaped_);
    const auto is_same = [](const Glyph& a, const Glyph& b) { return a.id == b.id && a.font == b.font; };
    const auto found = std::search(line.glyphs.begin(), line.glyphs.end(), shaped_.begin(), shaped_.end(), is_same);
    if (shaped_.size() + 1 != all.size() || found == line.glyphs.end()) return {};
    first_ = static_cast<std::size_t>(found - line.glyphs.begin());
    if (first_ == 0) all.front() = {};
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (!all[i].is_there() || all[i].digit >= 0) continue;
        const Glyph& glyph = line.glyphs[first_ + i - 1];
        all[i].glyph = {glyph.id, {0, glyph.offset.y}, glyph.font};
    }
    std::reverse(all.begin() + 1, all.end());
    return all;
}

/// The glyph of a place: that of the sign stands before the others.
std::size_t TurningDigits::glyph_of(std::size_t place) const {
    return place == 0 ? first_ - 1 : first_ + places_.size() - 1 - place;
}

void TurningDigits::aim(Place& place, const Figure& figure, std::size_t number) {
    const Nanoseconds delay = to_nanoseconds(motion_.stagger) * static_cast<std::int64_t>(number);
    if (place.moves && turns(place) && figure.digit >= 0) {
        const float at = turned(place);
        place.from = place.to;
        place.to = figure;
        place.has_next = false;
        place.begin = now_;
        return turn(place, at);
    }
    if (place.moves) {
        place.next = figure;
        place.has_next = !figure.is_same(place.to);
        return;
    }
    place.from = place.to;
    place.to = figure;
    place.begin = now_ + delay;
    place.moves = true;
    turn(place, static_cast<float>(std::max(place.from.digit, 0)));
}

void TurningDigits::take(const std::optional<LaidLine>& line, TextMeasurer& measurer, const Language* language,
                         bool rises) {
    rises_ = rises;
    const bool is_other_size = line && (line->font != font_ || line->size != size_);
    const std::vector<Figure> figures = line ? figures_of(*line, measurer, language) : std::vector<Figure>();
    const std::size_t count = figures.size();
    const bool moves = may_move_ && !snaps_ && !is_other_size;
    anchor_ = line ? line->anchor : 0;
    // Where each glyph stands, from where the text is held.
    const auto stands = [&](std::size_t glyph) { return line->glyphs[glyph].offset.x - anchor_; };
    const auto move_to = [&](auto& what, float from, float to, Nanoseconds& begin) {
        what.x_from = moves ? from : to;
        what.x_to = to;
        begin = now_;
    };
    const std::size_t known = std::min(places_.size(), count);
    const std::size_t first_gone = leaving_.size();
    for (std::size_t i = count; i < places_.size() && moves; ++i) {
        aim(places_[i], {}, 0);
        places_[i].x_from = places_[i].x_to = x_of(places_[i]);
        leaving_.push_back(places_[i]);
    }
    places_.resize(count);
    float moved = 0;
    for (std::size_t i = 0; i < count; ++i) {
        Place& place = places_[i];
        const Figure& figure = figures[i];
        const float x = figure.is_there() ? stands(glyph_of(i)) - figure.glyph.offset.x : place.x_to;
        if (i >= known || !place.to.is_there()) place.x_from = place.x_to = x;
        if (std::abs(place.x_to - x) > 0.01F || !moves) move_to(place, x_of(place), x, place.x_begin);
        if (i > 0 && i < known) moved = place.x_to - x_of(place);
        const bool runs = running_ && figure.digit >= 0 && i < known;
        const bool is_aimed_at = (place.has_next ? place.next : place.to).is_same(figure);
        if (moves && !runs && !is_aimed_at)
            aim(place, figure, i == 0 ? count - 1 : i - 1);
        else if (!place.moves || runs)
            place.from = place.to = figure;
        if (moves) continue;
        place.to = figure;
        place.has_next = false;
        settle(place);
    }
    // What leaves goes along with those that stay.
    for (std::size_t i = first_gone; i < leaving_.size(); ++i) {
        leaving_[i].x_to += moved;
        leaving_[i].x_begin = now_;
    }
    const bool has_sign = count > 0 && places_.front().to.is_there();
    const std::size_t number_begin = first_ - (has_sign ? 1 : 0);
    const std::size_t last = count > 0 ? first_ + count - 1 : 0;
    const auto follow = [&](Shift& shift, bool is_there, std::size_t glyph) {
        if (!is_there) return;
        const float x = stands(glyph);
        if (std::abs(shift.x_to - x) > 0.01F || !moves) move_to(shift, shift.x_to + shift_of(shift), x, shift.begin);
    };
    follow(before_, line && count > 0 && number_begin > 0, 0);
    follow(behind_, line && count > 0 && last < line->glyphs.size(), last);
    moved_ = moved_ || moves;
}

/// `up` is how far its middle lies above where it rests, in sizes of the font.
void TurningDigits::draw_figure(const Figure& figure, float x, float up, float stretch, float seen, FontId font,
                                float size, Point start, Color color, float scale, DisplayGroup& into) const {
    if (!figure.is_there() || seen < least || stretch < least) return;
    Glyph glyph = figure.glyph;
    const float em = scale > 0 ? size / scale : size;
    glyph.offset.x += x + anchor_;
    glyph.offset.y += em * (middle_of_figures * (stretch - 1) - up);
    color.alpha = static_cast<std::uint8_t>(std::lround(static_cast<float>(color.alpha) * std::min(seen, 1.0F)));
    into.text(font, size, start, em * scale, color, "", {&glyph, 1}, scale);
    if (stretch != 1) into.stretch_last(stretch);
}

/// `way` is 0 where the one that goes out stands, and 1 where the other one does.
void TurningDigits::draw_between(const Figure& out, const Figure& in, float way, bool rises, float x, FontId font,
                                 float size, Point start, Color color, float scale, DisplayGroup& into) const {
    const float side = rises ? 1.0F : -1.0F;
    const auto draw = [&](const Figure& figure, float up, float stretch, float seen) {
        draw_figure(figure, x, up * side, stretch, seen, font, size, start, color, scale, into);
    };
    switch (motion_.kind) {
        case DigitMotionKind::wheel: {
            const float angle = way * 3.14159265F / 2;
            draw(out, drum * std::sin(angle), std::cos(angle), std::cos(angle));
            draw(in, -drum * std::cos(angle), std::sin(angle), std::sin(angle));
            return;
        }
        case DigitMotionKind::flip: {
            const float turn = std::cos(way * 3.14159265F);
            if (way < 0.5F)
                draw(out, 0, turn, 1);
            else
                draw(in, 0, -turn, 1);
            return;
        }
        case DigitMotionKind::slide:
            draw(out, way * slide, 1, 1 - way);
            draw(in, (way - 1) * slide, 1, way);
            return;
    }
}

void TurningDigits::draw_place(const Place& place, std::size_t number, FontId font, float size, Point start,
                               Color color, float scale, DisplayGroup& into) const {
    const float x = x_of(place);
    const auto wheel = [&](double at) {
        const double whole = std::floor(at);
        const auto digit = [](double figure) { return static_cast<std::size_t>(wrapped(figure)) % 10; };
        draw_between(digits_[digit(whole)], digits_[digit(whole + 1)], static_cast<float>(at - whole), true, x, font,
                     size, start, color, scale, into);
    };
    if (running_ && number < wheels_.size() && std::isfinite(wheels_[number])) return wheel(wheels_[number]);
    if (place.moves && turns(place)) return wheel(static_cast<double>(turned(place)));
    // What comes waits until what goes has made room.
    float way = static_cast<float>(part(place.begin));
    if (!place.to.is_there()) way = std::min(2 * way, 1.0F);
    if (!place.from.is_there()) way = std::max(2 * way - 1, 0.0F);
    draw_between(place.from, place.to, way, place.rises, x, font, size, start, color, scale, into);
}

void TurningDigits::draw(FontId font, float size, Point start, float width, Color color, std::string_view text,
                         std::span<const Glyph> glyphs, float scale, DisplayGroup& into) const {
    if (!moved_) return into.text(font, size, start, width, color, text, glyphs, scale);
    still_.clear();
    const std::size_t count = places_.size();
    const auto turns_now = [&](std::size_t place) {
        return places_[place].moves || (running_ && place < wheels_.size() && std::isfinite(wheels_[place]));
    };
    const std::size_t begin = count > 0 && places_.front().to.is_there() ? first_ - 1 : first_;
    for (std::size_t i = 0; i < glyphs.size(); ++i) {
        Glyph glyph = glyphs[i];
        if (count > 0 && i >= begin && i + 1 < first_ + count) {
            const std::size_t place = i < first_ ? 0 : first_ + count - 1 - i;
            if (turns_now(place)) continue;
            glyph.offset.x += x_of(places_[place]) - places_[place].x_to;
        } else if (count > 0) {
            glyph.offset.x += shift_of(i < first_ ? before_ : behind_);
        }
        still_.push_back(glyph);
    }
    into.text(font, size, start, width, color, text, still_, scale);
    for (std::size_t i = 0; i < count; ++i)
        if (turns_now(i)) draw_place(places_[i], i, font, size, start, color, scale, into);
    for (const Place& place : leaving_)
        draw_place(place, std::numeric_limits<std::size_t>::max(), font, size, start, color, scale, into);
}

}  // namespace rapido
