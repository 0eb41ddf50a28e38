// Draws HUDs with OpenGL 3.3 or OpenGL ES 3, without a header or a loader of OpenGL: the game gives the function that finds the others.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <string>
#include <unordered_map>
#include <utility>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/mesh.hpp"
#include "rapido/time/clock.hpp"

namespace rapido RAPIDO_EXPORTED {

/// Draws display lists into the present framebuffer, over what is there:
///
///     rapido::GlDrawer drawer(SDL_GL_GetProcAddress, fonts, &images);   // with a current context, here and in all calls
///     Status drawn = drawer.draw(list, width, height);                  // of the framebuffer, in pixels
///
/// The state that it changes is put back as it was: program, vertex array, buffers, texture of the unit in use, blending, depth and stencil tests,
/// culling, scissor, viewport. Colors are blended as they are, so that the framebuffer must take sRGB without conversion (no
/// GL_FRAMEBUFFER_SRGB, which is switched off while it draws). Any number of lists may be drawn in a frame; each keeps its buffers as long as
/// it lives at the same address.
class GlDrawer {
 public:
    /// `find` returns the function of a name, as `SDL_GL_GetProcAddress` or `eglGetProcAddress` do. `is_es` says that the context is one of
    /// OpenGL ES.
    template <class Find>
    GlDrawer(Find find, const Fonts& fonts, const ImageFinder* images = nullptr, bool is_es = false)
        : atlas_(fonts, images), is_es_(is_es) {
        const auto load = [&](auto& function, const char* name) {
            using Function = std::remove_reference_t<decltype(function)>;
            function = reinterpret_cast<Function>(find(name));
            if (function == nullptr && missing_.empty()) missing_ = name;
        };
        load(gl_.create_shader, "glCreateShader");
        load(gl_.shader_source, "glShaderSource");
        load(gl_.compile_shader, "glCompileShader");
        load(gl_.create_program, "glCreateProgram");
        load(gl_.attach_shader, "glAttachShader");
        load(gl_.bind_attribute, "glBindAttribLocation");
        load(gl_.link_program, "glLinkProgram");
        load(gl_.get_program, "glGetProgramiv");
        load(gl_.delete_shader, "glDeleteShader");
        load(gl_.delete_program, "glDeleteProgram");
        load(gl_.use_program, "glUseProgram");
        load(gl_.get_uniform, "glGetUniformLocation");
        load(gl_.uniform2, "glUniform2f");
        load(gl_.uniform1i, "glUniform1i");
        load(gl_.gen_buffers, "glGenBuffers");
        load(gl_.bind_buffer, "glBindBuffer");
        load(gl_.buffer_data, "glBufferData");
        load(gl_.buffer_sub_data, "glBufferSubData");
        load(gl_.delete_buffers, "glDeleteBuffers");
        load(gl_.gen_arrays, "glGenVertexArrays");
        load(gl_.bind_array, "glBindVertexArray");
        load(gl_.delete_arrays, "glDeleteVertexArrays");
        load(gl_.enable_attribute, "glEnableVertexAttribArray");
        load(gl_.attribute, "glVertexAttribPointer");
        load(gl_.gen_textures, "glGenTextures");
        load(gl_.bind_texture, "glBindTexture");
        load(gl_.delete_textures, "glDeleteTextures");
        load(gl_.texture_image, "glTexImage2D");
        load(gl_.texture_part, "glTexSubImage2D");
        load(gl_.texture_parameter, "glTexParameteri");
        load(gl_.pixel_store, "glPixelStorei");
        load(gl_.active_texture, "glActiveTexture");
        load(gl_.enable, "glEnable");
        load(gl_.disable, "glDisable");
        load(gl_.is_enabled, "glIsEnabled");
        load(gl_.blend_functions, "glBlendFuncSeparate");
        load(gl_.blend_equations, "glBlendEquationSeparate");
        load(gl_.viewport, "glViewport");
        load(gl_.get_integer, "glGetIntegerv");
        load(gl_.draw_elements, "glDrawElements");
        load(gl_.color_mask, "glColorMask");
        if (!is_es) load(gl_.polygon_mode, "glPolygonMode");
        if (!missing_.empty()) return;
        find_switches();
        make_program();
    }
    /// The same with the fonts and the images of a `GameHud`.
    template <class Find, class Game>
    requires requires(Game& game) { game.fonts(), game.images(); }
    GlDrawer(Find find, Game& game, bool is_es = false) : GlDrawer(find, game.fonts(), &game.images(), is_es) {}
    ~GlDrawer() {
        if (!missing_.empty()) return;
        gl_.delete_program(program_);
        for (const Texture& texture : textures_)
            if (texture.name != 0) gl_.delete_textures(1, &texture.name);
        for (auto& [list, drawn] : lists_)
            free(drawn);
    }
    GlDrawer(const GlDrawer&) = delete;
    GlDrawer& operator=(const GlDrawer&) = delete;

