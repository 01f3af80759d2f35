struct Node {
    int data;
    struct Node *previous, *next;
};

struct Node *without(struct Node *rope, int value) {
    struct Node *first = rope;
    for (struct Node *node = rope; node;) {
        struct Node *next = node->next;
        if (node->data == value) {
            if (node->previous) node->previous->next = next;
            else first = next;
            if (next) next->previous = node->previous;
            free(node);
        }
        node = next;
    }
    return first;
}
