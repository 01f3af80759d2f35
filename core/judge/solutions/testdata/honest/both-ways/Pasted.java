class Solution {
    public Node turned(Node head) {
        Node last = null;
        while (head != null) {
            Node after = head.next;
            head.next = head.prev;
            head.prev = after;
            last = head;
            head = after;
        }
        return last;
    }
}
