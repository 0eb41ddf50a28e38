// The order of the rooms: a room includes only rooms above it.
#include <map>
#include <regex>

#include "support.hpp"

namespace rapido::test {
namespace rooms_test {

namespace fs = std::filesystem;

/// From the top of the house down; every place of a room, as paths from the root begin.
const std::vector<std::vector<std::string>> rooms{
    {"src/base", "include/rapido/base"},
    {"src/time", "include/rapido/time"},
    {"src/value", "include/rapido/value"},
    {"src/pace", "include/rapido/pace"},
    {"src/motion", "include/rapido/motion"},
    {"src/text", "include/rapido/text"},
    {"src/look", "include/rapido/look"},
    {"src/travel"},
    {"src/layout", "include/rapido/layout", "include/rapido/eigen.hpp"},
    {"src/draw", "include/rapido/draw"},
    {"src/element", "include/rapido/element"},
    {"src/hud", "include/rapido/hud", "include/rapido/rapido.hpp", "include/rapido/fwd.hpp"},
    {"src/frame"},
    {"src/assembly"},
    {"debug", "include/rapido/debug"},
    {"file", "include/rapido/file", "include/rapido/recording.hpp"},
    {"language", "include/rapido/locale"},
    {"render/fonts", "include/rapido/fonts"},
    {"render/picture", "include/rapido/picture", "include/rapido/images"},
    {"render/mesh", "include/rapido/mesh", "include/rapido/sdl.hpp", "include/rapido/gl.hpp"},
    {"game", "include/rapido/game_hud.hpp"},
    {"render/window", "include/rapido/window"},
    {"tool"},
    {"examples"},
};

int room_of(const std::string& path) {
    for (std::size_t room = 0; room < rooms.size(); ++room)
        for (const std::string& place : rooms[room])
            if (path.rfind(place + "/", 0) == 0 || path.rfind(place + ".hpp", 0) == 0 || path == place)
                return static_cast<int>(room);
    return -1;
}

TEST(Rooms, include_only_rooms_above_them) {
    const fs::path root(RAPIDO_SOURCE_DIR);
    const std::regex include("^#include [<\"]([^>\"]+)[>\"]");
    int arrows = 0;
    for (const char* top : {"include", "src", "debug", "file", "language", "render", "game", "tool", "examples"}) {
        if (!fs::exists(root / top)) continue;
        for (const auto& entry : fs::recursive_directory_iterator(root / top)) {
            const std::string from = fs::relative(entry.path(), root).string();
            if (!entry.is_regular_file() || !from.ends_with("pp")) continue;
            const int from_room = room_of(from);
            EXPECT_GE(from_room, 0) << from << " stands in no room";
            std::ifstream file(entry.path());
            for (std::string line; std::getline(file, line);) {
                std::smatch match;
                if (!std::regex_search(line, match, include)) continue;
                for (const char* base : {"include/", "src/", ""}) {
                    const std::string to = base + match[1].str();
                    if (!fs::exists(root / to)) continue;
                    ++arrows;
                    EXPECT_LE(room_of(to), from_room) << from << " includes " << to;
                    break;
                }
            }
        }
    }
    EXPECT_GT(arrows, 100) << "the test no longer finds the includes";
}

TEST(Rooms, of_a_running_hud_know_nothing_of_the_whole) {
    // What is stored does not know the frame, nor how a HUD is made: only these two see all of it.
    int parts = 0;
    for (const auto& entry : fs::directory_iterator(fs::path(RAPIDO_SOURCE_DIR) / "src/hud")) {
        const std::string name = entry.path().filename();
        if (name == "state.hpp") continue;
        ++parts;
        std::ifstream file(entry.path());
        for (std::string line; std::getline(file, line);)
            EXPECT_NE(line, "#include \"hud/state.hpp\"") << name;
    }
    EXPECT_GT(parts, 20);
}

TEST(Rooms, keep_interface_code_out_of_the_core) {
    const std::regex outside(
        "#include <(fstream|iostream|cstdio|filesystem|thread|locale|ctime|unistd.h|sys/.*|cairo.*|"
        "hb.*|fontconfig.*|fmt/.*|format)>|system_clock|steady_clock|getenv|std::locale|printf");
    for (const char* top : {"include/rapido", "src", "debug"})
        for (const auto& entry : fs::recursive_directory_iterator(fs::path(RAPIDO_SOURCE_DIR) / top)) {
            if (!entry.is_regular_file()) continue;
            std::ifstream file(entry.path());
            for (std::string line; std::getline(file, line);)
                EXPECT_FALSE(std::regex_search(line, outside)) << entry.path() << ": " << line;
        }
}

TEST(Rooms, give_public_headers_the_standard_library_only) {
    const std::regex include("^#include <([^>]+)>");
    for (const auto& entry : fs::recursive_directory_iterator(fs::path(RAPIDO_SOURCE_DIR) / "include")) {
        // An adapter for a library includes that library; nothing includes the adapter.
        const std::string name = entry.path().filename();
        if (!entry.is_regular_file() || name == "eigen.hpp" || name == "sdl.hpp") continue;
        std::ifstream file(entry.path());
        for (std::string line; std::getline(file, line);) {
            std::smatch match;
            if (!std::regex_search(line, match, include)) continue;
            EXPECT_EQ(match[1].str().find_first_of("./"), std::string::npos) << entry.path() << ": " << line;
        }
    }
}

}  // namespace rooms_test
}  // namespace rapido::test
