using System;
using System.Collections.Generic;
using System.Linq;
using System.Numerics;

public class Solution
{
    public int[][] Rows(int[][] grid) { return grid.Reverse().ToArray(); }

    static IList<string> Greet(IList<string> words, char sign) { return words.Select(w => w + sign).ToList(); }

    public long? Measure(long n, double x, int? cap)
    {
        if (cap == null) return 1 / x < 0 ? (long?)null : n;
        return Math.Min(n, cap.Value);
    }

    public static void Main() { }
}

static class Station
{
    public static Tuple<int, int, double> extremes(List<int> temps, bool warm) { return Tuple.Create(temps.Min(), warm ? temps.Max() : 0, temps.Average()); }

    public static BigInteger echo(BigInteger n) { return n; }
}
