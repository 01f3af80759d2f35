static X *cold_take_tree(void)
{
    X **all = NULL, *root = NULL;
    long long n = 0, room = 0, at = 0, parent = 0;
    cold_next();
    for (; cold_peek() != ']' && cold_peek() >= 0; at++) {
        if (at > 0) cold_next();
        X *node = NULL;
        if (cold_peek() == 'n') cold_skip();
        else {
            node = calloc(1, sizeof *node);
            VALUE = READ;
            if (n == room) all = realloc(all, (room = 2 * room + 16) * sizeof *all);
            all[n++] = node;
        }
        if (at == 0) root = node;
        else if (at % 2 == 1) all[parent]->LEFT = node;
        else all[parent++]->RIGHT = node;
    }
    cold_next();
    free(all);
    return root;
}

static void cold_give_tree(X *root)
{
    X **all = malloc(sizeof *all);
    long long n = 0, room = 1, said = 0;
    struct cold_places seen = {0};
    cold_say("[");
    if (root) all[n++] = root;
    size_t end = cold_size;
    for (long long i = 0; i < n && !cold_misfit[0]; i++) {
        X *node = all[i];
        if (said++ > 0) cold_say(",");
        if (!node) {
            cold_say("null");
            continue;
        }
        size_t from = cold_size;
        PUT
        end = cold_size;
        cold_visit(node, i);
        if (!cold_place(&seen, node, i)) cold_twice(from);
        if (n + 2 > room) all = realloc(all, (room = 2 * room + 2) * sizeof *all);
        all[n++] = node->LEFT;
        all[n++] = node->RIGHT;
    }
    cold_size = end; /* none stands behind the last node */
    cold_say("]");
    cold_leave(&seen);
    free(all);
}
