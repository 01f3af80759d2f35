// n^2
import java.io.*;
import java.util.*;

public class Pairs {
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
        for (int i = 0; i < n; i++)
            for (int k = 0; k < i; k++) s += (w[k] ^ w[i]) % 7;
        System.out.println(s);
    }
}
