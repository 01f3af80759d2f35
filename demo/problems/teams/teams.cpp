// Sorts, then pairs the lightest crate with the heaviest that is left, if they are enough.
#include <algorithm>
#include <cstdio>
#include <vector>

int main() {
    int n;
    long long least;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    std::vector<long long> weights(n);
    for (auto &w : weights)
        if (scanf("%lld", &w) != 1) return 1;
    std::sort(weights.begin(), weights.end());
    int light = 0, heavy = n - 1, teams = 0;
    while (light < heavy) {
        if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
        light++;
    }
    printf("%d\n", teams);
}
