#include "element/kinds.hpp"
#include "rapido/element/panel.hpp"

#include <algorithm>
#include <array>
#include <cstddef>

namespace rapido {
namespace {

template <class... Described>
auto list_kinds(detail::KindList<Described...>) {
    return std::array<const Kind*, sizeof...(Described)>{&kind_of<Described>()...};
}

/// Where an aggregate says its name and its panel.
std::string& text_in(const Kind& kind, void* aggregate, std::string_view field) {
    return *static_cast<std::string*>(kind.table->find(field)->in(aggregate));
}

}  // namespace

std::span<const Kind* const> all_kinds() {
    static const auto kinds = list_kinds(detail::AllKinds());
    return kinds;
}

std::vector<std::string_view> kind_names() {
    std::vector<std::string_view> names;
    for (const Kind* const kind : all_kinds())
        names.push_back(kind->name());
    return names;
}

const Kind* find_kind(std::string_view name) {
    const auto kinds = all_kinds();
    const auto found = std::find_if(kinds.begin(), kinds.end(), [&](const Kind* kind) { return kind->name() == name; });
    return found != kinds.end() ? *found : nullptr;
}

namespace detail {

bool operator==(const OwnSource& a, const OwnSource& b) {
    return a.field == b.field && a.source.is_same(b.source);
}

namespace {

std::size_t mixed(std::size_t hash, std::size_t part) {
    return (hash ^ part) * 0x9e3779b97f4a7c15U + (hash >> 29);
}
template <class... Numbers>
std::size_t hash_of_numbers(Numbers... numbers) {
    std::size_t hash = 0;
    ((hash = mixed(hash, std::hash<double>{}(static_cast<double>(numbers)))), ...);
    return hash;
}

/// Equal for equal values; of some types, of which elements seldom differ in that alone, all are taken as equal.
std::size_t hash_of(const Field& field, const void* value) {
    switch (field.type) {
        case FieldType::flag:
        case FieldType::choice:
            return *static_cast<const std::uint8_t*>(value);
        case FieldType::integer:
            return std::hash<int>{}(*static_cast<const int*>(value));
        case FieldType::number:
            return hash_of_numbers(*static_cast<const float*>(value));
        case FieldType::real:
            return hash_of_numbers(*static_cast<const double*>(value));
        case FieldType::seconds:
            return hash_of_numbers(static_cast<const Seconds*>(value)->count());
        case FieldType::text:
            return std::hash<std::string>{}(*static_cast<const std::string*>(value));
        case FieldType::point: {
            const auto& point = *static_cast<const Point*>(value);
            return hash_of_numbers(point.x, point.y);
        }
        case FieldType::size: {
            const auto& size = *static_cast<const Size*>(value);
            return hash_of_numbers(size.width, size.height);
        }
        case FieldType::color: {
            const auto& color = *static_cast<const Themed<Color>*>(value);
            const Color shown = color.name().empty() ? color.value() : Color{};
            return mixed(std::hash<std::string>{}(color.name()), hash_of_numbers(shown.red, shown.green, shown.blue));
        }
        case FieldType::table: {
            std::size_t hash = 0;
            for (const Field& inner : field.table->fields)
                if (const void* const at = inner.at(value)) hash = mixed(hash, hash_of(inner, at));
            return hash;
        }
        default:
            return 0;
    }
}

}  // namespace

/// Numbers of fields and their values, in one block.
class KeptFields {
 public:
    /// The fields of an aggregate that differ from the defaults.
    KeptFields(const Kind& kind, const void* aggregate) : table_(*kind.table) {
        const void* const defaults = kind.defaults();
        std::size_t size = 0;
        for (std::size_t i = 0; i < table_.fields.size(); ++i) {
            const Field& field = table_.fields[i];
            if (is_own(field) || !differs(field, aggregate, defaults)) continue;
            const std::size_t at = (size + field.value->align - 1) / field.value->align * field.value->align;
            entries_.push_back({static_cast<std::uint16_t>(i), static_cast<std::uint16_t>(at)});
            size = at + field.value->size;
        }
        entries_.shrink_to_fit();
        values_ =
            std::make_unique<std::max_align_t[]>((size + sizeof(std::max_align_t) - 1) / sizeof(std::max_align_t));
        for (const Entry& entry : entries_)
            field_of(entry).value->copy(room(entry), field_of(entry).at(aggregate));
    }
    ~KeptFields() {
        for (const Entry& entry : entries_)
            field_of(entry).value->destroy(room(entry));
    }
    KeptFields(const KeptFields&) = delete;
    KeptFields& operator=(const KeptFields&) = delete;

    bool is_empty() const { return entries_.empty(); }
    void write_into(void* aggregate) const {
        for (const Entry& entry : entries_)
            field_of(entry).value->assign(field_of(entry).in(aggregate), room(entry));
    }
    /// Equal for equal fields.
    std::size_t hash() const {
        std::size_t hash = reinterpret_cast<std::uintptr_t>(&table_);
        for (const Entry& entry : entries_)
            hash = mixed(mixed(hash, entry.field), hash_of(field_of(entry), room(entry)));
        return hash;
    }
    friend bool operator==(const KeptFields& a, const KeptFields& b) {
        if (&a.table_ != &b.table_ || a.entries_.size() != b.entries_.size()) return false;
        for (std::size_t i = 0; i < a.entries_.size(); ++i) {
            const Entry &one = a.entries_[i], &other = b.entries_[i];
            if (one.field != other.field || !a.field_of(one).value->equal(a.room(one), b.room(other))) return false;
        }
        return true;
    }

