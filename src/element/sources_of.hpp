// All sources of a description, whatever it describes.
#pragma once

#include <functional>
#include <string>

#include "base/fields.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/element/common.hpp"
#include "rapido/element/image_name.hpp"
#include "rapido/value/amount.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Calls `use` with each source that an aggregate has, which may change it, and the name of its field: `value`, `messages.0.when`.
void for_each_source(const Table& table, void* aggregate,
                     const std::function<void(const std::string& field, Source& source)>& use,
                     const std::string& prefix = {});

}  // namespace rapido
