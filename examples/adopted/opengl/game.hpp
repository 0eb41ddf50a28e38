// A game as many are: C++98, a vector of pointers, a camera in the matrices of OpenGL. It knows nothing of Rapido.
#ifndef GAME_HPP
#define GAME_HPP

#include <string>
#include <vector>

class Crew {
 public:
    Crew(const std::string& name, float x, float z) : name_(name), x_(x), z_(z), stamina_(100) {}
    const std::string& name() const { return name_; }
    float x() const { return x_; }
    float z() const { return z_; }
    int stamina() const { return stamina_; }
    void work(int effort) { stamina_ = stamina_ > effort ? stamina_ - effort : 0; }

 private:
    std::string name_;
    float x_, z_;
    int stamina_;
};

class Game {
 public:
    Game();
    ~Game();
    static Game& instance();
    void step(double seconds);
    const std::vector<Crew*>& crews() const { return crews_; }
    double seconds_left() const { return seconds_left_; }
    int meters_of_line() const { return meters_; }
    double turn() const { return turn_; }

 private:
    Game(const Game&);
    Game& operator=(const Game&);
    std::vector<Crew*> crews_;
    double seconds_left_, turn_, worked_;
    int meters_;
};

#endif
