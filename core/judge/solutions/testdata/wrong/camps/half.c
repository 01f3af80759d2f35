struct Node *copied(struct Node *node) {
    if (!node) return NULL;
    struct Node *made = calloc(1, sizeof *made);
    made->val = node->val;
    made->numNeighbors = node->numNeighbors;
    made->neighbors = calloc(node->numNeighbors, sizeof *made->neighbors);
    for (int i = 0; i < node->numNeighbors; i++) {
        made->neighbors[i] = calloc(1, sizeof *made);
        made->neighbors[i]->val = node->neighbors[i]->val;
    }
    return made;
}
