// Too much memory: never lets go of anything it has read.
import java.util.ArrayList;
import java.util.List;

public class Hoard {
    public static void main(String[] args) {
        List<long[]> kept = new ArrayList<>();
        while (true) {
            kept.add(new long[100_000]);
        }
    }
}
