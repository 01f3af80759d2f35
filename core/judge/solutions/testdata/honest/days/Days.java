// Through a writer that is closed.
import java.io.*;
public class Days {
    public static void main(String[] args) throws IOException {
        int n = Integer.parseInt(new BufferedReader(new InputStreamReader(System.in)).readLine().trim());
        try (PrintStream out = new PrintStream(new BufferedOutputStream(System.out))) {
            for (int i = 1; i <= n; i++) out.println("day " + i + ": " + (i * 7 % 40 - 20));
        }
    }
}
