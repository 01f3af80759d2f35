// n + m
import java.io.*;

public class Degrees {
    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedInputStream(System.in));
        in.nextToken();
        int n = (int) in.nval;
        in.nextToken();
        int m = (int) in.nval;
        int[] deg = new int[n + 1];
        for (int i = 0; i < 2 * m; i++) {
            in.nextToken();
            deg[(int) in.nval]++;
        }
        int most = 0;
        for (int x : deg) most = Math.max(most, x);
        System.out.println(most);
    }
}
