// What the game calls; in its own C++98.
#ifndef HUD_HPP
#define HUD_HPP

struct SDL_Renderer;

void hud_open(SDL_Renderer* renderer);
void hud_frame(double seconds);
void hud_points(float x, float y, int points);
void hud_say(const char* text);
void hud_close();

#endif
