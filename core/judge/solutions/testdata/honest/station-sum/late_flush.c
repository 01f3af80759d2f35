// A large buffer that is written at the end of the process only.
#include <stdio.h>
#include <stdlib.h>
static char room[1 << 20];
static long long sum;
static void last(void) { printf("%lld\n", sum); }
int main(void)
{
    long long n, x;
    setvbuf(stdout, room, _IOFBF, sizeof room);
    atexit(last);
    if (scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    exit(0);
}
