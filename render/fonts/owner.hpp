// Objects of C libraries with owners.
#pragma once

#include <memory>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {

template <class T, void (*Destroy)(T*)>
struct Destroyer {
    void operator()(T* thing) const { Destroy(thing); }
};
}  // namespace rapido
