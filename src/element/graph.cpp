#include "rapido/element/graph.hpp"

#include <algorithm>
#include <memory>
#include <utility>

#include "element/fields.hpp"
#include "element/fill_body.hpp"
#include "element/kinds.hpp"
#include "element/ticks.hpp"

namespace rapido {

template <>
inline constexpr std::array<std::string_view, 3> choices_of<GraphType>{"line", "area", "columns"};

namespace {

constexpr std::array own_graph_fields{
    required_field<&Graph::id>("id", "The name of the element, unique among its siblings."),
    required_field<&Graph::value>("value", "The value that is recorded."),
    field<&Graph::min>("min", "The value at the lower edge.", {"", -1e300, 1e300}),
    field<&Graph::max>("max", "The value at the upper edge; without it the graph fits what is in sight."),
    field<&Graph::span>("span", "The time from the left edge to the right edge.", {"s", 0.01, 3600}),
    field<&Graph::resolution>("resolution", "Into how many pieces that time is divided.", {"", 2, 1000}),
    field<&Graph::type>("type", "How the graph is drawn."),
    field<&Graph::thickness>("thickness", "The thickness of the line.", {"px", 0, largest_length}),
    field<&Graph::ticks>("ticks", "Lines across the element at values, with numbers."),
    field<&Graph::color>("color", "The color of the graph."),
    field<&Graph::background>("background", "The color behind the element."),
};
constexpr auto graph_fields = joined(own_graph_fields, following_fields<Graph>, banded_fields<Graph>,
                                     placed_fields<Graph>, entering_fields<Graph>);
static_assert(graph_fields.size() == member_count<Graph> + flat_motions);

/// The next of 1, 2, 5, 10, 20, 50 and so on.
double rounded_up(double number) {
    if (!(number > 0) || !std::isfinite(number)) return 1;
    const double power = std::pow(10.0, std::floor(std::log10(number)));
    for (const double digit : {1.0, 2.0, 5.0})
        if (number <= digit * power * (1 + 1e-9)) return digit * power;
    return 10 * power;
}

/// What a value was in the last pieces of time.
class Record {
 public:
    /// What there was in one piece of time.
    struct Piece {
        float low = 0, high = 0;  ///< above the lower edge
        bool any = false;
    };

    Record(Nanoseconds piece, std::size_t count, double min)
        : piece_(piece), min_(min), pieces_(count), newest_(count - 1) {}

    std::size_t size() const { return pieces_.size(); }
    Nanoseconds length() const { return piece_; }
    /// By age, the oldest first.
    const Piece& piece(std::size_t index) const { return pieces_[(newest_ + 1 + index) % pieces_.size()]; }

    void begin(Nanoseconds now) { open_ = now / piece_; }
    /// Up to now one value has lasted, and another one is there from now on. True if a piece is full.
    bool advance(Nanoseconds now, double held, double value) {
        const std::int64_t full = now / piece_ - open_;
        // A piece that a moment falls on the end of is full.
        for (std::int64_t k = 0; k < std::min(full, count() + 1); ++k) {
            take(held);
            close();
        }
        open_ += full;
        take(held);
        take(value);
        return full > 0;
    }

    bool has_pieces_of(const Record& other) const {
        return piece_ == other.piece_ && pieces_.size() == other.pieces_.size();
    }
    /// The beginning of the oldest piece that it may have.
    Nanoseconds oldest() const { return piece_ * (open_ - count()); }
    /// The same above another lower edge.
    void move_edge(double min) {
        for (Piece& each : pieces_)
            each = above(each, min);
        running_ = above(running_, min);
        min_ = min;
    }
    /// Each piece has what it saw of those of another record, which end before a moment.
    void take_from(const Record& other, Nanoseconds until) {
        open_ = other.open_ * other.piece_ / piece_;
        const auto take_old = [&](const Piece& old, std::int64_t number) {
            if (!old.any) return;
            const std::int64_t first = other.piece_ * number / piece_;
            const std::int64_t last = (other.piece_ * (number + 1) - Nanoseconds{1}) / piece_;
            for (std::int64_t at = std::max(first, open_ - count()); at <= std::min(last, open_); ++at) {
                if (piece_ * at >= until) break;
                join(at == open_
                         ? running_
                         : pieces_[(newest_ + 1 + static_cast<std::size_t>(count() - (open_ - at))) % pieces_.size()],
                     other.above(old, min_));
            }
        };
        // Pieces of time are counted back from the one that is open.
        for (std::size_t i = 0; i < other.size(); ++i)
            take_old(other.piece(i), other.open_ - other.count() + static_cast<std::int64_t>(i));
        take_old(other.running_, other.open_);
    }

