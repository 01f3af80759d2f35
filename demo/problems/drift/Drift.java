// The same in Java, whose println goes over to powers of ten by itself.
import java.io.*;
import java.util.*;

public class Drift {
    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedInputStream(System.in));
        in.nextToken();
        int n = (int) in.nval;
        double way = 0, sum = 0, px = 0, py = 0;
        for (int i = 0; i < n; i++) {
            in.nextToken();
            double x = in.nval;
            in.nextToken();
            double y = in.nval;
            if (i > 0) way += Math.hypot(x - px, y - py);
            sum += Math.hypot(x, y);
            px = x;
            py = y;
        }
        System.out.println(way);
        System.out.println(sum / n);
    }
}
