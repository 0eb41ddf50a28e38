// Pieces of a text: styles and pictures inside patterns and translations, never inside values.

#include "rapido/file.hpp"
#include "rapido/images.hpp"
#include "rapido/text.hpp"
#include "support.hpp"

namespace rapido::test {
namespace piece_test {

TEST(Format, takes_pieces_apart_and_tells_what_is_none) {
    const auto pieces_of = [](std::string_view pattern, const FieldValues& values) {
        Result<Format> format = Format::parse(pattern, {"h.toml", 1, 1});
        if (!format) return to_string(format.problems().front());
        FormattedText text(*format);
        text.update(values);
        std::string all(text.text());
        for (const TextPiece& piece : text.pieces())
            all += " " + std::string(piece.name) + (piece.is_image ? "/" : "") + "=" + std::to_string(piece.begin) +
                   "-" + std::to_string(piece.end);
        return all;
    };
    const std::string image = "\xef\xbf\xbc";
    for (const auto& [pattern, expected] : std::vector<std::pair<std::string, std::string>>{
             {"Hold {#strong}{}{/strong} to drop", "Hold 7 to drop strong=5-6"},
             {"{#a}x{#b}y{/b}{/a}z", "xyz a=0-2 b=1-2"},
             {"{#coin/} {}", image + " 7 coin/=0-3"},
             {"{}{#a} of {max}{/a}", "7 of 12 a=1-7"},
             {"{{#a}} {}", "{#a} 7"},
             {"{#a}x",
              "h.toml:1:1: error: format \"{#a}x\": a styled piece without its end; write '{/a}' behind "
              "it"},
             {"{ #a }x{ #b/ }{ /a }", "x" + image + " a=0-4 b/=1-4"},
             {"x{/a}", "h.toml:1:2: error: format \"x{/a}\": '{/a}' without a piece that it ends"},
             {"{#a}x{#b}y{/a}{/b}",
              "h.toml:1:11: error: format \"{#a}x{#b}y{/a}{/b}\": '{/a}' where the last piece is 'b'; write '{/b}' "
              "first"},
             {"{#a b}{/a}",
              "h.toml:1:1: error: format \"{#a b}{/a}\": '{#a b}' is no piece; write {#style}, {/style} or {#image/}, "
              "or "
              "'{{' for the brace itself"},
             {"{#/}",
              "h.toml:1:1: error: format \"{#/}\": '{#/}' is no piece; write {#style}, {/style} or {#image/}, or '{{' "
              "for "
              "the brace itself"},
             {"{/}",
              "h.toml:1:1: error: format \"{/}\": '{/}' is no piece; write {#style}, {/style} or {#image/}, or '{{' "
              "for "
              "the brace itself"},
             {"{<a>}x{</>}",
              "h.toml:1:1: error: format \"{<a>}x{</>}\": '{<a>}' is of version 0.1; write {#style}, {/style} and "
              "{#image/}, "
              "or let 'rapido format --from 0.1' do so"},
             {"{#a}{#a}{#a}{#a}{#a}{#a}{#a}{#a}{#a}",
              "h.toml:1:33: error: format \"{#a}{#a}{#a}{#a}{#a}{#a}{#a}{#a}{#a}\": pieces are "
              "nested more than 8 deep"},
         })
        EXPECT_EQ(pieces_of(pattern, {.value = 7, .max = 12}), expected) << pattern;
    // What a value says is shown as it is.
    EXPECT_EQ(pieces_of("{}", {.value = Value(std::string_view("{#a}{/a}"))}), "{#a}{/a}");
}

struct Part {
    std::string text;
    Color color;
    float size, x;
    friend bool operator==(const Part&, const Part&) = default;
};

std::vector<Part> parts_of(const Hud& hud) {
    DisplayList list;
    hud.draw(list);
    std::vector<Part> parts;
    for (const DisplayGroup& group : list.groups())
        for (const DisplayItem& item : group.items()) {
            if (item.kind == DisplayItem::Kind::text)
                parts.push_back({std::string(group.text_of(item)), item.color, item.size, item.baseline.x});
            if (item.kind == DisplayItem::Kind::image)
                parts.push_back({"picture", item.color, item.rect.height, item.rect.x});
        }
    return parts;
}

TEST(Text, has_pieces_with_looks_of_their_own) {
    const Color ink = rgb(0xf2efe6), amber = rgb(0xffc24a), red = rgb(0xff0000), white = rgb(0xffffff);
    const Result<HudDefinition> definition = read_hud(R"(
[theme.a.color]
warm = "#ffc24a"
[theme.b.color]
warm = "#00ff00"
[style.strong]
color = "warm"
size = 40
[style.plain]
weight = 700
layout = "row"
[[element]]
kind = "text"
id = "t"
value = "n"
format = "Hold {#strong}{}{/strong}{#plain} s{/plain} {#coin/}"
bands = [{ above = 10, color = "#ff0000" }]
size = 20
place = { offset = [0, 0] }
)",
                                                      "h.toml");
    ASSERT_TRUE(definition) << to_string(definition.problems().front());
    BoxMeasurer measurer;
    Images images;
    std::vector<Color> pixels(8, amber);
    ASSERT_TRUE(images.add("coin.png", 4, 2, pixels));
    int n = 7;
    Sources sources;
    sources.set("n", watch(n));
    Hud hud(*definition, sources, &measurer, &images);
    hud.resize({.size = {1280, 720}});
    update(hud, 16ms);
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
    // A character is half as wide as its size, and a picture twice as wide as high.
    EXPECT_EQ(parts_of(hud), (std::vector<Part>{{"Hold ", ink, 20, 0},
                                                {"7", amber, 40, 50},
                                                {" s", ink, 20, 70},
                                                {" ", ink, 20, 90},
                                                {"picture", white, 20, 100}}));
    const ElementRef text = hud.find("t");
    EXPECT_EQ(hud.text_of(text), "Hold 7 s \xef\xbf\xbc");
    EXPECT_EQ(hud[text].box, (Rect{0, 0, 140, 40})) << "as high as the highest of its fonts";
    n = 12;
    update(hud, 16ms);
    hud.set_theme("b");
    update(hud, 16ms);
    EXPECT_EQ(parts_of(hud), (std::vector<Part>{{"Hold ", red, 20, 0},
                                                {"12", rgb(0x00ff00), 40, 50},
                                                {" s", red, 20, 90},
                                                {" ", red, 20, 110},
                                                {"picture", white, 20, 120}}))
        << "a band colors what has no color of its own";

