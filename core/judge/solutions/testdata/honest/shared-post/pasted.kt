// It compares nodes, not numbers.
class Solution {
    fun sharedPost(camp: TreeNode?, one: TreeNode?, other: TreeNode?): TreeNode? {
        if (camp == null || camp === one || camp === other) return camp
        val left = sharedPost(camp.left, one, other)
        val right = sharedPost(camp.right, one, other)
        return if (left != null && right != null) camp else left ?: right
    }
}
