// sqrt n
#include <cstdio>
int main() {
    long long n, s = 0;
    scanf("%lld", &n);
    for (long long d = 1; d * d <= n; d++)
        for (volatile int k = 0; k < 20; k++) s += n % d == 0;
    printf("%lld\n", s);
}
