// A byte that is none of the answer's.
#include <stdio.h>
int main(void) { long long n, x, s = 0; if (scanf("%lld", &n) != 1) return 1; while (n-- > 0 && scanf("%lld", &x) == 1) s += x; printf("%lld%c\n", s, 0); return 0; }
