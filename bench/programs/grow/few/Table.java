// n^2
import java.io.*;
import java.util.*;

public class Table {
    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedInputStream(System.in));
        in.nextToken();
        int n = (int) in.nval;
        long[] w = new long[n];
        for (int i = 0; i < n; i++) {
            in.nextToken();
            w[i] = (long) in.nval;
        }
        long s = 0;
        long[][] t = new long[n + 1][n + 1];
        for (int i = 1; i <= n; i++)
            for (int k = 1; k <= n; k++) t[i][k] = Math.max(t[i - 1][k], t[i][k - 1]) + (w[i - 1] + w[k - 1]) % 2;
        s = t[n][n];
        System.out.println(s);
    }
}
