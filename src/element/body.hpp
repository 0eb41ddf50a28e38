// What the frame loop asks of one running element, whatever its kind.
#pragma once

#include <cmath>
#include <functional>
#include <memory>
#include <span>
#include <string_view>

#include "base/fields.hpp"
#include "look/flash_looks.hpp"
#include "rapido/draw/display_list.hpp"
#include "rapido/draw/image_finder.hpp"
#include "rapido/element/at_end.hpp"
#include "rapido/element/element.hpp"
#include "rapido/layout/camera.hpp"
#include "rapido/layout/flow.hpp"
#include "rapido/layout/measurer.hpp"
#include "rapido/look/band.hpp"
#include "rapido/look/flash_limit.hpp"
#include "rapido/text/formatted_text.hpp"

namespace rapido {

struct TextPlan;
struct TextStyle;

/// What a body is made with.
class BodyContext {
 public:
    virtual ~BodyContext() = default;
    /// Reports that a field of this element cannot be used as it is.
    virtual void report(std::string_view field, std::string message, std::string hint = {},
                        ProblemCode code = ProblemCode::unfit) = 0;
    /// The same where the element can do without it.
    virtual void warn(std::string_view field, std::string message, std::string hint = {},
                      ProblemCode code = ProblemCode::unfit) = 0;
    /// Whether anything was reported that keeps the element from being made.
    virtual bool failed() const = 0;
    /// Passes on a problem that knows its place.
    virtual void report(Problem problem) = 0;
    /// The place of a field in its file; empty for an element made in C++.
    virtual Location place_of(std::string_view field) const = 0;

    /// Parses a pattern, which stands in this field; no field for one that is not of the file. The same pattern is parsed
    /// once. `names` are fields besides those that every pattern may have.
    virtual Result<Format> format(const std::string& pattern, std::string_view field,
                                  std::span<const std::string_view> names = {}) = 0;

    /// A plan of a text that says the same and was made before, or this one.
    virtual std::shared_ptr<const TextPlan> shared(TextPlan plan) = 0;

    /// The effect of a name; null, with a problem, for none.
    std::function<const Effect*(std::string_view, Problem&)> find_effect;
    /// The same, null for an empty name; one that there is not is reported.
    const Effect* effect(const std::string& name, std::string_view field) {
        Problem problem;
        const Effect* const found = name.empty() || !find_effect ? nullptr : find_effect(name, problem);
        if (!problem.message.empty()) report(field, problem.message, problem.hint, problem.code);
        return found;
    }

    /// The same; one that never ends is reported, too.
    const Effect* ending_effect(const std::string& name, std::string_view field) {
        const Effect* const found = effect(name, field);
        if (found != nullptr && found->repeat == 0)
            report(field, "effect '" + name + "' never ends", {}, ProblemCode::contradiction);
        return found;
    }

    /// The style of a piece of a text; null, with a problem, for none.
    std::function<const TextStyle*(std::string_view, Problem&)> find_style;

    /// What a source is bound to, where it is a name.
    std::function<detail::Binding(const Source&)> bound = [](const Source& source) { return source.binding(); };

    detail::ValueUse value_use = detail::ValueUse::amount;
    TextMeasurer* measurer = nullptr;       ///< null where nothing is drawn
    ImageFinder* images = nullptr;          ///< null where there are none
    std::string_view font;                  ///< the HUD's
    float text_scale = 1;                   ///< the player's size of texts
    std::optional<Value::Type> value_type;  ///< where they are fixed
    std::optional<Value::Type> max_type;
};

class NoticeBody;
class NumberText;

/// A source of an element besides its value, its maximum and what shows it.
struct FurtherSource {
    std::string field;  ///< where it is written
    Source source;
};

/// How a measured element is held in line with others.
struct Hold {
    float baseline = -1;      ///< from its top; negative where it has none
    float digits = -1;        ///< from its left to the end of its whole digits; negative: not aligned by them
    float digits_after = -1;  ///< from there to its right
    bool shrinks = false;     ///< may get less room than it measures
    friend bool operator==(const Hold&, const Hold&) = default;
};

/// Room for points that is used again in each frame, so that drawing allocates nothing. What is drawn last owns all of it.
struct PointRoom {
    std::vector<Point> points, cut, turned, line;
};

/// Where and how an element is drawn.
struct DrawPlace {
    Rect box;         ///< in device pixels
    float scale = 1;  ///< device pixels per design pixel
    bool mirrored = false;
    std::optional<float> column_side;  ///< where its column aligns what is narrower than it, before mirroring
    TextMeasurer* measurer = nullptr;
    PointRoom* room = nullptr;  ///< never null

