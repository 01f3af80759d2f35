class Solution {
    fun reversedRope(head: ListNode?): ListNode? {
        var before: ListNode? = null
        var at = head
        while (at != null) {
            val after = at.next
            at.next = before
            before = at
            at = after
        }
        return before
    }
}
