#include "rapido/base/themed.hpp"

#include <atomic>

#include "rapido/value/source.hpp"

namespace rapido::detail {

struct RareText::Kept {
    std::string text;
    Source source{};
    std::atomic<std::uint32_t> users = 1;
};

RareText::RareText(std::string text) {
    if (!text.empty()) kept_ = new Kept{std::move(text)};
}

RareText::RareText(const Source& source) {
    if (source.is_given()) kept_ = new Kept{{}, source};
}

const Source* RareText::source() const {
    return kept_ != nullptr && kept_->source.is_given() ? &kept_->source : nullptr;
}

bool RareText::is_same(const RareText& other) const {
    if (kept_ == nullptr || other.kept_ == nullptr) return kept_ == other.kept_;
    return kept_->text == other.kept_->text && kept_->source.is_same(other.kept_->source);
}

const std::string& RareText::get() const {
    static const std::string none;
    return kept_ != nullptr ? kept_->text : none;
}

void RareText::hold() const noexcept {
    kept_->users.fetch_add(1, std::memory_order_relaxed);
}

void RareText::release() noexcept {
    if (kept_->users.fetch_sub(1, std::memory_order_acq_rel) == 1) delete kept_;
}

}  // namespace rapido::detail
