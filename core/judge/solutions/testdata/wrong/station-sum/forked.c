// The child's answer comes when the program has ended.
#include <stdio.h>
#include <unistd.h>
int main(void) { long long n, x, s = 0; if (scanf("%lld", &n) != 1) return 1; while (n-- > 0 && scanf("%lld", &x) == 1) s += x; if (fork() == 0) { sleep(2); printf("%lld\n", s); } return 0; }
