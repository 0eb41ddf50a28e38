#include "tool/preview_window.hpp"

#ifdef RAPIDO_WITH_WINDOW

#include <algorithm>
#include <cmath>
#include <thread>

#include "rapido/debug.hpp"
#include "rapido/element/image.hpp"
#include "rapido/element/panel.hpp"
#include "rapido/picture.hpp"
#include "rapido/window.hpp"
#include "tool/game_states.hpp"
#include "tool/palette.hpp"

namespace rapido::tool {
namespace {

constexpr Seconds note_time{3};

class PreviewWindow {
 public:
    PreviewWindow(PreviewSession& session, const PreviewOptions& options) : session_(session), options_(options) {}

    Exit run() {
        const float bar = PreviewFrame::bar_height;
        HudWindow window(session_.running().fonts(), &session_.running().images(),
                         {.title = "rapido preview: " + options_.hud,
                          .width = static_cast<int>(session_.sizes().front().width),
                          .height = static_cast<int>(session_.sizes().front().height + bar)});
        PreviewFrame frame(session_.running().fonts(), &session_.running().images());
        Hud behind({.design = {100, 100}, .fit = Fit::fill}, {}, &session_.running().fonts(),
                   &session_.running().images());
        put_background(behind);
        DisplayList background, list, overlay, around;
        while (window.next_frame()) {
            const float ratio = window.pixel_ratio();
            Size whole = window.viewport().size;
            whole.height = std::max(whole.height - bar * ratio, 1.0F);
            if (!(whole == session_.viewing().size)) session_.view(whole);
            for (const WindowEvent& event : window.events())
                obey(event, window);
            if (session_.follow()) note(session_.running().is_broken() ? "the file has faults" : "read again");
            session_.advance(window.elapsed());
            note_left_ -= window.elapsed();
            session_.running().hud().draw(list);
            behind.resize({.size = whole});
            behind.update(window.elapsed());
            behind.draw(background);
            frame.show(says(), window.viewport(), ratio, window.elapsed());
            frame.draw(around);
            window.clear(backdrop);
            window.draw(background);
            window.draw(list);
            if (shows_boxes_ || pinned_) {
                rapido::draw_overlay(session_.running().hud(), overlay, pinned_ ? *pinned_ : window.pointer());
                window.draw(overlay);
            }
            window.draw(around);
            if (!window.status()) break;
            // What stands still needs no more frames than eyes, also where the screen is not waited for.
            if (!session_.is_playing()) std::this_thread::sleep_for(std::chrono::milliseconds(15));
        }
        if (window.status()) return Exit::fine;
        session_.report({window.status().problem()});
        return Exit::problems;
    }

 private:
    void put_background(Hud& behind) {
        if (options_.background.empty()) {
            behind.add(Panel{.id = "backdrop",
                             .place = {.stretch = Stretch::both},
                             .color = rgb(0x55677a),
                             .end_color = rgb(0x1d252e),
                             .radius = 0.0F});
            return;
        }
        Picture picture(1920, 1200, session_.running().fonts());
        if (const Status drawn = picture.draw_image(options_.background); !drawn) return note(drawn.problem().message);
        std::vector<Color> pixels;
        pixels.reserve(static_cast<std::size_t>(picture.width()) * static_cast<std::size_t>(picture.height()));
        for (int y = 0; y < picture.height(); ++y)
            for (int x = 0; x < picture.width(); ++x)
                pixels.push_back(picture.pixel(x, y));
        // A name that no file can have.
        const std::string name =
            "\x01"
            "background";
        if (!session_.running().images().add(name, picture.width(), picture.height(), pixels)) return;
        behind.add(Image{.id = "picture", .image = name, .place = {.stretch = Stretch::both}, .fit = ImageFit::fill});
    }

    void note(const std::string& text) {
        note_ = text;
        note_left_ = note_time;
    }

    /// With what is seen of the keys and of the values.
    PreviewFrame::Says says() {
        PreviewFrame::Says says = session_.says();
        says.shows_keys = shows_keys_;
        if (note_left_ > Seconds{0}) says.note = note_;
        if (!shows_values_) return says;
        const std::vector<std::string> names = session_.play().names();
        for (std::size_t i = 0; i < names.size(); ++i) {
            const DeclaredSource* const declared = session_.play().declared(names[i]);
            const bool has_range = declared != nullptr && declared->range.low < declared->range.high;
            const Value value = session_.play().value(names[i]);
            says.values.push_back(
                {.name = names[i],
                 .value = value.is_real() ? said(Value(std::round(value.number() * 100) / 100)) : said(value),
                 .range = !has_range ? std::string()
                                     : said(Value(declared->range.low)) + " to " + said(Value(declared->range.high)) +
                                           (declared->unit.empty() ? "" : " " + declared->unit),
                 .is_chosen = i == chosen_,
                 .is_by_hand = session_.play().is_by_hand(names[i])});
        }
        if (!typed_.empty()) says.typed = names[chosen_] + " = " + typed_;
        return says;
    }

