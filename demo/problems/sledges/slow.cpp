// Too slow: looks through all crates again for each sledge, in quadratic time.
#include <cstdio>
#include <vector>

int main() {
    int n;
    long long capacity;
    if (scanf("%d %lld", &n, &capacity) != 2) return 1;
    std::vector<long long> weights(n);
    for (auto &w : weights)
        if (scanf("%lld", &w) != 1) return 1;
    std::vector<bool> loaded(n);
    int sledges = 0;
    for (int left = n; left > 0; sledges++) {
        int heaviest = -1, partner = -1;
        for (int i = 0; i < n; i++)
            if (!loaded[i] && (heaviest < 0 || weights[i] > weights[heaviest])) heaviest = i;
        loaded[heaviest] = true;
        left--;
        for (int i = 0; i < n; i++)
            if (!loaded[i] && weights[i] + weights[heaviest] <= capacity && (partner < 0 || weights[i] < weights[partner]))
                partner = i;
        if (partner >= 0) {
            loaded[partner] = true;
            left--;
        }
    }
    printf("%d\n", sledges);
}
