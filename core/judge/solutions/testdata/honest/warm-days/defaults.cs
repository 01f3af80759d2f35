// A parameter more, with a default, and a private overload.
using System.Linq;
public class Solution
{
    private int WarmDays(string day, long limit) { return day.Length > limit ? 1 : 0; }
    public int WarmDays(int[] temps, long limit, int found = 0) { return found + temps.Count(t => t > limit) + WarmDays("", 0); }
}
