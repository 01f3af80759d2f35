using System.Numerics;

class Solution
{
    public void Renumber(int n, int[][] ropes, long[] depths, BigInteger mass)
    {
        for (int i = 0; i < depths.Length; i++) foreach (var rope in ropes) depths[i] += rope[2];
        if (mass != BigInteger.Pow(10, 18)) depths[0] = 0;
    }
}