    /// In a layout that is mirrored, right is left.
    Direction seen(Direction direction) const {
        if (!mirrored) return direction;
        if (direction == Direction::right) return Direction::left;
        return direction == Direction::left ? Direction::right : direction;
    }
};

/// Where a fill ends, in device pixels, and how its way goes on there.
struct FillEnd {
    Point at{};
    float rotation = 0;  ///< degrees clockwise from the way to the right
};

/// What the bands of an element say about its look; formats and images by the number of the band, or the count of bands
/// for the element's own.
struct Look {
    Color color;
    std::size_t format = 0;
    std::size_t image = 0;
    FillPattern pattern = FillPattern::plain;
};

/// What a body that lives in time asks of a frame.
struct Moment {
    Nanoseconds now{0};   ///< on its own clock
    Nanoseconds real{0};  ///< on the one of effects
    bool shown = true;
    bool reduced_motion = false;
    FlashAsker flashes{};
    const Camera* camera = nullptr;  ///< never null, nor the screen
    const Fitted* screen = nullptr;
};

/// What of an element differs from the frame before; each word holds those before it.
enum class Change : std::uint8_t { none, look, size, text };
inline Change look_if(bool differs) {
    return differs ? Change::look : Change::none;
}

/// What an element shows of its value in a frame.
struct ShownValue {
    FieldValues values;  ///< as a text says them: an integer on its way stays one
    /// The value and its maximum as numbers, on their way between two integers, too, as a shape shows them; NaN for a text and for none.
    double amount, max;
    double trail;  ///< where the trail of the value ends; NaN where there is none
    /// Into how many steps a whole shape is divided while it moves; zero where it does not move, and is exact.
    double steps = 0, trail_steps = 0;
};

/// Those between two others, without these.
struct Amounts {
    double above = 0, below = 0;
};
/// How near to a step, as a part of it, an amount is not told from it: formulas round.
constexpr double step_edge = 1e-6;

/// The amounts for which a text says the same: an integer on its way, which is never the next one too soon.
inline Amounts same_integer(const ShownValue& shown) {
    if (!shown.values.value.is_integer()) return {};
    const double whole = shown.values.value.number();
    if (shown.amount < whole) return {whole - 1 + step_edge, whole - step_edge};
    return {whole + step_edge, whole + 1 - step_edge};
}

/// The state of one element that is its kind's own.
class Body {
 public:
    virtual ~Body() = default;

    /// Goes on where another body of the same kind was, which it replaces. What cannot go on begins anew.
    virtual void take_over(Body&) {}
    /// From now on in this language, null for the one of its own description; `show` must follow.
    virtual void set_language(const Language*, BodyContext&) {}
    /// Shows another format of its own from now on; `show` must follow. False where it cannot; then nothing has changed.
    virtual bool set_format(const std::string& /*format*/, const Language*, BodyContext&) { return false; }
    /// Lets a text whose characters change in one number only write them there; the number must outlive the body. While
    /// they stand there, the frame loop updates them in place of `show`.
    virtual void write_into(NumberText*) {}
    /// Whether it shows the last change of its value.
    virtual bool shows_delta() const { return false; }
    /// How often its text was written.
    virtual std::uint32_t times_made() const { return 0; }

