// Draws HUDs with the renderer of SDL 2, from version 2.0.18 on. Only this header needs SDL; the game brings it.
#pragma once

#include <SDL.h>

#include <algorithm>
#include <array>
#include <cstdint>
#include <cstdlib>
#include <span>
#include <string>
#include <unordered_map>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/layout/place.hpp"
#include "rapido/mesh.hpp"
#include "rapido/time/clock.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Draws display lists on an `SDL_Renderer`, over what is there:
///
///     rapido::SdlDrawer drawer(renderer, fonts, &images);
///     hud.draw(list);
///     Status drawn = drawer.draw(list);
///     SDL_RenderPresent(renderer);
///
/// The HUD must have been resized to the size of the output in pixels, `SDL_GetRendererOutputSize`. Clip rectangle, viewport, scale and
/// logical size are as before when it has drawn. Any number of lists may be drawn in a frame; each keeps its triangles as long as it
/// lives at the same address. Where the renderer cannot blend colors that are multiplied by their alpha (that of SDL's software), light that is
/// added covers a little.
class SdlDrawer {
 public:
    /// The renderer, the fonts and the images must outlive it. Textures are lost with the renderer's device: then `reset`.
    SdlDrawer(SDL_Renderer* renderer, const Fonts& fonts, const ImageFinder* images = nullptr)
        : renderer_(renderer),
          atlas_(fonts, images),
          premultiplied_(SDL_ComposeCustomBlendMode(SDL_BLENDFACTOR_ONE, SDL_BLENDFACTOR_ONE_MINUS_SRC_ALPHA,
                                                    SDL_BLENDOPERATION_ADD, SDL_BLENDFACTOR_ONE,
                                                    SDL_BLENDFACTOR_ONE_MINUS_SRC_ALPHA, SDL_BLENDOPERATION_ADD)) {}
    /// The same with the fonts and the images of a `GameHud`.
    template <class Game>
    requires requires(Game& game) { game.fonts(), game.images(); }
    SdlDrawer(SDL_Renderer* renderer, Game& game) : SdlDrawer(renderer, game.fonts(), &game.images()) {}
    ~SdlDrawer() { reset(); }
    SdlDrawer(const SdlDrawer&) = delete;
    SdlDrawer& operator=(const SdlDrawer&) = delete;

    /// One frame of a `GameHud`, over what the renderer shows: fits it into the output, advances and draws it. What goes wrong it tells.
    template <class Game>
    void frame(Game& game, const Step& step) {
        show(game, game.frame(viewport(), step));
    }
    /// The same by the clock of the HUD.
    template <class Game>
    void frame(Game& game) {
        show(game, game.frame(viewport()));
    }
    /// The output of the renderer, in pixels.
    Viewport viewport() const {
        int width = 0, height = 0;
        SDL_GetRendererOutputSize(renderer_, &width, &height);
        return {.size = {static_cast<float>(width), static_cast<float>(height)}};
    }

    /// A problem where a texture or the drawing failed, with the words of SDL.
    Status draw(const DisplayList& list) {
        Mesh& mesh = meshes_.try_emplace(&list, atlas_).first->second;
        mesh.draw(list);
        if (!upload()) return problem("cannot make a texture");
        SDL_Rect viewport, clip;
        float scale_x = 1, scale_y = 1;
        int width = 0, height = 0;
        SDL_Color color{};
        SDL_BlendMode blend = SDL_BLENDMODE_NONE;
        SDL_GetRenderDrawColor(renderer_, &color.r, &color.g, &color.b, &color.a);
        SDL_GetRenderDrawBlendMode(renderer_, &blend);
        SDL_RenderGetViewport(renderer_, &viewport);
        SDL_RenderGetClipRect(renderer_, &clip);
        const bool was_clipped = SDL_RenderIsClipEnabled(renderer_) == SDL_TRUE;
        SDL_RenderGetScale(renderer_, &scale_x, &scale_y);
        SDL_RenderGetLogicalSize(renderer_, &width, &height);
        if (width != 0) SDL_RenderSetLogicalSize(renderer_, 0, 0);
        SDL_RenderSetScale(renderer_, 1, 1);
        SDL_RenderSetViewport(renderer_, nullptr);
        SDL_RenderSetClipRect(renderer_, nullptr);
        const bool drawn = draw(mesh);
        if (width != 0) SDL_RenderSetLogicalSize(renderer_, width, height);
        SDL_RenderSetScale(renderer_, scale_x, scale_y);
        SDL_RenderSetViewport(renderer_, &viewport);
        SDL_RenderSetClipRect(renderer_, was_clipped ? &clip : nullptr);
        SDL_SetRenderDrawColor(renderer_, color.r, color.g, color.b, color.a);
        SDL_SetRenderDrawBlendMode(renderer_, blend);
        if (!drawn) return problem("cannot draw");
        return mesh.status();
    }

