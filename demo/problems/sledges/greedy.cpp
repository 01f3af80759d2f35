// Wrong: pairs each crate with the next heavier one, which wastes the light ones.
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
    int sledges = 0;
    for (int i = 0; i < n; sledges++) {
        if (i + 1 < n && weights[i] + weights[i + 1] <= capacity) i++;
        i++;
    }
    printf("%d\n", sledges);
}
