// Crashes: takes the largest of no deliveries at all.
#include <algorithm>
#include <cstdio>
#include <vector>

int main() {
    int depots;
    if (scanf("%d", &depots) != 1) return 1;
    while (depots--) {
        int n;
        if (scanf("%d", &n) != 1) return 1;
        std::vector<long long> litres(n);
        long long total = 0;
        for (auto &l : litres) {
            if (scanf("%lld", &l) != 1) return 1;
            total += l;
        }
        printf("%lld %lld\n", total, *std::max_element(litres.begin(), litres.end()));
    }
}
