// A static nested class, an enum and a record beside it.
import java.util.stream.*;

class Varied {
    enum Kind { WARM, COLD }
    record Reading(int temp, Kind kind) {}
    static Reading read(int t, long limit) { return new Reading(t, t > limit ? Kind.WARM : Kind.COLD); }
    static int warmDays(int[] temps, long limit) {
        return (int) IntStream.of(temps).mapToObj(t -> read(t, limit)).filter(r -> r.kind() == Kind.WARM).count();
    }
}
