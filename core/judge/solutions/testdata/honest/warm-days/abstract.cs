// A base class has the method, and is abstract.
using System.Linq;
public abstract class Base { public int WarmDays(int[] temps, long limit) { return temps.Count(t => Warm(t, limit)); } protected abstract bool Warm(int t, long l); }
public class Solution : Base { protected override bool Warm(int t, long l) { return t > l; } }
