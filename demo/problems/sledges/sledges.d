// The same in D.
import std.algorithm, std.array, std.conv, std.stdio;

void main() {
    int n;
    long capacity;
    readf(" %s %s", n, capacity);
    auto weights = new long[n];
    foreach (ref w; weights) readf(" %s", w);
    weights.sort();
    int light = 0, heavy = n - 1, sledges = 0;
    while (light <= heavy) {
        if (light < heavy && weights[light] + weights[heavy] <= capacity) light++;
        heavy--;
        sledges++;
    }
    writeln(sledges);
}
