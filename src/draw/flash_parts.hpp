// What is drawn, as far as its flashes are concerned: areas of a color.
#pragma once

#include <vector>

#include "rapido/draw/display_list.hpp"
#include "rapido/look/flash_limit.hpp"

namespace rapido {

/// Adds a part for each command, in device pixels, and takes from those before it what it covers.
void add_flash_parts(const DisplayGroup& group, std::vector<FlashPart>& into);
/// Of several parts of like color one, so that few are left.
void join_flash_parts(const std::vector<FlashPart>& parts, std::vector<FlashPart>& joined);

}  // namespace rapido
