// Named looks for pieces of texts.
#pragma once

#include <optional>
#include <string>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How a piece of a text looks, by name: `{#warning}...{/warning}` in a pattern. What is not given is as in the text around it.
struct TextStyle {
    std::string id{};
    std::optional<Themed<Color>> color{};  ///< bands change pieces without a color of their own
    std::optional<Themed<std::string>> font{};
    std::optional<int> weight{};
    std::optional<bool> italic{};
    std::optional<float> size{};  ///< design pixels per em
    friend RAPIDO_EXPORTED bool operator==(const TextStyle&, const TextStyle&);
};

}  // namespace rapido
