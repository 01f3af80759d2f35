// sqrt n
import java.util.*;

public class Divisors {
    public static void main(String[] args) {
        long n = new Scanner(System.in).nextLong(), s = 0;
        for (long d = 1; d * d <= n; d++)
            for (int k = 1; k < 20; k++) s += n % (d + k) == 0 ? 1 : 0;
        System.out.println(s);
    }
}