    /// One frame of a `GameHud`, over what the framebuffer shows: fits it into these pixels, advances and draws it. What goes wrong it tells.
    template <class Game>
    void frame(Game& game, int width, int height, const Step& step) {
        show(game, game.frame({.size = {static_cast<float>(width), static_cast<float>(height)}}, step), width, height);
    }
    /// The same by the clock of the HUD.
    template <class Game>
    void frame(Game& game, int width, int height) {
        show(game, game.frame({.size = {static_cast<float>(width), static_cast<float>(height)}}), width, height);
    }

    /// A problem where the context lacks something.
    Status draw(const DisplayList& list, int width, int height) {
        if (!missing_.empty())
            return Problem{{}, "OpenGL has no " + missing_, "OpenGL 3.3 or OpenGL ES 3 is needed", ProblemCode::unfit};
        Drawn& drawn = lists_.try_emplace(&list, atlas_).first->second;
        drawn.mesh.draw(list);
        const Saved saved = save();
        // What is uploaded comes from memory, row by row.
        gl_.bind_buffer(unpack_buffer, 0);
        gl_.pixel_store(unpack_skip_rows, 0);
        gl_.pixel_store(unpack_skip_pixels, 0);
        upload_pages();
        upload(drawn);
        set_state(width, height);
        for (const MeshBatch& batch : drawn.mesh.batches()) {
            gl_.bind_texture(texture_2d, textures_[batch.page].name);
            gl_.draw_elements(triangles, static_cast<int>(batch.index_count), unsigned_int,
                              reinterpret_cast<const void*>(std::uintptr_t{batch.first_index} * sizeof(std::uint32_t)));
        }
        restore(saved);
        return drawn.mesh.status();
    }

    /// Makes everything anew in the next `draw`: the context was lost, and all that was in it is gone.
    void reset() {
        if (program_ == 0) return;
        for (auto& [list, drawn] : lists_) {
            drawn.array = drawn.vertices = drawn.indices = 0;
            drawn.vertex_room = drawn.index_room = 0;
        }
        for (Texture& texture : textures_)
            texture = {};
        missing_.clear();
        make_program();
    }

    /// Forgets a list that is gone.
    void forget(const DisplayList& list) {
        const auto known = lists_.find(&list);
        if (known == lists_.end()) return;
        if (missing_.empty()) free(known->second);
        lists_.erase(known);
    }

 private:
    // The numbers of the standard.
    static constexpr unsigned triangles = 4, unsigned_byte = 0x1401, unsigned_int = 0x1405, real = 0x1406,
                              rgba = 0x1908, rgba8 = 0x8058, texture_2d = 0x0DE1, min_filter = 0x2801,
                              mag_filter = 0x2800, wrap_s = 0x2802, wrap_t = 0x2803, linear = 0x2601,
                              clamp_to_edge = 0x812F, array_buffer = 0x8892, element_buffer = 0x8893,
                              stream_draw = 0x88E0, blend = 0x0BE2, depth_test = 0x0B71, stencil_test = 0x0B90,
                              cull_face = 0x0B44, scissor_test = 0x0C11, framebuffer_srgb = 0x8DB9, one = 1,
                              one_minus_alpha = 0x0303, add = 0x8006, vertex_shader = 0x8B31, fragment_shader = 0x8B30,
                              link_status = 0x8B82, texture0 = 0x84C0, unpack_row_length = 0x0CF2,
                              unpack_alignment = 0x0CF5, unpack_skip_rows = 0x0CF3, unpack_skip_pixels = 0x0CF4,
                              unpack_buffer = 0x88EC, front_and_back = 0x0408, fill = 0x1B02;

