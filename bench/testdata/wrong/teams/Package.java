// alone: package line.
package station;

import java.util.*;

public class Package {
    public static void main(String[] args) {
        Scanner in = new Scanner(System.in);
        long least = in.nextLong();
        int n = in.nextInt();
        long[] w = new long[n];
        for (int i = 0; i < n; i++) w[i] = in.nextLong();
        Arrays.sort(w);
        int teams = 0;
        for (int light = 0, heavy = n - 1; light < heavy; light++)
            if (w[light] + w[heavy] >= least) { heavy--; teams++; }
        System.out.println(teams);
    }
}
