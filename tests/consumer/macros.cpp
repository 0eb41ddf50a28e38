// A game whose platform defines macros of two common names. What is of the standard library comes before them.
#include <bits/stdc++.h>

#define min(a, b) this must not be used
#define max(a, b) this must not be used

#include <rapido/debug.hpp>
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
#include <rapido/rapido.hpp>
#include <rapido/recording.hpp>
#include <rapido/text.hpp>
#include <rapido/time.hpp>
#include <rapido/value.hpp>

int main() {
    const rapido::Rect rect = rapido::Rect{0, 0, 10, 10}.inset({1, 2, 3, 4});
    return rect.width == 4 ? 0 : 1;
}
