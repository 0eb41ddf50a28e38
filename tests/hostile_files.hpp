// HUD files of a legal size that ask for too much.
#pragma once

#include <functional>
#include <string>
#include <vector>

namespace rapido::test {

struct HostileFile {
    std::string name;
    std::string text;
};

/// `count` times what `write` gives for each number.
inline std::string repeated(int count, const std::function<std::string(int)>& write) {
    std::string text;
    for (int i = 0; i < count; ++i)
        text += write(i);
    return text;
}

/// One element of a kind, with an id of its own and further lines.
inline std::string element(const std::string& kind, int number, const std::string& lines) {
    return "[[element]]\nkind=\"" + kind + "\"\nid=\"e" + std::to_string(number) + "\"\n" + lines + "\n";
}

inline std::string looping(const std::string& id) {
    return "[[timer]]\nid=\"" + id + "\"\nduration=10\nloop=true\n";
}

inline std::string color_number(int i) {
    std::string digits = std::to_string(100'000 + i);
    return digits.substr(digits.size() - 6);
}

inline std::string list_of(int count, const std::string& item) {
    return "[" + repeated(count, [&](int) { return item + ","; }) + "]";
}

/// Each is below 4 MB. Their images are `large.png`, 4096 pixels each way, in the folder of the file.
inline std::vector<HostileFile> hostile_files() {
    using std::to_string;
    std::vector<HostileFile> files;
    const auto add = [&](const std::string& name, std::string text) {
        files.push_back({name, std::move(text)});
    };
    add("families", "font = \"" + repeated(200'000, [](int i) { return "Family " + to_string(i) + ", "; }) +
                        "\"\n" + element("text", 0, "format = \"x\""));
    add("one missing family of each text", repeated(4'000, [](int i) {
            return element("text", i, "format=\"x\"\nfont=\"Family " + to_string(i) + "\"");
        }));
    add("wide ranges", repeated(3'000, [](int i) {
            return element("text", i,
                           "value=1.5\nmax=2.5\nformat=\"{:f}{max:f}{left:f}{:e}{:f}{:f}{:f}{:f}" +
                               to_string(i) + "\"\nrange=[-1e18, 1e18]");
        }));
    add("a long style", "[style.long]\nmessages = [" + repeated(2'000, [](int i) {
                            return "{ text = \"" + to_string(i) + "\" },";
                        }) + "]\n" + repeated(4'000, [](int i) { return element("notice", i, "style = \"long\""); }));
    add("messages", "[[element]]\nkind=\"notice\"\nid=\"n\"\nmessages=[" + repeated(2'000, [](int i) {
                        return "{text=\"message " + to_string(i) + "\",when=true,lasting=true},";
                    }) + "]\n");
    add("unknown panels", repeated(2'000, [](int i) {
            return element("panel", i, "") +
                   element("text", 100'000 + i,
                           "format=\"x\"\ninside=\"some_panel_that_is_not_there_" + to_string(i) + "\"");
        }));
    add("unknown keys", repeated(299'000, [](int i) { return "key_" + to_string(i) + "=1\n"; }));
    add("unknown sources", repeated(2'000, [](int i) {
            return element("text", i,
                           "value=\"some.source.that.nobody.offers." + to_string(i) + "\"\nmax=\"e" +
                               to_string(i) + ".pending\"");
        }));
    add("long texts", repeated(900, [](int i) {
            return element("text", i,
                           "overflow=\"ellipsis\"\nplace={max_size=[300,0]}\nformat=\"" +
                               std::string(4'000, static_cast<char>('a' + i % 26)) + "\"");
        }));
    add("long texts in wide boxes", repeated(900, [](int i) {
            return element(
                "text", i,
                "overflow=\"ellipsis\"\nplace={max_size=[9999,0]}\nsize=9\nformat=\"" +
                    repeated(1'000,
                             [i](int k) {
                                 return std::string{static_cast<char>('a' + (i + k) % 26), 'i', ' ', 'W'};
                             }) +
                    "\"");
        }));
    add("ticks",
        repeated(298, [](int i) { return element("bar", i, "value=1\nticks={at=" + list_of(1'000, "0.5") + "}"); }));
    add("slices", repeated(4'000, [](int i) {
            return element("image", i,
                           "image=\"large.png\"\nslice=[1,1,1,1]\nplace={size=[9999,9999]}\nsmooth=false");
        }));
    add("one image under many names", repeated(4'000, [](int i) {
            return element("image", i,
                           "image=\"" + repeated(1 + i % 100, [](int) { return "./"; }) +
                               std::string(static_cast<std::size_t>(i / 100), '/') + "large.png\"");
        }));
    add("masks", repeated(4'000, [](int i) {
            return element(
                "level", i,
                "value=0.5\nfill_by=\"area\"\nmask=\"large.png\"\nimage=\"large.png\"\nframes={count=" +
                    to_string(1 + i % 1000) + "}");
        }));
    add("frames over the screen", repeated(4'000, [](int i) {
            return element(
                "image", i,
                "image=\"large.png\"\nmask=\"large.png\"\ncolor=\"#ff000080\"\nplace={size=[1280,800]}");
        }));
    add("dense timers", repeated(1'000, [](int i) {
            return "[[timer]]\nid=\"t" + to_string(i) +
                   "\"\nduration=0.001\nloop=true\nmarks=[{at=0.001,every=0.00001}]\n";
        }));
    add("marks", repeated(297, [](int i) {
            return "[[timer]]\nid=\"t" + to_string(i) + "\"\nduration=1\nloop=true\nmarks=[" +
                   repeated(1'000, [](int k) { return to_string(1e-4 * (k + 1)) + ","; }) + "]\n";
        }));
    add("triggers", "[[timer]]\nid=\"t\"\nduration=0.01\nloop=true\nmarks=[{at=0.01,every=0.0001}]\n" +
                        repeated(2'000, [](int i) {
                            return element("text", i,
                                           "format=\"x\"\neffects=" +
                                               list_of(30, "{on=\"mark\",timer=\"t\",effect=\"shake\"}"));
                        }));
    add("bands on one timer",
        "[[timer]]\nid=\"t\"\nduration=10\n" + repeated(4'000, [](int i) {
            return element(
                "text", i,
                "value=\"t.left\"\nformat=\"{:.3%S}\"\nbands=[{id=\"a\",below=" + to_string(i / 1000.0) +
                    "},{above=" + to_string(i / 900.0) + ",color=\"#ff0000\"}]");
        }));
    add("scaled timers", "[[timer]]\nid=\"t\"\nduration=10\n" + repeated(4'000, [](int i) {
                             return element(
                                 "bar", i,
                                 "value={source=\"t.left\",scale=" + to_string(i + 1) +
                                     "}\nmotion={kind=\"spring\",duration=" + to_string(1 + i / 1e4) +
                                     "}\neffects=[{on=\"loss\",effect=\"shake\"}]");
                         }));
    add("names of all kinds", repeated(1'000, [](int i) {
            const std::string n = to_string(i);
            return "[[timer]]\nid=\"timer" + n + "\"\n[[frame_meter]]\nid=\"frame_meter" + n +
                   "\"\n[[group]]\nid=\"group" + n + "\"\n[[effect]]\nid=\"effect" + n +
                   "\"\nkeyframes=[{at=0.5,scale=2}]\n" +
                   element("text", i,
                           "value=\"timer" + n + ".left\"\ngroup=\"group" + n +
                               "\"\neffects=[{on=\"end\",timer=\"timer" + n + "\",effect=\"effect" + n +
                               "\"},{on=\"end\",timer=\"tymer" + n + "\",effect=\"efect" + n + "\"}]");
        }));
    add("keyframes",
        "[[effect]]\nid=\"x\"\nrepeat=0\nkeyframes=" + list_of(64, "{at=0.5,scale=2,opacity=0.5}") + "\n" +
            looping("t") + repeated(3'900, [](int i) {
                return element("text", i,
                               "value=\"t.left\"\nformat=\"x\"\ncolor=\"#" + color_number(i) +
                                   "\"\neffects=[{on=\"loss\",effect=\"x\"}]");
            }));
    add("deep panels", [] {
        std::string text, path;
        for (int i = 0; i < 1'200; ++i) {
            text += "[[element]]\nkind=\"panel\"\nid=\"p\"\ninside=\"" + path + "\"\n";
            path += path.empty() ? "p" : ".p";
        }
        return text;
    }());
    add("one long row",
        "[[element]]\nkind=\"panel\"\nid=\"p\"\nlayout=\"row\"\nplace={size=[1000,100]}\n" +
            repeated(3'900, [](int i) {
                return element("bar", i,
                               "value=1\ninside=\"p\"\nplace={size=[" + to_string(1 + i % 100) + ",5],grow=" +
                                   to_string(1 + i % 7) + ",max_size=[" + to_string(1 + i % 50) + ",9]}");
            }));
    add("full screens", repeated(4'000, [](int i) {
            return element(
                "bar", i, "value=0.5\ncolor=\"#ff000080\"\nend_color=\"#00ff0080\"\nplace={size=[1280,800]}");
        }));
    add("pips", repeated(4'000, [](int i) {
            return element("pips", i, "value=99\nmax=200\nborder=1\nshape=\"heart\"");
        }));
    add("segments", repeated(4'000, [](int i) {
            return element("bar", i, "value=0.5\nsegments=1000\nplace={size=[9000,20]}\nborder=2");
        }));
    add("rings", repeated(4'000, [](int i) {
            return element("ring", i, "value=0.5\nsegments=360\nplace={size=[9000,9000]}\nthickness=20");
        }));
    add("dials", repeated(4'000, [](int i) {
            return element("dial", i,
                           "value=0.5\nmarks={every=0.005,format=\"{:.3f}\"}\nplace={size=[500,500]}");
        }));
    add("waves", repeated(4'000, [](int i) {
            return element("level", i, "value=0.5\nwave={height=30,length=1}\nplace={size=[9999,900]}");
        }));
    add("graphs", "[[timer]]\nid=\"t\"\nduration=10\nloop=true\n" + repeated(4'000, [](int i) {
                      return element("graph", i,
                                     "value=\"t.left\"\nsamples=1000\nspan=0.1\nplace={size=[1000,100]}");
                  }));
    add("huge letters", repeated(4'000, [](int i) {
            return element("text", i, "size=9999\nformat=\"EMBER RIDGE @@@@@@@@@@@@@@@@@@@@@@@@\"");
        }));
    add("dots", "[[effect]]\nid=\"x\"\nrepeat=0\nkeyframes=[{at=0.5,scale=2}]\ndots={count=200,size=900}\n" +
                    looping("t") + repeated(3'900, [](int i) {
                        return element("text", i,
                                       "value=\"t.left\"\nformat=\"x\"\ncolor=\"#" + color_number(i) +
                                           "\"\neffects=[{on=\"loss\",effect=\"x\"}]");
                    }));
    add("flashes", "[[effect]]\nid=\"x\"\nrepeat=0\nduration=0.001\nkeyframes=" +
                       list_of(32, "{at=0.5,color=\"#ffffff\"},{at=0.5,color=\"#000000\"}") + "\n" +
                       looping("t") + repeated(3'900, [](int i) {
                           return element("text", i,
                                          "value=\"t.left\"\nformat=\"x\"\ncolor=\"#" + color_number(i) +
                                              "\"\neffects=[{on=\"loss\",effect=\"x\"}]");
                       }));
    add("windows", "[[timer]]\nid=\"t\"\nduration=100\n" + repeated(3'900, [](int i) {
                       return element("text", i,
                                      "value=\"t.left\"\nformat=\"{:.3f}\"\npace={pick=\"average\","
                                      "interval=0.0001,settle=0.0001}\ntext_interval=0.0001");
                   }));
    add("easings", repeated(2'000, [](int i) {
            return element("bar", i,
                           "value=0.5\nmotion={kind=\"tween\",easing=\"linear(" +
                               repeated(250, [](int) { return "0.5, "; }) + "1)\"}");
        }));
    return files;
}

}  // namespace rapido::test