    void obey(const WindowEvent& event, HudWindow& window) {
        if (event.kind == WindowEvent::Kind::press) {
            pinned_ = pinned_ ? std::nullopt : std::optional(event.at);
            return;
        }
        if (shows_values_ && set_value(event)) return;
        if (event.kind == WindowEvent::Kind::text) return obey_text(event.text);
        if (event.kind != WindowEvent::Kind::key) return;
        const Nanoseconds way = std::chrono::seconds(event.shift ? 10 : 1);
        if (event.key == "left") session_.go_by(-way);
        if (event.key == "right") session_.go_by(way);
        if (event.key == "home") session_.begin();
        if (event.key == "up") session_.change_speed(1);
        if (event.key == "down") session_.change_speed(-1);
        if (event.key == "escape") {
            if (shows_keys_ || pinned_) {
                shows_keys_ = false;
                pinned_.reset();
            } else {
                window.close();
            }
        }
        if (event.key == "s" && !event.repeats) {
            size_ = (size_ + 1) % session_.sizes().size();
            window.resize(static_cast<int>(session_.sizes()[size_].width),
                          static_cast<int>(session_.sizes()[size_].height + PreviewFrame::bar_height));
        }
        if (event.key == "q") window.close();
    }

    /// Keys that stand elsewhere on other keyboards are told by what they type.
    void obey_text(const std::string& text) {
        if (text == " ") session_.toggle_playing();
        if (text == ".") session_.step_frame();
        if (text == "+" || text == "=") session_.change_scale(1);
        if (text == "-") session_.change_scale(-1);
        if (text == "l") session_.next_language();
        if (text == "t") session_.next_theme();
        if (text == "m") session_.toggle_reduced_motion();
        if (text == "b") shows_boxes_ = !shows_boxes_;
        if (text == "h") shows_keys_ = !shows_keys_;
        if (text == "v" && !session_.play().names().empty()) shows_values_ = true;
        if (text == "p") {
            const std::string path = "preview.png";
            note(session_.write_picture(path) == Exit::fine ? "wrote " + path : path + " cannot be written");
        }
    }

    /// While values are set by hand, keys belong to that. False for one that does not.
    bool set_value(const WindowEvent& event) {
        const std::vector<std::string> names = session_.play().names();
        chosen_ = std::min(chosen_, names.size() - 1);
        const std::string& name = names[chosen_];
        const DeclaredSource guess{.name = name, .type = session_.guessed(name, typed_)};
        const DeclaredSource& source =
            session_.play().declared(name) != nullptr ? *session_.play().declared(name) : guess;
        if (event.kind == WindowEvent::Kind::text) {
            if (event.text == "v" && typed_.empty() && !is_text(source.type))
                shows_values_ = false;
            else
                typed_ += event.text;
            return true;
        }
        if (event.kind == WindowEvent::Kind::wheel) {
            session_.play().set_by_hand(name, stepped(source, session_.play().value(name), event.steps > 0 ? 1 : -1));
            return true;
        }
        if (event.kind != WindowEvent::Kind::key) return false;
        if (event.key == "up") chosen_ = (chosen_ + names.size() - 1) % names.size();
        if (event.key == "down") chosen_ = (chosen_ + 1) % names.size();
        if (event.key == "up" || event.key == "down") typed_.clear();
        if (event.key == "left") session_.play().set_by_hand(name, stepped(source, session_.play().value(name), -1));
        if (event.key == "right") session_.play().set_by_hand(name, stepped(source, session_.play().value(name), 1));
        if (event.key == "backspace" && !typed_.empty()) typed_.pop_back();
        if (event.key == "delete") session_.play().give_back(name);
        if (event.key == "return" && !typed_.empty()) {
            if (const auto value = value_of(typed_, source.type))
                session_.play().set_by_hand(name, *value);
            else
                note("'" + typed_ + "' is no value of " + name);
            typed_.clear();
        }
        if (event.key == "escape") {
            if (typed_.empty()) shows_values_ = false;
            typed_.clear();
        }
        return true;
    }

    PreviewSession& session_;
    const PreviewOptions& options_;
    std::size_t size_ = 0, chosen_ = 0;
    bool shows_boxes_ = false, shows_keys_ = false, shows_values_ = false;
    std::optional<Point> pinned_;
    std::string typed_, note_;
    Seconds note_left_{0};
};

}  // namespace

Exit preview_in_window(PreviewSession& session, const PreviewOptions& options) {
    return PreviewWindow(session, options).run();
}

}  // namespace rapido::tool

#endif
