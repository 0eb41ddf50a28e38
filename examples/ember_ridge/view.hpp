// What the game shows of its world, drawn with SDL. It knows of no HUD either.
#pragma once

#include <SDL.h>

#include "ridge.hpp"

namespace ember_ridge {

/// A part of the window that follows one bomber.
class View {
 public:
    SDL_Rect area{};
    Place middle;       ///< of the world, in the middle of the area
    double zoom = 1.9;  ///< pixels of a metre

    void follow(const Bomber& bomber, double seconds);
    void draw(SDL_Renderer* renderer, const Ridge& ridge, double time) const;
    SDL_FPoint to_screen(const Place& place) const;

 private:
    void draw_sky(SDL_Renderer* renderer) const;
    void draw_ridges(SDL_Renderer* renderer) const;
    void draw_ground(SDL_Renderer* renderer) const;
    void draw_hamlet(SDL_Renderer* renderer, const Hamlet& hamlet) const;
    void draw_blaze(SDL_Renderer* renderer, const Blaze& blaze, double time) const;
    void draw_bomber(SDL_Renderer* renderer, const Bomber& bomber, double time) const;
    void column(SDL_Renderer* renderer, int x, double top, double bottom, SDL_Color color) const;
    bool is_started_ = false;

    friend struct Paint;
};

}  // namespace ember_ridge
