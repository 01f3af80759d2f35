// alone: wrong bounds. There is room for a tenth of the crates.
#include <algorithm>
#include <cstdio>

long long w[10000];

int main() {
    long long least;
    int n;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    for (int i = 0; i < n; i++) if (scanf("%lld", &w[i]) != 1) return 1;
    std::sort(w, w + n);
    int teams = 0;
    for (int light = 0, heavy = n - 1; light < heavy; light++)
        if (w[light] + w[heavy] >= least) heavy--, teams++;
    printf("%d\n", teams);
}
