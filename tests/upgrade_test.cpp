// HUD files and recordings of version 0.1, read and written again in the names of today.
#include <filesystem>
#include <fstream>
#include <regex>

#include "element/kinds.hpp"
#include "file/hud_upgrade.hpp"
#include "hud/call.hpp"
#include "hud/definition_tables.hpp"
#include "rapido/file.hpp"
#include "rapido/recording.hpp"
#include "support.hpp"

namespace rapido::test {
namespace upgrade_test {

std::string upgraded(const std::string& text) {
    const Result<std::string> made = upgrade_hud(text, "hud.toml");
    EXPECT_TRUE(made) << (made ? "" : to_string(made.problems().front())) << "\n" << text;
    return made ? *made : std::string();
}

std::string element(const std::string& kind, const std::string& more) {
    return "[[element]]\nkind = \"" + kind + "\"\nid = \"e\"\n" + more + "\n";
}

TEST(Upgrade, gives_each_key_and_word_its_new_name) {
    // Each row by hand: the file before, and after.
    const std::vector<std::pair<std::string, std::string>> rows{
        {"[[meter]]\nid = \"fps\"\n", "[[frame_meter]]\nid = \"fps\"\n"},
        {"meter = [{ id = \"fps\" }]\n", "frame_meter = [{ id = \"fps\" }]\n"},
        {"[[locale]]\nlocale = \"ar\"\nfont = \"Noto Sans\"\n", "[[language]]\nlanguage = \"ar\"\nfont = \"Noto Sans\"\n"},
        {"[[timer]]\nid = \"t\"\nduration = 9\nbegin = 2\nstart = \"a\"\npause = \"b\"  # held\n",
         "[[timer]]\nid = \"t\"\nduration = 9\nelapsed = 2\nstart_when = \"a\"\npause_when = \"b\"  # held\n"},
        {element("text", "value = \"v\"\ncompact = 3\nrise = { kind = \"roll\", full_jump = 9 }\nfall = { kind = \"tween\" }"),
         element("text",
                 "value = \"v\"\ncompact_digits = 3\nmotion_up = { kind = \"roll\", full_duration_at = 9 }\n"
                 "motion_down = { kind = \"tween\" }")},
        {element("text", "value = \"v\"\npace = { interval = 1, window = \"average\" }\n"
                         "effects = [{ on = \"loss\", effect = \"shake\", full_change = 4 }]"),
         element("text", "value = \"v\"\npace = { interval = 1, pick = \"average\" }\n"
                         "triggers = [{ on = \"loss\", effect = \"shake\", full_strength_at = 4 }]")},
        {element("text", "value = \"v\"\nbands = [{ below = 3, margin = 1, of = \"value\", on = \"truth\" }]"),
         element("text", "value = \"v\"\nbands = [{ below = 3, hysteresis = 1, edge_unit = \"value\", reads = \"truth\" }]")},
        {element("text", "pictures = [{ name = \"key\", value = \"v\", images = [\"a.png\"] }]\n"
                         "format = \"{<key/>} Drop {<big>}{:.0f} {<low>}L{</>}{</>} {{<x>}}\""),
         element("text", "inline_images = [{ name = \"key\", value = \"v\", images = [\"a.png\"] }]\n"
                         "format = \"{#key/} Drop {#big}{:.0f} {#low}L{/low}{/big} {{<x>}}\"")},
        {element("notice", "messages = [{ text = \"{<a>}x{</>}\", time = 3 }]\ngap = 0.5\nat_once = 3\nspacing = 6"),
         element("notice", "messages = [{ text = \"{#a}x{/a}\", show_for = 3 }]\ntime_between = 0.5\nat_most = 3\ngap = 6")},
        {element("list", "entries = \"v\"\nmost = 3\nlayout = \"stack\"\njustify = \"space_between\""),
         element("list", "entries = \"v\"\nat_most = 3\nlayout = \"free\"\njustify = \"space-between\"")},
        {element("tags", "entries = \"v\"\nmost = 3"), element("markers", "entries = \"v\"\nat_most = 3")},
        {element("popups", "most = 9\ntime = 2\nrise = 40"), element("pop_ups", "at_most = 9\nshow_for = 2\nrise = 40")},
        {element("level", "value = \"v\"\noutline = [[0, 0], [1, 0], [0, 1]]\nmap = \"m.png\"\nmap_softness = 0.1\n"
                          "fill_by = \"level\""),
         element("level", "value = \"v\"\ncorners = [[0, 0], [1, 0], [0, 1]]\nfill_map = \"m.png\"\n"
                          "fill_map_softness = 0.1\nfill_by = \"extent\"")},
        {element("scale", "value = \"v\"\nwindow = 40\nmarks = { every = 5 }"),
         element("ruler", "value = \"v\"\nvisible_span = 40\nticks = { every = 5 }")},
        {element("dial", "value = \"v\"\nmarks = { every = 5 }"), element("dial", "value = \"v\"\nticks = { every = 5 }")},
        {element("graph", "value = \"v\"\nsamples = 60"), element("graph", "value = \"v\"\nresolution = 60")},
        {element("image", "image = \"a.png\"\nvalue = \"v\"\ncover = { clockwise = false }\nfit = \"scale_down\""),
         element("image", "image = \"a.png\"\nvalue = \"v\"\nlid = { clockwise = false }\nfit = \"scale-down\"")},
        {element("pips", "value = \"v\"\nshine = { effect = \"shine\" }"),
         element("pips", "value = \"v\"\nin_turn = { effect = \"shine\" }")},
        {element("bar", "value = \"v\"\nparts = [{ value = 2, of = \"end\" }]"),
         element("bar", "value = \"v\"\nparts = [{ value = 2, where = \"end\" }]")},
        {element("bar", "value = \"v\"\nticks = [25, { at = 50, thickness = 4 }]"),
         element("bar", "value = \"v\"\nticks = { at = [25, { at = 50, thickness = 4 }] }")},
        {element("graph", "value = \"v\"\nticks = [3]\ntick_format = \"{:.1f}\"\nsize = 9"),
         element("graph", "value = \"v\"\nticks = { at = [3], format = \"{:.1f}\", size = 9 }")},
        {element("text", "value = { source = \"speed\", scale = 3.6, offset = -1 }\nmax = { source = \"t.left\", scale = 10 }"),
         element("text", "value = \"speed * 3.6 - 1\"\nmax = \"seconds(t.left) * 10\"")},
        {element("text", "\n[element.value]\nsource = \"speed\"\nscale = 2"),
         element("text", "\n[element.value]\nsource = \"speed * 2\"")},
        {element("text", "value = { source = \"a - b\", offset = 2 }\nmax = { source = \"s\", scale = 2, time_left = true }"),
         element("text", "value = \"(a - b) + 2\"\nmax = { source = \"s * 2\", time_left = true }")},
        // In a panel, in a component, in a style.
        {element("panel", "element = [{ kind = \"scale\", id = \"s\", value = 1, marks = { every = 2 } }]"),
         element("panel", "element = [{ kind = \"ruler\", id = \"s\", value = 1, ticks = { every = 2 } }]")},
        {"[component.gauge]\nlayout = \"stack\"\n\n[[component.gauge.element]]\nkind = \"tags\"\nid = \"t\"\nmost = 2\n",
         "[component.gauge]\nlayout = \"free\"\n\n[[component.gauge.element]]\nkind = \"markers\"\nid = \"t\"\nat_most = 2\n"},
        // By dotted keys, and below headers of their own.
        {element("bar", "value = \"v\"\nrise.kind = \"roll\"\nrise.full_jump = 9\npace.window = \"average\""),
         element("bar", "value = \"v\"\nmotion_up.kind = \"roll\"\nmotion_up.full_duration_at = 9\npace.pick = \"average\"")},
        {element("bar", "value = \"v\"\n\n[element.rise]\nkind = \"roll\"\nfull_jump = 9\n\n[[element.bands]]\nbelow = 1\nmargin = 2"),
         element("bar", "value = \"v\"\n\n[element.motion_up]\nkind = \"roll\"\nfull_duration_at = 9\n\n[[element.bands]]\n"
                        "below = 1\nhysteresis = 2")},
        {element("panel", "\n[[element.element]]\nkind = \"tags\"\nid = \"t\"\nmost = 2\n\n[[element.element.effects]]\non = \"gain\"\n"
                          "full_change = 3"),
         element("panel", "\n[[element.element]]\nkind = \"markers\"\nid = \"t\"\nat_most = 2\n\n[[element.element.triggers]]\n"
                          "on = \"gain\"\nfull_strength_at = 3")},
        // What one's own names are called is left alone.
        {"[component.effects]\nlayout = \"stack\"\n\n[style.rise]\ncompact = 3\n",
         "[component.effects]\nlayout = \"free\"\n\n[style.rise]\ncompact_digits = 3\n"},
        {"[style.big]\npace.window = \"last\"\n\n[style.big.rise]\nfull_jump = 2\n",
         "[style.big]\npace.pick = \"last\"\n\n[style.big.motion_up]\nfull_duration_at = 2\n"},
        {"[style.big]\ncompact = 3\noutline = { width = 1 }\neffects = [{ on = \"gain\", effect = \"swell\" }]\n",
         "[style.big]\ncompact_digits = 3\noutline = { width = 1 }\ntriggers = [{ on = \"gain\", effect = \"swell\" }]\n"},
    };
    for (const auto& [before, after] : rows) {
        EXPECT_EQ(upgraded(before), format_hud(after, "hud.toml") ? *format_hud(after, "hud.toml") : "") << before;
    }
}

TEST(Upgrade, reads_every_file_of_the_version_before) {
    int files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(RAPIDO_SOURCE_DIR "/tests/upgrade")) {
        SCOPED_TRACE(entry.path().string());
        std::ifstream file(entry.path(), std::ios::binary);
        const std::string before{std::istreambuf_iterator<char>(file), {}};
        EXPECT_FALSE(read_hud(before, "hud.toml"));
        const std::string after = upgraded(before);
        const Result<HudDefinition> read = read_hud(after, "hud.toml");
        ASSERT_TRUE(read) << to_string(read.problems().front());
        EXPECT_EQ(std::count(after.begin(), after.end(), '#') > 0, std::count(before.begin(), before.end(), '#') > 0);
        EXPECT_EQ(*format_hud(after, "hud.toml"), after);
        ++files;
    }
    EXPECT_EQ(files, 5);
}

TEST(Upgrade, is_what_a_reader_says_of_an_old_name) {
    const std::regex since(" since version 0\\.2(, as in \".*\")?; 'rapido format --from 0\\.1' (writes all new names|does so)$");
    const std::vector<std::pair<std::string, std::string>> rows{
        {"[[meter]]\nid = \"fps\"\n", "1:3: error: unknown key 'meter' in the HUD; it is 'frame_meter'"},
        {"[[timer]]\nid = \"t\"\nbegin = 2\n", "3:1: error: unknown key 'begin' in timer 't'; it is 'elapsed'"},
        {element("bar", "value = 1\nrise = {}"), "5:1: error: unknown key 'rise' in bar 'e'; it is 'motion_up'"},
        {element("bar", "value = 1\nbands = [{ below = 1, margin = 2 }]"),
         "5:23: error: unknown key 'margin' in 'bands.0' of bar 'e'; it is 'hysteresis'"},
        {element("panel", "layout = \"stack\""),
         "4:10: error: 'layout' of panel 'e' is 'stack'; expected one of free, row, column or grid; it is 'free'"},
        {element("bar", "value = { source = \"a\", scale = 2 }"),
         "4:33: error: unknown key 'scale' in 'value' of bar 'e'; an amount is computed"},
        {"[[element]]\nkind = \"tags\"\nid = \"e\"\n", "it is 'markers'"},
    };
    for (const auto& [text, problem] : rows) {
        const Result<HudDefinition> read = read_hud(text, "hud.toml");
        ASSERT_FALSE(read) << text;
        const std::string said = to_string(read.problems().front());
        EXPECT_NE(said.find(problem), std::string::npos) << said;
        EXPECT_TRUE(std::regex_search(said, since)) << said;
    }
}

std::string text_of(const std::filesystem::path& path) {
    std::ifstream file(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(file), {}};
}

/// All descriptions that a HUD file has, each once.
void collect(const Table& table, std::set<const Table*>& all) {
    if (!all.insert(&table).second) return;
    for (const Field& field : table.fields)
        if (field.table != nullptr) collect(*field.table, all);
}

TEST(Upgrade, leaves_no_old_name_in_keys_words_calls_and_headers) {
    std::set<const Table*> tables;
    for (const Kind* const kind : all_kinds())
        collect(*kind->table, tables);
    for (const Table* const table : {&top_table, &timer_table, &frame_meter_table, &effect_table, &group_table, &language_table,
                                     &accepted_table, &source_table, &text_style_table})
        collect(*table, tables);
    EXPECT_GT(tables.size(), 30U);
    for (const Table* const table : tables)
        for (const Field& field : table->fields) {
            // The seconds between two messages had the name that the pixels between them have now.
            const bool has_moved = table->name == "notice" && field.name == "gap";
            EXPECT_EQ(renamed_key(table->name, field.name), has_moved ? "time_between" : "") << table->name << "." << field.name;
            for (const std::string_view word : field.choices)
                EXPECT_EQ(renamed_word(field.name, word), "") << field.name << " = " << word;
        }
    for (const Kind* const kind : all_kinds())
        EXPECT_EQ(renamed_word("kind", kind->name()), "");
    for (const CallKind* const call : all_calls())
        EXPECT_EQ(renamed_call(call->name()), "");
    // What has gone from C++, with its owner where the word alone means something else.
    const std::regex gone(
        R"(\b(DrawList|DrawCommand|DrawGroup|BandOf|BandOn|PartOf|WindowKind|ScaleMarks|MarkLabel|ScalePointer|Popups?|PopupBand)"
        R"(|Tags|TagRef|ShowTag|BarTrail|PipShine|Cover|TextPicture|LocaleOptions|Origin|RAPIDO_WATCH\w*|show_watches|add_rect)"
        R"(|Layout::stack|Value::boolean|hud\.text|hud\.fill|hud\.pop|hud\.tag|hud\.set_scale|rapido::name)\b)");
    int files = 0;
    for (const char* const folder : {"/include", "/docs", "/examples"})
        for (const auto& entry : std::filesystem::recursive_directory_iterator(std::string(RAPIDO_SOURCE_DIR) + folder)) {
            const std::string extension = entry.path().extension().string();
            if (entry.path().filename() == "upgrading.md" || (extension != ".hpp" && extension != ".md" && extension != ".cpp"))
                continue;
            ++files;
            const std::string text = text_of(entry.path().string());
            std::smatch found;
            EXPECT_FALSE(std::regex_search(text, found, gone)) << entry.path() << ": " << found.str();
        }
    EXPECT_GT(files, 100);
}

TEST(Upgrade, lets_a_recording_of_the_version_before_play) {
    const std::string recorded =
        R"({"recording":1,"hud":"[[element]]\nkind = \"text\"\nid = \"a\"\nvalue = \"on\"\nformat = \"{<big>}{}{</>}\"\n[style.big]\nsize = 40\n","names":{"on":"boolean"}}
{"call":"add","hud":"[[element]]\nkind = \"popups\"\nid = \"p\"\ntime = 2\n[[element]]\nkind = \"tags\"\nid = \"t\"\n"}
{"call":"set_scale","scale":2}
{"call":"pop","element":"p","value":37,"at":[0,0,0],"on_screen":[100,100]}
{"call":"tag","element":"t","thing":0}
{"time":100000000,"values":{"on":true}}
{"call":"set_format","element":"a","format":"{<big>}now {}{</>}"}
{"time":200000000}
)";
    const Result<Recording> read = Recording::read(recorded, "old.jsonl");
    ASSERT_TRUE(read) << to_string(read.problems().front());
    RecordingPlayer player(*read);
    Hud hud(read->definition(), player.sources());
    ASSERT_TRUE(player.update(hud));
    EXPECT_EQ(hud.text_of(hud.find("a")), "true");
    const Element pop_ups = hud.description(hud.find("p"));
    EXPECT_EQ(pop_ups.as<PopUps>()->show_for, 2s);
    EXPECT_TRUE(hud.description(hud.find("t")).as<Markers>().has_value());
    ASSERT_TRUE(player.update(hud));
    EXPECT_EQ(hud.text_of(hud.find("a")), "now true");
    EXPECT_TRUE(hud.problems().empty()) << to_string(hud.problems().front());
}

}  // namespace upgrade_test
}  // namespace rapido::test
