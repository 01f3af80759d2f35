/* The same in C. */
#include <stdio.h>

int main(void)
{
    int depots;
    if (scanf("%d", &depots) != 1) return 1;
    while (depots--) {
        int n;
        if (scanf("%d", &n) != 1) return 1;
        long long total = 0, largest = 0, litres;
        for (int i = 0; i < n; i++) {
            if (scanf("%lld", &litres) != 1) return 1;
            total += litres;
            if (litres > largest) largest = litres;
        }
        printf("%lld %lld\n", total, largest);
    }
    return 0;
}
