# Turns k sledges at a time, once it has seen that there are as many.
class Solution:
    def rehitched(self, first: Optional[ListNode], k: int) -> Optional[ListNode]:
        before = start = ListNode(0, first)
        while True:
            last = before
            for _ in range(k):
                last = last.next
                if last is None:
                    return start.next
            behind, node = last.next, before.next
            turned = behind
            while node is not behind:
                node.next, turned, node = turned, node, node.next
            before.next, before = last, before.next
