#include "rapido/images.hpp"

#include <algorithm>
#include <array>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <fstream>

#include "base/inside_path.hpp"
#include "draw/map_opacity.hpp"
#include "file/paths.hpp"
#include "render/picture/image_store.hpp"

namespace rapido {
namespace {

namespace fs = std::filesystem;

constexpr std::uint32_t largest_side = 4096;
constexpr std::uintmax_t largest_file = 64'000'000;
constexpr std::size_t most_pixels =
    32'000'000;  ///< of all images together: 128 MB, and as much again while one is read
constexpr std::size_t most_summed = 256'000'000;  ///< of all that `opacity` looks at: a fraction of a second

constexpr std::size_t most_slices = 2'000'000;  ///< of all that it gives

Problem problem(std::string message, std::string hint = {}) {
    return {{}, std::move(message), std::move(hint)};
}

std::uint32_t big_endian(const unsigned char* bytes) {
    return std::uint32_t{bytes[0]} << 24 | std::uint32_t{bytes[1]} << 16 | std::uint32_t{bytes[2]} << 8 |
           std::uint32_t{bytes[3]};
}

cairo_status_t read_stream(void* stream, unsigned char* bytes, unsigned int length) {
    std::istream& file = *static_cast<std::istream*>(stream);
    file.read(reinterpret_cast<char*>(bytes), length);
    return file ? CAIRO_STATUS_SUCCESS : CAIRO_STATUS_READ_ERROR;
}

/// With 32 bits a pixel, whatever the file had.
Surface with_alpha(Surface read) {
    if (cairo_image_surface_get_format(read.get()) == CAIRO_FORMAT_ARGB32) return read;
    Surface made(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, cairo_image_surface_get_width(read.get()),
                                            cairo_image_surface_get_height(read.get())));
    const Context context(cairo_create(made.get()));
    cairo_set_source_surface(context.get(), read.get(), 0, 0);
    cairo_paint(context.get());
    return made;
}

std::uint32_t* row_of(cairo_surface_t* surface, int y) {
    return reinterpret_cast<std::uint32_t*>(cairo_image_surface_get_data(surface) +
                                            static_cast<std::ptrdiff_t>(y) * cairo_image_surface_get_stride(surface));
}

}  // namespace

Images::Images(const std::string& folder) : state_(std::make_unique<State>()) {
    std::error_code error;
    if (!folder.empty()) state_->folder = fs::canonical(path_of(folder), error);
}

Images::~Images() = default;

