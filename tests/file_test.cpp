#include "rapido/file.hpp"

#include "support.hpp"

namespace rapido::test {
namespace file_test {

std::vector<std::string> texts(const Problems& problems) {
    std::vector<std::string> found;
    for (const Problem& problem : problems)
        found.push_back(to_string(problem));
    return found;
}

TEST(HudFile, says_the_same_as_the_structs) {
    const auto read = read_hud(R"(
design = [1920, 1080]
font = "Inter"
[[timer]]
id = "evacuation"
duration = 45
start_when = "mission.evacuating"
[[frame_meter]]
id = "frames"
interval = 0.25
[[element]]
kind = "panel"
id = "plate"
place = { anchor = "top_right", offset = [24, 16.5], size = [100, 0] }
padding = [4, 8]
color = "#10161ccc"
[[element]]
kind = "text"
id = "acres"
inside = "plate"
value = "mission.acres_saved"
max = 5000
format = "{} acres saved"
placeholder = "none"
rounding = "down"
motion = { kind = "tween", duration = 0.6, easing = "ease-in" }
weight = 700
size = 32
visible = "!mission.paused"
[[element]]
kind = "bar"
id = "water"
value = "plane.water"
max = 640.5
direction = "up"
layer = -3
)",
                               "hud.toml");
    ASSERT_EQ(texts(read.problems()), std::vector<std::string>{});
    HudDefinition expected;
    expected.design = {1920, 1080};
    expected.font = "Inter";
    expected.timers = {Timer{.id = "evacuation", .duration = 45s, .start_when = "mission.evacuating"}};
    expected.frame_meters = {FrameMeter{.id = "frames", .interval = 250ms}};
    expected.elements = {
        Panel{.id = "plate",
              .place = {.anchor = Anchor::top_right, .offset = {24, 16.5F}, .size = {100, 0}},
              .padding = {4, 8, 4, 8},
              .color = rgb(0x10161c, 0.8)},
        Text{.id = "acres",
             .value = "mission.acres_saved",
             .max = 5000,
             .format = "{} acres saved",
             .placeholder = "none",
             .rounding = Rounding::down,
             .motion = tween(600ms, Easing::ease_in()),
             .inside = "plate",
             .weight = 700,
             .size = 32,
             .visible = "!mission.paused"},
        Bar{.id = "water", .value = "plane.water", .max = 640.5, .direction = Direction::up, .layer = -3}};
    // The file's 5000 is 64 bits wide, the literal in C++ is not: both are the integer 5000.
    EXPECT_EQ(*read, expected);
}

TEST(HudFile, gives_every_fault_in_one_pass_with_its_place_and_a_hint) {
    const std::string text = R"(desgin = [1280, 800]
[[element]]
kind = "text"
id = "acres"
formt = "{} acres"
value = "mission.acres"
[[element]]
kind = "txt"
id = "score"
[[element]]
kind = "bar"
id = "water"
color = "teal"
value = "mission.acres"
motion = { kind = "tweeen", duration = -1, easing = "ease-outt" }
place = { anchor = "top_rihgt", offset = [1], size = "big" }
[[element]]
kind = "text"
value = 3
size = 0
weight = 4.5
format = "{:.f}"
layer = 99999
padding = 2
[[timer]]
duration = "long"
[[element]]
kind = "text"
id = "lost"
inside = "nowhere"
format = "x"
[[element]]
kind = "text"
id = "in_dropped"
inside = "score"
format = "x"
)";
    const std::vector<std::string> expected{
        "hud.toml:1:1: error: unknown key 'desgin' in the HUD; did you mean 'design'?",
        "hud.toml:5:1: error: unknown key 'formt' in text 'acres'; did you mean 'format'?",
        "hud.toml:8:8: error: unknown kind 'txt'; expected one of panel, text, bar, ring, level, pips, dial, "
        "ruler, graph, image, notice, list, markers or pop_ups; did you "
        "mean "
        "'text'?",
        "hud.toml:13:9: error: 'color' of bar 'water' is 'teal'; expected a color as \"#rrggbb\" or "
        "\"#rrggbbaa\"; write \"#008080\"",
        "hud.toml:15:19: error: 'motion.kind' of bar 'water' is 'tweeen'; expected one of instant, "
        "tween, spring or roll; did you mean 'tween'?",
        "hud.toml:15:40: error: 'motion.duration' of bar 'water' is -1; expected 0 to 3600 s",
        "hud.toml:15:54: error: 'motion.easing' of bar 'water': easing 'ease-outt': expected one of linear, "
        "ease, ease-in, ease-out, ease-in-out, step-start, step-end, cubic-bezier(), steps() or linear(); "
        "did you mean 'ease-out'?",
        "hud.toml:16:20: error: 'place.anchor' of bar 'water' is 'top_rihgt'; expected one of top_left, top, "
        "top_right, "
        "left, center, right, bottom_left, bottom or bottom_right; did you mean 'top_right'?",
        "hud.toml:16:42: error: 'place.offset' of bar 'water' is a list; expected two numbers, [x, y]",
        "hud.toml:16:54: error: 'place.size' of bar 'water' is a text; expected two numbers, [width, height]",
        "hud.toml:17:1: error: text has no 'id'",
        "hud.toml:20:8: error: 'size' of text is 0; expected 1 to 10000 px",
        "hud.toml:21:10: error: 'weight' of text is a number; expected a whole number",
        "hud.toml:22:14: error: text '': format \"{:.f}\": a precision needs digits after its '.'",
        "hud.toml:23:9: error: 'layer' of text is 99999; expected -1000 to 1000",
        "hud.toml:24:1: error: unknown key 'padding' in text",
        "hud.toml:25:1: error: timer has no 'id'",
        "hud.toml:26:12: error: 'duration' of timer is a text; expected a number",
        // What a fault of the reading explains is not told: there is no panel 'score', as its kind is unknown.
        "hud.toml:30:11: error: 'inside' of text 'nowhere.lost': no panel 'nowhere'",
    };
    EXPECT_EQ(texts(read_hud(text, "hud.toml").problems()), expected);
}

