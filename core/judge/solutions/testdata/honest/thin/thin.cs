// In place, with a default.
using System;
public class Solution
{
    public void ThinOut(int[] temps, int by, bool sorted = true)
    {
        for (int i = 0; i < temps.Length; i++) temps[i] -= by;
        if (sorted) Array.Sort(temps);
    }
}
