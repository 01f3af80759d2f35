static X *cold_take_KIND(void)
{
    X *node = NULL, *first = NULL, **into = &first, **all = NULL;
    long long n = 0, room = 0;
    int object = cold_peek() == '{';
    if (object) for (int i = 0; i < 8; i++) cold_next();
    cold_next();
    while (cold_peek() != ']' && cold_peek() >= 0) {
        if (n > 0) cold_next();
        node = calloc(1, sizeof *node);
        VALUE = READ;
        if (n == room) all = realloc(all, (room = 2 * room + 16) * sizeof *all);
        all[n++] = *into = node;
        LINK_BACK
        into = &node->NEXT;
    }
    cold_next();
    if (object) {
        for (int i = 0; i < 9; i++) cold_next();
        node = *into = all[cold_integer(0, 1LL << 60)];
        CLOSE_BACK
        cold_next();
    }
    free(all);
    return first;
}

static void cold_give_KIND(X *node)
{
    /* One that goes twice as fast meets the other where there is a circle. */
    X *slow = node, *fast = node;
    long long n = 0, cycle = -1, i = 0;
    const X *before = NULL;
    while (fast && fast->NEXT) {
        slow = slow->NEXT, fast = fast->NEXT->NEXT;
        if (slow == fast) break;
    }
    if (fast && fast->NEXT) {
        cycle = 0;
        for (X *from = node; from != slow; from = from->NEXT) slow = slow->NEXT, cycle++;
        n = cycle;
        X *at = slow;
        do at = at->NEXT, n++;
        while (at != slow);
        cold_say("{\"list\":");
    }
    cold_say("[");
    for (; node && (cycle < 0 || i < n); node = node->NEXT, i++) {
        if (i > 0) cold_say(",");
        PUT
        cold_visit(node, i);
        CHECK_BACK
    }
    cold_say("]");
    if (cycle >= 0) {
        cold_say(",\"cycle\":");
        cold_give_integer(cycle);
        cold_say("}");
    }
}