TEST(HudFile, declares_what_the_game_will_offer) {
    const std::string text = R"([source]
"plane.water" = { range = [0, 3000], sample = 640, unit = "L" }
drops = { type = "integer", sample = [3, 12] }
paused = { type = "flag" }
[source.village]
type = "text"
sample = ["Pine Hollow", "Alder Creek"]
[[element]]
kind = "text"
id = "water"
value = "plane.water"
[[element]]
kind = "text"
id = "oil"
value = "plane.watr"
[[accept]]
element = "water"
code = "overlap"
why = "it lies on the plate"
)";
    const auto definition = read_hud(text, "hud.toml");
    ASSERT_TRUE(definition) << texts(definition.problems()).front();
    ASSERT_EQ(definition->sources.size(), 4U);
    const DeclaredSource& water = definition->sources[0];
    EXPECT_EQ(water,
              (DeclaredSource{.name = "plane.water", .range = {0, 3000}, .sample = {KeptValue(640.0)}, .unit = "L"}));
    EXPECT_EQ(definition->sources[1].type, SourceType::integer);
    EXPECT_EQ(definition->sources[1].sample[1], KeptValue(Value(std::int64_t{12})));
    EXPECT_EQ(definition->sources[3].sample[1], KeptValue(Value("Alder Creek")));
    EXPECT_EQ(definition->accept, (std::vector<Accepted>{{"water", "overlap", "it lies on the plate"}}));
    EXPECT_TRUE(*read_hud(*write_hud(*definition), "hud.toml") == *definition);

    // What is declared is no problem before it comes; what is not is told the nearest of it.
    Sources sources;
    Hud hud(*definition, sources);
    EXPECT_EQ(texts(hud.problems()),
              (std::vector<std::string>{"hud.toml:15:10: error: 'value' of text 'oil': unknown source "
                                        "'plane.watr'; did you mean 'plane.water'?"}));
    EXPECT_EQ(hud.wanted_sources(), (std::vector<std::string>{"plane.water", "plane.watr"}));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("water")), "--");
    double litres = 12;
    sources.set("plane.water", watch(litres));
    update(hud, 16ms);
    EXPECT_EQ(hud.text_of(hud.find("water")), "12");

    const std::vector<std::pair<std::string, std::string>> faults{
        {"source = 3", "1:10: error: 'source' is a number; expected tables, [source.\"NAME\"]"},
        {"[source]\na = 3", "2:5: error: source 'a' is a number; expected a table"},
        {"[source.a]\ntpye = \"text\"", "2:1: error: unknown key 'tpye' in source 'a'; did you mean 'type'?"},
        {"[source.a]\ntype = \"flg\"",
         "2:8: error: 'type' of source 'a' is 'flg'; expected one of number, integer, flag, text, time, "
         "entries, color or image; did you mean 'flag'?"},
        {"[source.a]\ntype = \"text\"\nrange = [0, 1]",
         "3:9: error: 'range' of source 'a', which is a text; give its values as 'sample'"},
        {"[source.a]\nrange = [5, 5]", "2:9: error: 'range' of source 'a' is empty; expected [low, high]"},
        {"[source.a]\ntype = \"integer\"\nsample = 1.5",
         "3:10: error: 'sample' of source 'a' does not hold an integer, which it is"},
        {"[source.a]\ntype = \"flag\"\nsample = [true, \"no\"]",
         "3:10: error: 'sample' of source 'a' does not hold a flag, which it is"},
        {"[source.a]\nrange = [0, 10]\nsample = 11",
         "3:10: error: 'sample' of source 'a' is 11, which is outside of its range, 0 to 10"},
        {"[source.a]\nsample = [[1]]",
         "2:11: error: 'sample' of source 'a' is a list; expected a text, a number, true or false, or a list "
         "of "
         "them"},
    };
    for (const auto& [file, problem] : faults)
        EXPECT_EQ(texts(read_hud(file, "hud.toml").problems()), std::vector<std::string>{"hud.toml:" + problem})
            << file;
}

