// A sequence of the days in place of their number.
using System.Linq;
using System.Collections.Generic;
class Solution { public IEnumerable<int> WarmDays(int[] temps, long limit) { return temps.Where(t => t > limit); } }
