// alone: overflow. Two weights are added up in 32 bits.
#include <stdio.h>
#include <stdlib.h>

static int up(const void *a, const void *b) { return (*(const int *)a > *(const int *)b) - (*(const int *)a < *(const int *)b); }

int main(void)
{
    int n, w[100000];
    long long least;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    for (int i = 0; i < n; i++) if (scanf("%d", &w[i]) != 1) return 1;
    qsort(w, n, sizeof *w, up);
    int light = 0, heavy = n - 1, teams = 0;
    while (light < heavy) {
        if (w[light] + w[heavy] >= least) { heavy--; teams++; }
        light++;
    }
    printf("%d\n", teams);
}
