class Solution { public int packed(int[] temps, int missing) { int k = 0; for (int t : temps) if (t != missing) temps[k++] = t; return k; } }
