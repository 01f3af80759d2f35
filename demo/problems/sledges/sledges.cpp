// Sorts, then pairs the heaviest crate with the lightest while they fit together.
#include <algorithm>
#include <cstdio>
#include <vector>

int main() {
    int n;
    long long capacity;
    if (scanf("%d %lld", &n, &capacity) != 2) return 1;
    std::vector<long long> weights(n);
    for (auto &w : weights)
        if (scanf("%lld", &w) != 1) return 1;
    std::sort(weights.begin(), weights.end());
    int light = 0, heavy = n - 1, sledges = 0;
    while (light <= heavy) {
        if (light < heavy && weights[light] + weights[heavy] <= capacity) light++;
        heavy--;
        sledges++;
    }
    printf("%d\n", sledges);
}