    struct Functions {
        unsigned (*create_shader)(unsigned);
        void (*shader_source)(unsigned, int, const char* const*, const int*);
        void (*compile_shader)(unsigned);
        unsigned (*create_program)();
        void (*attach_shader)(unsigned, unsigned);
        void (*bind_attribute)(unsigned, unsigned, const char*);
        void (*link_program)(unsigned);
        void (*get_program)(unsigned, unsigned, int*);
        void (*delete_shader)(unsigned);
        void (*delete_program)(unsigned);
        void (*use_program)(unsigned);
        int (*get_uniform)(unsigned, const char*);
        void (*uniform2)(int, float, float);
        void (*uniform1i)(int, int);
        void (*gen_buffers)(int, unsigned*);
        void (*bind_buffer)(unsigned, unsigned);
        void (*buffer_data)(unsigned, std::ptrdiff_t, const void*, unsigned);
        void (*buffer_sub_data)(unsigned, std::ptrdiff_t, std::ptrdiff_t, const void*);
        void (*delete_buffers)(int, const unsigned*);
        void (*gen_arrays)(int, unsigned*);
        void (*bind_array)(unsigned);
        void (*delete_arrays)(int, const unsigned*);
        void (*enable_attribute)(unsigned);
        void (*attribute)(unsigned, int, unsigned, unsigned char, int, const void*);
        void (*gen_textures)(int, unsigned*);
        void (*bind_texture)(unsigned, unsigned);
        void (*delete_textures)(int, const unsigned*);
        void (*texture_image)(unsigned, int, int, int, int, int, unsigned, unsigned, const void*);
        void (*texture_part)(unsigned, int, int, int, int, int, unsigned, unsigned, const void*);
        void (*texture_parameter)(unsigned, unsigned, int);
        void (*pixel_store)(unsigned, int);
        void (*active_texture)(unsigned);
        void (*enable)(unsigned);
        void (*disable)(unsigned);
        unsigned char (*is_enabled)(unsigned);
        void (*blend_functions)(unsigned, unsigned, unsigned, unsigned);
        void (*blend_equations)(unsigned, unsigned);
        void (*viewport)(int, int, int, int);
        void (*get_integer)(unsigned, int*);
        void (*draw_elements)(unsigned, int, unsigned, const void*);
        void (*color_mask)(unsigned char, unsigned char, unsigned char, unsigned char);
        void (*polygon_mode)(unsigned, unsigned);
    };
    struct Texture {
        unsigned name = 0;
        int width = 0, height = 0;
    };
    struct Drawn {
        explicit Drawn(MeshAtlas& atlas) : mesh(atlas) {}
        Mesh mesh;
        unsigned array = 0, vertices = 0, indices = 0;
        std::size_t vertex_room = 0, index_room = 0;
    };
    static constexpr std::size_t most_switches = 32;
    /// What is asked for by its name, and put back.
    struct Saved {
        std::array<bool, most_switches> switches{};
        int program = 0, array = 0, array_buffer = 0, unit = 0, texture = 0, alignment = 0, row_length = 0,
            skip_rows = 0, skip_pixels = 0, unpack = 0;
        std::array<int, 2> polygon_modes{};
        std::array<int, 4> viewport{}, functions{}, color_mask{};
        std::array<int, 2> equations{};
    };

    template <class Game>
    void show(Game& game, const DisplayList& list, int width, int height) {
        if (const Status drawn = draw(list, width, height); !drawn) game.tell(drawn.problem());
    }

