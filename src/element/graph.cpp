#include "rapido/element/graph.hpp"

#include <algorithm>
#include <utility>

#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/kinds.hpp"
#include "element/marks.hpp"

namespace rapido {

template <>
struct Choices<GraphType> {
    static constexpr std::array<std::string_view, 3> names{"line", "area", "columns"};
};

namespace {

constexpr std::array own_fields{
    required_field<&Graph::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Graph::value>("value", "The value that is recorded."),
    field<&Graph::min>("min", "The value at the lower edge.", {"", -1e300, 1e300}),
    field<&Graph::max>("max", "The value at the upper edge; without it the graph fits what is in sight."),
    field<&Graph::span>("span", "The time from the left edge to the right edge.", {"s", 0.01, 3600}),
    field<&Graph::samples>("samples", "Into how many pieces that time is divided.", {"", 2, 1000}),
    field<&Graph::type>("type", "How the graph is drawn."),
    field<&Graph::thickness>("thickness", "The thickness of the line.", {"px", 0, largest_length}),
    field<&Graph::ticks>("ticks", "Lines across the element at values.", {.most = 1000}),
    field<&Graph::tick_format>("tick_format", "The pattern for the number at each tick."),
    field<&Graph::size>("size", "The size of those numbers.", {"px", 1, largest_length}),
    field<&Graph::color>("color", "The color of the graph."),
    field<&Graph::background>("background", "The color behind the element."),
};
constexpr auto fields =
    joined(own_fields, following_fields<Graph>, placed_fields<Graph>, entering_fields<Graph>);
static_assert(fields.size() == member_count<Graph> + flat_motions);

/// The next of 1, 2, 5, 10, 20, 50 and so on.
double rounded_up(double number) {
    if (!(number > 0) || !std::isfinite(number)) return 1;
    const double power = std::pow(10.0, std::floor(std::log10(number)));
    for (const double digit : {1.0, 2.0, 5.0})
        if (number <= digit * power * (1 + 1e-9)) return digit * power;
    return 10 * power;
}

class GraphBody final : public Body {
 public:
    GraphBody(const Graph& graph, BodyContext& context)
        : min_(graph.min),
          has_max_(graph.max),
          piece_(std::max(Nanoseconds{1}, to_nanoseconds(graph.span) / std::max(graph.samples, 2))),
          type_(graph.type),
          thickness_(graph.thickness),
          ticks_(graph.ticks),
          numbers_(graph.tick_format, "tick_format", graph.size, context),
          color_(graph.color),
          background_(graph.background),
          pieces_(static_cast<std::size_t>(std::clamp(graph.samples, 2, 1000))) {}

    static void check(BodyContext& context) {
        const std::string message = "a graph needs a number, and this source is a text";
        if (context.value_type == Value::Type::text) context.report("value", message);
        if (context.max_type == Value::Type::text) context.report("max", message);
    }

    void set_language(const Language* language, BodyContext& context) override {
        numbers_.set_language(language, context);
        stale_ = true;
    }
    Change set_look(const Look& look) override {
        const bool differs = !(look.color == color_);
        color_ = look.color;
        return look_if(differs);
    }
    Change show(const FieldValues& shown, double) override {
        value_ = shown.value.number();
        const double max = shown.max.number();
        const bool differs = has_max_ && max != top_ && max > min_ && std::isfinite(max);
        if (differs) top_ = max;
        return std::exchange(stale_, false) ? Change::size : look_if(differs);
    }

