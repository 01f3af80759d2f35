// A tuple.
using System;
using System.Linq;
public class Solution
{
    public Tuple<int?, long, int[], bool> Corners(int[][] grid)
    {
        var flat = grid.SelectMany(r => r).ToList();
        return Tuple.Create(flat.Count == 0 ? (int?)null : flat.Min(), flat.Sum(t => (long)t), grid.OrderByDescending(r => r.Sum(t => (long)t)).FirstOrDefault() ?? new int[0], flat.Any(t => t > 0));
    }
}
