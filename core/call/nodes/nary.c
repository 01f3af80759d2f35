
static void cold_link_nary(X *before, long long children, X *node)
{
    GROW
    before->MANY[children] = node;
    SET
}

static long long cold_links_nary(const X *node) { return COUNT; }

static X *cold_take_nary(void)
{
    X **all = NULL, *root = NULL;
    long long n = 0, room = 0, parent = -1, children = 0, at = 0;
    cold_next();
    for (; cold_peek() != ']' && cold_peek() >= 0; at++) {
        if (at > 0) cold_next();
        if (cold_peek() == 'n') {
            cold_skip();
            parent++, children = 0;
            continue;
        }
        X *node = calloc(1, sizeof *node);
        VALUE = READ;
        if (n == room) all = realloc(all, (room = 2 * room + 16) * sizeof *all);
        all[n++] = node;
        if (at == 0) {
            root = node;
            continue;
        }
        cold_link_nary(all[parent], children++, node);
    }
    cold_next();
    free(all);
    return root;
}

static void cold_give_nary(X *root)
{
    X **all = malloc(sizeof *all);
    long long n = 0, room = 1;
    struct cold_places seen = {0};
    cold_say("[");
    size_t end = cold_size;
    if (root) {
        X *node = all[n++] = root;
        PUT
        end = cold_size;
        cold_visit(node, 0);
        cold_place(&seen, node, 0);
        cold_say(",null");
    }
    long long at = 2;
    for (long long i = 0; i < n && !cold_misfit[0]; i++, at++) {
        X *before = all[i];
        for (long long j = 0; j < cold_links_nary(before) && !cold_misfit[0]; j++) {
            X *node = before->MANY[j];
            if (!node) continue;
            cold_say(",");
            size_t from = cold_size;
            PUT
            end = cold_size;
            cold_visit(node, at++);
            if (!cold_place(&seen, node, at)) cold_twice(from);
            if (n == room) all = realloc(all, (room = 2 * room + 2) * sizeof *all);
            all[n++] = node;
        }
        cold_say(",null");
    }
    cold_size = end;
    cold_say("]");
    cold_leave(&seen);
    free(all);
}