TEST(HudFile, declares_containers_and_what_each_entry_has) {
    const std::string text = R"([source.fires]
type = "entries"
range = [0, 40]
sample = 3
fields.heat = { range = [0, 120], sample = 80, unit = "°C" }
fields.name = { type = "text", sample = ["Kiln Hill", "Otter Bend"] }

[source.crews.fields.size]
type = "integer"

[source.crews]
type = "entries"
)";
    const auto definition = read_hud(text, "hud.toml");
    ASSERT_TRUE(definition) << texts(definition.problems()).front();
    const DeclaredSource heat{.name = "heat", .range = {0, 120}, .sample = {KeptValue(80.0)}, .unit = "°C"};
    const DeclaredSource name{.name = "name",
                              .type = SourceType::text,
                              .sample = {KeptValue(Value("Kiln Hill")), KeptValue(Value("Otter Bend"))}};
    EXPECT_EQ(definition->sources[0], (DeclaredSource{.name = "fires",
                                                      .type = SourceType::entries,
                                                      .range = {0, 40},
                                                      .sample = {KeptValue(Value(std::int64_t{3}))},
                                                      .fields = {heat, name}}));
    EXPECT_EQ(definition->sources[1].fields[0].type, SourceType::integer);
    EXPECT_TRUE(*read_hud(*write_hud(*definition), "hud.toml") == *definition);
    const auto formatted = format_hud(text, "hud.toml");
    ASSERT_TRUE(formatted);
    EXPECT_TRUE(*read_hud(*formatted, "hud.toml") == *definition) << *formatted;

    const std::string entries = "[source.a]\ntype = \"entries\"\n";
    const std::vector<std::pair<std::string, std::string>> faults{
        {entries,
         "1:9: error: source 'a' is entries without 'fields'; say what each entry has, such as "
         "fields.name = { type = \"text\" }"},
        {"[source.a]\nfields.b = {}",
         "2:1: error: 'fields' of source 'a', which is a number; type = \"entries\" has fields"},
        {entries + "fields = 3", "3:10: error: 'fields' of source 'a' is a number; expected tables by name"},
        {entries + "fields.b = 3", "3:12: error: field 'b' of source 'a' is a number; expected a table"},
        {entries + "fields.b.c = 3", "3:10: error: unknown key 'c' in field 'b' of source 'a'"},
        {entries + "fields.b.fields.c = {}", "3:10: error: 'fields' of field 'b' of source 'a'; a field has none"},
        {entries + "fields.b = { type = \"entries\" }",
         "3:22: error: field 'b' of source 'a' is entries; a field is a number, a flag, a text or a time"},
        {entries + "fields.b = { range = [0, 1], sample = 2 }",
         "3:39: error: 'sample' of field 'b' of source 'a' is 2, which is outside of its range, 0 to 1"},
        {entries + "fields.\"b c\" = {}",
         "3:8: error: the name of field 'b c' of source 'a' has other signs than letters, digits, '_' and '-', and '.' "
         "between its parts"},
        {entries + "range = [-1, 4]\nfields.b = {}",
         "3:9: error: 'range' of source 'a' begins below zero, and counts its entries"},
        {entries + "sample = \"many\"\nfields.b = {}",
         "3:11: error: 'sample' of source 'a' does not hold whole numbers, of entries that there may be"},
    };
    for (const auto& [file, problem] : faults)
        EXPECT_EQ(texts(read_hud(file, "hud.toml").problems()), std::vector<std::string>{"hud.toml:" + problem})
            << file;
}

