// HUD files that are written again: in canonical order with their comments, as a typed header, as a schema.
#include <filesystem>
#include <sstream>

#include "rapido/file.hpp"
#include "support.hpp"

namespace rapido::test {
namespace format_test {

std::string formatted(const std::string& text) {
    const Result<std::string> made = format_hud(text, "hud.toml");
    EXPECT_TRUE(made) << (made ? "" : to_string(made.problems().front())) << "\n" << text;
    return made ? *made : std::string();
}

std::string text_of(const std::filesystem::path& path) {
    std::ifstream file(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(file), {}};
}

/// All HUD files of the repository.
std::vector<std::filesystem::path> hud_files() {
    std::vector<std::filesystem::path> all;
    for (const char* const folder : {"demo", "docs", "fuzz/seeds/hud", "tests/check", "examples"})
        for (const auto& entry :
             std::filesystem::recursive_directory_iterator(std::filesystem::path(RAPIDO_SOURCE_DIR) / folder))
            if (entry.path().extension() == ".toml" && text_of(entry.path()).find("element") != std::string::npos)
                all.push_back(entry.path());
    EXPECT_GT(all.size(), 12U);
    return all;
}

TEST(FormatHud, keeps_what_a_file_says_and_each_of_its_comments) {
    Random random(7);
    for (const std::filesystem::path& path : hud_files()) {
        SCOPED_TRACE(path.string());
        std::string noted;
        int notes = 0;
        // Between any two lines of these files a comment may stand, and behind any line that does not end with one.
        std::stringstream lines(text_of(path));
        for (std::string line; std::getline(lines, line);) {
            noted += line;
            if (random.below(4) == 0 && line.find('#') == std::string::npos && !line.empty())
                noted += "  # note " + std::to_string(notes++) + ".";
            noted += "\n";
            if (random.below(4) == 0) noted += "   # note " + std::to_string(notes++) + ".\n";
            if (random.below(8) == 0) noted += "\n";
        }
        const std::string made = formatted(noted);
        for (int note = 0; note < notes; ++note) {
            const std::string words = "# note " + std::to_string(note) + ".";
            const std::size_t at = made.find(words);
            ASSERT_NE(at, std::string::npos) << words;
            EXPECT_EQ(made.find(words, at + 1), std::string::npos) << words << " stands twice";
        }
        EXPECT_EQ(formatted(made), made) << "twice is the same as once";
        const Result<HudDefinition> before = read_hud(text_of(path), "a"), after = read_hud(made, "a");
        ASSERT_EQ(bool(before), bool(after));
        if (before) {
            EXPECT_EQ(*before, *after);
        }
    }
}

TEST(FormatHud, writes_canonical_order) {
    struct Row {
        const char* before;
        const char* after;
    };
    const std::vector<Row> rows{
        {"", ""},
        {"# only a word\n", "# only a word\n"},
        {"font=\"Inter\"\ndesign   =[ 1280,720 ]", "design = [1280, 720]\nfont = \"Inter\"\n"},
        {"[[element]]\nsize=24\nvalue = \"acres\"\nid='acres'\nkind = \"text\"\n",
         "[[element]]\nkind = \"text\"\nid = 'acres'\nvalue = \"acres\"\nsize = 24\n"},
        // Comments go with what they stand above, and with what they stand behind.
        {"[[element]]\n# the color of fire\ncolor = \"#ff7a3c\" # ember\nkind = \"text\"\nid = \"a\"\n# the "
         "end\n",
         "[[element]]\nkind = \"text\"\nid = \"a\"\n# the color of fire\ncolor = \"#ff7a3c\"  # ember\n# the "
         "end\n"},
        // What stands in groups is a text of its own.
        {"[[element]]\nkind = \"text\"\nid = \"a\"\n\nsize = 24\n\nformat = \"x\"\n",
         "[[element]]\nkind = \"text\"\nid = \"a\"\n\nsize = 24\n\nformat = \"x\"\n"},
        {"[ element . place ]\n", "[element.place]\n"},
        {"[source.\"plane.water\"]\nunit=\"L\"\nrange=[0,3000]\n",
         "[source.\"plane.water\"]\nrange = [0, 3000]\nunit = \"L\"\n"},
        {"element=[{id=\"a\",kind=\"text\"},{kind=\"bar\",max=1,value=\"x\",id=\"b\"}]",
         "element = [{ kind = \"text\", id = \"a\" }, { kind = \"bar\", id = \"b\", value = \"x\", max = 1 "
         "}]\n"},
        {"element = [\n{id=\"a\",kind=\"text\"}, # one\n\n  {kind=\"bar\",id=\"b\"}\n# none\n]\n",
         "element = [\n    { kind = \"text\", id = \"a\" },  # one\n\n    { kind = \"bar\", id = \"b\" },\n  "
         "  # none\n]\n"},
        {"a = '''\n # no comment'''\nb = \"\"\"say \\\"# no\\\" \"\"\" # yes\n",
         "a = '''\n # no comment'''\nb = \"\"\"say \\\"# no\\\" \"\"\"  # yes\n"},
        {"x = [nan,-inf, 1.0, 1979-05-27T07:32:00Z,0x1F]\n", "x = [nan, -inf, 1.0, 1979-05-27T07:32:00Z, 0x1F]\n"},
        {"x = [ 1 # one\n , 2 ]\n", "x = [\n    # one\n    1,\n    2,\n]\n"},
        {"\n\n\nfont = \"a\"\n\n\n\n[[timer]]\nmarks = [{every=1,at=5}]\nid = \"t\"\n\n\n",
         "font = \"a\"\n\n[[timer]]\nid = \"t\"\nmarks = [{ at = 5, every = 1 }]\n"}};
    for (const Row& row : rows) {
        EXPECT_EQ(formatted(row.before), row.after) << row.before;
        EXPECT_EQ(formatted(row.after), row.after);
    }
    EXPECT_EQ(to_string(format_hud("x = \n", "hud.toml").problems().front()).substr(0, 20), "hud.toml:1:5: error:");
    EXPECT_EQ(format_hud("x = \"\xff\"\n", "a").problems().front().code, ProblemCode::syntax);
    EXPECT_EQ(formatted("\xef\xbb\xbf"
                        "a=1\r\nb = 2 # x\r\n"),
              "a = 1\nb = 2  # x\n");
}

TEST(FormatHud, loses_nothing_of_any_damaged_file) {
    // Whatever is still TOML is written such that it says the same, which the function itself makes sure of; here it must say so, and not crash.
    const std::string whole = text_of(sample("hud.toml"));
    Random random(3);
    int made = 0;
    for (int i = 0; i < 300; ++i) {
        std::string text = whole.substr(0, whole.find("# --- Top right"));
        for (int hit = 0; hit < 1 + random.below(3); ++hit) {
            const auto at = static_cast<std::size_t>(random.below(static_cast<int>(text.size())));
            const char c = "\"'[]{}=#,\n. a1"[random.below(14)];
            if (random.below(2) == 0)
                text[at] = c;
            else
                text.insert(at, 1, c);
        }
        const Result<std::string> result = format_hud(text, "hud.toml");
        if (result) {
            ++made;
            EXPECT_EQ(formatted(*result), *result);
        } else {
            EXPECT_NE(result.problems().front().message, "cannot be formatted without changing what it says") << text;
        }
    }
    EXPECT_GT(made, 30);
}

TEST(TypedHeader, tells_what_cannot_be_a_field) {
    struct Row {
        const char* sources;
        const char* says;
    };
    const std::vector<Row> rows{
        {"",
         "hud.toml: error: declares no source that could be a field; say what the game will offer, such as "
         "[source.\"plane.water\"]"},
        {"source.\"plane-speed\" = {}",
         "hud.toml:1:8: error: source 'plane-speed' cannot be a field of C++; its parts are made of letters, "
         "digits and "
         "'_', and no words of the language"},
        {"source.\"plane.class\" = {}",
         "hud.toml:1:8: error: source 'plane.class' cannot be a field of C++; its parts are made of letters, "
         "digits and "
         "'_', and no words of the language"},
        {"source.\"plane\" = {}\nsource.\"plane.water\" = {}",
         "hud.toml:2:8: error: source 'plane.water' is a name, and the beginning of another one; give one of "
         "them "
         "another name, such as 'plane.water.value'"},
        {"source.\"a.a\" = {}",
         "hud.toml:1:8: error: source 'a.a' has a part that is named as the one around it; give one of them "
         "another "
         "name"},
        {"source.bind = {}",
         "hud.toml:1:8: error: source 'bind' has the name of the function that binds all of them; give it "
         "another "
         "name"}};
    for (const Row& row : rows) {
        const Result<HudDefinition> definition = read_hud(row.sources, "hud.toml");
        ASSERT_TRUE(definition) << to_string(definition.problems().front());
        const Result<std::string> made = hud_header(*definition);
        ASSERT_FALSE(made) << row.sources;
        EXPECT_EQ(to_string(made.problems().front()), row.says);
    }
    HudDefinition one;
    one.sources.push_back({.name = "water"});
    EXPECT_EQ(hud_header(one, {.type = "class"}).problems().front().message, "'class' is no name for a type");
    EXPECT_EQ(hud_header(one, {.name_space = "a::"}).problems().front().message, "'a::' is no namespace");
    EXPECT_TRUE(hud_header(one, {.type = "Flight", .name_space = "game::ui"}));
}

TEST(DeclaredSource, is_checked_in_cpp_too) {
    HudDefinition definition;
    definition.sources.push_back({.name = "water", .range = {0, 10}, .sample = {Value(12.0)}});
    definition.sources.push_back({.name = "flag", .type = SourceType::flag, .range = {0, 1}});
    const Result<Hud> made = Hud::make(definition);
    ASSERT_FALSE(made);
    ASSERT_EQ(made.problems().size(), 2U);
    EXPECT_EQ(to_string(made.problems()[0]),
              "error: 'sample' of source 'water' is 12, which is outside of its range, 0 to 10");
    EXPECT_EQ(to_string(made.problems()[1]),
              "error: 'range' of source 'flag', which is a flag; give its values as 'sample'");
}

}  // namespace format_test
}  // namespace rapido::test
