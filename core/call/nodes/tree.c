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
    long long n = 0, room = 1, nothing = 0;
    cold_say("[");
    if (root) all[n++] = root;
    for (long long i = 0, said = 0; i < n; i++) {
        X *node = all[i];
        if (!node) {
            nothing++;
            continue;
        }
        for (; nothing > 0; nothing--) cold_say(said++ > 0 ? ",null" : "null");
        if (said++ > 0) cold_say(",");
        PUT
        if (n > 10000000) {
            snprintf(cold_misfit, sizeof cold_misfit, "it returned a tree in which a node has two parents, or more than ten million nodes");
            break;
        }
        if (n + 2 > room) all = realloc(all, (room = 2 * room + 2) * sizeof *all);
        all[n++] = node->LEFT;
        all[n++] = node->RIGHT;
    }
    cold_say("]");
    free(all);
}

