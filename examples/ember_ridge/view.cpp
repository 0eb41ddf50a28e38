#include "view.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <initializer_list>
#include <vector>

namespace ember_ridge {
namespace {

SDL_Color mixed(SDL_Color a, SDL_Color b, double part) {
    const auto channel = [part](Uint8 from, Uint8 to) { return static_cast<Uint8>(from + (to - from) * part); };
    return {channel(a.r, b.r), channel(a.g, b.g), channel(a.b, b.b), channel(a.a, b.a)};
}

/// A polygon without inward corners, with a soft edge.
void fill(SDL_Renderer* renderer, std::initializer_list<SDL_FPoint> points, SDL_Color color) {
    const std::vector<SDL_FPoint> all(points);
    const std::size_t count = all.size();
    float area = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const SDL_FPoint a = all[i], b = all[(i + 1) % count];
        area += a.x * b.y - b.x * a.y;
    }
    const float side = area < 0 ? -1.0F : 1.0F;
    std::vector<SDL_Vertex> vertices;
    // Each corner, and one a pixel outside of it that is not seen.
    for (const float out : {-0.5F, 0.5F})
        for (std::size_t i = 0; i < count; ++i) {
            const SDL_FPoint before = all[(i + count - 1) % count], at = all[i], after = all[(i + 1) % count];
            const auto normal = [&](SDL_FPoint from, SDL_FPoint to) {
                const float length = std::max(1e-4F, std::hypot(to.x - from.x, to.y - from.y));
                return SDL_FPoint{side * (to.y - from.y) / length, side * (from.x - to.x) / length};
            };
            const SDL_FPoint first = normal(before, at), second = normal(at, after);
            const float share = std::max(0.35F, 1 + first.x * second.x + first.y * second.y);
            vertices.push_back({{at.x + out * (first.x + second.x) / share, at.y + out * (first.y + second.y) / share},
                                {color.r, color.g, color.b, out < 0 ? color.a : Uint8{0}},
                                {0, 0}});
        }
    std::vector<int> indices;
    const int corners = static_cast<int>(count);
    for (int i = 2; i < corners; ++i)
        indices.insert(indices.end(), {0, i - 1, i});
    for (int i = 0; i < corners; ++i) {
        const int next = (i + 1) % corners;
        indices.insert(indices.end(), {i, next, corners + i, corners + i, next, corners + next});
    }
    SDL_RenderGeometry(renderer, nullptr, vertices.data(), static_cast<int>(vertices.size()), indices.data(),
                       static_cast<int>(indices.size()));
}

/// A soft round light: opaque in the middle, gone at its edge.
void glow(SDL_Renderer* renderer, SDL_FPoint at, float radius, SDL_Color color) {
    constexpr int sides = 20;
    std::array<SDL_Vertex, sides + 1> vertices{};
    std::array<int, sides * 3> indices{};
    vertices[0] = {at, color, {0, 0}};
    for (int i = 0; i < sides; ++i) {
        const float angle = static_cast<float>(i) * 6.2832F / sides;
        vertices[static_cast<std::size_t>(i + 1)] = {
            {at.x + radius * std::cos(angle), at.y + radius * std::sin(angle)}, {color.r, color.g, color.b, 0}, {0, 0}};
        const auto first = static_cast<std::size_t>(i * 3);
        indices[first + 1] = i + 1;
        indices[first + 2] = (i + 1) % sides + 1;
    }
    SDL_RenderGeometry(renderer, nullptr, vertices.data(), sides + 1, indices.data(), sides * 3);
}

double noise(double x) {
    return std::sin(x) * 0.5 + std::sin(x * 2.7 + 1.1) * 0.3 + std::sin(x * 6.1 + 0.4) * 0.2;
}

}  // namespace

void View::follow(const Bomber& bomber, double seconds) {
    const double half = area.w / zoom / 2, high = area.h / zoom / 2;
    Place wanted{bomber.at.x + bomber.facing * half * 0.28, std::max(high * 0.72, bomber.at.y + high * 0.05)};
    wanted.x = std::clamp(wanted.x, half, Ridge::length - half);
    const double part = is_started_ ? 1 - std::exp(-3 * seconds) : 1;
    is_started_ = true;
    middle.x += (wanted.x - middle.x) * part;
    middle.y += (wanted.y - middle.y) * part;
}

SDL_FPoint View::to_screen(const Place& place) const {
    return {static_cast<float>(area.x + area.w / 2.0 + (place.x - middle.x) * zoom),
            static_cast<float>(area.y + area.h / 2.0 - (place.y - middle.y) * zoom)};
}

