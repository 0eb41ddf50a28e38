// What the tool does to files that are there already, and to the terminal.
#include <sys/stat.h>
#include <unistd.h>

#include "tool_support.hpp"

namespace rapido::test {
namespace tool_files_test {

namespace fs = std::filesystem;

const std::string disorder = "[[element]]\nformat = \"x\"\nid = \"a\"\nkind = \"text\"\n";
const std::string order = "[[element]]\nkind = \"text\"\nid = \"a\"\nformat = \"x\"\n";

std::string contents(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    return file ? std::string(std::istreambuf_iterator<char>(file), {}) : "(it cannot be read)";
}
unsigned mode_of(const std::string& path) {
    struct stat found {};
    return ::stat(path.c_str(), &found) == 0 ? found.st_mode & 07777U : 0;
}
std::size_t count_in(const std::string& folder) {
    return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder), fs::directory_iterator()));
}

/// The commands that write a file, as functions of its path.
std::vector<std::pair<std::string, std::string>> writers(const std::string& hud) {
    return {{"header", "header " + sample("hud.toml") + " --out "},
            {"png", "preview " + hud + " --size 320x200 --png "},
            {"plot", "plot " + sample("hud.toml") + " --trace " + sample("flight.csv") + " --to 2 --of acres --png "}};
}

TEST(ToolFiles, are_never_written_through_what_stands_beside_them) {
    const TemporaryFolder folder;
    const std::string victim = folder.write("victim", "keep me");
    for (const auto& [name, command] : writers(folder.write("h.toml", order))) {
        const std::string out = folder.path("out.png");
        fs::create_symlink(victim, out + ".part");
        const Ran ran = run_tool(command + out);
        EXPECT_EQ(ran.exit, 0) << name << ran.out;
        EXPECT_EQ(contents(victim), "keep me") << name;
        EXPECT_GT(fs::file_size(out), 20U) << name;
        EXPECT_TRUE(fs::is_symlink(out + ".part")) << name;
        fs::remove(out + ".part");
        fs::remove(out);
    }
    const std::string hud = folder.write("hud.toml", disorder);
    fs::create_symlink(victim, hud + ".part");
    EXPECT_EQ(run_tool("format " + hud).exit, 0);
    EXPECT_EQ(contents(victim), "keep me");
    EXPECT_EQ(contents(hud), order);
}

TEST(ToolFiles, keep_their_links_modes_names_and_ends_of_lines) {
    const TemporaryFolder folder;
    // A link stays one, and leads to what was formatted; so does a link to a link, and one that is relative.
    const std::string real = folder.write("real.toml", disorder);
    ASSERT_EQ(::chmod(real.c_str(), 0640), 0);
    fs::create_symlink("real.toml", folder.path("link.toml"));
    fs::create_symlink("link.toml", folder.path("second.toml"));
    EXPECT_EQ(run_tool("format " + folder.path("second.toml")).exit, 0);
    EXPECT_TRUE(fs::is_symlink(folder.path("second.toml")));
    EXPECT_TRUE(fs::is_symlink(folder.path("link.toml")));
    EXPECT_EQ(contents(real), order);
    EXPECT_EQ(mode_of(real), 0640U);
    // One with two names is written in place, and that is said.
    const std::string first = folder.write("first.toml", disorder);
    fs::create_hard_link(first, folder.path("other.toml"));
    const Ran both = run_tool("format " + first);
    EXPECT_EQ(contents(folder.path("other.toml")), order);
    EXPECT_NE(both.out.find("has 2 names (hard links), and was written in place"), std::string::npos) << both.out;
    // A read-only one is refused, also for root.
    const std::string fixed = folder.write("fixed.toml", disorder);
    ASSERT_EQ(::chmod(fixed.c_str(), 0444), 0);
    const Ran refused = run_tool("format " + fixed);
    EXPECT_EQ(refused.exit, 1);
    EXPECT_NE(refused.out.find("fixed.toml: error: cannot be written: it is read-only"), std::string::npos)
        << refused.out;
    EXPECT_EQ(contents(fixed), disorder);
    // Lines end as they did.
    std::string ended;
    for (const char c : disorder)
        ended += c == '\n' ? std::string("\r\n") : std::string(1, c);
    const std::string windows = folder.write("windows.toml", ended);
    EXPECT_EQ(run_tool("format " + windows).exit, 0);
    std::string expected;
    for (const char c : order)
        expected += c == '\n' ? std::string("\r\n") : std::string(1, c);
    EXPECT_EQ(contents(windows), expected);
    EXPECT_EQ(run_tool("format --check " + windows).exit, 0) << "it is in order now";
}

