// No line end at the end of what is printed.
#include <stdio.h>
int main(void)
{
    long long n, x, sum = 0;
    if (scanf("%lld", &n) != 1) return 1;
    while (n-- > 0 && scanf("%lld", &x) == 1) sum += x;
    printf("%lld", sum);
    return 0;
}
