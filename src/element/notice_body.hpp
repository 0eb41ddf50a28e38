// What a notice says: its own messages and those that the game has posted.
#pragma once

#include "base/fields.hpp"
#include "element/body.hpp"
#include "element/text_block.hpp"
#include "rapido/element/notice.hpp"
#include "rapido/value/kept_value.hpp"

namespace rapido {

/// The description of a message, for those that the game posts.
const Table& message_table();

class NoticeBody final : public Body {
 public:
    static constexpr std::size_t no_message = static_cast<std::size_t>(-1);

    NoticeBody(const Notice& notice, TextBlock block);

    /// How its messages come and go.
    struct Course {
        std::string enter, leave;  ///< names of effects
        Seconds gap;
        ReadingTime reading;
    };
    const Course& course() const { return course_; }

    /// A message of the game with its value: the one that says the same, or another number. `no_message` after a
    /// fault.
    std::size_t add(const Message& message, const Value& value, const Language* language,
                    BodyContext& context);
    /// One of the game is not needed any more.
    void forget(std::size_t message);
    /// None of them is.
    void forget_posted();
    /// The words of a message that the game wants to post; empty after a fault.
    std::string text_of(const Message& message, const Value& value, const Language* language,
                        BodyContext& context);
    /// Whether one that the game has posted has this id and these words.
    bool says(std::string_view id, std::string_view text) const;
    /// By its id.
    std::size_t find(std::string_view id) const;
    const Message& message(std::size_t index) const { return said_[index].message; }
    std::string_view text_of(std::size_t index) const { return said_[index].text->text(); }
    /// The same with the names of pictures in their place.
    std::string spoken(std::size_t index) const;
    /// As many as it has declared.
    std::size_t declared() const { return declared_; }
    /// Shows this one from the next `show` on; true if that is another one than before, or of another count.
    bool select(std::size_t message, int count);

    /// What the game has posted stays, if as many messages are declared as before.
    void take_over(Body& other) override;
    void set_language(const Language* language, BodyContext& context) override;
    void show_further(std::span<const Value> values) override;
    Change show(const FieldValues&, double) override;
    Size measure(TextMeasurer* measurer, Size content) override;
    const Arrangement* arrangement() const override { return is_log_ ? &column_ : nullptr; }
    void draw(const DrawPlace& at, DrawGroup& into) const override;
    bool set_width(TextMeasurer* measurer, float width) override;
    std::string fault_of_room() const override { return is_log_ ? std::string() : block_.fault_of_room(); }
    std::string_view text() const override { return text_; }
    Color color() const override { return color_; }
    std::uint32_t times_made() const override { return times_made_; }
    NoticeBody* notice() override { return this; }

 private:
    friend std::unique_ptr<Body> make_body(const Notice& notice, BodyContext& context);

    struct Said {
        Message message;
        std::optional<FormattedText> text;  ///< nothing for a place that is free
        KeptValue value;                    ///< of one that the game has posted
        detail::ValueUse use = detail::ValueUse::amount;
        std::optional<Value::Type> type;
    };
    bool make(Said& said, const Message& message, const Language* language, const std::string& field,
              BodyContext& context);

    Course course_;
    TextBlock block_;
    std::vector<Said> said_;
    std::size_t declared_ = 0;
    std::size_t shown_ = no_message;
    int count_ = 0;
    bool other_ = false;  ///< since the last `show`
    std::string text_;
    std::uint32_t times_made_ = 0;
    Color own_color_;
    Color color_;
    Color background_;
    Insets padding_;
    float radius_;
    float border_;
    bool show_count_;
    int weight_;
    bool italic_;
    PieceLooks::Around around_;
    Arrangement column_;  ///< of the plates of a log
    bool is_log_;
    PieceLooks looks_;                   ///< of the pieces of all messages
    std::vector<std::string> pictures_;  ///< the names of those that are chosen by a value
    std::vector<TextPiece> pieces_;      ///< of what it says
    bool uses_hud_font_;
};

}  // namespace rapido
