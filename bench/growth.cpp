// How the time of each step grows with the number of elements: a table on the standard output, and a plot as SVG in the file that is named.
#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "rapido/mesh.hpp"
#include "rapido/rapido.hpp"

namespace {

using namespace rapido;

constexpr std::array counts{100, 316, 1'000, 3'162, 10'000, 31'623, 100'000};
constexpr std::array steps{"make",     "at rest",          "2 % change",     "all change",
                           "draw all", "triangles of all", "add and remove", "find"};

/// Texts over a screen, in panels of fifty.
struct World {
    Fonts& fonts;
    std::vector<int> values;
    std::unique_ptr<Hud> hud;
    DisplayList list;
    MeshAtlas atlas{fonts};
    Mesh mesh{atlas};

    World(Fonts& of, int count) : fonts(of), values(static_cast<std::size_t>(count)) {}
    void make() {
        hud = std::make_unique<Hud>(HudDefinition{}, Sources{}, &fonts);
        for (std::size_t i = 0; i < values.size(); ++i) {
            const std::string panel = "p" + std::to_string(i / 50);
            if (i % 50 == 0)
                hud->add(Panel{.id = panel,
                               .place = {.offset = {static_cast<float>(i / 50 % 40) * 40, 0}},
                               .layout = Layout::column});
            hud->add(Text{.id = "t" + std::to_string(i), .value = watch(values[i]), .inside = panel, .size = 10});
        }
        hud->update(0.016);
    }
};

/// The least time of some runs, in nanoseconds for each element.
double least(int count, int runs, const std::function<void()>& before, const std::function<void()>& run) {
    double best = 1e300;
    for (int i = 0; i < runs; ++i) {
        before();
        const auto begun = std::chrono::steady_clock::now();
        run();
        const std::chrono::duration<double, std::nano> took = std::chrono::steady_clock::now() - begun;
        best = std::min(best, took.count() / count);
    }
    return best;
}

std::array<double, steps.size()> measured(Fonts& fonts, int count) {
    World world(fonts, count);
    const auto nothing = [] {};
    const int runs = std::max(5, 200'000 / count);
    std::array<double, steps.size()> times{};
    times[0] = least(count, std::min(runs, 20), nothing, [&] { world.make(); });
    const auto frame = [&] { world.hud->update(0.016); };
    frame();
    times[1] = least(count, runs, nothing, frame);
    std::size_t next = 0;
    const auto change = [&](std::size_t of) {
        for (std::size_t i = 0; i < of; ++i)
            ++world.values[next = (next + 7919) % world.values.size()];
    };
    const auto size = static_cast<std::size_t>(count);
    times[2] = least(
        count, runs, [&] { change(std::max<std::size_t>(size / 50, 1)); }, frame);
    times[3] = least(
        count, runs, [&] { change(size); }, frame);
    times[4] = least(
        count, runs, [&] { change(size), frame(); }, [&] { world.hud->draw(world.list); });
    times[5] = least(
        count, runs, [&] { change(size), frame(), world.hud->draw(world.list); }, [&] { world.mesh.draw(world.list); });
    int value = 0;
    // One comes and one goes; the frame then knows the order of all anew.
    times[6] = least(count, runs, nothing, [&] {
        const ElementRef added = world.hud->add(Text{.id = "new", .value = watch(value)});
        world.hud->update(0.016);
        world.hud->remove(added);
        world.hud->update(0.016);
    });
    times[7] = least(count, runs, nothing, [&] {
        for (std::size_t i = 0; i < size; ++i)
            if (!world.hud->find("t" + std::to_string(i))) std::abort();
    });
    return times;
}

/// With marks between its thousands.
std::string written(double power_of_ten) {
    char text[32];
    std::snprintf(text, sizeof text, "%g", power_of_ten);
    if (power_of_ten < 1'000) return text;
    std::snprintf(text, sizeof text, "%g,000", power_of_ten / 1'000);
    return text;
}

/// Nanoseconds for each element over their number, both by powers of ten: what grows with the number alone is level.
void plot(const std::string& path, const std::vector<std::array<double, steps.size()>>& all) {
    constexpr double width = 900, height = 520, left = 70, right = 190, top = 30, bottom = 50;
    double low = 1e300, high = 0;
    for (const auto& row : all)
        for (const double time : row)
            low = std::min(low, time), high = std::max(high, time);
    low = std::floor(std::log10(low)), high = std::ceil(std::log10(high));
    const auto x = [&](double count) { return left + (std::log10(count) - 2) / 3 * (width - left - right); };
    const auto y = [&](double time) {
        return height - bottom - (std::log10(time) - low) / (high - low) * (height - top - bottom);
    };
    constexpr std::array colors{"#d1495b", "#2e86ab", "#3a7d44", "#e08e1b", "#6f4e9c", "#1b998b", "#8a5a44", "#555555"};
    std::ofstream out(path);
    out << "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 " << width << ' ' << height
        << "\" font-family=\"sans-serif\" font-size=\"13\">\n<rect width=\"100%\" height=\"100%\" fill=\"#ffffff\"/>\n";
    for (int power = 2; power <= 5; ++power)
        out << "<line x1=\"" << x(std::pow(10, power)) << "\" x2=\"" << x(std::pow(10, power)) << "\" y1=\"" << top
            << "\" y2=\"" << height - bottom << "\" stroke=\"#dddddd\"/>\n<text x=\"" << x(std::pow(10, power))
            << "\" y=\"" << height - bottom + 20 << "\" text-anchor=\"middle\">" << written(std::pow(10, power))
            << "</text>\n";
    for (int power = static_cast<int>(low); power <= static_cast<int>(high); ++power)
        out << "<line x1=\"" << left << "\" x2=\"" << width - right << "\" y1=\"" << y(std::pow(10, power))
            << "\" y2=\"" << y(std::pow(10, power)) << "\" stroke=\"#dddddd\"/>\n<text x=\"" << left - 8 << "\" y=\""
            << y(std::pow(10, power)) + 4 << "\" text-anchor=\"end\">" << written(std::pow(10, power)) << "</text>\n";
    out << "<text x=\"" << left << "\" y=\"18\">nanoseconds for each element</text>\n<text x=\""
        << (left + width - right) / 2 << "\" y=\"" << height - 10 << "\" text-anchor=\"middle\">elements</text>\n";
    // Names stand beside the ends of their lines, apart from each other.
    std::array<std::size_t, steps.size()> order{};
    for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return all.back()[a] > all.back()[b]; });
    double last = 0;
    for (const std::size_t step : order) {
        out << "<polyline fill=\"none\" stroke-width=\"2\" stroke=\"" << colors[step] << "\" points=\"";
        for (std::size_t i = 0; i < all.size(); ++i)
            out << x(counts[i]) << ',' << y(all[i][step]) << ' ';
        last = std::max(y(all.back()[step]), last + 17);
        out << "\"/>\n<text x=\"" << width - right + 10 << "\" y=\"" << last + 4 << "\" fill=\"" << colors[step]
            << "\">" << steps[step] << "</text>\n";
    }
    out << "</svg>\n";
}

}  // namespace

int main(int count, char** arguments) {
    Fonts fonts;
    std::vector<std::array<double, steps.size()>> all;
    std::printf("%-18s", "ns for each of");
    for (const int number : counts)
        std::printf("%10d", number);
    std::printf("   most / least\n");
    for (const int number : counts)
        all.push_back(measured(fonts, number));
    for (std::size_t step = 0; step < steps.size(); ++step) {
        std::printf("%-18s", steps[step]);
        double low = 1e300, high = 0;
        for (const auto& row : all) {
            std::printf("%10.1f", row[step]);
            low = std::min(low, row[step]), high = std::max(high, row[step]);
        }
        std::printf("%10.1f\n", high / low);
    }
    if (count > 1) plot(arguments[1], all);
}
