// The command line tool, run as a user would, on the sample flight.
#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <sstream>

#include "rapido/picture.hpp"
#include "tool_support.hpp"

namespace rapido::test {
namespace tool_test {

/// The flight by other means than the library: lines cut at commas.
class Flight {
 public:
    Flight() {
        std::ifstream file(sample("flight.csv"));
        for (std::string line; std::getline(file, line);) {
            std::vector<std::string> cells;
            std::stringstream cut(line);
            for (std::string cell; std::getline(cut, cell, ',');)
                cells.push_back(cell);
            (names_.empty() ? names_ : rows_.emplace_back()) = cells;
        }
    }
    const std::string& at(std::size_t row, const std::string& name) const {
        for (std::size_t i = 0; i < names_.size(); ++i)
            if (names_[i] == name) return rows_[row][i];
        throw std::out_of_range(name);
    }
    std::size_t size() const { return rows_.size(); }

 private:
    std::vector<std::string> names_;
    std::vector<std::vector<std::string>> rows_;
};

std::string play(const std::string& rest) {
    return "play " + sample("hud.toml") + " --trace " + sample("flight.csv") + " " + rest;
}

/// 12345 as 12,345.
std::string grouped(std::string digits) {
    for (int at = static_cast<int>(digits.size()) - 3; at > 0; at -= 3)
        digits.insert(static_cast<std::size_t>(at), 1, ',');
    return digits;
}

/// The lines of a printed table, with single spaces.
std::vector<std::string> lines_of(const std::string& printed) {
    std::vector<std::string> lines;
    std::stringstream rest(printed);
    for (std::string line; std::getline(rest, line);) {
        std::string plain;
        std::stringstream words(line);
        for (std::string word; words >> word;)
            plain += (plain.empty() ? "" : " ") + word;
        lines.push_back(plain);
    }
    return lines;
}

/// The texts of a table, by moment and id.
std::map<std::pair<std::string, std::string>, std::string> cells_of(const std::string& table) {
    std::map<std::pair<std::string, std::string>, std::string> cells;
    std::stringstream lines(table);
    std::string line;
    std::getline(lines, line);
    const std::size_t id_at = line.find("id"), text_at = line.find("text"), fill_at = line.find("fill");
    const auto cut = [](std::string text) {
        text.erase(text.find_last_not_of(' ') + 1);
        return text.substr(std::min(text.find_first_not_of(' '), text.size()));
    };
    while (std::getline(lines, line)) {
        // Columns are aligned by characters; the sample's texts have two that take two bytes or more.
        std::size_t extra = 0;
        for (const char c : line)
            extra += (static_cast<unsigned char>(c) & 0xc0) == 0x80 ? 1 : 0;
        const std::string text = cut(line.substr(text_at, fill_at + extra - text_at));
        const std::string fill = cut(line.substr(fill_at + extra, 8));
        cells[{cut(line.substr(0, id_at)), cut(line.substr(id_at, text_at - id_at))}] = text == "-" ? fill : text;
    }
    return cells;
}

TEST(Tool, shows_the_values_of_the_first_and_the_last_frame_of_the_flight) {
    const Flight flight;
    const Ran ran = run_tool(play("--table --at 0 --at 150"));
    ASSERT_EQ(ran.exit, 0) << ran.out;
    const auto cells = cells_of(ran.out);
    for (const auto& [moment, row] :
         {std::pair<std::string, std::size_t>{"0.000", 0}, {"150.000", flight.size() - 1}}) {
        const auto shown = [&, at = moment](const char* id) { return cells.at({at, id}); };
        const double water = std::stod(flight.at(row, "plane.water")), tank = std::stod(flight.at(row, "plane.tank"));
        const double hull = std::stod(flight.at(row, "plane.hull"));
        std::array<char, 32> fill;
        std::snprintf(fill.data(), fill.size(), "%.4f", water / tank);
        EXPECT_EQ(shown("saved.acres"), grouped(flight.at(row, "mission.acres_saved")));
        EXPECT_EQ(shown("points.score"), grouped(flight.at(row, "mission.score")));
        EXPECT_EQ(shown("points.head.combo"), "COMBO ×" + flight.at(row, "mission.combo"));
        EXPECT_EQ(shown("plane.gauges.water_gauge.vessel.amount.water"),
                  grouped(std::to_string(static_cast<int>(std::floor(water)))));
        EXPECT_EQ(shown("points.pilot.career.to_next"), grouped(flight.at(row, "pilot.experience")) + " / " +
                                                            grouped(flight.at(row, "pilot.next_rank")) + " XP");
        EXPECT_EQ(shown("plane.gauges.water_gauge.vessel.tank"), fill.data());
        EXPECT_EQ(shown("plane.hull_gauge.head.hull"), std::to_string(static_cast<int>(hull)) + "%")
            << "it is 100 at both ends";
        EXPECT_EQ(shown("middle.warning.head.caption"), "EVACUATE " + flight.at(row, "world.village"));
        EXPECT_EQ(shown("middle.warning.countdown"), row == 0 ? "45" : "0");
        EXPECT_EQ(shown("right.debug.fps"), row == 0 ? "-- FPS" : "60 FPS");
    }
}

TEST(Tool, reports_the_end_of_the_evacuation_once_and_at_its_time_at_every_rate) {
    // The flight starts the evacuation at 88 s and pauses before that: it ends at 133 s.
    for (const char* rate : {"", "--rate 5", "--rate 24", "--rate 144"}) {
        const Ran ran = run_tool(play(std::string("--events ") + rate));
        ASSERT_EQ(ran.exit, 0) << ran.out;
        std::vector<std::string> of_timer;
        for (const std::string& line : lines_of(ran.out))
            if (line.find(" evacuation ") != std::string::npos) of_timer.push_back(line);
        EXPECT_EQ(of_timer, (std::vector<std::string>{"88.000 evacuation start -", "118.000 evacuation mark 15",
                                                      "128.000 evacuation mark 5", "129.000 evacuation mark 4",
                                                      "130.000 evacuation mark 3", "131.000 evacuation mark 2",
                                                      "132.000 evacuation mark 1", "133.000 evacuation end -"}))
            << rate;
    }
}

TEST(Tool, shows_a_countdown_that_is_never_negative) {
    std::string at;
    for (int second = 80; second <= 150; ++second)
        at += " --at " + std::to_string(second);
    const auto cells = cells_of(run_tool(play("--table --rate 5" + at)).out);
    for (int second = 80; second <= 150; ++second) {
        const int left = second < 88 ? 45 : std::max(0, 133 - second);
        EXPECT_EQ(cells.at({std::to_string(second) + ".000", "middle.warning.countdown"}), std::to_string(left))
            << second;
    }
}

TEST(Tool, gives_the_same_at_every_rate_for_changes_on_whole_seconds) {
    const TemporaryFolder folder;
    std::string csv = "time,mission.acres,plane.water,burning\n";
    Random random(10);
    for (int second = 0; second <= 30; ++second)
        csv += std::to_string(second) + "," + std::to_string(random.below(100000)) + "," +
               std::to_string(random.below(4) == 0 ? 0 : random.below(1000)) + "," +
               (second % 7 < 3 ? "true" : "false") + "\n";
    const std::string trace = folder.write("seconds.csv", csv);
    const std::string hud = folder.write("hud.toml", R"(
[[timer]]
id = "fire"
duration = 2.5
start_when = "burning"
[[element]]
kind = "text"
id = "acres"
value = "mission.acres"
motion = { kind = "tween", duration = 1.7 }
[[element]]
kind = "bar"
id = "water"
value = "plane.water"
max = 999
motion = { kind = "tween", duration = 0.9, easing = "ease-in-out" }
[[element]]
kind = "text"
id = "fire"
value = "fire.left"
format = "{:.1%S}"
)");
    std::string at;
    for (int second = 0; second <= 30; ++second)
        at += " --at " + std::to_string(second);
    std::vector<std::string> results;
    for (const char* rate : {"24", "60", "144", "1000"}) {
        const Ran ran = run_tool("play " + hud + " --trace " + trace + " --table --events --rate " + rate + at);
        EXPECT_EQ(ran.exit, 0) << ran.out;
        results.push_back(ran.out);
    }
    EXPECT_NE(results[0].find("end"), std::string::npos);
    EXPECT_NE(results[0].find("empty"), std::string::npos);
    for (const std::string& result : results)
        EXPECT_EQ(result, results[0]);
}

TEST(Tool, draws_the_picture_of_a_moment_the_same_every_time) {
    const TemporaryFolder folder;
    std::vector<std::string> pictures;
    for (const char* name : {"a.png", "b.png"}) {
        const Ran ran = run_tool(
            play("--at 104 --size 800x600 --background " + sample("scene.png") + " --png " + folder.path(name)));
        ASSERT_EQ(ran.exit, 0) << ran.out;
        std::ifstream file(folder.path(name), std::ios::binary);
        pictures.emplace_back(std::istreambuf_iterator<char>(file), std::istreambuf_iterator<char>());
    }
    EXPECT_EQ(pictures[0].substr(1, 3), "PNG");
    EXPECT_GT(pictures[0].size(), 50'000U);
    EXPECT_TRUE(pictures[0] == pictures[1]);
}

TEST(Tool, puts_several_moments_on_one_sheet) {
    const TemporaryFolder folder;
    const Ran ran = run_tool(play("--at 8 --at 62 --at 104 --sheet " + folder.path("sheet.png")));
    ASSERT_EQ(ran.exit, 0) << ran.out;
    Fonts fonts;
    Picture sheet(1280, 800, fonts);
    ASSERT_TRUE(sheet.draw_image(folder.path("sheet.png")));
    // Three cells of 1280 by 800 fit best two above one; the fourth place is empty.
    const Color paper = rgb(0x10161c);
    int empty = 0;
    for (int x = 680; x < 1240; x += 10)
        empty += sheet.pixel(x, 600) == paper ? 1 : 0;
    EXPECT_EQ(empty, 56);
    EXPECT_FALSE(sheet.pixel(300, 200) == paper);
    EXPECT_FALSE(sheet.pixel(900, 200) == paper);
    EXPECT_FALSE(sheet.pixel(300, 600) == paper);
}

TEST(Tool, explains_elements_at_a_moment) {
    const Ran ran = run_tool(play("--at 104.3 --explain saved.acres --explain banner"));
    EXPECT_EQ(ran.exit, 0);
    const std::size_t acres = ran.out.find("104.300 s: text 'saved.acres' shows \"1,542\"\n");
    const std::size_t banner = ran.out.find("104.300 s: notice 'banner'\n");
    EXPECT_TRUE(acres == 0 && banner > acres && banner != std::string::npos) << ran.out;
    EXPECT_NE(ran.out.find("  pace       holds 1573 back until"), std::string::npos);
    EXPECT_NE(ran.out.find("  visibility is hidden, as it has nothing to say\n"), std::string::npos);
    const Ran unknown = run_tool(play("--at 104.3 --explain saved.acers"));
    EXPECT_EQ(unknown.exit, 1);
    EXPECT_NE(unknown.out.find("error: no element 'saved.acers'; did you mean 'saved.acres'?"), std::string::npos)
        << unknown.out;
}

TEST(Tool, draws_the_overlay_over_pictures) {
    const TemporaryFolder folder;
    Fonts fonts;
    std::vector<Picture> pictures;
    for (const std::string overlay : {"", "--point 1150,75 "}) {
        const Ran ran = run_tool(play("--at 104 " + overlay + "--png " + folder.path("p.png")));
        ASSERT_EQ(ran.exit, 0) << ran.out;
        Picture& picture = pictures.emplace_back(1280, 800, fonts);
        ASSERT_TRUE(picture.draw_image(folder.path("p.png")));
    }
    EXPECT_TRUE(pictures[0].pixel(640, 400) == pictures[1].pixel(640, 400)) << "where nothing is";
    EXPECT_FALSE(pictures[0].pixel(900, 110) == pictures[1].pixel(900, 110)) << "the explanation";
    EXPECT_EQ(run_tool(play("--point 3 --png " + folder.path("p.png"))).exit, 2);
}

TEST(Tool, plays_in_another_theme) {
    std::map<std::string, std::string> colors;
    for (const std::string theme : {"slate", "clear", "contrast"}) {
        const Ran ran = run_tool(play("--table --at 104 --json --theme " + theme));
        ASSERT_EQ(ran.exit, 0) << ran.out;
        const std::size_t caption = ran.out.find("\"saved.head.caption\"");
        const std::size_t color = ran.out.find("\"color\":\"", caption);
        colors[theme] = ran.out.substr(color + 9, 7);
    }
    EXPECT_EQ(colors, (std::map<std::string, std::string>{
                          {"clear", "#56b4e9"}, {"contrast", "#a8ff60"}, {"slate", "#8fce5a"}}));
    const Ran ran = run_tool(play("--table --theme slte"));
    EXPECT_EQ(ran.exit, 1);
    EXPECT_NE(ran.out.find("error: no theme 'slte'; did you mean 'slate'?"), std::string::npos) << ran.out;
}

TEST(Tool, plays_in_another_language) {
    const std::string german = "--language de --translations " + sample("de.toml");
    const auto cells = cells_of(run_tool(play("--table --at 104 " + german)).out);
    EXPECT_EQ(cells.at({"104.000", "saved.head.caption"}), "GERETTETE ACRES");
    EXPECT_EQ(cells.at({"104.000", "middle.warning.head.caption"}), "Pine Hollow RÄUMEN");
    EXPECT_EQ(cells.at({"104.000", "saved.acres"}), "1.542");
    const TemporaryFolder folder;
    const std::string bad =
        folder.write("bad.toml", "\"SCORE\" = 7\n\"{} acres\" = { one = \"{:.f}\", ohter = \"x\" }\n");
    const Ran ran = run_tool(play("--table --translations " + bad));
    EXPECT_EQ(ran.exit, 1);
    for (const char* says :
         {":1:11: error: translation of 'SCORE': expected a text, or a table", ":2:26: error: format",
          ":2:31: error: translation of '{} acres': unknown plural category 'ohter'; did you mean 'other'?",
          "has no 'other'"})
        EXPECT_NE(ran.out.find(says), std::string::npos) << says << ran.out;
    EXPECT_NE(run_tool(play("--table --language qqx")).out.find("error: CLDR knows no language 'qqx'"),
              std::string::npos);
}

TEST(Tool, plots_true_target_and_shown_value) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml",
                                         "[[element]]\nkind = \"bar\"\nid = \"water\"\nvalue = \"v\"\n"
                                         "max = 100\npace = { settle = 0.5 }\n"
                                         "motion = { kind = \"tween\", duration = 1, easing = \"linear\" }\n");
    const std::string trace = folder.write("t.csv", "time,v\n0,1\n1,101\n4,101\n");
    const auto plot = [&](const std::string& more, const std::string& of = "water") {
        return run_tool("plot " + hud + " --trace " + trace + " --rate 100 --of " + of + " --png " +
                        folder.path("p.png") + more);
    };
    ASSERT_EQ(plot("").exit, 0);
    Fonts fonts;
    Picture picture(1280, 800, fonts);
    ASSERT_TRUE(picture.draw_image(folder.path("p.png")));
    // The area is symmetric around its middle, and so is the range: half way lies there.
    const auto find = [&](int x, Color color) {
        int sum = 0, count = 0;
        for (int y = 104; y < 712; ++y) {
            if (!(picture.pixel(x, y) == color)) continue;
            sum += y;
            ++count;
        }
        return count > 0 ? sum / count : -1;
    };
    const auto x_of = [](double seconds) { return 96 + static_cast<int>(std::lround(1144 * seconds / 4)); };
    const int bottom = find(x_of(0.5), rgb(0x38b6c9)), top = find(x_of(3.5), rgb(0x38b6c9));
    EXPECT_NEAR(bottom + top, 104 + 712, 3);
    EXPECT_LT(top, bottom);
    // It reaches its maximum at 1 s, which pace lets pass at once, and travels for a second.
    EXPECT_NEAR(find(x_of(1.5), rgb(0x38b6c9)), (bottom + top) / 2, 3);
    EXPECT_NEAR(find(x_of(1.5), rgb(0xffc24a)), top, 3);
    EXPECT_NEAR(find(x_of(0.98), rgb(0x38b6c9)), bottom, 3);

