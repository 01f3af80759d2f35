ListNode *reversed_rope(ListNode *head) { if (head) head->next->next = head; return head; }
