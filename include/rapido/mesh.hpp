// Display lists as textured triangles, for any GPU.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <span>

#include "rapido/base.hpp"
#include "rapido/base/exported.hpp"
#include "rapido/draw.hpp"
#include "rapido/draw/pixel_rect.hpp"
#include "rapido/fonts.hpp"

namespace rapido RAPIDO_EXPORTED {

/// A corner. Colors are multiplied by their alpha, sRGB.
struct MeshVertex {
    Point at{};                           ///< device pixels, y down
    Point texture{};                      ///< 0 to 1 over the page, y down
    std::array<std::uint8_t, 4> color{};  ///< red, green, blue, alpha
};

/// Triangles with the same page, in the order in which they are drawn.
struct MeshBatch {
    std::uint32_t first_index = 0;
    std::uint32_t index_count = 0;
    std::uint32_t page = 0;
};

/// The pages of texture that meshes draw from: characters, edges, soft light and images, made when they are first drawn, and kept until
/// their place is needed. Several meshes may share one. A mesh that is drawn when its
/// atlas has gone has no triangles, and a problem.
///
/// A fragment is the texel times the color of the vertex; it covers what is below by its alpha (source ONE, destination
/// ONE_MINUS_SRC_ALPHA, for color and alpha). There is no other state: light that is added has vertices without alpha. Texels are sRGB and
/// multiplied by their alpha; they are filtered linearly, and blended as they are (no conversion to linear light).
///
/// One thread at a time.
class MeshAtlas {
 public:
    /// `fonts` and `images` must be those of the HUDs that are drawn, and outlive it. Pages are `page_size` pixels each way, 256 to 4096;
    /// an image that is larger has a page of its own.
    explicit MeshAtlas(const Fonts& fonts, const ImageFinder* images = nullptr, int page_size = 1024);
    ~MeshAtlas();
    MeshAtlas(const MeshAtlas&) = delete;
    MeshAtlas& operator=(const MeshAtlas&) = delete;

    struct Page {
        int width = 0, height = 0;
        std::span<const std::uint8_t> pixels;  ///< row by row from the top: red, green, blue, alpha
    };
    std::size_t page_count() const;
    /// Valid until the next `Mesh::draw`. A page without a size has gone; another one may take its number.
    Page page(std::size_t number) const;
    /// Returns what has changed of a page since the last call, to be uploaded; all of it for a new one.
    PixelRect take_changed(std::size_t number);

    /// How many characters, edges and images were made so far, and how many of them had to go for others.
    std::uint64_t made() const;
    std::uint64_t evicted() const;

 private:
    friend class Mesh;
    struct State;
    std::shared_ptr<State> state_;
};

/// The triangles of one display list at a time. Only what changed is made again, and where nothing did, nothing is allocated.
class Mesh {
 public:
    explicit Mesh(MeshAtlas& atlas);
    ~Mesh();
    Mesh(Mesh&&) noexcept;
    Mesh& operator=(Mesh&&) noexcept;

    void draw(const DisplayList& list);

    std::span<const MeshVertex> vertices() const;
    /// Three for each triangle. They only ever grow: the first so many of a buffer stay as they are.
    std::span<const std::uint32_t> indices() const;
    std::span<const MeshBatch> batches() const;

    struct Range {
        std::size_t first = 0, count = 0;
    };
    /// The vertices that the last `draw` has changed; all of them where their number is another one.
    Range changed() const;

    /// A problem where something could not be drawn, as there was no room for it.
    const Status& status() const;

 private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace rapido
