struct ListNode *woven(struct ListNode **ropes, int n) {
    struct ListNode first, *at = &first;
    for (;;) {
        int best = -1;
        for (int i = 0; i < n; i++)
            if (ropes[i] && (best < 0 || ropes[i]->val < ropes[best]->val)) best = i;
        if (best < 0) break;
        at = at->next = ropes[best];
        ropes[best] = ropes[best]->next;
    }
    at->next = NULL;
    return first.next;
}
