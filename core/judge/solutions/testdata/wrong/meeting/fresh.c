struct ListNode *whereItJoins(struct ListNode *rope) {
    struct ListNode *seen[1000];
    for (int n = 0; rope && n < 1000; rope = rope->next) {
        for (int i = 0; i < n; i++)
            if (seen[i] == rope) {
                struct ListNode *node = malloc(sizeof *node);
                *node = *rope;
                return node;
            }
        seen[n++] = rope;
    }
    return NULL;
}
