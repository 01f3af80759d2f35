// A writer that flushes by itself.
import java.io.*;
import java.util.*;
class Probe {
    public static void main(String[] args) {
        Scanner in = new Scanner(System.in);
        PrintWriter out = new PrintWriter(System.out, true);
        int low = 1, high = in.nextInt();
        while (low < high) {
            int middle = low + (high - low) / 2;
            out.println("probe " + middle);
            if (in.next().equals("deeper")) low = middle + 1;
            else high = middle;
        }
        out.println("depth " + low);
    }
}
