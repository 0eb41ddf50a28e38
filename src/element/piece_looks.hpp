// How the pieces of a text look, and the images among them.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "element/body.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

/// How the characters of one piece of a text look, or the image that it is.
struct PieceLook {
    std::optional<FontId> font;
    float size = 24;
    std::optional<Color> color;  ///< without one, that of the text
    std::optional<ImageId> image;
    Size image_size;
    bool is_image = false;  ///< `image` is missing where this is set without one
    bool is_none = false;   ///< an image that the game does not give now: there is no room for it
};

/// The looks of the pieces that the patterns of a text name.
class PieceLooks {
 public:
    /// What a piece has where its style is silent.
    struct Around {
        std::string family;
        int weight = 400;
        bool italic = false;
        float size = 24;
        friend bool operator==(const Around&, const Around&) = default;
    };

    /// Finds the style or the image of every piece; one that there is not is reported.
    void find(const Format& format, const Around& around, std::string_view field, BodyContext& context);
    /// Adds an image that is one of several.
    void add_choice(const InlineImage& picture, const Around& around, BodyContext& context);
    /// Shows the image of this number in pieces of this name. True if that is another one than before.
    bool choose(std::string_view name, double number);
    const PieceLook* look(const TextPiece& piece) const;
    bool empty() const { return known_.empty(); }

 private:
    struct Known {
        std::string name;
        bool is_image;
        PieceLook look;
        std::vector<PieceLook> choices{};  ///< of which `look` is one
    };
    static PieceLook picture_of(const std::string& name, const Around& around, std::string_view field,
                                BodyContext& context);
    std::vector<Known> known_;
};

/// The font of an element: its own family, else the HUD's, else a sans-serif; a missing family of its own is reported.
std::optional<FontId> find_font(const std::string& family, int weight, bool italic, BodyContext& context);

}  // namespace rapido
