include(${CMAKE_CURRENT_LIST_DIR}/headers.cmake)
rapido_headers(tomlplusplus::tomlplusplus toml++)
