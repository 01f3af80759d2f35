// 32 bits.
#include <stdio.h>
int main(void) { int n, x, s = 0; if (scanf("%d", &n) != 1) return 1; while (n-- > 0 && scanf("%d", &x) == 1) s = (int)((unsigned)s + (unsigned)x); printf("%d\n", s); return 0; }