    /// What there was stays: of other pieces of time each has what it saw of the old ones.
    void take_over(Body& other) override {
        auto& before = static_cast<GraphBody&>(other);
        value_ = before.value_;
        held_ = before.held_;
        begun_ = before.begun_;
        if (!begun_) return;
        const auto as_here = [&](Piece piece) {
            piece.low += static_cast<float>(before.min_ - min_);
            piece.high += static_cast<float>(before.min_ - min_);
            return piece;
        };
        open_ = before.open_ * before.piece_ / piece_;
        // Pieces of time are counted back from the one that is open.
        const auto count = static_cast<std::int64_t>(pieces_.size());
        const auto count_before = static_cast<std::int64_t>(before.pieces_.size());
        const auto take_old = [&](const Piece& old, std::int64_t number) {
            if (!old.any) return;
            const std::int64_t first = before.piece_ * number / piece_;
            const std::int64_t last = (before.piece_ * (number + 1) - Nanoseconds{1}) / piece_;
            for (std::int64_t at = std::max(first, open_ - count); at <= std::min(last, open_); ++at)
                join(at == open_ ? running_ : pieces_[static_cast<std::size_t>(count - (open_ - at))],
                     as_here(old));
        };
        newest_ = pieces_.size() - 1;
        for (std::int64_t age = count_before; age > 0; --age)
            take_old(before.piece(static_cast<std::size_t>(count_before - age)), before.open_ - age);
        if (before.running_.any) join(running_, as_here(before.running_));
        if (!has_max_) find_top();
    }
    bool lives_in_time() const override { return true; }
    Change advance(const Moment& at) override {
        const std::int64_t now = at.now / piece_;
        if (!begun_) {
            begun_ = true;
            open_ = now;
            held_ = value_;
        }
        // Up to now what was shown before has lasted; a piece that a moment falls on the end of is full.
        const std::int64_t full = now - open_;
        for (std::int64_t k = 0; k < std::min(full, static_cast<std::int64_t>(pieces_.size()) + 1); ++k) {
            take(held_);
            close();
        }
        open_ = now;
        take(held_);
        held_ = value_;
        take(held_);
        if (full > 0 && !has_max_) find_top();
        return look_if(full > 0 && at.shown);
    }

    Size measure(TextMeasurer* measurer, Size) override {
        std::vector<double> values;
        for (const Tick& tick : ticks_)
            values.push_back(tick.at);
        numbers_.shape(measurer, values);
        return {};
    }

    void draw(const DrawPlace& at, DrawGroup& into) const override {
        const Rect box = on_pixels(at.box);
        into.add_rect(box, 2 * at.scale, background_);
        if (!(top_ > min_)) return;
        draw_ticks(box, at.scale, into);
        const auto count = static_cast<float>(pieces_.size());
        for (std::size_t from = 0; from < pieces_.size();) {
            if (!piece(from).any) {
                ++from;
                continue;
            }
            std::size_t to = from;
            while (to < pieces_.size() && piece(to).any)
                ++to;
            draw_run(box, from, to, box.width / count, at, into);
            from = to;
        }
    }

    Color color() const override { return color_; }

 private:
    /// What there was in one piece of time.
    struct Piece {
        float low = 0, high = 0;  ///< above the lower edge
        bool any = false;
    };

    /// By age, the oldest first.
    const Piece& piece(std::size_t index) const { return pieces_[(newest_ + 1 + index) % pieces_.size()]; }
    void take(double value) {
        if (!std::isfinite(value)) return;
        constexpr double most = std::numeric_limits<float>::max();
        const auto above = static_cast<float>(std::clamp(value - min_, -most, most));
        running_.low = running_.any ? std::min(running_.low, above) : above;
        running_.high = running_.any ? std::max(running_.high, above) : above;
        running_.any = true;
    }
    static void join(Piece& into, const Piece& other) {
        into.low = into.any ? std::min(into.low, other.low) : other.low;
        into.high = into.any ? std::max(into.high, other.high) : other.high;
        into.any = true;
    }
    void close() {
        newest_ = (newest_ + 1) % pieces_.size();
        pieces_[newest_] = std::exchange(running_, {});
    }
    void find_top() {
        double most = 0;
        for (const Piece& each : pieces_)
            if (each.any) most = std::max(most, static_cast<double>(each.high));
        for (const Tick& tick : ticks_)
            most = std::max(most, tick.at - min_);
        top_ = min_ + rounded_up(most);
    }

    float y_of(const Rect& box, double value) const {
        const double part = std::clamp((value - min_) / (top_ - min_), 0.0, 1.0);
        return box.bottom() - static_cast<float>(part) * box.height;
    }

    float y_of_piece(const Rect& box, float above) const {
        return y_of(box, min_ + static_cast<double>(above));
    }

