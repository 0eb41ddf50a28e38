// Programs that must not compile, and what the first error says. Each row is `// NAME: WORDS OF THE FIRST ERROR` and the lines below it,
// up to the next row; they stand in `main` of a program with the declarations up here.
#include <array>
#include <atomic>
#include <memory>
#include <string>
#include <vector>

#include <rapido/rapido.hpp>
#include <rapido/text.hpp>

using namespace std::chrono_literals;

struct Village {
    int houses = 3;
    std::string name;
    std::unique_ptr<int> owner;  // it cannot be copied
};
struct Game {
    int score = 0;
    bool paused = false;
    std::chrono::seconds left{3};
    std::atomic<int> drops{0};
    char pilot[16] = "Ada";
    const char* rank = "Captain";
    std::string village;
    std::vector<Village> villages;
    std::vector<int> fires;
    int houses[4] = {};
    int danger = 0;
    int* best = nullptr;
};

int main() {
    Game game;
    const Game& seen = game;
    rapido::Hud hud;
    const auto ref = hud.add(rapido::Text{.id = "t", .format = "x"});
    (void)seen;
    (void)ref;
    // variable: write rapido::watch(x) to follow it, or rapido::constant(x) for its present value
    rapido::Text{.id = "a", .value = game.score};
    // const_variable: write rapido::watch(x) to follow it, or rapido::constant(x) for its present value
    rapido::Text{.id = "a", .value = seen.score};
    // flag: write rapido::watch(x) to follow it, or rapido::constant(x) for its present value
    rapido::Bar{.id = "a", .value = 1, .visible = game.paused};
    // duration: write rapido::watch(x) to follow it, or rapido::constant(x) for its present value
    rapido::Text{.id = "a", .value = game.left};
    // string: write rapido::watch(s) to show the text, rapido::by_name(s) for the name of a source
    rapido::Text{.id = "a", .value = game.village};
    // string_sum: write rapido::watch(s) to show the text, rapido::by_name(s) for the name of a source
    rapido::Text{.id = "a", .value = "villages." + game.village};
    // char_pointer: write rapido::watch(s) to show the text, rapido::by_name(s) for the name of a source
    rapido::Text{.id = "a", .value = game.rank};
    // char_array: write rapido::watch(s) to show the text, rapido::by_name(s) for the name of a source
    rapido::Text{.id = "a", .value = game.pilot};
    // bare_callable: a callable by itself is no source: write rapido::watch(callable)
    rapido::Text{.id = "a", .value = [&] { return game.score; }};
    // atomic: this is no source: write rapido::watch(x)
    rapido::Text{.id = "a", .value = game.drops};
    // color_text: this is no color: write rapido::rgb(0xff0000)
    rapido::Text{.id = "a", .format = "x", .color = "#ff0000"};
    // color_number: this is no color: write rapido::rgb(0xff0000)
    rapido::Text{.id = "a", .format = "x", .color = 0xff0000};
    // sources_variable: write rapido::watch(x) to follow it, or rapido::constant(x) for its present value
    rapido::Sources().set("score", game.score);
    // watch_temporary: this one is a temporary
    rapido::watch(40 + 2);
    // watch_fixed_entry: for a fixed entry write rapido::watch(list[1])
    rapido::watch(game.fires, 1);
    // watch_temporary_list: needs a list that outlives the HUD
    rapido::watch(std::vector<int>{1, 2}, game.danger);
    // watch_temporary_object: needs an object that outlives the HUD
    rapido::watch(Game{}, &Game::score);
    // watch_char_array: cannot tell how long an array of characters lives
    rapido::watch(game.pilot);
    // watch_char_pointer: cannot tell how long an array of characters lives
    rapido::watch(game.rank);
    // watch_atomic: does not read a std::atomic by itself
    rapido::watch(game.drops);
    // watch_atomic_member: does not read a std::atomic by itself
    rapido::watch(game, &Game::drops);
    // watch_pointer: does not follow a pointer by itself
    rapido::watch(game.best);
    // watch_struct: cannot show a value of this type
    rapido::watch(game.villages[0]);
    // watch_struct_result: cannot show a value of this type
    rapido::watch([] { return Game{}; });
    // watch_struct_entry: cannot show a value of this type
    rapido::watch(game.villages, game.danger);
    // watch_struct_behind_pointer: cannot show a value of this type
    Village* village = nullptr;
    rapido::watch(village, [](const Village& any) -> const Village& { return any; });
    // shared_of_large_alignment: take the alignas away from the state
    struct alignas(64) Lane {
        int cars = 0;
    };
    rapido::Shared<Lane> shared;
    // shared_of_a_whole_world: at most 64 KiB; share what a HUD shows
    struct World {
        std::array<double, 10000> heights{};
    };
    rapido::Shared<World> shared;
    // catalogue_of_views: what a pointer or a view sees may be gone
    rapido::FunctionCatalogue words([](std::string_view text) { return std::string(text).c_str(); });
    // assignment: (discards qualifiers|read-only|not assignable|no viable overloaded)
    hud[ref].color = rapido::rgb(0xff0000);
    // timer_by_its_base: (is protected within this context|calling a protected destructor)
    const std::unique_ptr<rapido::GameTimer> timer(new rapido::Countdown(1s));
    // temporary_entries: this one is a temporary: keep it in a variable
    rapido::watch_entries(std::vector<Village>{}, rapido::entry_field("houses", &Village::houses));
    // entry_field_pointer: of anything else name the member to show: rapido::watch(object, &Type::member)
    rapido::watch_entries(game.villages, rapido::entry_field("owner", &Village::owner));
    // entry_position_number: rapido::entry_position takes a member or a callable that gives what has x, y and perhaps z
    rapido::watch_entries(game.villages, rapido::entry_position(&Village::houses));
    // temporary_position: this one is a temporary: keep it in a variable, or give a callable
    rapido::watch_position(rapido::WorldPoint{1, 2, 3});
    // operand_variable: a variable as an operand would be read only once: write rapido::watch(x)
    rapido::Text{.id = "a", .visible = rapido::watch(game.score) > game.danger};
    // operand_flag: a variable as an operand would be read only once: write rapido::watch(x)
    rapido::Text{.id = "a", .visible = rapido::watch(game.score) && game.paused};
    // operand_condition: a condition that is computed where it is written would be read only once
    rapido::Text{.id = "a", .visible = rapido::watch(game.score) && (game.danger > 3)};
    // operand_string: a text that is no literal would be read only once
    rapido::Text{.id = "a", .visible = rapido::watch(game.village) == game.villages[0].name};
    // compared_in_a_row: what is true or false is not less than anything: write 0 < a && a < 10
    rapido::Text{.id = "a", .visible = 0 < rapido::watch(game.score) < 10};
    // source_as_bool: (could not convert|cannot convert|no viable|not contextually convertible)
    if (rapido::watch(game.score)) return 1;
    // end
}
