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

/// Whether a wheel turns through the figures between the two.
bool TurningDigits::turns(const Place& place) const {
    return motion_.kind == DigitMotionKind::wheel && place.from.digit >= 0 && place.to.digit >= 0;
}

float TurningDigits::turned(const Place& place) const {
    return place.turned_from + (place.turned_to - place.turned_from) * static_cast<float>(part(place.begin));
}

/// All is where it comes to rest.
void TurningDigits::settle() {
    moved_ = false;
    running_.reset();
    wheels_.clear();
    leaving_.clear();
    for (Place& place : places_) {
        place.from = place.to = Figure(place.last());
        place.has_next = place.moves = false;
        place.x.from = place.x.to;
    }
    before_.from = before_.to;
    behind_.from = behind_.to;
}

/// What has come to its figure rests, or goes on to the next one from the moment at which it came there.
void TurningDigits::go_on(Place& place) {
    if (place.moves && place.has_next && is_over(place.begin)) {
        place.from = place.to;
        place.to = place.next;
        place.has_next = false;
        place.begin += to_nanoseconds(motion_.duration);
        turn(place, static_cast<float>(std::max(place.from.digit, 0)), place.next_rises);
    }
    if (!place.moves || !is_over(place.begin)) return;
    place.from = place.to;
    place.moves = false;
}

/// A wheel turns from where it is to its figure, by way of those between them.
void TurningDigits::turn(Place& place, float at, bool rises) {
    const float digit = static_cast<float>(std::max(place.to.digit, 0));
    const auto way = static_cast<float>(wrapped(static_cast<double>(rises ? digit - at : at - digit)));
    place.rises = rises;
    place.turned_from = at;
    place.turned_to = rises ? at + way : at - way;
}

bool TurningDigits::advance(Nanoseconds now, bool may_move) {
    now_ = now;
    may_move_ = may_move;
    snaps_ = std::exchange(snaps_next_, false) || !may_move;
    const bool moved_before = std::exchange(moved_, running_.has_value());
    if (snaps_) {
        settle();
        return moved_before;
    }
    for (Place& place : places_) {
        go_on(place);
        moved_ = moved_ || place.moves || is_moving(place.x);
    }
    for (Place& place : leaving_)
        go_on(place);
    std::erase_if(leaving_, [](const Place& place) { return !place.moves; });
    moved_ = moved_ || !leaving_.empty() || is_moving(before_) || is_moving(behind_);
    return moved_ || moved_before;
}

void TurningDigits::follow(double amount, std::optional<double> running) {
    if (amount != amount_ && std::isfinite(amount)) {
        if (std::isfinite(amount_)) rises_ = amount > amount_;
        amount_ = amount;
    }
    run(running);
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
        return turn(place, at, rises_);
    }
    if (place.moves) {
        place.next = figure;
        place.next_rises = rises_;
        place.has_next = !figure.is_same(place.to);
        return;
    }
    place.from = place.to;
    place.to = figure;
    place.begin = now_ + delay;
    place.moves = true;
    turn(place, static_cast<float>(std::max(place.from.digit, 0)), rises_);
}

void TurningDigits::take(const std::optional<LaidLine>& line, TextMeasurer& measurer, const Language* language) {
    const bool is_other_size = line && (line->font != font_ || line->size != size_);
    const std::vector<Figure> figures = line ? figures_of(*line, measurer, language) : std::vector<Figure>();
    const std::size_t count = figures.size();
    const bool moves = may_move_ && !snaps_ && !is_other_size;
    anchor_ = line ? line->anchor : 0;
    // Where each glyph stands, from where the text is held.
    const auto stands = [&](std::size_t glyph) { return line->glyphs[glyph].offset.x - anchor_; };
    const auto move_to = [&](Way& way, float x) {
        if (std::abs(way.to - x) > 0.01F) way = {at(way), x, now_};
    };
    const std::size_t known = std::min(places_.size(), count);
    const std::size_t first_gone = leaving_.size();
    for (std::size_t i = count; i < places_.size(); ++i) {
        aim(places_[i], {}, 0);
        leaving_.push_back(places_[i]);
    }
    places_.resize(count);
    float moved = 0;  // what the last of those that stay moves
    for (std::size_t i = 0; i < count; ++i) {
        Place& place = places_[i];
        const Figure& figure = figures[i];
        if (figure.is_there()) {
            const float x = stands(glyph_of(i)) - figure.glyph.offset.x;
            if (i >= known || !place.to.is_there()) place.x = {x, x, now_};
            move_to(place.x, x);
        }
        if (i > 0 && i < known) moved = -shift(place.x);
        if (runs(i) && figure.digit >= 0)
            place.from = place.to = figure;
        else if (!place.last().is_same(figure))
            aim(place, figure, i == 0 ? count - 1 : i - 1);
        else if (!place.moves)
            place.from = place.to = figure;
    }
    // What leaves goes along with those that stay.
    for (std::size_t i = first_gone; i < leaving_.size(); ++i) {
        const float x = at(leaving_[i].x);
        leaving_[i].x = {x, x + moved, now_};
    }
    const std::size_t begin = first_ - (has_sign() ? 1 : 0), end = first_ + count - 1;
    if (count > 0 && begin > 0) move_to(before_, stands(0));
    if (count > 0 && end < line->glyphs.size()) move_to(behind_, stands(end));
    if (!moves) return settle();
    moved_ = true;
}

