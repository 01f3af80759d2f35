public class Solution { public int Packed(int[] temps, int missing) { int k = 0; foreach (var t in temps) if (t != missing) temps[k++] = t; return k; } }
