// `rapido drive` and `rapido preview`: a HUD that another program drives, and one that follows its file.
#include <sys/types.h>
#include <chrono>
#include <csignal>
#include <sstream>
#include <thread>

#include "rapido/base/problem.hpp"
#include "tool_support.hpp"

namespace rapido::test {
namespace tool_drive_test {

std::string read(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(file), {}};
}

const std::string board =
    "[[element]]\nkind = \"text\"\nid = \"acres\"\nvalue = \"acres\"\nformat = \"{} acres\"\n"
    "[[element]]\nkind = \"text\"\nid = \"village\"\nvalue = \"village\"\n"
    "[[element]]\nkind = \"bar\"\nid = \"water\"\nvalue = \"water\"\nmax = 100\n"
    "visible = \"flying\"\nbands = [{ id = \"low\", below = 0.25 }]\n";

TEST(Drive, takes_a_thousand_lines_a_second_for_ten_seconds) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml", board);
    const std::string command = std::string(RAPIDO_TOOL) + " drive " + hud + " --table --json --events --png " +
                                folder.path("out.png") + " >" + folder.path("out") + " 2>" + folder.path("err");
    FILE* const tool = ::popen(command.c_str(), "w");
    ASSERT_NE(tool, nullptr);
    const auto start = std::chrono::steady_clock::now();
    for (int line = 1; line <= 10'000; ++line) {
        if (line == 5'000)
            std::fputs("{\"acres\": \n", tool);  // one of them is bad, and skipped
        else
            std::fprintf(tool, "{\"acres\": %d, \"water\": %d}\n", line, line < 3000 ? 80 : 20);
        if (line % 10 == 0) {
            std::fflush(tool);
            std::this_thread::sleep_until(start + line * 1ms);
        }
    }
    std::fputs("{\"village\": \"Alder Creek\", \"flying\": true}", tool);  // the last line needs no end
    ASSERT_EQ(::pclose(tool), 1 << 8) << "a line was bad";
    const std::string err = read(folder.path("err")), out = read(folder.path("out"));
    EXPECT_NE(err.find("standard input:5000: error: the line is no JSON; it is skipped"), std::string::npos) << err;
    EXPECT_NE(err.find("10001 lines, 1 of them skipped"), std::string::npos) << err;
    EXPECT_NE(out.find("\"text\":\"10000 acres\""), std::string::npos) << out;
    EXPECT_NE(out.find("\"text\":\"Alder Creek\""), std::string::npos);
    EXPECT_NE(out.find("\"fill\":0.2,"), std::string::npos);
    EXPECT_NE(out.find("\"id\":\"water\",\"event\":\"band_enter\",\"detail\":\"low\""), std::string::npos);
    EXPECT_GT(std::filesystem::file_size(folder.path("out.png")), 1000U);
}

TEST(Drive, tells_what_is_wrong_with_a_line_and_skips_it) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml", board);
    const std::vector<std::pair<std::string, std::string>> rows{
        {"[1]",
         "standard input:2: error: the line is no object; it is skipped; write one, such as "
         "{\"plane.water\": 640}"},
        {"{\"acres\": {\"a\": 1}}",
         "standard input:2: error: 'acres' is an object; the line is skipped; write its parts as names, "
         "\"acres.part\""},
        {"{\"acres\": 9, \"x\": [1]}",
         "standard input:2: error: 'x' is a list of values; the line is skipped; expected objects in it"},
        {"{\"x\": [{\"a\": [1]}]}", "standard input:2: error: 'a' of 'x' holds others; the line is skipped"},
        {"{\"\": 1}", "standard input:2: error: a value without a name; the line is skipped"},
        {"acres 9", "standard input:2: error: the line is no JSON; it is skipped"}};
    for (const auto& [line, expected] : rows) {
        folder.write("lines", "{\"acres\": 7}\n" + line + "\n\n");
        const Ran ran = run_tool("drive " + hud + " --table <" + folder.path("lines"));
        EXPECT_EQ(ran.exit, 1) << line;
        EXPECT_NE(ran.out.find(expected), std::string::npos) << line << "\n" << ran.out;
        EXPECT_NE(ran.out.find("7 acres"), std::string::npos) << "nothing of it is taken: " << ran.out;
        EXPECT_NE(ran.out.find("2 lines, 1 of them skipped"), std::string::npos) << ran.out;
    }
}

