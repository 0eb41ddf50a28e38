// A format, an easing or a file of translations, by the first byte.
#include <cmath>
#include <cstdint>
#include <limits>
#include <string>

#include "rapido/file.hpp"
#include "rapido/rapido.hpp"
#include "rapido/text.hpp"

namespace {

using namespace rapido;

void try_format(std::string_view text) {
    const Result<Format> format = Format::parse(text, {"hud.toml", 1, 1});
    if (!format) return;
    constexpr double inf = std::numeric_limits<double>::infinity();
    const Value values[]{Value(),
                         Value(0),
                         Value(-1),
                         Value(INT64_MIN),
                         Value(UINT64_MAX),
                         Value(true),
                         Value(0.1F),
                         Value(-0.0),
                         Value(1e308),
                         Value(inf),
                         Value(-inf),
                         Value(NAN),
                         Value("Stone é 12"),
                         Value(Nanoseconds::max()),
                         Value(Nanoseconds{-1})};
    for (const int compact : {0, 3})
        for (const Rounding rounding : {Rounding::nearest, Rounding::up, Rounding::honest}) {
            FormattedText shown(*format,
                                {.rounding = rounding, .compact_digits = compact, .drop_zero_parts = compact > 0});
            for (const Value& value : values)
                for (const Value& max : values)
                    shown.update({.value = value, .max = max, .delta = value});
        }
}

void try_easing(std::string_view text) {
    const Result<Easing> easing = Easing::parse(text, {"hud.toml", 1, 1});
    if (!easing) return;
    double sum = 0;
    for (const double at : {-1.0, 0.0, 1e-300, 0.25, 0.5, 1.0, 2.0, 1e300})
        sum += easing->at(at);
    if (sum == 0.123) __builtin_trap();  // so that nothing is left out
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    if (size == 0) return 0;
    const std::string_view text(reinterpret_cast<const char*>(bytes) + 1, size - 1);
    switch (bytes[0] % 3) {
        case 0:
            try_format(text);
            break;
        case 1:
            try_easing(text);
            break;
        default:
            (void)rapido::read_translations(text, "t.toml");
    }
    return 0;
}
