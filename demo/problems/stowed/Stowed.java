// The same; what is in a crate is an Integer or a List.
class Solution {
    public int stowedWeight(List<Object> crate) { return dug(crate, 1); }

    private int dug(List<?> crate, int depth) {
        int sum = 0;
        for (Object one : crate) sum += one instanceof List ? dug((List<?>) one, depth + 1) : (Integer) one * depth;
        return sum;
    }
}
