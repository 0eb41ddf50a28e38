// Comparisons of what is described, which need not be compiled wherever it is.
#include "rapido/look/band.hpp"
#include "rapido/look/effect.hpp"
#include "rapido/look/notice_queue.hpp"
#include "rapido/look/reading_time.hpp"

namespace rapido {

bool operator==(const BandChange&, const BandChange&) = default;
bool operator==(const Keyframe&, const Keyframe&) = default;
bool operator==(const Particles&, const Particles&) = default;
bool operator==(const Effect&, const Effect&) = default;
bool operator==(const ReadingTime&, const ReadingTime&) = default;
bool operator==(const PostedMessage&, const PostedMessage&) = default;
bool operator==(const NoticeChange&, const NoticeChange&) = default;

}  // namespace rapido
