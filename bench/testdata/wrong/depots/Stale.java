// reference: stale state. The largest is not set anew.
import java.io.*;

public class Stale {
    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedInputStream(System.in));
        in.nextToken();
        long largest = 0;
        for (int depots = (int) in.nval; depots > 0; depots--) {
            in.nextToken();
            long total = 0;
            for (int n = (int) in.nval; n > 0; n--) {
                in.nextToken();
                total += (long) in.nval;
                largest = Math.max(largest, (long) in.nval);
            }
            System.out.println(total + " " + largest);
        }
    }
}
