#include "tool/findings.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <ostream>
#include <tuple>

#include "base/fields.hpp"

namespace rapido::tool {
namespace {

std::string size_text(Size size) {
    return std::to_string(static_cast<int>(size.width)) + "x" + std::to_string(static_cast<int>(size.height));
}

/// ` (800x600, language de, scale 1.5, at 12.500 s)`
std::string said(const Circumstances& seen, std::size_t others) {
    std::string text = size_text(seen.window);
    if (!seen.language.empty()) text += ", language " + seen.language;
    if (!seen.theme.empty()) text += ", theme " + seen.theme;
    if (seen.scale != 1) text += ", scale " + plain_number(seen.scale);
    if (!seen.when.empty()) text += ", " + seen.when;
    if (others > 0) text += ", and so in " + std::to_string(others) + (others == 1 ? " other case" : " other cases");
    return " (" + text + ")";
}

nlohmann::ordered_json json_of(const Finding& finding, std::size_t others) {
    const Problem& problem = finding.problem;
    nlohmann::ordered_json line{{"code", to_string(problem.code)}, {"severity", to_string(problem.severity)}};
    if (!problem.location.file.empty()) line["file"] = problem.location.file;
    if (problem.location.line > 0) line["line"] = problem.location.line;
    if (problem.location.column > 0) line["column"] = problem.location.column;
    if (!finding.element.empty()) line["element"] = finding.element;
    line["message"] = problem.message;
    if (!problem.hint.empty()) line["hint"] = problem.hint;
    if (finding.seen) {
        line["size"] = {finding.seen->window.width, finding.seen->window.height};
        line["scale"] = finding.seen->scale;
        if (!finding.seen->language.empty()) line["language"] = finding.seen->language;
        if (!finding.seen->theme.empty()) line["theme"] = finding.seen->theme;
        if (!finding.seen->when.empty()) line["when"] = finding.seen->when;
        line["other_cases"] = others;
    }
    if (finding.measured) line["measured"] = *finding.measured;
    if (finding.wanted) line["wanted"] = *finding.wanted;
    return line;
}

}  // namespace

void Findings::add(const std::string& same, Finding finding, double worse) {
    const auto [known, is_new] = kept_.try_emplace(same, Kept{finding, worse, 0, acceptance(finding)});
    if (is_new) return;
    Kept& kept = known->second;
    ++kept.others;
    if (worse <= kept.worse) return;
    kept.finding = std::move(finding);
    kept.worse = worse;
}

const Accepted* Findings::acceptance(const Finding& finding) const {
    const auto known = std::find_if(accepted_.begin(), accepted_.end(), [&](const Accepted& accepted) {
        return accepted.element == finding.element && accepted.code == to_string(finding.problem.code);
    });
    return known != accepted_.end() ? &*known : nullptr;
}

void Findings::find_unused_acceptances(const std::vector<Locations>& origins) {
    for (std::size_t i = 0; i < accepted_.size(); ++i) {
        const Accepted& accepted = accepted_[i];
        const bool is_used = std::any_of(kept_.begin(), kept_.end(),
                                         [&](const auto& kept) { return kept.second.accepted == &accepted; });
        if (is_used) continue;
        const std::string at = accepted.element.empty() ? "" : " at '" + accepted.element + "'";
        add("accept " + accepted.element + " " + accepted.code,
            {{i < origins.size() ? origins[i].location : Location{},
              "'accept' of [" + accepted.code + "]" + at + " accepts nothing",
              "take it out, or look at the element and the code", ProblemCode::unused, Severity::warning}});
    }
}

std::size_t Findings::count() const {
    return static_cast<std::size_t>(
        std::count_if(kept_.begin(), kept_.end(), [](const auto& kept) { return kept.second.accepted == nullptr; }));
}

void Findings::print_accepted(std::ostream& out) const {
    for (const Accepted& accepted : accepted_) {
        const auto times = std::count_if(kept_.begin(), kept_.end(),
                                         [&](const auto& kept) { return kept.second.accepted == &accepted; });
        if (times == 0) continue;
        out << "accepted: [" << accepted.code << "]";
        if (!accepted.element.empty()) out << " at '" << accepted.element << "'";
        if (times > 1) out << ", " << times << " times";
        out << ": " << accepted.why << '\n';
    }
}

void Findings::print(bool json, std::ostream& out) const {
    std::vector<const Kept*> order;
    for (const auto& [same, kept] : kept_)
        order.push_back(&kept);
    std::stable_sort(order.begin(), order.end(), [](const Kept* a, const Kept* b) {
        const Location &first = a->finding.problem.location, &second = b->finding.problem.location;
        return std::tie(first.file, first.line, first.column) < std::tie(second.file, second.line, second.column);
    });
    for (const Kept* const kept : order) {
        if (json) {
            nlohmann::ordered_json line = json_of(kept->finding, kept->others);
            if (kept->accepted != nullptr) line["accepted"] = kept->accepted->why;
            out << line.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace) << '\n';
            continue;
        }
        if (kept->accepted != nullptr) continue;
        Problem problem = kept->finding.problem;
        if (kept->finding.seen) problem.message += said(*kept->finding.seen, kept->others);
        out << to_string(problem) << " [" << to_string(problem.code) << "]\n";
    }
}

}  // namespace rapido::tool
