// It is made from a class that is there.
class Solution : public Pipe {
public:
    int firstLeaky(int n) {
        int lo = 1, hi = n;
        while (lo < hi) { int mid = lo + (hi - lo) / 2; if (isLeaky(mid)) hi = mid; else lo = mid + 1; }
        return lo;
    }
};
