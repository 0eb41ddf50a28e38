// A game as many are: C++98, globals, a linked list. It knows nothing of Rapido.
#ifndef GAME_HPP
#define GAME_HPP

struct Fire {
    float x, y;  // of the valley, pixels
    int heat;    // 100 to 0
    Fire* next;
};

struct Plane {
    float x, y;
    double water;  // liters
    double speed;  // meters a second
};

extern Plane plane;
extern Fire* fires;
extern int score;
extern bool paused;
extern float view_x;  // the left edge of what is seen of the valley

#endif
