// Windows line ends, and blanks behind them.
#include <stdio.h>
int main(void)
{
    long long n, x, sum = 0;
    if (scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    printf("%lld \r\n\r\n", sum);
    return 0;
}
