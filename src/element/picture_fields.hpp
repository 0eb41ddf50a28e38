// The description of an image of a text that is chosen by a value.
#pragma once

#include "element/fields.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

inline constexpr std::array picture_fields{
    required_field<&InlineImage::name>("name", "The name of the piece, as in {#name/}."),
    required_field<&InlineImage::value>("value", "The number of the image, from 0."),
    required_field<&InlineImage::images>("images", "The files of the images."),
};
static_assert(picture_fields.size() == member_count<InlineImage>);

template <>
inline constexpr Table table_of<InlineImage>{"inline_image", picture_fields};

}  // namespace rapido
