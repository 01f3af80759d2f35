// alone: uninitialised. The way begins as whatever is there.
#include <cmath>
#include <cstdio>

int main() {
    int n;
    double way, sum = 0, px = 0, py = 0;
    if (scanf("%d", &n) != 1) return 1;
    for (int i = 0; i < n; i++) {
        double x, y;
        if (scanf("%lf %lf", &x, &y) != 2) return 1;
        if (i > 0) way += std::hypot(x - px, y - py);
        sum += std::hypot(x, y);
        px = x, py = y;
    }
    printf("%.10f\n%.10f\n", way, sum / n);
}
