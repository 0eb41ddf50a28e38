// Objects of C libraries with owners.
#pragma once

#include <memory>

namespace rapido {

template <class T, void (*Destroy)(T*)>
struct Destroyer {
    void operator()(T* thing) const { Destroy(thing); }
};
}  // namespace rapido
