// The answer goes to standard error.
#include <stdio.h>
int main(void) { long long n, x, s = 0; if (scanf("%lld", &n) != 1) return 1; while (n-- > 0 && scanf("%lld", &x) == 1) s += x; fprintf(stderr, "%lld\n", s); return 0; }