 private:
    std::int64_t count() const { return static_cast<std::int64_t>(pieces_.size()); }
    Piece above(Piece piece, double min) const {
        const auto way = static_cast<float>(min_ - min);
        return {piece.low + way, piece.high + way, piece.any};
    }
    void take(double value) {
        if (!std::isfinite(value)) return;
        constexpr double most = std::numeric_limits<float>::max();
        const auto high = static_cast<float>(std::clamp(value - min_, -most, most));
        join(running_, {high, high, true});
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

    Nanoseconds piece_;
    double min_;
    std::vector<Piece> pieces_;  ///< a ring
    std::size_t newest_;
    Piece running_;          ///< the one that is not full yet
    std::int64_t open_ = 0;  ///< its number since the clock began
};

class GraphBody final : public Body {
 public:
    GraphBody(const Graph& graph, BodyContext& context)
        : min_(graph.min),
          has_max_(graph.max.is_given()),
          type_(graph.type),
          thickness_(graph.thickness),
          ticks_(graph.ticks, TickRow::across, context),
          color_(graph.color),
          background_(graph.background),
          record_(std::max(Nanoseconds{1}, to_nanoseconds(graph.span) / std::max(graph.resolution, 2)),
                  static_cast<std::size_t>(std::clamp(graph.resolution, 2, 1000)), graph.min) {}

    static void check(BodyContext& context) {
        const std::string message = "a graph needs a number, and this source is a text";
        if (context.value_type == Value::Type::text) context.report("value", message);
        if (context.max_type == Value::Type::text) context.report("max", message);
    }

    void set_language(const Language* language, BodyContext& context) override {
        ticks_.set_language(language, context);
        stale_ = true;
    }
    Change set_look(const Look& look) override {
        const bool differs = !(look.color == color_);
        color_ = look.color;
        return look_if(differs);
    }
    Change show(const ShownValue& shown) override {
        value_ = shown.amount;
        const double max = shown.max;
        const bool differs = has_max_ && max != top_ && max > min_ && std::isfinite(max);
        if (differs) set_top(max);
        return std::exchange(stale_, false) ? Change::size : look_if(differs);
    }

    /// What there was stays, in other pieces of time. Finer ones go on beside them, so that a span that is changed and changed back is
    /// what it was.
    void take_over(Body& other) override {
        auto& before = static_cast<GraphBody&>(other);
        value_ = before.value_;
        held_ = before.held_;
        begun_ = before.begun_;
        if (!begun_) return;
        const Record& finest = before.finer_ != nullptr ? *before.finer_ : before.record_;
        const auto keep = [&](const Record& same) {
            record_ = same;
            record_.move_edge(min_);
        };
        if (record_.has_pieces_of(before.record_)) {
            keep(before.record_);
        } else if (record_.has_pieces_of(finest)) {
            keep(finest);
        } else {
            record_.take_from(before.record_, finest.oldest());
            record_.take_from(finest, Nanoseconds::max());
        }
        if (finest.length() < record_.length()) finer_ = std::make_unique<Record>(finest);
        if (!has_max_) find_top();
    }
    bool lives_in_time() const override { return true; }
    Change advance(const Moment& at) override {
        if (!begun_) {
            begun_ = true;
            record_.begin(at.now);
            held_ = value_;
        }
        const bool is_full = record_.advance(at.now, held_, value_);
        if (finer_ != nullptr) finer_->advance(at.now, held_, value_);
        held_ = value_;
        if (is_full && !has_max_) find_top();
        if (at.shown && ticks_.has_steps() && std::exchange(stale_, false)) return Change::size;
        return look_if(is_full && at.shown);
    }

    Size measure(TextMeasurer* measurer, Size) override {
        ticks_.measure(measurer, min_, top_);
        return {};
    }

    void draw(const DrawPlace& at, DisplayGroup& into) const override {
        const Rect box = on_pixels(at.box);
        into.rect(box, 2 * at.scale, background_);
        if (!(top_ > min_)) return;
        draw_ticks(box, at.scale, into);
        const auto count = static_cast<float>(record_.size());
        for (std::size_t from = 0; from < record_.size();) {
            if (!piece(from).any) {
                ++from;
                continue;
            }
            std::size_t to = from;
            while (to < record_.size() && piece(to).any)
                ++to;
            draw_run(box, from, to, box.width / count, at, into);
            from = to;
        }
    }

