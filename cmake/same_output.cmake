# Fails unless a program writes exactly what stands in a file: cmake -DPROGRAM=P [-DARGUMENT=A] -DFILE=F -P cmake/same_output.cmake
separate_arguments(ARGUMENT)
execute_process(COMMAND ${PROGRAM} ${ARGUMENT} OUTPUT_VARIABLE written RESULT_VARIABLE status)
file(READ ${FILE} expected)
if(NOT status EQUAL 0 OR NOT written STREQUAL expected)
    message(FATAL_ERROR "${FILE} is stale; make it again with scripts/reference")
endif()
