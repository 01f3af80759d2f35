// It calls a function that is declared elsewhere.
#include <stdbool.h>

// bool is_leaky(int joint);
int first_leaky(int n) {
    int lo = 1, hi = n;
    while (lo < hi) {
        int mid = lo + (hi - lo) / 2;
        if (is_leaky(mid)) hi = mid;
        else lo = mid + 1;
    }
    return lo;
}
