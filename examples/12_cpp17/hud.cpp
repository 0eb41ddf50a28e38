// The one file of the game that is compiled as C++20: all of Rapido stays in it.
#include "hud.hpp"

#include <rapido/rapido.hpp>

#include <string>

using namespace std::chrono_literals;

struct GameHud::Inside {
    rapido::Hud hud;
    rapido::ElementRef coins, health;
    std::string coins_text, health_text;
};

GameHud::GameHud(const GameState& state) : inside_(std::make_unique<Inside>()) {
    inside_->coins = inside_->hud.add(rapido::Text{.id = "coins",
                                                   .value = rapido::watch(state.coins),
                                                   .format = "{} coins",
                                                   .plural = {.one = "{} coin"},
                                                   .motion = rapido::roll(300ms)});
    inside_->health = inside_->hud.add(
        rapido::Text{.id = "health", .value = rapido::watch(state.health), .max = 100, .format = "{percent}%"});
}

GameHud::~GameHud() = default;

void GameHud::update(double seconds) {
    inside_->hud.update(seconds);
    inside_->coins_text = inside_->hud.text_of(inside_->coins);
    inside_->health_text = inside_->hud.text_of(inside_->health);
}

const char* GameHud::coins() const {
    return inside_->coins_text.c_str();
}

const char* GameHud::health() const {
    return inside_->health_text.c_str();
}
