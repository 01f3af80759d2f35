struct Node *seen[101];

struct Node *chart(struct Node *camp) {
    if (camp == NULL) return NULL;
    if (seen[camp->val]) return seen[camp->val];
    struct Node *node = (struct Node *)malloc(sizeof(struct Node));
    seen[camp->val] = node;
    node->val = camp->val;
    node->numNeighbors = camp->numNeighbors;
    node->neighbors = (struct Node **)malloc(camp->numNeighbors * sizeof(struct Node *));
    for (int i = 0; i < camp->numNeighbors; i++) node->neighbors[i] = chart(camp->neighbors[i]);
    return node;
}

struct Node *secondChart(struct Node *camp) {
    memset(seen, 0, sizeof(seen));
    return chart(camp);
}
