#include "hud/data_fields.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "element/fields.hpp"

namespace rapido {
namespace {

constexpr std::array<std::pair<std::string_view, PoseField>, 5> poses{{{"opacity", PoseField::opacity},
                                                                       {"rotation", PoseField::rotation},
                                                                       {"scale", PoseField::scale},
                                                                       {"shift.x", PoseField::shift_x},
                                                                       {"shift.y", PoseField::shift_y}}};

class Gatherer {
 public:
    explicit Gatherer(std::vector<DataField>& into) : into_(into) {}

    void gather(const Table& table, void* aggregate, const void* defaults, const std::string& prefix, bool in_list) {
        for (const Field& field : table.fields) {
            if (field.at(aggregate) == nullptr) continue;
            void* const at = field.in(aggregate);
            const void* const usual = defaults != nullptr ? field.at(defaults) : nullptr;
            const std::string name = prefix + std::string(field.name);
            switch (field.type) {
                case FieldType::color:
                    add(*static_cast<Themed<Color>*>(at), name, field, usual);
                    break;
                case FieldType::themed_text:
                    add(*static_cast<Themed<std::string>*>(at), name, field, usual);
                    break;
                case FieldType::themed_number:
                    add(*static_cast<Themed<float>*>(at), name, field, usual);
                    break;
                case FieldType::image:
                    add(*static_cast<ImageName*>(at), name, field, usual);
                    break;
                case FieldType::amount:
                    // The edges of bands follow data of themselves.
                    if (!in_list) add(*static_cast<Amount*>(at), name, field, usual);
                    break;
                case FieldType::amounts: {
                    Shift& both = *static_cast<Shift*>(at);
                    const Shift* const none = static_cast<const Shift*>(usual);
                    add(both.x, name + ".x", field, none != nullptr ? &none->x : nullptr);
                    add(both.y, name + ".y", field, none != nullptr ? &none->y : nullptr);
                    break;
                }
                case FieldType::table:
                    gather(*field.table, at, usual, name + ".", in_list);
                    break;
                case FieldType::list:
                    for (std::size_t i = 0; void* const item = field.item_in(at, i); ++i)
                        gather(*field.table, item, field.plain_item(), name + "." + std::to_string(i) + ".", true);
                    break;
                default:
                    break;
            }
        }
    }

 private:
    template <class T>
    void add(T& value, const std::string& name, const Field& field, const void* usual) {
        if (value.source() == nullptr) return;
        const auto known =
            std::find_if(poses.begin(), poses.end(), [&](const auto& pose) { return pose.first == name; });
        into_.push_back(
            {name, &field, &value, usual, *value.source(), known != poses.end() ? known->second : PoseField::none});
    }

    std::vector<DataField>& into_;
};

template <class T>
T usual_of(const void* usual) {
    return usual != nullptr ? *static_cast<const T*>(usual) : T();
}

}  // namespace

std::vector<DataField> data_fields(const Table& table, void* aggregate, const void* defaults) {
    std::vector<DataField> fields;
    Gatherer(fields).gather(table, aggregate, defaults, "", false);
    return fields;
}

double number_for(const Field& field, double usual, const Value& value) {
    const double number = value.number();
    return std::isfinite(number) ? std::clamp(number, field.min, field.max) : usual;
}

void DataField::apply(const Value& value, const Themes& themes, const ThemeReport& report) const {
    const std::string_view text = value.type() == Value::Type::text ? value.text() : std::string_view();
    switch (field->type) {
        case FieldType::color: {
            auto& color = *static_cast<Themed<Color>*>(at);
            Themed<Color> given = usual_of<Themed<Color>>(usual);
            if (const auto parsed = Color::parse(text))
                given = *parsed;
            else if (!text.empty())
                given.apply_name(theme(std::string(text)));
            if (!given.name().empty())
                themes.apply(given, [&](std::string_view, std::string message, std::string hint) {
                    if (report) report(name, std::move(message), std::move(hint));
                });
            color.apply(given.value());
            break;
        }
        case FieldType::themed_text:
            static_cast<Themed<std::string>*>(at)->apply(text.empty() ? usual_of<Themed<std::string>>(usual).value()
                                                                      : std::string(text));
            break;
        case FieldType::themed_number:
            static_cast<Themed<float>*>(at)->apply(static_cast<float>(
                number_for(*field, static_cast<double>(usual_of<Themed<float>>(usual).value()), value)));
            break;
        case FieldType::image:
            static_cast<ImageName*>(at)->apply(std::string(text));
            break;
        case FieldType::amount:
        case FieldType::amounts:
            static_cast<Amount*>(at)->apply(number_for(*field, usual_number(), value));
            break;
        default:
            break;
    }
}

}  // namespace rapido
