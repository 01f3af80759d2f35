class Solution:
    def woven(self, ropes: List[Optional[ListNode]]) -> Optional[ListNode]:
        heap = [(n.val, i, n) for i, n in enumerate(ropes) if n]
        heapify(heap)
        first = at = ListNode()
        while heap:
            _, i, n = heappop(heap)
            at.next = at = n
            if n.next:
                heappush(heap, (n.next.val, i, n.next))
        return first.next