/// A column of pixels whose upper end is soft.
void View::column(SDL_Renderer* renderer, int x, double top, double bottom, SDL_Color color) const {
    const double from = std::max(top, static_cast<double>(area.y)),
                 to = std::min(bottom, static_cast<double>(area.y + area.h));
    if (from >= to) return;
    const int whole = static_cast<int>(std::ceil(from));
    SDL_SetRenderDrawColor(renderer, color.r, color.g, color.b, color.a);
    SDL_RenderDrawLine(renderer, x, whole, x, static_cast<int>(to));
    SDL_SetRenderDrawColor(renderer, color.r, color.g, color.b, static_cast<Uint8>(color.a * (whole - from)));
    SDL_RenderDrawPoint(renderer, x, whole - 1);
}

void View::draw_sky(SDL_Renderer* renderer) const {
    constexpr SDL_Color high{24, 32, 56, 255}, dusk{116, 74, 98, 255}, low{236, 150, 96, 255};
    const double horizon = static_cast<double>(to_screen({0, 60}).y);
    for (int y = area.y; y < area.y + area.h; ++y) {
        const double part = std::clamp((y - area.y) / std::max(1.0, horizon - area.y), 0.0, 1.0);
        const SDL_Color color = part < 0.55 ? mixed(high, dusk, part / 0.55) : mixed(dusk, low, (part - 0.55) / 0.45);
        SDL_SetRenderDrawColor(renderer, color.r, color.g, color.b, 255);
        SDL_RenderDrawLine(renderer, area.x, y, area.x + area.w - 1, y);
    }
    glow(renderer, {static_cast<float>(area.x + area.w * 0.68), static_cast<float>(horizon - 10)},
         static_cast<float>(area.h) * 0.45F, {255, 206, 140, 120});
}

void View::draw_ridges(SDL_Renderer* renderer) const {
    struct Layer {
        double near, base, rise, width;
        SDL_Color color;
    };
    constexpr std::array layers{Layer{0.15, 120, 70, 260, {104, 72, 92, 255}},
                                Layer{0.32, 74, 52, 180, {70, 54, 78, 255}},
                                Layer{0.6, 34, 30, 120, {42, 40, 58, 255}}};
    for (const Layer& layer : layers)
        for (int x = area.x; x < area.x + area.w; ++x) {
            const double across = (x - area.x - area.w / 2.0) / zoom + middle.x * layer.near + layer.base * 37;
            const double height = layer.base + layer.rise * noise(across / layer.width * 3.1);
            const double y = static_cast<double>(to_screen({0, height + middle.y * (1 - layer.near) * 0.35}).y);
            column(renderer, x, y, area.y + area.h, layer.color);
        }
}

void View::draw_ground(SDL_Renderer* renderer) const {
    for (int x = area.x; x < area.x + area.w; ++x) {
        const double at = (x - area.x - area.w / 2.0) / zoom + middle.x;
        const double top = static_cast<double>(to_screen({at, Ridge::ground(at)}).y);
        if (Ridge::is_lake(at)) {
            column(renderer, x, top, area.y + area.h, {34, 92, 112, 255});
            column(renderer, x, top, top + 3, {128, 190, 196, 255});
        } else {
            const bool is_field = at > Ridge::field_from && at < Ridge::field_to;
            // Trees: a ragged edge over the ground.
            const double trees =
                is_field || at < 20 ? 0 : 7 + 4 * std::abs(std::sin(at * 0.9)) + 3 * std::abs(std::sin(at * 0.37));
            column(renderer, x, top - trees * zoom * 0.6, area.y + area.h, {18, 26, 30, 255});
            if (is_field) column(renderer, x, top, top + 4, {120, 118, 110, 255});
        }
    }
}

void View::draw_hamlet(SDL_Renderer* renderer, const Hamlet& hamlet) const {
    for (int house = -2; house <= 2; ++house) {
        const Place base{hamlet.at.x + house * 17, Ridge::ground(hamlet.at.x + house * 17) + 2};
        const SDL_FPoint at = to_screen(base);
        const float wide = static_cast<float>(12 * zoom), high = static_cast<float>((8 + 3 * (house % 2)) * zoom);
        const SDL_Color wall = hamlet.is_lost ? SDL_Color{30, 24, 24, 255} : SDL_Color{92, 78, 74, 255};
        fill(renderer,
             {{at.x - wide / 2, at.y - high},
              {at.x + wide / 2, at.y - high},
              {at.x + wide / 2, at.y},
              {at.x - wide / 2, at.y}},
             wall);
        fill(renderer,
             {{at.x - wide * 0.62F, at.y - high}, {at.x, at.y - high * 1.75F}, {at.x + wide * 0.62F, at.y - high}},
             hamlet.is_lost ? SDL_Color{20, 18, 18, 255} : SDL_Color{136, 66, 52, 255});
        if (hamlet.is_lost || hamlet.is_empty) continue;
        fill(renderer,
             {{at.x - wide * 0.15F, at.y - high * 0.72F},
              {at.x + wide * 0.15F, at.y - high * 0.72F},
              {at.x + wide * 0.15F, at.y - high * 0.3F},
              {at.x - wide * 0.15F, at.y - high * 0.3F}},
             {255, 214, 130, 255});
    }
}

