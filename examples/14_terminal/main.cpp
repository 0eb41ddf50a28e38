// A renderer of one's own: walks the display list and writes it as characters, for a server that has no screen but a terminal.
//
// One design pixel is one cell. The terminal is its own text engine, in which every character is as wide as the others.
#include <rapido/rapido.hpp>

#include <cmath>
#include <cstdio>
#include <string>
#include <vector>

#include "rapido/layout.hpp"

/// A character is a cell wide and a cell high; a glyph is the character itself.
struct CellMeasurer final : rapido::TextMeasurer {
    std::optional<rapido::FontId> find(std::string_view, int, bool) override { return 0; }
    rapido::FontMetrics metrics(rapido::FontId) override { return {.ascent = 1, .descent = 0}; }
    float shape(rapido::FontId, float size, std::string_view text, std::vector<rapido::Glyph>& glyphs) override {
        glyphs.clear();
        for (const char c : text)
            glyphs.push_back({static_cast<unsigned char>(c), {size * static_cast<float>(glyphs.size()), 0}});
        return size * static_cast<float>(glyphs.size());
    }
};

class Terminal {
 public:
    Terminal(int width, int height) : width_(width), cells_(static_cast<std::size_t>(width * height)) {}

    void draw(const rapido::DisplayList& list) {
        cells_.assign(cells_.size(), {});
        for (const rapido::DisplayGroup& group : list.groups())
            for (const rapido::DisplayItem& item : group.items()) {
                if (item.kind == rapido::DisplayItem::Kind::rect) draw_rect(group, item);
                if (item.kind == rapido::DisplayItem::Kind::text) draw_text(group, item);
                // A terminal has no borders, lines, polygons and images.
            }
    }

    void print() const {
        for (std::size_t i = 0; i < cells_.size(); ++i) {
            const auto& [c, ink, paper] = cells_[i];
            std::printf("\x1b[38;2;%d;%d;%dm\x1b[48;2;%d;%d;%dm%c", ink.red, ink.green, ink.blue, paper.red,
                        paper.green, paper.blue, c);
            if ((i + 1) % static_cast<std::size_t>(width_) == 0) std::puts("\x1b[0m");
        }
    }

 private:
    struct Cell {
        char character = ' ';
        rapido::Color ink = rapido::rgb(0xf2efe6), paper = rapido::rgb(0x10161c);
    };

    /// Null outside of the terminal.
    Cell* at(rapido::Point point) {
        const auto column = std::lround(point.x), row = std::lround(point.y);
        const auto index = static_cast<std::size_t>(row * width_ + column);
        return column >= 0 && column < width_ && row >= 0 && index < cells_.size() ? &cells_[index] : nullptr;
    }

    void draw_rect(const rapido::DisplayGroup& group, const rapido::DisplayItem& item) {
        const rapido::Rect &rect = item.rect, &clip = item.clip;
        for (float y = rect.y; y < rect.y + rect.height; ++y)
            for (float x = rect.x; x < rect.x + rect.width; ++x) {
                if (clip.width > 0 && (x + 0.5F < clip.x || x + 0.5F > clip.x + clip.width)) continue;
                if (Cell* const cell = at(group.transform().apply({x, y})))
                    cell->paper = mix(cell->paper, item.color, item.color.alpha);
            }
    }

    void draw_text(const rapido::DisplayGroup& group, const rapido::DisplayItem& item) {
        for (const rapido::Glyph& glyph : group.glyphs_of(item)) {
            // A baseline is the lower edge of its row.
            const rapido::Point point{item.baseline.x + glyph.offset.x, item.baseline.y - 1};
            if (Cell* const cell = at(group.transform().apply(point))) {
                cell->character = static_cast<char>(glyph.id);
                cell->ink = mix(cell->paper, item.color, item.color.alpha);
            }
        }
    }

    static rapido::Color mix(rapido::Color below, rapido::Color over, int alpha) {
        const auto part = [&](int a, int b) { return static_cast<std::uint8_t>(a + (b - a) * alpha / 255); };
        return {part(below.red, over.red), part(below.green, over.green), part(below.blue, over.blue), 255};
    }

    int width_;
    std::vector<Cell> cells_;
};

int main() {
    double load = 0.31;
    CellMeasurer measurer;
    rapido::Hud hud({.design = {64, 5}}, {}, &measurer);
    hud.resize({.size = {64, 5}});
    hud.add(rapido::Text{.id = "name", .format = "SERVER 3", .place = {.offset = {2, 1}}, .size = 1});
    hud.add(rapido::Text{.id = "load",
                         .value = rapido::watch(load),
                         .max = 1,
                         .format = "load {percent}%",
                         .place = {.offset = {2, 3}},
                         .size = 1});
    hud.add(rapido::Bar{.id = "bar",
                        .value = rapido::watch(load),
                        .max = 1,
                        .bands = {{.above = 0.8, .color = rapido::rgb(0xff7a3c)}},
                        .place = {.anchor = rapido::Anchor::top_right, .offset = {2, 3}, .size = {44, 1}},
                        .radius = 0});
    Terminal terminal(64, 5);
    rapido::DisplayList list;
    for (const double now : {0.31, 0.87}) {
        load = now;
        hud.update(1.0);
        hud.draw(list);
        terminal.draw(list);
        terminal.print();
    }
}
