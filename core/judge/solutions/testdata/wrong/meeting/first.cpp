// It returns the first node of that value.
class Solution {
public:
    ListNode *whereItJoins(ListNode *rope) {
        ListNode *slow = rope, *fast = rope;
        while (fast && fast->next) {
            slow = slow->next;
            fast = fast->next->next;
            if (slow == fast) {
                for (slow = rope; slow != fast; slow = slow->next) fast = fast->next;
                for (ListNode *n = rope;; n = n->next) if (n->val == slow->val) return n;
            }
        }
        return nullptr;
    }
};
