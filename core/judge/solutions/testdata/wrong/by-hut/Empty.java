// It takes an empty name for none.
class Solution {
    public Map<String, Integer> byHut(Map<String, Integer> fuel, Map<Integer, double[]> days, int least) {
        Map<String, Integer> kept = new HashMap<>();
        fuel.forEach((hut, n) -> { if (n >= least && !hut.isEmpty()) kept.put(hut, n + 3); });
        days.forEach((day, list) -> kept.put(day.toString(), list.length));
        return kept;
    }
}
