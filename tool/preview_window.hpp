// The preview in a window: its keys, and what it shows around the HUD.
#pragma once

#include "tool/preview_session.hpp"

namespace rapido::tool {

/// Shows a session until its window is closed.
Exit preview_in_window(PreviewSession& session, const PreviewOptions& options);

}  // namespace rapido::tool
