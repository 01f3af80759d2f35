// n log n
import java.io.*;
import java.util.*;

public class Sort {
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
        Long[] boxed = new Long[n];
        for (int i = 0; i < n; i++) boxed[i] = w[i];
        Arrays.sort(boxed);
        for (int i = 0; i < n; i++) s += boxed[i] * (i % 3);
        System.out.println(s);
    }
}
