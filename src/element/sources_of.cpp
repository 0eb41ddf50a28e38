#include "element/sources_of.hpp"

namespace rapido {

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
            case FieldType::amount: {
                Amount& amount = *static_cast<Amount*>(field.in(aggregate));
                if (amount.source() == nullptr) break;
                Source source = *amount.source();
                use(name, source);
                if (!source.is_same(*amount.source())) amount = source;
                break;
            }
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
