#include "hud/marker_ranking.hpp"

#include <algorithm>
#include <bit>
#include <cmath>

namespace rapido {
namespace {

constexpr std::uint32_t nobody = UINT32_MAX;

/// The room in which what is kept at the edge stands.
Rect edge_of(const Fitted& screen, float margin) {
    const Rect& area = screen.area;
    const float across = std::min(margin, area.width / 2), down = std::min(margin, area.height / 2);
    return area.inset({down, across, down, across});
}

bool holds(const Rect& rect, Point point) {
    return point.x >= rect.x && point.x <= rect.right() && point.y >= rect.y && point.y <= rect.bottom();
}

/// What the game hides is nowhere.
bool is_somewhere(const WorldPoint& point) {
    return std::isfinite(point.x) && std::isfinite(point.y) && std::isfinite(point.z);
}

/// Whether a point is seen on a screen, without the divisions that say where.
class ScreenTest {
 public:
    ScreenTest(const Camera& camera, Size screen) : m_(camera.matrix().data()), is_flat_(camera.is_flat()) {
        // Of a flat world in design pixels from the middle, else in clip space.
        across_ = is_flat_ ? static_cast<double>(screen.width) / 2 : 1;
        down_ = is_flat_ ? static_cast<double>(screen.height) / 2 : 1;
    }
    bool sees(const WorldPoint& point, double& distance) const {
        const auto row = [&](int i) {
            return m_[i] * point.x + m_[i + 4] * point.y + m_[i + 8] * point.z + m_[i + 12];
        };
        const double x = row(0), y = row(1);
        distance = is_flat_ ? 1 : row(3);
        return distance > 0 && std::abs(x) <= across_ * distance && std::abs(y) <= down_ * distance;
    }

