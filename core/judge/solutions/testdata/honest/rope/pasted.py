class Solution:
    def reversedRope(self, head: Optional[ListNode]) -> Optional[ListNode]:
        before = None
        while head:
            head.next, before, head = before, head, head.next
        return before
