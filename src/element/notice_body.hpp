// What is seen of a notice, and of each plate of a log.
#pragma once

#include <memory>
#include <utility>

#include "base/fields.hpp"
#include "element/body.hpp"
#include "element/messages.hpp"
#include "element/text_block.hpp"
#include "rapido/element/notice.hpp"

namespace rapido {

/// The description of a message, for those that the game posts.
const Table& message_table();

/// Whether it shows several messages at once, each on a plate of its own.
inline bool is_log(const Notice& notice) {
    return notice.at_most > 1;
}

class NoticeBody final : public Body {
 public:
    NoticeBody(const Notice& notice, TextBlock block, std::shared_ptr<Messages> messages);

    /// How its messages come and go.
    struct Course {
        std::string enter, leave;  ///< names of effects
        Seconds time_between;
        ReadingTime reading;
    };
    const Course& course() const { return course_; }

    Messages& messages() { return *messages_; }
    const Messages& messages() const { return *messages_; }
    /// A plate of a log says what the log can say.
    void say_for(const NoticeBody& log);
    /// Shows this one from the next `show` on; true if that looks otherwise than before.
    bool select(std::size_t message, int count);

    void take_over(Body& other) override;
    void set_language(const Language* language, BodyContext& context) override;
    void show_further(std::span<const Value> values) override;
    Change show(const ShownValue&) override;
    Size measure(TextMeasurer* measurer, Size content) override;
    const Arrangement* arrangement() const override { return is_log_ ? &column_ : nullptr; }
    void draw(const DrawPlace& at, DisplayGroup& into) const override;
    bool set_width(TextMeasurer* measurer, float width) override;
    std::string fault_of_room() const override { return is_log_ ? std::string() : block_.fault_of_room(); }
    std::string_view text() const override { return text_; }
    Change set_look(const Look& look) override;
    Color color() const override { return color_; }
    std::uint32_t times_made() const override { return times_made_; }
    NoticeBody* notice() override { return this; }

 private:
    bool is_out_of_date() const;

    Course course_;
    TextBlock block_;
    std::shared_ptr<Messages> messages_;
    bool is_plate_ = false;  ///< the messages are those of a log
    std::size_t shown_ = Messages::none;
    int count_ = 0;
    bool other_ = false;         ///< since the last `show`
    std::uint32_t version_ = 0;  ///< of the message, at the last `show`
    std::uint32_t version_of_looks_ = 0;
    std::string text_;
    std::uint32_t times_made_ = 0;
    Color own_color_;
    std::optional<Color> color_of_message_;
    Color color_;
    Color background_;
    Insets padding_;
    float radius_;
    float border_;
    bool show_count_;
    int weight_;
    bool italic_;
    Arrangement column_;  ///< of the plates of a log
    bool is_log_;
    bool uses_hud_font_;
};

}  // namespace rapido
