#include "rapido/look/band.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "value/computation.hpp"

namespace rapido {

BandSet::BandSet(std::vector<Band> bands, bool has_max)
    : BandSet(std::make_shared<const std::vector<Band>>(std::move(bands)), has_max) {}

namespace {

/// It is inside while a condition is true, whatever the value is.
bool reads_condition_alone(const Band& band) {
    return band.when.is_given() && !band.above && !band.below && !band.is.get().has_value();
}

BandReads reads_of(const Band& band) {
    return reads_condition_alone(band) ? BandReads::truth : band.reads;
}

const Source* source_of(const std::optional<Amount>& edge) {
    return edge ? edge->source() : nullptr;
}

}  // namespace

BandSet::BandSet(std::shared_ptr<const std::vector<Band>> bands, bool has_max)
    : bands_(std::move(bands)),
      given_(bands_->size()),
      inside_(bands_->size()),
      since_(bands_->size()),
      has_max_(has_max) {
    give({});
}

std::vector<BandSet::BandSource> BandSet::sources(const std::vector<Band>& bands) {
    std::vector<BandSource> sources;
    for (std::size_t i = 0; i < bands.size(); ++i) {
        const Band& band = bands[i];
        const auto add = [&](const char* field, const Source* source) {
            if (source != nullptr) sources.push_back({i, field, source});
        };
        add("when", band.when.is_given() ? &band.when : nullptr);
        add("above", source_of(band.above));
        add("below", source_of(band.below));
    }
    return sources;
}

void BandSet::give(std::span<const Value> values) {
    std::size_t at = 0;
    const auto next = [&] { return at < values.size() ? values[at++] : Value(); };
    for (std::size_t i = 0; i < bands_->size(); ++i) {
        const Band& band = (*bands_)[i];
        if (band.when.is_given()) given_[i].when = next().truth();
        for (const auto& [edge, into] :
             {std::pair(&band.above, &given_[i].above), std::pair(&band.below, &given_[i].below)})
            if (*edge) *into = (*edge)->source() != nullptr ? next().number() : (*edge)->number();
    }
}

bool BandSet::inside_next(std::size_t index, const Value& value, const Value& max) const {
    const Band& band = (*bands_)[index];
    const Given& given = given_[index];
    if (!given.when) return false;
    const bool is_one = band.is.get().has_value();
    if (is_one && !computed(detail::Operation::equal, value, band.is.get()).truth()) return false;
    if (!band.below && !band.above) return is_one || band.when.is_given();
    double amount = value.number();
    if (is_ratio(band)) {
        const double most = max.number();
        amount = most > 0 && std::isfinite(most) ? amount / most : std::numeric_limits<double>::quiet_NaN();
    }
    if (std::isnan(amount)) return false;
    const double margin = inside_[index] != 0 ? std::max(band.hysteresis, 0.0) : 0.0;
    return (!band.below || amount <= given.below + margin) && (!band.above || amount >= given.above - margin);
}

void BandSet::update(BandReads on, const Value& value, const Value& max, Nanoseconds now,
                     std::vector<BandChange>& changes) {
    for (std::size_t i = 0; i < bands_->size(); ++i) {
        if (reads_of((*bands_)[i]) != on) continue;
        const bool next = inside_next(i, value, max);
        if (next == inside(i)) continue;
        inside_[i] = next ? 1 : 0;
        since_[i] = now;
        changes.push_back({i, next, now});
    }
}

bool BandSet::would_change(BandReads on, const Value& value, const Value& max) const {
    for (std::size_t i = 0; i < bands_->size(); ++i)
        if (reads_of((*bands_)[i]) == on && inside_next(i, value, max) != inside(i)) return true;
    return false;
}

void BandSet::take_over(const BandSet& before) {
    for (std::size_t i = 0; i < bands_->size(); ++i) {
        const Band& band = (*bands_)[i];
        for (std::size_t j = 0; j < before.bands_->size(); ++j) {
            const Band& old = (*before.bands_)[j];
            const bool same_edges =
                band.above == old.above && band.below == old.below && band.is == old.is && band.when.is_same(old.when);
            if (band.id.empty() ? i == j && old.id.empty() && same_edges : band.id == old.id)
                inside_[i] = before.inside_[j], since_[i] = before.since_[j];
        }
    }
}

bool BandSet::reads(BandReads on) const {
    for (const Band& band : *bands_)
        if (reads_of(band) == on) return true;
    return false;
}

std::vector<double> BandSet::edges(BandReads on, double max) const {
    std::vector<double> edges;
    for (std::size_t i = 0; i < bands_->size(); ++i) {
        const Band& band = (*bands_)[i];
        if (band.reads != on || (is_ratio(band) && !(max > 0))) continue;
        const double unit = is_ratio(band) ? max : 1;
        const auto add = [&](const std::optional<Amount>& edge, double at, double hysteresis) {
            if (!edge || !std::isfinite(at)) return;
            edges.push_back(at * unit);
            edges.push_back((at + hysteresis) * unit);
        };
        add(band.below, given_[i].below, band.hysteresis);
        add(band.above, given_[i].above, -band.hysteresis);
    }
    return edges;
}

const Color* BandSet::color() const {
    for (std::size_t i = bands_->size(); i-- > 0;)
        if (inside(i) && (*bands_)[i].color && !(*bands_)[i].all) return &(*bands_)[i].color->value();
    return nullptr;
}

Color BandSet::filter() const {
    Color filter = rgb(0xffffff);
    bool has_color = false, has_opacity = false;
    for (std::size_t i = bands_->size(); i-- > 0;) {
        const Band& band = (*bands_)[i];
        if (!inside(i)) continue;
        if (band.color && band.all && !std::exchange(has_color, true)) {
            filter = multiply(filter, band.color->value());
        }
        if (band.opacity && !std::exchange(has_opacity, true))
            filter = multiply(filter, rgb(0xffffff, static_cast<double>(*band.opacity)));
    }
    return filter;
}

std::optional<bool> BandSet::visible() const {
    for (std::size_t i = bands_->size(); i-- > 0;)
        if (inside(i) && (*bands_)[i].visible) return (*bands_)[i].visible;
    return std::nullopt;
}

std::size_t BandSet::format() const {
    return last_with(&Band::format);
}

std::size_t BandSet::image() const {
    return last_with(&Band::image);
}

std::size_t BandSet::last_with(std::string Band::*text) const {
    for (std::size_t i = bands_->size(); i-- > 0;)
        if (inside(i) && !((*bands_)[i].*text).empty()) return i;
    return bands_->size();
}

FillPattern BandSet::pattern() const {
    for (std::size_t i = bands_->size(); i-- > 0;)
        if (inside(i) && (*bands_)[i].pattern != FillPattern::plain) return (*bands_)[i].pattern;
    return FillPattern::plain;
}

const Motion* BandSet::motion() const {
    for (std::size_t i = bands_->size(); i-- > 0;)
        if (inside(i) && (*bands_)[i].motion) return &*(*bands_)[i].motion;
    return nullptr;
}

}  // namespace rapido
