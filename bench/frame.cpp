// Whole frames of the sample HUD: update, draw and triangles; and the same by hand, as games do it.
#include <hb-ot.h>

#include <cmath>
#include <cstdio>
#include <deque>
#include <unordered_map>

#include "compare.hpp"
#include "rapido/file.hpp"
#include "rapido/images.hpp"
#include "rapido/mesh.hpp"
#include "rapido/rapido.hpp"

namespace rapido::bench {
namespace {

constexpr Seconds frame{1 / 60.0};

/// The values of the flight after 104 seconds, as variables of a game, all of them bound.
struct Game {
    static constexpr std::size_t first_row = 104 * 60;

    std::string folder = RAPIDO_SAMPLE_DIR;
    Result<Trace> trace = Trace::read_file(folder + "/flight.csv");
    Sources sources;
    std::deque<double> numbers;
    std::deque<std::int64_t> integers;
    std::deque<std::string> texts;

    Game() {
        for (const Trace::Column& column : trace->columns()) {
            const Value value = column.at(first_row);
            if (value.is_real())
                sources.set(column.name, watch(numbers.emplace_back(value.number())));
            else if (value.is_integer())
                sources.set(column.name, watch(integers.emplace_back(static_cast<std::int64_t>(value.number()))));
            else if (value.type() == Value::Type::text)
                sources.set(column.name, watch(texts.emplace_back(value.text())));
            else if (value.has_value())
                sources.set(column.name, constant(value.flag()));
        }
    }
    /// All values are those of a row of the recorded flight.
    void fly(std::size_t row) {
        std::size_t number = 0, integer = 0, text = 0;
        for (const Trace::Column& column : trace->columns()) {
            const Value value = column.at(row % trace->rows().size());
            const Value first = column.at(first_row);
            if (first.is_real())
                numbers[number++] = value.number();
            else if (first.is_integer())
                integers[integer++] = static_cast<std::int64_t>(value.number());
            else if (first.type() == Value::Type::text)
                texts[text++].assign(value.text());
        }
    }
    /// Every number of the game changes.
    void move(int step) {
        const int way = step / 40 % 2 == 0 ? 1 : -1;
        for (double& number : numbers)
            number += way * 0.1 * (1 + std::abs(number) * 0.01);
        for (std::int64_t& integer : integers)
            integer += way;
    }
};

struct Ours {
    Game game;
    Fonts fonts;
    Images images{game.folder};
    Result<HudDefinition> definition = read_hud_file(game.folder + "/hud.toml");
    Hud hud{*definition, game.sources, &fonts, &images};
    DisplayList list;
    MeshAtlas atlas{fonts, &images};
    Mesh mesh{atlas};
    int step = 0;