void View::draw_blaze(SDL_Renderer* renderer, const Blaze& blaze, double time) const {
    const float size = static_cast<float>((8 + blaze.heat * 0.24) * zoom);
    const SDL_FPoint at = to_screen(blaze.at);
    for (int puff = 5; puff >= 1; --puff) {
        const double rise = std::fmod(time * 0.16 + puff * 0.2 + blaze.number * 0.37, 1.0);
        glow(renderer,
             {at.x + static_cast<float>(rise * 30 * zoom + 5 * std::sin(puff * 2.0 + time)),
              at.y - static_cast<float>(rise * 90 * zoom) - size},
             size * static_cast<float>(0.6 + rise * 1.3), {40, 36, 44, static_cast<Uint8>(70 * (1 - rise))});
    }
    glow(renderer, {at.x, at.y - size * 0.4F}, size * 2.1F, {255, 110, 40, 130});
    for (int flame = -2; flame <= 2; ++flame) {
        const double beat = std::sin(time * 9 + flame * 1.7 + blaze.number) * 0.5 + 0.5;
        const float tall =
            size * static_cast<float>(0.7 + 0.5 * beat) * (1 - 0.2F * static_cast<float>(std::abs(flame)));
        const float x = at.x + static_cast<float>(flame) * size * 0.28F, lean = size * 0.12F * static_cast<float>(beat);
        fill(renderer, {{x - size * 0.2F, at.y}, {x + lean, at.y - tall}, {x + size * 0.2F, at.y}},
             {255, 122, 60, 235});
        fill(renderer, {{x - size * 0.1F, at.y}, {x + lean / 2, at.y - tall * 0.6F}, {x + size * 0.1F, at.y}},
             {255, 210, 110, 240});
    }
}

void View::draw_bomber(SDL_Renderer* renderer, const Bomber& bomber, double time) const {
    const SDL_FPoint at = to_screen(bomber.at);
    const float z = static_cast<float>(zoom) * 1.35F, way = static_cast<float>(bomber.facing);
    const float tilt = static_cast<float>(-bomber.climb / 110) * (way < 0 ? -1.0F : 1.0F) +
                       (bomber.shaken < 0.4 ? 0.12F * static_cast<float>(std::sin(time * 60)) : 0);
    const float c = std::cos(tilt), s = std::sin(tilt);
    const auto point = [&](float x, float y) {
        const float across = x * way * z, down = -y * z;
        return SDL_FPoint{at.x + across * c - down * s, at.y + across * s + down * c};
    };
    constexpr SDL_Color body{242, 239, 230, 255}, belly{255, 122, 60, 255}, dark{30, 38, 46, 255};
    fill(renderer, {point(-15, 2), point(-18, 9), point(-13, 9), point(-9, 3)}, belly);
    fill(renderer,
         {point(-16, 1), point(-15, 3.4F), point(8, 4), point(13, 2.4F), point(14, 0.4F), point(10, -2), point(-8, -2)},
         body);
    fill(renderer, {point(-8, -2), point(10, -2), point(13, -0.6F), point(-13, 0)}, belly);
    fill(renderer, {point(6, 4), point(9.5F, 3.6F), point(11.5F, 2.2F), point(6, 2.2F)}, dark);
    fill(renderer, {point(-6, 5.4F), point(5, 5.4F), point(6, 4), point(-7, 4)}, body);
    const float blade = 4.5F * static_cast<float>(std::abs(std::sin(time * 40)));
    fill(renderer,
         {point(14.2F, 0.6F - blade), point(15, 0.6F - blade), point(15, 0.6F + blade), point(14.2F, 0.6F + blade)},
         {242, 239, 230, 120});
    if (!bomber.scoops) return;
    for (int i = 0; i < 7; ++i)
        glow(renderer, point(static_cast<float>(-4 - 4 * i), -4 + 2 * static_cast<float>(std::sin(time * 20 + i))),
             5 * z, {200, 230, 236, 90});
}

void View::draw(SDL_Renderer* renderer, const Ridge& ridge, double time) const {
    SDL_RenderSetClipRect(renderer, &area);
    SDL_SetRenderDrawBlendMode(renderer, SDL_BLENDMODE_BLEND);
    draw_sky(renderer);
    draw_ridges(renderer);
    for (const Hamlet& hamlet : ridge.hamlets)
        draw_hamlet(renderer, hamlet);
    draw_ground(renderer);
    for (const Blaze& blaze : ridge.blazes)
        draw_blaze(renderer, blaze, time);
    for (const Splash& splash : ridge.splashes)
        glow(renderer, to_screen(splash.at), static_cast<float>(3.2 * zoom), {150, 216, 228, 150});
    for (const Bomber& bomber : ridge.bombers)
        draw_bomber(renderer, bomber, time);
    SDL_RenderSetClipRect(renderer, nullptr);
}

}  // namespace ember_ridge
