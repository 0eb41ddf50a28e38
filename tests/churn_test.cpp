// Everything at once, at random, against a model that is too simple to be wrong.
#include <map>
#include <memory>

#include "draw_words.hpp"
#include "rapido/text.hpp"
#include "support.hpp"

namespace rapido::test {
namespace churn_test {

/// What a HUD should show of an element, worked out anew in each frame.
struct Model {
    ElementRef ref;
    std::string kind;  ///< "text", "moving", "bar", "panel", "notice", "graph", "pips"
    int variable = 0;
    int flag = -1;              ///< what shows it; none below zero
    std::string pattern;        ///< of a text, for snprintf
    std::string own_pattern;    ///< the same without what a call has set
    std::string inside, group;  ///< a panel or none; a group or none
    int low = 0, high = 0;      ///< what a moving one was aimed at since it was at rest
};

class Churn {
 public:
#ifdef RAPIDO_SANITIZED
    static constexpr std::uint64_t looks_every = 10;
#else
    static constexpr std::uint64_t looks_every = 3;
#endif
    explicit Churn(std::uint64_t seed) : random_(seed), looks_between_(seed % looks_every == 0) {
        HudDefinition& definition = definition_;
        definition.themes = {{.id = "day", .color = {{"main", rgb(0xffeedd)}}, .font = {{"face", "sans-serif"}}},
                             {.id = "night", .color = {{"main", rgb(0x112233)}}, .font = {{"face", "other"}}}};
        definition.styles = {{.id = "loud", .color = theme("main"), .size = 30}};
        definition.groups = {{.id = "g", .visible = watch(group_)}};
        definition.timers = {{.id = "t", .duration = 700ms, .loop = true, .marks = {{200ms, 100ms}}}};
        hud_ = std::make_unique<Hud>(definition, Sources{}, &measurer_);
        hud_->resize({.size = {800, 600}});
    }

    void frame() {
        for (int& value : values_)
            if (random_.below(4) == 0) value += random_.below(41) - 20;
        for (bool& flag : flags_)
            if (random_.below(20) == 0) flag = !flag;
        if (random_.below(20) == 0) group_ = !group_;
        const std::vector<std::pair<ElementRef, Said>> finished =
            looks_between_ ? all_said() : std::vector<std::pair<ElementRef, Said>>();
        for (int calls = random_.below(4); calls > 0; --calls) {
            call();
            if (looks_between_) check_nothing_changes_before_the_next_frame(finished);
        }
        const bool hitch = random_.below(40) == 0;
        update(*hud_, hitch ? 8s : Seconds{random_.unit() * 0.04});
        hud_->draw(list_);
        check(hitch);
        if (looks_between_) finished_ = list_;
    }

    std::size_t checked = 0;

 private:
    /// What a frame says of one element.
    struct Said {
        std::string text;
        std::optional<double> fill, trail;
        Color color;
        double shown, target;
        float opacity, scale, rotation;
        Rect box, drawn_box;
        bool visible;
        bool operator==(const Said&) const = default;
    };
    Said said(ElementRef ref) const {
        const Shown now = (*hud_)[ref];
        EXPECT_EQ(now.text, hud_->text_of(ref));
        EXPECT_EQ(now.fill, hud_->fill_of(ref));
        const auto number = [](const Value& value) { return value.has_value() ? value.number() : -1e9; };
        return {std::string(now.text), now.fill,  now.trail,    now.color, number(now.shown), number(now.target),
                now.opacity,           now.scale, now.rotation, now.box,   now.drawn_box,     now.visible};
    }
    std::vector<std::pair<ElementRef, Said>> all_said() const {
        std::vector<std::pair<ElementRef, Said>> all;
        for (const auto& [path, model] : models_)
            all.emplace_back(model.ref, said(model.ref));
        return all;
    }
    /// A HUD that was not called shows the last frame: so must one that was, in a list that knows it and in one that does not.
    void check_nothing_changes_before_the_next_frame(const std::vector<std::pair<ElementRef, Said>>& finished) {
        DisplayList fresh;
        hud_->draw(fresh);
        ASSERT_EQ(first_difference(fresh, finished_), "") << last_call_;
        hud_->draw(list_);
        ASSERT_EQ(first_difference(list_, finished_), "") << last_call_;
        const std::optional<Viewport>&seen = fresh.viewport(), &then = finished_.viewport();
        ASSERT_TRUE(!seen || !then || seen->size.width == then->size.width) << last_call_;
        for (const auto& [ref, before] : finished) {
            ASSERT_TRUE(!hud_->alive(ref) || said(ref) == before) << (*hud_)[ref].id << " after call " << last_call_;
        }
    }

    bool shown(const Model& model) const {
        if (model.flag >= 0 && !flags_[static_cast<std::size_t>(model.flag)]) return false;
        if (!model.group.empty() && !group_) return false;
        if (model.inside.empty()) return true;
        const auto panel = models_.find(model.inside);
        return panel == models_.end() || shown(panel->second);
    }

