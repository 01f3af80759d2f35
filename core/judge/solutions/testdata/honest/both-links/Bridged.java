// It bridges each.
class Solution {
    Node without(Node rope, int value) {
        Node first = rope;
        for (Node node = rope; node != null; node = node.next) {
            if (node.val != value) continue;
            if (node.prev != null) node.prev.next = node.next; else first = node.next;
            if (node.next != null) node.next.prev = node.prev;
        }
        return first;
    }
}
