# rapido_hud_header(TARGET HUD [HEADER NAME] [TYPE NAME] [NAMESPACE NAME])
#
# Makes a typed header out of a HUD file when the target is built, and again when the file, or one that it includes, was saved: a struct with a
# field for each source that the HUD declares. The target includes it by its name, which is that of the HUD file with `_values.hpp`, unless
# HEADER says another. TYPE is the name of the struct (`HudValues`), NAMESPACE the one around it.
#
#     rapido_hud_header(my_game hud/flight.toml NAMESPACE game)     # #include "flight_values.hpp"
function(rapido_hud_header target hud)
    cmake_parse_arguments(PARSE_ARGV 2 arg "" "HEADER;TYPE;NAMESPACE" "")
    if(arg_UNPARSED_ARGUMENTS)
        message(FATAL_ERROR "rapido_hud_header: unknown words: ${arg_UNPARSED_ARGUMENTS}; expected HEADER, TYPE, NAMESPACE")
    endif()
    if(TARGET rapido_tool)
        set(tool rapido_tool)  # the program for this machine, or under an emulator
        set(needs rapido_tool)
    elseif(RAPIDO_TOOL_PROGRAM)
        set(tool ${RAPIDO_TOOL_PROGRAM})
        set(needs ${RAPIDO_TOOL_PROGRAM})
    else()
        message(FATAL_ERROR "rapido_hud_header: no tool: build Rapido with RAPIDO_TOOL=ON, or set RAPIDO_TOOL_PROGRAM to 'rapido'")
    endif()
    get_filename_component(file "${hud}" ABSOLUTE)
    get_filename_component(name "${hud}" NAME_WE)
    if(arg_HEADER)
        set(header ${arg_HEADER})
    else()
        set(header ${name}_values.hpp)
    endif()
    set(folder ${CMAKE_CURRENT_BINARY_DIR}/${target}_headers)
    set(options "")
    if(arg_TYPE)
        list(APPEND options --type ${arg_TYPE})
    endif()
    if(arg_NAMESPACE)
        list(APPEND options --namespace ${arg_NAMESPACE})
    endif()
    file(MAKE_DIRECTORY ${folder})
    add_custom_command(
        OUTPUT ${folder}/${header}
        COMMAND ${tool} header ${file} --out ${folder}/${header} --depfile ${folder}/${header}.d ${options}
        DEPENDS ${file} ${needs}
        DEPFILE ${folder}/${header}.d
        COMMENT "Typed header ${header} out of ${hud}"
        VERBATIM)
    target_sources(${target} PRIVATE ${folder}/${header})
    target_include_directories(${target} PRIVATE ${folder})
endfunction()
