// A nested class, beside a helper.
using System.Linq;
public class Outer { class Helper { public int WarmDays(int[] t, long l) { return -1; } } public class Solution { public int WarmDays(int[] temps, long limit) { return temps.Count(t => t > limit); } } static void Main() {} }
