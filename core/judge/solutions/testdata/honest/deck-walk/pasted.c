// A stack of nodes on the way to the left.
#include <stdbool.h>
#include <stdlib.h>

typedef struct {
    struct TreeNode *open[1000];
    int count;
} DeckWalk;

static void leftwards(DeckWalk *walk, struct TreeNode *node) {
    for (; node; node = node->left) walk->open[walk->count++] = node;
}

DeckWalk *deckWalkCreate(struct TreeNode *root) {
    DeckWalk *walk = calloc(1, sizeof *walk);
    leftwards(walk, root);
    return walk;
}

int deckWalkNext(DeckWalk *obj) {
    struct TreeNode *node = obj->open[--obj->count];
    leftwards(obj, node->right);
    return node->val;
}

bool deckWalkHasNext(DeckWalk *obj) { return obj->count > 0; }

struct ListNode *deckWalkRest(DeckWalk *obj) {
    DeckWalk copy = *obj;
    struct ListNode head = {0}, *last = &head;
    while (deckWalkHasNext(&copy)) {
        last = last->next = calloc(1, sizeof *last);
        last->val = deckWalkNext(&copy);
    }
    return head.next;
}

void deckWalkFree(DeckWalk *obj) { free(obj); }