/// What a PNG file says about its size in its first chunk (PNG, 11.2.1), before anything is unpacked.
Result<PixelSize> png_size(std::istream& file) {
    constexpr std::array<unsigned char, 8> signature{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
    std::array<unsigned char, 24> head{};
    file.read(reinterpret_cast<char*>(head.data()), head.size());
    if (!file || !std::equal(signature.begin(), signature.end(), head.begin()) ||
        std::memcmp(&head[12], "IHDR", 4) != 0)
        return problem("is not a PNG image");
    file.seekg(0);
    return PixelSize{big_endian(&head[16]), big_endian(&head[20])};
}

Result<Surface> read_png(std::istream& file, std::size_t most) {
    const Result<PixelSize> size = png_size(file);
    if (!size) return size.problems();
    if (size->width > most || size->height > most || size->pixels() > most)
        return problem("is an image of " + size->text() + " pixels; at most " + std::to_string(most) + " are read",
                       "make it smaller");
    Surface read(cairo_image_surface_create_from_png_stream(read_stream, &file));
    // Cairo says that it has no memory where the bytes make no sense.
    if (cairo_surface_status(read.get()) != CAIRO_STATUS_SUCCESS)
        return problem("is a damaged PNG image", "save it again");
    return read;
}

/// The file of a name, if it may be read; by this path it is known, however it is spelled.
Result<fs::path> Images::State::file_of(const std::string& name) const {
    const fs::path path = path_of(name);
    if (!stays_inside(name))
        return problem("is not a path inside the folder of the HUD", "put the image beside the HUD file");
    if (folder.empty()) return problem("is not there: there is no folder of images");
    std::error_code error;
    fs::path file_path = fs::canonical(folder / path, error);
    if (error) return problem("is not there", "it is looked for in the folder of the HUD file");
    if (!is_within(file_path, folder))
        return problem("leads out of the folder of the HUD", "put the image beside the HUD file");
    if (!fs::is_regular_file(file_path, error)) return problem("is not a file");
    if (fs::file_size(file_path, error) > largest_file || error) return problem("is larger than 64 MB");
    return file_path;
}

Result<ImageId> Images::State::read(const fs::path& path) {
    std::ifstream file(path, std::ios::binary);
    if (!file) return problem(std::string("cannot be read: ") + std::strerror(errno));
    const Result<PixelSize> size = png_size(file);
    if (!size) return size.problems();
    if (size->width > largest_side || size->height > largest_side)
        return problem("is an image of " + size->text() + " pixels; at most " + std::to_string(largest_side) +
                           " each way are read",
                       "make it smaller");
    // Those of damaged files count, too: unpacking them takes as long.
    if (size->pixels() > most_pixels - pixels)
        return problem("is too much: 32 million pixels are read, of all images together", "make the images smaller");
    pixels += size->pixels();
    Result<Surface> read = read_png(file, most_pixels);
    if (!read) return read.problems();
    return keep(with_alpha(*std::move(read)));
}

ImageId Images::State::keep(Surface surface) {
    const std::lock_guard lock(mutex_);
    surfaces_.push_back(std::move(surface));
    return static_cast<ImageId>(surfaces_.size() - 1);
}

cairo_surface_t* Images::State::surface(ImageId image) const {
    const std::lock_guard lock(mutex_);
    return image < surfaces_.size() ? surfaces_[image].get() : nullptr;
}

Result<ImageId> Images::find(const std::string& name) {
    if (const auto known = state_->known.find(name); known != state_->known.end()) return known->second;
    const Result<fs::path> file = state_->file_of(name);
    if (!file) return state_->known.insert_or_assign(name, file.problems()).first->second;
    auto read = state_->files.find(file->string());
    if (read == state_->files.end()) read = state_->files.insert_or_assign(file->string(), state_->read(*file)).first;
    return state_->known.insert_or_assign(name, read->second).first->second;
}

Result<ImageId> Images::add(const std::string& name, int width, int height, std::span<const Color> pixels) {
    constexpr int most = largest_side;
    if (width < 1 || height < 1 || width > most || height > most)
        return problem("an image is 1 to 4096 pixels each way");
    if (pixels.size() != static_cast<std::size_t>(width) * static_cast<std::size_t>(height))
        return problem("an image of " + std::to_string(width) + " by " + std::to_string(height) + " pixels with " +
                       std::to_string(pixels.size()) + " of them");
    Surface made(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, width, height));
    auto pixel = pixels.begin();
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x, ++pixel) {
            const auto part = [&](std::uint8_t channel) {
                return static_cast<std::uint32_t>((channel * pixel->alpha + 127) / 255);
            };
            row_of(made.get(), y)[x] = std::uint32_t{pixel->alpha} << 24 | part(pixel->red) << 16 |
                                       part(pixel->green) << 8 | part(pixel->blue);
        }
    cairo_surface_mark_dirty(made.get());
    const ImageId id = state_->keep(std::move(made));
    state_->known.insert_or_assign(name, id);
    return id;
}

std::vector<std::uint8_t> Images::pixels(ImageId image) const {
    cairo_surface_t* const surface = state_->surface(image);
    if (surface == nullptr) return {};
    cairo_surface_flush(surface);
    const auto width = static_cast<std::size_t>(cairo_image_surface_get_width(surface));
    const auto height = static_cast<std::size_t>(cairo_image_surface_get_height(surface));
    const auto stride = static_cast<std::size_t>(cairo_image_surface_get_stride(surface));
    const unsigned char* const rows = cairo_image_surface_get_data(surface);
    std::vector<std::uint8_t> pixels;
    pixels.reserve(width * height * 4);
    for (std::size_t y = 0; y < height; ++y)
        for (std::size_t x = 0; x < width; ++x) {
            std::uint32_t pixel = 0;
            std::memcpy(&pixel, rows + y * stride + x * 4, sizeof pixel);
            for (const unsigned shift : {16U, 8U, 0U, 24U})
                pixels.push_back(static_cast<std::uint8_t>(pixel >> shift));
        }
    return pixels;
}

Size Images::size(ImageId image) const {
    cairo_surface_t* const surface = state_->surface(image);
    if (surface == nullptr) return {};
    return {static_cast<float>(cairo_image_surface_get_width(surface)),
            static_cast<float>(cairo_image_surface_get_height(surface))};
}

