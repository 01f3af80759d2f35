
static void cold_link_graph(X *before, long long children, X *node)
{
    GROW
    before->MANY[children] = node;
    SET
}

static long long cold_links_graph(const X *node) { return COUNT; }

static X *cold_take_graph(void)
{
    X **all = NULL;
    long long n = 0, room = 0, links = 0, links_room = 0, *link = NULL;
    /* Links may lead to nodes that come later: they are kept, with a 0 behind those of each node. */
    cold_next();
    while (cold_peek() != ']' && cold_peek() >= 0) {
        if (n > 0) cold_next();
        X *node = calloc(1, sizeof *node);
        if (n == room) all = realloc(all, (room = 2 * room + 16) * sizeof *all);
        all[n++] = node;
        VALUE = n;
        cold_next();
        for (;;) {
            int end = cold_peek() == ']' || cold_peek() < 0;
            if (links == links_room) link = realloc(link, (links_room = 2 * links_room + 16) * sizeof *link);
            link[links++] = end ? 0 : cold_integer(1, 1LL << 60);
            if (end) break;
            if (cold_peek() == ',') cold_next();
        }
        cold_next();
    }
    cold_next();
    for (long long i = 0, at = 0; i < n; i++) {
        for (long long children = 0; link[at] > 0; at++) cold_link_graph(all[i], children++, all[link[at] - 1]);
        at++;
    }
    X *first = n > 0 ? all[0] : NULL;
    free(all), free(link);
    return first;
}

static int cold_by_value(const void *a, const void *b)
{
    const X *node = *(X *const *)a, *other = *(X *const *)b;
    return (VALUE > other->FIELD) - (VALUE < other->FIELD);
}

static void cold_give_graph(X *first)
{
    X **all = malloc(sizeof *all);
    long long n = 0, room = 1;
    struct cold_places seen = {0};
    if (first) cold_place(&seen, all[n++] = first, 0);
    for (long long i = 0; i < n; i++)
        for (long long j = 0; j < cold_links_graph(all[i]); j++) {
            X *node = all[i]->MANY[j];
            if (!node || !cold_place(&seen, node, 0)) continue;
            if (n == room) all = realloc(all, (room = 2 * room + 2) * sizeof *all);
            all[n++] = node;
        }
    cold_leave(&seen);
    qsort(all, n, sizeof *all, cold_by_value);
    cold_say("[");
    for (long long i = 0; i < n; i++) {
        X *node = all[i];
        cold_visit(node, VALUE);
        if (i > 0 && VALUE == all[i - 1]->FIELD && !cold_misfit[0]) snprintf(cold_misfit, sizeof cold_misfit, "it returned a graph with two nodes of the value %lld", (long long)VALUE);
        cold_say(i > 0 ? ",[" : "[");
        for (long long j = 0, said = 0; j < cold_links_graph(all[i]); j++) {
            if (!(node = all[i]->MANY[j])) continue;
            if (said++ > 0) cold_say(",");
            cold_give_integer(VALUE);
        }
        cold_say("]");
    }
    cold_say("]");
    free(all);
}
