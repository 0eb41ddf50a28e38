# A cross compiler for Windows of 64 bits: Debian's MinGW, with threads as POSIX has them. What it links is in the program, so that one file runs anywhere.
set(CMAKE_SYSTEM_NAME Windows)
set(CMAKE_SYSTEM_PROCESSOR x86_64)
set(CMAKE_C_COMPILER x86_64-w64-mingw32-gcc-posix)
set(CMAKE_CXX_COMPILER x86_64-w64-mingw32-g++-posix)
set(CMAKE_RC_COMPILER x86_64-w64-mingw32-windres)
set(CMAKE_EXE_LINKER_FLAGS_INIT -static)
set(CMAKE_CROSSCOMPILING_EMULATOR ${CMAKE_CURRENT_LIST_DIR}/cross/wine)
# What scripts/windows_libraries has built.
set(ENV{PKG_CONFIG_LIBDIR} ${CMAKE_CURRENT_LIST_DIR}/../build/windows_libraries/lib/pkgconfig:/usr/x86_64-w64-mingw32/lib/pkgconfig)
set(PKG_CONFIG_ARGN --static)
foreach(headers tomlplusplus nlohmann_json CLI11)
    set(${headers}_DIR ${CMAKE_CURRENT_LIST_DIR}/cross)
endforeach()
