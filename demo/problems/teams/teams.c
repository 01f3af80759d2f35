/* The same in C, with the library's own sort. */
#include <stdio.h>
#include <stdlib.h>

static long long weights[200000];

static int lighter(const void *a, const void *b)
{
    long long x = *(const long long *)a, y = *(const long long *)b;
    return (x > y) - (x < y);
}

int main(void)
{
    int n;
    long long least;
    if (scanf("%lld %d", &least, &n) != 2) return 1;
    for (int i = 0; i < n; i++)
        if (scanf("%lld", &weights[i]) != 1) return 1;
    qsort(weights, n, sizeof weights[0], lighter);
    int light = 0, heavy = n - 1, teams = 0;
    while (light < heavy) {
        if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
        light++;
    }
    printf("%d\n", teams);
}
