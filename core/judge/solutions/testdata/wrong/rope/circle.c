struct ListNode *reversed_rope(struct ListNode *head) { if (head) head->next->next = head; return head; }
