// The room `text`: formats, plural forms, languages.
#pragma once

#include "rapido/text/format.hpp"
#include "rapido/text/formatted_text.hpp"
#include "rapido/text/language.hpp"
#include "rapido/text/plural.hpp"
