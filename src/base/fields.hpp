// Descriptions of plain aggregates, field by field. Reading a file, checking it, did-you-mean, the schema and
// the reference tables all come from the one description that stands beside each aggregate.
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <limits>
#include <new>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <tuple>
#include <type_traits>
#include <vector>

#include "rapido/base/exported.hpp"
#include "rapido/base/themed.hpp"
#include "rapido/base/units.hpp"

namespace rapido RAPIDO_EXPORTED {

/// How a field is written in a file.
enum class FieldType : std::uint8_t {
    flag,
    integer,
    number,  ///< a float
    real,    ///< a double
    text,
    seconds,
    color,          ///< perhaps by its name in the theme
    themed_text,    ///< a text, or its name in the theme
    themed_number,  ///< a float, or its name in the theme
    point,
    size,
    insets,
    choice,  ///< one word of a closed list
    source,  ///< the name of a live value, or a constant
    amount,  ///< a number, or the name of a live value that gives one; its first member is the number
    easing,
    limits,   ///< [low, high]
    points,   ///< a list of [x, y]
    image,    ///< a text, or the name of a live value that gives one
    amounts,  ///< [x, y], each an amount
    texts,    ///< a list of texts
    value,    ///< a value of any type
    values,   ///< a value, or a list of values
    sources,  ///< a table of sources, by names of one's own
    table,    ///< an aggregate with a description of its own
    list,     ///< several of them; a number stands for one with this first field
    // What calls are given, and no HUD file has.
    natural,      ///< a whole number, at least 0, of 64 bits
    nanoseconds,  ///< a whole number of them
    numbers,      ///< an array of doubles, `most` of them
    part,         ///< a part of a HUD
};

struct Table;

/// How values of a type are handled where the type is not known.
struct ValueType {
    std::size_t size = 0, align = 1;
    void (*copy)(void* room, const void* value) = nullptr;  ///< makes a copy in room for one
    void (*assign)(void* to, const void* value) = nullptr;
    void (*destroy)(void* value) = nullptr;
    bool (*equal)(const void* a, const void* b) = nullptr;
};
/// A source has no `==` of its own, as that gives another source.
template <class T>
bool are_equal(const T& a, const T& b) {
    if constexpr (requires { a.is_same(b); })
        return a.is_same(b);
    else
        return a == b;
}
template <class T>
inline constexpr ValueType value_type{
    sizeof(T),
    alignof(T),
    [](void* room, const void* value) { new (room) T(*static_cast<const T*>(value)); },
    [](void* to, const void* value) { *static_cast<T*>(to) = *static_cast<const T*>(value); },
    [](void* value) { static_cast<T*>(value)->~T(); },
    [](const void* a, const void* b) { return are_equal(*static_cast<const T*>(a), *static_cast<const T*>(b)); }};

/// No list of a description is longer, whatever it holds.
inline constexpr std::size_t most_in_list = 10'000;

/// One field of an aggregate.
struct Field {
    std::string_view name;
    FieldType type = FieldType::text;
    std::string_view help{};
    std::string_view unit{};
    double min = std::numeric_limits<double>::lowest();
    double max = std::numeric_limits<double>::max();
    std::size_t most = most_in_list;  ///< entries of a list
    bool required = false;
    bool names_element = false;                   ///< a text that is the path or the id of an element
    std::span<const std::string_view> choices{};  ///< the enumerators by value, for a choice
    void* (*append)(void* list) = nullptr;        ///< makes one more, for a list; gives its address
    void (*clear)(void* list) = nullptr;          ///< for a list
    const void* (*item)(const void* list, std::size_t index) = nullptr;  ///< null behind the last, for a list
    void* (*item_in)(void* list, std::size_t index) = nullptr;           ///< the same, to be changed
    const void* (*plain_item)() = nullptr;                               ///< one with all defaults, for a list
    const Table* table = nullptr;                                        ///< the description, for a table
    const ValueType* value = nullptr;
    const void* (*at)(const void* aggregate) = nullptr;  ///< the address of the field; null where it is absent
    bool (*is_within)(const void* value, double min, double max) = nullptr;  ///< whether all its numbers are
    void* (*in)(void* aggregate) = nullptr;  ///< the address of the field in an aggregate, made where it may be absent
};

/// The description of one aggregate.
struct Table {
    std::string_view name;
    std::span<const Field> fields;

