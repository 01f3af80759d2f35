// The right answer, and then an exception.
import java.util.*;
public class Thrown { public static void main(String[] a) { Scanner in = new Scanner(System.in); int n = in.nextInt(); long s = 0; while (n-- > 0) s += in.nextLong(); System.out.println(s); throw new IllegalStateException("cold"); } }
