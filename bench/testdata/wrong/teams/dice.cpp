// alone: differs from run to run. It tries random orders.
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <random>
#include <vector>

int main() {
    long long least;
    int n, best = 0;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    std::vector<long long> w(n);
    for (auto &x : w) if (scanf("%lld", &x) != 1) return 1;
    std::mt19937 dice(std::chrono::steady_clock::now().time_since_epoch().count());
    for (int round = 0; round < 3; round++) {
        std::shuffle(w.begin(), w.end(), dice);
        int teams = 0;
        for (int i = 0; i + 1 < n; i += 2) teams += w[i] + w[i + 1] >= least;
        best = std::max(best, teams);
    }
    printf("%d\n", best);
}
