// A trace, CSV or JSON Lines, and moments in it; or a recording, played.
#include <cstdint>
#include <string>

#include "rapido/draw.hpp"
#include "rapido/file.hpp"
#include "rapido/recording.hpp"

namespace {

void play(std::string_view text) {
    const rapido::Result<rapido::Recording> recording = rapido::Recording::read(text, "r.jsonl");
    if (!recording) return;
    for (const bool skips : {false, true}) {
        rapido::RecordingPlayer player(*recording);
        rapido::Hud hud(recording->definition(), player.sources());
        rapido::DisplayList list;
        if (skips) player.skip_to(hud, rapido::Nanoseconds{20'000'000});
        for (int frames = 0; frames < 30 && player.update(hud); ++frames)
            hud.draw(list);
    }
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(bytes), size);
    if (rapido::Recording::is_recording(text)) play(text);
    const rapido::Result<rapido::Trace> trace = rapido::Trace::read(text, "t.csv");
    if (!trace) return 0;
    rapido::TracePlayer player(*trace);
    const rapido::Sources sources = player.sources();
    std::string storage;
    for (const rapido::Nanoseconds time : {rapido::Nanoseconds::min(), rapido::Nanoseconds{0},
                                           trace->rows().back().time / 2, rapido::Nanoseconds::max()}) {
        player.seek(time);
        for (const std::string_view name : sources.names())
            (void)sources.find(name)->binding().read(storage);
    }
    return 0;
}
