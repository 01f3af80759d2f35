// Wrong: pairs each crate with the next heavier one, which wastes the heavy ones.
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
    int teams = 0;
    for (int i = 0; i + 1 < n; i++)
        if (weights[i] + weights[i + 1] >= least) { i++; teams++; }
    printf("%d\n", teams);
}
