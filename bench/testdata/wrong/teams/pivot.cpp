// alone: slow on the worst style. Its own sorting takes the first for the pivot.
#include <cstdio>
#include <utility>
#include <vector>

std::vector<long long> w;

void sort(int from, int to) {
    while (to - from > 1) {
        int middle = from;
        for (int i = from + 1; i < to; i++)
            if (w[i] < w[from]) std::swap(w[++middle], w[i]);
        std::swap(w[from], w[middle]);
        sort(middle + 1, to);
        to = middle;
    }
}

int main() {
    long long least;
    int n;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    w.resize(n);
    for (auto &x : w) if (scanf("%lld", &x) != 1) return 1;
    sort(0, n);
    int teams = 0;
    for (int light = 0, heavy = n - 1; light < heavy; light++)
        if (w[light] + w[heavy] >= least) heavy--, teams++;
    printf("%d\n", teams);
}
