// Images out of a folder.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <vector>

#include "rapido/base/color.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/draw/image_finder.hpp"

namespace rapido RAPIDO_EXPORTED {

/// The PNG files of one folder and of those inside it. A HUD file may come from anywhere, so that a name is a path inside the
/// folder, without `..` and without links that leave it; a file is at most 64 MB, an image 4096 pixels each way, known
/// from its first bytes, and all images together 32 million pixels (128 MB).
///
/// The HUDs that use it belong to one thread; at the same time another one may draw what they have drawn. It must outlive them and the
/// pictures and atlases that use it.
class Images final : public ImageFinder {
 public:
    /// Without a folder there are only the images that are added.
    explicit Images(const std::string& folder = {});
    ~Images() override;
    Images(const Images&) = delete;
    Images& operator=(const Images&) = delete;

    /// Read on the first call, and kept.
    Result<ImageId> find(const std::string& name) override;
    Size size(ImageId image) const override;
    std::vector<float> opacity(ImageId image, const Rect& part, bool of_columns) const override;

    /// Empty for an unknown image.
    std::vector<std::uint8_t> pixels(ImageId image) const override;

    /// An image of the game's own under a name, row by row from the top, with straight alpha. A problem if there are not
    /// `width` times `height` pixels, or more than 4096 each way.
    Result<ImageId> add(const std::string& name, int width, int height, std::span<const Color> pixels);

 private:
    friend class Picture;
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