    void add() {
        Model model;
        const std::string id = "e" + std::to_string(++number_);
        model.variable = random_.below(static_cast<int>(values_.size()));
        model.flag = random_.below(3) == 0 ? random_.below(static_cast<int>(flags_.size())) : -1;
        model.group = random_.below(4) == 0 ? "g" : "";
        if (!models_.empty() && random_.below(2) == 0)
            for (const auto& [path, other] : models_)
                if (other.kind == "panel" && random_.below(2) == 0) model.inside = path;
        const int& value = values_[static_cast<std::size_t>(model.variable)];
        const Source visible = model.flag < 0 ? Source() : watch(flags_[static_cast<std::size_t>(model.flag)]);
        const auto common = [&](auto element) {
            element.id = id;
            element.inside = model.inside;
            element.group = model.group;
            element.visible = visible;
            if constexpr (requires { element.value; }) element.value = watch(value);
            return element;
        };
        const auto made = [&](const char* kind, const Element& element) {
            model.kind = kind;
            model.own_pattern = model.pattern;
            model.low = model.high = value;
            model.ref = hud_->add(element);
            ASSERT_TRUE(model.ref) << to_string(hud_->problems().back());
            models_.emplace(model.inside.empty() ? id : model.inside + "." + id, model);
        };
        switch (random_.below(11)) {
            case 10:
                return made("pop_ups", common(PopUps{.show_for = 400ms}));
            case 0:
                return made("panel", common(Panel{.layout = static_cast<Layout>(random_.below(4))}));
            case 1:
                return made("bar", common(Bar{.max = 50}));
            case 2:
                return made("moving", common(Text{.motion = random_.below(2) == 0 ? roll(300ms) : spring(300ms)}));
            case 3:
                return made("graph", common(Graph{.max = 100, .span = 1s, .resolution = 20}));
            case 4:
                return made("pips", common(Pips{.max = 12, .gain = "swell", .loss = "fade"}));
            case 5:
                return made("notice",
                            common(Notice{.messages = {{.id = "m", .text = "mark", .on = TriggerOn::mark, .timer = "t"},
                                                       {.text = "true", .when = visible, .lasting = true}}}));
            case 6:
                model.pattern = "%d / 99";
                return made("text", common(Text{.max = 99, .format = "{} / {max}"}));
            case 7:
                model.pattern = "%06d!";
                return made("text", common(Text{.format = "{:06}!", .triggers = {{.effect = "swell"}}}));
            case 8:
                model.pattern = "<%d>";
                return made("text", common(Text{.bands = {{.id = "b", .above = -1e9, .format = "<{}>"},
                                                          {.below = 0, .effect = "pulse"}}}));
            default:
                model.pattern = "%d acres";
                return made("text", common(Text{.format = "{} acres", .color = theme("main")}));
        }
    }

    void remove(std::map<std::string, Model>::iterator gone) {
        const std::string path = gone->first;
        hud_->remove(gone->second.ref);
        dead_.push_back(gone->second.ref);
        models_.erase(gone);
        for (auto inside = models_.begin(); inside != models_.end();) {
            if (inside->second.inside != path) {
                ++inside;
                continue;
            }
            remove(inside);
            inside = models_.begin();
        }
    }

    void call() {
        const auto any = models_.empty() ? models_.end()
                                         : std::next(models_.begin(), random_.below(static_cast<int>(models_.size())));
        if (any == models_.end()) return add();
        const ElementRef ref = any->second.ref;
        switch (last_call_ = random_.below(24)) {
            case 0:
            case 1:
            case 2:
                return add();
            case 3:
                return remove(any);
            case 4:
                hud_->snap();
                for (auto& [path, model] : models_)
                    model.low = model.high = values_[static_cast<std::size_t>(model.variable)];
                return;
            case 5:
                hud_->play(ref, random_.below(2) == 0 ? "shake" : "blink");
                return;
            case 6:
                return hud_->stop(ref, "pulse");
            case 7:
                if (any->second.kind == "notice")
                    hud_->notify(ref, {.text = "hello {#loud}{}{/loud}", .value = constant(number_)});
                return;
            case 8:
                return hud_->set_language(
                    {.tag = random_.below(2) == 0 ? "ar" : "en", .right_to_left = random_.below(2) == 0});
            case 9:
                return hud_->resize({.size = {static_cast<float>(200 + random_.below(900)), 500}});
            case 10:
                return hud_->set_reduced_motion(random_.below(2) == 0);
            case 11: {
                // A HUD may move while everything runs.
                Hud moved = std::move(*hud_);
                *hud_ = std::move(moved);
                return;
            }
            case 12:
            case 13:
                return change(any->second);
            case 14:
                hud_->set_opacity(ref, static_cast<float>(random_.unit()));
                return hud_->set_color(ref, rgb(static_cast<std::uint32_t>(random_.below(1 << 24))));
            case 15:
                ASSERT_TRUE(hud_->set_place(ref, {.anchor = static_cast<Anchor>(random_.below(9))}));
                return;
            case 16:
                any->second.pattern = any->second.own_pattern;
                return hud_->reset(ref);
            case 17:
                ASSERT_TRUE(hud_->restore_timers(hud_->save_timers()));
                return;
            case 18:
                ASSERT_TRUE(hud_->set_theme(random_.below(2) == 0 ? "day" : "night"));
                return;
            case 19:
                // The format of a band counts on top of it.
                if (any->second.kind != "text" || any->second.own_pattern == "<%d>") return;
                any->second.pattern = "%d\nloud";
                ASSERT_TRUE(hud_->set_format(ref, "{}\n{#loud}loud{/loud}"));
                return;
            case 20:
                return hud_->set_text_scale(static_cast<float>(1 + random_.below(2)));
            case 21: {
                definition_.themes.back().color["main"] = rgb(static_cast<std::uint32_t>(random_.below(1 << 24)));
                ASSERT_TRUE(hud_->reload(definition_).empty());
                return;
            }
            case 22:
                if (any->second.kind == "pop_ups") hud_->pop_up(ref, {.on_screen = Point{100, 100}, .value = number_});
                return;
            default:
                return hud_->set_ui_scale(static_cast<float>(1 + random_.below(2)));
        }
    }

