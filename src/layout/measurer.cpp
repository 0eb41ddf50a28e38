#include "rapido/layout/measurer.hpp"

namespace rapido::detail {

void find_line_ends(std::string_view text, std::vector<LineEnd>& ends) {
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool before_word = i + 1 < text.size() && text[i + 1] != ' ' && text[i + 1] != '\n';
        if (text[i] == '\n' || (text[i] == ' ' && before_word)) ends.push_back({i + 1, text[i] == '\n'});
    }
}

void find_character_ends(std::string_view text, std::vector<std::size_t>& ends) {
    for (std::size_t i = 1; i <= text.size(); ++i)
        if (i == text.size() || (static_cast<unsigned char>(text[i]) & 0xc0) != 0x80) ends.push_back(i);
}

std::string transformed(std::string_view text, TextTransform transform) {
    std::string changed(text);
    for (char& c : changed) {
        if (transform == TextTransform::uppercase && c >= 'a' && c <= 'z')
            c = static_cast<char>(c - 'a' + 'A');
        else if (transform == TextTransform::lowercase && c >= 'A' && c <= 'Z')
            c = static_cast<char>(c - 'A' + 'a');
    }
    return changed;
}

}  // namespace rapido::detail
