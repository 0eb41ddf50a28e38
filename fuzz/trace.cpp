// A trace, CSV or JSON Lines, and moments in it.
#include <cstdint>
#include <string>

#include "rapido/file.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(bytes), size);
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
