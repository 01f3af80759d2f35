// It returns its own list, which changes later.
public class DepthLog {
    private readonly List<int> list = new List<int>();

    public void Add(int depth) { list.Add(depth); }
    public IList<int> All() { return list; }
    public void Fill(int[] depths) { list.AddRange(depths); }
    public string Summary() { return string.Join(",", list); }
    public void Restore(string text) {
        foreach (var part in text.Split(',')) if (part != "") list.Add(int.Parse(part));
    }
}
