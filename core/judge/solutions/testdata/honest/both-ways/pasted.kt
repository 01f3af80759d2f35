class Solution {
    fun turned(head: Node?): Node? {
        var cur = head
        var last: Node? = null
        while (cur != null) {
            val next = cur.next
            cur.next = cur.prev
            cur.prev = next
            last = cur
            cur = next
        }
        return last
    }
}