    void draw_ticks(const Rect& box, float scale, DrawGroup& into) const {
        for (std::size_t i = 0; i < ticks_.size(); ++i) {
            const Tick& tick = ticks_[i];
            if (!(tick.at > min_) || !(tick.at < top_)) continue;
            const float thickness = std::max(1.0F, std::round(tick.thickness * scale / 2));
            const float y = std::round(y_of(box, tick.at));
            into.add_rect({box.x, y, box.width, thickness}, 0, tick.color);
            if (i >= numbers_.count()) continue;
            Color color = tick.color;
            color.alpha = 255;
            // Above the line where there is room, else below it.
            const bool above = y - box.y > (numbers_.height() + 4) * scale;
            numbers_.draw(i, {box.x + 4 * scale, above ? y - 3 * scale : y + thickness + 3 * scale},
                          {0, above ? 1.0F : 0.0F}, scale, color, into);
        }
    }

    /// Pieces without a gap between them.
    void draw_run(const Rect& box, std::size_t from, std::size_t to, float width, const DrawPlace& at,
                  DrawGroup& into) const {
        const float scale = at.scale;
        const auto x_of = [&](std::size_t index) { return box.x + static_cast<float>(index) * width; };
        const float line = std::max(1.0F, thickness_ * scale);
        if (type_ == GraphType::columns) {
            for (std::size_t i = from; i < to; ++i) {
                const float y = y_of_piece(box, piece(i).high);
                const float least = std::min(y, box.bottom() - least_length(scale));
                const float left = std::round(x_of(i)),
                            right = std::max(left + 1, std::round(x_of(i + 1)) - 1);
                if (piece(i).high > 0)
                    into.add_rect({left, least, right - left, box.bottom() - least}, 0, color_);
            }
            return;
        }
        std::vector<Point>&top = at.room->points, &area = at.room->line;
        top.clear();
        area.clear();
        for (std::size_t i = from; i < to; ++i) {
            const float x = x_of(i) + width / 2;
            const float high = y_of_piece(box, piece(i).high) + line / 2,
                        low = y_of_piece(box, piece(i).low) - line / 2;
            top.push_back({x, std::min(high, box.bottom() - line / 2)});
            // A peak inside of one piece is a line down, and the next piece goes on from where it ends.
            if (piece(i).low < piece(i).high) top.push_back({x, std::max(low, box.y + line / 2)});
        }
        if (type_ == GraphType::area) {
            area.push_back({x_of(from) + width / 2, box.bottom()});
            for (std::size_t i = from; i < to; ++i)
                area.push_back({x_of(i) + width / 2, y_of_piece(box, piece(i).high)});
            area.push_back({x_of(to) - width / 2, box.bottom()});
            Color shade = color_, faint = color_;
            shade.alpha = static_cast<std::uint8_t>(color_.alpha * 0.55);
            faint.alpha = static_cast<std::uint8_t>(color_.alpha * 0.10);
            into.add_polygon(area, shade);
            into.shade_last(faint, {box.x, box.y}, {box.x, box.bottom()});
        }
        if (top.size() > 1) into.add_line(top, line, color_);
    }

    double min_;
    bool has_max_;
    double top_ = 1;
    Nanoseconds piece_;
    GraphType type_;
    float thickness_;
    std::vector<Tick> ticks_;
    Numbers numbers_;
    Color color_;
    Color background_;
    std::vector<Piece> pieces_;  ///< a ring
    std::size_t newest_ = 0;
    Piece running_;                                            ///< the one that is not full yet
    std::int64_t open_ = 0;                                    ///< its number since the clock began
    double value_ = std::numeric_limits<double>::quiet_NaN();  ///< shown from now on
    double held_ = std::numeric_limits<double>::quiet_NaN();   ///< shown until now
    bool begun_ = false;
    bool stale_ = true;  ///< its numbers are not shaped yet, or in another language
};

}  // namespace

bool operator==(const Graph&, const Graph&) = default;

std::unique_ptr<Body> make_body(const Graph& graph, BodyContext& context) {
    GraphBody::check(context);
    return std::make_unique<GraphBody>(graph, context);
}

const Kind& describe(const Graph&) {
    static constexpr Table table{"graph", fields};
    static constexpr Kind kind = kind_of<Graph>(table, {}, {.size = {160, 48}});
    return kind;
}

}  // namespace rapido
