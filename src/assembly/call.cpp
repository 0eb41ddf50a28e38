#include "hud/call.hpp"

namespace rapido {
namespace {

class Kept final : public detail::Getter {
 public:
    explicit Kept(const KeptValue& value) : value_(value) {}
    Value read(std::string&) const override { return value_.get(); }

 private:
    KeptValue value_;
};

}  // namespace

std::string_view RecordedCall::name() const {
    return kind->name();
}

std::vector<const CallKind*> all_calls() {
    std::vector<const CallKind*> all;
    for (const CallKinds kinds : {element_calls(), change_calls(), effect_calls(), message_calls(), setting_calls(),
                                  timer_calls(), visibility_calls(), world_calls()})
        all.insert(all.end(), kinds.begin(), kinds.end());
    return all;
}

Source source_of(const KeptValue& value, std::optional<GivenType> type, std::optional<detail::ValueUse> use) {
    const bool is_fixed = type.value_or(GivenType::any) != GivenType::any;
    return Source(detail::Binding::getter(std::make_shared<Kept>(value),
                                          is_fixed ? std::optional(static_cast<Value::Type>(*type)) : std::nullopt)
                      .used_as(use.value_or(detail::ValueUse::amount)));
}

}  // namespace rapido