    /// Forgets a list that is gone.
    void forget(const DisplayList& list) { meshes_.erase(&list); }

    /// Makes all textures anew when something is drawn next: after SDL_RENDER_DEVICE_RESET, and SDL_RENDER_TARGETS_RESET of a renderer that
    /// loses them.
    void reset() {
        for (Texture& texture : textures_)
            if (texture.handle != nullptr) SDL_DestroyTexture(texture.handle);
        textures_.clear();
    }

    const MeshAtlas& atlas() const { return atlas_; }

 private:
    struct Texture {
        SDL_Texture* handle = nullptr;
        int width = 0, height = 0;
    };

    template <class Game>
    void show(Game& game, const DisplayList& list) {
        if (const Status drawn = draw(list); !drawn) game.tell(drawn.problem());
    }

    static Status problem(const char* what) {
        return Problem{{}, std::string(what) + ": " + SDL_GetError(), "", ProblemCode::unwritable};
    }

    bool upload() {
        textures_.resize((std::max)(textures_.size(), atlas_.page_count()));
        for (std::size_t i = 0; i < atlas_.page_count(); ++i) {
            const MeshAtlas::Page page = atlas_.page(i);
            PixelRect changed = atlas_.take_changed(i);
            Texture& texture = textures_[i];
            if (texture.handle != nullptr && (texture.width != page.width || texture.height != page.height)) {
                SDL_DestroyTexture(texture.handle);
                texture = {};
            }
            if (page.width == 0) continue;
            if (texture.handle == nullptr) {
                texture = {SDL_CreateTexture(renderer_, SDL_PIXELFORMAT_RGBA32, SDL_TEXTUREACCESS_STATIC, page.width,
                                             page.height),
                           page.width, page.height};
                if (texture.handle == nullptr) return false;
                SDL_SetTextureScaleMode(texture.handle, SDL_ScaleModeLinear);
                blends_ = SDL_SetTextureBlendMode(texture.handle, premultiplied_) == 0;
                if (!blends_) SDL_SetTextureBlendMode(texture.handle, SDL_BLENDMODE_BLEND);
                changed = {0, 0, page.width, page.height};
            }
            if (changed.is_empty()) continue;
            const SDL_Rect rect{changed.x, changed.y, changed.width, changed.height};
            const std::uint8_t* const first =
                page.pixels.data() + (static_cast<std::size_t>(changed.y) * static_cast<std::size_t>(page.width) +
                                      static_cast<std::size_t>(changed.x)) *
                                         4;
            if (blends_) {
                if (SDL_UpdateTexture(texture.handle, &rect, first, page.width * 4) != 0) return false;
                continue;
            }
            straight_.resize(static_cast<std::size_t>(rect.w) * static_cast<std::size_t>(rect.h) * 4);
            for (int y = 0; y < rect.h; ++y)
                for (int x = 0; x < rect.w; ++x)
                    put_straight(first + (static_cast<std::size_t>(y) * static_cast<std::size_t>(page.width) +
                                          static_cast<std::size_t>(x)) *
                                             4,
                                 straight_.data() + (static_cast<std::size_t>(y) * static_cast<std::size_t>(rect.w) +
                                                     static_cast<std::size_t>(x)) *
                                                        4);
            if (SDL_UpdateTexture(texture.handle, &rect, straight_.data(), rect.w * 4) != 0) return false;
        }
        return true;
    }

    /// Without the alpha in its colors. Light that is added gets as much alpha as it has.
    static void put_straight(const std::uint8_t* from, std::uint8_t* to) {
        const int alpha = (std::max)({from[0], from[1], from[2], from[3]});
        for (int i = 0; i < 3; ++i)
            to[i] = static_cast<std::uint8_t>(alpha > 0 ? (from[i] * 255 + alpha / 2) / alpha : 255);
        to[3] = static_cast<std::uint8_t>(alpha);
    }

    bool draw(const Mesh& mesh) {
        const std::span<const MeshVertex> vertices = mesh.vertices();
        for (const MeshBatch& batch : mesh.batches())
            if (!(blends_ ? draw(batch, vertices, mesh.indices()) : draw_straight(batch, vertices))) return false;
        return true;
    }

