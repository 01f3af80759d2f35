// It returns the joint before.
#include <stdbool.h>
bool isLeaky(int joint);
int firstLeaky(int n) {
    int lo = 0, hi = n;
    while (hi - lo > 1) {
        int mid = lo + (hi - lo) / 2;
        if (isLeaky(mid)) hi = mid;
        else lo = mid;
    }
    return lo;
}
