// Pages of texture, and what stands where on them.
#pragma once

#include <array>
#include <bit>
#include <cstdint>
#include <string>
#include <unordered_map>
#include <vector>

#include "rapido/mesh.hpp"
#include "render/mesh/coverage.hpp"
#include "render/mesh/polygon.hpp"

namespace rapido {

/// What is on a page: equal keys, equal texels.
struct AtlasKey {
    std::uint64_t first = 0xcbf29ce484222325U, second = 0x9e3779b97f4a7c15U;

    void add(std::uint64_t word) {
        first = (first ^ word) * 0x100000001b3U;
        first ^= first >> 29U;
        second = (second + word + 1) * 0xff51afd7ed558ccdU;
        second ^= second >> 32U;
    }
    void add(std::uint32_t word) { add(std::uint64_t{word}); }
    void add(int word) { add(static_cast<std::uint64_t>(static_cast<std::int64_t>(word))); }
    /// To a sixteenth.
    void add(float number) { add(std::uint64_t{sixteenths(number)}); }
    void add(Point point) { add(std::uint64_t{sixteenths(point.x)} << 32U | sixteenths(point.y)); }
    friend bool operator==(const AtlasKey&, const AtlasKey&) = default;

 private:
    /// What is added makes a float whose last bit counts for one: it is rounded to a whole number, which stands in its last bits. Of what is
    /// further away than 200,000 they are still the same for the same number.
    static std::uint32_t sixteenths(float number) { return std::bit_cast<std::uint32_t>(number * 16 + 12'582'912.0F); }
};
struct AtlasKeyHash {
    std::size_t operator()(const AtlasKey& key) const { return static_cast<std::size_t>(key.first ^ key.second); }
};

using AtlasIndex = std::uint32_t;
inline constexpr AtlasIndex nowhere = UINT32_MAX;

struct AtlasEntry {
    AtlasKey key{};
    std::uint32_t page = 0;
    PixelRect at{};    ///< without the empty pixel around it
    PixelRect slot{};  ///< all of its place
    std::uint32_t users = 0;
    std::uint64_t last_use = 0;
    bool is_there = false;
};

/// Places of fixed sizes, so that one that is left serves the next of its size: a page is a grid of blocks, and a block is one place, or a
/// grid of equal smaller ones. What is larger takes several blocks, and what is larger than a page has a page of its own.
struct AtlasPages {
    AtlasPages(const Fonts& given_fonts, const ImageFinder* given_images, int size);

    struct Page {
        int width = 0, height = 0;
        std::vector<std::uint8_t> pixels;
        PixelRect changed;
        bool is_shared = false;
        std::vector<std::uint8_t> blocks;  ///< whether each of them is taken
    };

    const Fonts& fonts;
    bool is_gone = false;  ///< the atlas, and perhaps its fonts and images
    const ImageFinder* images;
    int page_size;
    std::vector<Page> pages;
    std::vector<AtlasEntry> entries;
    std::vector<std::array<int, 2>> glyph_locations;      ///< by entry: from the baseline to the upper left corner
    std::vector<std::vector<std::uint8_t>> image_pixels;  ///< by image, read once
    std::vector<AtlasIndex> free_entries;
    std::unordered_map<AtlasKey, AtlasIndex, AtlasKeyHash> known;
    /// Free places by their size.
    std::unordered_map<std::uint32_t, std::vector<std::pair<std::uint32_t, PixelRect>>> free_slots;
    std::uint64_t clock = 0;  ///< counts the calls of `Mesh::draw`
    std::uint64_t made = 0, evicted = 0;
    Rasterizer rasterizer;
    SmoothPolygon polygon;
    std::vector<AtlasKey> asked;  ///< the latest keys by their hash: of shapes that were not asked for before
    Coverage coverage;
    std::vector<std::uint8_t> texels;
    Point white;  ///< the texture coordinates of a white pixel on the first page

    /// The entry of a key; nowhere for one that is not there.
    AtlasIndex find(const AtlasKey& key);
    /// Whether a key was asked for lately; from now on it was.
    bool is_asked_again(const AtlasKey& key);
    /// Room for so many pixels; nowhere where there is none.
    AtlasIndex add(const AtlasKey& key, int width, int height);
    /// Puts `coverage` there, as white.
    void put_coverage(AtlasIndex index);
    /// Puts texels there, four bytes each, and an empty pixel around them. What else is in their place is never seen.
    void put(AtlasIndex index, const std::uint8_t* bytes);
    void release(AtlasIndex index);

 private:
    bool make_room(AtlasEntry& entry, int width, int height);
    bool place(AtlasEntry& entry, int width, int height, bool may_grow);
    bool place_in_blocks(AtlasEntry& entry, int columns, int rows, bool may_grow);
    bool place_alone(AtlasEntry& entry, int width, int height);
    bool take_free(AtlasEntry& entry, std::uint32_t size);
    std::uint32_t add_page();
    bool evict(std::uint64_t unused_for);
    void drop(AtlasIndex index);
    void reclaim();
    void mark(Page& page, const PixelRect& rect);
    /// Writes the pixels of an entry row by row: `write(y, row)` those of one.
    template <class Write>
    void put_rows(const AtlasEntry& entry, Write write);
};

struct MeshAtlas::State : AtlasPages {
    using AtlasPages::AtlasPages;
};

}  // namespace rapido
