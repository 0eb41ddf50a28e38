// The file of an image, or where its name comes from.
#pragma once

#include <concepts>
#include <string>
#include <utility>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/value/source.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A path inside the folder of the HUD, see `Images`, or a source that gives one: `.image = "plane.png"`, `.image = rapido::watch(icon)`.
class ImageName {
 public:
    ImageName() = default;
    ImageName(const char* name) : name_(name) {}
    ImageName(std::string name) : name_(std::move(name)) {}
    ImageName(std::string_view name) : name_(name) {}
    template <std::derived_from<Source> S>
    ImageName(const S& source) : source_(static_cast<const Source&>(source)) {}

    /// Returns the name; of a source, the one that it gave last.
    const std::string& name() const { return name_; }
    operator const std::string&() const { return name_; }
    /// Whether there is neither a name nor a source.
    bool empty() const { return name_.empty() && source_.empty(); }
    /// Returns the source; null for a name.
    const Source* source() const { return source_.source(); }
    /// Takes the name that a source gives.
    void apply(std::string name) { name_ = std::move(name); }

    friend bool operator==(const ImageName& a, const ImageName& b) {
        return a.source_.is_same(b.source_) && (!a.source_.empty() || a.name_ == b.name_);
    }

 private:
    std::string name_;
    detail::RareText source_;
};

}  // namespace rapido