TEST(ToolFiles, are_whole_or_as_before_where_the_disk_is_full) {
    const TemporaryFolder folder;
    const std::string hud = folder.write("hud.toml", disorder);
    const std::size_t before = count_in(folder.path(""));
    // No file may grow beyond nothing: what a full disk says, said by the shell.
    const auto run_full = [](const std::string& arguments) {
        Ran ran;
        FILE* const pipe =
            popen(("trap '' XFSZ; ulimit -f 0; " + std::string(RAPIDO_TOOL) + " " + arguments + " 2>&1").c_str(), "r");
        std::array<char, 4096> block{};
        for (std::size_t n = 0; (n = fread(block.data(), 1, block.size(), pipe)) > 0;)
            ran.out.append(block.data(), n);
        ran.exit = WEXITSTATUS(pclose(pipe));
        return ran;
    };
    const Ran formatted = run_full("format " + hud);
    EXPECT_EQ(formatted.exit, 1) << formatted.out;
    EXPECT_NE(formatted.out.find("hud.toml: error: "), std::string::npos) << formatted.out;
    EXPECT_EQ(contents(hud), disorder);
    for (const auto& [name, command] : writers(hud)) {
        const Ran ran = run_full(command + folder.path("out.png"));
        EXPECT_EQ(ran.exit, 1) << name << ran.out;
        EXPECT_EQ(count_in(folder.path("")), before) << name << ": nothing half written is left";
    }
}

TEST(ToolFiles, that_are_pipes_are_not_waited_for_as_includes) {
    const TemporaryFolder folder;
    ASSERT_EQ(::mkfifo(folder.path("pipe.toml").c_str(), 0600), 0);
    const std::string hud = folder.write("hud.toml", "include = [\"pipe.toml\"]\n" + order);
    const Ran ran = run_tool("sources " + hud);
    EXPECT_EQ(ran.exit, 1);
    EXPECT_NE(ran.out.find("'include' of 'pipe.toml': is not a file"), std::string::npos) << ran.out;
}

TEST(ToolOutput, has_no_commands_to_the_terminal) {
    const TemporaryFolder folder;
    const std::string hud = folder.write(
        "hud.toml",
        "[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"v\"\nformat = "
        "\"<{}>\\u001b[2J\\u009b31m\\u007f\"\n"
        "[[element]]\nkind = \"text\"\nid = \"b\"\nformat = \"x\"\nfont = \"evil\\u001b]0;title\\u0007\"\n");
    const std::string trace = folder.write("trace.csv", "time,v\n0,one\x1b[1m\n1,\"tw\ro\"\n");
    std::string all;
    for (const std::string& command :
         {"play " + hud + " --trace " + trace + " --table --events --explain a", "names " + hud,
          "check " + hud + " --trace " + trace, "play " + hud + " --trace " + trace + " --table --json",
          std::string("play 'none\x1b[5m.toml' --trace x"), std::string("why 'x\x1b[5m'"), "format --print " + hud})
        all += run_tool(command).out;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const auto c = static_cast<unsigned char>(all[i]);
        const bool is_c1 = c == 0xc2 && i + 1 < all.size() && static_cast<unsigned char>(all[i + 1]) < 0xa0;
        EXPECT_FALSE((c < 0x20 && c != '\n' && c != '\t') || c == 0x7f || is_c1) << all.substr(i > 30 ? i - 30 : 0, 60);
    }
    EXPECT_NE(all.find("\\x1b[2J"), std::string::npos) << all;
}

