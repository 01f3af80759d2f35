// A record, with an overload for flat arrays above.
import java.util.*;
import java.util.stream.*;
class Recorded {
    record Corners(Integer least, long total, int[] row, boolean warm) {}
    private Corners corners(int[] flat) { return new Corners(null, 0, flat, false); }
    Corners corners(int[][] grid) {
        if (grid.length == 0) return corners(new int[0]);
        int[] row = Arrays.stream(grid).max(Comparator.comparingLong((int[] r) -> IntStream.of(r).asLongStream().sum())).get();
        var flat = Arrays.stream(grid).flatMapToInt(Arrays::stream).boxed().collect(Collectors.toList());
        return new Corners(flat.stream().min(Comparator.naturalOrder()).orElse(null), flat.stream().mapToLong(t -> t).sum(), row, flat.stream().anyMatch(t -> t > 0));
    }
}
