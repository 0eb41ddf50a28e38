// What a game gives to be read may throw; the HUD goes on, and says so.
#pragma once

#include <exception>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/base/exported.hpp"

namespace rapido RAPIDO_EXPORTED {
namespace detail {

/// What was thrown while a HUD read.
struct ReadFailure {
    const void* reader;  ///< the getter, where it is one
    std::string what;
    friend RAPIDO_EXPORTED bool operator==(const ReadFailure&, const ReadFailure&);
};

/// Collects on this thread what is thrown while it lives.
class ReadFailures {
 public:
    explicit ReadFailures(std::vector<ReadFailure>& into);
    ~ReadFailures();
    ReadFailures(const ReadFailures&) = delete;
    ReadFailures& operator=(const ReadFailures&) = delete;

 private:
    std::vector<ReadFailure>* around_;
};

/// Tells whoever reads on this thread; false where nobody does.
bool tell_failure(const void* reader, std::string_view what);

/// Calls what a game has given. What it throws is told to the HUD that reads, and goes on to where no HUD reads. False if it threw.
template <class Call>
bool guarded(const void* reader, const Call& call) {
#if defined(__cpp_exceptions)
    try {
        call();
        return true;
    } catch (const std::exception& error) {
        if (!tell_failure(reader, error.what())) throw;
    } catch (...) {
        if (!tell_failure(reader, "something that is no std::exception")) throw;
    }
    return false;
#else
    static_cast<void>(reader);
    call();
    return true;
#endif
}

}  // namespace detail
}  // namespace rapido
