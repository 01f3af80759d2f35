// The same in Java, with its own buffered reading.
import java.io.IOException;
import java.io.StreamTokenizer;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.util.Arrays;

public class Teams {
    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedReader(new InputStreamReader(System.in)));
        in.nextToken();
        long least = (long) in.nval;
        in.nextToken();
        int n = (int) in.nval;
        long[] weights = new long[n];
        for (int i = 0; i < n; i++) {
            in.nextToken();
            weights[i] = (long) in.nval;
        }
        Arrays.sort(weights);
        int light = 0, heavy = n - 1, teams = 0;
        while (light < heavy) {
            if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
            light++;
        }
        System.out.println(teams);
    }
}
