// The limit is cut.
using System.Linq;
class Solution { public int WarmDays(int[] temps, long limit) { return temps.Count(t => t > (int)limit); } }