    // A translation may reorder pieces and leave them out.
    Language german{.tag = "de"};
    german.translations["Hold {#strong}{}{/strong}{#plain} s{/plain} {#coin/}"]
        .forms[static_cast<std::size_t>(PluralCategory::other)] = "{#coin/}{#strong}{}{/strong} halten";
    hud.set_language(german);
    update(hud, 16ms);
    EXPECT_EQ(parts_of(hud),
              (std::vector<Part>{{"picture", white, 20, 0}, {"12", rgb(0x00ff00), 40, 40}, {" halten", red, 20, 80}}));
    EXPECT_TRUE(hud.problems().empty());
}

TEST(Text, shows_the_picture_that_a_value_chooses) {
    Images images;
    for (const auto& [name, width] : {std::pair{"key.png", 2}, {"pad.png", 1}, {"coin.png", 3}})
        ASSERT_TRUE(images.add(name, width, 1, std::vector<Color>(static_cast<std::size_t>(width))));
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer, &images};
    double device = 0;
    int cost = 5;
    const auto hint = hud.add(Text{.id = "hint",
                                   .value = watch(cost),
                                   .inline_images = {{"button", watch(device), {"key.png", "pad.png"}}},
                                   .format = "{#button/} buy for {} {#coin/}",
                                   .size = 10});
    EXPECT_EQ(hud.problems(), Problems{});
    const float words = 5 * 11;  // characters of half an em
    // As wide as its own shape at the height of the text; the coin is always 30.
    for (const auto& [number, width] :
         std::vector<std::pair<double, float>>{{0, 20}, {1, 10}, {1.9, 10}, {7, 10}, {-3, 20}, {1, 10}, {NAN, 20}}) {
        device = number;
        update(hud, 16ms);
        EXPECT_EQ(hud[hint].box.width, width + words + 30) << number;
        EXPECT_EQ(parts_of(hud).front().text, "picture");
    }
    device = 1;
    Language german{.tag = "de"};
    german.translations["{#button/} buy for {} {#coin/}"].forms.back() = "{} {#coin/}: {#button/}";
    hud.set_language(german);
    update(hud, 16ms);
    EXPECT_EQ(hud[hint].box.width, 10 + 5 * 4 + 30) << "the choice stays in another language";
    EXPECT_TRUE(hud.set_format(hint, "{#button/}"));
    update(hud, 16ms);
    EXPECT_EQ(hud[hint].box.width, 10) << "and in another format";
    hud.add(Text{.id = "none", .inline_images = {{"x", 0, {}}}, .format = "{#x/}"});
    EXPECT_EQ(to_string(hud.problems().back()), "error: 'inline_images' of text 'none': of 'x' has no images");
}

