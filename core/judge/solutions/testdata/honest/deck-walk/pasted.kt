// Nodes are what an object is made with, and what a method returns.
class DeckWalk(root: TreeNode?) {
    val v = ArrayDeque<Int>()
    init { go(root) }
    private fun go(n: TreeNode?) { if (n != null) { go(n.left); v.add(n.`val`); go(n.right) } }
    fun next(): Int = v.poll()
    fun hasNext() = v.isNotEmpty()
    fun rest(): ListNode? { var h: ListNode? = null; for (x in v.reversed()) { val n = ListNode(x); n.next = h; h = n }; return h }
}
