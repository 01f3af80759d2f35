class Solution {
    public List<String> busiest(String[] names, int k) {
        Map<String, Integer> m = new HashMap<>();
        for (String s : names) m.merge(s, 1, Integer::sum);
        return m.keySet().stream().sorted((a, b) -> m.get(b) - m.get(a)).limit(k).collect(Collectors.toList());
    }
}
