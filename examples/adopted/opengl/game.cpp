// Fire crews who dig a line across a hill, drawn with the fixed functions of OpenGL by a program in C++98. The lines between HAS_HUD are what
// the HUD adds to it.
//
//     adopted_opengl [FRAMES PICTURE]      a window; or so many frames, and a picture (BMP) of the last
#include "game.hpp"

#include <SDL.h>
#include <SDL_opengl.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <cstring>

#ifdef HAS_HUD
#include "hud.hpp"
#endif

static const int width = 960, height = 540;

Game::Game() : seconds_left_(90), turn_(0), worked_(0), meters_(0) {
    crews_.push_back(new Crew("Otter", -3, 1));
    crews_.push_back(new Crew("Heron", 0, -2));
    crews_.push_back(new Crew("Badger", 3, 1.5f));
}
Game::~Game() {
    for (std::size_t i = 0; i < crews_.size(); ++i)
        delete crews_[i];
}
Game& Game::instance() {
    static Game game;
    return game;
}

// A crew that can do no more goes home, and is gone at once.
void Game::step(double seconds) {
    seconds_left_ = seconds_left_ > seconds ? seconds_left_ - seconds : 0;
    turn_ += seconds * 9;
    worked_ += seconds;
    if (worked_ < 0.5) return;
    worked_ = 0;
    for (std::size_t i = 0; i < crews_.size(); ++i) {
        crews_[i]->work(5 + 6 * (int)i);
        meters_ += 4;
        if (crews_[i]->stamina() > 0) continue;
        delete crews_[i];
        crews_.erase(crews_.begin() + (std::ptrdiff_t)i--);
#ifdef HAS_HUD
        hud_say("A crew goes home");
#endif
    }
}

// The functions of OpenGL, as games find them.
#define GL(name, result, arguments) static result(APIENTRY* name##_) arguments
GL(glClear, void, (GLbitfield));
GL(glClearColor, void, (GLclampf, GLclampf, GLclampf, GLclampf));
GL(glMatrixMode, void, (GLenum));
GL(glLoadIdentity, void, (void));
GL(glFrustum, void, (GLdouble, GLdouble, GLdouble, GLdouble, GLdouble, GLdouble));
GL(glTranslatef, void, (GLfloat, GLfloat, GLfloat));
GL(glRotatef, void, (GLfloat, GLfloat, GLfloat, GLfloat));
GL(glBegin, void, (GLenum));
GL(glEnd, void, (void));
GL(glColor3f, void, (GLfloat, GLfloat, GLfloat));
GL(glVertex3f, void, (GLfloat, GLfloat, GLfloat));
GL(glEnable, void, (GLenum));
GL(glReadPixels, void, (GLint, GLint, GLsizei, GLsizei, GLenum, GLenum, void*));

template <class Function>
static void load(Function& function, const char* name) {
    void* const found = SDL_GL_GetProcAddress(name);
    std::memcpy(&function, &found, sizeof found);
}

static void box(float x, float z, float half, float high) {
    const float corners[8][3] = {{x - half, 0, z - half},    {x + half, 0, z - half},    {x + half, 0, z + half},
                                 {x - half, 0, z + half},    {x - half, high, z - half}, {x + half, high, z - half},
                                 {x + half, high, z + half}, {x - half, high, z + half}};
    const int faces[5][4] = {{0, 1, 5, 4}, {1, 2, 6, 5}, {2, 3, 7, 6}, {3, 0, 4, 7}, {4, 5, 6, 7}};
    glBegin_(GL_QUADS);
    for (int face = 0; face < 5; ++face) {
        const float light = 0.5f + 0.1f * (float)face;
        glColor3f_(0.85f * light, 0.45f * light, 0.24f * light);
        for (int corner = 0; corner < 4; ++corner) {
            const float* const at = corners[faces[face][corner]];
            glVertex3f_(at[0], at[1], at[2]);
        }
    }
    glEnd_();
}

static void draw(const Game& game) {
    glClearColor_(0.17f, 0.23f, 0.29f, 1);
    glClear_(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
    glEnable_(GL_DEPTH_TEST);
    glMatrixMode_(GL_PROJECTION);
    glLoadIdentity_();
    glFrustum_(-0.8, 0.8, -0.45, 0.45, 1, 100);
    glMatrixMode_(GL_MODELVIEW);
    glLoadIdentity_();
    glTranslatef_(0, -0.6f, -12);
    glRotatef_(24, 1, 0, 0);
    glRotatef_((float)game.turn(), 0, 1, 0);
    glBegin_(GL_QUADS);
    glColor3f_(0.2f, 0.29f, 0.24f);
    glVertex3f_(-7, 0, -7);
    glVertex3f_(7, 0, -7);
    glColor3f_(0.26f, 0.38f, 0.3f);
    glVertex3f_(7, 0, 7);
    glVertex3f_(-7, 0, 7);
    glEnd_();
    for (std::size_t i = 0; i < game.crews().size(); ++i)
        box(game.crews()[i]->x(), game.crews()[i]->z(), 0.35f, 1.2f);
}

static bool save(const char* path) {
    SDL_Surface* const shot = SDL_CreateRGBSurfaceWithFormat(0, width, height, 32, SDL_PIXELFORMAT_RGBA32);
    std::vector<char> rows((std::size_t)width * height * 4);
    glReadPixels_(0, 0, width, height, GL_RGBA, GL_UNSIGNED_BYTE, &rows[0]);
    for (int y = 0; y < height; ++y)  // the first row is the lowest
        std::memcpy((char*)shot->pixels + y * shot->pitch, &rows[(std::size_t)(height - 1 - y) * width * 4], width * 4);
    return SDL_SaveBMP(shot, path) == 0;
}

int main(int count, char** arguments) {
    const int frames = count > 2 ? std::atoi(arguments[1]) : 0;
    SDL_Window* window = 0;
    if (SDL_Init(SDL_INIT_VIDEO) == 0)
        window = SDL_CreateWindow("Fire line", SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED, width, height,
                                  SDL_WINDOW_OPENGL);
    if (window == 0 || SDL_GL_CreateContext(window) == 0) {
        std::fprintf(stderr, "%s\n", SDL_GetError());
        return 1;
    }
#define LOAD(name) load(name##_, #name)
    LOAD(glClear), LOAD(glClearColor), LOAD(glMatrixMode), LOAD(glLoadIdentity), LOAD(glFrustum), LOAD(glTranslatef);
    LOAD(glRotatef), LOAD(glBegin), LOAD(glEnd), LOAD(glColor3f), LOAD(glVertex3f), LOAD(glEnable), LOAD(glReadPixels);
#ifdef HAS_HUD
    hud_open();
#endif
    bool quits = false;
    for (int frame = 0; !quits && (frames == 0 || frame < frames); ++frame) {
        SDL_Event event;
        while (SDL_PollEvent(&event) != 0)
            quits = quits || event.type == SDL_QUIT;
        Game::instance().step(1 / 60.0);
        draw(Game::instance());
#ifdef HAS_HUD
        hud_frame(width, height);
#endif
        if (frames > 0 && frame == frames - 1 && !save(arguments[2])) return 1;
        SDL_GL_SwapWindow(window);
    }
#ifdef HAS_HUD
    hud_close();
#endif
    std::printf("%d m of line\n", Game::instance().meters_of_line());
    SDL_Quit();
    return 0;
}