    ASSERT_EQ(plot(" --reduced-motion --from 0 --to 4").exit, 0);
    ASSERT_TRUE(picture.draw_image(folder.path("p.png")));
    EXPECT_NEAR(find(x_of(1.5), rgb(0x38b6c9)), top, 3);
    EXPECT_EQ(plot(" --from 3 --to 2").exit, 2);
    EXPECT_EQ(plot("", "wader").exit, 1);
    EXPECT_NE(plot("", "wader").out.find("no element 'wader'; did you mean 'water'?"), std::string::npos);
}

TEST(Tool, prints_json_lines_for_programs) {
    const Ran ran = run_tool(play("--table --at 0 --json"));
    ASSERT_EQ(ran.exit, 0) << ran.out;
    EXPECT_NE(
        ran.out.find(R"({"time":0.0,"id":"saved.acres","text":"1,240","fill":null,"color":"#f2efe6","visible":true})"),
        std::string::npos)
        << ran.out;
}

TEST(Tool, gives_a_clear_message_and_an_exit_status_for_bad_input) {
    const TemporaryFolder folder;
    const std::string five_faults =
        folder.write("bad.toml",
                     "[[element]]\nkind = \"text\"\nid = \"a\"\nformt = \"x\"\n"
                     "[[element]]\nkind = \"bra\"\nid = \"b\"\n"
                     "[[element]]\nkind = \"text\"\nid = \"c\"\nvalue = \"mission.acers\"\n"
                     "[[element]]\nkind = \"text\"\nid = \"d\"\nvalue = 1\nformat = \"{:.f}\"\n"
                     "[[element]]\nkind = \"text\"\nid = \"e\"\ncolor = \"blue\"\nformat = \"x\"\n");
    const std::string csv = folder.write("t.csv", "time,mission.acres\n0,1\n1,2\n");
    const Ran faults = run_tool("play " + five_faults + " --trace " + csv);
    EXPECT_EQ(faults.exit, 1);
    for (const char* place :
         {":4:1: error: unknown key 'formt'", ":6:8: error: unknown kind 'bra'",
          ":11:10: error: 'value' of text 'c': unknown source 'mission.acers'; did you mean 'mission.acres'?",
          ":16:14: error: text 'd': format", ":20:9: error: 'color' of text 'e' is 'blue'"})
        EXPECT_NE(faults.out.find(five_faults + place), std::string::npos) << place << "\n" << faults.out;
    EXPECT_EQ(std::count(faults.out.begin(), faults.out.end(), '\n'), 5);

    const std::string hud =
        folder.write("good.toml", "[[element]]\nkind=\"text\"\nid=\"a\"\nvalue=\"mission.acres\"\n");
    const std::string endless = folder.write("endless.csv", "time,mission.acres\n0,1\n1e9,2\n");
    struct Case {
        std::string arguments;
        int exit;
        const char* says;
    };
    const std::string full = folder.path("full.png");
    std::filesystem::create_symlink("/dev/full", full);
    for (const Case& row : {
             Case{"play " + hud + " --trace " + csv, 0, "2"},
             Case{"play " + hud + " --trace " + endless + " --rate 60", 1,
                  "frames a second that is more than 5000000 frames; end it earlier with --to, or give a "
                  "lower --rate"},
             Case{"play " + hud + " --trace " + endless + " --rate 60 --to 1 --table", 0, "1.000  a   1"},
             Case{"play " + hud + " --trace " +
                      folder.write("t.jsonl", "{\"time\": 0, \"mission.acres\": 41}\n{\"time\": 1}\n") + " --table",
                  0, "1.000  a   41"},
             Case{"play " +
                      folder.write("font.toml",
                                   "font = \"No Such Font\"\n[[element]]\nkind = \"text\"\nid = \"a\"\n"
                                   "value = \"mission.acres\"\nformat = \"{} acres\"\n") +
                      " --trace " + csv + " --table",
                  1, "2 acres"},
             Case{"play " + hud + " --trace " + folder.write("missing.csv", "time,water\n0,1\n"), 1,
                  "unknown source 'mission.acres'"},
             Case{"play " + hud + " --trace " + folder.write("torn.csv", "time,mission.acres\n0,1\n1\n"), 1,
                  "torn.csv:3:1: error: this row has 1 cells"},
             Case{"play " + hud + " --trace " + folder.write("word.csv", "time,mission.acres\n0,1\n1,many\n"), 1,
                  "word.csv:3:3: error: 'many' is not a number"},
             Case{"play " + hud + " --trace /nowhere.csv", 1, "/nowhere.csv: error: cannot be opened"},
             Case{"play /nowhere.toml --trace " + csv, 1, "/nowhere.toml: error: cannot be opened"},
             Case{"play " + hud + " --trace " + csv + " --at 7 --table", 2, "outside the trace"},
             Case{"play " + hud + " --trace " + csv + " --size huge", 2, "WIDTHxHEIGHT"},
             Case{"play " + hud + " --trace " + csv + " --rate 0", 2, "--rate"},
             Case{"play " + hud + " --trace " + csv + " --png /nowhere/x.png", 1,
                  "/nowhere/x.png: error: cannot be written"},
             Case{"play " + hud + " --trace " + csv + " --background " + csv + " --png " + folder.path("x.png"), 1,
                  "is not a PNG image"},
             Case{"play " + hud + " --trace " + csv + " --png /dev/full", 2, "/dev/full: a picture is written as .png"},
             Case{"play " + hud + " --trace " + csv + " --png a.jpg", 2, "a.jpg: a picture is written as .png"},
             Case{"play " + hud + " --trace " + csv + " --sheet a.svg", 2, "a sheet is written as .png"},
             Case{"plot " + hud + " --trace " + csv + " --of a --png a.svg", 2, "a plot is written as .png"},
             Case{"play " + hud + " --trace " + csv + " --background " + sample("scene.png"), 2, "--background needs"},
             Case{"play " + hud + " --trace " + csv + " --background b.png --png x.svg", 2,
                  "a drawing in .svg has none"},
             Case{"play " + hud + " --trace " + csv + " --png " + full, 1,
                  "full.png: error: cannot be written: No space left"},
             Case{"play " + hud + " --trace " + csv + " --table > /dev/full", 1, "standard output cannot be written"},
             Case{"play " + hud + " --trace " + csv + " --table >&-", 1, "standard output cannot be written"},
             Case{"play " + hud + " --trace " + csv + " --rate nan", 2, "nan is no finite number"},
             Case{"play " + hud + " --trace " + csv + " --ui-scale nan", 2, "nan is no finite number"},
             Case{"play " + hud + " --trace " + csv + " --at inf", 2, "inf is no finite number"},
             Case{"play " + hud + " --trace " + csv + " --size 16384x16384", 2, "at most 64 million pixels"},
             Case{"play " + hud, 2,
                  "error: --trace: or --ranges is required, unless HUD is a recording; see 'rapido play"},
             Case{"play " + hud + " --trace " + csv + " --record /nowhere/r.jsonl", 1,
                  "/nowhere/r.jsonl: error: cannot be written"},
             Case{"play " + folder.write("r.jsonl", "{\"recording\":1,\"hud\":\"\"}\n{\"time\":1.5}\n"), 1,
                  "r.jsonl:2:1: error: 'time' is not a whole number"},
             Case{"play " + folder.write("s.jsonl", "{\"recording\":1,\"hud\":\"\"}\n{\"time\":1}\n") + " --size 9x9",
                  2, "--size: is part of the recording"},
             Case{"play " + folder.path("s.jsonl") + " --trace " + csv, 2, "a recording holds its values"},
             Case{"play " + folder.path("s.jsonl") + " --at 3", 2, "outside the trace"},
             Case{"paly " + hud, 2, "error: unknown command 'paly'; did you mean 'play'?\n"},
             Case{"fly", 2, "error: unknown command 'fly'; expected one of demo"},
             Case{"telegraph", 2,
                  "expected one of demo, play, plot, sources, check, preview, drive, header, format, schema, "
                  "why, manual or completion"},
             Case{"", 2, "subcommand"},
             Case{"--help", 0, "play"},
         }) {
        const Ran ran = run_tool(row.arguments);
        EXPECT_EQ(ran.exit, row.exit) << row.arguments << "\n" << ran.out;
        EXPECT_NE(ran.out.find(row.says), std::string::npos) << row.arguments << "\n" << ran.out;
    }
}

TEST(Tool, plays_the_demo_with_table_events_and_pictures) {
    const TemporaryFolder folder;
    const Ran ran = run_tool("demo --out " + folder.path("pictures"));
    ASSERT_EQ(ran.exit, 0) << ran.out;
    const std::vector<std::string> lines = lines_of(ran.out);
    EXPECT_EQ(std::count(lines.begin(), lines.end(), "133.000 evacuation end -"), 1);
    int pictures = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder.path("pictures")))
        pictures += entry.file_size() > 50'000 ? 1 : 0;
    EXPECT_EQ(pictures, 5);
}

