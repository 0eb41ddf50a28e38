# What `cmake --install` puts somewhere: libraries, headers, the tool, and how CMake and pkg-config find them.
include(CMakePackageConfigHelpers)

get_property(rooms GLOBAL PROPERTY rapido_rooms)
set(targets ${rooms})
list(TRANSFORM targets PREPEND rapido_)
install(TARGETS ${targets} EXPORT RapidoTargets ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR}
        LIBRARY DESTINATION ${CMAKE_INSTALL_LIBDIR})
install(DIRECTORY include/rapido DESTINATION ${CMAKE_INSTALL_INCLUDEDIR})
if(TARGET rapido_tool)
    install(TARGETS rapido_tool DESTINATION ${CMAKE_INSTALL_BINDIR})
    install(DIRECTORY demo/ember_ridge DESTINATION ${CMAKE_INSTALL_DATADIR}/rapido)
endif()

# find_package(Rapido COMPONENTS file picture)
set(config ${CMAKE_INSTALL_LIBDIR}/cmake/Rapido)
install(EXPORT RapidoTargets NAMESPACE rapido:: DESTINATION ${config})
configure_package_config_file(cmake/RapidoConfig.cmake.in ${CMAKE_CURRENT_BINARY_DIR}/RapidoConfig.cmake
                              INSTALL_DESTINATION ${config})
write_basic_package_version_file(${CMAKE_CURRENT_BINARY_DIR}/RapidoConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/RapidoConfig.cmake ${CMAKE_CURRENT_BINARY_DIR}/RapidoConfigVersion.cmake
        DESTINATION ${config})

# pkg-config: all rooms that were built, those that need others first, and what they need.
set(pc_libs "")
set(pc_requires "")
foreach(room mesh picture fonts locale file core)
    if(TARGET rapido_${room})
        string(APPEND pc_libs " -lrapido_${room}")
    endif()
endforeach()
if(RAPIDO_LOCALE OR RAPIDO_FONTS)
    string(APPEND pc_requires " icu-i18n icu-uc")
endif()
if(RAPIDO_FONTS)
    string(APPEND pc_requires " fontconfig freetype2 harfbuzz")
endif()
if(RAPIDO_PICTURE)
    string(APPEND pc_requires " cairo cairo-ft")
endif()
configure_file(cmake/rapido.pc.in ${CMAKE_CURRENT_BINARY_DIR}/rapido.pc @ONLY)
install(FILES ${CMAKE_CURRENT_BINARY_DIR}/rapido.pc DESTINATION ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
