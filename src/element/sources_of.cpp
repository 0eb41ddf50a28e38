#include "element/sources_of.hpp"

namespace rapido {

namespace {

/// Of what may have a source in place of a value.
template <class T>
void use_of(T& value, const std::string& name,
            const std::function<void(const std::string& field, Source& source)>& use) {
    if (value.source() == nullptr) return;
    Source source = *value.source();
    use(name, source);
    if (!source.is_same(*value.source())) value = T(source);
}

}  // namespace

void for_each_source(const Table& table, void* aggregate,
                     const std::function<void(const std::string& field, Source& source)>& use,
                     const std::string& prefix) {
    for (const Field& field : table.fields) {
        if (field.at(aggregate) == nullptr) continue;
        const std::string name = prefix + std::string(field.name);
        switch (field.type) {
            case FieldType::source:
                use(name, *static_cast<Source*>(field.in(aggregate)));
                break;
            case FieldType::amount:
                use_of(*static_cast<Amount*>(field.in(aggregate)), name, use);
                break;
            case FieldType::amounts: {
                Shift& both = *static_cast<Shift*>(field.in(aggregate));
                use_of(both.x, name + ".x", use);
                use_of(both.y, name + ".y", use);
                break;
            }
            case FieldType::image:
                use_of(*static_cast<ImageName*>(field.in(aggregate)), name, use);
                break;
            case FieldType::color:
                use_of(*static_cast<Themed<Color>*>(field.in(aggregate)), name, use);
                break;
            case FieldType::themed_text:
                use_of(*static_cast<Themed<std::string>*>(field.in(aggregate)), name, use);
                break;
            case FieldType::themed_number:
                use_of(*static_cast<Themed<float>*>(field.in(aggregate)), name, use);
                break;
            case FieldType::sources:
                for (NamedSource& named : *static_cast<std::vector<NamedSource>*>(field.in(aggregate)))
                    use(name + "." + named.name, named.value);
                break;
            case FieldType::table:
                for_each_source(*field.table, field.in(aggregate), use, name + ".");
                break;
            case FieldType::list:
                for (std::size_t i = 0;; ++i) {
                    void* const item = field.item_in(field.in(aggregate), i);
                    if (item == nullptr) break;
                    for_each_source(*field.table, item, use, name + "." + std::to_string(i) + ".");
                }
                break;
            default:
                break;
        }
    }
}

}  // namespace rapido
