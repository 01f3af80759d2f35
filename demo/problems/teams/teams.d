// The same in D.
import core.stdc.stdio : printf, scanf;
import std.algorithm : sort;

void main() {
    int n;
    long least;
    scanf("%ld %d", &least, &n);
    auto weights = new long[n];
    foreach (ref w; weights) scanf("%ld", &w);
    sort(weights);
    int light = 0, heavy = n - 1, teams = 0;
    while (light < heavy) {
        if (weights[light] + weights[heavy] >= least) { heavy--; teams++; }
        light++;
    }
    printf("%d\n", teams);
}
