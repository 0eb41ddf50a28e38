// How texts look: lines, outlines, shadows, spacing, capitals, and fonts of the game's own.
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "rapido/file.hpp"
#include "rapido/locale.hpp"
#include "rapido/picture.hpp"
#include "support.hpp"

namespace rapido::test {
namespace lettering_test {

struct DrawnLine {
    std::string text;
    float x, y;  ///< of its baseline
    friend bool operator==(const DrawnLine&, const DrawnLine&) = default;
};

std::vector<DrawnLine> lines_of(const Hud& hud) {
    DisplayList list;
    hud.draw(list);
    std::vector<DrawnLine> lines;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items())
            if (item.kind == DisplayItem::Kind::text)
                lines.push_back({std::string(group.text_of(item)), item.baseline.x, item.baseline.y});
    return lines;
}

std::string joined(const std::vector<DrawnLine>& lines) {
    std::string all;
    for (const DrawnLine& line : lines)
        all += (all.empty() ? "" : "|") + line.text;
    return all;
}

/// Characters of the measurer are 10 pixels wide at a size of 20.
TEST(Text, is_broken_where_a_line_is_full) {
    struct Case {
        const char* text;
        Wrap wrap;
        float width;  ///< of the element at most; zero is without a limit
        int max_lines;
        Overflow overflow;
        const char* lines;
    };
    constexpr Overflow visible = Overflow::visible;
    for (const Case& row : {
             Case{"the ridge is on fire", Wrap::wrap, 100, 0, visible, "the ridge|is on fire"},
             Case{"the ridge is on fire", Wrap::wrap, 90, 0, visible, "the ridge|is on|fire"},
             Case{"the ridge is on fire", Wrap::wrap, 0, 0, visible, "the ridge is on fire"},
             Case{"the ridge is on fire", Wrap::nowrap, 90, 0, visible, "the ridge is on fire"},
             Case{"drop now\nthen turn", Wrap::nowrap, 0, 0, visible, "drop now|then turn"},
             Case{"drop now\n\nthen", Wrap::wrap, 200, 0, visible, "drop now||then"},
             Case{"a\tb\r\n", Wrap::nowrap, 0, 0, visible, "a b|"},
             Case{"evacuation at noon", Wrap::wrap, 60, 0, visible, "evacua|tion|at|noon"},
             Case{"aaaa bb cc dd", Wrap::wrap, 100, 0, visible, "aaaa bb cc|dd"},
             Case{"aaaa bb cc dd", Wrap::balance, 100, 0, visible, "aaaa bb|cc dd"},
             Case{"one two three four", Wrap::wrap, 70, 2, visible, "one two|thre…"},
             Case{"one two three four", Wrap::wrap, 70, 3, visible, "one two|three|four"},
             Case{"one two three four", Wrap::wrap, 70, 1, visible, "one…"},
             Case{"one\ntwo\nthree", Wrap::nowrap, 0, 2, visible, "one|two…"},
             Case{"one two\nthree four five", Wrap::nowrap, 100, 0, Overflow::ellipsis, "one two|three f…"},
             Case{"é é é é", Wrap::wrap, 30, 0, visible, "é|é|é|é"},
             Case{"", Wrap::wrap, 30, 0, visible, ""},
         }) {
        BoxMeasurer measurer;
        Hud hud{HudDefinition{}, {}, &measurer};
        hud.resize({.size = {1280, 720}});
        const ElementRef text = hud.add(Text{.id = "t",
                                             .format = row.text,
                                             .place = {.max_size = {row.width, 0}},
                                             .size = 20,
                                             .wrap = row.wrap,
                                             .max_lines = row.max_lines,
                                             .overflow = row.overflow});
        update(hud, 16ms);
        const std::vector<DrawnLine> lines = lines_of(hud);
        EXPECT_EQ(joined(lines), row.lines) << row.text << " at " << row.width;
        EXPECT_EQ(hud[text].box.height, 20 * static_cast<float>(std::max<std::size_t>(lines.size(), 1)));
        for (std::size_t i = 0; i < lines.size(); ++i)
            EXPECT_EQ(lines[i].y, 15 + 20 * static_cast<float>(i)) << row.text;
        EXPECT_TRUE(hud.problems().empty());
    }
}

/// By hand: each line takes as many words as have room, of characters that are ten pixels wide.
std::string broken_at(const std::vector<std::string>& words, int width) {
    std::string all;
    int used = 0;
    for (const std::string& word : words) {
        const int wide = static_cast<int>(word.size()) * 10;
        const bool has_room = used > 0 && used + 10 + wide <= width;
        all += (all.empty() ? "" : has_room ? " " : "|") + word;
        used = has_room ? used + 10 + wide : wide;
    }
    return all;
}

TEST(Text, that_is_balanced_has_as_many_lines_and_the_narrowest_of_them) {
    Random random(12);
    BoxMeasurer measurer;
    for (int round = 0; round < 200; ++round) {
        std::vector<std::string> words(static_cast<std::size_t>(3 + random.below(9)));
        std::string text;
        for (std::string& word : words) {
            word = std::string(static_cast<std::size_t>(1 + random.below(6)), 'a');
            text += (text.empty() ? "" : " ") + word;
        }
        const int width = 60 + 10 * random.below(12);
        const auto lines_in = [](const std::string& broken) { return std::count(broken.begin(), broken.end(), '|'); };
        const std::string greedy = broken_at(words, width);
        std::size_t longest = 0;
        for (const std::string& word : words)
            longest = std::max(longest, word.size());
        int narrow = width;
        while (narrow > static_cast<int>(longest) * 10 && lines_in(broken_at(words, narrow - 10)) == lines_in(greedy))
            narrow -= 10;
        Hud hud{HudDefinition{}, {}, &measurer};
        hud.resize({.size = {1280, 720}});
        hud.add(Text{.id = "t",
                     .format = text,
                     .place = {.max_size = {static_cast<float>(width), 0}},
                     .size = 20,
                     .wrap = Wrap::balance});
        update(hud, 16ms);
        EXPECT_EQ(joined(lines_of(hud)), lines_in(greedy) > 0 ? broken_at(words, narrow) : greedy)
            << text << " in " << width;
    }
}

TEST(Text, of_several_lines_aligns_each_and_its_panel_grows_with_them) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    std::string said = "the ridge is on fire";
    const ElementRef panel = hud.add(Panel{.id = "p",
                                           .place = {.size = {0, 0}, .max_size = {120, 0}},
                                           .layout = Layout::column,
                                           .align = Align::stretch,
                                           .padding = {10, 10, 10, 10}});
    const ElementRef text = hud.add(Text{.id = "t",
                                         .value = watch(said),
                                         .inside = "p",
                                         .size = 20,
                                         .line_height = 1.5F,
                                         .wrap = Wrap::wrap,
                                         .align = TextAlign::end});
    const ElementRef below = hud.add(Bar{.id = "b", .value = 1, .inside = "p"});
    const auto check = [&](const std::vector<DrawnLine>& lines) {
        update(hud, 16ms);
        EXPECT_EQ(lines_of(hud), lines);
        const float high = 30 * static_cast<float>(lines.size());
        EXPECT_EQ(hud[text].box, (Rect{10, 10, 100, high}));
        EXPECT_EQ(hud[below].box.y, 10 + high);
        EXPECT_EQ(hud[panel].box.height, high + 32);
    };
    // Half of the 10 pixels that a line is higher than the font stands above it.
    check({{"the ridge", 20, 30}, {"is on fire", 10, 60}});
    said = "short";
    check({{"short", 60, 30}});
    said = "it is on fire again";
    check({{"it is on", 30, 30}, {"fire again", 10, 60}});
    hud.change<Panel>(panel, [](Panel& wider) { wider.place.max_size.width = 400; });
    update(hud, 16ms);
    EXPECT_EQ(joined(lines_of(hud)), "it is on fire again");
    EXPECT_EQ(hud[text].box.height, 30);
}

