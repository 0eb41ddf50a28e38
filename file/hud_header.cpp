// The typed header of what a HUD declares of its sources.
#include <algorithm>
#include <array>
#include <memory>
#include <set>

#include "base/fields.hpp"
#include "rapido/file.hpp"

namespace rapido {
namespace {

constexpr auto keywords = std::to_array<std::string_view>(
    {"alignas",     "alignof",  "and",        "and_eq",    "asm",       "auto",         "bitand",
     "bitor",       "bool",     "break",      "case",      "catch",     "char",         "char16_t",
     "char32_t",    "char8_t",  "class",      "co_await",  "co_return", "co_yield",     "compl",
     "concept",     "const",    "const_cast", "consteval", "constexpr", "constinit",    "continue",
     "decltype",    "default",  "delete",     "do",        "double",    "dynamic_cast", "else",
     "enum",        "explicit", "export",     "extern",    "false",     "float",        "for",
     "friend",      "goto",     "if",         "inline",    "int",       "long",         "mutable",
     "namespace",   "new",      "noexcept",   "not",       "not_eq",    "nullptr",      "operator",
     "or",          "or_eq",    "private",    "protected", "public",    "register",     "reinterpret_cast",
     "requires",    "return",   "short",      "signed",    "sizeof",    "static",       "static_assert",
     "static_cast", "struct",   "switch",     "template",  "this",      "thread_local", "throw",
     "true",        "try",      "typedef",    "typeid",    "typename",  "union",        "unsigned",
     "using",       "virtual",  "void",       "volatile",  "wchar_t",   "while",        "xor",
     "xor_eq"});

/// Macros that headers which a game includes, or compilers beside the standard, define under names that are no rarity.
constexpr auto macros = std::to_array<std::string_view>(
    {"BUFSIZ",   "DOMAIN",    "EOF",      "FALSE",  "INFINITY", "NAN",    "NULL",      "OVERFLOW",
     "TRUE",     "UNDERFLOW", "assert",   "errno",  "fileno",   "i386",   "linux",     "math_errhandling",
     "offsetof", "setjmp",    "signbit",  "stderr", "stdin",    "stdout", "unix",      "va_arg",
     "va_copy",  "va_end",    "va_start", "near",   "far",      "small",  "interface", "min",
     "max"});

/// Whether a name is such a macro, or a limit of <climits> and its like; `HP` and `FPS` are none.
bool may_be_macro(std::string_view word) {
    const bool has_small = std::any_of(word.begin(), word.end(), [](char c) { return c >= 'a' && c <= 'z'; });
    const bool is_limit = !has_small && (word.ends_with("_MAX") || word.ends_with("_MIN"));
    return is_limit || std::find(macros.begin(), macros.end(), word) != macros.end();
}

bool is_identifier(std::string_view word) {
    const auto is_letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; };
    const auto fits = [&](char c) { return is_letter(c) || (c >= '0' && c <= '9'); };
    // Two underscores, and one before a capital, belong to the language (ISO C++, [lex.name]).
    return !word.empty() && is_letter(word[0]) && std::all_of(word.begin(), word.end(), fits) &&
           word.find("__") == std::string_view::npos &&
           !(word.size() > 1 && word[0] == '_' && word[1] >= 'A' && word[1] <= 'Z') &&
           std::find(keywords.begin(), keywords.end(), word) == keywords.end();
}

bool has_macro(std::string_view names) {
    for (std::size_t end = 0; !names.empty(); names.remove_prefix(std::min(end + 1, names.size()))) {
        end = std::min(names.find('.'), names.size());
        if (may_be_macro(names.substr(0, end))) return true;
    }
    return false;
}

bool are_identifiers(std::string_view names, std::string_view between) {
    while (!names.empty()) {
        const std::size_t end = names.find(between);
        if (!is_identifier(names.substr(0, end))) return false;
        if (end == std::string_view::npos) return true;
        names.remove_prefix(end + between.size());
    }
    return false;
}

std::string_view type_of(SourceType type) {
    // Entries have a struct of their own.
    constexpr std::array<std::string_view, 8> types{"double",          "::std::int64_t",    "bool",
                                                    "::std::string",   "::rapido::Seconds", "",
                                                    "::rapido::Color", "::std::string"};
    return types[static_cast<std::size_t>(type)];
}

/// A part of the names: a field, or a struct of fields.
struct Node {
    const DeclaredSource* source = nullptr;
    std::vector<std::pair<std::string, std::unique_ptr<Node>>> inside;

