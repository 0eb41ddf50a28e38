#include "rapido/look/band.hpp"

#include <cmath>
#include <limits>

namespace rapido {

BandSet::BandSet(std::vector<Band> bands, bool has_max)
    : BandSet(std::make_shared<const std::vector<Band>>(std::move(bands)), has_max) {}

BandSet::BandSet(std::shared_ptr<const std::vector<Band>> bands, bool has_max)
    : bands_(std::move(bands)), inside_(bands_->size()), since_(bands_->size()), has_max_(has_max) {}

bool BandSet::inside_next(std::size_t index, const Value& value, const Value& max) const {
    const Band& band = (*bands_)[index];
    double amount = value.number();
    if (is_ratio(band)) {
        const double most = max.number();
        amount = most > 0 && std::isfinite(most) ? amount / most : std::numeric_limits<double>::quiet_NaN();
    }
    if (std::isnan(amount) || (!band.below && !band.above)) return false;
    const double margin = inside_[index] != 0 ? std::max(band.hysteresis, 0.0) : 0.0;
    return (!band.below || amount <= *band.below + margin) && (!band.above || amount >= *band.above - margin);
}

void BandSet::update(BandReads on, const Value& value, const Value& max, Nanoseconds now,
                     std::vector<BandChange>& changes) {
    for (std::size_t i = 0; i < bands_->size(); ++i) {
        if ((*bands_)[i].reads != on) continue;
        const bool next = inside_next(i, value, max);
        if (next == inside(i)) continue;
        inside_[i] = next ? 1 : 0;
        since_[i] = now;
        changes.push_back({i, next, now});
    }
}

bool BandSet::would_change(BandReads on, const Value& value, const Value& max) const {
    for (std::size_t i = 0; i < bands_->size(); ++i)
        if ((*bands_)[i].reads == on && inside_next(i, value, max) != inside(i)) return true;
    return false;
}

void BandSet::take_over(const BandSet& before) {
    for (std::size_t i = 0; i < bands_->size(); ++i) {
        const Band& band = (*bands_)[i];
        for (std::size_t j = 0; j < before.bands_->size(); ++j) {
            const Band& old = (*before.bands_)[j];
            const bool same_edges = band.above == old.above && band.below == old.below;
            if (band.id.empty() ? i == j && old.id.empty() && same_edges : band.id == old.id)
                inside_[i] = before.inside_[j], since_[i] = before.since_[j];
        }
    }
}

bool BandSet::reads(BandReads on) const {
    for (const Band& band : *bands_)
        if (band.reads == on) return true;
    return false;
}

std::vector<double> BandSet::edges(BandReads on, double max) const {
    std::vector<double> edges;
    for (const Band& band : *bands_) {
        if (band.reads != on || (is_ratio(band) && !(max > 0))) continue;
        const double unit = is_ratio(band) ? max : 1;
        if (band.below)
            for (const double edge : {*band.below, *band.below + band.hysteresis})
                edges.push_back(edge * unit);
        if (band.above)
            for (const double edge : {*band.above, *band.above - band.hysteresis})
                edges.push_back(edge * unit);
    }
    return edges;
}

const Color* BandSet::color() const {
    for (std::size_t i = bands_->size(); i-- > 0;)
        if (inside(i) && (*bands_)[i].color) return &(*bands_)[i].color->value();
    return nullptr;
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
