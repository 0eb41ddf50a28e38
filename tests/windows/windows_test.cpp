// What is so on Windows alone: its header before ours, and files that another program holds.
#include <windows.h>

// After it, all that is public.
#include <rapido/debug.hpp>
#include <rapido/file.hpp>
#include <rapido/fonts.hpp>
#include <rapido/game_hud.hpp>
#include <rapido/gl.hpp>
#include <rapido/images.hpp>
#include <rapido/mesh.hpp>
#include <rapido/picture.hpp>
#include <rapido/rapido.hpp>
#include <rapido/recording.hpp>

#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <thread>

#include "tool/whole_file.hpp"

namespace rapido::windows_test {
namespace {

const std::string path = "windows_test_hud.toml";

void save(const std::string& id) {
    std::ofstream(path, std::ios::binary)
        << "[[element]]\r\nkind = \"text\"\r\nid = \"" << id << "\"\r\nformat = \"x\"\r\n";
}

bool changes(HudFile& file) {
    for (int look = 0; look < 5; ++look) {
        if (file.has_changed()) return true;
        std::this_thread::sleep_for(std::chrono::milliseconds(60));
    }
    return false;
}

TEST(HudFile, that_another_program_holds_is_read_when_it_can_be) {
    save("first");
    HudFile file(path);
    const Result<HudDefinition> first = file.read();
    ASSERT_TRUE(first);
    Hud hud(*first);
    save("second");
    const HANDLE held = ::CreateFileW(L"windows_test_hud.toml", GENERIC_READ, 0, nullptr, OPEN_EXISTING, 0, nullptr);
    ASSERT_NE(held, INVALID_HANDLE_VALUE);
    ASSERT_TRUE(changes(file));
    const Problems problems = file.reload(hud);
    ASSERT_EQ(problems.size(), 1U);
    EXPECT_EQ(problems[0].code, ProblemCode::unreadable);
    EXPECT_TRUE(hud.find("first")) << "the last good one stays";
    EXPECT_FALSE(changes(file)) << "it is told once";
    ::CloseHandle(held);
    ASSERT_TRUE(changes(file)) << "nobody has saved it since";
    EXPECT_TRUE(file.reload(hud).empty());
    EXPECT_TRUE(hud.find("second"));
    EXPECT_FALSE(changes(file));
}

TEST(WholeFile, that_another_program_holds_is_told_and_nothing_is_lost) {
    save("before");
    const HANDLE held = ::CreateFileW(L"windows_test_hud.toml", GENERIC_READ, 0, nullptr, OPEN_EXISTING, 0, nullptr);
    ASSERT_NE(held, INVALID_HANDLE_VALUE);
    const Status refused = tool::write_whole(path, "after");
    ::CloseHandle(held);
    ASSERT_FALSE(refused);
    EXPECT_NE(to_string(refused.problem()).find("another program has it open; close it there"), std::string::npos);
    EXPECT_NE(read_text_file(path, 1000)->find("before"), std::string::npos);
    EXPECT_TRUE(tool::write_whole(path, "after"));
    EXPECT_EQ(*read_text_file(path, 1000), "after");
    // No file beside it is left.
    for (const auto& entry : std::filesystem::directory_iterator("."))
        EXPECT_FALSE(entry.path().filename().string().starts_with(path + ".")) << entry.path();
}

}  // namespace
}  // namespace rapido::windows_test