/// `up` is how far its middle lies above where it rests, in sizes of the font.
void TurningDigits::draw_figure(const Figure& figure, float x, float up, float stretch, float seen,
                                const Pen& pen) const {
    if (!figure.is_there() || seen < least || stretch < least) return;
    Glyph glyph = figure.glyph;
    glyph.offset.x += x + anchor_;
    glyph.offset.y += size_ * (middle_of_figures * (stretch - 1) - up);
    Color color = pen.color;
    color.alpha = static_cast<std::uint8_t>(std::lround(static_cast<float>(color.alpha) * std::min(seen, 1.0F)));
    pen.into.text(pen.font, pen.size, pen.start, pen.size, color, "", {&glyph, 1}, pen.scale);
    if (stretch != 1) pen.into.stretch_last(stretch);
}

/// `way` is 0 where the one that goes out stands, and 1 where the other one does.
void TurningDigits::draw_between(const Figure& out, const Figure& in, float way, bool rises, float x,
                                 const Pen& pen) const {
    constexpr float half_turn = 3.14159265F;
    const auto draw = [&](const Figure& figure, float up, float stretch, float seen) {
        draw_figure(figure, x, rises ? up : -up, stretch, seen, pen);
    };
    switch (motion_.kind) {
        case DigitMotionKind::wheel: {
            const float high = std::cos(way * half_turn / 2), low = std::sin(way * half_turn / 2);
            draw(out, drum * low, high, high);
            draw(in, -drum * high, low, low);
            return;
        }
        case DigitMotionKind::flip: {
            const float turned = std::cos(way * half_turn);
            draw(way < 0.5F ? out : in, 0, std::abs(turned), 1);
            return;
        }
        case DigitMotionKind::slide:
            draw(out, way * slide, 1, 1 - way);
            draw(in, (way - 1) * slide, 1, way);
            return;
    }
}

void TurningDigits::draw_wheel(double at, float x, const Pen& pen) const {
    const double whole = std::floor(at);
    const auto digit = [this](double figure) { return digits_[static_cast<std::size_t>(wrapped(figure)) % 10]; };
    draw_between(digit(whole), digit(whole + 1), static_cast<float>(at - whole), true, x, pen);
}

void TurningDigits::draw_place(const Place& place, const Pen& pen) const {
    if (place.moves && turns(place)) return draw_wheel(static_cast<double>(turned(place)), at(place.x), pen);
    // What comes waits until what goes has made room.
    float way = static_cast<float>(part(place.begin));
    if (!place.to.is_there()) way = std::min(2 * way, 1.0F);
    if (!place.from.is_there()) way = std::max(2 * way - 1, 0.0F);
    draw_between(place.from, place.to, way, place.rises, at(place.x), pen);
}

void TurningDigits::draw(FontId font, float size, Point start, float width, Color color, std::string_view text,
                         std::span<const Glyph> glyphs, float scale, DisplayGroup& into) const {
    if (!moved_) return into.text(font, size, start, width, color, text, glyphs, scale);
    still_.clear();
    const std::size_t count = places_.size();
    const std::size_t begin = first_ - (has_sign() ? 1 : 0);
    for (std::size_t i = 0; i < glyphs.size(); ++i) {
        Glyph glyph = glyphs[i];
        if (count > 0 && i >= begin && i + 1 < first_ + count) {
            const std::size_t place = i < first_ ? 0 : first_ + count - 1 - i;
            if (places_[place].moves || runs(place)) continue;
            glyph.offset.x += shift(places_[place].x);
        } else if (count > 0) {
            glyph.offset.x += shift(i < begin ? before_ : behind_);
        }
        still_.push_back(glyph);
    }
    into.text(font, size, start, width, color, text, still_, scale);
    const Pen pen{font, size, start, color, scale, into};
    for (std::size_t i = 0; i < count; ++i)
        if (runs(i))
            draw_wheel(wheels_[i], at(places_[i].x), pen);
        else if (places_[i].moves)
            draw_place(places_[i], pen);
    for (const Place& place : leaving_)
        draw_place(place, pen);
}

}  // namespace rapido
