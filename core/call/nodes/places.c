
/* The places of nodes, by their addresses. */
struct cold_places {
    const void **nodes;
    long long *at;
    size_t count, room;
};
/* Of the argument of which a node or a copy is returned, or others are nodes; and of what was written last. */
static struct cold_places cold_originals, cold_visited;

static size_t cold_slot(const struct cold_places *p, const void *node) {
    size_t i = (size_t)(((uintptr_t)node >> 4) * 0x9E3779B97F4A7C15u >> 20);
    for (i &= p->room - 1; p->nodes[i] && p->nodes[i] != node;) i = (i + 1) & (p->room - 1);
    return i;
}

/* cold_place notes a node, and reports that it was not known. */
static bool cold_place(struct cold_places *p, const void *node, long long at) {
    if (4 * p->count >= 3 * p->room) {
        struct cold_places wider = {NULL, NULL, p->count, p->room ? 2 * p->room : 16};
        wider.nodes = calloc(wider.room, sizeof *wider.nodes);
        wider.at = malloc(wider.room * sizeof *wider.at);
        for (size_t i = 0; i < p->room; i++)
            if (p->nodes[i]) {
                size_t to = cold_slot(&wider, p->nodes[i]);
                wider.nodes[to] = p->nodes[i], wider.at[to] = p->at[i];
            }
        free(p->nodes), free(p->at);
        *p = wider;
    }
    size_t i = cold_slot(p, node);
    if (p->nodes[i]) return false;
    p->nodes[i] = node, p->at[i] = at, p->count++;
    return true;
}

static long long cold_place_of(const struct cold_places *p, const void *node) {
    if (p->count == 0) return -1;
    size_t i = cold_slot(p, node);
    return p->nodes[i] ? p->at[i] : -1;
}

static void cold_leave(struct cold_places *p) {
    free(p->nodes), free(p->at);
    *p = (struct cold_places){0};
}

static void cold_visit(const void *node, long long at) {
    if (PLACES) cold_place(&cold_visited, node, at);
}

/* cold_keep takes what was written last for the argument that others are held against. */
static void cold_keep(void) {
    cold_leave(&cold_originals);
    cold_originals = cold_visited;
    cold_visited = (struct cold_places){0};
    cold_size = 0;
}

static void *cold_node_at(long long at) {
    for (size_t i = 0; i < cold_originals.room; i++)
        if (cold_originals.nodes[i] && cold_originals.at[i] == at) return (void *)cold_originals.nodes[i];
    return NULL;
}

static void cold_give_place(const void *node) {
    long long at = cold_place_of(&cold_originals, node);
    if (!node) cold_say("null");
    else if (at >= 0) cold_give_integer(at);
    else if (!cold_misfit[0]) snprintf(cold_misfit, sizeof cold_misfit, "it returned a node that is none of argument NODE_OF's, even if one of these has the same value");
}

/* cold_copied looks for nodes of the original among those of what was written last. */
static void cold_copied(void) {
    for (size_t i = 0; i < cold_visited.room; i++)
        if (cold_visited.nodes[i] && cold_place_of(&cold_originals, cold_visited.nodes[i]) >= 0 && !cold_misfit[0])
            snprintf(cold_misfit, sizeof cold_misfit, "it returned nodes of argument COPY_OF themselves, where a copy was asked for");
}

/* cold_twice says that a node of a tree was met before; its value was written last, from there on. */
static void cold_twice(size_t from) {
    if (!cold_misfit[0]) snprintf(cold_misfit, sizeof cold_misfit, "it returned a tree in which the node with the value %.*s has two parents", cold_size - from > 60 ? 60 : (int)(cold_size - from), cold_answer + from);
}