TEST(Notice, shows_the_picture_that_a_value_chooses) {
    for (const int at_most : {1, 3}) {
        Images images;
        for (const auto& [name, width] : {std::pair{"key.png", 2}, {"pad.png", 1}})
            ASSERT_TRUE(images.add(name, width, 1, std::vector<Color>(static_cast<std::size_t>(width))));
        BoxMeasurer measurer;
        Hud hud{HudDefinition{}, {}, &measurer, &images};
        double device = 0;
        const auto news = hud.add(Notice{.id = "news",
                                         .messages = {{.id = "hint", .text = "{#button/} drop", .lasting = true}},
                                         .inline_images = {{"button", watch(device), {"key.png", "pad.png"}}},
                                         .at_most = at_most,
                                         .padding = {0, 0, 0, 0},
                                         .size = 10});
        const auto said = at_most > 1 ? hud.find("news.1") : news;
        EXPECT_TRUE(hud.notify(news, "hint"));
        const float words = 5 * 5;  // characters of half an em
        for (const auto& [number, width] : std::vector<std::pair<double, float>>{{0, 20}, {1, 10}, {0, 20}}) {
            device = number;
            update(hud, 16ms);
            EXPECT_EQ(hud[said].box.width, width + words) << number << at_most;
        }
        device = 1;
        update(hud, 16ms);
        EXPECT_TRUE(hud.dismiss(news, "hint"));
        update(hud, 2s);
        EXPECT_TRUE(hud.notify(news, {.text = "{#button/}"}));
        update(hud, 16ms);
        // The plate that was free the longest says it.
        const auto next = at_most > 1 ? hud.find("news.2") : news;
        EXPECT_EQ(hud[next].box.width, 10) << "also in what the game says";
        EXPECT_EQ(hud.problems(), Problems{});
    }
}

