// The messages of a notice: its own and those that the game has posted.
#pragma once

#include <deque>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "element/body.hpp"
#include "element/text_block.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido {

/// All that a notice can say, each message by its number. The plates of a log share those of the log.
class Messages {
 public:
    static constexpr std::size_t none = static_cast<std::size_t>(-1);

    struct Said {
        Message message;
        std::optional<FormattedText> text;  ///< nothing for a place that is free
        KeptValue value;                    ///< of one that the game has posted
        detail::ValueUse use = detail::ValueUse::amount;
        std::optional<Value::Type> type;
        std::uint32_t version = 0;  ///< another one for other words
    };

    Messages(const Notice& notice, BodyContext& context);

    /// A message of the game with its value: the one that says the same, or another number. `none` after a fault.
    std::size_t add(const Message& message, const Value& value, const Language* language, BodyContext& context);
    /// One of the game is not needed any more.
    void forget(std::size_t message);
    /// None of them is.
    void forget_posted();
    /// What the game has posted stays, if as many messages are declared as before. False if they are not.
    bool take_over(Messages& before);
    /// By its id.
    std::size_t find(std::string_view id) const;
    /// Null for `none`, and for one that is forgotten.
    const Said* said(std::size_t index) const;
    const Message& message(std::size_t index) const { return all_[index].message; }
    std::string_view text_of(std::size_t index) const { return all_[index].text->text(); }
    /// The same with the names of images in their place.
    std::string spoken(std::size_t index) const;
    /// As many as the description declares.
    std::size_t declared() const { return declared_; }

    void set_language(const Language* language, BodyContext& context);
    /// The values of the messages that are declared, each with its condition, and of the images.
    void update(std::span<const Value> values);
    /// The looks of the pieces of all of them, and another number for other looks.
    const PieceLooks& looks() const { return looks_; }
    std::uint32_t version_of_looks() const { return version_of_looks_; }

 private:
    bool make(Said& said, const Message& message, const Language* language, const std::string& field,
              BodyContext& context);

    std::deque<Said> all_;  ///< which stay where they are: what is drawn has views into their texts
    std::size_t declared_ = 0;
    PieceLooks::Around around_;
    PieceLooks looks_;
    std::vector<std::string> pictures_;  ///< the names of those that are chosen by a value
    std::uint32_t version_of_looks_ = 0;
};

}  // namespace rapido
