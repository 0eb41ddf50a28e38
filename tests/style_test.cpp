// Styles, components and nested elements of HUD files, against the same HUD written out in full.
#include <gtest/gtest.h>

#include "rapido/file.hpp"
#include "rapido/rapido.hpp"
#include "support.hpp"

namespace rapido {
namespace style_test {

/// Reads a file that must be right.
HudDefinition read(const std::string& text) {
    Result<HudDefinition> read = read_hud(text, "hud.toml");
    if (!read) {
        for (const Problem& problem : read.problems())
            ADD_FAILURE() << to_string(problem);
        return {};
    }
    return *std::move(read);
}

struct Same {
    const char* what;
    const char* brief;
    const char* in_full;
};

TEST(Style, and_component_and_nesting_say_the_same_as_what_is_written_in_full) {
    for (const Same& row : {
             Same{"a style gives its fields, in tables and lists, too",
                  R"([style.warm]
                     size = 13
                     place = { anchor = "top", offset = [0, 8] }
                     bands = [{ below = 1, color = "#ff0000" }]
                     [[element]]
                     kind = "text"
                     id = "a"
                     style = "warm"
                     color = "#102030")",
                  R"([[element]]
                     kind = "text"
                     id = "a"
                     size = 13
                     place = { anchor = "top", offset = [0, 8] }
                     bands = [{ below = 1, color = "#ff0000" }]
                     color = "#102030")"},
             Same{"later styles replace earlier ones and the element's own keys all of them, field by field; "
                  "a list is one "
                  "field",
                  R"([style.first]
                     size = 13
                     weight = 600
                     place = { anchor = "top", offset = [0, 8] }
                     bands = [{ below = 1, color = "#ff0000" }, { below = 2 }]
                     [style.second]
                     weight = 700
                     values = { hp = "a" }
                     [[element]]
                     kind = "text"
                     id = "a"
                     style = ["first", "second"]
                     size = 20
                     place = { offset = [4, 0] }
                     values = { max = "b" }
                     bands = [{ below = 3 }])",
                  R"([[element]]
                     kind = "text"
                     id = "a"
                     size = 20
                     weight = 700
                     place = { anchor = "top", offset = [4, 0] }
                     values = { max = "b" }
                     bands = [{ below = 3 }])"},
             Same{"what a kind must have may come from a style",
                  R"([style.water]
                     value = "plane.water"
                     max = 3
                     [[element]]
                     kind = "bar"
                     id = "a"
                     style = "water")",
                  R"([[element]]
                     kind = "bar"
                     id = "a"
                     value = "plane.water"
                     max = 3)"},
             Same{"elements in the list of a panel stand inside it",
                  R"([[element]]
                     kind = "panel"
                     id = "a"
                     element = [{ kind = "panel", id = "b", element = [{ kind = "text", id = "c" }] }]
                     [[element]]
                     kind = "panel"
                     id = "d"
                     [[element.element]]
                     kind = "text"
                     id = "e")",
                  R"([[element]]
                     kind = "panel"
                     id = "a"
                     [[element]]
                     kind = "panel"
                     id = "b"
                     inside = "a"
                     [[element]]
                     kind = "text"
                     id = "c"
                     inside = "a.b"
                     [[element]]
                     kind = "panel"
                     id = "d"
                     [[element]]
                     kind = "text"
                     id = "e"
                     inside = "d")"},
             Same{"a stamp is a panel without a plate, and its values stand for the parameters, of any type",
                  R"([component.gauge]
                     parameters = { value = "source", max = "source", caption = "text", tint = { type = "color", default = "#8fce5a" }, wide = "number", low = "any" }
                     layout = "column"
                     gap = 6
                     [[component.gauge.element]]
                     kind = "text"
                     id = "caption"
                     format = "$caption"
                     [[component.gauge.element]]
                     kind = "bar"
                     id = "bar"
                     value = "$value"
                     max = "$max"
                     color = "$tint"
                     place = { size = ["$wide", 8] }
                     bands = [{ below = "$low", color = "$tint" }]
                     [[element]]
                     kind = "gauge"
                     id = "fuel"
                     place = { anchor = "top" }
                     layer = 3
                     gap = 9
                     value = "plane.fuel"
                     max = 1200
                     caption = "FUEL"
                     wide = 90
                     low = 0.25
                     [[element]]
                     kind = "gauge"
                     id = "water"
                     value = { source = "plane.water", time_left = true }
                     max = "plane.tank"
                     caption = "$5 WATER $value"
                     tint = "#38b6c9"
                     wide = 80
                     low = 1)",
                  R"([[element]]
                     kind = "panel"
                     id = "fuel"
                     plate = false
                     layout = "column"
                     gap = 9
                     layer = 3
                     place = { anchor = "top" }
                     [[element]]
                     kind = "text"
                     id = "caption"
                     inside = "fuel"
                     format = "FUEL"
                     [[element]]
                     kind = "bar"
                     id = "bar"
                     inside = "fuel"
                     value = "plane.fuel"
                     max = 1200
                     color = "#8fce5a"
                     place = { size = [90, 8] }
                     bands = [{ below = 0.25, color = "#8fce5a" }]
                     [[element]]
                     kind = "panel"
                     id = "water"
                     plate = false
                     layout = "column"
                     gap = 6
                     [[element]]
                     kind = "text"
                     id = "caption"
                     inside = "water"
                     format = "$5 WATER $value"
                     [[element]]
                     kind = "bar"
                     id = "bar"
                     inside = "water"
                     value = { source = "plane.water", time_left = true }
                     max = "plane.tank"
                     color = "#38b6c9"
                     place = { size = [80, 8] }
                     bands = [{ below = 1, color = "#38b6c9" }])"},
             Same{"a parameter may be negated, continued and left out, and a dollar sign may be written",
                  R"([component.part]
                     parameters = { of = "source", hint = { type = "text", optional = true }, shown = { type = "source", default = "!plane.down" } }
                     element = [
                         { kind = "text", id = "a", value = "$of.health", visible = "!$of.dead", format = "$$name" },
                         { kind = "text", id = "b", visible = "!$shown", format = "$hint" },
                     ]
                     [[element]]
                     kind = "part"
                     id = "x"
                     of = "wing.left")",
                  R"([[element]]
                     kind = "panel"
                     id = "x"
                     plate = false
                     [[element]]
                     kind = "text"
                     id = "a"
                     inside = "x"
                     value = "wing.left.health"
                     visible = "!wing.left.dead"
                     format = "$name"
                     [[element]]
                     kind = "text"
                     id = "b"
                     inside = "x"
                     visible = "plane.down")"},
             Same{"components stand inside components, names are looked up from the inside out, and a stamp "
                  "holds more",
                  R"([component.number]
                     parameters = { value = "source" }
                     element = [
                         { kind = "text", id = "total", value = "$value" },
                         { kind = "text", id = "gain", value = "total.pending", visible = "!other.pending" },
                     ]
                     [component.pair]
                     parameters = { left = "source" }
                     element = [
                         { kind = "number", id = "first", value = "$left" },
                         { kind = "text", id = "other" },
                         { kind = "notice", id = "news", messages = [{ text = "x", on = "full", element = "first.total" }] },
                     ]
                     [[element]]
                     kind = "pair"
                     id = "p"
                     left = "mission.acres"
                     element = [{ kind = "text", id = "more", value = "total.pending" }])",
                  R"([[element]]
                     kind = "panel"
                     id = "p"
                     plate = false
                     [[element]]
                     kind = "panel"
                     id = "first"
                     inside = "p"
                     plate = false
                     [[element]]
                     kind = "text"
                     id = "total"
                     inside = "p.first"
                     value = "mission.acres"
                     [[element]]
                     kind = "text"
                     id = "gain"
                     inside = "p.first"
                     value = "p.first.total.pending"
                     visible = "!p.other.pending"
                     [[element]]
                     kind = "text"
                     id = "other"
                     inside = "p"
                     [[element]]
                     kind = "notice"
                     id = "news"
                     inside = "p"
                     messages = [{ text = "x", on = "full", element = "p.first.total" }]
                     [[element]]
                     kind = "text"
                     id = "more"
                     inside = "p"
                     value = "total.pending")"},
         }) {
        const HudDefinition brief = read(row.brief);
        const HudDefinition in_full = read(row.in_full);
        ASSERT_EQ(brief.elements.size(), in_full.elements.size()) << row.what;
        for (std::size_t i = 0; i < brief.elements.size(); ++i)
            EXPECT_EQ(brief.elements[i], in_full.elements[i]) << row.what << ", element " << i;
    }
}