    bool draw(const MeshBatch& batch, std::span<const MeshVertex> vertices, std::span<const std::uint32_t> indices) {
        constexpr int stride = sizeof(MeshVertex);
        static_assert(sizeof(SDL_Color) == sizeof vertices[0].color);
        return SDL_RenderGeometryRaw(renderer_, textures_[batch.page].handle, &vertices[0].at.x, stride,
                                     reinterpret_cast<const SDL_Color*>(vertices[0].color.data()), stride,
                                     &vertices[0].texture.x, stride, static_cast<int>(vertices.size()),
                                     indices.data() + batch.first_index, static_cast<int>(batch.index_count),
                                     sizeof(std::uint32_t)) == 0;
    }

    /// SDL's own rasterizer is exact for rectangles alone: what is one in one color is copied or filled.
    bool draw_straight(const MeshBatch& batch, std::span<const MeshVertex> vertices) {
        const Texture& texture = textures_[batch.page];
        for (std::uint32_t quad = batch.first_index / 6; quad < (batch.first_index + batch.index_count) / 6; ++quad) {
            const MeshVertex* const corner = vertices.data() + std::size_t{quad} * 4;
            SDL_Color tone;
            put_straight(corner[0].color.data(), &tone.r);
            const Rect at{corner[0].at.x, corner[0].at.y, corner[3].at.x - corner[0].at.x,
                          corner[3].at.y - corner[0].at.y};
            const Rect from{corner[0].texture.x * static_cast<float>(texture.width),
                            corner[0].texture.y * static_cast<float>(texture.height),
                            (corner[3].texture.x - corner[0].texture.x) * static_cast<float>(texture.width),
                            (corner[3].texture.y - corner[0].texture.y) * static_cast<float>(texture.height)};
            const bool is_even = corner[0].color == corner[1].color && corner[0].color == corner[2].color &&
                                 corner[0].color == corner[3].color && corner[1].at.y == at.y &&
                                 corner[2].at.x == at.x && is_whole(at.x) && is_whole(at.y) && is_whole(at.width) &&
                                 is_whole(at.height);
            const SDL_Rect to{static_cast<int>(at.x), static_cast<int>(at.y), static_cast<int>(at.width),
                              static_cast<int>(at.height)};
            bool drawn = true;
            if (is_even && from.width == 0) {
                SDL_SetRenderDrawBlendMode(renderer_, SDL_BLENDMODE_BLEND);
                SDL_SetRenderDrawColor(renderer_, tone.r, tone.g, tone.b, tone.a);
                drawn = SDL_RenderFillRect(renderer_, &to) == 0;
            } else if (is_even) {
                const SDL_Rect part{nearest((std::min)(from.x, from.right())),
                                    nearest((std::min)(from.y, from.bottom())), std::abs(nearest(from.width)),
                                    std::abs(nearest(from.height))};
                const int flip = (from.width < 0 ? SDL_FLIP_HORIZONTAL : 0) | (from.height < 0 ? SDL_FLIP_VERTICAL : 0);
                SDL_SetTextureColorMod(texture.handle, tone.r, tone.g, tone.b);
                SDL_SetTextureAlphaMod(texture.handle, tone.a);
                drawn = SDL_RenderCopyEx(renderer_, texture.handle, &part, &to, 0, nullptr,
                                         static_cast<SDL_RendererFlip>(flip)) == 0;
                SDL_SetTextureColorMod(texture.handle, 255, 255, 255);
                SDL_SetTextureAlphaMod(texture.handle, 255);
            } else {
                std::array<SDL_Vertex, 4> four{};
                for (std::size_t i = 0; i < 4; ++i) {
                    four[i].position = {corner[i].at.x, corner[i].at.y};
                    four[i].tex_coord = {corner[i].texture.x, corner[i].texture.y};
                    put_straight(corner[i].color.data(), &four[i].color.r);
                }
                constexpr std::array<int, 6> order{0, 1, 2, 2, 1, 3};
                drawn = SDL_RenderGeometry(renderer_, texture.handle, four.data(), 4, order.data(), 6) == 0;
            }
            if (!drawn) return false;
        }
        return true;
    }
    static int nearest(float number) { return static_cast<int>(number < 0 ? number - 0.5F : number + 0.5F); }
    static bool is_whole(float number) { return number - static_cast<float>(nearest(number)) == 0; }

    SDL_Renderer* renderer_;
    MeshAtlas atlas_;
    SDL_BlendMode premultiplied_;
    bool blends_ = true;  ///< as the atlas is
    std::vector<Texture> textures_;
    std::unordered_map<const DisplayList*, Mesh> meshes_;
    std::vector<std::uint8_t> straight_;
};

}  // namespace rapido
