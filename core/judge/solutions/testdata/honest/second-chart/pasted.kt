class Solution {
    val seen = HashMap<Node, Node>()
    fun secondChart(node: Node?): Node? {
        if (node == null) return null
        seen[node]?.let { return it }
        val c = Node(node.`val`)
        seen[node] = c
        c.neighbors = ArrayList(node.neighbors.map { secondChart(it) })
        return c
    }
}