TEST(Text, lies_over_its_outline_and_its_shadow) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {2560, 1440}});
    const Color ink = rgb(0xffffff), line = rgb(0x111111), shade = rgb(0x222222, 0.5);
    struct Case {
        std::optional<Outline> outline;
        std::optional<Shadow> shadow;
        std::vector<std::tuple<Color, float, float, Point>> items;  ///< color, outline, blur, baseline
    };
    const Point at{0, 30}, shadow_at{4, 36};
    for (const Case& row : {
             Case{{}, {}, {{ink, 0.F, 0.F, at}}},
             Case{Outline{2, line}, {}, {{line, 4.F, 0.F, at}, {ink, 0.F, 0.F, at}}},
             Case{{}, Shadow{{2, 3}, 5, shade}, {{shade, 0.F, 10.F, shadow_at}, {ink, 0.F, 0.F, at}}},
             Case{Outline{2, line},
                  Shadow{{2, 3}, 5, shade},
                  {{shade, 4.F, 10.F, shadow_at}, {line, 4.F, 0.F, at}, {ink, 0.F, 0.F, at}}},
         }) {
        const ElementRef text = hud.add(
            Text{.id = "t", .format = "ab", .color = ink, .size = 20, .outline = row.outline, .shadow = row.shadow});
        update(hud, 16ms);
        DisplayList list;
        hud.draw(list);
        std::vector<std::tuple<Color, float, float, Point>> found;
        for (const DisplayItem& item : list.groups()[0].items()) {
            found.emplace_back(item.color, item.outline, item.blur, item.baseline);
            EXPECT_EQ(list.groups()[0].text_of(item), "ab");
            EXPECT_EQ(list.groups()[0].glyphs_of(item).size(), 2U);
        }
        EXPECT_EQ(found, row.items);
        hud.remove(text);
        update(hud, 16ms);
    }
}

