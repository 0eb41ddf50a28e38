#include "tool/why.hpp"

#include <algorithm>
#include <array>
#include <ostream>
#include <string_view>
#include <vector>

#include "base/nearest.hpp"
#include "rapido/base/problem.hpp"

namespace rapido::tool {
namespace {

struct Page {
    ProblemCode code;
    std::string_view means;
    std::string_view cure;
    std::string_view example;  ///< a message, or lines of a file
};

constexpr std::array pages{
    Page{ProblemCode::other, "Something is wrong that has no code of its own; the message says what.",
         "Do what the hint says.", "effect 'hit': 'keyframes' must stand in order of 'at'"},
    Page{ProblemCode::syntax,
         "The file breaks the rules of its format: TOML for HUD files and translations, CSV or JSON Lines "
         "for traces. Nothing "
         "behind the first such place is read.",
         "Look at the place, and just before it: a quote or a bracket that is not closed, a text without "
         "quotes, a key that stands "
         "twice.",
         "value = plane.water     # a text stands in quotes: value = \"plane.water\""},
    Page{ProblemCode::unreadable,
         "A file cannot be opened or read: it is not there, it may not be read, or it lies outside of the "
         "folder of the HUD.",
         "Check the path. What a HUD names is looked for in its own folder, without '..' and without links "
         "that lead out of it.",
         "'include' of '../gauges.toml': lies outside of the folder of the HUD"},
    Page{ProblemCode::unwritable, "A file cannot be written, or holds what a file cannot say.",
         "Check the folder and its permissions. What is bound to a variable of the game cannot be written: "
         "give it a name in "
         "'Sources'.",
         "'value' of text 'acres' is bound to something of the game"},
    Page{ProblemCode::too_large,
         "There is more than a limit allows: files may come from anywhere, and must not take a game's memory "
         "or time.",
         "Split the file, or take out what is not used. The limits stand in docs/trust.md.", "more than 4000 elements"},
    Page{ProblemCode::unknown_key, "The thing has no key of this name.",
         "Take the word of the hint. 'docs/reference.md' lists all keys of each kind.",
         "formt = \"{} acres\"     # format"},
    Page{ProblemCode::missing_key, "A key that the thing needs is not there.", "Write it.",
         "[[element]]\nkind = \"text\"     # and an 'id'"},
    Page{ProblemCode::wrong_type, "A value is of another type than its key, or its source, takes.",
         "Write a number without quotes, a text in quotes, a list in brackets. Of a source: let the game "
         "offer what the HUD "
         "declares.",
         "size = \"24\"     # size = 24"},
    Page{ProblemCode::unknown_word, "A word is none of those that the key takes.", "Take one of those in the message.",
         "anchor = \"top-right\"     # top_right"},
    Page{ProblemCode::out_of_range, "A number lies outside of its range.",
         "The message says the range. Of a source: declare the range that the game really has.",
         "opacity = 80     # 0.8"},
    Page{ProblemCode::bad_id, "An id is empty, or is made of characters that ids do not have.",
         "Use letters, digits, '_' and '-'.", "id = \"fuel gauge\"     # fuel_gauge"},
    Page{ProblemCode::duplicate, "An id, a name or a key is taken by something before it.",
         "Give one of them another name. Ids need differ among siblings only.",
         "id = \"fuel\"     # twice in one panel"},
    Page{ProblemCode::bad_format, "A pattern cannot be read.",
         "The message says where in the pattern. Fields are as in ISO C++: '{:.1f}', '{:%M:%S}'; a brace "
         "itself is '{{'.",
         "format = \"{:.1x}\""},
    Page{ProblemCode::bad_easing, "An easing is none of CSS.",
         "Write a word such as 'ease-out', or 'cubic-bezier(0.2, 0.9, 0.3, 1.2)', 'steps(4, end)', "
         "'linear(0, 0.5 20%, 1)'.",
         "easing = \"easeOut\"     # ease-out"},
    Page{ProblemCode::unknown_source,
         "Nobody offers a value of this name yet. The element is there and shows no value, until the name "
         "comes.",
         "Correct the name, or let the game set it in its 'Sources'. A name that comes later is declared in "
         "the file, and then no "
         "problem.",
         "[source.\"plane.water\"]\nrange = [0, 3000]"},
    Page{ProblemCode::unknown_name,
         "No element, group, effect, band, timer, style, component, theme or message has this name.",
         "Take the word of the hint, or add the thing.", "effect = \"swel\"     # swell"},
    Page{ProblemCode::circle,
         "Things hold each other in a circle: panels, components, or files that include each other.",
         "Break the circle at the place of the message.", "inside = \"self\""},
    Page{ProblemCode::unfit, "A field does not fit the kind of its element, or the type of its source.",
         "The message says what fits.", "format = \"{:.1f}\" for a text that shows a name"},
    Page{ProblemCode::contradiction, "Two fields cannot both hold.", "Take out one of them.",
         "enter = \"pulse\"     # an effect that never ends"},
    Page{ProblemCode::fixed, "Something cannot change while the HUD runs: a kind, an id, the panel of an element.",
         "Remove the element, and add another one.", "hud.change(text, Bar{...})"},
    Page{ProblemCode::missing_font, "No font family of this name is installed; another one stands for it.",
         "Put the font file into the folder of the HUD and name it in 'font_files', or install the family.",
         "font_files = [\"fonts/Inter.ttf\"]"},
    Page{ProblemCode::missing_glyph, "No font has a character that is to be shown.",
         "Add a family that has it behind the first: 'font = \"Inter, Noto Sans JP\"'; or give the language a "
         "font of its own.",
         "language = [{ language = \"ja\", font = \"Inter, Noto Sans JP\" }]"},
    Page{ProblemCode::missing_image, "An image cannot be shown; a crossed box stands for it.",
         "Put the PNG file into the folder of the HUD, or correct its name.", "image = \"icons/drop.png\""},
    Page{ProblemCode::bad_call, "A call of the game cannot be answered, and does nothing.",
         "Most often a getter calls the HUD that is reading it: call it before or after 'update'.",
         "watch([&] { hud.snap(); return score; })"},
    Page{ProblemCode::getter_threw,
         "What the game has given to be read has thrown an exception; there is no value in that frame.",
         "Let it return an empty std::optional where there is nothing to show.",
         "watch([&] { return pilots.at(chosen).score; })"},
    Page{ProblemCode::bad_step, "A step of time is negative, infinite or not a number; it counts as zero.",
         "Give 'update' the time since the last frame.", "hud.update(last - now)"},
    Page{ProblemCode::too_much, "One frame holds more than can be shown or told; the rest is left out.",
         "Show less: cap lists with 'at_most', and let pop-ups merge.", ""},
    Page{ProblemCode::wrong_size, "What is drawn was made for another size; it is drawn all the same, and not scaled.",
         "Call 'hud.resize' with the size of the window, and make the picture as large.", ""},
    Page{ProblemCode::no_room,
         "The widest text that the range of a source allows has less room than it needs: in the game it is "
         "cut off, made smaller or "
         "reaches beyond its box. The message has the text, both widths in design pixels, and the values "
         "that made it.",
         "Give it more room ('max_size', a wider panel), fewer characters ('compact_digits', another pattern, a "
         "shorter translation), lines "
         "('wrap'), or let it shrink on purpose and check the size with '--smallest-text'.",
         "text 'acres' is drawn smaller, as it has less room than it needs: 140 of 190.8 px: \"1,000,000 "
         "acres\""},
    Page{ProblemCode::overlap,
         "Two elements that are seen together lie over each other in part. What is wholly inside of another "
         "one is meant to be, and so is "
         "what stands in a panel whose layout is 'free'. Or the labels of a dial or a scale are written "
         "over each other.",
         "Anchor one of them elsewhere, let both stand in a row or a column, or show only one at a time. At "
         "a player's scale above 1 "
         "there is less room: check with '--ui-scale 1.5'.",
         "panel 'right' lies over panel 'left', on 27 by 60 px"},
    Page{ProblemCode::off_screen,
         "An element leaves the screen, or the safe area where '--safe-area' asks for one: as it stands, or "
         "by an effect that moves it. "
         "What an effect does when an element enters or leaves does not count, and neither do markers, pop-ups "
         "and what fills the screen.",
         "Offsets count inwards from the anchored edges: a negative one leads out. Give an effect less way, "
         "or another 'pivot'.",
         "text 'jumper' leaves, by effect 'leap', the screen: 184 px beyond the upper edge"},
    Page{ProblemCode::low_contrast,
         "A text, a fill or an image differs too little from what lies behind it. The ratio of a text is "
         "that of WCAG 2.x, criterion "
         "1.4.3: 4.5 : 1 for text below 24 "
         "px, or below 18.66 px where it is bold, and 3 : 1 above. It is measured on what is drawn, in each "
         "theme, over the picture of "
         "'--background', or over the worst gray of '--gray'; 95 % of its pixels reach it. Half of the "
         "pixels of a fill (of a bar, a ring, a level or pips), and a quarter of those of an image that a "
         "value, a band or a condition changes, reach 3 : 1 (criterion 1.4.11). What "
         "is dimmed with its group is "
         "left out.",
         "Give the text an 'outline', a 'shadow' or a plate, or another color. State what really lies behind "
         "the HUD: '--background "
         "scene.png', '--gray 0..0.6'.",
         "text 'pale' has a contrast of 1.29 : 1 over a background of #bfbfbf; 3 : 1 is asked for (WCAG "
         "1.4.3)"},
    Page{ProblemCode::small_text,
         "A text is written smaller than '--smallest-text' asks for: so many pixels per em in a window of "
         "that height, and in proportion in "
         "others.",
         "Make 'size' larger, or the design smaller: everything is fitted to the window.",
         "text 'tiny' is written 3.8 px high; 9.2 px are asked for"},
    Page{ProblemCode::color_only,
         "A band changes nothing but the color of an element that does not show the value in another way, so "
         "that a player who does not tell "
         "the two colors apart learns nothing (WCAG 2.x, criterion 1.4.1).",
         "Let the band change the format, the image or the pattern, too, start an effect, or post a message.",
         "bands = [{ id = \"hot\", above = 100, color = \"#ff7a3c\", image = \"lamp_hot.png\" }]"},
    Page{ProblemCode::flicker,
         "A value trembles at the edge of a band, which is entered more than three times within a second.",
         "Give the band a 'margin', beyond which the value must go to leave it, or let the value 'settle' "
         "first.",
         "bands = [{ id = \"low\", below = 0.25, hysteresis = 0.02 }]"},
    Page{ProblemCode::flash,
         "An effect flashes more than three times in a second, which can start a seizure (WCAG 2.x, "
         "criterion 2.3.1). A HUD shows three of "
         "them where they cover much of the screen, and then holds the element still.",
         "Make the effect longer, or the change of brightness smaller than a tenth.",
         "effect 'strobe' flashes 20 times in a second"},
    Page{ProblemCode::unreachable,
         "Something can never show: a band outside of the declared range, a mark beyond the duration of its "
         "timer, an element that is "
         "never visible, all that a band lies over which is never left.",
         "Correct the edge: where an element has a maximum, edges are parts of it, unless 'edge_unit = \"value\"'. "
         "Or declare the range that the "
         "game really has.",
         "image 'lamp' never comes into band 'melting': it begins at 200, and the value is 20 to 120"},
    Page{ProblemCode::unused,
         "A source is declared and nothing shows it, or a translation is of a text that the HUD does not "
         "have.",
         "Take it out, or correct its name: the hint has the nearest one.",
         "source 'oil' is declared, and nothing shows it"},
    Page{ProblemCode::untranslated, "A text with words has no translation into a language that is checked.",
         "Add it to the file of translations; a text that is the same in that language is its own "
         "translation.",
         "\"ACRES SAVED\" = \"GERETTETE ACRES\""},
};

/// A page for each code: the last one is of the last code.
static_assert(pages.size() == static_cast<std::size_t>(ProblemCode::untranslated) + 1);
static_assert([] {
    for (std::size_t i = 0; i < pages.size(); ++i)
        if (pages[i].code != static_cast<ProblemCode>(i)) return false;
    return true;
}());

void print(const Page& page, std::ostream& out) {
    out << to_string(page.code) << "\n\n" << page.means << "\n\n" << page.cure << '\n';
    if (!page.example.empty()) out << "\n    " << page.example << '\n';
}

void print_pages(std::ostream& out) {
    out << "# Problems\n\n"
           "What each code in brackets means, and how it is mended; `rapido why CODE` says the same. The "
           "words do not change from version "
           "to version. A problem has a place, a message that names the thing, what was found and what was "
           "expected, and often a hint. "
           "`rapido why` makes this page.\n";
    const auto first_found = static_cast<std::size_t>(ProblemCode::no_room);
    for (std::size_t i = 0; i < pages.size(); ++i) {
        if (i == 0) out << "\n## Of files, calls and frames\n";
        if (i == first_found) out << "\n## Found by `rapido check`\n";
        const Page& page = pages[i];
        out << "\n### " << to_string(page.code) << "\n\n" << page.means << "\n\n" << page.cure << '\n';
        if (page.example.empty()) continue;
        std::string lines(page.example);
        for (std::size_t at = lines.find('\n'); at != std::string::npos; at = lines.find('\n', at + 1))
            lines.insert(at + 1, "    ");
        out << "\n    " << lines << '\n';
    }
}

}  // namespace

Exit why(const WhyOptions& options, std::ostream& out, std::ostream& err) {
    if (options.pages) {
        print_pages(out);
        return Exit::fine;
    }
    std::vector<std::string_view> codes;
    for (const Page& page : pages)
        codes.push_back(to_string(page.code));
    if (options.code.empty()) {
        for (const Page& page : pages) {
            const std::string_view first = page.means.substr(0, page.means.find(": "));
            out << to_string(page.code) << std::string(16 - to_string(page.code).size(), ' ')
                << first.substr(0, std::min(first.find(". "), first.size() - (first.ends_with('.') ? 1 : 0))) << '\n';
        }
        return Exit::fine;
    }
    // As it stands in a message, too: `[overlap]`.
    std::string code = options.code;
    std::erase_if(code, [](char c) { return c == '[' || c == ']'; });
    const auto found = std::find(codes.begin(), codes.end(), code);
    if (found == codes.end()) {
        const std::string hint = did_you_mean(code, codes);
        err << "error: no code '" << code << "'" << (hint.empty() ? "; 'rapido why' lists them" : "; " + hint) << '\n';
        return Exit::usage;
    }
    print(pages[static_cast<std::size_t>(found - codes.begin())], out);
    return Exit::fine;
}

}  // namespace rapido::tool