    /// Another source, other colors, effects, motion and bands: what the model knows of stays.
    void change(Model& model) {
        Element element = hud_->description(model.ref);
        const int before = std::exchange(model.variable, random_.below(static_cast<int>(values_.size())));
        const int& value = values_[static_cast<std::size_t>(model.variable)];
        // The value of another source is taken as given; that of the same one goes on.
        if (model.variable != before) model.low = model.high = value;
        edit(element, [&](auto& any) {
            if constexpr (requires { any.value; }) any.value = watch(value);
            if constexpr (requires { any.color; }) any.color = rgb(0x123456);
            if constexpr (requires { any.motion; })
                if (random_.below(2) == 0)
                    any.bands.push_back({.id = "new",
                                         .above = 3,
                                         .edge_unit = EdgeUnit::value,
                                         .color = rgb(0xff0000),
                                         .effect = "pulse"});
            if constexpr (requires { any.bands; })
                if (any.bands.size() > 4) any.bands.resize(1);
            any.triggers = {{.on = TriggerOn::mark, .effect = "swell", .timer = "t"}};
            any.layer = random_.below(5);
        });
        ASSERT_TRUE(hud_->change(model.ref, element)) << to_string(hud_->problems().back());
    }

    void check(bool after_hitch) {
        for (auto& [path, model] : models_) {
            const Shown now = (*hud_)[model.ref];
            const int value = values_[static_cast<std::size_t>(model.variable)];
            ASSERT_EQ(now.id, path);
            if (model.kind == "notice") {
                ASSERT_LE(now.visible, shown(model)) << path;
            } else {
                ASSERT_EQ(now.visible, shown(model)) << path;
            }
            if (model.kind == "text") {
                std::array<char, 64> expected{};
                std::snprintf(expected.data(), expected.size(), model.pattern.c_str(), value);
                ASSERT_EQ(now.text, expected.data()) << path;
            } else if (model.kind == "bar") {
                ASSERT_EQ(now.fill, std::clamp(value / 50.0, 0.0, 1.0)) << path;
            } else if (model.kind == "moving") {
                model.low = std::min(model.low, value);
                model.high = std::max(model.high, value);
                const int shows = std::stoi(std::string(now.text));
                // A critically damped spring that is thrown back passes its target by less than a jump.
                const int beyond = now.shown.number() == value ? 0 : model.high - model.low;
                ASSERT_GE(shows, model.low - beyond) << path;
                ASSERT_LE(shows, model.high + beyond) << path;
                if (shows == value && after_hitch) model.low = model.high = value;
            }
            ++checked;
        }
        for (const ElementRef ref : dead_)
            ASSERT_TRUE((*hud_)[ref].id.empty());
        ASSERT_EQ(hud_->elements().size(), models_.size());
        for (std::size_t i = 1; i < hud_->events().size(); ++i)
            ASSERT_LE(hud_->events()[i - 1].time, hud_->events()[i].time);
        if (models_.size() > 60) remove(models_.begin());
    }

    Random random_;
    bool looks_between_;  ///< after each call; it takes its time
    std::array<int, 6> values_{};
    std::array<bool, 4> flags_{true, true, true, true};
    bool group_ = true;
    BoxMeasurer measurer_;
    HudDefinition definition_;
    std::unique_ptr<Hud> hud_;
    DisplayList list_, finished_;
    int last_call_ = -1;
    std::map<std::string, Model> models_;
    std::vector<ElementRef> dead_;
    int number_ = 0;
};

TEST(Churn, shows_what_a_simple_model_says_whatever_happens) {
    std::size_t checked = 0;
    for (std::uint64_t seed = 1; seed <= 60 && !testing::Test::HasFatalFailure(); ++seed) {
        Churn churn(seed);
        for (int i = 0; i < 150 && !testing::Test::HasFatalFailure(); ++i)
            churn.frame();
        checked += churn.checked;
        if (testing::Test::HasFatalFailure()) ADD_FAILURE() << "seed " << seed;
    }
    EXPECT_GT(checked, 90'000U);
}

}  // namespace churn_test
}  // namespace rapido::test
