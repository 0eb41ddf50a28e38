#include "rapido/base/themed.hpp"

#include <atomic>

namespace rapido::detail {

struct RareText::Kept {
    std::string text;
    std::atomic<std::uint32_t> users = 1;
};

RareText::RareText(std::string text) {
    if (!text.empty()) kept_ = new Kept{std::move(text)};
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
