// It returns the node at which the circle begins.
class Solution {
    fun whereItJoins(rope: ListNode?): ListNode? {
        val seen = HashSet<ListNode>()
        var at = rope
        while (at != null && seen.add(at)) at = at.next
        return at
    }
}
