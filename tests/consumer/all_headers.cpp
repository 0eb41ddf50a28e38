// All public headers that need no other library's, in one file of a game.
#include <rapido/rapido.hpp>

#include <rapido/draw.hpp>
#include <rapido/file.hpp>
#include <rapido/fonts.hpp>
#include <rapido/gl.hpp>
#include <rapido/hud.hpp>
#include <rapido/images.hpp>
#include <rapido/layout.hpp>
#include <rapido/locale.hpp>
#include <rapido/look.hpp>
#include <rapido/mesh.hpp>
#include <rapido/motion.hpp>
#include <rapido/pace.hpp>
#include <rapido/picture.hpp>
#include <rapido/recording.hpp>
#include <rapido/text.hpp>
#include <rapido/time.hpp>
#include <rapido/value.hpp>