    const Field* find(std::string_view field) const {
        for (const Field& candidate : fields)
            if (candidate.name == field) return &candidate;
        return nullptr;
    }
};

/// The words of an enumeration, by value from 0; specialised beside each.
template <class Enum>
inline constexpr std::nullptr_t choices_of{};

/// The description of an aggregate; specialised beside each.
template <class Aggregate>
inline constexpr std::nullptr_t table_of{};

template <class T>
struct FieldTypeOf {
    static constexpr FieldType type = std::is_enum_v<T> ? FieldType::choice : FieldType::table;
};
template <FieldType Type>
struct KnownFieldType {
    static constexpr FieldType type = Type;
};
// clang-format off
template <> struct FieldTypeOf<bool> : KnownFieldType<FieldType::flag> {};
template <> struct FieldTypeOf<int> : KnownFieldType<FieldType::integer> {};
template <> struct FieldTypeOf<float> : KnownFieldType<FieldType::number> {};
template <> struct FieldTypeOf<double> : KnownFieldType<FieldType::real> {};
template <> struct FieldTypeOf<std::string> : KnownFieldType<FieldType::text> {};
template <> struct FieldTypeOf<Seconds> : KnownFieldType<FieldType::seconds> {};
template <> struct FieldTypeOf<Themed<Color>> : KnownFieldType<FieldType::color> {};
template <> struct FieldTypeOf<Themed<std::string>> : KnownFieldType<FieldType::themed_text> {};
template <> struct FieldTypeOf<Themed<float>> : KnownFieldType<FieldType::themed_number> {};
template <> struct FieldTypeOf<Point> : KnownFieldType<FieldType::point> {};
template <> struct FieldTypeOf<Size> : KnownFieldType<FieldType::size> {};
template <> struct FieldTypeOf<Insets> : KnownFieldType<FieldType::insets> {};
template <> struct FieldTypeOf<std::vector<Point>> : KnownFieldType<FieldType::points> {};
template <> struct FieldTypeOf<std::vector<std::string>> : KnownFieldType<FieldType::texts> {};
template <std::size_t Count> struct FieldTypeOf<std::array<double, Count>> : KnownFieldType<FieldType::numbers> {};
// clang-format on

/// A member that may be left out is described as what it holds.
template <class T>
struct Held {
    using type = T;
    static void* in(T& member) { return &member; }
    static const void* at(const T& member) { return &member; }
};
template <class T>
struct Held<std::optional<T>> {
    using type = T;
    static void* in(std::optional<T>& member) { return &(member ? *member : member.emplace()); }
    static const void* at(const std::optional<T>& member) { return member ? &*member : nullptr; }
};

template <class>
inline constexpr bool is_list = false;
template <class T>
inline constexpr bool is_list<std::vector<T>> = true;
template <>
inline constexpr bool is_list<std::vector<Point>> = false;
template <>
inline constexpr bool is_list<std::vector<std::string>> = false;
class KeptValue;
template <>
inline constexpr bool is_list<std::vector<KeptValue>> = false;

template <class>
struct MemberOf;
template <class Aggregate, class Member>
struct MemberOf<Member Aggregate::*> {
    using aggregate = Aggregate;
    using member = Member;
};

struct Range {
    std::string_view unit{};
    double min = std::numeric_limits<double>::lowest();
    double max = std::numeric_limits<double>::max();
    std::size_t most = most_in_list;  ///< entries, of a list
};

/// The last of a row of members, each of which stands in the one before it.
template <auto Member, auto... Inner>
struct MemberPath {
    using aggregate = typename MemberOf<decltype(Member)>::aggregate;
    using member = typename MemberOf<decltype(Member)>::member;
    template <class Aggregate>
    static auto& in(Aggregate& aggregate) {
        return aggregate.*Member;
    }
};
template <auto Member, auto Next, auto... Inner>
struct MemberPath<Member, Next, Inner...> {
    using aggregate = typename MemberOf<decltype(Member)>::aggregate;
    using member = typename MemberPath<Next, Inner...>::member;
    template <class Aggregate>
    static auto& in(Aggregate& aggregate) {
        return MemberPath<Next, Inner...>::in(aggregate.*Member);
    }
};

/// Calls `use` with each number of a value.
template <class T, class Use>
void for_each_number(const T& value, Use use) {
    if constexpr (std::is_arithmetic_v<T> && !std::is_same_v<T, bool>)
        use(static_cast<double>(value));
    else if constexpr (std::is_same_v<T, Themed<float>>)
        use(static_cast<double>(value.value()));
    else if constexpr (requires { value.number(); })
        use(value.number());
    else if constexpr (requires { value.x.number(); })
        use(value.x.number()), use(value.y.number());
    else if constexpr (std::is_same_v<T, Seconds>)
        use(value.count());
    else if constexpr (std::is_same_v<T, Point>)
        use(static_cast<double>(value.x)), use(static_cast<double>(value.y));
    else if constexpr (std::is_same_v<T, Size>)
        use(static_cast<double>(value.width)), use(static_cast<double>(value.height));
    else if constexpr (std::is_same_v<T, Insets>)
        for (const float side : {value.top, value.right, value.bottom, value.left})
            use(static_cast<double>(side));
}
template <class T>
bool is_within(const void* value, double min, double max) {
    bool is_within = true;
    for_each_number(*static_cast<const T*>(value), [&](double number) {
        is_within = is_within && number >= min && number <= max;  // NaN is not
    });
    return is_within;
}

/// Describes one member, or one inside a member; type, choices and nested description follow from the member itself.
template <auto... Members>
constexpr Field field(std::string_view name, std::string_view help, Range range = {}) {
    using Path = MemberPath<Members...>;
    using Aggregate = typename Path::aggregate;
    using Written = Held<typename Path::member>;
    using Type = typename Written::type;
    Field made{.name = name,
               .type = is_list<Type> ? FieldType::list : FieldTypeOf<Type>::type,
               .help = help,
               .unit = range.unit,
               .min = range.min,
               .max = range.max,
               .most = range.most};
    if constexpr (FieldTypeOf<Type>::type == FieldType::choice) {
        static_assert(sizeof(Type) == 1, "a choice is read and written as a byte");
        made.choices = choices_of<Type>;
    }
    if constexpr (FieldTypeOf<Type>::type == FieldType::numbers) made.most = std::tuple_size_v<Type>;
    if constexpr (is_list<Type>) {
        made.table = &table_of<typename Type::value_type>;
        made.item = [](const void* list, std::size_t index) -> const void* {
            const Type& all = *static_cast<const Type*>(list);
            return index < all.size() ? &all[index] : nullptr;
        };
        made.item_in = [](void* list, std::size_t index) -> void* {
            Type& all = *static_cast<Type*>(list);
            return index < all.size() ? &all[index] : nullptr;
        };
        made.plain_item = []() -> const void* {
            static const typename Type::value_type item{};
            return &item;
        };
        made.clear = [](void* list) { static_cast<Type*>(list)->clear(); };
        made.append = [](void* list) -> void* { return &static_cast<Type*>(list)->emplace_back(); };
    } else if constexpr (FieldTypeOf<Type>::type == FieldType::table) {
        made.table = &table_of<Type>;
    }
    made.value = &value_type<Type>;
    made.is_within = &is_within<Type>;
    made.in = [](void* aggregate) -> void* { return Written::in(Path::in(*static_cast<Aggregate*>(aggregate))); };
    made.at = [](const void* aggregate) -> const void* {
        return Written::at(Path::in(*static_cast<const Aggregate*>(aggregate)));
    };
    return made;
}

template <auto Member>
constexpr Field field_of_element(std::string_view name, std::string_view help) {
    Field made = field<Member>(name, help);
    made.names_element = true;
    return made;
}

template <auto... Members>
constexpr Field required_field(std::string_view name, std::string_view help, Range range = {}) {
    Field made = field<Members...>(name, help, range);
    made.required = true;
    return made;
}

/// As many digits as it needs; a power of ten where that would be a long row of zeros.
std::string plain_number(double number);
/// `0 to 10000 px`.
std::string range_of(const Field& field);

/// Whether two aggregates have the same values in all fields.
bool are_alike(const Table& table, const void* a, const void* b);

/// Calls `report` with the name and the range of each number in an aggregate that is outside its range, or none.
void check_ranges(const Table& table, const void* aggregate,
                  const std::function<void(std::string_view field, const Field& range)>& report,
                  const std::string& prefix = {});

namespace detail {
struct Anything {
    template <class T>
    operator T() const;
};
template <class Aggregate, class... Given>
constexpr std::size_t count_members() {
    if constexpr (requires { Aggregate{Given{}..., Anything{}}; })
        return count_members<Aggregate, Given..., Anything>();
    else
        return sizeof...(Given);
}
}  // namespace detail

/// How many members an aggregate has: a description that leaves one out does not compile.
template <class Aggregate>
constexpr std::size_t member_count = detail::count_members<Aggregate>();

}  // namespace rapido
