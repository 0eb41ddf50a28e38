// The window, with the driver of SDL that needs no screen; what the user does is put into SDL's queue.
#define SDL_MAIN_HANDLED
#include "rapido/window.hpp"

#include <SDL.h>

#include <cstdlib>

#include "pixels.hpp"

namespace rapido::test {
namespace window_test {

void press(SDL_Keycode key, std::uint16_t modifiers = KMOD_NONE) {
    SDL_Event event{};
    event.type = SDL_KEYDOWN;
    event.key.keysym.sym = key;
    event.key.keysym.mod = modifiers;
    SDL_PushEvent(&event);
}

TEST(HudWindow, shows_a_hud_tells_what_the_user_did_and_closes) {
    setenv("SDL_VIDEODRIVER", "dummy", 1);
    HudWindow window(Stage::fonts(), nullptr, {.title = "Ember Ridge", .width = 320, .height = 200});
    ASSERT_TRUE(window.status()) << to_string(window.status().problem());
    EXPECT_EQ(window.viewport().size, (Size{320, 200}));
    EXPECT_EQ(window.pixel_ratio(), 1);

    Hud hud({.design = {320, 200}}, {}, &Stage::fonts());
    hud.add(Bar{.id = "bar",
                .value = 1,
                .max = 1,
                .place = {.offset = {0, 0}, .size = {100, 50}},
                .color = rgb(0xff7a3c),
                .radius = 0});
    hud.resize(window.viewport());
    ASSERT_TRUE(window.next_frame());
    EXPECT_EQ(window.elapsed(), Seconds{0});
    hud.update(window.elapsed());
    DisplayList list;
    hud.draw(list);
    window.clear(rgb(0x10161c));
    window.draw(list);
    EXPECT_TRUE(window.status());
    const std::vector<std::uint8_t> pixels = window.read_pixels();
    ASSERT_EQ(pixels.size(), 320U * 200 * 4);
    const auto pixel = [&](std::size_t x, std::size_t y) {
        const std::uint8_t* const at = pixels.data() + (y * 320 + x) * 4;
        return rgb(static_cast<std::uint32_t>(at[0] << 16 | at[1] << 8 | at[2]));
    };
    EXPECT_EQ(pixel(50, 25), rgb(0xff7a3c));
    EXPECT_EQ(pixel(150, 25), rgb(0x10161c));
    EXPECT_EQ(pixel(50, 75), rgb(0x10161c));

    press(SDLK_a);
    press(SDLK_SPACE, KMOD_LCTRL);
    press(SDLK_F5, KMOD_RSHIFT);
    SDL_Event event{};
    event.type = SDL_TEXTINPUT;
    SDL_strlcpy(event.text.text, "ü", sizeof event.text.text);
    SDL_PushEvent(&event);
    event = {};
    event.type = SDL_MOUSEBUTTONDOWN;
    event.button.button = SDL_BUTTON_LEFT;
    event.button.x = 12;
    event.button.y = 34;
    SDL_PushEvent(&event);
    event.button.button = SDL_BUTTON_RIGHT;
    SDL_PushEvent(&event);
    event = {};
    event.type = SDL_MOUSEWHEEL;
    event.wheel.y = -2;
    SDL_PushEvent(&event);
    ASSERT_TRUE(window.next_frame());
    EXPECT_GE(window.elapsed(), Seconds{1 / 1000.0});
    using Kind = WindowEvent::Kind;
    const auto events = window.events();
    ASSERT_EQ(events.size(), 6U);
    EXPECT_EQ(events[0].key, "a");
    EXPECT_FALSE(events[0].control || events[0].shift);
    EXPECT_EQ(events[1].key, "space");
    EXPECT_TRUE(events[1].control);
    EXPECT_EQ(events[2].key, "f5");
    EXPECT_TRUE(events[2].shift);
    EXPECT_TRUE(events[3].kind == Kind::text && events[3].text == "ü");
    EXPECT_TRUE(events[4].kind == Kind::press && events[4].at == (Point{12, 34}));
    EXPECT_TRUE(events[5].kind == Kind::wheel && events[5].steps == -2);
    EXPECT_FALSE(window.is_held("a"));
    EXPECT_FALSE(window.is_held("no such key"));

    window.resize(640, 480);
    ASSERT_TRUE(window.next_frame());
    EXPECT_TRUE(window.events().empty());
    EXPECT_EQ(window.viewport().size, (Size{640, 480}));
    event = {};
    event.type = SDL_QUIT;
    SDL_PushEvent(&event);
    EXPECT_FALSE(window.next_frame());
    EXPECT_FALSE(window.next_frame());
}

TEST(HudWindow, says_why_it_cannot_be_opened_and_then_does_nothing) {
    setenv("SDL_VIDEODRIVER", "no such driver", 1);
    HudWindow window(Stage::fonts());
    setenv("SDL_VIDEODRIVER", "dummy", 1);
    ASSERT_FALSE(window.status());
    EXPECT_EQ(window.status().problem().message.find("cannot open a window: "), 0U)
        << window.status().problem().message;
    EXPECT_FALSE(window.next_frame());
    window.clear(Color{});
    window.draw(DisplayList());
    EXPECT_TRUE(window.read_pixels().empty());
    EXPECT_FALSE(window.is_held("a"));
}

}  // namespace window_test
}  // namespace rapido::test
