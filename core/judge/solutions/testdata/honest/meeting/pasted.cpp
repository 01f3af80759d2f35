// It returns the node at which the circle begins, and needs no memory.
class Solution {
public:
    ListNode *whereItJoins(ListNode *rope) {
        ListNode *slow = rope, *fast = rope;
        while (fast && fast->next) {
            slow = slow->next;
            fast = fast->next->next;
            if (slow == fast) {
                for (slow = rope; slow != fast; slow = slow->next) fast = fast->next;
                return slow;
            }
        }
        return nullptr;
    }
};