    static bool is_own(const Field& field) {
        return field.type == FieldType::source || field.name == "id" || field.name == "inside";
    }

 private:
    struct Entry {
        std::uint16_t field, at;
    };
    static bool differs(const Field& field, const void* aggregate, const void* defaults) {
        const void* const given = field.at(aggregate);
        const void* const usual = field.at(defaults);
        return given != nullptr && (usual == nullptr || !field.value->equal(given, usual));
    }
    const Field& field_of(const Entry& entry) const { return table_.fields[entry.field]; }
    void* room(const Entry& entry) const { return reinterpret_cast<std::byte*>(values_.get()) + entry.at; }

    const Table& table_;
    std::vector<Entry> entries_;
    std::unique_ptr<std::max_align_t[]> values_;
};

void append(std::vector<Element>& all, const Element& element) {
    all.push_back(element);
}
void append(std::vector<Element>& all, const std::vector<Element>& more) {
    all.insert(all.end(), more.begin(), more.end());
}

Source EntryFields::operator()(std::string_view field) const {
    return by_name(path_ + "." + std::string(field));
}

namespace {
std::string joined(const std::string& inside, const std::string& id) {
    return inside + (inside.empty() || id.empty() ? "" : ".") + id;
}
}  // namespace

WithPanels::WithPanels(const Element& described, int count)
    : path_(joined(described.inside(), described.id())), count_(count), all_{described} {}

EntryFields WithPanels::entry(int number) const {
    return EntryFields(path_ + "." + std::to_string(number));
}

void WithPanels::add(int number, std::vector<Element> made) {
    if (made.empty()) return;
    const std::string id = std::to_string(number);
    // What stands inside names the panel as it was made.
    const std::string before = joined(made.front().inside(), made.front().id());
    for (std::size_t i = 1; i < made.size(); ++i)
        made[i].set_inside(path_ + "." + id +
                           made[i].inside().substr(std::min(before.size(), made[i].inside().size())));
    made.front().set_id(id);
    made.front().set_inside(path_);
    append(all_, made);
}

}  // namespace detail

Element::Element() : kind_(&kind_of<Panel>()) {}

Element::Element(const Kind& kind, const void* description)
    : kind_(&kind),
      id_(*static_cast<const std::string*>(kind.table->find("id")->at(description))),
      inside_(*static_cast<const std::string*>(kind.table->find("inside")->at(description))) {
    for (std::size_t i = 0; i < kind.table->fields.size(); ++i) {
        const Field& field = kind.table->fields[i];
        if (field.type != FieldType::source) continue;
        const Source& given = *static_cast<const Source*>(field.at(description));
        const Source& usual = *static_cast<const Source*>(field.at(kind.defaults()));
        if (!given.is_same(usual)) sources_.push_back({static_cast<std::uint32_t>(i), given});
    }
    auto fields = std::make_shared<const detail::KeptFields>(kind, description);
    if (!fields->is_empty()) fields_ = std::move(fields);
}

Element::Element(const Element&) = default;
Element::Element(Element&&) noexcept = default;
Element& Element::operator=(const Element&) = default;
Element& Element::operator=(Element&&) noexcept = default;
Element::~Element() = default;

std::string_view Element::kind() const {
    return kind_->name();
}

void Element::set_id(std::string_view id) {
    id_ = id;
}

void Element::set_inside(std::string_view inside) {
    inside_ = inside;
}

bool operator==(const Element& a, const Element& b) {
    const bool keep_alike = a.fields_ == b.fields_ || (a.fields_ && b.fields_ && *a.fields_ == *b.fields_);
    return a.kind_ == b.kind_ && a.id_ == b.id_ && a.inside_ == b.inside_ && a.sources_ == b.sources_ && keep_alike;
}

std::vector<Element> nest(const Panel& panel, const std::vector<Element>& inner) {
    const std::string path = detail::joined(panel.inside, panel.id);
    std::vector<Element> all{panel};
    for (const Element& element : inner) {
        all.push_back(element);
        all.back().set_inside(path + (element.inside().empty() ? "" : ".") + element.inside());
    }
    return all;
}

WrittenElement::WrittenElement(const Kind& kind) : kind_(&kind), aggregate_(kind.create(), kind.destroy) {}

WrittenElement::WrittenElement(const Element& element) : WrittenElement(*element.kind_) {
    text_in(*kind_, data(), "id") = element.id_;
    text_in(*kind_, data(), "inside") = element.inside_;
    for (const detail::OwnSource& own : element.sources_)
        *static_cast<Source*>(kind_->table->fields[own.field].in(data())) = own.source;
    if (element.fields_) element.fields_->write_into(data());
}

Element WrittenElement::element() const {
    return Element(*kind_, data());
}

void KnownFields::share(Element& element) {
    if (!element.fields_) return;
    const std::size_t hash = element.fields_->hash();
    const auto [begin, end] = known_.equal_range(hash);
    // Where many are alike to the hash, it is not worth to look on.
    int tries = 16;
    for (auto it = begin; it != end && tries-- > 0; ++it) {
        const std::shared_ptr<const detail::KeptFields> fields = it->second.lock();
        if (fields && *fields == *element.fields_) {
            element.fields_ = fields;
            return;
        }
    }
    known_.emplace(hash, element.fields_);
    if (known_.size() < most_) return;
    std::erase_if(known_, [](const auto& one) { return one.second.expired(); });
    most_ = std::max<std::size_t>(64, known_.size() * 2);
}

}  // namespace rapido
