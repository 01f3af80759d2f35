using System;
using System.Collections.Generic;
using System.Linq;

public class S
{
    public IList<string> Told(int word, int[] next, IList<string> lines, string rest, double left, List<int> used, int len, string text)
    {
        int sum = word + next.Sum() + (int)(left * 2) + used.Sum() + len - 5;
        return lines.Concat(new[] { rest, text, sum.ToString() }).ToList();
    }
}
