// Boxed reals and a stream.
import java.util.*;
public class Mean {
    public static double meanTemp(List<Double> temps, double missing) {
        double n = temps.stream().filter(t -> !t.isNaN()).count();
        return n == 0 ? missing : temps.stream().filter(t -> !t.isNaN()).mapToDouble(t -> t / n).sum();
    }
}
