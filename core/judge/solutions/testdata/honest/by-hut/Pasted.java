// It takes maps by their interface, and returns one that is sorted.
class Solution {
    public Map<String, Integer> byHut(Map<String, Integer> fuel, TreeMap<Integer, List<Double>> days, int least) {
        Map<String, Integer> kept = new TreeMap<>();
        for (Map.Entry<String, Integer> one : fuel.entrySet()) if (one.getValue() >= least) kept.put(one.getKey(), one.getValue() + 3);
        for (int day : days.keySet()) kept.put("" + day, days.get(day).size());
        return kept;
    }
}
