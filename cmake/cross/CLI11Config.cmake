include(${CMAKE_CURRENT_LIST_DIR}/headers.cmake)
rapido_headers(CLI11::CLI11 CLI)
