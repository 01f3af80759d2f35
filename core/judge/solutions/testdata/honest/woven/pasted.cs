public class Solution {
    public ListNode Woven(ListNode[] ropes) {
        var all = new List<long>();
        foreach (var r in ropes) for (var at = r; at != null; at = at.next) all.Add(at.val);
        all.Sort();
        ListNode first = null;
        for (int i = all.Count - 1; i >= 0; i--) first = new ListNode(all[i], first);
        return first;
    }
}
