// Adds up in 64 bits, and begins anew for each depot.
#include <algorithm>
#include <cstdio>

int main() {
    int depots;
    if (scanf("%d", &depots) != 1) return 1;
    while (depots--) {
        int n;
        if (scanf("%d", &n) != 1) return 1;
        long long total = 0, largest = 0;
        for (int i = 0; i < n; i++) {
            long long litres;
            if (scanf("%lld", &litres) != 1) return 1;
            total += litres;
            largest = std::max(largest, litres);
        }
        printf("%lld %lld\n", total, largest);
    }
}
