// All public headers that need no other library's, in one file of a game.
#include <rapido/rapido.hpp>

#include <rapido/file.hpp>
#include <rapido/fonts.hpp>
#include <rapido/gl.hpp>
#include <rapido/images.hpp>
#include <rapido/locale.hpp>
#include <rapido/mesh.hpp>
#include <rapido/picture.hpp>
#include <rapido/recording.hpp>