std::vector<float> Images::opacity(ImageId image, const Rect& part, bool of_columns) const {
    cairo_surface_t* const surface = state_->surface(image);
    if (surface == nullptr) return {};
    // Only what the image has; of a part that is no number, nothing.
    const auto inside = [](float from, float length, int whole) {
        const auto limited = [whole](float at) {
            return at > 0 ? static_cast<int>(std::min(at, static_cast<float>(whole))) : 0;
        };
        const int first = limited(from);
        return std::pair(first, std::max(0, limited(from + length) - first));
    };
    const auto [left, wide] = inside(part.x, part.width, cairo_image_surface_get_width(surface));
    const auto [top, high] = inside(part.y, part.height, cairo_image_surface_get_height(surface));
    const std::size_t looked_at = static_cast<std::size_t>(wide) * static_cast<std::size_t>(high);
    if (looked_at > most_summed - state_->summed || state_->slices > most_slices) return {};
    state_->summed += looked_at;
    state_->slices += static_cast<std::size_t>(of_columns ? wide : high);
    std::vector<std::uint64_t> sums(static_cast<std::size_t>(of_columns ? wide : high), 0);
    for (int y = 0; y < high; ++y) {
        const std::uint32_t* const row = row_of(surface, top + y) + left;
        if (of_columns) {
            for (int x = 0; x < wide; ++x)
                sums[static_cast<std::size_t>(x)] += row[x] >> 24;
        } else {
            std::uint64_t sum = 0;
            for (int x = 0; x < wide; ++x)
                sum += row[x] >> 24;
            sums[static_cast<std::size_t>(y)] = sum;
        }
    }
    std::vector<float> slices;
    const float whole = 255 * static_cast<float>(of_columns ? high : wide);
    for (const std::uint64_t sum : sums)
        slices.push_back(static_cast<float>(sum) / whole);
    return slices;
}

Surface between_grays(cairo_surface_t* map, float from, float to, float softness) {
    cairo_surface_flush(map);
    const int width = cairo_image_surface_get_width(map), height = cairo_image_surface_get_height(map);
    Surface made(cairo_image_surface_create(CAIRO_FORMAT_A8, width, height));
    std::array<std::uint8_t, 256> opacities{};
    for (std::size_t gray = 0; gray < opacities.size(); ++gray)
        opacities[gray] = static_cast<std::uint8_t>(
            std::lround(255 * map_opacity(static_cast<float>(gray) / 255, from, to, softness)));
    for (int y = 0; y < height; ++y) {
        const auto* const row = reinterpret_cast<const std::uint32_t*>(
            cairo_image_surface_get_data(map) + static_cast<std::ptrdiff_t>(y) * cairo_image_surface_get_stride(map));
        unsigned char* const out = cairo_image_surface_get_data(made.get()) +
                                   static_cast<std::ptrdiff_t>(y) * cairo_image_surface_get_stride(made.get());
        for (int x = 0; x < width; ++x) {
            const std::uint32_t argb = row[x];
            const std::uint32_t alpha = argb >> 24U;
            if (alpha == 0) {
                out[x] = 0;
                continue;
            }
            // Rec. 709 weights of the straight colors; a gray has three equal ones.
            const double red = (argb >> 16U) & 255U, green = (argb >> 8U) & 255U, blue = argb & 255U;
            const double gray = (0.2126 * red + 0.7152 * green + 0.0722 * blue) * 255 / alpha;
            const auto level = static_cast<std::size_t>(std::clamp(std::lround(gray), 0L, 255L));
            // Its own opacity is none of its gray: what is drawn has one of its own.
            out[x] = opacities[level];
        }
    }
    cairo_surface_mark_dirty(made.get());
    return made;
}

Surface recolored(cairo_surface_t* image, const Rect& part, Color color, Color tint, float tint_part) {
    const auto left = static_cast<int>(part.x), top = static_cast<int>(part.y);
    const auto wide = static_cast<int>(part.width), high = static_cast<int>(part.height);
    Surface made(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, wide, high));
    const auto mixed = [&](std::uint32_t channel, std::uint32_t alpha, std::uint8_t factor, std::uint8_t to) {
        const float own = static_cast<float>(channel * factor) / 255;
        const float other = static_cast<float>(to * alpha) / 255;
        return static_cast<std::uint32_t>(own + (other - own) * tint_part + 0.5F);
    };
    // A part of another image than it was meant for may lie outside: nothing is there.
    const int width = cairo_image_surface_get_width(image), height = cairo_image_surface_get_height(image);
    for (int y = std::max(0, -top); y < std::min(high, height - top); ++y) {
        const std::uint32_t* const from = row_of(image, top + y);
        std::uint32_t* const to = row_of(made.get(), y);
        for (int x = std::max(0, -left); x < std::min(wide, width - left); ++x) {
            const std::uint32_t argb = from[left + x], alpha = argb >> 24;
            to[x] = alpha << 24 | mixed((argb >> 16) & 255, alpha, color.red, tint.red) << 16 |
                    mixed((argb >> 8) & 255, alpha, color.green, tint.green) << 8 |
                    mixed(argb & 255, alpha, color.blue, tint.blue);
        }
    }
    cairo_surface_mark_dirty(made.get());
    return made;
}

}  // namespace rapido
