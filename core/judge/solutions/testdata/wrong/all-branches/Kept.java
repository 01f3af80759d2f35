// What it keeps is static.
class Solution {
    static List<Integer> all = new ArrayList<>();
    public List<Integer> inOrder(Node branch) {
        if (branch == null) return all;
        all.add(branch.val);
        for (Node b : branch.children) inOrder(b);
        return all;
    }
}
