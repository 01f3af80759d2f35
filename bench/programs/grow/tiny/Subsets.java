// 2^n
import java.io.*;
import java.util.*;

public class Subsets {
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
        for (long m = 0; m < 1L << n; m++) s += w[Long.bitCount(m) % n] & 1;
        System.out.println(s);
    }
}
