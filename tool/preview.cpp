#include "tool/preview.hpp"

#include <chrono>
#include <ostream>
#include <thread>

#include "tool/preview_session.hpp"
#include "tool/preview_window.hpp"

namespace rapido::tool {
namespace {

/// A picture in place of a window, and with `watch` another one at each save.
Exit write_pictures(PreviewSession& session, const PreviewOptions& options) {
    Exit exit = session.write_picture(options.png);
    if (!options.follow) {
        session.report(session.running().problems());
        return session.running().problems().empty() ? exit : Exit::problems;
    }
    if (exit != Exit::fine) return exit;
    // A picture that could not be written, as the disk was full, is tried again each second.
    for (int since = 0;; ++since) {
        std::this_thread::sleep_for(std::chrono::milliseconds(20));
        if (!session.follow() && (exit == Exit::fine || since < 50)) continue;
        exit = session.write_picture(options.png);
        since = 0;
    }
}

}  // namespace

Exit preview(const PreviewOptions& options, std::ostream& out, std::ostream& err) {
    PreviewSession session(options, out, err);
    if (const Problems problems = session.open(); !problems.empty()) {
        session.report(problems);
        return Exit::problems;
    }
    if (options.point) return session.explain();
    if (!options.png.empty()) return write_pictures(session, options);
#ifdef RAPIDO_WITH_WINDOW
    return preview_in_window(session, options);
#else
    err << "error: this build has no window; write pictures with --png F --follow\n";
    return Exit::usage;
#endif
}

}  // namespace rapido::tool
