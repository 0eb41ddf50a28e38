#include "rapido/mesh.hpp"

#include <algorithm>
#include <utility>

#include "render/mesh/group_maker.hpp"

namespace rapido {

struct Mesh::State {
    explicit State(std::shared_ptr<AtlasPages> of) : pages(std::move(of)), atlas(*pages) {}
    ~State() { release_all(); }
    State(const State&) = delete;
    State& operator=(const State&) = delete;

    std::shared_ptr<AtlasPages> pages;  ///< what of an atlas is left when it goes before its meshes
    AtlasPages& atlas;
    std::uint64_t structure = 0;
    std::vector<GroupMesh> groups;
    std::vector<GroupMesh::Run> old_runs;
    std::vector<AtlasIndex> old_used;
    std::vector<MeshVertex> vertices;
    std::vector<std::uint32_t> indices;
    std::vector<MeshBatch> batches;
    Range changed;
    Status status;

    void release(std::vector<AtlasIndex>& used) {
        for (const AtlasIndex index : used)
            atlas.release(index);
        used.clear();
    }
    void release_all() {
        for (GroupMesh& group : groups)
            release(group.used);
    }

    /// Nothing can be drawn from an atlas that has gone.
    void draw_nothing() {
        vertices.clear();
        batches.clear();
        changed = {};
        status = Problem{
            {}, "the atlas of this mesh has gone", "keep the atlas longer than its meshes", ProblemCode::bad_call};
    }

    void draw(const DisplayList& list) {
        if (atlas.is_gone) return draw_nothing();
        ++atlas.clock;
        const std::span<const DisplayGroup> given = list.groups();
        bool is_other = false;
        if (list.structure() != structure || given.size() != groups.size()) {
            release_all();
            structure = list.structure();
            groups.resize(given.size());
            for (GroupMesh& group : groups)
                group.is_made = false;
            is_other = true;
        }
        std::size_t first_changed = SIZE_MAX, behind_changed = 0, at = 0;
        for (std::size_t i = 0; i < given.size(); ++i) {
            GroupMesh& group = groups[i];
            if (!group.is_made || group.revision != given[i].revision) {
                const std::size_t before = group.vertices.size();
                old_runs = group.runs;
                make(given[i], group);
                is_other = is_other || before != group.vertices.size() || old_runs != group.runs;
                first_changed = std::min(first_changed, at);
                behind_changed = at + group.vertices.size();
                if (!is_other)
                    std::copy(group.vertices.begin(), group.vertices.end(),
                              vertices.begin() + static_cast<std::ptrdiff_t>(at));
            }
            at += group.vertices.size();
        }
        changed = {};
        if (is_other) {
            join(at);
            changed = {0, vertices.size()};
        } else if (behind_changed > 0) {
            changed = {first_changed, behind_changed - first_changed};
        }
    }

    void make(const DisplayGroup& given, GroupMesh& group) {
        group.vertices.clear();
        group.runs.clear();
        // What it draws again stays where it is.
        old_used = group.used;
        group.used.clear();
        GroupMaker maker(atlas, given, group);
        maker.make();
        release(old_used);
        group.revision = given.revision;
        group.is_made = true;
        if (!maker.is_complete && status)
            status = Problem{{},
                             "the atlas has no room for all that is drawn; some of it is left out",
                             "draw less at once, or larger pages",
                             ProblemCode::too_much,
                             Severity::warning};
    }

    /// All groups one after the other.
    void join(std::size_t count) {
        vertices.clear();
        vertices.reserve(count);
        batches.clear();
        std::uint32_t quads = 0;
        for (const GroupMesh& group : groups) {
            vertices.insert(vertices.end(), group.vertices.begin(), group.vertices.end());
            for (const GroupMesh::Run& run : group.runs) {
                if (batches.empty() || batches.back().page != run.page) batches.push_back({quads * 6, 0, run.page});
                batches.back().index_count += run.quads * 6;
                quads += run.quads;
            }
        }
        for (auto quad = static_cast<std::uint32_t>(indices.size() / 6); quad < quads; ++quad)
            for (const std::uint32_t corner : {0U, 1U, 2U, 2U, 1U, 3U})
                indices.push_back(quad * 4 + corner);
    }
};

Mesh::Mesh(MeshAtlas& atlas) : state_(std::make_unique<State>(atlas.state_)) {}
Mesh::~Mesh() = default;
Mesh::Mesh(Mesh&&) noexcept = default;
Mesh& Mesh::operator=(Mesh&&) noexcept = default;

void Mesh::draw(const DisplayList& list) {
    state_->draw(list);
}
std::span<const MeshVertex> Mesh::vertices() const {
    return state_->vertices;
}
std::span<const std::uint32_t> Mesh::indices() const {
    return state_->indices;
}
std::span<const MeshBatch> Mesh::batches() const {
    return state_->batches;
}
Mesh::Range Mesh::changed() const {
    return state_->changed;
}
const Status& Mesh::status() const {
    return state_->status;
}

}  // namespace rapido
