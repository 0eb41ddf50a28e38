// The description of a picture of a text that is chosen by a value.
#pragma once

#include "element/fields.hpp"
#include "rapido/element/text.hpp"

namespace rapido {

inline constexpr std::array picture_fields{
    required_field<&TextPicture::name>("name", "The name of the piece, as in {<name/>}."),
    required_field<&TextPicture::value>("value", "The number of the picture, from 0."),
    required_field<&TextPicture::images>("images", "The files of the pictures."),
};
static_assert(picture_fields.size() == member_count<TextPicture>);

template <>
inline constexpr Table table_of<TextPicture>{"pictures", picture_fields};

}  // namespace rapido
