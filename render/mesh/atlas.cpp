#include "render/mesh/atlas.hpp"

#include <algorithm>
#include <cstring>

namespace rapido {
namespace {

constexpr int block = 128;
constexpr int sizes[]{8, 16, 24, 32, 48, 64, 128};
constexpr int largest = 8192;           ///< of a page
constexpr std::size_t most_pages = 24;  ///< 100 MB of the usual ones

int class_of(int length) {
    for (const int size : sizes)
        if (length <= size) return size;
    return 0;
}
std::uint32_t size_key(int width, int height) {
    return static_cast<std::uint32_t>(width) << 16U | static_cast<std::uint32_t>(height);
}

}  // namespace

AtlasPages::AtlasPages(const Fonts& given_fonts, const ImageFinder* given_images, int size)
    : fonts(given_fonts), images(given_images), page_size(std::clamp(size, 256, 4096) / block * block) {
    AtlasKey key;
    key.add(0);
    coverage.reset(2, 2);
    std::fill(coverage.bytes.begin(), coverage.bytes.end(), std::uint8_t{255});
    const AtlasIndex index = add(key, 2, 2);
    ++entries[index].users;  // it never goes
    put_coverage(index);
    const float side = static_cast<float>(page_size);
    white = {static_cast<float>(entries[index].at.x + 1) / side, static_cast<float>(entries[index].at.y + 1) / side};
}

AtlasIndex AtlasPages::find(const AtlasKey& key) {
    const auto found = known.find(key);
    if (found == known.end()) return nowhere;
    entries[found->second].last_use = clock;
    return found->second;
}

bool AtlasPages::is_asked_again(const AtlasKey& key) {
    constexpr std::size_t most = 1'024;
    if (asked.empty()) asked.resize(most);
    AtlasKey& last = asked[AtlasKeyHash{}(key) % most];
    if (last == key) return true;
    last = key;
    return false;
}

std::uint32_t AtlasPages::add_page() {
    // The number of one that has gone is given again.
    for (std::uint32_t i = 0; i < pages.size(); ++i)
        if (pages[i].width == 0) return i;
    pages.emplace_back();
    return static_cast<std::uint32_t>(pages.size() - 1);
}

AtlasIndex AtlasPages::add(const AtlasKey& key, int width, int height) {
    AtlasEntry entry{.key = key, .last_use = clock, .is_there = true};
    if (!make_room(entry, width, height)) return nowhere;
    AtlasIndex index = static_cast<AtlasIndex>(entries.size());
    if (free_entries.empty()) {
        entries.push_back(entry);
        free_entries.reserve(entries.size());
    } else {
        index = free_entries.back();
        free_entries.pop_back();
        entries[index] = entry;
    }
    known.emplace(key, index);
    ++made;
    return index;
}

bool AtlasPages::take_free(AtlasEntry& entry, std::uint32_t size) {
    std::vector<std::pair<std::uint32_t, PixelRect>>& free = free_slots[size];
    if (free.empty()) return false;
    entry.page = free.back().first;
    entry.slot = free.back().second;
    free.pop_back();
    return true;
}

/// First where there is room, then where something was that nobody draws any more, the oldest first, then on a new page.
bool AtlasPages::make_room(AtlasEntry& entry, int width, int height) {
    constexpr std::size_t usual = 2, more = 4;  // pages
    if (place(entry, width, height, pages.size() < usual)) return true;
    for (const std::uint64_t unused_for : {300U, 30U, 2U}) {
        if (evict(unused_for) && place(entry, width, height, false)) return true;
        // What was drawn a moment ago is drawn again soon: making it anew costs more than a page.
        if (unused_for > 30 && place(entry, width, height, pages.size() < more)) return true;
    }
    if (place(entry, width, height, true)) return true;
    return evict(1) && place(entry, width, height, true);
}

bool AtlasPages::place(AtlasEntry& entry, int width, int height, bool may_grow) {
    const int wide = width + 2, high = height + 2;
    const auto finish = [&] {
        entry.at = {entry.slot.x + 1, entry.slot.y + 1, width, height};
        return true;
    };
    if (wide > page_size || high > page_size) return may_grow && place_alone(entry, wide, high) && finish();
    const int column = class_of(wide), row = class_of(high);
    if (column == 0 || row == 0) {
        const int columns = (wide + block - 1) / block, rows = (high + block - 1) / block;
        return (take_free(entry, size_key(columns * block, rows * block)) ||
                place_in_blocks(entry, columns, rows, may_grow)) &&
               finish();
    }
    if (take_free(entry, size_key(column, row))) return finish();
    if (!take_free(entry, size_key(block, block)) && !place_in_blocks(entry, 1, 1, may_grow)) return false;
    // A block becomes a grid of such places, of which this is the first.
    const PixelRect whole = entry.slot;
    for (int y = 0; y + row <= block; y += row)
        for (int x = 0; x + column <= block; x += column)
            free_slots[size_key(column, row)].push_back({entry.page, {whole.x + x, whole.y + y, column, row}});
    return take_free(entry, size_key(column, row)) && finish();
}

bool AtlasPages::place_in_blocks(AtlasEntry& entry, int columns, int rows, bool may_grow) {
    const int side = page_size / block;
    const auto try_page = [&](std::uint32_t number) {
        Page& page = pages[number];
        for (int y = 0; y + rows <= side; ++y)
            for (int x = 0; x + columns <= side; ++x) {
                bool is_free = true;
                for (int i = 0; i < rows * columns && is_free; ++i)
                    is_free = page.blocks[static_cast<std::size_t>((y + i / columns) * side + x + i % columns)] == 0;
                if (!is_free) continue;
                for (int i = 0; i < rows * columns; ++i)
                    page.blocks[static_cast<std::size_t>((y + i / columns) * side + x + i % columns)] = 1;
                entry.page = number;
                entry.slot = {x * block, y * block, columns * block, rows * block};
                return true;
            }
        return false;
    };
    for (std::uint32_t i = 0; i < pages.size(); ++i)
        if (pages[i].is_shared && try_page(i)) return true;
    if (!may_grow || pages.size() >= most_pages) return false;
    const std::uint32_t number = add_page();
    Page& page = pages[number];
    page.width = page.height = page_size;
    page.pixels.assign(static_cast<std::size_t>(page_size) * static_cast<std::size_t>(page_size) * 4, 0);
    page.changed = {0, 0, page_size, page_size};
    page.is_shared = true;
    page.blocks.assign(static_cast<std::size_t>(side * side), 0);
    return try_page(number);
}

bool AtlasPages::place_alone(AtlasEntry& entry, int width, int height) {
    if (width > largest || height > largest || pages.size() >= most_pages) return false;
    const std::uint32_t number = add_page();
    Page& page = pages[number];
    page.width = width;
    page.height = height;
    page.pixels.assign(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4, 0);
    page.changed = {0, 0, width, height};
    page.is_shared = false;
    entry.page = number;
    entry.slot = {0, 0, width, height};
    return true;
}

/// What nobody draws any more, and nobody has for so many draws, goes. False where there is nothing of that.
bool AtlasPages::evict(std::uint64_t unused_for) {
    const std::uint64_t before = evicted;
    for (AtlasIndex i = 0; i < entries.size(); ++i)
        if (entries[i].is_there && entries[i].users == 0 && entries[i].last_use + unused_for <= clock) drop(i);
    if (evicted == before) return false;
    reclaim();
    return true;
}

void AtlasPages::drop(AtlasIndex index) {
    AtlasEntry& entry = entries[index];
    known.erase(entry.key);
    if (pages[entry.page].is_shared) {
        free_slots[size_key(entry.slot.width, entry.slot.height)].push_back({entry.page, entry.slot});
    } else {
        pages[entry.page] = {};
    }
    entry = {};
    free_entries.push_back(index);
    ++evicted;
}

/// Blocks in which nothing stands may become places of any size.
void AtlasPages::reclaim() {
    const int side = page_size / block;
    for (Page& page : pages)
        std::fill(page.blocks.begin(), page.blocks.end(), std::uint8_t{0});
    for (const AtlasEntry& entry : entries) {
        if (!entry.is_there || !pages[entry.page].is_shared) continue;
        for (int y = entry.slot.y / block; y * block < entry.slot.y + entry.slot.height; ++y)
            for (int x = entry.slot.x / block; x * block < entry.slot.x + entry.slot.width; ++x)
                pages[entry.page].blocks[static_cast<std::size_t>(y * side + x)] = 1;
    }
    for (auto& [size, slots] : free_slots)
        std::erase_if(slots, [&](const auto& slot) {
            const PixelRect& at = slot.second;
            const bool is_small = at.width < block || at.height < block;
            return !is_small ||
                   pages[slot.first].blocks[static_cast<std::size_t>(at.y / block * side + at.x / block)] == 0;
        });
}

void AtlasPages::mark(Page& page, const PixelRect& rect) {
    if (page.changed.is_empty()) {
        page.changed = rect;
        return;
    }
    const int x = std::min(page.changed.x, rect.x), y = std::min(page.changed.y, rect.y);
    page.changed = {x, y, std::max(page.changed.x + page.changed.width, rect.x + rect.width) - x,
                    std::max(page.changed.y + page.changed.height, rect.y + rect.height) - y};
}

template <class Write>
void AtlasPages::put_rows(const AtlasEntry& entry, Write write) {
    Page& page = pages[entry.page];
    const PixelRect padded{entry.at.x - 1, entry.at.y - 1, entry.at.width + 2, entry.at.height + 2};
    const auto length = static_cast<std::size_t>(padded.width) * 4;
    for (int y = 0; y < padded.height; ++y) {
        std::uint8_t* const row =
            page.pixels.data() + (static_cast<std::size_t>(padded.y + y) * static_cast<std::size_t>(page.width) +
                                  static_cast<std::size_t>(padded.x)) *
                                     4;
        if (y == 0 || y == padded.height - 1) {
            std::memset(row, 0, length);
            continue;
        }
        std::memset(row, 0, 4);
        write(y - 1, row + 4);
        std::memset(row + length - 4, 0, 4);
    }
    mark(page, padded);
}

void AtlasPages::put_coverage(AtlasIndex index) {
    const AtlasEntry& entry = entries[index];
    put_rows(entry, [&](int y, std::uint8_t* row) {
        const std::uint8_t* const from =
            coverage.bytes.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(entry.at.width);
        for (int x = 0; x < entry.at.width; ++x) {
            const std::uint32_t texel = from[x] * 0x01010101U;
            std::memcpy(row + static_cast<std::size_t>(x) * 4, &texel, 4);
        }
    });
}

void AtlasPages::put(AtlasIndex index, const std::uint8_t* bytes) {
    const AtlasEntry& entry = entries[index];
    const std::size_t length = static_cast<std::size_t>(entry.at.width) * 4;
    put_rows(entry,
             [&](int y, std::uint8_t* row) { std::memcpy(row, bytes + static_cast<std::size_t>(y) * length, length); });
}

void AtlasPages::release(AtlasIndex index) {
    AtlasEntry& entry = entries[index];
    if (entry.users > 0) --entry.users;
    entry.last_use = clock;
}

MeshAtlas::MeshAtlas(const Fonts& fonts, const ImageFinder* images, int page_size)
    : state_(std::make_unique<State>(fonts, images, page_size)) {}
MeshAtlas::~MeshAtlas() {
    state_->is_gone = true;
}

std::size_t MeshAtlas::page_count() const {
    return state_->pages.size();
}
MeshAtlas::Page MeshAtlas::page(std::size_t number) const {
    const AtlasPages::Page& page = state_->pages[number];
    return {page.width, page.height, page.pixels};
}
PixelRect MeshAtlas::take_changed(std::size_t number) {
    return std::exchange(state_->pages[number].changed, {});
}
std::uint64_t MeshAtlas::made() const {
    return state_->made;
}
std::uint64_t MeshAtlas::evicted() const {
    return state_->evicted;
}

}  // namespace rapido
