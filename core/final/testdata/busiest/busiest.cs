public class Solution {
    public IList<string> Busiest(string[] names, int k) {
        var d = new Dictionary<string, int>();
        foreach (var n in names) d[n] = d.TryGetValue(n, out var x) ? x + 1 : 1;
        return d.OrderByDescending(p => p.Value).Take(k).Select(p => p.Key).ToList();
    }
}