struct Fault {
    const char* file;
    const char* problem;  ///< all of them, one a line
};

TEST(Style, and_component_tell_their_faults_at_the_place_where_they_are_mended) {
    for (const Fault& row : {
             Fault{"[style.a]\nsize = 1\n[[element]]\nkind = 'text'\nid = 't'\nstyle = 'b'",
                   "hud.toml:6:9: error: 'style' of text 't': no style 'b'; did you mean 'a'?\n"},
             Fault{"[style.caption]\n[[element]]\nkind = 'text'\nid = 't'\nstyle = ['capton', 3]",
                   "hud.toml:5:10: error: 'style' of text 't': no style 'capton'; did you mean 'caption'?\n"
                   "hud.toml:5:20: error: 'style' of text 't' is a number; expected the name of a style, or "
                   "a list of names\n"},
             Fault{"[style.a]\nweight = 600\n[[element]]\nkind = 'bar'\nid = 'b'\nvalue = 1\nmax = 2\nstyle "
                   "= 'a'",
                   "hud.toml:8:9: error: bar 'b' takes no 'weight' from a style; use a style with fields of "
                   "bar alone\n"},
             Fault{"[style.a]\nwieght = 600",
                   "hud.toml:2:1: error: unknown key 'wieght' in style 'a'; did you mean 'weight'?\n"},
             Fault{"[style.a]\nweight = 'bold'",
                   "hud.toml:2:10: error: 'weight' of style 'a' is a text; expected a whole number; write 700\n"},
             Fault{"style = 3\n[component]\nx = 3",
                   "hud.toml:1:9: error: 'style' is a number; expected tables, [style.NAME]\n"
                   "hud.toml:3:5: error: component 'x' is a number; expected a table\n"},
             // A style is as faulty as it is, however often it is used.
             Fault{"[style.a]\nweight = 'bold'\n[[element]]\nkind = 'text'\nid = 't'\nstyle = ['a', 'a']",
                   "hud.toml:2:10: error: 'weight' of text 't' is a text; expected a whole number; write 700\n"},
             Fault{"[component.text]", "hud.toml:1:12: error: component 'text' has the name of a kind of element\n"},
             Fault{"[component.a]\nparamters = {}",
                   "hud.toml:2:1: error: unknown key 'paramters' in component 'a'; did you mean "
                   "'parameters'?\n"},
             Fault{"[component.a]\nparameters = { gap = 'number', x = 'numbr', y = { optional = 1 } }",
                   "hud.toml:2:16: error: parameter 'gap' of component 'a' has the name of a key of panels\n"
                   "hud.toml:2:36: error: parameter 'x' of component 'a' is 'numbr'; expected one of any, "
                   "source, "
                   "text, number, "
                   "flag or color; did you mean 'number'?\n"
                   "hud.toml:2:62: error: 'optional' of parameter 'y' of component 'a' is a number; expected "
                   "true or false\n"},
             Fault{"[component.a]\nparameters = { value = 'source' }\n[[component.a.element]]\nkind = "
                   "'text'\nid = "
                   "'t'\nvalue = '$valeu'\n[[element]]\nkind = 'a'\nid = 'x'\nvalue = 1\n[[element]]\nkind = "
                   "'a'\nid = "
                   "'y'\nvalue = 1",
                   "hud.toml:6:9: error: component 'a' has no parameter 'valeu'; did you mean 'value'?\n"},
             Fault{"[component.a]\nparameters = { value = 'source', tint = 'color' }\n[[element]]\nkind = "
                   "'a'\nid = "
                   "'x'\ntint = 3",
                   "hud.toml:3:1: error: a 'x' has no 'value'\n"
                   "hud.toml:6:8: error: 'tint' of a 'x' is a number; expected a color as \"#rrggbb\" or "
                   "\"#rrggbbaa\"\n"},
             Fault{"[component.a]\nparameters = { value = 'source' }\n[[element]]\nkind = 'a'\nid = "
                   "'x'\nvalue = 1\nvlue = 2",
                   "hud.toml:7:1: error: unknown key 'vlue' in a 'x'; did you mean 'value'?\n"},
             // A fault in a value is at the stamp, one in the component there.
             Fault{"[component.a]\nparameters = { n = 'any' }\n[[component.a.element]]\nkind = 'text'\nid = "
                   "'t'\nsize = "
                   "'$n'\nweight = 'x'\n[[element]]\nkind = 'a'\nid = 'x'\nn = 'big'",
                   "hud.toml:7:10: error: 'weight' of text 't' is a text; expected a whole number\n"
                   "hud.toml:11:5: error: 'size' of text 't' is a text; expected a number\n"},
             Fault{"[component.a]\n[[component.a.element]]\nkind = 'a'\nid = 'b'\n[[element]]\nkind = "
                   "'a'\nid = 'x'",
                   "hud.toml:2:1: error: a 'b' stands inside 16 other components; a component cannot hold "
                   "itself\n"},
             Fault{"[[element]]\nkind = 'panel'\nid = 'p'\n[[element.element]]\nkind = 'text'\nid = "
                   "'t'\ninside = 'q'",
                   "hud.toml:7:10: error: 'inside' of text 't': it stands in the list of 'p' already; leave "
                   "'inside' away, or "
                   "take it out of the list\n"},
             Fault{"[[element]]\nkind = 'text'\nid = 't'\nelement = []",
                   "hud.toml:4:1: error: unknown key 'element' in text 't'\n"},
             Fault{"[component.gauge]\n[[element]]\nkind = 'gage'\nid = 't'",
                   "hud.toml:3:8: error: unknown kind 'gage'; expected one of panel, text, bar, ring, level, "
                   "pips, "
                   "dial, ruler, graph, "
                   "image, notice, list, markers, pop_ups or gauge; did you mean 'gauge'?\n"},
         }) {
        std::string found;
        for (const Problem& problem : read_hud(row.file, "hud.toml").problems())
            found += to_string(problem) + "\n";
        EXPECT_EQ(found, row.problem) << row.file;
    }
}

