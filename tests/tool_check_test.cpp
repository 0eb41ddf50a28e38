// `rapido check`, on a HUD with one fault of each kind, and on the sample HUD, which has none.
#include <nlohmann/json.hpp>
#include <sstream>

#include "tool_support.hpp"

namespace rapido::test {
namespace tool_check_test {

const std::string folder = std::string(RAPIDO_SOURCE_DIR) + "/tests/check/";

std::vector<nlohmann::json> findings_of(const std::string& arguments) {
    const Ran ran = run_tool("check " + arguments + " --json");
    std::vector<nlohmann::json> all;
    std::stringstream lines(ran.out);
    for (std::string line; std::getline(lines, line);)
        if (line.starts_with("{")) all.push_back(nlohmann::json::parse(line));
    EXPECT_EQ(ran.exit, all.empty() ? 0 : 1) << ran.out;
    return all;
}

/// The number of the line that holds a text.
int line_of(const std::string& name, const std::string& text) {
    std::ifstream file(folder + name);
    int number = 1;
    for (std::string line; std::getline(file, line); ++number)
        if (line.find(text) != std::string::npos) return number;
    return 0;
}

TEST(Check, finds_each_planted_fault_and_nothing_else) {
    struct Row {
        const char* code;
        const char* at;       ///< a text in the line of the place
        const char* message;  ///< its beginning
        const char* language = "";
        double scale = 0;  ///< zero: it does not matter
    };
    const std::vector<Row> rows{
        {"unreachable", "marks = [45]", "timer 'fuse' never comes to its mark at 45 s: it takes 30 s"},
        {"unused", "water = {", "source 'water' is declared, and nothing shows it"},
        {"out_of_range", "heat = {", "source 'heat' is declared as 20 to 120, and the trace gives 125"},
        {"unknown_source", "oil = {", "the trace has no source 'oil'"},
        {"unused", "oil = {", "source 'oil' is declared, and nothing shows it"},
        {"flash", "[[effect]]  # 3", "effect 'strobe' flashes 11 times in a second"},
        {"no_room", "# 4:", "text 'status' ends with an ellipsis, as it has less room than it needs: 120 of ", "de"},
        {"no_room", "# 5:", "text 'acres' is drawn smaller, as it has less room than it needs: 140 of ", "", 1},
        {"no_room", "# 5:", "text 'acres' is drawn smaller, as it has less room than it needs: 140 of ", "de"},
        {"low_contrast", "color = \"#d8d8d8\"", "text 'pale' has a contrast of 1.2"},
        {"unreachable", "id = \"melting\"",
         "image 'lamp' never comes into band 'melting': it begins at 200, and the value is "
         "20 to 120"},
        {"color_only", "id = \"hot\"", "image 'lamp' tells band 'hot' by its color alone"},
        {"low_contrast", "# 7:", "image 'lamp' has a contrast of 1.2"},
        {"low_contrast", "# 12:", "ring 'gauge' has a contrast of 1.3"},
        {"low_contrast", "# 14:", "bar 'beyond' has a contrast of 1.3"},
        {"unknown_source", "value = \"watr\"", "'value' of bar 'tank': unknown source 'watr'"},
        {"off_screen", "on = \"gain\", effect = \"leap\"",
         "text 'jumper' leaves, by effect 'leap', the screen: 184 px beyond the upper edge"},
        {"overlap", "place = { anchor = \"bottom_right\"", "panel 'right' lies over panel 'left', on ", "", 1.5},
        {"flicker", "id = \"low\"", "'gauge' comes into band 'low' 8 times within a second, from 3.083333333 s on"},
        {"untranslated", "format = \"BOO\"", "\"BOO\" has no translation into 'de'"},
        {"unreachable", "visible = false", "text 'ghost' is never shown: 'visible' is false"},
        {"off_screen", "offset = [-100, 40]", "bar 'beyond' leaves the screen: 84 px beyond the right edge"},
        {"small_text", "size = 6", "text 'tiny' is written 3.8 px high; 9.2 px are asked for"},
        {"unused", "", "nothing of the HUD says \"READ\""}};
    std::vector<nlohmann::json> found =
        findings_of(folder + "faults.toml --trace " + folder + "faults.csv --language de --translations " + folder +
                    "de.toml --smallest-text 11@720 --ui-scale 1 --ui-scale 1.5");
    for (const Row& row : rows) {
        const auto is_it = [&](const nlohmann::json& finding) {
            const int line = *row.at == '\0' ? 0 : line_of("faults.toml", row.at);
            return finding["code"] == row.code && finding.value("line", 0) == line &&
                   finding["message"].get<std::string>().starts_with(row.message) &&
                   (*row.language == '\0' || finding.value("language", "") == row.language) &&
                   (row.scale == 0 || (finding.value("scale", 0.0) == row.scale && !finding.contains("language")));
        };
        const auto it = std::find_if(found.begin(), found.end(), is_it);
        EXPECT_NE(it, found.end()) << row.code << ": " << row.message;
        if (it == found.end()) continue;
        // L of #d8d8d8 is 0.6867, and of #bfbfbf 0.5210, by the formula of WCAG on paper: the nearest gray to the text of five.
        if (row.message == std::string_view("text 'pale' has a contrast of 1.2")) {
            EXPECT_NEAR((*it)["measured"].get<double>(), (0.6867 + 0.05) / (0.5210 + 0.05), 0.01);
        }
        found.erase(it);
    }
    for (const nlohmann::json& other : found)
        ADD_FAILURE() << "not planted: " << other.dump();
}

TEST(Check, finds_nothing_in_the_sample_hud) {
    const Ran alone = run_tool("check " + sample("hud.toml"));
    EXPECT_EQ(alone.exit, 0) << alone.out;
    const Ran whole = run_tool("check " + sample("hud.toml") + " --trace " + sample("flight.csv") + " --background " +
                               sample("scene.png") + " --language de --translations " + sample("de.toml") +
                               " --language ja --translations " + sample("ja.toml") + " --language ar --translations " +
                               sample("ar.toml") + " --ui-scale 1 --ui-scale 1.5");
    EXPECT_EQ(whole.exit, 0) << whole.out;
    EXPECT_NE(whole.out.find("nothing found, in "), std::string::npos);
}

TEST(Check, finds_flashes_where_they_cover_much_and_takes_what_is_meant) {
    const TemporaryFolder made;
    const std::string strobe =
        "[source]\nhits = { type = \"integer\", range = [0, 9], sample = 3 }\n"
        "[[effect]]\nid = \"strobe\"\nduration = 0.1\nrepeat = 20\n"
        "keyframes = [{ at = 0.5, color = \"#000000\" }]\n";
    const auto bar = [](const std::string& id, const std::string& size) {
        return "[[element]]\nkind = \"bar\"\nid = \"" + id +
               "\"\nvalue = \"hits\"\nmax = 9\ncolor = \"#f0f0f0\"\nbackground = \"#101010\"\n" +
               "triggers = [{ on = \"loss\", effect = \"strobe\" }]\nplace = { anchor = \"" +
               (id == "small" ? "top_left" : "bottom_right") + "\", size = [" + size + "] }\n";
    };
    const std::string large_found =
        "bar 'large' flashes more than three times in a second by effect 'strobe'; the HUD holds it still; "
        "let it be smaller, slower or weaker [flash]";
    const std::string accepted =
        "[[accept]]\nelement = \"large\"\ncode = \"flash\"\nwhy = \"it is the end of the game\"\n";
    struct Row {
        std::string hud;
        int exit;
        std::vector<std::string> says;
        std::string not_said;
    };
    for (const Row& row : std::vector<Row>{
             {strobe + bar("small", "60, 60") + bar("large", "700, 300"), 1, {large_found, "1 thing found"}, "'small'"},
             {strobe + bar("small", "60, 60"), 0, {"nothing found"}, "[flash]"},
             {"flash_limit = \"any_size\"\n" + strobe + bar("small", "60, 60"),
              1,
              {"effect 'strobe' flashes 11 times in a second", "bar 'small' flashes"},
              "accept"},
             {strobe + bar("large", "700, 300") + accepted,
              0,
              {"nothing found", "accepted: [flash] at 'large': it is the end of the game"},
              "warning"},
             {strobe + bar("small", "60, 60") + accepted,
              1,
              {"'accept' of [flash] at 'large' accepts nothing; take it out", "[unused]"},
              "accepted: "}}) {
        const Ran ran = run_tool("check " + made.write("hud.toml", row.hud));
        EXPECT_EQ(ran.exit, row.exit) << ran.out;
        for (const std::string& each : row.says)
            EXPECT_NE(ran.out.find(each), std::string::npos) << each << "\n" << ran.out;
        EXPECT_EQ(ran.out.find(row.not_said), std::string::npos) << ran.out;
    }
}

TEST(Check, finds_in_each_hud_what_is_wrong_with_it_once) {
    const TemporaryFolder made;
    const auto element = [](const std::string& kind, const std::string& id, const std::string& rest) {
        return "[[element]]\nkind = \"" + kind + "\"\nid = \"" + id + "\"\n" + rest + "\n";
    };
    const std::string heat = "[source]\nheat = { range = [0, 100], sample = 40 }\n";
    const std::string low = "bands = [{ id = \"low\", below = 0.5, format = \"low\" }, ";
    const auto text = [&](const std::string& id, const std::string& rest) {
        return element("text", id, "value = \"heat\"\n" + rest);
    };
    const std::string fires =
        "[source]\nfires = { type = \"entries\", range = [0, 3], fields = { name = { type = \"text\", sample "
        "= "
        "[\"Ash\", \"The long valley of the otters\"] } } }\n"
        "[component.row]\nparameters = { name = \"source\" }\n[[component.row.element]]\nkind = \"text\"\n"
        "id = \"name\"\nvalue = \"$name\"\n";
    const std::string list = "entries = \"fires\"\ncomponent = \"row\"";
    const std::string wide = "place = { max_size = [60, 0] }";
    const std::string notice_text = "text = \"Heat {:.3f} is more than the hull bears\", value = \"heat\"";
    const std::string stamps = heat +
                               "[component.gauge]\nparameters = { at = \"number\" }\nlayout = "
                               "\"free\"\n[[component.gauge.element]]\n"
                               "kind = \"text\"\nid = \"name\"\nformat = \"A name that is longer than its room\"\n"
                               "overflow = \"ellipsis\"\n" +
                               wide + "\n";
    struct Row {
        const char* what;
        std::string hud;
        std::vector<std::string> says;  ///< the beginnings of all messages, by place
        std::string arguments = "";
    };
    const std::vector<Row> rows{
        {"a band that is always on, above all others",
         heat + text("a", low + "{ id = \"any\", below = 100, edge_unit = \"value\", format = \"any\" }]"),
         {"text 'a' never leaves band 'any': the value is 0 to 100, and the bands before it are not seen"}},
        {"one that is always on below others is their ground",
         heat + text("a",
                     "bands = [{ id = \"any\", below = 100, format = \"any\" }, { id = \"low\", below = 20, "
                     "format = \"low\" }]"),
         {}},
        {"what a band shows is not hidden for ever",
         heat + text("a", "visible = false\nbands = [{ id = \"hot\", above = 90, visible = true, format = \"HOT\" }]"),
         {}},
        {"a source of what was left out for a fault is used",
         heat + text("a", "format = \"{:q}\""),
         {"text 'a': format \"{:q}\""}},
        {"a message without an id, as wide as its value can make it",
         heat + text("a", "") +
             element("notice", "news",
                     "messages = [{ " + notice_text +
                         ", when = \"heat\" }]\n"
                         "place = { max_size = [340, 0] }"),
         {"notice 'news' ends with an ellipsis, as it has less room than it needs"}},
        {"a timer that is longer than any sweep",
         heat + text("a", "") + "[[timer]]\nid = \"fuse\"\nkind = \"stopwatch\"\nstart_when = \"heat\"\n" +
             element("text", "left",
                     "value = \"fuse.elapsed\"\nformat = \"{:%T}\"\noverflow = \"ellipsis\"\n"
                     "place = { anchor = \"bottom\", max_size = [70, 0] }"),
         {"text 'left' ends with an ellipsis"}},
        {"labels of a dial over each other",
         heat + element("dial", "d",
                        "value = \"heat\"\nmax = 100\nticks = { every = 2, long_every = 2, format = \"{:.0f}\", "
                        "size = 16 }\nbackground = \"#101010\"\nplace = { size = [100, 100] }"),
         {"dial 'd' writes its labels over each other", "dial 'd' has a contrast"}},
        {"a fault of a component once for all stamps",
         stamps + element("gauge", "a", "at = 1") + element("gauge", "b", "at = 2\nplace = { anchor = \"bottom\" }") +
             element("gauge", "c", "at = 3\nplace = { anchor = \"right\" }"),
         {"source 'heat' is declared, and nothing shows it", "text 'a.name' ends with an ellipsis"}},
        {"a wrong name in a component once for all stamps",
         fires + element("list", "l", list + "\nat_most = 3") +
             element("list", "m", list + "\nwith = { name = \"nmae\" }\nplace = { anchor = \"bottom\" }"),
         {"'value' of text 'm.1.name': unknown source"}},
        {"each of two overlaps in the same panels",
         heat + element("panel", "p", "plate = false\nplace = { size = [300, 100] }") +
             element("panel", "q", "plate = false\nplace = { size = [300, 100] }") +
             element("text", "a", "format = \"one\"\ninside = \"p\"") +
             element("text", "b", "format = \"two\"\ninside = \"p\"\nplace = { anchor = \"bottom_right\" }") +
             element("text", "c", "format = \"three\"\ninside = \"q\"") +
             element("text", "d", "format = \"four\"\ninside = \"q\"\nplace = { anchor = \"bottom_right\" }"),
         {"source 'heat' is declared", "text 'q.c' lies over text 'p.a'", "text 'q.d' lies over text 'p.b'",
          "text 'q.c' has a contrast", "text 'q.d' has a contrast"}},
        {"a bar on a like ground",
         heat + element("bar", "b",
                        "value = \"heat\"\nmax = 100\ncolor = \"#666666\"\nbackground = \"#555555\"\n"
                        "place = { size = [200, 20] }"),
         {"bar 'b' has a contrast of 1.2"}},
        {"the widest entry of a container",
         fires + element("list", "l",
                         "entries = \"fires\"\ncomponent = \"row\"\nplace = { anchor = \"top_right\", "
                         "offset = [-200, 0] }"),
         {"text 'l.2.name' leaves the screen"}},
        {"a container beside a trace that lacks a field, and has another type",
         "[source.fires]\ntype = \"entries\"\nfields.name = { type = \"text\" }\nfields.heat = { range = [0, "
         "9] }\n"
         "fields.size = {}\n" +
             element("text", "n", "value = \"fires\""),
         {"source 'fires.name' is declared as a text, and the trace gives 7",
          "source 'fires.heat' is declared as 0 to 9, and the trace gives 12",
          "the trace has no source 'fires.1.size'"},
         "--trace " + made.write("t.csv", "time,fires.1.name,fires.1.heat\n0,7,5\n1,7,12\n")},
        {"a language with a fault beside another one",
         heat + text("a", "format = \"Heat {}\""),
         {"\"Heat {}\" has no translation into 'de'", "CLDR knows no language 'xx'"},
         "--language xx --translations " + made.write("xx.toml", "\"Heat {}\" = 3\n") +
             " --language de --translations " + made.write("de.toml", "")},
    };
    for (const Row& row : rows) {
        const std::vector<nlohmann::json> found =
            findings_of(made.write("hud.toml", row.hud) + " --gray 0..0 --size 1280x720 " + row.arguments);
        std::string all;
        for (const nlohmann::json& each : found)
            all += each["message"].get<std::string>() + "\n";
        EXPECT_EQ(found.size(), row.says.size()) << row.what << "\n" << all;
        for (const std::string& expected : row.says)
            EXPECT_NE(all.find(expected), std::string::npos) << row.what << ": " << expected << "\n" << all;
    }
}

TEST(Check, prints_a_line_with_its_code_for_each) {
    const Ran ran = run_tool("check " + folder + "faults.toml --size 800x600");
    EXPECT_EQ(ran.exit, 1);
    EXPECT_NE(ran.out.find("faults.toml:" + std::to_string(line_of("faults.toml", "# 4:")) + ":1: warning: "), 0U);
    EXPECT_NE(
        ran.out.find(folder + "faults.toml:" + std::to_string(line_of("faults.toml", "offset = [-100, 40]")) +
                     ":9: warning: bar 'beyond' leaves the screen: 84 px beyond the right edge (800x600, with the "
                     "samples, and so in "),
        std::string::npos)
        << ran.out;
    EXPECT_NE(ran.out.find(" [off_screen]\n"), std::string::npos);
}

TEST(Check, says_what_it_cannot_do) {
    const std::vector<std::pair<std::string, std::string>> rows{
        {"check none.toml", "none.toml: error: cannot be opened: No such file or directory"},
        {"check " + folder + "faults.toml --size 8", "a size is WIDTHxHEIGHT in pixels, such as 1280x800"},
        {"check " + folder + "faults.toml --gray 0.5", "'0.5' is none; write LOW..HIGH, such as 0..0.6"},
        {"check " + folder + "faults.toml --gray 0.7..0.2", "a gray is 0 (black) to 1 (white)"},
        {"check " + folder + "faults.toml --smallest-text 12", "'12' is none; write SIZE@HEIGHT, such as 18@1080"},
        {"check " + folder + "faults.toml --translations x.toml", "needs a --language for each"},
        {"check " + folder + "faults.toml --language xx-nonsense", "'xx-nonsense'"},
        {"check " + folder + "faults.toml --background none.png", "none.png"},
        {"check " + folder + "faults.toml --trace none.csv", "none.csv: error: cannot be opened"}};
    for (const auto& [arguments, expected] : rows) {
        const Ran ran = run_tool(arguments);
        EXPECT_NE(ran.exit, 0) << arguments;
        EXPECT_NE(ran.out.find(expected), std::string::npos) << arguments << "\n" << ran.out;
    }
    // A HUD that declares nothing is checked as far as that goes.
    const Ran bare = run_tool("check " + std::string(RAPIDO_SOURCE_DIR) + "/demo/world/hud.toml");
    EXPECT_EQ(bare.exit, 0) << bare.out;
    EXPECT_NE(bare.out.find("it declares no sources"), std::string::npos);
}

}  // namespace tool_check_test
}  // namespace rapido::test
