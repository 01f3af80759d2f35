package station;

import java.util.*;

public class Survey {
    record Result(int[][] rows, String longest, double mean, boolean any, List<Boolean> openFirst) {}

    static Result surveyCamp(int limit, List<String> names, int[][] table, boolean[] open, double weight, char sign, String note, long total) {
        String longest = names.stream().max(Comparator.comparingInt(String::length)).orElse(note);
        int[][] rows = new int[table.length][];
        for (int i = 0; i < rows.length; i++) rows[i] = Arrays.stream(table[i]).map(x -> x + limit).toArray();
        List<Boolean> reversed = new ArrayList<>();
        boolean any = false;
        for (boolean x : open) {
            reversed.add(0, x);
            any |= x;
        }
        return new Result(rows, longest, (weight + total) / 2, any && sign == 'x', reversed);
    }

    public static void main(String[] args) {
        System.out.println(surveyCamp(1, List.of(), new int[0][], new boolean[0], 1, 'x', "", 1));
    }
}
