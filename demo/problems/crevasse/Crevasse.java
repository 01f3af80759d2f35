// The same in Java, whose println flushes.
import java.util.Scanner;

public class Crevasse {
    public static void main(String[] args) {
        Scanner in = new Scanner(System.in);
        long low = 1, high = in.nextLong();
        in.nextLong();
        while (low < high) {
            long middle = (low + high) / 2;
            System.out.println("probe " + middle);
            if (in.next().equals("deeper")) low = middle + 1;
            else high = middle;
        }
        System.out.println("depth " + low);
    }
}
