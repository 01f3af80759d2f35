class Solution {
    public Node deepest(Node root) {
        Node made = new Node(root.val + 1, new ArrayList<>());
        for (Node c : root.children) made.children.add(deepest(c));
        return made;
    }
}
