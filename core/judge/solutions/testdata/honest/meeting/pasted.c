/**
 * Definition for singly-linked list.
 * struct ListNode {
 *     int val;
 *     struct ListNode *next;
 * };
 */
struct ListNode *whereItJoins(struct ListNode *rope) {
    struct ListNode *slow = rope, *fast = rope;
    while (fast && fast->next) {
        slow = slow->next;
        fast = fast->next->next;
        if (slow == fast) {
            for (slow = rope; slow != fast; slow = slow->next) fast = fast->next;
            return slow;
        }
    }
    return NULL;
}