TEST(Component, that_grows_without_end_is_refused_before_it_takes_gigabytes) {
    std::string doubling;
    for (int i = 0; i < 14; ++i) {
        const std::string inner = i == 0 ? "kind = 'text'" : "kind = 'c" + std::to_string(i - 1) + "'";
        doubling += "[component.c" + std::to_string(i) + "]\nelement = [{ " + inner + ", id = 'a' }, { " + inner +
                    ", id = 'b' }]\n";
    }
    const auto problems = read_hud(doubling + "[[element]]\nkind = 'c13'\nid = 'x'", "hud.toml").problems();
    ASSERT_FALSE(problems.empty());
    EXPECT_NE(to_string(problems.back()).find("more than 4000 elements"), std::string::npos)
        << to_string(problems.back());

    std::string wide = "[component.c]\nparameters = { x = { type = 'any', default = [";
    for (int i = 0; i < 20000; ++i)
        wide += "1,";
    wide += "] } }\nelement = [{ kind = 'text', id = 'a', x = '$x' }]\n";
    for (int i = 0; i < 100; ++i)
        wide += "[[element]]\nkind = 'c'\nid = 'x" + std::to_string(i) + "'\n";
    const auto large = read_hud(wide, "hud.toml").problems();
    EXPECT_TRUE(std::any_of(large.begin(), large.end(), [](const Problem& problem) {
        return problem.message.find("makes the HUD larger than one can be") != std::string::npos;
    }));
}

