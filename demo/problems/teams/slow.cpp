// Too slow: looks through all crates again for each team, in quadratic time.
#include <cstdio>
#include <vector>

int main() {
    int n;
    long long least;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    std::vector<long long> weights(n);
    for (auto &w : weights)
        if (scanf("%lld", &w) != 1) return 1;
    std::vector<bool> loaded(n);
    int teams = 0;
    for (;; teams++) {
        int heaviest = -1, partner = -1;
        for (int i = 0; i < n; i++)
            if (!loaded[i] && (heaviest < 0 || weights[i] > weights[heaviest])) heaviest = i;
        if (heaviest < 0) break;
        loaded[heaviest] = true;
        for (int i = 0; i < n; i++)
            if (!loaded[i] && weights[i] + weights[heaviest] >= least && (partner < 0 || weights[i] < weights[partner]))
                partner = i;
        if (partner < 0) break;
        loaded[partner] = true;
    }
    printf("%d\n", teams);
}