    int integer(unsigned name) const {
        int value = 0;
        gl_.get_integer(name, &value);
        return value;
    }
    /// Which switches a context has depends on its kind: asking for another one would be an error of the game.
    void find_switches() {
        switches_ = {blend,        depth_test, stencil_test, cull_face,
                     scissor_test, 0x809E,     0x80A0,       0x8C89};  // coverage, discard
        if (is_es_) {
            switches_.push_back(0x8D69);  // primitive restart
            return;
        }
        const int version = integer(0x821B) * 10 + integer(0x821C);
        // sRGB, color logic, smooth polygons and lines, primitive restart
        switches_.insert(switches_.end(), {framebuffer_srgb, 0x0BF2, 0x0B41, 0x8F9D});
        if (version >= 43) switches_.push_back(0x8D69);
        for (unsigned i = 0; i < 6; ++i)
            switches_.push_back(0x3000 + i);  // clip planes
        constexpr int compatibility = 2;
        is_compatible_ = version < 32 || (integer(0x9126) & compatibility) != 0;
        // Alpha test, stipple, lighting, fog, and the making of texture coordinates.
        if (is_compatible_)
            switches_.insert(switches_.end(), {0x0BC0, 0x0B42, 0x0B50, 0x0B60, 0x0C60, 0x0C61, 0x0C62, 0x0C63});
    }

    Saved save() {
        Saved saved;
        for (std::size_t i = 0; i < switches_.size(); ++i)
            saved.switches[i] = gl_.is_enabled(switches_[i]) != 0;
        saved.program = integer(0x8B8D);
        saved.array = integer(0x85B5);
        saved.array_buffer = integer(0x8894);
        saved.unit = integer(0x84E0);
        saved.texture = integer(0x8069);
        saved.alignment = integer(unpack_alignment);
        saved.row_length = integer(unpack_row_length);
        saved.skip_rows = integer(unpack_skip_rows);
        saved.skip_pixels = integer(unpack_skip_pixels);
        saved.unpack = integer(0x88EF);
        gl_.get_integer(0x0C23, saved.color_mask.data());
        // A core context gives one mode for both sides, an older one gives two.
        saved.polygon_modes = {static_cast<int>(fill), static_cast<int>(fill)};
        if (!is_es_) gl_.get_integer(0x0B40, saved.polygon_modes.data());
        gl_.get_integer(0x0BA2, saved.viewport.data());
        const std::array<unsigned, 4> functions{0x80C9, 0x80C8, 0x80CB,
                                                0x80CA};  // source and destination, color and alpha
        for (std::size_t i = 0; i < functions.size(); ++i)
            saved.functions[i] = integer(functions[i]);
        saved.equations = {integer(0x8009), integer(0x883D)};
        return saved;
    }
    void restore(const Saved& saved) {
        for (std::size_t i = 0; i < switches_.size(); ++i)
            saved.switches[i] ? gl_.enable(switches_[i]) : gl_.disable(switches_[i]);
        const auto flag = [](int value) { return static_cast<unsigned char>(value != 0); };
        gl_.color_mask(flag(saved.color_mask[0]), flag(saved.color_mask[1]), flag(saved.color_mask[2]),
                       flag(saved.color_mask[3]));
        if (!is_es_ && is_compatible_ && saved.polygon_modes[0] != saved.polygon_modes[1]) {
            gl_.polygon_mode(0x0404, static_cast<unsigned>(saved.polygon_modes[0]));
            gl_.polygon_mode(0x0405, static_cast<unsigned>(saved.polygon_modes[1]));
        } else if (!is_es_) {
            gl_.polygon_mode(front_and_back, static_cast<unsigned>(saved.polygon_modes[0]));
        }
        gl_.bind_buffer(unpack_buffer, static_cast<unsigned>(saved.unpack));
        gl_.pixel_store(unpack_skip_rows, saved.skip_rows);
        gl_.pixel_store(unpack_skip_pixels, saved.skip_pixels);
        gl_.use_program(static_cast<unsigned>(saved.program));
        gl_.bind_array(static_cast<unsigned>(saved.array));
        gl_.bind_buffer(array_buffer, static_cast<unsigned>(saved.array_buffer));
        gl_.bind_texture(texture_2d, static_cast<unsigned>(saved.texture));
        gl_.active_texture(static_cast<unsigned>(saved.unit));
        gl_.pixel_store(unpack_alignment, saved.alignment);
        gl_.pixel_store(unpack_row_length, saved.row_length);
        gl_.viewport(saved.viewport[0], saved.viewport[1], saved.viewport[2], saved.viewport[3]);
        const auto function = [&](std::size_t i) { return static_cast<unsigned>(saved.functions[i]); };
        gl_.blend_functions(function(0), function(1), function(2), function(3));
        gl_.blend_equations(static_cast<unsigned>(saved.equations[0]), static_cast<unsigned>(saved.equations[1]));
    }

