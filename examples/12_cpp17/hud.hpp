// What the game knows of its HUD: plain C++17.
#pragma once

#include <memory>

struct GameState {
    double health = 100;
    int coins = 0;
};

class GameHud {
 public:
    /// The state must outlive it.
    explicit GameHud(const GameState& state);
    ~GameHud();
    void update(double seconds);
    /// Valid until the next update.
    const char* coins() const;
    const char* health() const;

 private:
    struct Inside;
    std::unique_ptr<Inside> inside_;
};
