// Values that come as JSON Lines, of which each says only what is new.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "rapido/file.hpp"

namespace rapido::tool {

class DriveValues {
 public:
    static constexpr std::size_t most_names = 4096, longest_line = 1'000'000, most_entries = 1000;

    /// The sources of a HUD; names that come later are added.
    Sources sources() const { return sources_; }

    /// Takes an object of numbers, texts, flags, nulls and lists of objects. What it does not name keeps its value. Of a line that is none,
    /// nothing is taken, and the problem has its number.
    Status take(std::string_view line, std::size_t number);

    /// A name whose value is of a type that it did not have before.
    struct News {
        std::string name;
        Value::Type type = Value::Type::none;  ///< no value for a list
        bool is_list = false;
    };
    /// Those since the last call.
    std::vector<News> take_news() { return std::exchange(news_, {}); }

 private:
    struct Entries;
    struct List {
        std::shared_ptr<Entries> entries;
        std::vector<std::string> fields;
    };
    void set(const std::string& name, const KeptValue& value);

    Sources sources_;
    std::map<std::string, std::shared_ptr<KeptValue>, std::less<>> values_;
    std::map<std::string, List, std::less<>> lists_;
    std::vector<News> news_;
};

}  // namespace rapido::tool