 private:
    const double* m_;
    bool is_flat_;
    double across_, down_;
};

/// Where a ray from the middle of a rectangle leaves it.
Point on_edge(const Rect& rect, Point way) {
    const Point middle{rect.x + rect.width / 2, rect.y + rect.height / 2};
    const float across = std::abs(way.x) > 0 ? rect.width / 2 / std::abs(way.x) : INFINITY;
    const float down = std::abs(way.y) > 0 ? rect.height / 2 / std::abs(way.y) : INFINITY;
    const float length = std::min(across, down);
    return {middle.x + way.x * length, middle.y + way.y * length};
}

}  // namespace

void MarkerRanking::set(const Markers& markers) {
    // Another value is not the same one, changed.
    if (markers.value_of != markers_.value_of || markers.show != markers_.show) {
        before_.clear();
        table_.clear();
    }
    markers_ = markers;
}

/// The place of a key among what was seen before; nobody where it is new.
std::uint32_t MarkerRanking::known(std::uint64_t key) const {
    if (table_.empty()) return nobody;
    const std::size_t mask = table_.size() - 1;
    for (std::size_t at = (key * 0x9e3779b97f4a7c15ULL >> 20U) & mask;; at = (at + 1) & mask) {
        if (table_[at] == nobody) return nobody;
        if (before_[table_[at]].key == key) return table_[at];
    }
}

/// Remembers when the value of each thing changed, wherever the thing stands in its container.
void MarkerRanking::follow_changes(Nanoseconds now) {
    now_.resize(things_.keys.size());
    emptied_.clear();
    gone_.clear();
    is_there_.assign(before_.size(), 0);
    bool same_order = before_.size() == now_.size();
    for (std::size_t i = 0; i < now_.size(); ++i) {
        const std::uint64_t key = things_.keys[i];
        const double value = things_.values[i];
        const bool is_there = i < before_.size() && before_[i].key == key;
        same_order = same_order && is_there;
        const std::uint32_t index = is_there ? static_cast<std::uint32_t>(i) : known(key);
        Before next{.key = key, .value = value};
        if (index != nobody) {
            const Before& last = before_[index];
            next.last = last.value;
            is_there_[index] = 1;
            if (last.value > 0 && value <= 0) emptied_.push_back(static_cast<std::uint32_t>(i));
            const bool differs = last.value != value && !(std::isnan(last.value) && std::isnan(value));
            next.changed = differs ? now : last.changed;
        }
        now_[i] = next;
    }
    for (std::size_t i = 0; i < before_.size(); ++i)
        if (is_there_[i] == 0 && before_[i].value > 0) gone_.push_back(static_cast<std::uint32_t>(i));
    before_.swap(now_);
    if (same_order && !table_.empty()) return;
    table_.assign(std::max(table_.size(), std::bit_ceil(before_.size() * 2 + 2)), nobody);
    const std::size_t mask = table_.size() - 1;
    for (std::uint32_t i = 0; i < before_.size(); ++i) {
        std::size_t at = (before_[i].key * 0x9e3779b97f4a7c15ULL >> 20U) & mask;
        // Of those with equal keys the first one counts: a key per table entry, or looking for one would take all of them.
        while (table_[at] != nobody && before_[table_[at]].key != before_[i].key)
            at = (at + 1) & mask;
        if (table_[at] == nobody) table_[at] = i;
    }
}

std::optional<double> MarkerRanking::value_before(std::uint32_t thing) const {
    if (thing >= things_.keys.size()) return std::nullopt;
    const Before& known = before_[thing];
    if (std::isnan(known.last) || known.last == known.value) return std::nullopt;
    return known.last;
}

bool MarkerRanking::may_show(std::size_t i, Nanoseconds now) {
    if (!things_.in_sight.empty() && things_.in_sight[i] == 0) return false;
    if (markers_.show == ShowMarker::always) return true;
    if (things_.values.empty()) return false;  // the entries lack the field
    if (markers_.show == ShowMarker::below_full)
        return !things_.maxima.empty() && things_.values[i] < things_.maxima[i];
    const Nanoseconds changed = before_[i].changed;
    return changed != Nanoseconds::min() && now - changed < to_nanoseconds(markers_.show_for);
}

bool MarkerRanking::is_in_reach(const WorldPoint& place, const View& view) const {
    if (!is_somewhere(place)) return false;
    const Projected seen = view.camera.project(place, view.screen.size);
    const Rect screen{0, 0, view.screen.size.width, view.screen.size.height};
    if (markers_.at_edge == AtEdge::hide && !(seen.in_front && holds(screen, seen.at))) return false;
    return markers_.fade_to <= 0 || std::abs(seen.distance) < markers_.fade_to;
}

void MarkerRanking::rank(const View& view, Nanoseconds now, std::size_t most, std::vector<std::uint32_t>& ranking) {
    if (!things_.keys.empty() || !before_.empty()) follow_changes(now);
    candidates_.clear();
    const std::size_t count = things_.places.size();
    candidates_at_.resize(count);
    const bool hides = markers_.at_edge == AtEdge::hide;
    const ScreenTest on_screen(view.camera, view.screen.size);
    for (std::size_t i = 0; i < count; ++i) {
        double distance = 0;
        if (!is_somewhere(things_.places[i])) continue;
        if (hides) {
            if (!on_screen.sees(things_.places[i], distance)) continue;
        } else {
            const Projected seen = view.camera.project(things_.places[i], view.screen.size);
            distance = std::abs(seen.distance);
        }
        if (markers_.fade_to > 0 && distance >= markers_.fade_to) continue;
        if (!may_show(i, now)) continue;
        candidates_at_[i] = distance;
        candidates_.push_back({distance, static_cast<std::uint32_t>(i)});
    }
    const auto nearer = [](const Candidate& a, const Candidate& b) {
        return a.distance != b.distance ? a.distance < b.distance : a.thing < b.thing;
    };
    const auto end = candidates_.begin() + static_cast<std::ptrdiff_t>(std::min(most, candidates_.size()));
    std::partial_sort(candidates_.begin(), end, candidates_.end(), nearer);
    for (auto at = candidates_.begin(); at != end; ++at)
        ranking.push_back(at->thing);
}

float MarkerRanking::scale_at(double distance) const {
    if (!(markers_.reference_distance > 0)) return 1;
    const double scale = markers_.reference_distance / std::max(distance, 1e-9);
    return std::clamp(static_cast<float>(std::min(scale, 1e6)), markers_.min_scale,
                      std::max(markers_.min_scale, markers_.max_scale));
}

float MarkerRanking::opacity_at(double distance) const {
    if (!(markers_.fade_to > 0) || distance <= markers_.fade_from) return 1;
    const double room = markers_.fade_to - markers_.fade_from;
    return room > 0 ? static_cast<float>(std::clamp((markers_.fade_to - distance) / room, 0.0, 1.0)) : 0;
}

Rect MarkerRanking::box(const MarkerPlace& place, Size size) const {
    const Point part =
        place.is_at_edge ? Point{0.5F, 0.5F} : Point{horizontal_part(markers_.pivot), vertical_part(markers_.pivot)};
    const Size seen{size.width * place.scale, size.height * place.scale};
    return {place.at.x - seen.width * part.x, place.at.y - seen.height * part.y, seen.width, seen.height};
}

std::optional<MarkerPlace> MarkerRanking::place(const WorldPoint& thing, Size size, const View& view) const {
    const Projected seen = view.camera.project(thing, view.screen.size);
    if (!is_somewhere(thing) || (!seen.in_front && markers_.at_edge == AtEdge::hide)) return std::nullopt;
    const double distance = std::abs(seen.distance);
    MarkerPlace place{.at = {}, .scale = scale_at(distance), .opacity = opacity_at(distance)};
    if (seen.in_front)
        place.at = {seen.at.x + markers_.offset.x * place.scale, seen.at.y + markers_.offset.y * place.scale};
    if (markers_.at_edge == AtEdge::hide) return place;
    const Rect edge = edge_of(view.screen, markers_.edge_margin);
    if (seen.in_front && holds(edge, seen.at)) {
        // The thing is on the screen; so is all of its marker.
        const Rect own = box(place, size);
        const Rect& area = view.screen.area;
        place.at.x += std::clamp(own.x, area.x, std::max(area.x, area.right() - own.width)) - own.x;
        place.at.y += std::clamp(own.y, area.y, std::max(area.y, area.bottom() - own.height)) - own.y;
        return place;
    }
    // The way to it from the middle of the room at the edge.
    Point way = seen.towards;
    if (seen.in_front) {
        const Point away{seen.at.x - edge.x - edge.width / 2, seen.at.y - edge.y - edge.height / 2};
        const float length = std::hypot(away.x, away.y);
        if (length > 0) way = {away.x / length, away.y / length};
    }
    place.is_at_edge = true;
    place.way = way;
    place.tip = on_edge(edge, way);
    // Inside of the arrow, with a gap as large as half of it.
    const float room = markers_.at_edge == AtEdge::arrow ? markers_.arrow_size * 1.5F : 0;
    const Size half{size.width * place.scale / 2, size.height * place.scale / 2};
    const float reach = std::min(std::abs(way.x) > 0 ? half.width / std::abs(way.x) : INFINITY,
                                 std::abs(way.y) > 0 ? half.height / std::abs(way.y) : INFINITY);
    place.at = {place.tip.x - way.x * (room + reach), place.tip.y - way.y * (room + reach)};
    const Rect own = box(place, size);
    place.at.x += std::clamp(own.x, edge.x, std::max(edge.x, edge.right() - own.width)) - own.x;
    place.at.y += std::clamp(own.y, edge.y, std::max(edge.y, edge.bottom() - own.height)) - own.y;
    return place;
}

}  // namespace rapido
