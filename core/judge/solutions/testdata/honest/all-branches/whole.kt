class Solution {
    fun inOrder(branch: Node?): List<Int> {
        if (branch == null) return listOf()
        return listOf(branch.`val`) + branch.children.flatMap { inOrder(it) }
    }
}
