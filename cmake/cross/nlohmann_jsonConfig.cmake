include(${CMAKE_CURRENT_LIST_DIR}/headers.cmake)
rapido_headers(nlohmann_json::nlohmann_json nlohmann)
