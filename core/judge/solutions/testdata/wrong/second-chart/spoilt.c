struct Node *made[101];
static struct Node *chart(struct Node *camp) {
    if (!camp) return 0;
    if (made[camp->val]) return made[camp->val];
    struct Node *node = made[camp->val] = malloc(sizeof *node);
    *node = *camp;
    node->neighbors = malloc((camp->numNeighbors + 1) * sizeof *node->neighbors);
    for (int i = 0; i < node->numNeighbors; i++) node->neighbors[i] = chart(camp->neighbors[i]);
    camp->numNeighbors = 0;
    return node;
}
struct Node *second_chart(struct Node *camp) {
    memset(made, 0, sizeof made);
    return chart(camp);
}