TEST(Live, follows_a_name_whatever_it_becomes) {
    const TemporaryFolder folder;
    const std::string hud = folder.write(
        "hud.toml",
        "[component.row]\nparameters = { n = \"source\" }\n[[component.row.element]]\nkind = \"text\"\nid = "
        "\"t\"\nvalue = "
        "\"$n\"\n[[element]]\nkind = \"list\"\nid = \"l\"\nentries = \"v\"\ncomponent = \"row\"\n"
        "[[element]]\nkind = \"text\"\nid = \"count\"\nvalue = \"l.count\"\n"
        "[[element]]\nkind = \"text\"\nid = \"plain\"\nvalue = \"v\"\n");
    struct Row {
        std::string lines, count, plain;
    };
    const std::string list = R"({"v":[{"n":1},{"n":2}]})";
    for (const Row& row : std::vector<Row>{{R"({"v":5})", "--", "5"},
                                           {R"({"v":5})"
                                            "\n" +
                                                list,
                                            "2", "2"},
                                           {list + "\n{\"v\":null}", "0", "0"},
                                           {list + "\n{\"v\":null}\n" + list, "2", "2"},
                                           {R"({"v":5})"
                                            "\n" +
                                                list + "\n{\"v\":7}",
                                            "--", "7"},
                                           {R"({"v":5})"
                                            "\n" +
                                                list + "\n{\"v\":7}\n" + list,
                                            "2", "2"}}) {
        const std::string lines = folder.write("lines", row.lines + "\n");
        const Ran ran = run_tool("drive " + hud + " --table --json < " + lines);
        EXPECT_NE(ran.out.find(R"("id":"plain")"), std::string::npos) << ran.out;
        const auto text_of = [&](const std::string& id) {
            const std::size_t at = ran.out.find("\"id\":\"" + id + "\"");
            const std::size_t text = ran.out.find("\"text\":\"", at) + 8;
            return ran.out.substr(text, ran.out.find('"', text) - text);
        };
        EXPECT_EQ(text_of("plain"), row.plain) << row.lines << "\n" << ran.out;
    }
}

TEST(Header, compiles_or_says_why_not_for_any_names) {
    struct Row {
        std::string names, options, says;
    };
    for (const Row& row :
         std::vector<Row>{{"bind.x", "", "has the name of the function that binds all of them"},
                          {"errno", "", "may be a macro of a header"},
                          {"EOF", "", "may be a macro of a header"},
                          {"depth.INT_MAX", "", "may be a macro of a header"},
                          {"plane.unix", "", "may be a macro of a header"},
                          {"game.x", "--type game", "is named as the type 'game' around it"},
                          {"a", "--namespace rapido", "namespace 'rapido' belongs to others"},
                          {"sources hud_values.x hud_values.HudValues plane.Plane plane.PlanePart std rapido.std into",
                           "--namespace game::rapido", ""},
                          {"sources_x a.a1.a2.B a.a1.A1 a.A plane.HP FPS", "", ""}}) {
        const TemporaryFolder folder;
        std::string text = order;
        std::istringstream words(row.names);
        for (std::string word; words >> word;)
            text += "[source.\"" + word + "\"]\ntype = \"number\"\n";
        const Ran ran =
            run_tool("header " + folder.write("h.toml", text) + " " + row.options + " --out " + folder.path("h.hpp"));
        if (!row.says.empty()) {
            EXPECT_EQ(ran.exit, 1) << row.names;
            EXPECT_NE(ran.out.find(row.says), std::string::npos) << ran.out;
            continue;
        }
        ASSERT_EQ(ran.exit, 0) << ran.out;
        const std::string source = folder.write("h.cpp", "#include \"h.hpp\"\n");
        EXPECT_EQ(std::system(("${CXX:-c++} -std=c++20 -Wall -Wextra -Wshadow -Werror -fsyntax-only -I" +
                               std::string(RAPIDO_SOURCE_DIR) + "/include " + source)
                                  .c_str()),
                  0)
            << contents(folder.path("h.hpp"));
    }
}

}  // namespace tool_files_test
}  // namespace rapido::test
