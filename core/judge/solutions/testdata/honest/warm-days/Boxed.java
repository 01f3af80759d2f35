// Declared by collections and classes, with an interface between.
import java.util.*;

interface Counts { Integer warmDays(List<Integer> temps, Long limit); }

public class Boxed implements Counts {
    @Override
    public Integer warmDays(List<Integer> temps, Long limit) {
        return (int) temps.stream().filter(t -> t > limit).count();
    }
}