    Ours() {
        hud.resize({.size = {1280, 800}});
        for (int i = 0; i < 600; ++i)
            run(i < 120);
    }
    void run(bool moves) {
        if (moves) game.move(++step);
        show(moves);
    }
    void show(bool game_runs) {
        hud.update({.real = frame, .game = game_runs ? frame : Seconds{0}});
        hud.draw(list);
        mesh.draw(list);
        benchmark::DoNotOptimize(mesh.vertices().data());
    }
};

template <bool Moves>
void ours(benchmark::State& state) {
    Ours hud;
    for (auto _ : state)
        hud.run(Moves);
}

/// A frame at rest, in a game whose caches are full of other things: 32 MB are walked before each.
template <bool Cold>
void after_others(benchmark::State& state) {
    Ours hud;
    std::vector<std::uint64_t> others((Cold ? std::size_t{32} << 20U : 0) / sizeof(std::uint64_t), 1);
    for (auto _ : state) {
        state.PauseTiming();
        std::uint64_t sum = 0;
        for (std::size_t i = 0; i < others.size(); i += 8)
            sum += others[i]++;
        benchmark::DoNotOptimize(sum);
        state.ResumeTiming();
        hud.run(false);
    }
}

/// The values change as they did in the flight, at 60 frames a second.
void ours_flown(benchmark::State& state) {
    Ours hud;
    std::size_t row = Game::first_row;
    for (auto _ : state) {
        hud.game.fly(++row);
        hud.show(true);
    }
}

/// A HUD of as many texts and shapes, written by hand: each text is formatted, measured and drawn in each frame, or, with `Checks`, only where
/// its value is another one; what is drawn of the others is kept.
class ByHand {
 public:
    explicit ByHand(bool checks) : checks_(checks) {
        Ours sample;
        for (const DisplayGroup& group : sample.list.groups())
            for (const DisplayItem& item : group.items()) {
                if (item.kind != DisplayItem::Kind::text) {
                    shapes_.push_back({item.kind, item.rect, group.points_of(item).size()});
                } else if (item.blur == 0) {
                    // A number stands in the text: it is formatted, what stands before and behind it is as it was.
                    std::string text(group.text_of(item));
                    const std::size_t first = text.find_first_of("0123456789");
                    Readout& readout = readouts_.emplace_back();
                    readout.pattern =
                        first == std::string::npos
                            ? text
                            : text.substr(0, first) + "%d" +
                                  text.substr(std::min(text.find_first_not_of("0123456789,.:", first), text.size()));
                    for (char& c : readout.pattern)
                        if (c == '%' && readout.pattern.compare(static_cast<std::size_t>(&c - readout.pattern.data()),
                                                                2, "%d") != 0)
                            c = ' ';
                    readout.value = first == std::string::npos ? 0 : std::atoi(text.c_str() + first);
                    readout.size = item.size;
                    readout.at = item.baseline;
                    readout.font = item.font;
                }
            }
        hb_blob_t* const blob = hb_blob_create_from_file(RAPIDO_FONT_FILE);
        hb_face_t* const face = hb_face_create(blob, 0);
        font_ = hb_font_create(face);
        units_ = static_cast<float>(hb_face_get_upem(face));
        hb_face_destroy(face);
        hb_blob_destroy(blob);
    }
    ~ByHand() {
        hb_font_destroy(font_);
        hb_buffer_destroy(buffer_);
    }
    ByHand(const ByHand&) = delete;
    ByHand& operator=(const ByHand&) = delete;

    void run(bool moves) {
        const int way = ++step_ / 40 % 2 == 0 ? 1 : -1;
        if (!checks_) clear();
        for (Readout& readout : readouts_) {
            if (moves) readout.value += way;
            if (checks_ && readout.shown == readout.value) continue;
            readout.shown = readout.value;
            char text[128];
            std::snprintf(text, sizeof text, readout.pattern.c_str(), readout.value);
            const float width = shape(text, readout.size);
            if (checks_) readout.vertices.clear();
            auto& into = checks_ ? readout.vertices : vertices_;
            for (const Glyph& glyph : glyphs_)
                add_glyph(into, glyph, readout.size, {readout.at.x - width, readout.at.y});
        }
        if (checks_) {
            clear();
            for (const Readout& readout : readouts_)
                vertices_.insert(vertices_.end(), readout.vertices.begin(), readout.vertices.end());
        }
        for (const Shape& shape : shapes_)
            add_shape(shape);
        benchmark::DoNotOptimize(vertices_.data());
    }

 private:
    struct Readout {
        std::string pattern;
        int value = 0, shown = -1;
        float size = 0;
        Point at{};
        FontId font = 0;
        std::vector<MeshVertex> vertices;
    };
    struct Shape {
        DisplayItem::Kind kind{};
        Rect rect{};
        std::size_t points = 0;
    };

