#include "base/nearest.hpp"

#include <algorithm>
#include <array>

namespace rapido {
namespace {

// The table of distances is quadratic: a longer word, from a hostile file perhaps, is not worth guessing at.
constexpr std::size_t longest = 64;

/// The optimal string alignment distance, by three rows of its table. Both words are at most `longest`.
std::size_t slips(std::string_view a, std::string_view b) {
    using Row = std::array<std::size_t, longest + 1>;
    Row before{}, previous{}, row{};
    for (std::size_t j = 0; j <= b.size(); ++j)
        previous[j] = j;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        row[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const std::size_t change = a[i - 1] == b[j - 1] ? 0 : 1;
            row[j] = std::min({previous[j] + 1, row[j - 1] + 1, previous[j - 1] + change});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                row[j] = std::min(row[j], before[j - 2] + 1);
        }
        before = previous;
        previous = row;
    }
    return previous[b.size()];
}

}  // namespace

std::string_view nearest(std::string_view word, std::span<const std::string_view> candidates) {
    // Enough for a thousand names of thirty letters; of more of them, the first ones are looked at.
    std::size_t cells_left = 1'000'000;
    if (word.size() > longest) return {};
    std::size_t fewest = (word.size() + 2) / 3 + 1;
    std::string_view best;
    for (const std::string_view candidate : candidates) {
        const std::size_t longer = std::max(word.size(), candidate.size());
        const std::size_t shorter = std::min(word.size(), candidate.size());
        if (longer > longest || longer - shorter >= fewest) continue;
        if (longer * shorter > cells_left) break;
        cells_left -= longer * shorter;
        const std::size_t count = slips(word, candidate);
        if (count < fewest) {
            fewest = count;
            best = candidate;
        }
    }
    return best;
}

std::string did_you_mean(std::string_view word, std::span<const std::string_view> candidates) {
    const std::string_view best = nearest(word, candidates);
    return best.empty() ? std::string{} : "did you mean '" + std::string(best) + "'?";
}

std::string one_of(std::span<const std::string_view> words) {
    std::string text = "one of ";
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (i > 0) text += i + 1 == words.size() ? " or " : ", ";
        text += words[i];
    }
    return text;
}

}  // namespace rapido
