public class Solution {
    public Dictionary<string, object> Flattened(object log, string join) {
        var result = new Dictionary<string, object>();
        Walk(log, "", join, result);
        return result;
    }
    void Walk(object v, string path, string join, Dictionary<string, object> result) {
        string before = path == "" ? "" : path + join;
        if (v is IDictionary<string, object> map) foreach (var e in map) Walk(e.Value, before + e.Key, join, result);
        else if (v is IList<object> list) for (int i = 0; i < list.Count; i++) Walk(list[i], before + i, join, result);
        else result[path] = v;
    }
}
