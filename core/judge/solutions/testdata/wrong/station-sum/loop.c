// The answer, and then a loop.
#include <stdio.h>
int main(void) { long long n, x, s = 0; if (scanf("%lld", &n) != 1) return 1; while (n-- > 0 && scanf("%lld", &x) == 1) s += x; printf("%lld\n", s); fflush(stdout); for (volatile int i = 0;;) i = i + 1; }
