struct Node *without(struct Node *rope, int value) {
    while (rope && rope->val == value) rope = rope->next;
    for (struct Node *node = rope; node && node->next;)
        if (node->next->val == value) node->next = node->next->next;
        else node = node->next;
    return rope;
}