TEST(Text, is_spaced_and_changes_its_letters_by_the_language) {
    Fonts fonts;
    const auto width_of = [&](float spacing) {
        Hud hud{HudDefinition{.font = "Inter"}, {}, &fonts};
        const ElementRef text = hud.add(Text{.id = "t", .format = "RIDGE", .size = 20, .letter_spacing = spacing});
        update(hud, 16ms);
        return hud[text].box.width;
    };
    EXPECT_NEAR(width_of(3), width_of(0) + 4 * 3, 0.01F);
    const auto seen = [&](const char* tag, const char* text, TextTransform transform) {
        Hud hud{HudDefinition{.font = "Inter"}, {}, &fonts};
        hud.set_language(*language(tag));
        const ElementRef added = hud.add(Text{.id = "t", .format = text, .transform = transform});
        update(hud, 16ms);
        EXPECT_EQ(hud.text_of(added), text) << "the text itself is as it was";
        return joined(lines_of(hud));
    };
    EXPECT_EQ(seen("de", "Straße frei", TextTransform::uppercase), "STRASSE FREI");
    EXPECT_EQ(seen("en", "ignite", TextTransform::uppercase), "IGNITE");
    EXPECT_EQ(seen("tr", "ignite", TextTransform::uppercase), "İGNİTE");
    EXPECT_EQ(seen("el", "ΦΩΤΙΑΣ", TextTransform::lowercase), "φωτιας");
}

TEST(Fonts, break_lines_by_the_rules_of_each_script) {
    Fonts fonts;
    const auto ends = [&](std::string_view text) {
        std::vector<LineEnd> found;
        fonts.find_line_ends(text, found);
        std::string marked;
        std::size_t at = 0;
        for (const LineEnd& end : found) {
            marked += std::string(text.substr(at, end.at - at)) + (end.must ? "!" : "|");
            at = end.at;
        }
        return marked + std::string(text.substr(at));
    };
    EXPECT_EQ(ends("the ridge, on fire"), "the |ridge, |on |fire|");
    EXPECT_EQ(ends("one\ntwo"), "one\n!two|");
    EXPECT_EQ(ends("5\u00a0km"), "5\u00a0km|") << "a no-break space";
    EXPECT_EQ(ends("村が危険。"), "村|が|危|険。|") << "no line begins with a full stop";
    EXPECT_EQ(ends("ไฟป่า"), "ไฟ|ป่า|") << "words without spaces, by a dictionary";
}

TEST(Fonts, never_part_a_letter_from_its_marks) {
    Fonts fonts;
    // A family, a flag, a letter with two marks, a syllable of Hindi and one of Korean in three letters: characters of UAX #29 by hand.
    const std::vector<std::string> characters{
        "\U0001F469\u200D\U0001F680", "\U0001F1E9\U0001F1EA", "e\u0301\u0323", "क्षि", "\u1112\u1161\u11ab", "a"};
    std::string text;
    std::vector<std::size_t> expected, found;
    for (const std::string& character : characters)
        expected.push_back((text += character).size());
    fonts.find_character_ends(text, found);
    EXPECT_EQ(found, expected);
    std::string word;
    for (int i = 0; i < 12; ++i)
        word += characters[2];
    // In every width a line, and what stands before an ellipsis, end where a character does.
    for (int room = 12; room < 120; room += 3) {
        for (const bool wraps : {true, false}) {
            Hud hud{HudDefinition{.font = "Inter"}, {}, &fonts};
            hud.resize({.size = {400, 300}});
            hud.add(Text{.id = "t",
                         .format = word,
                         .place = {.max_size = {static_cast<float>(room), 0}},
                         .size = 20,
                         .wrap = wraps ? Wrap::wrap : Wrap::nowrap,
                         .overflow = Overflow::ellipsis});
            update(hud, 16ms);
            for (const DrawnLine& drawn : lines_of(hud)) {
                std::string line = drawn.text;
                if (line.ends_with("…")) line.resize(line.size() - std::string("…").size());
                EXPECT_EQ(line.size() % characters[2].size(), 0U) << room << " " << line;
            }
        }
    }
}

