class Solution {
public:
    ListNode* reversedRope(ListNode* head) {
        ListNode* before = nullptr;
        while (head) {
            ListNode* after = head->next;
            head->next = before;
            before = head;
            head = after;
        }
        return before;
    }
};
