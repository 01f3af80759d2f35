// The solution is an inner class, with an inner helper.
public class Inner {
    public static void main(String[] args) { System.out.println("not run"); }

    class Solution {
        class Day {
            int warmDays(int[] temps, long limit) { return temps[0] > limit ? 1 : 0; }
        }

        int warmDays(int[] temps, long limit) {
            int n = 0;
            for (int t : temps) n += new Day().warmDays(new int[] {t}, limit);
            return n;
        }
    }
}