TEST(Fonts, come_with_the_game_on_a_machine_that_has_none) {
    const std::string installed = [] {
        for (const auto& entry : std::filesystem::recursive_directory_iterator("/usr/share/fonts"))
            if (entry.path().filename() == "Inter-Bold.otf" || entry.path().filename() == "Inter-Bold.ttf")
                return entry.path().string();
        return std::string();
    }();
    ASSERT_FALSE(installed.empty());
    const TemporaryFolder folder;
    setenv("FONTCONFIG_FILE", folder.write("fonts.conf", "<fontconfig></fontconfig>").c_str(), 1);
    Fonts fonts, by_memory;
    EXPECT_FALSE(fonts.find("Inter", 700));
    EXPECT_FALSE(fonts.find("sans-serif", 400));
    ASSERT_TRUE(fonts.add_file(installed));
    ASSERT_TRUE(fonts.find("inter", 700));
    EXPECT_EQ(fonts.find("sans-serif", 400).has_value(), true);
    std::ifstream file(installed, std::ios::binary);
    const std::string bytes{std::istreambuf_iterator<char>(file), {}};
    ASSERT_TRUE(by_memory.add_memory(std::as_bytes(std::span(bytes))));
    EXPECT_TRUE(by_memory.find("serif", 700));

    // Where even the set-up of fonts is missing, a game that names its own alone does not come near it: fontconfig would say so.
    setenv("FONTCONFIG_FILE", "/nowhere/fonts.conf", 1);
    testing::internal::CaptureStderr();
    Fonts alone;
    EXPECT_TRUE(alone.add_file(installed));
    Hud hud({.font = "Inter"}, {}, &alone);
    hud.add(Text{.id = "a", .format = "1480 acres", .weight = 700});
    update(hud, 16ms);
    EXPECT_EQ(hud.problems(), Problems{});
    EXPECT_EQ(testing::internal::GetCapturedStderr(), "");
    unsetenv("FONTCONFIG_FILE");
    Fonts machine;
    std::vector<Glyph> own, copied, of_machine;
    const float width = fonts.shape(*fonts.find("Inter", 700), 20, "1480 acres", own);
    EXPECT_EQ(by_memory.shape(*by_memory.find("Inter", 700), 20, "1480 acres", copied), width);
    EXPECT_EQ(machine.shape(*machine.find("Inter", 700), 20, "1480 acres", of_machine), width);
    for (std::size_t i = 0; i < own.size(); ++i) {
        EXPECT_EQ(own[i].id, copied[i].id);
        EXPECT_EQ(own[i].offset, copied[i].offset);
    }
    EXPECT_GT(width, 50);
    for (const auto& [status, message] :
         {std::pair{fonts.add_file("/nowhere/at_all.ttf"),
                    "/nowhere/at_all.ttf: error: cannot be read: No such file or directory"},
          std::pair{fonts.add_memory(std::as_bytes(std::span(bytes).first(100))),
                    "font 1 in memory: error: cannot be read; use TrueType or OpenType"}}) {
        ASSERT_FALSE(status);
        EXPECT_EQ(to_string(status.problem()), message);
    }
}

TEST(Fonts, of_a_hud_stay_inside_its_folder) {
    const Result<HudDefinition> definition =
        read_hud("font_files = ['own.ttf', '../out.ttf', '/etc/hosts', 'none.ttf', 'text.ttf']", "h.toml");
    ASSERT_TRUE(definition);
    const TemporaryFolder folder;
    std::filesystem::create_directory(folder.path("hud"));
    std::filesystem::copy_file("/usr/share/fonts/truetype/dotgothic16/DotGothic16-Regular.ttf",
                               folder.path("hud/own.ttf"), std::filesystem::copy_options::overwrite_existing);
    std::filesystem::copy_file(folder.path("hud/own.ttf"), folder.path("out.ttf"),
                               std::filesystem::copy_options::overwrite_existing);
    folder.write("hud/text.ttf", "no font");
    const std::string whole = folder.path("hud");
    for (const auto& [file, says] : std::vector<std::pair<std::string, std::string>>{
             {"own.ttf", ""},
             {"../out.ttf",
              "../out.ttf: error: is not a path inside the folder of the HUD; put the font beside the HUD "
              "file"},
             {"/etc/hosts",
              "/etc/hosts: error: is not a path inside the folder of the HUD; put the font beside the HUD "
              "file"},
             {"none.ttf", "none.ttf: error: cannot be read: No such file or directory"},
         }) {
        Fonts fonts;
        const Status added = fonts.add_files(whole, std::vector<std::string>{file});
        EXPECT_EQ(added ? "" : to_string(added.problem()), says);
    }
    Fonts fonts;
    EXPECT_FALSE(fonts.add_files(whole, definition->font_files)) << "the first problem is told";
    EXPECT_TRUE(fonts.find("DotGothic16", 400)) << "and the others are added all the same";
}

}  // namespace lettering_test
}  // namespace rapido::test
