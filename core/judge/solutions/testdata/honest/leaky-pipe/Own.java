// It calls a method of its own.
class Solution {
    int firstLeaky(int n) {
        int lo = 1, hi = n;
        while (lo < hi) { int mid = lo + (hi - lo) / 2; if (isLeaky(mid)) hi = mid; else lo = mid + 1; }
        return lo;
    }
}