    Node& at(const std::string& name) {
        for (auto& [known, node] : inside)
            if (known == name) return *node;
        return *inside.emplace_back(name, std::make_unique<Node>()).second;
    }
};

/// What a field is, for who reads the header.
std::string comment_of(const DeclaredSource& source) {
    std::string text;
    if (source.range.low < source.range.high)
        text = plain_number(source.range.low) + " to " + plain_number(source.range.high);
    if (!source.unit.empty()) text += (text.empty() ? "" : " ") + source.unit;
    // A comment has one line.
    std::replace_if(
        text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 0x20 || c == '\\'; }, ' ');
    return text.empty() ? "" : "  ///< " + text;
}

/// `plane_state` as the name of a type: `PlaneState`.
std::string type_name(const std::string& name) {
    std::string made;
    bool is_first = true;
    for (const char c : name) {
        if (c == '_') {
            is_first = true;
            continue;
        }
        made += is_first && c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c;
        is_first = false;
    }
    // It must differ from its field, and be none of the language.
    return made == name || !is_identifier(made) ? made + "Part" : made;
}

/// The struct of the entries of a container, and the container. Each entry has all of its fields.
void write_entries(const DeclaredSource& source, const std::string& name, const std::string& type,
                   const std::string& indent, std::string& out) {
    out += indent + "struct " + type + " {\n";
    for (const DeclaredSource& field : source.fields)
        out += indent + "    " + std::string(type_of(field.type)) + " " + field.name + "{};" + comment_of(field) + "\n";
    out += indent + "};\n" + indent + "::std::vector<" + type + "> " + name + "{};" + comment_of(source) + "\n";
}

/// What offers a source under its name.
std::string binding_of(const DeclaredSource& source) {
    const std::string member = "this->" + source.name;
    const std::string begin = "        sources_.set(\"" + source.name + "\", ::rapido::watch";
    if (source.type != SourceType::entries) return begin + "(" + member + "));\n";
    std::string made = begin + "_entries(" + member;
    const std::string indent(20, ' ');
    const auto has = [&](std::string_view name) {
        return std::any_of(source.fields.begin(), source.fields.end(),
                           [name](const DeclaredSource& field) { return field.name == name; });
    };
    for (const DeclaredSource& field : source.fields)
        made += ",\n" + indent + "::rapido::entry_field(\"" + field.name + "\", &decltype(" + member +
                ")::value_type::" + field.name + ")";
    if (has("x") && has("y")) {
        const auto number = [](const char* name) { return "static_cast<double>(entry_." + std::string(name) + ")"; };
        made += ",\n" + indent + "::rapido::entry_position([](const auto& entry_) { return ::rapido::WorldPoint{" +
                number("x") + ", " + number("y") + (has("z") ? ", " + number("z") : ", 0.0") + "}; })";
    }
    return made + "));\n";
}

/// Whether it has a name that no field of C++ can have; nothing where it has none.
const DeclaredSource* bad_field(const DeclaredSource& source) {
    const auto found = std::find_if(source.fields.begin(), source.fields.end(), [](const DeclaredSource& field) {
        return !is_identifier(field.name) || may_be_macro(field.name);
    });
    return found != source.fields.end() ? &*found : nullptr;
}

/// `around` are the types that it stands in: none of them may be the name of something inside.
void write_fields(const Node& node, const std::string& indent, const std::set<std::string>& around, std::string& out) {
    std::set<std::string> taken = around;
    for (const auto& [name, inner] : node.inside)
        taken.insert(name);
    for (const auto& [name, inner] : node.inside) {
        if (inner->source != nullptr && inner->source->type == SourceType::entries) {
            std::string type = type_name(name) + "Entry";
            const auto is_field = [&, &of = *inner->source](const std::string& word) {
                return std::any_of(of.fields.begin(), of.fields.end(),
                                   [&](const DeclaredSource& field) { return field.name == word; });
            };
            while (is_field(type) || !taken.insert(type).second)
                type += "Part";
            write_entries(*inner->source, name, type, indent, out);
            continue;
        }
        if (inner->source != nullptr) {
            out += indent + "::std::optional<" + std::string(type_of(inner->source->type)) + "> " + name + "{};" +
                   comment_of(*inner->source) + "\n";
            continue;
        }
        std::string type = type_name(name);
        const auto is_inside = [&, &of = *inner](const std::string& word) {
            return std::any_of(of.inside.begin(), of.inside.end(),
                               [&](const auto& each) { return each.first == word; });
        };
        while (is_inside(type) || !taken.insert(type).second)
            type += "Part";
        std::set<std::string> inner_around = around;
        inner_around.insert(type);
        out += indent + "struct " + type + " {\n";
        write_fields(*inner, indent + "    ", inner_around, out);
        out += indent + "} " + name + "{};\n";
    }
}

}  // namespace

