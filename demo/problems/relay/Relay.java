// With the leaders of groups, which lead to each other.
import java.io.*;

public class Relay {
    static int[] leader;

    static int find(int beacon) {
        while (leader[beacon] != beacon) beacon = leader[beacon] = leader[leader[beacon]];
        return beacon;
    }

    public static void main(String[] args) throws IOException {
        StreamTokenizer in = new StreamTokenizer(new BufferedInputStream(System.in));
        in.nextToken();
        int n = (int) in.nval;
        in.nextToken();
        int m = (int) in.nval;
        leader = new int[n + 1];
        int[] size = new int[n + 1];
        for (int i = 1; i <= n; i++) leader[i] = i;
        while (m-- > 0) {
            in.nextToken();
            int a = find((int) in.nval);
            in.nextToken();
            int b = find((int) in.nval);
            leader[Math.max(a, b)] = Math.min(a, b);
        }
        for (int i = 1; i <= n; i++) size[find(i)]++;
        StringBuilder out = new StringBuilder();
        for (int i = 1; i <= n; i++) if (leader[i] == i) out.append(i).append(' ').append(size[i]).append('\n');
        System.out.print(out);
    }
}