TEST(Panel, is_found_by_the_end_of_its_path_where_only_one_ends_so) {
    const auto paths = [](HudDefinition definition) {
        Hud hud(definition, {});
        std::string all;
        for (const char* path : {"a.b.t", "c.b.t", "a.b.d.u", "b.t", "d.u"})
            all += hud.find(path) ? std::string(path) + " " : "";
        for (const Problem& problem : hud.problems())
            if (problem.message.starts_with("'")) all += to_string(problem) + "; ";
        return all;
    };
    const Panel a{.id = "a"}, b{.id = "b", .inside = "a"}, c{.id = "c"}, other_b{.id = "b", .inside = "c"};
    const Text t{.id = "t", .format = "x", .inside = "b"};
    EXPECT_EQ(paths({.elements = {a, b, t}}), "a.b.t b.t ");
    // Also before it is added, and through a panel that is named so itself.
    EXPECT_EQ(
        paths({.elements = {Text{.id = "u", .format = "x", .inside = "d"}, Panel{.id = "d", .inside = "b"}, a, b, t}}),
        "a.b.t a.b.d.u b.t d.u ");
    EXPECT_EQ(paths({.elements = {a, b, c, other_b, Text{.id = "t", .format = "x", .inside = "c.b"}}}), "c.b.t b.t ");
    EXPECT_EQ(paths({.elements = {a, b, c, other_b, t}}),
              "error: 'inside' of text 'b.t': several panels end with 'b'; give more of the path; ");
}

}  // namespace style_test
}  // namespace rapido
