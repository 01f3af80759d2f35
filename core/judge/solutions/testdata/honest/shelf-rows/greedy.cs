// Greedy.
public class Solution {
    public IList<IList<string>> Rows(string[] words, int width) {
        var all = new List<IList<string>>();
        int used = width + 1;
        foreach (var w in words) {
            if (used + w.Length > width) { all.Add(new List<string>()); used = 0; }
            all[all.Count - 1].Add(w);
            used += w.Length;
        }
        return all;
    }
}
