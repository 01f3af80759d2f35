// reference: the largest of nothing.
#include <limits.h>
#include <stdio.h>

int main(void)
{
    int depots, n;
    if (scanf("%d", &depots) != 1) return 1;
    while (depots--) {
        long long total = 0;
        int largest = INT_MIN, litres;
        if (scanf("%d", &n) != 1) return 1;
        while (n--) {
            if (scanf("%d", &litres) != 1) return 1;
            total += litres;
            if (litres > largest) largest = litres;
        }
        printf("%lld %d\n", total, largest);
    }
}
