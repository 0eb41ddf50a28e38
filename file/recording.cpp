// Recordings, read as a whole, up to where they were cut off.
#include <algorithm>
#include <utility>

#include "base/problem_log.hpp"
#include "base/utf8.hpp"
#include "file/recording_line_reader.hpp"
#include "rapido/file.hpp"

namespace rapido {
namespace {

constexpr std::size_t largest_recording = 256'000'000;
constexpr std::size_t most_lines = 5'000'000;  ///< nine hours at 144 frames a second

/// Of a line. Nothing, with a problem, where it is not JSON.
std::optional<Json> parsed(std::string_view line, const Location& at, Problems& problems) {
    try {
        Json made = Json::parse(line);
        if (made.is_object()) return made;
        problems.push_back({at, "expected an object", "", ProblemCode::syntax});
    } catch (const Json::exception& error) {
        const std::string_view whole = error.what();
        const std::size_t colon = whole.rfind(": ");
        problems.push_back({at, std::string(colon == std::string_view::npos ? whole : whole.substr(colon + 2)), "",
                            ProblemCode::syntax});
    }
    return std::nullopt;
}

/// How deep a line of JSON is nested, without parsing it: the parser recurses.
struct Nesting {
    static constexpr int most = 8;  ///< nothing in a recording is nested deeper
    int open = 0, deepest = 0;
    bool in_text = false;
    explicit Nesting(std::string_view line) {
        for (std::size_t i = 0; i < line.size(); ++i) {
            if (in_text) {
                if (line[i] == '\\') ++i;
                in_text = i >= line.size() || line[i] != '"';
                continue;
            }
            if (line[i] == '"') in_text = true;
            if (line[i] == '{' || line[i] == '[') deepest = std::max(deepest, ++open);
            if (line[i] == '}' || line[i] == ']') --open;
        }
    }
    /// Whether the line is the beginning of an object, and not one that is damaged in another way.
    bool is_cut_off() const { return in_text || open > 0; }
};

/// Without the first bytes of a last character whose others were never written.
std::string_view without_half_character(std::string_view text) {
    for (std::size_t back = 1; back <= std::min<std::size_t>(text.size(), 3); ++back) {
        const auto byte = static_cast<unsigned char>(text[text.size() - back]);
        if ((byte & 0xC0U) == 0x80U) continue;
        const std::size_t length = byte >= 0xF0U ? 4 : byte >= 0xE0U ? 3 : byte >= 0xC0U ? 2 : 1;
        return length > back ? text.substr(0, text.size() - back) : text;
    }
    return text;
}

}  // namespace

Result<Recording> Recording::read(std::string_view text, const std::string& name) {
    return read_recording(text, name, all_calls());
}

Result<Recording> read_recording(std::string_view text, const std::string& name, CallKinds calls) {
    if (text.size() > largest_recording) return Problem{{name}, "is larger than 256 MB", "", ProblemCode::too_large};
    text = without_half_character(text);
    if (const int line = utf8::line_of_fault(text); line > 0)
        return Problem{{name, line, 0}, "is not valid UTF-8", "save it in this encoding", ProblemCode::syntax};
    auto state = std::make_shared<Recording::State>();
    Problems problems;
    RecordingLineReader reader(name, calls);
    bool is_first = true;
    for (int number = 1; !text.empty() && problems.size() < ProblemLog::most; ++number) {
        const std::string_view line = text.substr(0, text.find('\n'));
        const bool ends_here = line.size() == text.size();  // without an end of line
        text.remove_prefix(std::min(line.size() + 1, text.size()));
        if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
        const Location at{name, number, 1};
        const Nesting nesting(line);
        if (nesting.deepest > Nesting::most) {
            problems.push_back({at, "is nested too deep", "", ProblemCode::too_large});
            continue;
        }
        const std::size_t told = problems.size();
        const std::optional<Json> json = parsed(line, at, problems);
        if (!json) {
            // A game that ended in the middle of a line leaves such a file: it is worth what is before it.
            if (ends_here && !is_first && nesting.is_cut_off()) {
                problems.resize(told);
                state->warnings.push_back({at, "is cut off; the recording is played up to there", "",
                                           ProblemCode::syntax, Severity::warning});
            }
            continue;
        }
        if (state->lines.size() >= most_lines) {
            problems.push_back(
                {at, "is more than " + std::to_string(most_lines) + " lines long", "", ProblemCode::too_large});
            break;
        }
        reader.fault.reset();
        reader.of_hud.clear();
        const auto tell_faults = [&] {
            if (reader.fault && !reader.fault->message.empty())
                problems.push_back({at, reader.fault->message, reader.fault->hint, ProblemCode::syntax});
            for (Problem problem : reader.of_hud) {
                problem.message = "line " + std::to_string(problem.location.line) + " of the HUD: " + problem.message;
                problem.location = at;
                problems.push_back(std::move(problem));
            }
        };
        if (std::exchange(is_first, false)) {
            reader.read_first(*json, state->definition, state->names);
            tell_faults();
            if (reader.fault) break;
            continue;
        }
        if (json->contains("call")) {
            state->lines.push_back({.call = std::make_unique<CallLine>(reader.read_call(*json))});
        } else if (json->contains("time")) {
            FrameLine frame = reader.read_frame(*json);
            if (!state->frames.empty()) {
                const Recording::State::Line& before = state->lines[state->frames.back()];
                if (frame.time < before.time || frame.game_time < before.game_time)
                    problems.push_back({at, "goes back in time from the frame before", "", ProblemCode::out_of_range});
            }
            state->frames.push_back(state->lines.size());
            Recording::State::Line& kept =
                state->lines.emplace_back(Recording::State::Line{.time = frame.time, .game_time = frame.game_time});
            // Most frames of a still game have read nothing new.
            if (!frame.is_bare()) kept.frame = std::make_unique<FrameLine>(std::move(frame));
        } else {
            problems.push_back({at, "has neither a 'call' nor a 'time'", "", ProblemCode::missing_key});
        }
        tell_faults();
    }
    if (is_first && problems.empty()) problems.push_back({{name}, "is empty", "", ProblemCode::syntax});
    if (!problems.empty()) return problems;
    Recording made;
    made.state_ = std::move(state);
    return made;
}

std::optional<Result<CallLine>> read_call(std::string_view line) {
    if (line.find("\"call\"") == std::string_view::npos || Nesting(line).deepest > Nesting::most) return std::nullopt;
    const Json json = Json::parse(line, nullptr, false);
    if (!json.is_object() || !json.contains("call")) return std::nullopt;
    const std::vector<const CallKind*> calls = all_calls();
    RecordingLineReader reader("", calls);
    CallLine call = reader.read_call(json);
    if (!reader.fault) return Result<CallLine>(std::move(call));
    Problems problems = reader.of_hud;
    if (problems.empty()) problems.push_back({{}, reader.fault->message, reader.fault->hint, ProblemCode::syntax});
    return Result<CallLine>(std::move(problems));
}

Result<Recording> Recording::read_file(const std::string& path) {
    const Result<std::string> text = read_text_file(path, largest_recording);
    if (!text) return text.problems();
    return read(*text, path);
}

bool Recording::is_recording(std::string_view text) {
    std::string begin(text.substr(0, 64));
    std::erase_if(begin, [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; });
    return begin.starts_with("{\"recording\":");
}

const Problems& Recording::warnings() const {
    return state_->warnings;
}

const HudDefinition& Recording::definition() const {
    return state_->definition;
}

std::size_t Recording::frame_count() const {
    return state_->frames.size();
}

Nanoseconds Recording::time(std::size_t frame) const {
    return state_->lines[state_->frames[frame]].time;
}

}  // namespace rapido
