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
    // An overcast noon: gray above, and nearly white where the sea begins.
    constexpr SDL_Color high{176, 186, 194, 255}, middle_gray{204, 210, 212, 255}, low{236, 237, 232, 255};
    const double horizon = static_cast<double>(to_screen({0, 60}).y);
    for (int y = area.y; y < area.y + area.h; ++y) {
        const double part = std::clamp((y - area.y) / std::max(1.0, horizon - area.y), 0.0, 1.0);
        const SDL_Color color =
            part < 0.55 ? mixed(high, middle_gray, part / 0.55) : mixed(middle_gray, low, (part - 0.55) / 0.45);
        SDL_SetRenderDrawColor(renderer, color.r, color.g, color.b, 255);
        SDL_RenderDrawLine(renderer, area.x, y, area.x + area.w - 1, y);
    }
    // Banks of cloud, which pass by slowly.
    for (int bank = 0; bank < 8; ++bank) {
        const double across = std::fmod(bank * 0.3819 + 1 - middle.x * 0.00004 * (1 + bank % 3), 1.0);
        const auto radius = static_cast<float>(area.h * (0.16 + 0.05 * (bank % 4)));
        const Uint8 light = bank % 2 == 0 ? 250 : 168;
        for (int part = -1; part <= 1; ++part)
            glow(renderer,
                 {static_cast<float>(area.x + (across * 1.4 - 0.2) * area.w) + static_cast<float>(part) * radius * 0.8F,
                  static_cast<float>(area.y + (horizon - area.y) * (0.06 + 0.095 * bank))},
                 radius, {light, light, light, 26});
    }
}

/// Terraces of limestone, the farther the paler, each with a line of scrub along its edge.
void View::draw_ridges(SDL_Renderer* renderer) const {
    struct Layer {
        double near, base, rise, width;
        SDL_Color stone, scrub;
    };
    constexpr std::array layers{Layer{0.15, 104, 84, 330, {216, 218, 212, 255}, {176, 188, 172, 255}},
                                Layer{0.32, 58, 66, 240, {222, 216, 200, 255}, {136, 150, 116, 255}},
                                Layer{0.6, 22, 40, 150, {206, 197, 176, 255}, {106, 120, 80, 255}}};
    for (const Layer& layer : layers)
        for (int x = area.x; x < area.x + area.w; ++x) {
            const double across = (x - area.x - area.w / 2.0) / zoom + middle.x * layer.near + layer.base * 37;
            // Steps of equal height, with a slope between them.
            const double steps = 2.2 * (1 + noise(across / layer.width * 3.1)), whole = std::floor(steps);
            const double height =
                layer.base + layer.rise * 0.5 * (whole + std::clamp((steps - whole - 0.97) / 0.03, 0.0, 1.0));
            const double y = static_cast<double>(to_screen({0, height + middle.y * (1 - layer.near) * 0.35}).y);
            const double bushes =
                (2.2 + 1.4 * std::sin(across * 0.7) + std::sin(across * 1.9)) * zoom * (0.3 + layer.near);
            column(renderer, x, y - bushes, y + 3 * zoom * layer.near, layer.scrub);
            column(renderer, x, y + 3 * zoom * layer.near, area.y + area.h, layer.stone);
            // Layers of the stone.
            for (int line = 1; line <= 2 && layer.near > 0.2; ++line)
                column(renderer, x, y + (5 + line * 9 + noise(across * 0.05 + line)) * zoom * layer.near,
                       y + (6 + line * 9 + noise(across * 0.05 + line)) * zoom * layer.near,
                       mixed(layer.stone, {120, 112, 98, 255}, 0.35 * layer.near + 0.05));
        }
}

void View::draw_ground(SDL_Renderer* renderer) const {
    for (int x = area.x; x < area.x + area.w; ++x) {
        const double at = (x - area.x - area.w / 2.0) / zoom + middle.x;
        const double top = static_cast<double>(to_screen({at, Ridge::ground(at)}).y);
        if (Ridge::is_lake(at)) {
            column(renderer, x, top, area.y + area.h, {44, 138, 122, 255});
            column(renderer, x, top, top + 3, {186, 226, 208, 255});
        } else {
            const bool is_field = at > Ridge::field_from && at < Ridge::field_to;
            // Scrub: a round edge over the stone.
            const double bushes =
                is_field || at < 20 ? 0 : 4 + 2.5 * std::abs(std::sin(at * 0.41)) + 2 * std::abs(std::sin(at * 0.17));
            column(renderer, x, top - bushes * zoom * 0.6, top + 3, {92, 106, 64, 255});
            column(renderer, x, top + 2, area.y + area.h, {176, 166, 144, 255});
            column(renderer, x, top + 14 * zoom + 6 * noise(at * 0.04), area.y + area.h, {148, 138, 118, 255});
            if (is_field) column(renderer, x, top, top + 4, {92, 92, 88, 255});
        }
    }
}

void View::draw_hamlet(SDL_Renderer* renderer, const Hamlet& hamlet) const {
    for (int house = -2; house <= 2; ++house) {
        const Place base{hamlet.at.x + house * 17, Ridge::ground(hamlet.at.x + house * 17) + 2};
        const SDL_FPoint at = to_screen(base);
        const float wide = static_cast<float>(12 * zoom), high = static_cast<float>((8 + 3 * (house % 2)) * zoom);
        const SDL_Color wall = hamlet.is_lost ? SDL_Color{74, 68, 62, 255} : SDL_Color{240, 236, 224, 255};
        fill(renderer,
             {{at.x - wide / 2, at.y - high},
              {at.x + wide / 2, at.y - high},
              {at.x + wide / 2, at.y},
              {at.x - wide / 2, at.y}},
             wall);
        fill(renderer,
             {{at.x - wide * 0.58F, at.y - high * 1.18F},
              {at.x + wide * 0.58F, at.y - high * 1.18F},
              {at.x + wide * 0.58F, at.y - high},
              {at.x - wide * 0.58F, at.y - high}},
             hamlet.is_lost ? SDL_Color{52, 46, 42, 255} : SDL_Color{186, 116, 84, 255});
        if (hamlet.is_lost || hamlet.is_empty) continue;
        fill(renderer,
             {{at.x - wide * 0.15F, at.y - high * 0.72F},
              {at.x + wide * 0.15F, at.y - high * 0.72F},
              {at.x + wide * 0.15F, at.y - high * 0.3F},
              {at.x - wide * 0.15F, at.y - high * 0.3F}},
             {66, 92, 98, 255});
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
             size * static_cast<float>(0.6 + rise * 1.3), {92, 84, 74, static_cast<Uint8>(120 * (1 - rise))});
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
    constexpr SDL_Color body{248, 248, 244, 255}, belly{16, 134, 138, 255}, dark{40, 52, 58, 255};
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
             5 * z, {244, 252, 252, 120});
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
        glow(renderer, to_screen(splash.at), static_cast<float>(3.2 * zoom), {228, 246, 250, 190});
    for (const Bomber& bomber : ridge.bombers)
        draw_bomber(renderer, bomber, time);
    SDL_RenderSetClipRect(renderer, nullptr);
}

}  // namespace ember_ridge
