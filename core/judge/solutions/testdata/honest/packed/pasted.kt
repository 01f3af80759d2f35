class Solution { fun packed(temps: IntArray, missing: Int): Int { var k = 0; for (t in temps) if (t != missing) temps[k++] = t; return k } }
