class Solution {
    fun woven(ropes: Array<ListNode?>): ListNode? {
        val q = PriorityQueue<ListNode> { a, b -> a.`val`.compareTo(b.`val`) }
        for (r in ropes) if (r != null) q.add(r)
        val first = ListNode(0)
        var at = first
        while (q.isNotEmpty()) {
            val n = q.poll()
            at.next = n
            at = n
            n.next?.let { q.add(it) }
        }
        return first.next
    }
}
