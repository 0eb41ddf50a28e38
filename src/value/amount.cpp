#include "rapido/value/amount.hpp"

namespace rapido {

const Source* Amount::kept(Source source) {
    return new Source(std::move(source));
}

const Source* Amount::copied(const Amount& other) {
    return new Source(*other.source_);
}

void Amount::release() noexcept {
    delete source_;
}

bool operator==(const Amount& a, const Amount& b) {
    if (a.source_ == nullptr || b.source_ == nullptr) return a.source_ == b.source_ && a.number_ == b.number_;
    return a.source_->is_same(*b.source_);
}

}  // namespace rapido
