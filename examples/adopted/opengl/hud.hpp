// What the game calls; in its own C++98.
#ifndef HUD_HPP
#define HUD_HPP

void hud_open();
void hud_frame(int width, int height);
void hud_say(const char* text);
void hud_close();

#endif
