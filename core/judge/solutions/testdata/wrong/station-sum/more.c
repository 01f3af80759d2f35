// More than the answer.
#include <stdio.h>
int main(void) { long long n, x, s = 0; printf("sum: "); if (scanf("%lld", &n) != 1) return 1; while (n-- > 0 && scanf("%lld", &x) == 1) s += x; printf("%lld\n", s); return 0; }