TEST(Drive, takes_lists_null_and_files_that_are_saved) {
    const TemporaryFolder folder;
    const std::string hud =
        folder.write("hud.toml",
                     "component.row = { parameters = { name = \"source\", score = \"source\" }, element = [{ kind = "
                     "\"text\", id = \"t\", "
                     "value = \"$name\", values = { s = \"$score\" }, format = \"{} {s}\" }] }\n"
                     "element = [{ kind = \"list\", id = \"pilots\", entries = \"pilots\", key = \"name\", sort = "
                     "\"score\", at_most = 3, "
                     "component = \"row\" }, { kind = \"text\", id = \"acres\", value = \"acres\" }]\n");
    folder.write("lines",
                 "{\"acres\": 1, \"pilots\": [{\"name\": \"Ana\", \"score\": 5}]}\n"
                 "{\"pilots\": [{\"name\": \"Ana\", \"score\": 5}, {\"name\": \"Bo\", \"score\": 9, \"rank\": 1}]}\n"
                 "{\"acres\": null}\n");
    const Ran ran = run_tool("drive " + hud + " --table <" + folder.path("lines"));
    EXPECT_EQ(ran.exit, 0) << ran.out;
    EXPECT_LT(ran.out.find("Ana 5"), ran.out.find("Bo 9")) << ran.out;
    EXPECT_NE(ran.out.find("acres       --"), std::string::npos) << ran.out;
    EXPECT_EQ(run_tool("drive " + folder.path("none.toml") + " </dev/null").exit, 1);
}

TEST(Drive, takes_calls_in_the_words_of_recordings) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml", board);
    folder.write("lines",
                 "{\"acres\": 7, \"call me\": 1, \"water\": 50, \"flying\": true}\n"
                 "{\"call\": \"set_format\", \"element\": \"acres\", \"format\": \"<{}>\"}\n"
                 "{\"call\": \"set_visible\", \"element\": \"water\", \"visible\": false}\n"
                 "{\"call\": \"add\", \"hud\": \"[[element]]\\nkind = 'text'\\nid = 'new'\\nformat = 'fresh'\"}\n"
                 "{\"call\": \"pley\"}\n"
                 "{\"call\": \"play\", \"element\": \"acre\", \"effect\": \"swell\", \"strength\": 1}\n"
                 "{\"call\": \"play\", \"element\": \"acres\", \"effect\": \"swell\"}\n"
                 "{\"call\": \"add\", \"hud\": \"[[element]]\\nkind = 'txt'\"}\n"
                 "{\"call\": \"add_marker\", \"element\": \"acres\", \"thing\": 0}\n"
                 "{\"call\": \"set_language\", \"language\": \"!\"}\n"
                 "{\"call\": \"reload\", \"hud\": \"[[element]]\\nkind = 'bar'\\nid = 'acres'\\nvalue = 1\\ngroup = "
                 "'none'\"}\n");
    const Ran ran = run_tool("drive " + hud + " --table <" + folder.path("lines"));
    EXPECT_EQ(ran.exit, 1);
    for (const std::string expected :
         {"<7>", "fresh", "standard input:5: error: no call is named 'pley'; did you mean 'play'?",
          "standard input:6: error: no element 'acre'; did you mean 'acres'?",
          "standard input:7: error: 'play' has no 'strength'", "standard input:8: error: unknown kind 'txt'",
          "standard input:9: error: things cannot be marked one by one by lines",
          "standard input:10: error: ", "standard input:11: error: ", "11 lines, 7 of them skipped"})
        EXPECT_NE(ran.out.find(expected), std::string::npos) << expected << "\n" << ran.out;
    EXPECT_NE(ran.out.find("0.5000  #38b6c9  no"), std::string::npos) << "water is hidden: " << ran.out;
}

// --- Preview

