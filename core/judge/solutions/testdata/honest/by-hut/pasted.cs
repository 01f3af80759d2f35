// It takes dictionaries.
public class Solution {
    public Dictionary<string, int> ByHut(Dictionary<string, int> fuel, IDictionary<int, List<double>> days, int least) {
        var kept = fuel.Where(one => one.Value >= least).ToDictionary(one => one.Key, one => one.Value + 3);
        foreach (var day in days) kept[day.Key.ToString()] = day.Value.Count;
        return kept;
    }
}
