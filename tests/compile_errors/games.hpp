// What the programs of tests include, compiled once.
#include <array>
#include <atomic>
#include <memory>
#include <string>
#include <vector>

#include <rapido/rapido.hpp>
#include <rapido/text.hpp>