TEST(Preview, explains_the_element_at_a_point_with_values_by_hand) {
    const TemporaryFolder folder;
    const std::string hud =
        folder.write("hud.toml", "source.acres = { type = \"integer\", range = [0, 100], sample = 12 }\n" + board);
    const Ran usual = run_tool("preview " + hud + " --point 20,10 --at 1");
    EXPECT_EQ(usual.exit, 0) << usual.out;
    EXPECT_NE(usual.out.find("text 'acres' shows \"12 acres\""), std::string::npos) << usual.out;
    const Ran set = run_tool("preview " + hud + " --point 20,10 --set acres=77");
    EXPECT_NE(set.out.find("text 'acres' shows \"77 acres\""), std::string::npos) << set.out;
    // In the middle of the sweep, at six seconds, it stands at the top of its range.
    const Ran swept = run_tool("preview " + hud + " --point 20,10 --at 6");
    EXPECT_NE(swept.out.find("text 'acres' shows \"100 acres\""), std::string::npos) << swept.out;
    const Ran nothing = run_tool("preview " + hud + " --point 900,700");
    EXPECT_EQ(nothing.exit, 1);
    EXPECT_NE(nothing.out.find("error: no element at 900,700"), std::string::npos);
    const Ran bad = run_tool("preview " + hud + " --point 1,1 --set acres=many");
    EXPECT_NE(bad.out.find("--set 'acres=many' gives no value; write NAME=VALUE"), std::string::npos) << bad.out;
    EXPECT_EQ(run_tool("preview " + hud + " --follow").exit, 2);
}

/// Waits until something is so, for ten seconds at most.
template <class Condition>
bool comes(Condition&& condition) {
    for (int i = 0; i < 500; ++i) {
        if (condition()) return true;
        std::this_thread::sleep_for(20ms);
    }
    return false;
}

TEST(Preview, writes_a_picture_at_each_save_and_keeps_the_last_good_hud) {
    const TemporaryFolder folder;
    const std::string head = "source.acres = { type = \"integer\", range = [0, 100], sample = 12 }\n";
    const std::string hud = folder.write("hud.toml", head + board);
    const std::string command = std::string(RAPIDO_TOOL) + " preview " + hud + " --png " + folder.path("out.png") +
                                " --follow --size 640x360 >/dev/null 2>&1 & echo $! >" + folder.path("pid");
    ASSERT_EQ(std::system(command.c_str()), 0);
    ASSERT_TRUE(comes([&] { return std::filesystem::exists(folder.path("out.png")); }));
    const std::string first = read(folder.path("out.png"));
    const auto differs = [&](const std::string& from) {
        return comes([&] {
            const std::string now = read(folder.path("out.png"));
            return !now.empty() && now != from;
        });
    };
    std::string other = board;
    other.replace(other.find("{} acres"), 8, "{} saved");
    folder.write("hud.toml", head + other);
    EXPECT_TRUE(differs(first)) << "it is read again";
    const std::string second = read(folder.path("out.png"));
    folder.write("hud.toml", head + "nonsense");
    EXPECT_TRUE(differs(second)) << "what is wrong stands over it";
    folder.write("hud.toml", head + other);
    EXPECT_TRUE(comes([&] { return read(folder.path("out.png")) == second; })) << "and is gone when it is right again";
    const int pid = std::stoi(read(folder.path("pid")));
    ::kill(pid, SIGTERM);
}

TEST(Why, has_a_page_for_each_code_that_a_problem_may_have) {
    const Ran all = run_tool("why");
    for (int code = 0; code <= static_cast<int>(ProblemCode::untranslated); ++code) {
        const std::string word(to_string(static_cast<ProblemCode>(code)));
        EXPECT_NE(("\n" + all.out).find("\n" + word + " "), std::string::npos) << word;
        const Ran page = run_tool("why " + word);
        EXPECT_EQ(page.exit, 0);
        EXPECT_TRUE(page.out.starts_with(word + "\n\n")) << page.out;
    }
    EXPECT_EQ(run_tool("why '[overlap]'").out, run_tool("why overlap").out) << "as it stands in a message";
    const Ran none = run_tool("why overlapp");
    EXPECT_EQ(none.exit, 2);
    EXPECT_EQ(none.out, "error: no code 'overlapp'; did you mean 'overlap'?\n");
}

}  // namespace tool_drive_test
}  // namespace rapido::test
