public class BeaconCache
{
    readonly int room;
    readonly LinkedList<KeyValuePair<int, string>> order = new LinkedList<KeyValuePair<int, string>>();
    readonly Dictionary<int, LinkedListNode<KeyValuePair<int, string>>> kept = new Dictionary<int, LinkedListNode<KeyValuePair<int, string>>>();

    public BeaconCache(int room) { this.room = room; }

    public string Get(int beacon)
    {
        if (!kept.ContainsKey(beacon)) return null;
        var node = kept[beacon];
        order.Remove(node);
        order.AddLast(node);
        return node.Value.Value;
    }

    public void Put(int beacon, string reading)
    {
        if (kept.ContainsKey(beacon)) order.Remove(kept[beacon]);
        kept[beacon] = order.AddLast(new KeyValuePair<int, string>(beacon, reading));
        if (order.Count <= room) return;
        kept.Remove(order.First.Value.Key);
        order.RemoveFirst();
    }

    public int Size() { return order.Count; }
}