    void make_program() {
        const std::string head = is_es_ ? "#version 300 es\nprecision highp float;\n" : "#version 330 core\n";
        const auto shader = [&](unsigned kind, const std::string& text) {
            const unsigned made = gl_.create_shader(kind);
            const std::string whole = head + text;
            const char* const source = whole.c_str();
            gl_.shader_source(made, 1, &source, nullptr);
            gl_.compile_shader(made);
            return made;
        };
        const unsigned vertex =
            shader(vertex_shader,
                   "in vec2 at; in vec2 texel; in vec4 color; out vec2 place; out vec4 tone;\n"
                   "uniform vec2 size;\n"
                   "void main() { place = texel; tone = color;\n"
                   "gl_Position = vec4(at.x / size.x * 2.0 - 1.0, 1.0 - at.y / size.y * 2.0, 0.0, 1.0); }");
        const unsigned fragment = shader(fragment_shader,
                                         "in vec2 place; in vec4 tone; out vec4 seen; uniform sampler2D page;\n"
                                         "void main() { seen = texture(page, place) * tone; }");
        program_ = gl_.create_program();
        gl_.attach_shader(program_, vertex);
        gl_.attach_shader(program_, fragment);
        gl_.bind_attribute(program_, 0, "at");
        gl_.bind_attribute(program_, 1, "texel");
        gl_.bind_attribute(program_, 2, "color");
        gl_.link_program(program_);
        gl_.delete_shader(vertex);
        gl_.delete_shader(fragment);
        int is_linked = 0;
        gl_.get_program(program_, link_status, &is_linked);
        if (is_linked == 0) missing_ = "shaders of this version";
        size_ = gl_.get_uniform(program_, "size");
        page_ = gl_.get_uniform(program_, "page");
    }

    void upload_pages() {
        textures_.resize((std::max)(textures_.size(), atlas_.page_count()));
        for (std::size_t i = 0; i < atlas_.page_count(); ++i) {
            const MeshAtlas::Page page = atlas_.page(i);
            const PixelRect changed = atlas_.take_changed(i);
            Texture& texture = textures_[i];
            const bool is_there = texture.width == page.width && texture.height == page.height;
            if (page.width == 0 || (is_there && changed.is_empty())) continue;
            if (texture.name == 0) gl_.gen_textures(1, &texture.name);
            gl_.bind_texture(texture_2d, texture.name);
            gl_.pixel_store(unpack_alignment, 4);
            if (!is_there) {
                gl_.pixel_store(unpack_row_length, 0);
                gl_.texture_image(texture_2d, 0, static_cast<int>(rgba8), page.width, page.height, 0, rgba,
                                  unsigned_byte, page.pixels.data());
                for (const unsigned filter : {min_filter, mag_filter})
                    gl_.texture_parameter(texture_2d, filter, static_cast<int>(linear));
                for (const unsigned wrap : {wrap_s, wrap_t})
                    gl_.texture_parameter(texture_2d, wrap, static_cast<int>(clamp_to_edge));
                texture.width = page.width;
                texture.height = page.height;
                continue;
            }
            gl_.pixel_store(unpack_row_length, page.width);
            gl_.texture_part(
                texture_2d, 0, changed.x, changed.y, changed.width, changed.height, rgba, unsigned_byte,
                page.pixels.data() + (static_cast<std::size_t>(changed.y) * static_cast<std::size_t>(page.width) +
                                      static_cast<std::size_t>(changed.x)) *
                                         4);
        }
    }

