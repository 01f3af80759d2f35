/* Stalls: printf keeps the probe in its buffer, and scanf waits for the answer. */
#include <stdio.h>

int main(void) {
    long long n, probes, low = 1;
    if (scanf("%lld %lld", &n, &probes) != 2) return 1;
    while (low < n) {
        long long middle = (low + n) / 2;
        char answer[16];
        printf("probe %lld\n", middle);
        if (scanf("%15s", answer) != 1) return 1;
        if (answer[0] == 'd') low = middle + 1;
        else n = middle;
    }
    printf("depth %lld\n", low);
}
