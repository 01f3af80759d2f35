// The sum of two joints passes 32 bits.
class Solution : public Pipe {
public:
    int firstLeaky(int n) {
        int lo = 1, hi = n;
        while (lo < hi) { int mid = (lo + hi) / 2; if (isLeaky(mid)) hi = mid; else lo = mid + 1; }
        return lo;
    }
};
