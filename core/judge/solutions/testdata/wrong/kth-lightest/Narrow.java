// Its weights are ints.
class Solution {
    int kth(int[] weights, int k) { Arrays.sort(weights); return weights[k - 1]; }
}
