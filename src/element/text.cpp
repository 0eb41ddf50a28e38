#include "rapido/element/text.hpp"

#include "base/utf8.hpp"
#include "element/fields.hpp"
#include "element/kinds.hpp"

namespace rapido {
namespace {

constexpr std::array fields{
    required_field<&Text::id>("id", "its name, unique among its siblings"),
    field<&Text::value>("value", "what {} shows"),
    field<&Text::max>("max", "what {max} shows"),
    field<&Text::format>("format", "literal text and fields, with ISO C++ format specs"),
    field<&Text::placeholder>("placeholder", "in place of a field that has no value"),
    field<&Text::rounding>("rounding", "of the digits that are not shown"),
    field<&Text::motion>("motion", "how the shown value follows"),
    field<&Text::place>("place", "where it stands"),
    field<&Text::inside>("inside", "the panel that it stands in"),
    field<&Text::color>("color", "of the characters"),
    field<&Text::font>("font", "a family; empty is the HUD's"),
    field<&Text::weight>("weight", "of the font: 400 is regular, 700 bold", {"", 1, 1000}),
    field<&Text::size>("size", "of the font", {"px", 1, largest_length}),
    field<&Text::layer>("layer", "higher is drawn later", {"", -1000, 1000}),
    field<&Text::visible>("visible", "shown while this is true"),
};
static_assert(fields.size() == member_count<Text>);

class TextBody final : public Body {
 public:
    TextBody(const Text& text, Format format, std::optional<FontId> font)
        : shown_(std::move(format), text.rounding, text.placeholder),
          color_(text.color),
          size_(text.size),
          font_(font) {}

    bool show(const FieldValues& values) override { return shown_.update(values); }

    bool resizes() const override { return true; }
    Size measure(TextMeasurer* measurer, Size) override {
        if (measurer == nullptr || !font_) return {};
        width_ = measurer->shape(*font_, size_, shown_.text(), glyphs_);
        const FontMetrics metrics = measurer->metrics(*font_);
        return {width_, (metrics.ascent + metrics.descent) * size_};
    }

    void draw(const Rect& box, float scale, TextMeasurer* measurer, DrawGroup& into) const override {
        if (measurer == nullptr || !font_) return;
        const float ascent = measurer->metrics(*font_).ascent * size_ * scale;
        into.add_text(*font_, size_ * scale, {box.x, box.y + ascent}, width_ * scale, color_, shown_.text(),
                      glyphs_, scale);
    }

    std::string_view text() const override { return shown_.text(); }
    Color color() const override { return color_; }

 private:
    FormattedText shown_;
    Color color_;
    float size_;
    std::optional<FontId> font_;
    float width_ = 0;
    std::vector<Glyph> glyphs_;
};

void check_fields(const Format& format, const Text& text, BodyContext& context) {
    const std::vector<Format::Use> uses = format.uses();
    for (std::size_t i = 0; i < uses.size(); ++i) {
        const bool is_max = uses[i].name == "max";
        if (!(is_max ? text.max : text.value)) {
            context.report("format", "shows {" + std::string(is_max ? "max" : "") + "} but has no '" +
                                         std::string(uses[i].name) + "'");
            continue;
        }
        const auto type = is_max ? context.max_type : context.value_type;
        if (!type) continue;
        const std::string mismatch = format.mismatch(i, *type);
        if (!mismatch.empty())
            context.report("format", "spec '" + std::string(uses[i].spec) + "' of '" +
                                         std::string(uses[i].name) + "': " + mismatch);
    }
}

}  // namespace

const Table Description<Text>::table{"text", fields};

std::unique_ptr<Body> make_body(const Text& text, BodyContext& context) {
    if (!utf8::is_valid(text.placeholder)) context.report("placeholder", "is not valid UTF-8");
    const Result<Format> format = Format::parse(text.format, context.place_of("format"));
    if (!format) {
        for (const Problem& problem : format.problems())
            context.report(problem);
        return nullptr;
    }
    check_fields(*format, text, context);
    std::optional<FontId> font;
    if (context.measurer != nullptr) {
        const std::string_view family = text.font.empty() ? context.font : std::string_view(text.font);
        font = context.measurer->find(family, text.weight);
        if (!font) context.report("font", "no font family '" + std::string(family) + "' is installed");
    }
    return std::make_unique<TextBody>(text, *format, font);
}

}  // namespace rapido