TEST(Text, breaks_cuts_and_capitalizes_pieces_as_all_others) {
    BoxMeasurer measurer;
    const auto seen = [&](Text text) {
        Hud hud{HudDefinition{.styles = {{.id = "b", .size = 20}}}, {}, &measurer};
        hud.resize({.size = {1280, 720}});
        text.id = "t";
        text.size = 20;
        hud.add(text);
        update(hud, 16ms);
        std::string all;
        float last = -1;
        DisplayList list;
        hud.draw(list);
        for (const DisplayGroup& group : list.groups())
            for (const DisplayItem& item : group.items()) {
                all += item.baseline.y == last ? "+" : "|";
                last = item.baseline.y;
                all += group.text_of(item);
            }
        return all;
    };
    EXPECT_EQ(seen({.format = "one {#b}two three{/b} four", .place = {.max_size = {90, 0}}, .wrap = Wrap::wrap}),
              "|one +two|three|four");
    EXPECT_EQ(
        seen({.format = "one {#b}two three{/b}", .place = {.max_size = {100, 0}}, .overflow = Overflow::ellipsis}),
        "|one +two…");
    EXPECT_EQ(seen({.format = "a{#b}b\tc{/b}d", .transform = TextTransform::uppercase}), "|A+B C+D");
}

TEST(Notice, has_pieces_and_unknown_ones_are_told) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{.styles = {{.id = "strong", .color = rgb(0xff0000)}}}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    const ElementRef news = hud.add(Notice{.id = "n"});
    EXPECT_TRUE(hud.notify(news, {.text = "Leave {#strong}now{/strong}"}));
    hud.notify(news, {.text = "Leave {#strong}now{/strong}"});
    update(hud, 16ms);
    const std::vector<Part> parts = parts_of(hud);
    ASSERT_EQ(parts.size(), 3U);
    EXPECT_EQ(parts[1].text, "now");
    EXPECT_EQ(parts[1].color.red, 255);
    EXPECT_EQ(parts[1].color.green, 0);
    EXPECT_EQ(parts[2].text, " ×2");
    EXPECT_FALSE(hud.notify(news, {.text = "{#strnog}now{/strnog}"}));
    EXPECT_NE(to_string(hud.problems().back()).find("no style 'strnog'; did you mean 'strong'?"), std::string::npos)
        << to_string(hud.problems().back());
    EXPECT_FALSE(hud.add(Text{.id = "t", .format = "{#x}a{/x}"}));
}

TEST(Notice, is_announced_in_the_words_that_it_shows) {
    Images images;
    ASSERT_TRUE(images.add("coin.png", 1, 1, std::vector<Color>(1)));
    Hud hud{HudDefinition{}, {}, nullptr, &images};
    hud.add(TextStyle{.id = "strong", .weight = 700});
    const auto news = hud.add(Notice{.id = "news"});
    const auto log = hud.add(Notice{.id = "log", .at_most = 2});
    EXPECT_TRUE(hud.announcements().empty());
    hud.notify(news, {.text = "Pay {#strong}{}{/strong} {#coin/}", .value = 5, .priority = 2});
    hud.notify(log, {.id = "a", .text = "Refilled"});
    update(hud, 16ms);
    const std::vector<Announcement> said(hud.announcements().begin(), hud.announcements().end());
    EXPECT_EQ(said, (std::vector<Announcement>{{"news", "Pay 5 coin", 2}, {"log", "Refilled", 0}}));
    update(hud, 16ms);
    EXPECT_TRUE(hud.announcements().empty()) << "once each";
}

TEST(Hud, is_shown_hidden_and_dimmed_as_a_whole) {
    BoxMeasurer measurer;
    Hud hud{HudDefinition{}, {}, &measurer};
    hud.resize({.size = {1280, 720}});
    hud.add(Panel{.id = "p"});
    const ElementRef text = hud.add(Text{.id = "t", .format = "x", .inside = "p", .opacity = 0.5F});
    hud.set_opacity(0.5F);
    update(hud, 16ms);
    EXPECT_FLOAT_EQ(hud[text].opacity, 0.25F);
    hud.set_visible(false);
    update(hud, 16ms);
    EXPECT_FALSE(hud[text].visible);
    hud.set_visible(true);
    hud.set_opacity(2);
    update(hud, 16ms);
    EXPECT_TRUE(hud[text].visible);
    EXPECT_FLOAT_EQ(hud[text].opacity, 0.5F);
}

}  // namespace piece_test
}  // namespace rapido::test
