class Solution {
    public void turnedAbout(TreeNode camp) {
        Deque<TreeNode> open = new ArrayDeque<>();
        if (camp != null) open.push(camp);
        while (!open.isEmpty()) {
            TreeNode post = open.pop(), left = post.left;
            post.left = post.right;
            post.right = left;
            if (post.left != null) open.push(post.left);
            if (post.right != null) open.push(post.right);
        }
    }
}
