using System;
using System.Collections.Generic;
using System.Linq;

public class Survey
{
    public static Tuple<int[][], string, double, bool, List<bool>> SurveyCamp(int limit, string[] names, IList<IList<int>> table, List<bool> open, double weight, char sign, string note, long total)
    {
        string longest = names.Length == 0 ? note : names.OrderBy(x => x.Length).Last();
        var reversed = new List<bool>(open);
        reversed.Reverse();
        return Tuple.Create(table.Select(row => row.Select(x => x + limit).ToArray()).ToArray(), longest, (weight + total) / 2, open.Any(x => x) && sign == 'x', reversed);
    }

    public static void Main()
    {
        Console.WriteLine(SurveyCamp(1, new string[0], new List<IList<int>>(), new List<bool>(), 1, 'x', "", 1));
    }
}