    Color color() const override { return color_; }

 private:
    const Record::Piece& piece(std::size_t index) const { return record_.piece(index); }
    void find_top() {
        double most = 0;
        for (std::size_t i = 0; i < record_.size(); ++i)
            if (piece(i).any) most = std::max(most, static_cast<double>(piece(i).high));
        for (const Tick& tick : ticks_.at_values())
            most = std::max(most, tick.at - min_);
        set_top(min_ + rounded_up(most));
    }
    void set_top(double top) {
        stale_ = stale_ || (top != top_ && ticks_.has_steps());
        top_ = top;
    }

    float y_of(const Rect& box, double value) const {
        const double part = std::clamp((value - min_) / (top_ - min_), 0.0, 1.0);
        return box.bottom() - static_cast<float>(part) * box.height;
    }

    float y_of_piece(const Rect& box, float above) const { return y_of(box, min_ + static_cast<double>(above)); }

    void draw_ticks(const Rect& box, float scale, DisplayGroup& into) const {
        const Numbers& numbers = ticks_.numbers();
        for (const TickRow::Tick& tick : ticks_.all()) {
            if (!(tick.at > min_) || !(tick.at < top_)) continue;
            const float thickness = std::max(1.0F, std::round(tick.thickness * scale / 2));
            const float y = std::round(y_of(box, tick.at));
            into.rect({box.x, y, box.width, thickness}, 0, tick.color);
            if (tick.number >= numbers.count()) continue;
            Color color = tick.color;
            color.alpha = 255;
            // Above the line where there is room, else below it.
            const bool above = y - box.y > (numbers.height() + 4) * scale;
            numbers.draw(tick.number, {box.x + 4 * scale, above ? y - 3 * scale : y + thickness + 3 * scale},
                         {0, above ? 1.0F : 0.0F}, scale, color, into);
        }
    }

    /// Pieces without a gap between them.
    void draw_run(const Rect& box, std::size_t from, std::size_t to, float width, const DrawPlace& at,
                  DisplayGroup& into) const {
        const float scale = at.scale;
        const auto x_of = [&](std::size_t index) { return box.x + static_cast<float>(index) * width; };
        const float line = std::max(1.0F, thickness_ * scale);
        if (type_ == GraphType::columns) {
            for (std::size_t i = from; i < to; ++i) {
                const float y = y_of_piece(box, piece(i).high);
                const float least = std::min(y, box.bottom() - least_length(scale));
                const float left = std::round(x_of(i)), right = std::max(left + 1, std::round(x_of(i + 1)) - 1);
                if (piece(i).high > 0) into.rect({left, least, right - left, box.bottom() - least}, 0, color_);
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
            into.polygon(area, shade);
            into.shade_last(faint, {box.x, box.y}, {box.x, box.bottom()});
        }
        if (top.size() > 1) into.line(top, line, color_);
    }

    double min_;
    bool has_max_;
    double top_ = 1;
    GraphType type_;
    float thickness_;
    TickRow ticks_;
    Color color_;
    Color background_;
    Record record_;
    std::unique_ptr<Record> finer_;                            ///< after a change to a longer span, else null
    double value_ = std::numeric_limits<double>::quiet_NaN();  ///< shown from now on
    double held_ = std::numeric_limits<double>::quiet_NaN();   ///< shown until now
    bool begun_ = false;
    bool stale_ = true;  ///< its ticks are not laid out yet, for another top, or in another language
};

}  // namespace

std::unique_ptr<Body> make_body(const Graph& graph, BodyContext& context) {
    GraphBody::check(context);
    return std::make_unique<GraphBody>(graph, context);
}

const Kind& detail::describe(const Graph*) {
    static constexpr Table table{"graph", graph_fields};
    static constexpr Kind kind = make_kind<Graph>(table, {}, {.size = {160, 48}});
    return kind;
}

bool operator==(const Graph& a, const Graph& b) {
    return Element(a) == Element(b);
}
Element::Element(const Graph& description) : Element(kind_of<Graph>(), &description) {}
template std::optional<Graph> Element::as() const;

}  // namespace rapido