TEST(HudFile, is_checked_together_with_its_formats_and_names) {
    const std::string text = R"([[element]]
kind = "text"
id = "acres"
value = "mission.acers"
[[element]]
kind = "text"
id = "water"
value = "mission.acres"
format = "Water {:.f} L"
)";
    int acres = 0;
    Sources sources;
    sources.set("mission.acres", watch(acres));
    EXPECT_EQ(texts(check_hud(text, "hud.toml", sources, nullptr)),
              (std::vector<std::string>{"hud.toml:4:10: error: 'value' of text 'acres': unknown source "
                                        "'mission.acers'; did you mean 'mission.acres'?",
                                        "hud.toml:9:20: error: text 'water': format \"Water {:.f} L\": a "
                                        "precision needs digits after its '.'"}));
    EXPECT_TRUE(read_hud(text, "hud.toml")) << "names and formats are checked when the HUD is made";
}

TEST(HudFile, refuses_what_is_no_toml_or_too_deep_or_too_large) {
    const auto first = [](const std::string& text) { return texts(read_hud(text, "h.toml").problems()).at(0); };
    EXPECT_NE(first("a = \n").find("h.toml:1:"), std::string::npos);
    EXPECT_NE(first("[[element]\nkind=1").find("h.toml:1:"), std::string::npos);
    EXPECT_EQ(first("\n\na = " + std::string(100'000, '[')), "h.toml:3: error: brackets are nested more than 64 deep");
    EXPECT_EQ(first("a = " + std::string(65, '{')), "h.toml:1: error: brackets are nested more than 64 deep");
    std::string dotted = "a";
    for (int i = 0; i < 100'000; ++i)
        dotted += ".a";
    EXPECT_EQ(first("# x.\n" + dotted + " = 1"), "h.toml:2: error: a key has more than 64 parts");
    EXPECT_NE(first(std::string(4'000'001, '#')).find("larger than 4 MB"), std::string::npos);
    // Brackets and dots in texts and comments do not count.
    const std::string many(200, '[');
    EXPECT_TRUE(read_hud("font = \"" + many + "\\\"" + many + "\" # " + many + "\n", "h.toml"));
    EXPECT_TRUE(read_hud("font = '''\n" + many + "'''\n", "h.toml"));
    EXPECT_FALSE(read_hud_file("/nowhere.toml"));
    // No table of a HUD has so many keys; each header begins to count anew.
    std::string keys, tables;
    for (int i = 0; i < 4'001; ++i)
        keys += "k" + std::to_string(i) + " = [1, { a = 2 }]\n";
    EXPECT_EQ(first(keys), "h.toml:4001: error: a table has more than 4000 keys before this line");
    for (int i = 0; i < 3; ++i)
        tables += "[[timer]]\n" + keys.substr(0, keys.find("k1500"));
    EXPECT_EQ(first(tables), "h.toml:1:1: error: timer has no 'id'");
}

TEST(HudFile, survives_any_damage) {
    std::ifstream file(sample("hud.toml"));
    const std::string good{std::istreambuf_iterator<char>(file), {}};
    ASSERT_TRUE(read_hud(good, "hud.toml"));
    Random random(9);
    int refused = 0;
    for (int i = 0; i < 3000; ++i) {
        std::string text = good;
        for (int n = 1 + random.below(4); n > 0; --n) {
            const auto at = static_cast<std::size_t>(random.below(static_cast<int>(text.size())));
            if (random.below(2) == 0)
                text[at] = static_cast<char>(random.below(256));
            else
                text.erase(at, static_cast<std::size_t>(random.below(20)));
        }
        refused += check_hud(text, "hud.toml", {}, nullptr).empty() ? 0 : 1;
    }
    EXPECT_GT(refused, 2000);
}

TEST(Trace, reads_csv_with_quotes_line_ends_and_types) {
    const auto read = Trace::read_csv(
        "\xef\xbb\xbftime,acres,water,village,evacuating,late\r\n"
        "0,1,2,\"Pine, \"\"old\"\"\",false,\r\n"
        "0.5,-7,2.5,\"two\nlines\",true,9\r\n"
        "\r\n"
        "1.25,,,,,",
        "t.csv");
    ASSERT_EQ(texts(read.problems()), std::vector<std::string>{});
    const Trace trace = *read;
    ASSERT_EQ(trace.rows().size(), 3U);
    EXPECT_EQ(trace.rows()[2].time, 1250ms);
    EXPECT_EQ(trace.rows()[2].game_time, 1250ms);
    const auto cell = [&](std::size_t column, std::size_t row) { return trace.columns()[column].at(row); };
    EXPECT_EQ(cell(0, 1), Value(-7));
    EXPECT_EQ(cell(1, 0), Value(2.0)) << "a column of numbers, one of them whole";
    EXPECT_EQ(cell(2, 0), Value("Pine, \"old\""));
    EXPECT_EQ(cell(2, 1), Value("two\nlines"));
    EXPECT_EQ(cell(3, 1), Value(true));
    EXPECT_EQ(cell(4, 0), Value());
    EXPECT_EQ(cell(4, 1), Value(9));
    EXPECT_EQ(trace.columns()[1].type, Value::Type::float64);
}

TEST(Trace, names_the_place_of_what_is_wrong) {
    struct Case {
        const char* text;
        std::vector<std::string> expected;
    };
    for (const Case& row : {
             Case{"", {"t.csv:1:1: error: is empty; a trace begins with the names of its columns"}},
             Case{"tiem,a\n0,1\n", {"t.csv:1:1: error: has no column 'time'; did you mean 'tiem'?"}},
             Case{"time,a,a\n0,1,1\n", {"t.csv:1:8: error: a second column 'a'"}},
             Case{"time,a\n", {"t.csv:1: error: a trace needs at least one row under its header"}},
             Case{"time,a,b\n0,1,2\n1,2\n2,2,3,4\n",
                  {"t.csv:3:1: error: this row has 2 cells and the header has 3",
                   "t.csv:4:1: error: this row has 4 cells and the header has 3"}},
             Case{"time,a\n0,1\nsoon,2\n-1,3\n",
                  {"t.csv:3:1: error: 'soon' in column 'time' is not a time in seconds from 0 to 1e9",
                   "t.csv:4:1: error: '-1' in column 'time' is not a time in seconds from 0 to 1e9"}},
             Case{"time,a\n2,1\n1,1\n", {"t.csv:3:1: error: time goes back from the row before"}},
             Case{"time,water\n0,1\n1,full\n",
                  {"t.csv:3:3: error: 'full' is not a number; column 'water' begins with one"}},
             Case{"time,a\n0,\"open\n1,2\n", {"t.csv:2:3: error: a quoted cell is not closed"}},
             Case{"time,a\n0,\"x\"y\n1,2\n",
                  {"t.csv:2:3: error: text follows the closing quote of a cell; write '\"\"' for a quote "
                   "inside a cell"}},
             Case{"time,a\n0,\xff\n", {"t.csv:2: error: is not valid UTF-8; save it in this encoding"}},
         })
        EXPECT_EQ(texts(Trace::read_csv(row.text, "t.csv").problems()), row.expected) << row.text;
    EXPECT_FALSE(Trace::read_file("/nowhere.csv"));
}

TEST(Trace, stands_at_the_latest_row_and_keeps_game_time_in_proportion) {
    const Trace trace = *Trace::read_csv("time,game_time,a\n1,0,10\n2,1,20\n4,1,30\n6,2,40\n", "t.csv");
    TracePlayer player(trace);
    int shown = 0;
    Hud hud;
    const Sources sources = player.sources();
    const auto text = hud.add(Text{.id = "a", .value = *sources.find("a")});
    struct Case {
        Nanoseconds time, game;
        const char* text;
    };
    for (const Case& row :
         {Case{0s, 0s, "10"}, Case{1s, 0s, "10"}, Case{1500ms, 500ms, "10"}, Case{2s, 1s, "20"}, Case{3s, 1s, "20"},
          Case{5s, 1500ms, "30"}, Case{6s, 2s, "40"}, Case{8s, 4s, "40"}, Case{1999999999ns, 999999999ns, "10"}}) {
        EXPECT_EQ(player.seek(row.time), row.game) << row.time.count();
        update(hud, 0s);
        EXPECT_EQ(hud[text].text, row.text) << row.time.count();
        ++shown;
    }
    EXPECT_EQ(shown, 9);
}

TEST(Trace, may_have_several_lists_in_a_line) {
    const Result<Trace> trace =
        Trace::read_json_lines("{\"time\":0,\"a\":[{\"x\":1}],\"b\":[{\"x\":2},{\"x\":3}],\"c\":4}\n", "t.jsonl");
    ASSERT_TRUE(trace) << to_string(trace.problems().front());
    std::vector<std::string> columns;
    for (const Trace::Column& column : trace->columns())
        columns.push_back(column.name + "=" + std::to_string(column.at(0).int64()));
    EXPECT_EQ(columns, (std::vector<std::string>{"a.1.x=1", "b.1.x=2", "b.2.x=3", "c=4"}));
}

TEST(Problem, has_a_code_and_a_severity) {
    const std::string text = "[[element]]\nkind = \"text\"\nid = \"t\"\n";
    for (const auto& [rest, code] : std::vector<std::pair<std::string, std::string>>{
             {"[[element", "syntax"},
             {"[[element]]\nid = \"t\"\n", "missing_key"},
             {"[[element]]\nkind = \"txet\"\nid = \"t\"\n", "unknown_word"},
             {text + "formt = \"x\"\n", "unknown_key"},
             {text + "format = 3\n", "wrong_type"},
             {text + "format = \"x\"\nsize = 0\n", "out_of_range"},
             {text + "format = \"{\"\n", "bad_format"},
             {text + "value = 1\nmotion = { easing = \"quick\" }\n", "bad_easing"},
             {text + "value = \"nobody\"\n", "unknown_source"},
             {text + "format = \"x\"\ngroup = \"g\"\n", "unknown_name"},
             {text + "format = \"x\"\ninside = \"t\"\n", "circle"},
             {text + "format = \"x\"\n" + text + "format = \"x\"\n", "duplicate"},
             {text + "value = 1\nrange = [2, 1]\n", "contradiction"},
             {text + "value = 1\nbands = [{ below = 1, pattern = \"stripes\" }]\n", "unfit"}}) {
        const Problems found = check_hud(rest, "h.toml", {}, nullptr);
        ASSERT_FALSE(found.empty()) << rest;
        EXPECT_EQ(to_string(found.front().code), code) << to_string(found.front());
        EXPECT_EQ(found.front().severity, Severity::error);
    }
    BoxMeasurer measurer;
    const Problems found = check_hud(text + "format = \"x\"\nfont = \"missing\"\n", "h.toml", {}, &measurer);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(to_string(found[0].code), "missing_font");
    EXPECT_EQ(to_string(found[0].severity), "warning");
    EXPECT_EQ(to_string(found[0]),
              "h.toml:5:9: warning: 'font' of text 't': no font family 'missing' is installed; another one "
              "stands for it");
}

TEST(HudFile, includes_nothing_that_is_no_file_of_its_folder_on_any_system) {
    const TemporaryFolder folder;
    folder.write("a.toml", "margin = 8\n");
    const IncludeReader read = includes_of(folder.path(""));
    EXPECT_TRUE(read("a.toml"));
    for (const std::string& path :
         {std::string("/etc/hosts"), std::string("../a.toml"), std::string("b/../../a.toml"), std::string("..\\a.toml"),
          std::string("\\\\host\\a.toml"), std::string("C:/a.toml"), std::string("c:a.toml"),
          std::string("a.toml:stream"), std::string("nul"), std::string("parts/COM1.toml"), std::string("Aux .toml"),
          std::string("lpt9"), std::string("a.toml\0", 7), std::string()}) {
        const Result<std::string> text = read(path);
        ASSERT_FALSE(text) << path;
        EXPECT_EQ(text.problems()[0].message, "lies outside of the folder of the HUD") << path;
    }
    for (const char* const path : {"console.toml", "com.toml", "com10.toml", "nully", "b..toml"}) {
        const Result<std::string> text = read(path);
        ASSERT_FALSE(text) << path << " is not there";
        EXPECT_EQ(text.problems()[0].message.find("lies outside"), std::string::npos) << path;
    }
}

TEST(HudFile, is_read_with_the_line_ends_and_the_names_of_any_system) {
    const TemporaryFolder folder;
    const std::string name = folder.path("h\xc3\xb6he \xe9\xab\x98.toml");
    const std::filesystem::path path(std::u8string(name.begin(), name.end()));
    std::ofstream(path, std::ios::binary) << "\xef\xbb\xbf# By hand\r\n[[element]]\r\nkind = \"text\"\r\nid = "
                                             "\"a\"\r\nformat = \"x\"\r\n\r\n[[element]]\r\nkind = \"txt\"\r\n";
    const Result<HudDefinition> read = read_hud_file(name);
    ASSERT_FALSE(read);
    ASSERT_EQ(read.problems().size(), 1U);
    EXPECT_EQ(read.problems()[0].location.line, 8) << to_string(read.problems()[0]);
    EXPECT_EQ(read.problems()[0].location.column, 8);
    HudFile file(name);
    Hud hud;
    EXPECT_EQ(file.reload(hud).size(), 1U);
    std::ofstream(path, std::ios::binary)
        << "\xef\xbb\xbf[[element]]\r\nkind = \"text\"\r\nid = \"a\"\r\nformat = \"x\"\r\n";
    EXPECT_TRUE(file.reload(hud).empty());
    EXPECT_EQ(hud.elements().size(), 1U);
#ifdef _WIN32
    std::string native = name;
    std::replace(native.begin(), native.end(), '/', '\\');
    EXPECT_TRUE(read_hud_file(native));
#endif
}

}  // namespace file_test
}  // namespace rapido::test
