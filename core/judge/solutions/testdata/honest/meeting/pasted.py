# It returns the node at which the circle begins.
class Solution:
    def whereItJoins(self, rope: Optional[ListNode]) -> Optional[ListNode]:
        seen = set()
        while rope and rope not in seen:
            seen.add(rope)
            rope = rope.next
        return rope
