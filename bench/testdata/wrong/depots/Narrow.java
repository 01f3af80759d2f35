// reference: overflow, which Java passes over.
import java.io.*;

public class Narrow {
    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedInputStream(System.in));
        StringBuilder out = new StringBuilder();
        in.nextToken();
        for (int depots = (int) in.nval; depots > 0; depots--) {
            in.nextToken();
            int total = 0, largest = 0;
            for (int n = (int) in.nval; n > 0; n--) {
                in.nextToken();
                total += (int) in.nval;
                largest = Math.max(largest, (int) in.nval);
            }
            out.append(total).append(' ').append(largest).append('\n');
        }
        System.out.print(out);
    }
}
