// The same in D.
import core.stdc.stdio : printf, scanf;
import std.algorithm : sort;

void main() {
    int n;
    long capacity;
    scanf("%d %ld", &n, &capacity);
    auto weights = new long[n];
    foreach (ref w; weights) scanf("%ld", &w);
    sort(weights);
    int light = 0, heavy = n - 1, sledges = 0;
    while (light <= heavy) {
        if (light < heavy && weights[light] + weights[heavy] <= capacity) light++;
        heavy--;
        sledges++;
    }
    printf("%d\n", sledges);
}
