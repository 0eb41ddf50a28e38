// Values of JSON.
#pragma once

#include <cstdint>
#include <optional>
#include <string>

#include "rapido/base/exported.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A whole number that is not below zero: of a signed type, where it fits.
inline Value whole_value(std::uint64_t number) {
    if (number > static_cast<std::uint64_t>(INT64_MAX)) return Value(number);
    return Value(static_cast<std::int64_t>(number));
}

/// A value as it is; nothing for a list and an object. A text in it lives as long as the JSON.
template <class Json>
std::optional<Value> plain_value(const Json& given) {
    switch (given.type()) {
        case Json::value_t::null:
            return Value();
        case Json::value_t::boolean:
            return Value(given.template get<bool>());
        case Json::value_t::number_integer:
            return Value(given.template get<std::int64_t>());
        case Json::value_t::number_unsigned:
            return whole_value(given.template get<std::uint64_t>());
        case Json::value_t::number_float:
            return Value(given.template get<double>());
        case Json::value_t::string:
            return Value(std::string_view(given.template get_ref<const std::string&>()));
        default:
            return std::nullopt;
    }
}

}  // namespace rapido
