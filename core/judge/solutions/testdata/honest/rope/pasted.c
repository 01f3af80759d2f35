/**
 * struct ListNode { int val; struct ListNode *next; };
 */
struct ListNode* reversedRope(struct ListNode* head) {
    struct ListNode *before = NULL;
    while (head) {
        struct ListNode *after = head->next;
        head->next = before;
        before = head;
        head = after;
    }
    return before;
}
