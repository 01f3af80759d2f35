// So has a class beside it.
class Helper { int walk(int[] steps) { return 0; } }
public class Solution { public int walk(int[] steps) { int s = 0; for (int x : steps) s += x; return s; } int walk(int x) { return 1; } }
