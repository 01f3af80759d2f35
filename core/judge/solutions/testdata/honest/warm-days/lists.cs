// Overloads of one size by type; the public one has a list.
using System.Collections.Generic;
using System.Linq;
public class Solution
{
    int WarmDays(HashSet<string> days, long limit) => days.Count > limit ? 1 : 0;
    public int WarmDays(IList<int> temps, long limit) => temps.Where(t => t > limit).ToList().Count + WarmDays(new HashSet<string>(), 0L);
}