    void clear() { vertices_.clear(); }
    /// Each text anew, as it is written down where one follows the manual.
    float shape(const char* text, float size) {
        hb_buffer_clear_contents(buffer_);
        hb_buffer_add_utf8(buffer_, text, -1, 0, -1);
        hb_buffer_guess_segment_properties(buffer_);
        hb_shape(font_, buffer_, nullptr, 0);
        unsigned count = 0;
        const hb_glyph_info_t* const infos = hb_buffer_get_glyph_infos(buffer_, &count);
        const hb_glyph_position_t* const positions = hb_buffer_get_glyph_positions(buffer_, &count);
        glyphs_.clear();
        float pen = 0;
        for (unsigned i = 0; i < count; ++i) {
            glyphs_.push_back(
                {infos[i].codepoint, {pen + static_cast<float>(positions[i].x_offset) * size / units_, 0}, 0});
            pen += static_cast<float>(positions[i].x_advance) * size / units_;
        }
        return pen;
    }
    static void quad(std::vector<MeshVertex>& into, const Rect& rect, const Rect& texture) {
        const std::array<std::uint8_t, 4> color{255, 255, 255, 255};
        for (const auto& [x, y] : {std::pair(0, 0), {1, 0}, {1, 1}, {0, 0}, {1, 1}, {0, 1}})
            into.push_back({{rect.x + static_cast<float>(x) * rect.width, rect.y + static_cast<float>(y) * rect.height},
                            {texture.x + static_cast<float>(x) * texture.width,
                             texture.y + static_cast<float>(y) * texture.height},
                            color});
    }
    /// An atlas as one writes it: where a character is, by its number and size.
    void add_glyph(std::vector<MeshVertex>& into, const Glyph& glyph, float size, Point at) {
        const std::uint64_t key = std::uint64_t{glyph.id} << 32U | static_cast<std::uint32_t>(size * 64);
        const auto [place, is_new] = atlas_.try_emplace(key);
        if (is_new)
            place->second = {static_cast<float>(atlas_.size() % 64) / 64, static_cast<float>(atlas_.size() / 64) / 64,
                             1 / 64.0F, 1 / 64.0F};
        quad(into, {at.x + glyph.offset.x, at.y - size + glyph.offset.y, size * 0.6F, size}, place->second);
    }
    void add_shape(const Shape& shape) {
        if (shape.points > 0) {
            const Point middle{shape.rect.x, shape.rect.y};
            for (std::size_t i = 0; i < shape.points; ++i) {
                const float angle = static_cast<float>(i) * 6.2832F / static_cast<float>(shape.points);
                const Point corner{middle.x + 30 * std::sin(angle), middle.y - 30 * std::cos(angle)};
                vertices_.push_back({corner, {}, {255, 255, 255, 255}});
            }
        } else {
            for (int i = 0; i < (shape.kind == DisplayItem::Kind::border ? 4 : 1); ++i)
                quad(vertices_, shape.rect, {});
        }
    }

    bool checks_;
    int step_ = 0;
    hb_font_t* font_ = nullptr;
    hb_buffer_t* buffer_ = hb_buffer_create();
    float units_ = 1;
    std::vector<Readout> readouts_;
    std::vector<Shape> shapes_;
    std::vector<Glyph> glyphs_;
    std::vector<MeshVertex> vertices_;
    std::unordered_map<std::uint64_t, Rect> atlas_;
};

template <bool Moves, bool Checks>
void by_hand(benchmark::State& state) {
    ByHand hud(Checks);
    for (auto _ : state)
        hud.run(Moves);
}

/// From nothing to a font of the game with which texts are measured.
void own_font(benchmark::State& state) {
    for (auto _ : state) {
        Fonts fonts;
        const bool added(fonts.add_file(RAPIDO_FONT_FILE));
        benchmark::DoNotOptimize(added);
        benchmark::DoNotOptimize(fonts.find("Inter", 400));
    }
}
/// From nothing to one of the machine.
void machine_font(benchmark::State& state) {
    for (auto _ : state) {
        Fonts fonts;
        benchmark::DoNotOptimize(fonts.find("Inter", 400));
    }
}
/// From nothing to the first frame of the sample HUD, its file and images read, with given fonts.
void first_frame(benchmark::State& state) {
    Game game;
    Fonts fonts;
    for (auto _ : state) {
        Images images(game.folder);
        const Result<HudDefinition> definition = read_hud_file(game.folder + "/hud.toml");
        Hud hud(*definition, game.sources, &fonts, &images);
        hud.update(frame);
        DisplayList list;
        hud.draw(list);
        benchmark::DoNotOptimize(list);
    }
}

}  // namespace

std::vector<Case> frame_cases() {
    return {
        {"whole frame of the sample HUD, at rest", "by hand, each text made in each frame", 10, false, ours<false>,
         by_hand<false, false>},
        {"whole frame, everything moving", "by hand, each text made in each frame", 3, false, ours<true>,
         by_hand<true, false>},
        {"sample flight, as it was flown", "by hand, each text made in each frame", 3, false, ours_flown,
         by_hand<true, false>},
        {"whole frame, at rest", "by hand, with a check of each value", 1.5, true, ours<false>, by_hand<false, true>},
        {"whole frame, all moving", "by hand, with a check of each value", 1, true, ours<true>, by_hand<true, true>},
        {"whole frame, at rest, cold caches", "the same, caches as it left them", 4, true, after_others<true>,
         after_others<false>},
        {"a font of the game, to be measured with", "one of the machine, found", 0.2, true, own_font, machine_font},
        {"sample HUD read, to its first display list, fonts aside", "a font of the machine, found", 0, true,
         first_frame, machine_font},
    };
}

}  // namespace rapido::bench