    void upload(Drawn& drawn) {
        if (drawn.array == 0) {
            gl_.gen_arrays(1, &drawn.array);
            gl_.gen_buffers(1, &drawn.vertices);
            gl_.gen_buffers(1, &drawn.indices);
            gl_.bind_array(drawn.array);
            gl_.bind_buffer(array_buffer, drawn.vertices);
            gl_.bind_buffer(element_buffer, drawn.indices);
            constexpr int stride = sizeof(MeshVertex);
            const auto offset = [](std::size_t bytes) { return reinterpret_cast<const void*>(bytes); };
            gl_.attribute(0, 2, real, 0, stride, offset(offsetof(MeshVertex, at)));
            gl_.attribute(1, 2, real, 0, stride, offset(offsetof(MeshVertex, texture)));
            gl_.attribute(2, 4, unsigned_byte, 1, stride, offset(offsetof(MeshVertex, color)));
            for (const unsigned attribute : {0U, 1U, 2U})
                gl_.enable_attribute(attribute);
        }
        gl_.bind_array(drawn.array);
        gl_.bind_buffer(array_buffer, drawn.vertices);
        const std::span<const MeshVertex> vertices = drawn.mesh.vertices();
        const std::span<const std::uint32_t> indices = drawn.mesh.indices();
        const auto bytes = [](std::size_t count, std::size_t size) {
            return static_cast<std::ptrdiff_t>(count * size);
        };
        if (vertices.size() > drawn.vertex_room) {
            drawn.vertex_room = vertices.size() + vertices.size() / 2;
            gl_.buffer_data(array_buffer, bytes(drawn.vertex_room, sizeof(MeshVertex)), nullptr, stream_draw);
            gl_.buffer_sub_data(array_buffer, 0, bytes(vertices.size(), sizeof(MeshVertex)), vertices.data());
        } else if (const Mesh::Range changed = drawn.mesh.changed(); changed.count > 0) {
            gl_.buffer_sub_data(array_buffer, bytes(changed.first, sizeof(MeshVertex)),
                                bytes(changed.count, sizeof(MeshVertex)), vertices.data() + changed.first);
        }
        if (indices.size() <= drawn.index_room) return;
        drawn.index_room = indices.size();
        gl_.buffer_data(element_buffer, bytes(indices.size(), sizeof(std::uint32_t)), indices.data(), stream_draw);
    }

    void set_state(int width, int height) {
        for (const unsigned each : switches_)
            gl_.disable(each);
        gl_.color_mask(1, 1, 1, 1);
        if (!is_es_) gl_.polygon_mode(front_and_back, fill);
        gl_.enable(blend);
        gl_.blend_equations(add, add);
        gl_.blend_functions(one, one_minus_alpha, one, one_minus_alpha);
        gl_.viewport(0, 0, width, height);
        gl_.use_program(program_);
        gl_.uniform2(size_, static_cast<float>(width), static_cast<float>(height));
        gl_.uniform1i(page_, integer(0x84E0) - static_cast<int>(texture0));
    }

    void free(Drawn& drawn) {
        if (drawn.array == 0) return;
        gl_.delete_arrays(1, &drawn.array);
        gl_.delete_buffers(1, &drawn.vertices);
        gl_.delete_buffers(1, &drawn.indices);
    }

    MeshAtlas atlas_;
    bool is_es_;
    std::string missing_;  ///< what the context lacks; empty if nothing
    Functions gl_{};
    unsigned program_ = 0;
    int size_ = 0, page_ = 0;
    std::vector<unsigned> switches_;  ///< that this context has; blending is the first
    bool is_compatible_ = false;      ///< it has what is older than shaders
    std::vector<Texture> textures_;
    std::unordered_map<const DisplayList*, Drawn> lists_;
};

}  // namespace rapido
