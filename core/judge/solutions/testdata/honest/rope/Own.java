public class Own {
    static class Knot { final int data; Knot nxt; Knot(int data) { this.data = data; } }
    static Knot reversedRope(Knot head) {
        Knot out = null;
        for (; head != null; head = head.nxt) { Knot one = new Knot(head.data); one.nxt = out; out = one; }
        return out;
    }
}
