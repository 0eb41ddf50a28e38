// A HUD file, formatted, and made into a HUD, with thirty updates and a draw behind it.
#include <cmath>
#include <cstdint>
#include <limits>
#include <string>

#include "rapido/file.hpp"
#include "rapido/rapido.hpp"

namespace {

using namespace rapido;

/// Arithmetic instead of fonts.
class BoxMeasurer final : public TextMeasurer {
 public:
    std::optional<FontId> find(std::string_view family, int, bool) override {
        return family.starts_with('x') ? std::nullopt : std::optional<FontId>(0);
    }
    FontMetrics metrics(FontId) override { return {0.75F, 0.25F}; }
    float shape(FontId, float size, std::string_view text, std::vector<Glyph>& glyphs) override {
        glyphs.clear();
        for (std::size_t i = 0; i < text.size(); ++i)
            glyphs.push_back({static_cast<std::uint32_t>(text[i]), {size / 2 * static_cast<float>(i), 0}});
        return size / 2 * static_cast<float>(text.size());
    }
};

/// Every name is an image of 64 pixels each way, but for those that begin with x.
class AnyImages final : public ImageFinder {
 public:
    Result<ImageId> find(const std::string& name) override {
        if (name.starts_with('x')) return Problem{{}, "is not there", ""};
        return ImageId{0};
    }
    Size size(ImageId) const override { return {64, 64}; }
};

/// Values of every type, as a game would change them.
struct Game {
    std::int64_t whole = 0;
    double real = 0;
    bool flag = false;
    std::string word = "Pine Hollow";
    Value anything;
    Sources sources;

    Game() {
        sources.set("w", watch(whole));
        sources.set("r", watch(real));
        sources.set("f", watch(flag));
        sources.set("s", watch(word));
        sources.set("v", watch(anything));
    }
    void advance(int frame) {
        constexpr double inf = std::numeric_limits<double>::infinity();
        constexpr double reals[]{0, 1, -1, 0.5, 1e308, inf, -inf, std::numeric_limits<double>::quiet_NaN()};
        whole = frame % 7 == 0 ? INT64_MIN : frame % 7 == 1 ? INT64_MAX : whole / 2 + frame;
        real = reals[frame % 8];
        flag = frame % 3 == 0;
        word = frame % 4 == 0 ? "" : "Stone Ferry 12";
        switch (frame % 5) {
            case 0:
                anything = Value();
                break;
            case 1:
                anything = Value(frame);
                break;
            case 2:
                anything = Value(real);
                break;
            case 3:
                anything = Value("text");
                break;
            default:
                anything = Value(Nanoseconds{frame * 1'000'000'007LL});
        }
    }
};

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(bytes), size);
    const Result<HudDefinition> definition = read_hud(text, "hud.toml");
    // What is TOML can be formatted, says the same then, and is not formatted any further.
    const Result<std::string> formatted = format_hud(text, "hud.toml");
    if (formatted) {
        const Result<std::string> twice = format_hud(*formatted, "hud.toml");
        if (!twice || *twice != *formatted) __builtin_trap();
    } else if (definition || formatted.problems().front().code == ProblemCode::other) {
        __builtin_trap();
    }
    // A file that was upgraded is in canonical order.
    if (const Result<std::string> upgraded = upgrade_hud(text, "hud.toml")) {
        const Result<std::string> again = format_hud(*upgraded, "hud.toml");
        if (!again || *again != *upgraded) __builtin_trap();
    }
    if (!definition) return 0;
    BoxMeasurer measurer;
    AnyImages images;
    Game game;
    Hud hud(*definition, game.sources, &measurer, &images);
    hud.resize({.size = {640, 400}});
    DisplayList list;
    for (int frame = 0; frame < 30; ++frame) {
        game.advance(frame);
        const Seconds step{frame == 20 ? 1e300 : frame == 12 ? 5 : 1 / 60.0};
        hud.update({.real = step, .game = frame % 4 == 0 ? Seconds{0} : step});
        for (const ElementRef element : hud.elements()) {
            if (frame == 5) hud.play(element, "swell", 2);
            // The game changes what runs: to itself, and to another source.
            if (frame == 11) hud.change(element, hud.description(element));
            if (frame == 13) {
                hud.set_color(element, rgb(0x123456));
                hud.set_place(element, {.anchor = Anchor::center});
                hud.set_opacity(element, 0.5F);
            }
            if (frame == 9 && element.index % 3 == 0) hud.leave(element, "fade");
            if (frame == 15 && element.index % 5 == 0) hud.remove(element);
        }
        if (frame == 6 || frame == 18) hud.reload(*definition);
        if (frame == 3) hud.snap();
        if (frame == 8) game.sources.set("w", watch(game.real));
        if (frame == 10) game.sources.set("late", watch(game.whole));
        if (frame == 14) hud.restore_timers(hud.save_timers());
        if (frame == 16)
            for (const ElementRef element : hud.elements())
                hud.reset(element);
        if (frame == 7) hud.set_ui_scale(0.5F);
        if (frame == 17) hud.set_reduced_motion(true);
        hud.draw(list);
    }
    return 0;
}
