// What a shared library of Rapido shows. It is no promise: C++ has no binary interface that lasts, and a shared library carries the exact version.
#pragma once

/// Stands at a namespace whose names a shared library exports; all others are hidden. On Windows a shared library exports everything, by CMake.
#if defined(__GNUC__) && !defined(_WIN32)
#define RAPIDO_EXPORTED __attribute__((visibility("default")))
#else
#define RAPIDO_EXPORTED
#endif
