public class Solution {
    public class Rope { public string Data { get; set; } public Rope Next { get; set; } public Rope Previous { get; set; } }
    public Rope Turned(Rope head) {
        Rope last = null;
        while (head != null) {
            var after = head.Next;
            head.Next = head.Previous;
            head.Previous = after;
            last = head;
            head = after;
        }
        return last;
    }
}