    /// Takes what is shown of the value; what is seen of it.
    virtual Change show(const ShownValue&) { return Change::none; }
    /// The amounts between which all that it shows stays as it is now, while nothing else changes; by default none.
    virtual Amounts looks_same(const ShownValue&) const { return {}; }
    /// Takes the values of its further sources, in their order, before `show`.
    virtual void show_further(std::span<const Value>) {}
    /// What differs for that alone.
    virtual Change set_look(const Look&) { return Change::none; }
    /// The next values are taken as given: nothing was gained or lost.
    virtual void snap() {}
    /// Whether it may change with time alone: asked once. Then `advance` is called in every frame, after `show`.
    virtual bool lives_in_time() const { return false; }
    virtual Change advance(const Moment&) { return Change::none; }
    /// What it cannot show, told after `advance`; empty for nothing.
    virtual std::string take_problem() { return {}; }
    /// How many digits after the point it shows, where it shows one number with a fixed count of them.
    virtual std::optional<int> places() const { return std::nullopt; }
    /// A number in units of the last digit that would be shown; nothing where no digits would be.
    virtual std::optional<std::int64_t> count(const FieldValues&) const { return std::nullopt; }
    /// As large as it is by itself, in design pixels; `content` is what the elements inside need.
    virtual Size measure(TextMeasurer*, Size content) = 0;
    /// What layout asks besides, valid after `measure`.
    virtual Hold hold() const { return {}; }
    /// The part of its width at which what it draws is held, where that is not for its place to say.
    virtual std::optional<float> aligned_at() const { return std::nullopt; }
    /// Whether its length runs upwards: the size of its kind is then turned, too.
    virtual bool is_upright() const { return false; }
    /// It is this wide, in design pixels: other than what it has measured, perhaps. True if it is of another height then.
    virtual bool set_width(TextMeasurer*, float) { return false; }
    /// Where elements inside may stand, and how; null for a kind that holds none.
    virtual Rect content_of(const Rect& box) const { return box; }
    virtual const Arrangement* arrangement() const { return nullptr; }
    virtual void draw(const DrawPlace& at, DisplayGroup& into) const = 0;

    /// What light runs over, in its box: a rectangle with round corners, in pixels.
    struct Face {
        Rect rect;
        float radius;
    };
    virtual Face face(const Rect& box, float scale) const { return {box, 3 * scale}; }
    /// What it lacks room for, as a sentence without a subject; empty where it has all that it needs.
    virtual std::string fault_of_room() const { return {}; }
    virtual std::string_view text() const { return {}; }
    virtual std::optional<double> fill() const { return std::nullopt; }
    /// What rides at the end of its fill; null for nothing.
    virtual const AtEnd* at_end() const { return nullptr; }
    virtual FillEnd fill_end(const DrawPlace&) const { return {}; }
    virtual std::optional<double> trail() const { return std::nullopt; }
    virtual Color color() const = 0;
    /// Lets go of an effect that will not be there any more; false while it needs it.
    virtual bool forget(const Effect&) { return true; }
    /// Itself, if it is a notice: what it says is decided by the frame.
    virtual NoticeBody* notice() { return nullptr; }
    /// Itself, if amounts pop up in it.
    virtual class PopUpsBody* pop_ups() { return nullptr; }
};

/// The face of something round, in the middle of its box.
inline Body::Face round_face(const Rect& box) {
    const float side = std::min(box.width, box.height);
    return {{box.x + (box.width - side) / 2, box.y + (box.height - side) / 2, side, side}, side / 2};
}

/// Edges on whole pixels, so that they are crisp at every scale.
inline Rect on_pixels(const Rect& box) {
    const float x = std::round(box.x);
    const float y = std::round(box.y);
    return {x, y, std::round(box.right()) - x, std::round(box.bottom()) - y};
}

}  // namespace rapido