Result<std::string> hud_header(const HudDefinition& definition, const HeaderOptions& options) {
    Problems problems;
    const std::string file = definition.files.empty() ? std::string() : definition.files.front();
    if (!is_identifier(options.type) || may_be_macro(options.type))
        problems.push_back({{}, "'" + options.type + "' is no name for a type", "", ProblemCode::bad_id});
    if (!options.name_space.empty() && !are_identifiers(options.name_space, "::"))
        problems.push_back({{}, "'" + options.name_space + "' is no namespace", "", ProblemCode::bad_id});
    const std::string first_space = options.name_space.substr(0, options.name_space.find("::"));
    if (first_space == "rapido" || first_space == "std")
        problems.push_back({{},
                            "namespace '" + first_space + "' belongs to others",
                            "give the namespace of the game",
                            ProblemCode::bad_id});
    if (definition.sources.empty())
        problems.push_back({{file},
                            "declares no source that could be a field",
                            "say what the game will offer, such as [source.\"plane.water\"]",
                            ProblemCode::missing_key});
    Node root;
    std::string bound;
    for (std::size_t i = 0; i < definition.sources.size(); ++i) {
        const DeclaredSource& source = definition.sources[i];
        const auto refuse = [&](std::string message, std::string hint, ProblemCode code) {
            const Location place =
                i < definition.source_locations.size() ? definition.source_locations[i].location : Location{file};
            problems.push_back({place, "source '" + source.name + "' " + std::move(message), std::move(hint), code});
        };
        const std::string first = source.name.substr(0, source.name.find('.'));
        if (first == options.type) {
            refuse("is named as the type '" + options.type + "' around it", "give the type another name with --type",
                   ProblemCode::bad_id);
            continue;
        }
        if (are_identifiers(source.name, ".") && has_macro(source.name)) {
            refuse("may be a macro of a header", "give it a name that no header uses", ProblemCode::bad_id);
            continue;
        }
        if (first == "bind") {
            refuse("has the name of the function that binds all of them", "give it another name", ProblemCode::bad_id);
            continue;
        }
        if (!are_identifiers(source.name, ".")) {
            refuse("cannot be a field of C++",
                   "its parts are made of letters, digits and '_', and no words of the "
                   "language",
                   ProblemCode::bad_id);
            continue;
        }
        if (const DeclaredSource* const field = bad_field(source)) {
            refuse("has the field '" + field->name + "', which cannot be a member of C++",
                   "it is made of letters, digits and '_', and no word of the language or macro", ProblemCode::bad_id);
            continue;
        }
        Node* node = &root;
        bool is_taken = false;
        std::string_view rest = source.name;
        std::string around;
        while (!rest.empty() && !is_taken) {
            const std::string part(rest.substr(0, rest.find('.')));
            rest.remove_prefix(std::min(part.size() + 1, rest.size()));
            if (part == around) {
                refuse("has a part that is named as the one around it", "give one of them another name",
                       ProblemCode::bad_id);
                is_taken = true;
                break;
            }
            around = part;
            node = &node->at(part);
            is_taken = node->source != nullptr || (rest.empty() && !node->inside.empty());
            if (is_taken)
                refuse("is a name, and the beginning of another one",
                       "give one of them another name, such as '" + source.name + ".value'", ProblemCode::duplicate);
        }
        if (is_taken) continue;
        node->source = &source;
        bound += binding_of(source);
    }
    if (!problems.empty()) return problems;

    const std::string open = options.name_space.empty() ? "" : "namespace " + options.name_space + " {\n\n";
    const std::string close = options.name_space.empty() ? "" : "\n}  // namespace " + options.name_space + "\n";
    std::string fields;
    write_fields(root, "    ", {options.type}, fields);
    return "// Made by `rapido header` out of a HUD file; do not edit it.\n"
           "#pragma once\n\n"
           "#include <cstdint>\n#include <optional>\n#include <string>\n#include <vector>\n\n#include "
           "<rapido/value.hpp>\n\n" +
           open + "/// What the HUD asks of the game. A field without a value shows its placeholder.\nstruct " +
           options.type + " {\n" + fields +
           "\n    /// Offers all of it under its names. It must outlive the HUDs that read it.\n"
           "    void bind(::rapido::Sources& sources_) const {\n" +
           bound + "    }\n};\n" + close;
}

}  // namespace rapido
