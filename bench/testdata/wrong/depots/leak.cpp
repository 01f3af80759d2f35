// alone: memory. Each depot gets room for all deliveries, and keeps it.
#include <algorithm>
#include <cstdio>
#include <vector>

std::vector<std::vector<long long>> depots;

int main() {
    int t, n;
    if (scanf("%d", &t) != 1) return 1;
    while (t--) {
        if (scanf("%d", &n) != 1) return 1;
        depots.emplace_back(100000, 1);
        long long total = 0, largest = 0;
        for (int i = 0; i < n; i++) {
            if (scanf("%lld", &depots.back()[i]) != 1) return 1;
            total += depots.back()[i];
            largest = std::max(largest, depots.back()[i]);
        }
        printf("%lld %lld\n", total, largest);
    }
}