TEST(Tool, records_what_it_plays_and_plays_what_is_recorded) {
    const TemporaryFolder folder;
    const std::string whole = folder.path("whole.jsonl"), cut = folder.path("cut.jsonl");
    const std::string of_trace = "play " + sample("hud.toml") + " --trace " + sample("flight.csv");
    ASSERT_EQ(run_tool(of_trace + " --record " + whole).exit, 0);
    // Without its pictures and fonts, which stand beside the sample.
    const std::string all = " --at 20 --at 62 --at 104 --table --events --json | grep -v warning";
    const Ran before = run_tool(of_trace + all), after = run_tool("play " + whole + all);
    EXPECT_GT(before.out.size(), 10'000U);
    EXPECT_EQ(after.out, before.out);
    // The last seconds of the evacuation are the same in a HUD that begins a little earlier.
    ASSERT_NE(run_tool("play " + whole + " --from 126 --to 134 --record " + cut).exit, 2);
    const std::vector<std::string> lines = lines_of(run_tool("play " + cut + " --events").out);
    for (const char* const event : {"2.000 evacuation mark 5", "6.000 evacuation mark 1", "7.000 evacuation end -"})
        EXPECT_EQ(std::count(lines.begin(), lines.end(), event), 1) << event;
}

TEST(Tool, lists_the_names_of_a_hud_and_sweeps_what_it_declares) {
    const Ran names = run_tool("sources " + sample("hud.toml"));
    EXPECT_EQ(names.exit, 0) << names.out;
    const std::vector<std::string> lines = lines_of(names.out);
    const auto has = [&](const std::string& line) {
        return std::find(lines.begin(), lines.end(), line) != lines.end();
    };
    EXPECT_TRUE(has("plane.water number 0 to 3000 2200 L"));
    EXPECT_TRUE(has("world.village text - Pine Hollow, Alder Creek, Stonebridge -"));
    EXPECT_TRUE(has("evacuation.left - - - - offered by the HUD"));
    const Ran json = run_tool("sources --json " + sample("hud.toml"));
    for (const char* const name : {"plane.altitude", "mission.won", "pilot.rank"})
        EXPECT_NE(json.out.find("{\"name\":\"" + std::string(name) + "\",\"declared\":true,\"wanted\":true"),
                  std::string::npos)
            << name;

    // Twelve seconds: the usual value, from midnight to midnight and back, the usual value.
    const Ran table =
        run_tool("play " + sample("hud.toml") + " --ranges --table --json --at 1 --at 4 --at 6 --at 8 --at 11");
    EXPECT_EQ(table.exit, 0) << table.out;
    std::vector<std::string> times;
    for (const std::string& line : lines_of(table.out))
        if (line.find(".numbers.clock\"") != std::string::npos)
            times.push_back(line.substr(line.find("\"text\":\"") + 8, 5));
    EXPECT_EQ(times, (std::vector<std::string>{"11:12", "11:59", "23:59", "11:59", "11:12"}));

    TemporaryFolder folder;
    folder.write("typo.toml", "[source.water]\n[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"watr\"\n");
    const Ran typo = run_tool("sources " + folder.path("typo.toml"));
    EXPECT_EQ(typo.exit, 1);
    EXPECT_NE(typo.out.find("5:10: error: 'value' of text 'a': unknown source 'watr'; did you mean 'water'?"),
              std::string::npos)
        << typo.out;
    EXPECT_NE(typo.out.find("nothing asks for it"), std::string::npos);
    folder.write("none.toml", "[[element]]\nkind = \"text\"\nid = \"a\"\nformat = \"hello\"\n");
    const Ran none = run_tool("play " + folder.path("none.toml") + " --ranges");
    EXPECT_EQ(none.exit, 1);
    EXPECT_NE(none.out.find("declares no source that could be swept"), std::string::npos) << none.out;
}

TEST(Tool, makes_up_the_entries_of_a_container_that_is_declared) {
    TemporaryFolder folder;
    const std::string hud = folder.write(
        "hud.toml",
        "[source.fires]\ntype = \"entries\"\nrange = [0, 4]\nfields.name = { type = \"text\", sample = "
        "[\"Kiln Hill\", "
        "\"Otter Bend\", \"Ash\"] }\nfields.heat = { range = [0, 120], unit = \"K\" }\nfields.x = { range = "
        "[-300, 300] }\n"
        "fields.y = { range = [-200, 200] }\n"
        "[component.row]\nparameters = { name = \"source\", heat = \"source\" }\nlayout = \"row\"\n"
        "[[component.row.element]]\nkind = \"text\"\nid = \"name\"\nvalue = \"$name\"\n"
        "[[component.row.element]]\nkind = \"text\"\nid = \"heat\"\nvalue = \"$heat\"\nformat = \"{:.0f}\"\n"
        "[[element]]\nkind = \"list\"\nid = \"board\"\nentries = \"fires\"\ncomponent = \"row\"\nat_most = 5\n"
        "[[element]]\nkind = \"markers\"\nid = \"markers\"\nentries = \"fires\"\ncomponent = \"row\"\n");
    const auto names = lines_of(run_tool("sources " + hud).out);
    const auto has = [&](const std::string& line) {
        return std::find(names.begin(), names.end(), line) != names.end();
    };
    EXPECT_TRUE(has("fires entries 0 to 4 - -"));
    EXPECT_TRUE(has("fires.*.heat number 0 to 120 - K"));
    EXPECT_TRUE(has("board.*.name - - - - offered by the HUD")) << "one row for all panels";
    EXPECT_EQ(names.size(), 1U + 5 + 4);
    // As usual there are as many as the middle of the range, and in the middle of the sweep all that there may be.
    const auto count_of = [&](const std::string& at, const std::string& field) {
        const Ran ran = run_tool("play " + hud + " --ranges --table --columns id,text,visible --json --at " + at);
        int count = 0;
        std::set<std::string> texts;
        for (const std::string& line : lines_of(ran.out)) {
            const auto shown = nlohmann::json::parse(line);
            const std::string id = shown["id"];
            if (!id.ends_with(field) || shown["visible"] != true) continue;
            ++count;
            texts.insert(shown["text"]);
        }
        EXPECT_GE(texts.size(), 2U) << "entries differ";
        return count;
    };
    EXPECT_EQ(count_of("1", "name"), 2 * 2) << "in the list and over the world";
    EXPECT_EQ(count_of("6", "heat"), 2 * 4);
    const Ran set = run_tool("preview " + hud + " --set fires=1 --point 20,10");
    EXPECT_NE(set.out.find("text 'board.1.name' shows \"Kiln Hill\""), std::string::npos) << set.out;
    for (const int count : {1, 2}) {
        const Ran second = run_tool("preview " + hud + " --set fires=" + std::to_string(count) + " --point 20,45");
        EXPECT_EQ(second.out.find("board.2.name") != std::string::npos, count == 2) << second.out;
    }
}

TEST(Tool, completes_commands_and_options_and_its_manual_has_them_all) {
    const auto completed = [](const std::string& words, int at) {
        const std::string script = "source <(" + std::string(RAPIDO_TOOL) + " completion); COMP_WORDS=(" + words +
                                   "); COMP_CWORD=" + std::to_string(at) + "; _rapido; echo \"${COMPREPLY[*]}\"";
        std::ofstream(::testing::TempDir() + "completion.sh") << script;
        FILE* const pipe = popen(("bash " + ::testing::TempDir() + "completion.sh").c_str(), "r");
        std::array<char, 4096> block{};
        const std::size_t size = fread(block.data(), 1, block.size(), pipe);
        pclose(pipe);
        return std::string(block.data(), size);
    };
    EXPECT_EQ(completed("rapido pl", 1), "play plot\n");
    EXPECT_EQ(completed("rapido play hud.toml --tr", 3), "--trace --translations\n");
    EXPECT_EQ(completed("rapido demo --d", 2), "--data\n");
    EXPECT_EQ(completed("rapido play " RAPIDO_SOURCE_DIR "/demo/ember_ridge/hu", 2),
              RAPIDO_SOURCE_DIR "/demo/ember_ridge/hud.toml\n");

    std::string manual = run_tool("manual").out;
    manual.erase(std::remove(manual.begin(), manual.end(), '\\'), manual.end());
    int options = 0;
    for (const char* const command : {"demo", "play", "plot"})
        for (const std::string& line : lines_of(run_tool(std::string(command) + " --help").out)) {
            if (!line.starts_with("--")) continue;
            EXPECT_NE(manual.find(line.substr(0, line.find(' '))), std::string::npos) << command << ' ' << line;
            ++options;
        }
    EXPECT_GT(options, 30);
}

TEST(Tool, looks_for_images_beside_the_hud_file) {
    const TemporaryFolder folder;
    Fonts fonts;
    Picture small(4, 4, fonts);
    small.fill(rgb(0x00ff00));
    ASSERT_TRUE(small.write_png(folder.path("g.png")));
    const std::string trace = folder.write("t.csv", "time,v\n0,1\n1,2\n");
    const std::string both =
        "[[element]]\nkind = \"image\"\nid = \"a\"\nimage = \"g.png\"\nplace = { size = [50, 50] }\n"
        "[[element]]\nkind = \"image\"\nid = \"b\"\nimage = \"n.png\"\n";
    const std::string hud = folder.write("hud.toml", both);
    const std::string png = folder.path("out.png");
    const Ran ran = run_tool("play " + hud + " --trace " + trace + " --at 0 --png " + png);
    EXPECT_EQ(ran.exit, 1);
    EXPECT_NE(ran.out.find(":9:10: warning: 'image' of image 'b': 'n.png' is not there"), std::string::npos) << ran.out;
    Picture read(1280, 800, fonts);
    ASSERT_TRUE(read.draw_image(png)) << "there is a picture all the same";
    EXPECT_EQ(to_string(read.pixel(45, 45)), "#00ff00");
}

}  // namespace tool_test
}  // namespace rapido::test
