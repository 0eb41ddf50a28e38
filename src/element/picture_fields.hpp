// The description of an image of a text that is chosen by a value.
#pragma once

#include "element/fields.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

inline constexpr std::array picture_fields{
    required_field<&InlineImage::name>("name", "The name of the piece, as in {#name/}."),
    field<&InlineImage::value>("value", "The number of the image, from 0."),
    field<&InlineImage::images>("images", "The files of the images."),
    field<&InlineImage::image>("image", "A source that gives the file, in place of a value and images."),
};
static_assert(picture_fields.size() == member_count<InlineImage>);

template <>
inline constexpr Table table_of<InlineImage>{"inline_image", picture_fields};

}  // namespace rapido
