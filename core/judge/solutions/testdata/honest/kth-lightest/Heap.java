// A heap.
class Solution {
    long kth(long[] weights, int k) {
        PriorityQueue<Long> heap = new PriorityQueue<>();
        for (long w : weights) heap.add(w);
        while (--k > 0) heap.poll();
        return heap.peek();
    }
}
